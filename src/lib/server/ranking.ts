import type { Knex } from 'knex';
import type { Filters, RankInput, Weights } from '#core/rank/request';
import { Problem } from './problem';
import { getCrate } from './repositories/crates';
import { getJob } from './repositories/jobs';
import { listSpecs } from './repositories/models';
import { listPairs } from './repositories/pairs';
import { listQuotes } from './repositories/quotes';
import { listRates } from './repositories/rates';
import { stockOf } from './repositories/units';

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
 * Everything that a crate's own parts are ranked with: specifications, prices, rates, known pairs, house rules, and how many are
 * at hand.
 * @throws Problem `bad-input` where no host, enclosure or drive is left to combine
 */
export async function rankInputFor(db: Knex, crateId: string, choice: RankChoice): Promise<RankInput> {
  const [crate, parts, job, quotes, rates, pairs, stock] = await Promise.all([
    getCrate(db, { id: crateId }),
    listSpecs(db, { crateId }),
    getJob(db, { crateId, id: choice.jobId }),
    listQuotes(db, { crateId }),
    listRates(db, crateId),
    listPairs(db, { crateId }),
    stockOf(db, crateId)
  ]);
  const chosen = <K extends 'host' | 'cable' | 'enclosure' | 'drive' | 'pad' | 'alternative'>(
    kind: K,
    ids?: readonly string[]
  ) =>
    parts.filter(
      (part): part is Extract<typeof part, { kind: K }> => part.kind === kind && (!ids || ids.includes(part.id))
    );
  const hosts = chosen('host', choice.hostIds);
  const enclosures = chosen('enclosure', choice.enclosureIds);
  const drives = chosen('drive', choice.driveIds);
  const missing = Object.entries({ hostIds: hosts, enclosureIds: enclosures, driveIds: drives }).find(
    ([, list]) => list.length === 0
  );
  if (missing)
    throw new Problem('bad-input', 'At least one host, one enclosure and one drive are needed.', [
      { path: missing[0], message: 'leaves nothing to combine' }
    ]);
  const atHand = [...stock].map(([id, { owned, free }]) => [id, choice.takeApart ? owned : free] as const);
  return {
    hosts,
    cables: chosen('cable', choice.cableIds),
    enclosures,
    drives,
    pads: chosen('pad'),
    job: job.spec,
    quotes: quotes.map(({ quote }) => quote),
    houseRules: crate.houseRules,
    knownPairs: pairs.map(({ pair }) => pair),
    exchange: { currency: crate.currency, rates: rates.map(({ rate }) => rate) },
    alternatives: chosen('alternative'),
    stock: Object.fromEntries(atHand.filter(([, count]) => count > 0)),
    resale: Object.fromEntries([...stock].flatMap(([id, { resale }]) => (resale === undefined ? [] : [[id, resale]]))),
    ...(choice.weights ? { weights: choice.weights } : {}),
    ...(choice.filters ? { filters: choice.filters } : {}),
    ...(choice.limit === undefined ? {} : { limit: choice.limit })
  };
}
