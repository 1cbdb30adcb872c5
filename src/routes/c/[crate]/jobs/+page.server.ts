import { forPage } from '$lib/server/pages/page';
import { listBuilds } from '$lib/server/repositories/builds';
import { listJobs } from '$lib/server/repositories/jobs';

export async function load({ parent }) {
  const { crate } = await parent();
  return forPage(async (db) => {
    const [jobs, builds] = await Promise.all([listJobs(db, crate.id), listBuilds(db, crate.id)]);
    return {
      jobs: jobs.map((job) => ({
        ...job,
        builds: builds.filter(({ choice }) => choice.jobId === job.id).map(({ tag }) => tag)
      }))
    };
  });
}
