import type { Knex } from 'knex';

/** Name of the counter of one letter of tags in a crate. */
export const tagCounter = (crateId: string, letter: string) => `${crateId} ${letter}`;

/** Makes a counter, or raises it to at least this. */
export async function raiseCounter(db: Knex, name: string, value: number): Promise<void> {
  await db.raw('insert into counters (name, value) values (?, ?) on duplicate key update value = greatest(value, ?)', [
    name,
    value,
    value
  ]);
}
