import { monotonicFactory } from 'ulid';
import { composeSheet, type SheetKind } from '#core/format/compose';
import type { PlanInput } from '#core/plan/report';
import { changesSince, marksOf, placeOf, progressOf, type Entry, type EntryInput } from '#core/sheets/progress';
import type { SheetAnswer } from '#core/sheets/sheet';
import { notices } from '$lib/ui/frame/notices.svelte';
import type { SheetPhoto } from '$lib/ui/assemble/acts';
import { preparePhoto } from './photo';
import { saveRefused, tellRefused } from './refused-entries';
import { allWaiting, forgetWaiting, keepWaiting, outlivesPage, sendWaiting, type Waiting } from './sheet-queue';

const newKey = monotonicFactory();

/** What the server gives of a sheet. */
export type SheetOf = {
  stored: {
    id: string;
    version: number;
    unitIds: string[];
    kind: SheetKind;
    from?: 'ready-made' | undefined;
    seen: Record<string, string>;
  };
  entries: Entry[];
  photos: SheetPhoto[];
};
type Source = { crateId: string; tag: string; title: string; parts: PlanInput; whole: SheetOf };

/** How long until what could not be sent is tried again, and until somebody else's ticks are looked for, ms. */
const RETRY_MS = 4000;
const LOOK_MS = 15_000;

/** A sheet that is worked on: what is on the server, and what waits in this browser, as one. */
export class OpenSheet {
  readonly #of: () => Source;
  /** What was read from the server last, where that is newer than what the page came with. */
  #read = $state.raw<SheetOf | null>(null);
  waiting = $state.raw<readonly Waiting[]>([]);
  away = $state(false);
  /** Whether what waits outlives the page. */
  kept = $state(true);
  /** What the last thing that was sent can be undone by. */
  last = $state.raw<string | undefined>(undefined);
  busy = $state(false);

  constructor(of: () => Source) {
    this.#of = of;
  }

