import { itemPageQuery } from '$lib/server/api/table-query';
import { forPage, toLastPage, today } from '$lib/server/pages/page';
import { findBuilds } from '$lib/server/repositories/builds';
import { unitTable } from '$lib/server/repositories/unit-table';

const SIZE = 25;
/** More builds than this are looked for by their names. */
const PICKED_FROM = 100;

export async function load({ parent, url }) {
  const { crate } = await parent();
  const asked = itemPageQuery.parse(Object.fromEntries(url.searchParams));
  const { page = 1, size = SIZE, sort = 'tag', down = false, find = '' } = asked;
  const shown = await forPage(async (db) => ({
    ...(await unitTable(db, { crateId: crate.id, ...asked, page, size, sort, down, find })),
    builds: await findBuilds(db, { crateId: crate.id, limit: PICKED_FROM }),
    query: { ...asked, page, size, sort, down, find },
    today: today()
  }));
  toLastPage(url, { total: shown.total, page, size });
  return shown;
}
