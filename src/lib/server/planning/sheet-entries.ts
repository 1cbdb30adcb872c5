import type { Knex } from 'knex';
import { z } from 'zod';
import { choiceProblems, choicesMade, settle } from '#core/format/settled';
import type { Model } from '#core/parts/model';
import { plan } from '#core/plan/plan';
import { looksLikeKey } from '#core/sheets/format-choices';
import { entrySchema, judge, marksOf, placeOf, seenSteps, type Entry, type EntryInput } from '#core/sheets/progress';
import { tickable, type RunSheet, type SheetAnswer } from '#core/sheets/sheet';
import { newId } from '../db/change';
import { writing } from '../db/writing';
import { Problem, refuse } from '../problems/problem';
import { getBuild, type StoredBuild } from '../repositories/builds';
import { addCheck, knownKeys, listChecks } from '../repositories/checks';
import { getModel, updateModel } from '../repositories/models';
import { getSheet, noteSeen, type StoredSheet } from '../repositories/sheets';
import { composed, partsNow, wordsBefore } from './sheets';

type By = { by: string; at: string };

/** What became of entries that were sent, each under its key. */
export const takenSchema = z.strictObject({
  accepted: z.array(z.string()),
  already: z.array(z.string()).describe('ticked so by somebody before: the first hand is kept'),
  conflicts: z
    .array(z.strictObject({ key: z.string(), theirs: entrySchema }))
    .describe('taken down beside what they contradict: both are shown, and somebody decides'),
  unknown: z.array(z.string()).describe('of a step that is not on the sheet'),
  kept: z.array(z.string()).describe('of these, the ones of steps that were on it: they stand in the log'),
  group: z.string().optional().describe('takes back the last of them that was written; each is a change of its own')
});
export type Taken = z.infer<typeof takenSchema>;

/** Keeps an answer in the part, where the part is still there and does not say it by now. */
async function keepInPart(
  trx: Knex.Transaction,
  { crateId, build, answer, ...base }: { crateId: string; build: StoredBuild; answer: SheetAnswer; group: string } & By
): Promise<void> {
  let model;
  try {
    model = await getModel(trx, { crateId, id: build.choice.enclosureId });
  } catch (error) {
    if (error instanceof Problem && error.code === 'not-found') return;
    throw error;
  }
  const { id, version, spec } = model;
  const said = (spec as Record<string, unknown>)[answer.question];
  if (JSON.stringify(said) === JSON.stringify(answer.value)) return;
  await updateModel(trx, {
    ...base,
    crateId,
    id,
    version,
    spec: { ...spec, [answer.question]: answer.value } as Model
  });
}

const ANSWER_WORDS = {
  retention: 'how the drive is held',
  opening: 'how it is opened',
  screws: 'which screws it has',
  directionMark: 'whether it is marked',
  format: 'how it is formatted'
} as const;

/** What an entry is called in the log. */
function saidOf({ done, note, answer }: EntryInput, text: string): string {
  if (answer) return `said ${ANSWER_WORDS[answer.question]}`;
  const about = `“${text.length > 160 ? `${text.slice(0, 159)}…` : text}”`;
  if (done === undefined) return `noted at ${about}: ${note}`;
  return `${done ? 'ticked' : 'unticked'} ${about}${note ? `: ${note}` : ''}`;
}

/** Everything that is needed while entries are taken down one after the other. */
class Taking {
  readonly taken: Taken = { accepted: [], already: [], conflicts: [], unknown: [], kept: [] };
  /** Each entry is undone by itself: this is the group of the one that is being taken. */
  group = newId();
  #wrote: string | undefined;
  #words = new Map<string, { text: string; once: boolean }>();

  stored: StoredSheet;
  readonly entries: Entry[];

  constructor(
    readonly trx: Knex.Transaction,
    readonly build: StoredBuild,
    of: { stored: StoredSheet; entries: Entry[] },
    readonly base: { crateId: string } & By
  ) {
    this.stored = of.stored;
    this.entries = of.entries;
  }

  /** Composes the sheet anew, as it is after what was answered. */
  async compose(): Promise<RunSheet> {
    const sheet = composed(await partsNow(this.trx, this.build), this.build, this.stored, this.entries);
    this.#words = new Map(tickable(sheet).map(({ id, text, once }) => [id, { text, once }]));
    return sheet;
  }

  async take(entry: EntryInput, known: ReadonlySet<string>): Promise<void> {
    this.group = newId();
    if (known.has(entry.key)) {
      this.taken.already.push(entry.key);
      return;
    }
    if (entry.answer) return this.#answer(entry, entry.answer);
    const step = this.#words.get(entry.stepId);
    if (!step) return this.#ofNoStep(entry);
    const placed = { ...entry, unitId: step.once ? undefined : entry.unitId };
    if (entry.done !== undefined) return this.#tick({ ...placed, done: entry.done }, step.text);
    this.taken.accepted.push(entry.key);
    await this.#write(placed, step.text, null);
  }

