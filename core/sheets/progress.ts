import { z } from 'zod';
import { id } from '../parts/form/field.ts';
import { answerSchema, stepId, tickable, type RunSheet, type SheetStage } from './sheet.ts';

/** A note on a step: a few lines, with something to read in them. */
const note = z.string().max(1000).regex(/\S/, 'must hold something to read').meta({ title: 'Note' });
/** A time in UTC, as a browser writes it. */
const when = z.iso
  .datetime({ error: 'must be a time such as 2026-11-27T10:00:00.000Z' })
  .max(24, 'must be a time such as 2026-11-27T10:00:00.000Z')
  .meta({ title: 'When' });

/** A tick, a note or an answer, as its sender makes it. */
export const entryInputSchema = z
  .strictObject({
    key: id().describe('a ULID made by the sender: the same key twice is one entry'),
    stepId: stepId(),
    unitId: id().optional().describe('which item, where one sheet is for several'),
    done: z.boolean().optional(),
    note: note.optional(),
    answer: answerSchema.optional(),
    at: when,
    seen: id()
      .nullable()
      .optional()
      .describe('key of the last tick that the sender saw there; null for none. Without it, times decide')
  })
  .refine(({ done, note, answer }) => done !== undefined || note !== undefined || answer !== undefined, {
    path: ['done'],
    message: 'must be given, or a note, or an answer'
  })
  .refine(({ done, note, answer }) => answer === undefined || (done === undefined && note === undefined), {
    path: ['answer'],
    message: 'stands in an entry of its own'
  });
export type EntryInput = z.infer<typeof entryInputSchema>;

/** An entry as it is kept. */
export const entrySchema = z.strictObject({
  key: z.string(),
  stepId: z.string(),
  unitId: z.string().nullable(),
  done: z.boolean().nullable(),
  note: z.string().nullable(),
  answer: answerSchema.nullable(),
  at: z.string(),
  by: z.string(),
  against: z.string().nullable().describe('key of the entry that it contradicts without having seen it')
});
export type Entry = z.infer<typeof entrySchema>;

/** How a step stands for one item: the tick that holds, and what speaks against it. */
export type TickState = { done: boolean; entry: Entry | null; disputed: Entry | null };
const NONE: TickState = { done: false, entry: null, disputed: null };

/**
 * Names where a tick is looked up: step and item.
 * @example placeOf('discharge', null) // 'discharge '
 */
export const placeOf = (stepId: string, unitId: string | null | undefined): string => `${stepId} ${unitId ?? ''}`;

/**
 * Works out how every step stands, from entries in the order in which they were taken down. A tick and a tick are one, and the first
 * hand is kept; an entry that contradicts one which its sender had not seen leaves both standing, and the step open, until somebody
 * who has seen both decides.
 * @example marksOf([]).size // 0
 */
export function marksOf(entries: readonly Entry[]): Map<string, TickState> {
  const marks = new Map<string, TickState>();
  for (const entry of entries) {
    if (entry.done === null) continue;
    const place = placeOf(entry.stepId, entry.unitId);
    const now = marks.get(place) ?? NONE;
    const blind = entry.against !== null && [now.entry?.key, now.disputed?.key].includes(entry.against);
    // A third hand that saw neither decides nothing: the two that contradict each other go on standing.
    if (blind) marks.set(place, { done: false, entry: now.entry, disputed: now.disputed ?? entry });
    else if (now.disputed || now.entry === null || now.done !== entry.done)
      marks.set(place, { done: entry.done, entry, disputed: null });
  }
  return marks;
}

/**
 * Decides what becomes of a tick that arrives: new, already so, or contradicting one that its sender had not seen.
 * @param mark how the step stands
 * @example judge(undefined, { done: true, at: '2026-11-27T10:00:00.000Z' }) // { is: 'accepted' }
 */