  readonly #whole = $derived.by((): SheetOf => {
    const { whole } = this.#of();
    const read = this.#read;
    // The page may have been loaded anew since; whichever knows more entries is the newer one of the same sheet.
    return read && read.stored.id === whole.stored.id ? read : whole;
  });
  readonly stored = $derived.by(() => this.#whole.stored);
  readonly mine = $derived.by(() => this.waiting.filter(({ sheetId }) => sheetId === this.stored.id));
  readonly refused = $derived.by(() => this.waiting.filter(({ refused }) => refused !== undefined));
  readonly entries = $derived.by((): Entry[] => {
    const known = new Set(this.#whole.entries.map(({ key }) => key));
    const own = this.mine.flatMap((waiting) =>
      waiting.kind === 'check' && waiting.refused === undefined && !known.has(waiting.key)
        ? [asEntry(waiting.entry)]
        : []
    );
    return [...this.#whole.entries, ...own];
  });
  readonly photos = $derived.by(() => this.#whole.photos);
  readonly sheet = $derived.by(() =>
    composeSheet(this.#of().parts, { ...this.stored, title: this.#of().title }, this.entries)
  );
  readonly marks = $derived.by(() => marksOf(this.entries));
  readonly progress = $derived.by(() => progressOf(this.sheet, this.entries, this.stored.unitIds));
  readonly changes = $derived.by(() => {
    // What a question opens is not called new while its answer is on its way.
    const answered = this.mine.some((waiting) => waiting.kind === 'check' && waiting.entry.answer);
    return answered ? { added: [], gone: [] } : changesSince(this.stored.seen, this.sheet, this.entries);
  });

  isDone(stepId: string, unitId?: string): boolean {
    return this.marks.get(placeOf(stepId, unitId))?.done === true;
  }

  /** Ticks or unticks, as one who sees how it stands. */
  async tick(stepId: string, unitId: string | undefined, done: boolean): Promise<void> {
    const mark = this.marks.get(placeOf(stepId, unitId));
    const seen = (mark?.disputed ?? mark?.entry)?.key ?? null;
    await this.#add({ stepId, ...(unitId ? { unitId } : {}), done, seen });
  }
  note = (stepId: string, note: string): Promise<void> => this.#add({ stepId, note });
  /** Ticks a step and writes down what it asks for. */
  async say(stepId: string, note: string): Promise<void> {
    await this.#add({ stepId, note });
    if (!this.isDone(stepId)) await this.tick(stepId, undefined, true);
  }
  answer = (answer: SheetAnswer): Promise<void> =>
    this.#add({ stepId: `ask:${answer.question.toLowerCase()}`, answer });

  async photograph(stepId: string, unitId: string | undefined, file: File): Promise<void> {
    this.busy = true;
    const prepared = await preparePhoto(file);
    if (!prepared.ok) notices.add('error', prepared.message);
    else
      await this.#wait({
        kind: 'photo',
        photo: { stepId, ...(unitId ? { unitId } : {}), name: prepared.name, content: prepared.base64 }
      });
    this.busy = false;
  }

  async #add(entry: Omit<EntryInput, 'key' | 'at'>): Promise<void> {
    const key = newKey();
    await this.#wait({ kind: 'check', entry: { ...entry, key, at: new Date().toISOString() } }, key);
  }
  async #wait(
    what: { kind: 'check'; entry: EntryInput } | { kind: 'photo'; photo: Extract<Waiting, { kind: 'photo' }>['photo'] },
    key: string = newKey()
  ): Promise<void> {
    const { crateId, tag } = this.#of();
    const waiting: Waiting = { key, crateId, tag, sheetId: this.stored.id, ...what };
    // Seen at once; the store follows.
    this.waiting = [...this.waiting, waiting];
    await keepWaiting(waiting);
    await this.flush();
  }

  /** Sends what waits, and reads what others have done. */
  async flush(): Promise<void> {
    const { state, group, refused } = await sendWaiting();
    this.away = state === 'away';
    this.last = group ?? this.last;
    tellRefused(refused, () => void allWaiting().then((list) => (this.waiting = list)));
    if (!this.away) await this.look();
    this.waiting = await allWaiting();
  }

  /** Reads the sheet as the server has it. */
  async look(): Promise<void> {
    const { crateId } = this.#of();
    try {
      const response = await fetch(`/api/crates/${crateId}/sheets/${this.stored.id}`);
      if (response.ok) this.#read = (await response.json()) as SheetOf;
      this.away = response.status >= 500;
    } catch {
      this.away = true;
    }
  }

  /** Saves what was refused as a file, or only forgets it. */
  async settleRefused(keep: boolean): Promise<void> {
    if (keep) await saveRefused(this.refused);
    else await forgetWaiting(this.refused.map(({ key }) => key));
    this.waiting = await allWaiting();
  }

  /** Begins to send and to look, now and from time to time. */
  start(): () => void {
    const again = () => void this.flush();
    const retry = setInterval(() => {
      if (this.away || this.waiting.some(({ refused }) => refused === undefined)) again();
    }, RETRY_MS);
    const look = setInterval(() => {
      if (document.visibilityState === 'visible' && !this.away) void this.look();
    }, LOOK_MS);
    window.addEventListener('online', again);
    window.addEventListener('focus', again);
    const gone = () => (this.away = true);
    window.addEventListener('offline', gone);
    void outlivesPage().then((kept) => (this.kept = kept));
    void allWaiting().then((list) => {
      this.waiting = list;
      if (list.length > 0) again();
    });
    return () => {
      clearInterval(retry);
      clearInterval(look);
      window.removeEventListener('online', again);
      window.removeEventListener('focus', again);
      window.removeEventListener('offline', gone);
    };
  }
}

/** What waits, as it will be once it is sent. */
const asEntry = ({ key, stepId, unitId, done, note, answer, at }: EntryInput): Entry => ({
  key,
  stepId,
  unitId: unitId ?? null,
  done: done ?? null,
  note: note ?? null,
  answer: answer ?? null,
  at,
  by: 'here, not sent yet',
  against: null
});
