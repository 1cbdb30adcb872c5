import { eventsOf } from '#core/analysis/of-run';
import { plainSentence } from '#core/diagnosis/sentence';
import { reduceSeries } from '#core/series/reduce';
import { forPage } from '$lib/server/pages/page';
import { itemOfRun, judgementOfRun, readAlone, triedWords } from '$lib/server/planning/judging';
import { buildNow, loadLibrary } from '$lib/server/planning/planning';
import { listAttachments } from '$lib/server/repositories/attachments';
import { getBuild } from '$lib/server/repositories/builds';
import { getRun, listRuns } from '$lib/server/repositories/runs';
import { refreshed, seriesOfRun } from '$lib/server/repositories/run-rig';

/** So many points a chart is drawn with. */
const DRAWN = 1600;

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
      listRuns(db, {
        crateId: crate.id,
        ...(run.buildId
          ? { buildId: run.buildId }
          : run.hostId
            ? { hostId: run.hostId }
            : { modelId: run.modelId ?? '' }),
        limit: 50
      })
    ]);
    // What is held in the middle is not judged: it may go on.
    const under = run.rig?.state === 'running' || run.rig?.state === 'paused';
    const judged = under ? undefined : await judgementOfRun(db, { crateId: crate.id, run, demo: crate.demo });
    const stretches = judged?.judgement.stretches ?? (under ? [] : (await readAlone(db, crate.id, run)).stretches);
    const of = judged?.judgement.diagnosis.causes[0]?.of;
    const item = of && (await itemOfRun(db, { crateId: crate.id, run }, of));
    return {
      judged: judged && {
        sentence: judged.judgement.sentence,
        diagnosis: judged.judgement.diagnosis,
        names: judged.names,
        tried: now ? triedWords(run, now.snapshot) : [],
        item
      },
      events: eventsOf(stretches),
      plain: judged ? '' : plainSentence(stretches),
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