export function judge(
  mark: TickState | undefined,
  entry: { done: boolean; at: string; seen?: string | null | undefined }
): { is: 'accepted' | 'already' } | { is: 'conflict'; theirs: Entry } {
  const last = mark?.disputed ?? mark?.entry;
  // Nothing ticked and nothing to untick.
  if (!last) return { is: entry.done ? 'accepted' : 'already' };
  const sawIt = entry.seen === undefined ? entry.at > last.at : entry.seen === last.key;
  if (mark?.disputed) return sawIt ? { is: 'accepted' } : { is: 'conflict', theirs: last };
  if (last.done === entry.done) return { is: 'already' };
  return sawIt ? { is: 'accepted' } : { is: 'conflict', theirs: last };
}

/** What of a stage is done. */
export type StageProgress = {
  id: string;
  title: string;
  done: number;
  all: number;
  /** Whether its check was confirmed, and every step before it is done. */
  complete: boolean;
  checked: boolean;
};

export type SheetProgress = {
  stages: StageProgress[];
  /** Which stage is at hand, counted from 0; null where all are complete. */
  current: number | null;
  done: number;
  all: number;
};

/** How many ticks a stage asks for and has, over all items. */
function stageProgress(
  { id, title, steps, checkId }: SheetStage,
  marks: ReadonlyMap<string, TickState>,
  unitIds: readonly string[]
): StageProgress {
  const places = steps.flatMap((step) =>
    step.once || unitIds.length === 0 ? [placeOf(step.id, null)] : unitIds.map((unit) => placeOf(step.id, unit))
  );
  const done = places.filter((place) => marks.get(place)?.done).length;
  const checked = marks.get(placeOf(checkId, null))?.done === true;
  return { id, title, done, all: places.length, checked, complete: checked && done === places.length };
}

/**
 * Works out how far a sheet is.
 * @param unitIds the items of a batch; none for a single one
 * @example progressOf({ stages: [] }, [], []).current // null
 */
export function progressOf(
  { stages }: Pick<RunSheet, 'stages'>,
  entries: readonly Entry[],
  unitIds: readonly string[]
): SheetProgress {
  const marks = marksOf(entries);
  const all = stages.map((stage) => stageProgress(stage, marks, unitIds));
  const at = all.findIndex(({ complete }) => !complete);
  return {
    stages: all,
    current: at === -1 ? null : at,
    done: all.reduce((sum, stage) => sum + stage.done, 0),
    all: all.reduce((sum, stage) => sum + stage.all, 0)
  };
}

/** Steps that a sheet had when it was last looked through, by id. */
export const seenStepsSchema = z.record(z.string().max(80), z.string().max(600));
export type SeenSteps = z.infer<typeof seenStepsSchema>;

/**
 * Notes the steps of a sheet, to tell later what is new.
 * @example seenSteps({ kit: [], stages: [] }) // {}
 */
export const seenSteps = (sheet: Pick<RunSheet, 'kit' | 'stages'>): SeenSteps =>
  Object.fromEntries(tickable(sheet).map(({ id, text }) => [id, text.slice(0, 600)]));

/** What the parts of a build have made of its sheet since it was last looked through. */
export type SheetChanges = {
  added: { id: string; text: string }[];
  /** Steps that are gone, with whether they had been done: what was done stays in the log. */
  gone: { id: string; text: string; done: boolean }[];
};

/**
 * Compares the steps that were seen with those of now.
 * @example changesSince({}, { kit: [], stages: [] }, []).added // []
 */
export function changesSince(
  seen: SeenSteps,
  sheet: Pick<RunSheet, 'kit' | 'stages'>,
  entries: readonly Entry[]
): SheetChanges {
  const now = new Map(tickable(sheet).map(({ id, text }) => [id, text]));
  const done = new Set(
    [...marksOf(entries).values()].flatMap(({ done, entry }) => (done && entry ? [entry.stepId] : []))
  );
  return {
    added: [...now].filter(([id]) => !Object.hasOwn(seen, id)).map(([id, text]) => ({ id, text })),
    gone: Object.entries(seen)
      .filter(([id]) => !now.has(id))
      .map(([id, text]) => ({ id, text, done: done.has(id) }))
  };
}
