import type { Knex } from 'knex';
import { exchangeRateSchema, rateProblems, type ExchangeRate } from '#core/parts/exchange-rate';
import { change, newId, type ChangeResult } from '../db/change';
import { notFound, refuse } from '../problems/problem';

export type StoredRate = { id: string; version: number; rate: ExchangeRate };
type By = { by: string; at: string };

const fromRow = (row: Record<string, unknown>): StoredRate => ({
  id: row.id as string,
  version: row.version as number,
  rate: exchangeRateSchema.parse({ ...(row.details as object), date: row.date })
});

/** Newest first. */
export async function listRates(db: Knex, crateId: string): Promise<StoredRate[]> {
  return (await db('rates').where({ crate_id: crateId }).orderBy('date', 'desc').orderBy('id', 'desc')).map(fromRow);
}

export async function createRate(db: Knex, args: { crateId: string; rate: ExchangeRate } & By): Promise<ChangeResult> {
  const { crateId, rate, by, at } = args;
  refuse(rateProblems(rate, at.slice(0, 10)));
  const { date, ...details } = rate;
  const event = { kind: 'added', message: `Noted 1 ${rate.from} = ${rate.rate} ${rate.to} of ${date}.` };
  return change(db, { action: 'insert', table: 'rates', crateId, id: newId(), by, at, event, row: { date, details } });
}

export async function deleteRate(
  db: Knex,
  args: { crateId: string; id: string; version: number } & By
): Promise<ChangeResult> {
  const { crateId, id, version, by, at } = args;
  if (!(await db('rates').where({ crate_id: crateId, id }).first('id'))) throw notFound('rate');
  const event = { kind: 'deleted', message: 'Deleted an exchange rate.' };
  return change(db, { action: 'delete', table: 'rates', crateId, id, version, by, at, event });
}
