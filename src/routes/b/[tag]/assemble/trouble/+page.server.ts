import { forPage } from '$lib/server/pages/page';
import { listObservations } from '$lib/server/repositories/observations';
import { listUnits } from '$lib/server/repositories/units';

export async function load({ parent }) {
  const { build } = await parent();
  return forPage(async (db) => {
    const [observations, units] = await Promise.all([
      listObservations(db, { crateId: build.crateId, buildId: build.id }),
      listUnits(db, { crateId: build.crateId, modelId: build.choice.driveId })
    ]);
    return {
      records: observations.flatMap((seen) => (seen.kind === 'trouble' ? [seen] : [])),
      item: units.find(({ unit }) => unit.buildId === build.id) ?? null
    };
  });
}
