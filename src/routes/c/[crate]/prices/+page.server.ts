import { priceTableQuery } from '$lib/server/api/table-query';
import { forPage, today, toLastPage } from '$lib/server/pages/page';
import { pricePage } from '$lib/server/planning/prices';

const SIZE = 50;

export async function load({ parent, url }) {
  const { crate } = await parent();
  const {
    find = '',
    sort = 'name',
    down = false,
    page = 1,
    size = SIZE
  } = priceTableQuery.parse(Object.fromEntries(url.searchParams));
  const query = { find, sort, down, page, size };
  const shown = await forPage((db) => pricePage(db, crate, { ...query, today: today() }));
  toLastPage(url, { total: shown.total, page, size });
  return { ...shown, query, today: today() };
}
