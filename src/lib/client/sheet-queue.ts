import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { EntryInput } from '#core/sheets/progress';
import { send, type Failure } from './api';

/** What waits in this browser until it is sent: a tick, a note or an answer, or a photograph. */
export type Waiting = {
  key: string;
  crateId: string;
  sheetId: string;
  /** The build, for whoever is told about it later. */
  tag: string;
  /** Why the server did not take it; what has it is not sent again by itself. */
  refused?: string;
} & (
  | { kind: 'check'; entry: EntryInput }
  | { kind: 'photo'; photo: { stepId: string; unitId?: string; name: string; content: string } }
);

interface Store extends DBSchema {
  waiting: { key: string; value: Waiting };
}

/** Tells that something may wait, so that no page opens the store for nothing. */
const FLAG = 'sheet-queue';
let store: Promise<IDBPDatabase<Store> | null> | undefined;
/** Where the browser has no store, or none in a private window: what waits is lost with the page then. */
const inMemory = new Map<string, Waiting>();

function opened(): Promise<IDBPDatabase<Store> | null> {
  // A private window may have no such store at all, and then it is the call itself that fails.
  store ??= Promise.resolve()
    .then(() =>
      openDB<Store>('ash-crate', 1, { upgrade: (db) => void db.createObjectStore('waiting', { keyPath: 'key' }) })
    )
    .catch(() => null);
  return store;
}

/** Whether what waits outlives the page. */
export const outlivesPage = async (): Promise<boolean> => (await opened()) !== null;

export async function keepWaiting(waiting: Waiting): Promise<void> {
  localStorage.setItem(FLAG, '1');
  const db = await opened();
  try {
    if (!db) throw new Error('no store');
    await db.put('waiting', waiting);
  } catch {
    // No store, or no room in it: it waits as long as the page does.
    inMemory.set(waiting.key, waiting);
  }
}

export async function forgetWaiting(keys: readonly string[]): Promise<void> {
  const db = await opened();
  for (const key of keys) {
    inMemory.delete(key);
    await db?.delete('waiting', key);
  }
}

/** Everything that waits, in the order in which it was done: keys rise with time. */
export async function allWaiting(): Promise<Waiting[]> {
  const db = await opened();
  const list = [...((await db?.getAll('waiting')) ?? []), ...inMemory.values()];
  if (list.length === 0) localStorage.removeItem(FLAG);
  return list.sort((a, b) => (a.key < b.key ? -1 : 1));
}

/** Whether anything may wait, without opening the store. */
export const mayWait = (): boolean => localStorage.getItem(FLAG) !== null;

/** How many entries go into one request. */
const BATCH = 50;

/** Takes what is next: entries of one sheet together, a photograph by itself. */
function nextBatch(list: readonly Waiting[]): Waiting[] {
  const [first] = list;
  if (!first || first.kind === 'photo') return first ? [first] : [];
  const end = list.findIndex((other) => other.kind !== 'check' || other.sheetId !== first.sheetId);
  return list.slice(0, Math.min(end === -1 ? list.length : end, BATCH));
}

type SentAs = { ok: true; group: string | undefined } | { ok: false; failure: Failure };

async function sendBatch(batch: readonly Waiting[]): Promise<SentAs> {
  const [first] = batch;
  if (!first) return { ok: true, group: undefined };
  const base = `/api/crates/${first.crateId}/sheets/${first.sheetId}`;
  const answer =
    first.kind === 'photo'
      ? await send<{ group?: string }>('POST', `${base}/photos`, { key: first.key, ...first.photo })
      : await send<{ group?: string }>('POST', `${base}/checks`, {
          checks: batch.flatMap((waiting) => (waiting.kind === 'check' ? [waiting.entry] : []))
        });
  return answer.ok ? { ok: true, group: answer.data.group } : { ok: false, failure: answer.failure };
}

/** Failures that pass by themselves: the connection, a database that is away, a crate that is busy, a full disk. */
const passes = ({ status }: Failure): boolean => status === 0 || status >= 500;

export type Sent = {
  /** Whether everything went, or there was no way to send it. */
  state: 'sent' | 'away';
  /** The last thing that was written: what undo takes. */
  group: string | undefined;
  /** What was refused just now. */
  refused: Waiting[];
};

let running: Promise<unknown> = Promise.resolve();

/**
 * Sends what waits, in order. What is sent is forgotten only once the server has it: a page that dies in between sends it again, and the
 * server knows it by its key. What the server refuses stays here with the reason; the rest goes on.
 */
export function sendWaiting(): Promise<Sent> {
  // One after the other: whoever comes while the last entries of an earlier round are on their way finds the rest sent.
  const turn = running.then(sendAll);
  running = turn.catch(() => {});
  return turn;
}

/** Sends a batch; where one entry of it is wrong, that one alone, so that the others do not wait for it. */
async function sendOrPart(batch: readonly Waiting[]): Promise<{ batch: readonly Waiting[]; answer: SentAs }> {
  const answer = await sendBatch(batch);
  if (answer.ok || answer.failure.status !== 400 || batch.length === 1) return { batch, answer };
  const first = batch.slice(0, 1);
  return { batch: first, answer: await sendBatch(first) };
}

/** Keeps what the server refused, with the reason. Whatever else is for a sheet that is gone has nowhere to go either. */
async function keepRefused(batch: readonly Waiting[], list: readonly Waiting[], failure: Failure): Promise<Waiting[]> {
  const gone = failure.status === 404;
  const refused = gone ? 'the run sheet is gone; it, its build or its crate was deleted' : failure.message;
  const all = gone ? list.filter(({ sheetId }) => sheetId === batch[0]?.sheetId) : batch;
  const kept = all.map((waiting) => ({ ...waiting, refused }));
  for (const waiting of kept) await keepWaiting(waiting);
  return kept;
}

async function sendAll(): Promise<Sent> {
  const sent: Sent = { state: 'sent', group: undefined, refused: [] };
  for (;;) {
    const list = (await allWaiting()).filter(({ refused }) => refused === undefined);
    const next = nextBatch(list);
    if (next.length === 0) return sent;
    const { batch, answer } = await sendOrPart(next);
    if (answer.ok) {
      sent.group = answer.group ?? sent.group;
      await forgetWaiting(batch.map(({ key }) => key));
    } else if (passes(answer.failure)) return { ...sent, state: 'away' };
    else sent.refused.push(...(await keepRefused(batch, list, answer.failure)));
  }
}
