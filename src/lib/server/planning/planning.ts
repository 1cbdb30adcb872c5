import type { Knex } from 'knex';
import { assemble, libraryOf, withPartsOf, type Library } from '#core/build/assemble';
import type { Choice } from '#core/build/choice';
import { chainKey } from '#core/build/chain-key';
import type { Known } from '#core/build/gather';
import { ENGINE_VERSION, plan } from '#core/plan/plan';
import type { PlanInput, PlanReport } from '#core/plan/report';
import { Problem } from '../problems/problem';
import { getCrate } from '../repositories/crates';
import { listJobs } from '../repositories/jobs';
import { listPairs } from '../repositories/pairs';
import { listRates } from '../repositories/rates';
import { listSpecs } from '../repositories/models';
import { listQuotes } from '../repositories/quotes';
import { countingRuns } from '../repositories/runs';
import { loadStock } from '../repositories/units';
import type { StoredBuild } from '../repositories/builds';

/** Turns runs into what a gathering looks up: results by chain, newest first. */
function byChain(runs: Awaited<ReturnType<typeof countingRuns>>): Known['measured'] {
  const measured = new Map<string, (typeof runs)[number]['run'][]>();
  for (const { ids, run } of runs) {
    const key = chainKey(ids);
    measured.set(key, [...(measured.get(key) ?? []), run]);
  }
  return measured;
}

/**
 * Loads what a set of choices refers to, and every pad; once, however many builds are planned. With the ids of what is planned nothing
 * else is read; without choices it is the whole crate, for pages that pick and swap.
 */
export async function loadLibrary(db: Knex, crateId: string, choices?: readonly Partial<Choice>[]): Promise<Library> {
  const ids = choices && [
    ...new Set(choices.flatMap((c) => [c.hostId, c.cableId, c.enclosureId, c.driveId]).filter((id) => id !== undefined))
  ];
  const driveIds = choices && [...new Set(choices.flatMap((c) => c.driveId ?? []))];
  const jobIds = choices && [...new Set(choices.map((c) => c.jobId).filter((id) => id !== undefined))];
  const pads = ids ? await listSpecs(db, { crateId, kind: 'pad' }) : [];
  const priced = ids && [...ids, ...pads.map(({ id }) => id)];
  const crate = await getCrate(db, { id: crateId });
  const [parts, jobs, quotes, pairs, rates, runs, stock] = await Promise.all([
    listSpecs(db, { crateId, ...(ids ? { ids } : {}) }),
    listJobs(db, crateId, jobIds),
    listQuotes(db, { crateId, ...(priced ? { partIds: priced } : {}) }),
    listPairs(db, { crateId, ...(driveIds ? { driveIds } : {}) }),
    listRates(db, crateId),
    countingRuns(db, { crateId, simulated: crate.demo, ...(driveIds ? { driveIds } : {}) }),
    loadStock(db, crateId, priced)
  ]);
  return libraryOf(
    [...parts, ...pads],
    jobs.map(({ spec }) => spec),
    {
      quotes: quotes.map(({ quote }) => quote),
      houseRules: crate.houseRules,
      knownPairs: pairs.map(({ pair }) => pair),
      exchange: { currency: crate.currency, rates: rates.map(({ rate }) => rate) },
      measured: byChain(runs)
    },
    stock
  );
}

/** Everything a plan needs for a choice of stored parts.
 *  @throws Problem `bad-input` with the path of what is missing */
export function planInputFor(library: Library, choice: Choice): PlanInput {
  const assembled = assemble(library, choice);
  if (assembled.ok) return assembled.input;
  throw new Problem(
    'bad-input',
    assembled.missing[0]!.message,
    assembled.missing.map(({ slot, message }) => ({ path: `choice.${slot}`, message }))
  );
}

/**
 * Plans a choice of stored parts.
 * @param current the build that the choice is of: what it was planned from may have been deleted since
 * @throws Problem `bad-input` with the path of what is missing
 */
export async function planChoice(
  db: Knex,
  crateId: string,
  choice: Choice,
  current?: Pick<StoredBuild, 'choice' | 'snapshot'>
): Promise<{ snapshot: PlanInput; report: PlanReport }> {
  const library = await loadLibrary(db, crateId, [choice]);
  const source = current ? withPartsOf(library, current.choice, current.snapshot) : library;
  const snapshot = planInputFor(source, choice);
  // The workings are not kept: the same engine makes them again from the snapshot.
  return { snapshot, report: plan(snapshot, { workings: false }) };
}

