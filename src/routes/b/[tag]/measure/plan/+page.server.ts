import { prefill } from '#core/protocols/prefill';
import { forPage } from '$lib/server/pages/page';
import { formatOf } from '$lib/server/planning/formatting';
import { findBuilds } from '$lib/server/repositories/builds';

export async function load({ parent, url }) {
  const { build, crate, runs } = await parent();
  return forPage(async (db) => {
    const [format, { builds }] = await Promise.all([
      formatOf(db, { crateId: crate.id, buildId: build.id }),
      findBuilds(db, { crateId: crate.id, limit: 200 })
    ]);
    const last = runs.find(({ simulated }) => crate.demo || !simulated);
    return {
      protocol: url.searchParams.get('protocol'),
      known: prefill(build.snapshot, format ?? null, last?.conditions ?? null),
      others: builds.filter(({ id }) => id !== build.id).map(({ id, tag, name }) => ({ id, name: `${tag} ${name}` }))
    };
  });
}
