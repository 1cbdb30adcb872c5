import { forPage } from '$lib/server/pages/page';
import { buildsByJob } from '$lib/server/repositories/builds';
import { listJobs } from '$lib/server/repositories/jobs';

export async function load({ parent }) {
  const { crate } = await parent();
  return forPage(async (db) => {
    const [jobs, made] = await Promise.all([listJobs(db, crate.id), buildsByJob(db, crate.id)]);
    return {
      jobs: jobs.map((job) => ({
        ...job,
        builds: made.get(job.id) ?? []
      }))
    };
  });
}
