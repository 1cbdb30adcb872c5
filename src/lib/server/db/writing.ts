import type { Knex } from 'knex';
import { diskFullSentence, freeBytes, RESERVE_BYTES } from '../machine/disk';
import { notFound, Problem } from '../problems/problem';
import { busy, isDeadlock, problemOf } from './errors';
import { keepWritersOut, shareWithRestore } from './locks';

/** How often a write is done again that the database ended because two waited for each other. */
const ATTEMPTS = 8;
/** How long a writer waits for those before it in the same crate, ms. */
const PATIENCE_MS = 30_000;

/** Writers of one crate in this process, one after the other, so that those who wait hold no connection meanwhile. */
const queues = new Map<string, Promise<unknown>>();

async function inTurn<T>(key: string, work: () => Promise<T>): Promise<T> {
  const before = queues.get(key) ?? Promise.resolve();
  let gaveUp = false;
  const turn = before.then(async () => {
    if (gaveUp) return undefined as T;
    return work();
  });
  const settled = turn.catch(() => {});
  queues.set(key, settled);
  void settled.then(() => {
    if (queues.get(key) === settled) queues.delete(key);
  });
  let timer: NodeJS.Timeout | undefined;
  let begun = false;
  void before.then(() => (begun = true));
  const patience = new Promise<never>((_, fail) => {
    timer = setTimeout(() => {
      if (begun) return;
      gaveUp = true;
      fail(busy());
    }, PATIENCE_MS);
  });
  try {
    return await Promise.race([turn, patience]);
  } finally {
    clearTimeout(timer);
  }
}

/**
 * Everything that writes goes through here: one transaction that no restore can overlap, alone in its crate, done again after a
 * deadlock, and with every constraint that it meets told as a Problem. Within a transaction it is that transaction.
 * @param crateId the crate that is written to; null for what concerns no single crate
 * @param options.hidden whether the crate may be one that was deleted
 * @param options.queue whom it waits for in this process, where that is not everybody who writes to the crate
 * @param options.alone whether it keeps every other writer out itself
 * @param options.once whether the work cannot be done again: it reads a file that is read once. A deadlock is then told as `busy`
 * @throws Problem `not-found` without such a crate; `busy` while a backup is being restored; `disk-full`
 */
export async function writing<T>(
  db: Knex,
  crateId: string | null,
  work: (trx: Knex.Transaction) => Promise<T>,
  options: { hidden?: boolean; queue?: string; alone?: boolean; once?: boolean } = {}
): Promise<T> {
  if (db.isTransaction) return work(db as Knex.Transaction);
  const free = freeBytes();
  if (free !== undefined && free < RESERVE_BYTES) throw new Problem('disk-full', diskFullSentence({ free }));
  const once = () =>
    db.transaction(async (trx) => {
      await (options.alone ? keepWritersOut(trx) : shareWithRestore(trx));
      if (crateId !== null) await lockCrate(trx, crateId, options.hidden ?? false);
      return work(trx);
    });
  return inTurn(options.queue ?? crateId ?? '', async () => {
    for (let attempt = 1; ; attempt++) {
      try {
        return await once();
      } catch (error) {
        if (!isDeadlock(error) || options.once || attempt === ATTEMPTS) throw problemOf(error) ?? error;
        await new Promise((done) => setTimeout(done, Math.random() * 20 * attempt));
      }
    }
  });
}

/** Whoever holds the row of the crate writes to it alone, also over several processes. */
async function lockCrate(trx: Knex.Transaction, crateId: string, hidden: boolean): Promise<void> {
  const crate = (await trx('crates').where({ id: crateId }).forUpdate().first('deleted_at')) as
    { deleted_at: string | null } | undefined;
  if (!crate || (crate.deleted_at !== null && !hidden)) throw notFound('crate');
}
