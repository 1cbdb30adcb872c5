import { sharesOf } from '#core/diagnosis/diagnose';
import { newestFigures } from '#core/results/newest';
import { forPage } from '$lib/server/pages/page';
import { judgementOf } from '$lib/server/planning/judging';
import { listObservations } from '$lib/server/repositories/observations';
import { itemOfPart } from '$lib/server/repositories/units';

export async function load({ parent }) {
  const { build, runs, crate } = await parent();
  return forPage(async (db) => {
    const { crateId, choice } = build;
    const itemOf = (modelId: string | undefined) => itemOfPart(db, { crateId, buildId: build.id, modelId });
    const [observations, drive, enclosure, cable] = await Promise.all([
      listObservations(db, { crateId, buildId: build.id }),
      itemOf(choice.driveId),
      itemOf(choice.enclosureId),
      itemOf(choice.cableId)
    ]);
    const newest = newestFigures(runs, crate.demo);
    const judgement = newest && (await judgementOf(db, { crateId, run: newest, input: build.snapshot }));
    return {
      judged: judgement && sharesOf(judgement.diagnosis),
      records: observations.flatMap((seen) => (seen.kind === 'trouble' ? [seen] : [])),
      items: { drive, enclosure, cable }
    };
  });
}
