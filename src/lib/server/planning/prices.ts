import type { Knex } from 'knex';
import { cheapestPrices, sortedPrices, type Cheapest, type PriceOrder } from '#core/cost/cheapest';
import type { Crate } from '../repositories/crates';
import { listNames } from '../repositories/models';
import { listQuotes, pricedParts } from '../repositories/quotes';
import { listRates, type StoredRate } from '../repositories/rates';

type Named = Awaited<ReturnType<typeof listNames>>[number];
export type PricePage = { rows: Cheapest<Named>[]; total: number; all: number; rates: StoredRate[] };

/** One page of the cheapest prices of a crate, and its exchange rates. */
export async function pricePage(
  db: Knex,
  { id: crateId, currency }: Crate,
  asked: { find: string; sort: PriceOrder; down: boolean; page: number; size: number; today: string }
): Promise<PricePage> {
  const { find, sort, down, page, size, today } = asked;
  const rates = await listRates(db, crateId);
  const cheapest = async (ids?: readonly string[]) => {
    const [parts, quotes] = await Promise.all([
      listNames(db, { crateId, ...(ids ? { ids } : {}) }),
      listQuotes(db, { crateId, ...(ids ? { partIds: ids } : {}) })
    ]);
    const known = { parts, quotes: quotes.map(({ quote }) => quote), rates: rates.map(({ rate }) => rate) };
    return cheapestPrices(known, currency, today);
  };
  // By name the database finds the page by itself; what is cheapest has to be worked out for all of them.
  if (sort === 'name' && find.trim() === '') {
    const { ids, total } = await pricedParts(db, { crateId, today, down, page, size });
    const rows = sortedPrices(await cheapest(ids), { find, sort, down, currency });
    return { rows, total, all: total, rates };
  }
  const all = await cheapest();
  const rows = sortedPrices(all, { find, sort, down, currency });
  return { rows: rows.slice((page - 1) * size, page * size), total: rows.length, all: all.length, rates };
}
