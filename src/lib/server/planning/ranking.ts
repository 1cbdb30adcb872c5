import type { Knex } from 'knex';
import type { Filters, RankInput, Weights } from '#core/compare/ranking/request';
import { loadLibrary } from './planning';
import { Problem } from '../problems/problem';
import { getJob } from '../repositories/jobs';
import { listSpecs } from '../repositories/models';
import { countingRuns } from '../repositories/runs';
import { getCrate } from '../repositories/crates';

export type RankChoice = {
  jobId: string;
  /** Which of the crate's parts take part; left out, all of that kind do. */
  hostIds?: readonly string[] | undefined;
  cableIds?: readonly string[] | undefined;
  enclosureIds?: readonly string[] | undefined;
  driveIds?: readonly string[] | undefined;
  weights?: Partial<Weights> | undefined;
  filters?: Filters | undefined;
  limit?: number | undefined;
  /** Whether units that are in a build count as at hand. */
  takeApart?: boolean | undefined;
};

/**
 * Gathers what a crate's own parts are ranked with: specifications, prices, rates, known pairs, house rules, results, and how many
 * are at hand.
 * @throws Problem `bad-input` where no host, enclosure or drive is left to combine
 */
export async function rankInputFor(db: Knex, crateId: string, choice: RankChoice): Promise<RankInput> {
  const crate = await getCrate(db, { id: crateId });
  const [library, alternatives, job, runs] = await Promise.all([
    loadLibrary(db, crateId),
    listSpecs(db, { crateId, kind: 'alternative' }),
    getJob(db, { crateId, id: choice.jobId }),
    countingRuns(db, { crateId, simulated: crate.demo })
  ]);
  const chosen = <T extends { id: string }>(parts: ReadonlyMap<string, T>, ids?: readonly string[]): T[] =>
    [...parts.values()].filter(({ id }) => !ids || ids.includes(id));
  const hosts = chosen(library.host, choice.hostIds);
  const enclosures = chosen(library.enclosure, choice.enclosureIds);
  const drives = chosen(library.drive, choice.driveIds);
  const missing = Object.entries({ hostIds: hosts, enclosureIds: enclosures, driveIds: drives }).find(
    ([, list]) => list.length === 0
  );
  if (missing)
    throw new Problem('bad-input', 'At least one computer, one enclosure and one drive are needed.', [
      { path: missing[0], message: 'leaves nothing to combine' }
    ]);
  const { stock } = library;
  const atHand = [...stock].map(([id, { owned, free }]) => [id, choice.takeApart ? owned : free] as const);
  return {
    hosts,
    cables: chosen(library.cable, choice.cableIds),
    enclosures,
    drives,
    pads: [...library.pads],
    job: job.spec,
    quotes: [...library.quotes],
    houseRules: library.houseRules,
    knownPairs: [...library.knownPairs],
    exchange: { currency: library.exchange.currency, rates: [...library.exchange.rates] },
    measured: runs.map(({ ids, run }) => ({
      ...ids,
      date: run.date,
      simulated: run.simulated,
      readMBps: run.results.readMBps,
      writeMBps: run.results.writeMBps
    })),
    alternatives: alternatives.filter((part) => part.kind === 'alternative'),
    stock: Object.fromEntries(atHand.filter(([, count]) => count > 0)),
    resale: Object.fromEntries([...stock].flatMap(([id, { resale }]) => (resale === undefined ? [] : [[id, resale]]))),
    ...(choice.weights ? { weights: choice.weights } : {}),
    ...(choice.filters ? { filters: choice.filters } : {}),
    ...(choice.limit === undefined ? {} : { limit: choice.limit })
  };
}
