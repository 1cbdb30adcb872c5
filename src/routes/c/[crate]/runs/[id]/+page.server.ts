import { reduceSeries } from '#core/series/reduce';
import { forPage } from '$lib/server/pages/page';
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
    return {
      run,
      build:
        build && now
          ? {
              id: build.id,
              tag: build.tag,
              name: build.name,
              version: build.version,
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
