import type { Knex } from 'knex';
import { answersOfBuild } from '#core/answers/of-build';
import type { PlanAnswer } from '#core/answers/answers';
import { newestFigures } from '#core/results/newest';
import { compareWithPlan, type Comparison } from '#core/results/compare';
import type { BuildStage } from '#core/build/stages';
import { nextStep, type NextStep } from '#core/build/next-step';
import type { Verdict } from '#core/findings/finding';
import type { PlanReport } from '#core/plan/report';
import { adviceFor } from './judging';
import { buildNow, loadLibrary } from './planning';
import { listBuilds } from '../repositories/builds';
import { getCrate } from '../repositories/crates';
import { listRuns } from '../repositories/runs';
import { sheetsOf } from './sheets';

/** A build as it stands in a list: what the small lane and the columns need, and no more. */
export type BuildRow = {
  id: string;
  tag: string;
  name: string;
  stage: BuildStage;
  version: number;
  verdict: Verdict;
  parts: { host: string; port: string; cable: string | undefined; enclosure: string; drive: string };
  stages: PlanReport['link']['stages'];
  bottleneck: PlanReport['link']['bottleneck'];
  /** Whether the parts do not go together, and the lane is only what would be if they did. */
  ifItFitted: boolean;
  write: PlanReport['throughput']['write'];
  perTB: { amount: number; currency: string } | undefined;
  latest: { comparisons: Comparison[]; date: string; simulated: boolean } | undefined;
  outdated: boolean;
  next: NextStep;
  /** What a person asks of it, answered in sentences and in a few words. */
  answers: PlanAnswer[];
};

/** Builds that a sheet is still asked about: those that are not put together or not formatted yet. */
const AT_THE_BENCH: readonly BuildStage[] = ['planned', 'bought', 'assembled'];
export const atTheBench = (builds: readonly { id: string; stage: BuildStage }[]): string[] =>
  builds.filter(({ stage }) => AT_THE_BENCH.includes(stage)).map(({ id }) => id);

/** All builds of a crate with their newest result and the one next step of each. */
export async function buildRows(db: Knex, crateId: string, today: string): Promise<BuildRow[]> {
  const [builds, runs, { demo }] = await Promise.all([
    listBuilds(db, crateId),
    listRuns(db, { crateId }),
    getCrate(db, { id: crateId })
  ]);
  const choices = builds.map(({ choice }) => choice);
  const [library, progress] = await Promise.all([
    loadLibrary(db, crateId, choices),
    sheetsOf(db, { crateId, buildIds: atTheBench(builds) })
  ]);
  const judged = [];
  for (const build of builds) {
    // As its parts are now: every page shows the same verdict and price, and this one says where it was planned otherwise.
    const now = buildNow(library, build);
    const { snapshot: input, report } = now;
    const newest = newestFigures(
      runs.filter(({ buildId }) => buildId === build.id),
      demo
    );
    const advice = newest && (await adviceFor(db, { crateId, run: newest, input, report }));
    judged.push({ build, now, newest, advice });
  }
  return judged.map(({ build, now: { report, snapshot, differences }, newest, advice }) => {
    const comparisons = newest ? compareWithPlan(newest.results, report) : [];
    const outdated = differences.length > 0;
    const next = nextStep(
      {
        stage: build.stage,
        report,
        outdated,
        latest: comparisons,
        measuredOn: newest?.date,
        advice,
        sheet: progress(build, snapshot, 'assemble'),
        formatSheet: progress(build, snapshot, 'format'),
        rules: library.houseRules
      },
      today
    );
    return {
      id: build.id,
      tag: build.tag,
      name: build.name,
      stage: build.stage,
      version: build.version,
      verdict: report.verdict,
      parts: {
        host: snapshot.host.name,
        port: snapshot.host.ports.find((p) => p.id === snapshot.portId)?.label ?? snapshot.portId,
        cable: snapshot.cable?.name,
        enclosure: snapshot.enclosure.name,
        drive: snapshot.drive.name
      },
      stages: (report.ifItFitted ?? report).link.stages,
      bottleneck: (report.ifItFitted ?? report).link.bottleneck,
      ifItFitted: report.ifItFitted !== null,
      write: report.throughput.write,
      perTB: report.cost ? { amount: report.cost.perTB, currency: report.cost.currency } : undefined,
      latest: newest ? { comparisons, date: newest.date, simulated: newest.simulated } : undefined,
      outdated,
      next,
      answers: answersOfBuild(library, { input: snapshot, report, tag: build.tag })
    };
  });
}
