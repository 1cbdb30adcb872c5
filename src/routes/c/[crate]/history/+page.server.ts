import { plainTableQuery } from '$lib/server/api/table-query';
import { forPage, toLastPage } from '$lib/server/pages/page';
import { historyPage } from '$lib/server/repositories/events';

const SIZE = 60;

export async function load({ parent, cookies, url }) {
  const { crate } = await parent();
  const { find = '', page = 1, size = SIZE } = plainTableQuery.parse(Object.fromEntries(url.searchParams));
  const { rows, total } = await forPage((db) => historyPage(db, { crateId: crate.id, find, page, size }));
  toLastPage(url, { total, page, size });
  return { history: rows, total, query: { find, page, size }, writer: cookies.get('writer') ?? '' };
}
