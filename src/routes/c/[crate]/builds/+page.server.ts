import { buildTableQuery } from '$lib/server/api/table-query';
import { database } from '$lib/server/db';
import { forPage, today, toLastPage } from '$lib/server/pages/page';
import { buildPage } from '$lib/server/planning/overview';
import { judgeInBackground } from '$lib/server/tasks/judge-crate';

const SIZE = 25;

export async function load({ parent, url }) {
  const { crate } = await parent();
  const {
    find = '',
    sort = 'tag',
    down = false,
    page = 1,
    size = SIZE,
    next
  } = buildTableQuery.parse(Object.fromEntries(url.searchParams));
  const query = { find, sort, down, page, size, next };
  const listed = await forPage((db) => buildPage(db, { crateId: crate.id, today: today(), ...query }));
  toLastPage(url, { total: listed.total, page, size });
  judgeInBackground(database(), crate.id, listed.due);
  return { ...listed, query };
}
