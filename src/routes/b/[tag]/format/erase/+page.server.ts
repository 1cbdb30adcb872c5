import { forPage } from '$lib/server/pages/page';
import { listJobs } from '$lib/server/repositories/jobs';

/** The jobs that an old drive may still be good for. */
export async function load({ parent }) {
  const { crate } = await parent();
  return { jobs: (await forPage((db) => listJobs(db, crate.id))).slice(0, 100).map(({ spec }) => spec) };
}
