import { forPage } from '$lib/server/pages/page';
import { listObservations } from '$lib/server/repositories/observations';
import { listUnits } from '$lib/server/repositories/units';

export async function load({ parent }) {
  const { build } = await parent();
  return forPage(async (db) => {
    const { crateId, choice } = build;
    /** The item of a part that is in the build; before any is, the only one there is. */
    const itemOf = async (modelId: string | undefined) => {
      const units = modelId === undefined ? [] : await listUnits(db, { crateId, modelId });
      return units.find(({ unit }) => unit.buildId === build.id) ?? (units.length === 1 ? units[0] : undefined);
    };
    const [observations, drive, enclosure, cable] = await Promise.all([
      listObservations(db, { crateId, buildId: build.id }),
      itemOf(choice.driveId),
      itemOf(choice.enclosureId),
      itemOf(choice.cableId)
    ]);
    return {
      records: observations.flatMap((seen) => (seen.kind === 'trouble' ? [seen] : [])),
      items: { drive, enclosure, cable }
    };
  });
}
