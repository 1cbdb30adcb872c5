import type { Knex } from 'knex';
import { quoteProblems, quoteSchema, type Quote } from '#core/parts/quote';
import { change, newId, type ChangeResult } from '../db/change';
import { writing } from '../db/writing';
import { notFound, refuse } from '../problems/problem';
import { partOfList, type Part, type PartOf } from './keyset';
import { getModel } from './models';

export type StoredQuote = { id: string; version: number; quote: Quote };
type By = { by: string; at: string };

export const quoteFromRow = (row: Record<string, unknown>): StoredQuote => ({
  id: row.id as string,
  version: row.version as number,
  quote: quoteSchema.parse({ ...(row.details as object), partId: row.part_id, date: row.date })
});

export async function listQuotes(
  db: Knex,
  args: { crateId: string; partIds?: readonly string[] }
): Promise<StoredQuote[]> {
  const rows = db('quotes').where({ crate_id: args.crateId }).orderBy('date', 'desc').orderBy('id');
  if (args.partIds) rows.whereIn('part_id', [...args.partIds]);
  return (await rows).map(quoteFromRow);
}

/** Part of the prices of a crate, newest first. */
export const quotesAfter = (
  db: Knex,
  { crateId, partId, ...part }: { crateId: string; partId?: string | undefined } & Part
): Promise<PartOf<StoredQuote>> =>
  partOfList(
    db('quotes').where({ crate_id: crateId, ...(partId ? { part_id: partId } : {}) }),
    [
      ['date', 'desc'],
      ['id', 'asc']
    ],
    part,
    quoteFromRow
  );

/** Parts with a price that holds on a day, by their names: one page of them. @returns `total` of all parts that have one */
export async function pricedParts(
  db: Knex,
  args: { crateId: string; today: string; down: boolean; page: number; size: number }
): Promise<{ ids: string[]; total: number }> {
  const { crateId, today, down, page, size } = args;
  const way = down ? 'desc' : 'asc';
  const held = () => db('quotes').where({ crate_id: crateId }).where('expires', '>=', today);
  const [ids, counted] = await Promise.all([
    db('models')
      .where({ 'models.crate_id': crateId })
      .whereIn('models.id', held().select('part_id'))
      .orderBy('models.name', way)
      .orderBy('models.id', way)
      .limit(size)
      .offset((page - 1) * size)
      .pluck('models.id') as Promise<string[]>,
    held().countDistinct({ n: 'part_id' }).first() as Promise<{ n: number | string }>
  ]);
  return { ids, total: Number(counted.n) };
}

/** @throws Problem `not-found` where the part is not in this crate */
export async function createQuote(db: Knex, args: { crateId: string; quote: Quote } & By): Promise<ChangeResult> {
  const { crateId, quote, by, at } = args;
  refuse(quoteProblems(quote, at.slice(0, 10)));
  return writing(db, crateId, async (trx) => {
    const { spec } = await getModel(trx, { crateId, id: quote.partId });
    const event = { kind: 'quoted', message: `Noted a price for ${spec.name} from ${quote.vendor}.` };
    const row = quoteToRow(quote);
    return change(trx, { action: 'insert', table: 'quotes', crateId, id: newId(), by, at, event, row });
  });
}

export const quoteToRow = ({ partId, date, ...details }: Quote) => ({ part_id: partId, date, details });

export async function updateQuote(
  db: Knex,
  args: { crateId: string; id: string; version: number; quote: Quote } & By
): Promise<ChangeResult> {
  const { crateId, id, version, quote, by, at } = args;
  refuse(quoteProblems(quote, at.slice(0, 10)), 'quote.');
  return writing(db, crateId, async (trx) => {
    const { spec } = await getModel(trx, { crateId, id: quote.partId });
    const event = { kind: 'edited', message: `Changed the price for ${spec.name} from ${quote.vendor}.` };
    return change(trx, {
      action: 'update',
      table: 'quotes',
      crateId,
      id,
      version,
      by,
      at,
      event,
      row: quoteToRow(quote)
    });
  });
}

export async function deleteQuote(
  db: Knex,
  args: { crateId: string; id: string; version: number } & By
): Promise<ChangeResult> {
  const { crateId, id, version, by, at } = args;
  if (!(await db('quotes').where({ crate_id: crateId, id }).first('id'))) throw notFound('quote');
  return change(db, {
    action: 'delete',
    table: 'quotes',
    crateId,
    id,
    version,
    by,
    at,
    event: { kind: 'deleted', message: 'Deleted a price.' }
  });
}
