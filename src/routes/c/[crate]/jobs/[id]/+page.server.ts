import { error } from '@sveltejs/kit';
import { id } from '#core/parts/form/field';
import { jobOnBuilds } from '$lib/server/planning/jobs-on-builds';
import { forPage } from '$lib/server/pages/page';
import { getJob } from '$lib/server/repositories/jobs';

export async function load({ parent, params }) {
  const { crate } = await parent();
  if (!id().safeParse(params.id).success) error(404, 'There is no such job.');
  return forPage(async (db) => {
    const job = await getJob(db, { crateId: crate.id, id: params.id });
    return { job, builds: await jobOnBuilds(db, crate.id, job.spec) };
  });
}