  /** What was done at a step that is gone stays in the log. */
  async #ofNoStep(entry: EntryInput): Promise<void> {
    this.taken.unknown.push(entry.key);
    const was = wordsBefore(entry.stepId, this.stored, this.entries);
    if (was === undefined) return;
    this.taken.kept.push(entry.key);
    await this.#write(entry, was, null, ', a step that is no longer on the sheet');
  }

  async #tick(entry: EntryInput & { done: boolean }, text: string): Promise<void> {
    const verdict = judge(marksOf(this.entries).get(placeOf(entry.stepId, entry.unitId)), entry);
    if (verdict.is === 'already') {
      this.taken.already.push(entry.key);
      // The tick is one with the first; what was noted beside it is not lost.
      if (entry.note) await this.#write({ ...entry, done: undefined }, text, null);
      return;
    }
    if (verdict.is === 'conflict') this.taken.conflicts.push({ key: entry.key, theirs: verdict.theirs });
    else this.taken.accepted.push(entry.key);
    await this.#write(entry, text, verdict.is === 'conflict' ? verdict.theirs.key : null);
  }

  async #answer(entry: EntryInput, answer: SheetAnswer): Promise<void> {
    const { group, base } = this;
    await this.#write(entry, ANSWER_WORDS[answer.question], null);
    if (answer.question !== 'format') await keepInPart(this.trx, { ...base, build: this.build, answer, group });
    this.taken.accepted.push(entry.key);
    // What a question opens is not new in the sense that the parts were changed.
    const { version } = await noteSeen(this.trx, {
      ...base,
      id: this.stored.id,
      version: this.stored.version,
      seen: seenSteps(await this.compose()),
      event: null,
      group
    });
    this.stored = { ...this.stored, version };
  }

  async #write(entry: EntryInput, name: string, against: string | null, more = ''): Promise<void> {
    const { by, at } = this.base;
    // A clock that goes ahead would win every dispute.
    const when = entry.at > at ? at : entry.at;
    const message = `${this.build.tag}: ${saidOf(entry, name)}${more}.`;
    const kept = { ...entry, at: when };
    await addCheck(this.trx, {
      ...this.base,
      sheetId: this.stored.id,
      entry: kept,
      name,
      against,
      message,
      group: this.group
    });
    this.#wrote = this.group;
    this.entries.push({
      key: entry.key,
      stepId: entry.stepId,
      unitId: entry.unitId ?? null,
      done: entry.done ?? null,
      note: entry.note ?? null,
      answer: entry.answer ?? null,
      at: when,
      by,
      against
    });
  }

  result(): Taken {
    return this.#wrote ? { ...this.taken, group: this.#wrote } : this.taken;
  }
}

/**
 * Takes ticks, notes and answers down, in the order in which they are sent, all of them or none. An entry whose key was taken down
 * before is one with it.
 * @throws Problem `bad-input` where an item is none of the sheet, or a key belongs to another sheet; `not-found` without such a sheet
 */
export async function takeEntries(
  db: Knex,
  args: { crateId: string; id: string; entries: readonly EntryInput[] } & By
): Promise<Taken> {
  const { crateId, id, entries, by, at } = args;
  return writing(db, crateId, async (trx) => {
    const stored = await getSheet(trx, { crateId, id });
    const build = await getBuild(trx, { crate_id: crateId, id: stored.buildId });
    const before = await listChecks(trx, { crateId, sheetId: id });
    const taking = new Taking(trx, build, { stored, entries: before }, { crateId, by, at });
    const sheet = await taking.compose();
    refuse([
      ...oddItems(entries, stored, sheet),
      ...keysIn(entries),
      ...(await oddChoices(trx, { build, stored, entries, before }))
    ]);
    const known = await knownKeys(trx, { crateId, keys: entries.map(({ key }) => key) });
    refuse(
      entries.flatMap(({ key }, i) => {
        const of = known.get(key);
        return of && of !== id ? [{ path: `checks.${i}.key`, message: 'is used by an entry of another sheet' }] : [];
      })
    );
    const taken = new Set(known.keys());
    for (const entry of entries) {
      await taking.take(entry, taken);
      taken.add(entry.key);
    }
    return taking.result();
  });
}

/** Notes about a recovery key that look like the key itself: only its place is kept. */
const keysIn = (entries: readonly EntryInput[]) =>
  entries.flatMap(({ stepId, note }, i) =>
    stepId.startsWith('format:keep-key') && note !== undefined && looksLikeKey(note)
      ? [{ path: `checks.${i}.note`, message: 'looks like the key itself: write only where it lies, never the key' }]
      : []
  );

/** Choices about the format that cannot be: by themselves, or with what was chosen before. */
async function oddChoices(
  trx: Knex.Transaction,
  {
    build,
    stored,
    entries,
    before
  }: { build: StoredBuild; stored: StoredSheet; entries: readonly EntryInput[]; before: readonly Entry[] }
) {
  if (!entries.some(({ answer }) => answer?.question === 'format')) return [];
  if (stored.kind !== 'format') return [{ path: 'checks.0.answer', message: 'is nothing that this sheet asks for' }];
  const parts = await partsNow(trx, build);
  const report = plan(parts, { workings: false });
  const chosen: Pick<Entry, 'answer'>[] = [...before];
  return entries.flatMap(({ answer }, i) => {
    if (answer?.question !== 'format') return [];
    chosen.push({ answer });
    const settled = settle(parts, report, choicesMade(chosen), build.name);
    return choiceProblems(answer.value, settled)
      .filter(({ path }) => Object.hasOwn(answer.value, path.split('.')[0] ?? ''))
      .map(({ path, message }) => ({ path: `checks.${i}.answer.value.${path}`, message }));
  });
}

/** Entries that name an item which is none of the sheet, or none where there are several. */
function oddItems(entries: readonly EntryInput[], { unitIds }: StoredSheet, sheet: RunSheet) {
  const once = new Map(tickable(sheet).map((step) => [step.id, step.once]));
  return entries.flatMap(({ unitId, stepId, done }, i) => {
    const path = `checks.${i}.unitId`;
    if (unitId !== undefined && !unitIds.includes(unitId)) return [{ path, message: 'is no item of this sheet' }];
    return unitId === undefined && done !== undefined && unitIds.length > 0 && once.get(stepId) === false
      ? [{ path, message: 'must say which item' }]
      : [];
  });
}
