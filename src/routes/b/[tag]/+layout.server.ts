import { compareWithPlan } from '#core/bench/compare';
import { nextStep } from '#core/build/next-step';
import { forPage, today } from '$lib/server/page';
import { loadLibrary, outdatedBy } from '$lib/server/planning';
import { getBuild } from '$lib/server/repositories/builds';
import { getCrate } from '$lib/server/repositories/crates';
import { listRuns } from '$lib/server/repositories/runs';

export async function load({ params }) {
  return forPage(async (db) => {
    const build = await getBuild(db, { tag: params.tag });
    const [crate, runs, library] = await Promise.all([
      getCrate(db, { id: build.crateId }),
      listRuns(db, { crateId: build.crateId, buildId: build.id }),
      loadLibrary(db, build.crateId)
    ]);
    const differences = outdatedBy(library, build);
    const newest = runs[0];
    const latest = newest ? compareWithPlan(newest.results, build.report) : [];
    const next = nextStep(
      {
        stage: build.stage,
        report: build.report,
        outdated: differences.length > 0,
        latest,
        measuredOn: newest?.date,
        rules: crate.houseRules
      },
      today()
    );
    return { build, crate, runs, library, differences, next, today: today() };
  });
}
