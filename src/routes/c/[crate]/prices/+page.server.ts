import { error, redirect } from '@sveltejs/kit';
import { withQuery } from '$lib/client/address';
import { priceTableQuery } from '$lib/server/api/table-query';
import { forPage, today } from '$lib/server/pages/page';
import { pricePage } from '$lib/server/planning/prices';

const SIZE = 50;

export async function load({ parent, url }) {
  const { crate } = await parent();
  const parsed = priceTableQuery.safeParse(Object.fromEntries(url.searchParams));
  if (!parsed.success) error(400, 'This address asks for something that the table does not have.');
  const { find = '', sort = 'name', down = false, page = 1, size = SIZE } = parsed.data;
  const query = { find, sort, down, page, size };
  const shown = await forPage((db) => pricePage(db, crate, { ...query, today: today() }));
  const last = Math.max(1, Math.ceil(shown.total / size));
  if (page > last) redirect(307, withQuery(url, { page: last > 1 ? String(last) : '' }));
  return { ...shown, query, today: today() };
}
