import type { Knex } from 'knex';
import { sliceSeries } from '#core/series/series';
import { problemOf } from '../db/errors';
import { refreshed, seriesOfRun } from '../repositories/run-rig';
import { samplesFrom } from '../repositories/run-series';

/** How often the database is asked for what is new, ms. */
const POLL_MS = 300;
/** Samples in one message. */
const PIECE = 4000;
const pause = (ms: number, signal: AbortSignal) =>
  new Promise<void>((done) => {
    const timer = setTimeout(done, ms);
    signal.addEventListener('abort', () => (clearTimeout(timer), done()), { once: true });
  });

/**
 * Tells a page what a run has sampled, from an index on, until it no longer goes on: what was missed first, then what comes. Everything is
 * read from the database, so that it does not matter which process plays the run.
 * @param send event, data, and the index after the last sample that was told
 */
export async function watchRun(
  db: Knex,
  { crateId, runId, from }: { crateId: string; runId: string; from: number },
  send: (event: 'samples' | 'state', data: unknown, sent: number) => void,
  signal: AbortSignal
): Promise<void> {
  let sent = from;
  while (!signal.aborted) {
    try {
      // The state before the samples: whoever is told that a run has ended has been told all of it.
      const { run } = await refreshed(db, { crateId, runId });
      if (run.rig?.state === 'done') {
        const whole = await seriesOfRun(db, run, crateId);
        for (; whole && sent < whole.t.length; sent = Math.min(whole.t.length, sent + PIECE))
          send(
            'samples',
            { first: sent, samples: sliceSeries(whole, sent, sent + PIECE) },
            Math.min(whole.t.length, sent + PIECE)
          );
      } else
        for (const { first, samples } of await samplesFrom(db, { runId, from: sent })) {
          const skip = Math.max(0, sent - first);
          const end = first + samples.t.length;
          send('samples', { first: sent, samples: sliceSeries(samples, skip, samples.t.length) }, end);
          sent = end;
        }
      send('state', run.rig, sent);
      if (run.rig?.state !== 'running') return;
    } catch (error) {
      // While the database is away the page waits; what is gone for good ends it.
      if (problemOf(error)?.code !== 'database-away') throw error;
    }
    await pause(POLL_MS, signal);
  }
}
