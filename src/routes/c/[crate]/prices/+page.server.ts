import { redirect } from '@sveltejs/kit';
import { withQuery } from '$lib/client/address';
import { priceTableQuery } from '$lib/server/api/table-query';
import { forPage, today } from '$lib/server/pages/page';
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
  const last = Math.max(1, Math.ceil(shown.total / size));
  if (page > last) redirect(307, withQuery(url, { page: last > 1 ? String(last) : '' }));
  return { ...shown, query, today: today() };
}
