import { error } from '@sveltejs/kit';
import { unitTableQuery } from '$lib/server/api/table-query';
import { forPage, toLastPage, today } from '$lib/server/pages/page';
import { findBuilds } from '$lib/server/repositories/builds';
import { unitTable } from '$lib/server/repositories/unit-table';

const SIZE = 25;
/** More builds than this are looked for by their names. */
const PICKED_FROM = 100;

export async function load({ parent, url }) {
  const { crate } = await parent();
  const parsed = unitTableQuery.safeParse(Object.fromEntries(url.searchParams));
  if (!parsed.success) error(400, 'This address asks for something that the table does not have.');
  const { page = 1, size = SIZE, sort = 'tag', down = false, find = '' } = parsed.data;
  const shown = await forPage(async (db) => ({
    ...(await unitTable(db, { crateId: crate.id, ...parsed.data, page, size, sort, down, find })),
    builds: await findBuilds(db, { crateId: crate.id, limit: PICKED_FROM }),
    query: { ...parsed.data, page, size, sort, down, find },
    today: today()
  }));
  toLastPage(url, { total: shown.total, page, size });
  return shown;
}
