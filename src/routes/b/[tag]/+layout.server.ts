import { newestFigures } from '#core/results/newest';
import { compareWithPlan } from '#core/results/compare';
import { nextStep } from '#core/build/next-step';
import { forPage, today } from '$lib/server/pages/page';
import { adviceFor } from '$lib/server/planning/judging';
import { buildNow, loadLibrary } from '$lib/server/planning/planning';
import { atTheBench } from '$lib/server/planning/overview';
import { newestSheets, progressNow } from '$lib/server/planning/sheets';
import { getBuild } from '$lib/server/repositories/builds';
import { getCrate } from '$lib/server/repositories/crates';
import { listRuns } from '$lib/server/repositories/runs';

export async function load({ params }) {
  return forPage(async (db) => {
    const stored = await getBuild(db, { tag: params.tag });
    const [crate, runs, library] = await Promise.all([
      getCrate(db, { id: stored.crateId }),
      listRuns(db, { crateId: stored.crateId, buildId: stored.id }),
      loadLibrary(db, stored.crateId, [stored.choice])
    ]);
    // As its parts are now; what it was planned from before stands in the differences.
    const { differences, report, snapshot } = buildNow(library, stored);
    const build = { ...stored, report, snapshot };
    const sheets = await newestSheets(db, { crateId: stored.crateId, buildIds: atTheBench([stored]) });
    const newest = newestFigures(runs, crate.demo);
    const latest = newest ? compareWithPlan(newest.results, build.report) : [];
    const advice = newest && (await adviceFor(db, { crateId: stored.crateId, run: newest, input: snapshot, report }));
    const next = nextStep(
      {
        stage: build.stage,
        report: build.report,
        outdated: differences.length > 0,
        latest,
        measuredOn: newest?.date,
        advice,
        sheet: progressNow(sheets(stored.id, 'assemble'), stored, snapshot),
        formatSheet: progressNow(sheets(stored.id, 'format'), stored, snapshot),
        rules: crate.houseRules
      },
      today()
    );
    return { build, crate, runs, differences, next, advice, today: today() };
  });
}
