import { PROTOCOL_IDS } from '#core/results/protocol-ids';
import { coolDown } from '#core/protocols/planner';
import { briefOf } from '#core/protocols/brief';
import { testedBuild } from '#core/protocols/tested';
import { forPage } from '$lib/server/pages/page';
import { buildNow, loadLibrary } from '$lib/server/planning/planning';
import { listBuilds } from '$lib/server/repositories/builds';
import { listModels } from '$lib/server/repositories/models';
import { listRuns } from '$lib/server/repositories/runs';

export async function load({ parent, url }) {
  const { crate } = await parent();
  const asked = url.searchParams.get('protocol');
  const protocol = PROTOCOL_IDS.find((id) => id === asked);
  return forPage(async (db) => {
    const [runs, builds, hosts, readyMade] = await Promise.all([
      listRuns(db, { crateId: crate.id, protocol, limit: 300 }),
      listBuilds(db, crate.id),
      listModels(db, { crateId: crate.id, kind: 'host' }),
      listModels(db, { crateId: crate.id, kind: 'alternative' })
    ]);
    const library = await loadLibrary(
      db,
      crate.id,
      builds.map(({ choice }) => choice)
    );
    return {
      protocol,
      runs,
      tags: Object.fromEntries(builds.map(({ id, tag, name }) => [id, { tag, name }])),
      hosts: hosts.map(({ id, spec }) => ({ id, name: spec.name })),
      readyMade: readyMade.map(({ id, spec }) => ({ id, name: spec.name })),
      // What an evening plans with: how long a soak of each takes, and how long it cools after it.
      queueable: builds.flatMap((build) => {
        const { snapshot, report } = buildNow(library, build);
        if (report.throughput.read === null || build.stage === 'retired') return [];
        const tested = testedBuild(snapshot, report);
        const seconds = (id: 'soak' | 'pair-check') => Math.round(briefOf(id, {}, tested).seconds?.typical ?? 0);
        return [
          {
            id: build.id,
            name: `${build.tag} ${build.name}`,
            soakS: seconds('soak'),
            checkS: seconds('pair-check'),
            coolS: Math.round(coolDown(tested)?.seconds ?? 0)
          }
        ];
      })
    };
  });
}
