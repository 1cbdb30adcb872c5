import type { Knex } from 'knex';
import { eventsOf } from '#core/analysis/of-run';
import { plainSentence } from '#core/diagnosis/sentence';
import type { PlanInput } from '#core/plan/report';
import { reduceSeries } from '#core/series/reduce';
import { forPage } from '$lib/server/pages/page';
import { answersByLaterRuns, itemOfRun, judgementOfRun, readAlone, triedWords } from '$lib/server/planning/judging';
import { buildNow, loadLibrary } from '$lib/server/planning/planning';
import { listAttachments } from '$lib/server/repositories/attachments';
import { getBuild } from '$lib/server/repositories/builds';
import { getRun, listRuns, type StoredRun } from '$lib/server/repositories/runs';
import { refreshed, seriesOfRun } from '$lib/server/repositories/run-rig';

/** So many points a chart is drawn with. */
const DRAWN = 1600;

/** What a run hangs on, as runs are listed by it. */
const subjectOf = ({ buildId, hostId, modelId }: StoredRun) =>
  buildId ? { buildId } : hostId ? { hostId } : { modelId: modelId ?? '' };

type Asked = {
  crateId: string;
  run: StoredRun;
  demo: boolean;
  input: PlanInput | undefined;
  /** Other runs of the same. */
  same: readonly StoredRun[];
};

/** What came out of a run, as its page shows it. What is held in the middle is not judged: it may go on. */
async function judgedForPage(db: Knex, { crateId, run, demo, input, same }: Asked) {
  if (run.rig?.state === 'running' || run.rig?.state === 'paused') return { judged: undefined, events: [], plain: '' };
  const made = await judgementOfRun(db, { crateId, run, demo });
  if (!made) {
    const { stretches } = await readAlone(db, crateId, run);
    return { judged: undefined, events: eventsOf(stretches), plain: plainSentence(stretches) };
  }
  const { judgement, names } = made;
  const { sentence, diagnosis, stretches } = judgement;
  const of = diagnosis.causes[0]?.of;
  const item = of && (await itemOfRun(db, { crateId, run }, of));
  const tried = input ? triedWords(run, input) : [];
  const { next } = diagnosis;
  const answers = input ? await answersByLaterRuns(db, { crateId, run, input, next, same }) : [];
  return { judged: { sentence, diagnosis, names, tried, item, answers }, events: eventsOf(stretches), plain: '' };
}

export async function load({ params, parent }) {
  const { crate } = await parent();
  return forPage(async (db) => {
    const stored = await getRun(db, { crateId: crate.id, id: params.id });
    const run = stored.rig ? (await refreshed(db, { crateId: crate.id, runId: stored.id })).run : stored;
    const build = run.buildId ? await getBuild(db, { crate_id: crate.id, id: run.buildId }) : undefined;
    const now = build && buildNow(await loadLibrary(db, crate.id, [build.choice]), build);
    const running = run.rig?.state === 'running';
    const whole = running ? undefined : await seriesOfRun(db, run, crate.id).catch(() => undefined);
    const [files, same] = await Promise.all([
      listAttachments(db, { crateId: crate.id, subjectId: run.id }),
      listRuns(db, { crateId: crate.id, ...subjectOf(run), limit: 50 })
    ]);
    const judged = await judgedForPage(db, { crateId: crate.id, run, demo: crate.demo, input: now?.snapshot, same });
    return {
      ...judged,
      run,
      build:
        build && now
          ? {
              id: build.id,
              tag: build.tag,
              name: build.name,
              version: build.version,
              choice: build.choice,
              snapshot: now.snapshot,
              report: now.report
            }
          : null,
      series: whole ? reduceSeries(whole, DRAWN) : null,
      pictures: files,
      same: same.filter(({ id }) => id !== run.id)
    };
  });
}
