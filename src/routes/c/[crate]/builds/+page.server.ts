import { redirect } from '@sveltejs/kit';
import { withQuery } from '$lib/client/address';
import { buildTableQuery } from '$lib/server/api/table-query';
import { database } from '$lib/server/db';
import { forPage, today } from '$lib/server/pages/page';
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
  const last = Math.max(1, Math.ceil(listed.total / size));
  if (page > last) redirect(307, withQuery(url, { page: last > 1 ? String(last) : '' }));
  judgeInBackground(database(), crate.id, listed.due);
  return { ...listed, query };
}
