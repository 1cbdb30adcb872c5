import { plainTableQuery } from '$lib/server/api/table-query';
import { forPage, toLastPage } from '$lib/server/pages/page';
import { buildsByJob } from '$lib/server/repositories/builds';
import { jobTable } from '$lib/server/repositories/jobs';

const SIZE = 25;

export async function load({ parent, url }) {
  const { crate } = await parent();
  const { find = '', page = 1, size = SIZE } = plainTableQuery.parse(Object.fromEntries(url.searchParams));
  const { rows, total, all, made } = await forPage(async (db) => {
    const table = await jobTable(db, { crateId: crate.id, find, page, size });
    const jobIds = table.rows.map(({ id }) => id);
    return { ...table, made: await buildsByJob(db, crate.id, jobIds) };
  });
  toLastPage(url, { total, page, size });
  return {
    jobs: rows.map((job) => ({ ...job, builds: made.get(job.id) ?? [] })),
    total,
    all,
    query: { find, page, size }
  };
}
