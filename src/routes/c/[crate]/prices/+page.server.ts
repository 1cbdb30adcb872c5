import { error, redirect } from '@sveltejs/kit';
import { withQuery } from '$lib/client/address';
import { priceTableQuery } from '$lib/server/api/table-query';
import { forPage, today } from '$lib/server/pages/page';
import { listNames } from '$lib/server/repositories/models';
import { listQuotes } from '$lib/server/repositories/quotes';
import { listRates } from '$lib/server/repositories/rates';
import { cheapestPrices, sortedPrices } from '$lib/ui/prices/cheapest';

const SIZE = 50;

export async function load({ parent, url }) {
  const { crate } = await parent();
  const parsed = priceTableQuery.safeParse(Object.fromEntries(url.searchParams));
  if (!parsed.success) error(400, 'This address asks for something that the table does not have.');
  const { find = '', sort = 'name', down = false, page = 1, size = SIZE } = parsed.data;
  const [quotes, parts, rates] = await forPage((db) =>
    Promise.all([listQuotes(db, { crateId: crate.id }), listNames(db, { crateId: crate.id }), listRates(db, crate.id)])
  );
  const priced = cheapestPrices(
    { parts, quotes: quotes.map(({ quote }) => quote), rates: rates.map(({ rate }) => rate) },
    crate.currency,
    today()
  );
  const rows = sortedPrices(priced, { find, sort, down, currency: crate.currency });
  const last = Math.max(1, Math.ceil(rows.length / size));
  if (page > last) redirect(307, withQuery(url, { page: last > 1 ? String(last) : '' }));
  return {
    rows: rows.slice((page - 1) * size, page * size),
    total: rows.length,
    all: priced.length,
    query: { find, sort, down, page, size },
    rates,
    today: today()
  };
}
