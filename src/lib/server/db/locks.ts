import type { Knex } from 'knex';
import { busy, isLockWait } from './errors';

const PAUSED = 'Everything is being replaced from a backup just now. Nothing was changed; try again in a few seconds.';

/** Holds the name that a restore holds alone. It is not waited for: a restore can take minutes. */
export async function shareWithRestore(trx: Knex.Transaction): Promise<void> {
  try {
    await trx.raw("select name from locks where name = 'writing' lock in share mode nowait");
  } catch (error) {
    throw isLockWait(error) ? busy(PAUSED) : error;
  }
}

/** Keeps every other writer out for the rest of this transaction, after those who write now have ended. */
export async function keepWritersOut(trx: Knex.Transaction): Promise<void> {
  await trx.raw("select name from locks where name = 'writing' for update");
}