/** A build as its parts are now; as it was planned where one of them is gone. */
export type BuildNow = { snapshot: PlanInput; report: PlanReport; differences: FieldDifference[] };

/**
 * Plans a stored build anew from the parts as they are now, so that every page shows one verdict and one price for it, and says what has
 * changed since it was planned.
 */
export function buildNow(library: Library, build: StoredBuild): BuildNow {
  const differences = outdatedBy(library, build);
  const assembled = assemble(library, build.choice);
  return assembled.ok
    ? { snapshot: assembled.input, report: plan(assembled.input, { workings: false }), differences }
    : { snapshot: build.snapshot, report: build.report, differences };
}

export type FieldDifference = { what: string; then: string; now: string };

function leaves(value: unknown, path: string, into: Map<string, string>): void {
  if (value === undefined) return;
  if (value !== null && typeof value === 'object') {
    for (const [key, below] of Object.entries(value)) leaves(below, path ? `${path}.${key}` : key, into);
  } else into.set(path, String(value));
}

/** Every field that differs between two versions of one thing. */
export function differencesBetween(then: unknown, now: unknown, prefix: string): FieldDifference[] {
  const [a, b] = [new Map<string, string>(), new Map<string, string>()];
  leaves(then, '', a);
  leaves(now, '', b);
  return [...new Set([...a.keys(), ...b.keys()])]
    .filter((key) => a.get(key) !== b.get(key))
    .map((key) => ({ what: `${prefix} ${key}`, then: a.get(key) ?? 'not given', now: b.get(key) ?? 'not given' }));
}

const VERDICT_WORD = { works: 'works', limited: 'works, limited', check: 'to check', fails: 'fails' } as const;

/** What a new engine makes of the same parts: the verdict, and which findings came and went. */
function engineDifferences(build: StoredBuild): FieldDifference[] {
  const now = plan(build.snapshot, { workings: false });
  const differences: FieldDifference[] = [{ what: 'engine', then: build.engine, now: ENGINE_VERSION }];
  const { report } = build;
  if (report.verdict !== now.verdict)
    differences.push({ what: 'verdict', then: VERDICT_WORD[report.verdict], now: VERDICT_WORD[now.verdict] });
  const codes = (findings: PlanReport['findings']) => new Map(findings.map((f) => [f.code, f.message]));
  const [then, since] = [codes(report.findings), codes(now.findings)];
  for (const [code, message] of then)
    if (!since.has(code)) differences.push({ what: 'finding', then: message, now: 'gone' });
  for (const [code, message] of since)
    if (!then.has(code)) differences.push({ what: 'finding', then: 'none', now: message });
  return differences;
}

/**
 * What has changed since a build was planned: its parts, its job or the engine. Quotes, pads and results come and go; they do not
 * make a plan outdated.
 */
export function outdatedBy(library: Library, build: StoredBuild): FieldDifference[] {
  const { snapshot } = build;
  const differences = build.engine === ENGINE_VERSION ? [] : engineDifferences(build);
  let now: PlanInput;
  try {
    now = planInputFor(library, build.choice);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return [...differences, { what: error.fields[0]?.path ?? 'a part', then: 'in the crate', now: 'gone' }];
  }
  for (const key of ['host', 'cable', 'enclosure', 'drive', 'job', 'knownPairs', 'houseRules', 'writeCache'] as const)
    differences.push(...differencesBetween(snapshot[key], now[key], WORD_OF[key]));
  return differences.filter(({ what }) => !OF_THE_HANDS.test(what));
}

/** What only the hands go by: the run sheet asks for it, and no figure of a plan depends on it. */
const OF_THE_HANDS = /^enclosure (?:retention|opening|screws|directionMark)\b/;

const WORD_OF = {
  host: 'host',
  cable: 'cable',
  enclosure: 'enclosure',
  drive: 'drive',
  job: 'job',
  knownPairs: 'known combination',
  houseRules: 'house rule',
  writeCache: 'write cache'
} as const;
