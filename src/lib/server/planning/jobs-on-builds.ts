import type { Knex } from 'knex';
import type { PlanAnswer } from '#core/answers/answers';
import { answersOfBuild } from '#core/answers/of-build';
import { assemble } from '#core/build/assemble';
import type { Job } from '#core/parts/job';
import { plan } from '#core/plan/plan';
import type { PlanReport } from '#core/plan/report';
import { outcomeOf, type PlanOutcome } from '#core/compare/swaps/what-if';
import { loadLibrary } from './planning';
import { listBuilds } from '../repositories/builds';

export type JobOnBuild = PlanOutcome & {
  tag: string;
  name: string;
  stage: string;
  band: { low: number; typical: number; high: number } | null;
  /** What was measured on it, and stands in the place of the forecast. */
  measured: PlanReport['measured'];
  cliffAtGB: number | null;
  ways: { direction: 'in' | 'out'; seconds: number; MBps: number; bytes: number; afterCliff: number; files: number }[];
  fits: boolean | null;
  /** The plan of the job on this build, in sentences and in a few words. */
  answers: PlanAnswer[];
  /** Whether the build was made for this job. */
  own: boolean;
};

/** A job on every build of the crate, as its parts are now: how long it takes, where the time goes, and which end limits. */
export async function jobOnBuilds(db: Knex, crateId: string, job: Job & { id: string }): Promise<JobOnBuild[]> {
  const builds = await listBuilds(db, crateId);
  const library = await loadLibrary(
    db,
    crateId,
    builds.map(({ choice }) => ({ ...choice, jobId: job.id }))
  );
  // eslint-disable-next-line complexity -- one column each, null where it does not run
  return builds.flatMap(({ tag, name, stage, choice }): JobOnBuild[] => {
    if (stage === 'retired') return [];
    const assembled = assemble(library, { ...choice, jobId: job.id });
    if (!assembled.ok) return [];
    const report = plan(assembled.input, { workings: false });
    return [
      {
        tag,
        name,
        stage,
        ...outcomeOf(report),
        band: report.job?.seconds ?? null,
        measured: report.measured,
        cliffAtGB: report.job?.cliffReached ? (report.cache.cliffAtGB?.typical ?? null) : null,
        ways: (report.job?.ways ?? []).map(({ direction, seconds, MBps, spent }) => ({
          direction,
          seconds,
          MBps,
          ...spent
        })),
        fits: report.job?.fits ?? null,
        answers: answersOfBuild(library, { input: assembled.input, report, tag }),
        own: choice.jobId === job.id
      }
    ];
  });
}
