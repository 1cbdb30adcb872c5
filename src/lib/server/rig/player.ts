import type { Knex } from 'knex';
import { summarise } from '#core/protocols/summary';
import type { PlayedPhase, RigRun } from '#core/simulate/rig';
import { sliceSeries, type Series } from '#core/series/series';
import { problemOf } from '../db/errors';
import { Problem } from '../problems/problem';
import { appendSamples, sampledSoFar } from '../repositories/run-series';
import { finishRig, pauseRig, type RigWork } from '../repositories/run-rig';
import type { TaskControl } from '../work/control';

/** Between two looks at the clock, ms: so often what is due is written down. */
const TICK_MS = 250;
/** Most samples in one row. */
const PIECE = 2000;
const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));

/** Index after the last sample that is due. */
function dueAt(t: readonly number[], atS: number): number {
  let [low, high] = [0, t.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((t[middle] as number) <= atS) low = middle + 1;
    else high = middle;
  }
  return low;
}

/**
 * Plays a run of the rig at its speed: what is due is written down every quarter of a second, and so told to whoever watches through the
 * database. While the database is away the clock goes on and nothing is lost; a cancel keeps what was sampled.
 * @param played the whole run, computed beforehand
 */
export async function playRun(
  db: Knex,
  work: RigWork,
  played: RigRun,
  control: TaskControl
): Promise<{ runId: string }> {
  const { runId } = work;
  const { series, phases } = played;
  let written = work.rig.sampled;
  const beganS = written === 0 ? 0 : (series.t[written - 1] ?? 0);
  const began = Date.now();
  const total = series.t.length;
  try {
    while (written < total) {
      const due = Math.max(written, dueAt(series.t, beganS + ((Date.now() - began) / 1000) * work.rig.speed));
      if (due > written) written = await writeDue(db, work, series, { from: written, to: due });
      const atS = written === 0 ? 0 : (series.t[written - 1] ?? 0);
      await control.report(phaseAt(phases, atS), written, total);
      if (written < total) await pause(TICK_MS);
    }
  } catch (error) {
    // Cancelled, or what it was of is gone: what there is of it is kept, and may go on later.
    await pauseRig(db, work, error instanceof Problem ? error.message : null).catch(() => {});
    throw error;
  }
  await outlast(() => finish(db, work, played, control));
  return { runId };
}

/** A database that is away comes back: so long the end of a run is tried again, ms. */
const OUTLAST_MS = 10 * 60_000;
async function outlast(end: () => Promise<void>): Promise<void> {
  for (const until = Date.now() + OUTLAST_MS; ; await pause(1000))
    try {
      return await end();
    } catch (error) {
      if (problemOf(error)?.code !== 'database-away' || Date.now() > until) throw error;
    }
}

async function finish(db: Knex, work: RigWork, { series, phases }: RigRun, control: TaskControl): Promise<void> {
  const { runId } = work;
  // What was sampled before a resume stays, even where a later version of the program would play it otherwise.
  const whole = (await sampledSoFar(db, runId)) ?? series;
  const timed = phases.map(({ work: what, round, movedGB, fromS, toS }) => ({
    work: what,
    ...(round === undefined ? {} : { round }),
    GB: movedGB,
    seconds: toS - fromS
  }));
  const results = summarise(work.protocol, timed, whole, work.settings.taskS);
  const told = phases.map(({ label, fromS, toS, work: what }) => ({ label, fromS, toS, work: what }));
  await finishRig(db, work, { results, series: whole, phases: told }, control);
}

const phaseAt = (phases: readonly PlayedPhase[], atS: number): string =>
  (phases.find(({ toS }) => atS < toS) ?? phases.at(-1))?.label ?? '';

/** Writes what is due, piece by piece. @returns how many are written by now: as many as before where the database is away */
async function writeDue(
  db: Knex,
  work: RigWork,
  series: Series,
  { from, to }: { from: number; to: number }
): Promise<number> {
  let written = from;
  while (written < to) {
    const end = Math.min(to, written + PIECE);
    try {
      const there = await appendSamples(db, { ...work, first: written, samples: sliceSeries(series, written, end) });
      if (!there) throw new Problem('conflict', 'This run, or the build it was of, was deleted in the middle of it.');
    } catch (error) {
      if (problemOf(error)?.code === 'database-away') return written;
      throw error;
    }
    written = end;
  }
  return written;
}
