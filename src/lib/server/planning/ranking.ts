import type { Knex } from 'knex';
import type { Library } from '#core/build/assemble';
import type { Choice } from '#core/build/choice';
import type { Filters, RankInput, RankReport, Weights } from '#core/compare/ranking/request';
import { loadLibrary } from './planning';
import { Problem } from '../problems/problem';
import { getJob } from '../repositories/jobs';
import { listSpecs } from '../repositories/models';
import { pickable } from '../repositories/pickable';
import { listQuotes } from '../repositories/quotes';
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

const KINDS = ['host', 'cable', 'enclosure', 'drive'] as const;
type RankedKind = (typeof KINDS)[number];
const IDS = { host: 'hostIds', cable: 'cableIds', enclosure: 'enclosureIds', drive: 'driveIds' } as const;
const SLOT = { host: 'hostId', cable: 'cableId', enclosure: 'enclosureId', drive: 'driveId' } as const;

/** Of a large crate so many of a kind take part at first: some seconds' work. */
export const RANKED_AT_FIRST: Record<RankedKind, number> = { host: 12, cable: 30, enclosure: 80, drive: 80 };

/** How many of each kind take part, and how many the crate has beside them. */
export type RankScope = Record<RankedKind, { taken: number; leftOut: number }>;

/**
 * Settles which parts take part: those that are asked for; else of a large crate what is owned first, then what has a price.
 * @param everything whether all of them do, however many there are
 */
export async function scopeOf(
  db: Knex,
  crateId: string,
  { everything, ...choice }: RankChoice & { everything?: boolean | undefined }
): Promise<{ choice: RankChoice; scope: RankScope }> {
  const picked = await Promise.all(
    KINDS.map(async (kind) => {
      const asked = choice[IDS[kind]];
      if (asked) return { kind, ids: asked, leftOut: 0 };
      const limit = everything ? 1e6 : RANKED_AT_FIRST[kind];
      const { ids, total } = await pickable(db, { crateId, kind, limit });
      return { kind, ids, leftOut: total - ids.length };
    })
  );
  return {
    choice: { ...choice, ...Object.fromEntries(picked.map(({ kind, ids }) => [IDS[kind], ids])) },
    scope: Object.fromEntries(
      picked.map(({ kind, ids, leftOut }) => [kind, { taken: ids.length, leftOut }])
    ) as RankScope
  };
}

/** How many combinations an input makes. */
export const combinationsOf = ({ hosts, cables, enclosures, drives }: RankInput): number =>
  hosts.reduce((sum, host) => sum + host.ports.length, 0) *
  Math.max(1, cables.length) *
  enclosures.length *
  drives.length;

/** What the rows of a ranking call their parts. */
export type RankedParts = {
  host: { id: string; name: string; ports: { id: string; label: string }[] }[];
  cable: { id: string; name: string }[];
  enclosure: { id: string; name: string }[];
  drive: { id: string; name: string; capacityTB: number }[];
  pad: { id: string; name: string }[];
};

/** Names the parts that stand in the rows and the lists of a ranking. */
export function partsOfReport(input: RankInput, report: RankReport): RankedParts {
  const text = JSON.stringify(report);
  const met = <T extends { id?: string | undefined }>(parts: readonly T[]) =>
    parts.flatMap((part) => (part.id !== undefined && text.includes(part.id) ? [{ ...part, id: part.id }] : []));
  const named = ({ id, name }: { id: string; name: string }) => ({ id, name });
  return {
    host: met(input.hosts).map(({ id, name, ports }) => ({
      id,
      name,
      ports: ports.map((port) => ({ id: port.id, label: port.label }))
    })),
    cable: met(input.cables).map(named),
    enclosure: met(input.enclosures).map(named),
    drive: met(input.drives).map(({ id, name, capacityTB }) => ({ id, name, capacityTB })),
    pad: met(input.pads ?? []).map(named)
  };
}

/** Of parts that differ in nothing that a ranking reads, the first: its name, and which copy of it it is, say nothing. */
function withoutAlike<T extends { id: string; name: string }>(
  parts: readonly T[],
  { quotes, stock, measured, knownPairs }: Library
): T[] {
  // What something is known of is like no other.
  const known = [...measured.keys(), ...knownPairs.map(({ driveId }) => driveId ?? '')].join(' ');
  const prices = new Map<string, unknown[]>();
  for (const { partId, ...price } of quotes) prices.set(partId, [...(prices.get(partId) ?? []), price]);
  const seen = new Set<string>();
  return parts.filter(({ id, name: _name, ...spec }) => {
    if (known.includes(id)) return true;
    const key = JSON.stringify([spec, prices.get(id) ?? [], stock.get(id) ?? null]);
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}

/** What of a crate is loaded: everything, unless each kind is narrowed to ids. */
function choicesOf(choice: RankChoice): Partial<Choice>[] | undefined {
  if (KINDS.some((kind) => !choice[IDS[kind]])) return undefined;
  return KINDS.flatMap((kind) => (choice[IDS[kind]] ?? []).map((id) => ({ [SLOT[kind]]: id })));
}

/**
 * Gathers what a crate's own parts are ranked with: specifications, prices, rates, known pairs, house rules, results, and how many
 * are at hand.
 * @throws Problem `bad-input` where no host, enclosure or drive is left to combine
 */
export async function rankInputFor(db: Knex, crateId: string, choice: RankChoice): Promise<RankInput> {
  const crate = await getCrate(db, { id: crateId });
  const [library, alternatives, job, runs] = await Promise.all([
    loadLibrary(db, crateId, choicesOf(choice)),
    listSpecs(db, { crateId, kind: 'alternative' }),
    getJob(db, { crateId, id: choice.jobId }),
    countingRuns(db, {
      crateId,
      simulated: crate.demo,
      ...(choice.driveIds ? { driveIds: choice.driveIds } : {})
    })
  ]);
  const chosen = <T extends { id: string; name: string }>(
    parts: ReadonlyMap<string, T>,
    ids?: readonly string[]
  ): T[] => {
    const wanted = ids && new Set(ids);
    return withoutAlike(
      [...parts.values()].filter(({ id }) => !wanted || wanted.has(id)),
      library
    );
  };
  const others = alternatives.filter((part) => part.kind === 'alternative');
  const narrow = choicesOf(choice) !== undefined;
  const otherPrices = narrow ? await listQuotes(db, { crateId, partIds: others.map(({ id }) => id) }) : [];
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
    quotes: [...library.quotes, ...otherPrices.map(({ quote }) => quote)],
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
    alternatives: others,
    stock: Object.fromEntries(atHand.filter(([, count]) => count > 0)),
    resale: Object.fromEntries([...stock].flatMap(([id, { resale }]) => (resale === undefined ? [] : [[id, resale]]))),
    ...(choice.weights ? { weights: choice.weights } : {}),
    ...(choice.filters ? { filters: choice.filters } : {}),
    ...(choice.limit === undefined ? {} : { limit: choice.limit })
  };
}
