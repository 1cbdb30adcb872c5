import type { Knex } from 'knex';
import { z } from 'zod';
import { Problem } from '../problems/problem';

/** The columns that a list is put in order by, the last of which no two rows share. */
export type Key = readonly (readonly [column: string, way: 'asc' | 'desc'])[];
/** Which rows of a list are asked for: all, or so many of those that come after a place. */
export type Part = { limit?: number | undefined; after?: string | undefined };
/** @property next where the rest begins, if there is a rest */
export type PartOf<T> = { rows: T[]; total: number; next?: string };

const placeSchema = z.array(z.union([z.string(), z.number()]));
const bareName = (column: string): string => column.split('.').at(-1)!;

/** A place in a list, as text that nobody needs to read: the key of the last row before it. */
const placeOf = (key: Key, row: Record<string, unknown>): string =>
  Buffer.from(JSON.stringify(key.map(([column]) => row[bareName(column)]))).toString('base64url');

/** @throws Problem `bad-input` where the text is no place of this list */
function readPlace(key: Key, after: string): (string | number)[] {
  try {
    const place = placeSchema.parse(JSON.parse(Buffer.from(after, 'base64url').toString()));
    if (place.length === key.length) return place;
  } catch {
    // said below
  }
  const message = 'is no place in this list; take the one that its last answer gave';
  throw new Problem('bad-input', `after: ${message}.`, [{ path: 'after', message }]);
}

/**
 * Part of a list in its order. The place is one in the order and not a number of rows: rows that come or go meanwhile make nobody see
 * one twice, or miss one.
 * @param rows what is meant, without an order; each row has the columns of the key
 */
export async function partOfList<T>(
  rows: Knex.QueryBuilder,
  key: Key,
  { limit, after }: Part,
  fromRow: (row: Record<string, unknown>) => T
): Promise<PartOf<T>> {
  const counted = rows.clone().clearSelect().count({ n: '*' }).first() as Promise<{ n: number | string }>;
  const wanted = rows.clone();
  if (after !== undefined) {
    const place = readPlace(key, after);
    // As far as some column the same, and further in the next.
    wanted.where((any) =>
      key.forEach(([column, way], i) =>
        any.orWhere((further) => {
          key.slice(0, i).forEach(([same], j) => further.where(same, place[j]!));
          further.where(column, way === 'asc' ? '>' : '<', place[i]!);
        })
      )
    );
  }
  for (const [column, way] of key) wanted.orderBy(column, way);
  // One more than is wanted tells whether there is a rest.
  if (limit !== undefined) wanted.limit(limit + 1);
  const [found, total] = await Promise.all([wanted as Promise<Record<string, unknown>[]>, counted]);
  const given = limit === undefined ? found : found.slice(0, limit);
  return {
    rows: given.map(fromRow),
    total: Number(total.n),
    ...(given.length < found.length ? { next: placeOf(key, given.at(-1)!) } : {})
  };
}
