import { plainTableQuery } from '$lib/server/api/table-query';
import { forPage, toLastPage } from '$lib/server/pages/page';
import { eventPage } from '$lib/server/repositories/events';

/** Ticks are folded into a line, so that fewer lines than these are shown. */
const SIZE = 100;

export async function load({ parent, url }) {
  const { build, runs } = await parent();
  const { find = '', page = 1, size = SIZE } = plainTableQuery.parse(Object.fromEntries(url.searchParams));
  const subjectIds = [build.id, ...runs.map((run) => run.id)];
  const { rows, total } = await forPage((db) =>
    eventPage(db, { crateId: build.crateId, subjectIds, tag: build.tag, find, page, size })
  );
  toLastPage(url, { total, page, size });
  return { events: rows, total, query: { find, page, size } };
}
