import type { Knex } from 'knex';
import { assemble, libraryOf, type Library } from '#core/build/assemble';
import type { Choice } from '#core/build/build';
import { ENGINE_VERSION, plan } from '#core/plan/plan';
import type { PlanInput, PlanReport } from '#core/plan/report';
import { Problem } from './problem';
import { getCrate } from './repositories/crates';
import { listJobs } from './repositories/jobs';
import { listPairs } from './repositories/pairs';
import { listRates } from './repositories/rates';
import { listSpecs } from './repositories/models';
import { listQuotes } from './repositories/quotes';
import { stockOf } from './repositories/units';
import type { StoredBuild } from './repositories/builds';

/** What a set of choices refers to, and every pad; read once, however many builds are planned. Without choices: everything. */
export async function loadLibrary(
  db: Knex,
  crateId: string,
  choices?: readonly Choice[],
  { quotes: wantsQuotes = true } = {}
): Promise<Library> {
  const ids = choices && [
    ...new Set(choices.flatMap((c) => [c.hostId, c.cableId, c.enclosureId, c.driveId]).filter((id) => id !== undefined))
  ];
  const jobIds = choices && [...new Set(choices.map((c) => c.jobId).filter((id) => id !== undefined))];
  const pads = ids ? await listSpecs(db, { crateId, kind: 'pad' }) : [];
  const priced = ids && [...ids, ...pads.map(({ id }) => id)];
  const [crate, parts, jobs, quotes, pairs, rates, stock] = await Promise.all([
    getCrate(db, { id: crateId }),
    listSpecs(db, { crateId, ...(ids ? { ids } : {}) }),
    listJobs(db, crateId, jobIds),
    wantsQuotes ? listQuotes(db, { crateId, ...(priced ? { partIds: priced } : {}) }) : [],
    listPairs(db, { crateId, ...(ids ? { driveIds: ids } : {}) }),
    wantsQuotes ? listRates(db, crateId) : [],
    ids ? new Map() : stockOf(db, crateId)
  ]);
  return libraryOf(
    [...parts, ...pads],
    jobs.map(({ spec }) => spec),
    quotes.map(({ quote }) => quote),
    crate.houseRules,
    pairs.map(({ pair }) => pair),
    { currency: crate.currency, rates: rates.map(({ rate }) => rate) },
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

export async function planChoice(
  db: Knex,
  crateId: string,
  choice: Choice
): Promise<{ snapshot: PlanInput; report: PlanReport }> {
  const snapshot = planInputFor(await loadLibrary(db, crateId, [choice]), choice);
  // The workings are not kept: the same engine makes them again from the snapshot.
  return { snapshot, report: plan(snapshot, { workings: false }) };
}

export type Difference = { what: string; then: string; now: string };

function leaves(value: unknown, path: string, into: Map<string, string>): void {
  if (value === undefined) return;
  if (value !== null && typeof value === 'object') {
    for (const [key, below] of Object.entries(value)) leaves(below, path ? `${path}.${key}` : key, into);
  } else into.set(path, String(value));
}

/** Every field that differs between two versions of one thing. */
export function differencesBetween(then: unknown, now: unknown, prefix: string): Difference[] {
  const [a, b] = [new Map<string, string>(), new Map<string, string>()];
  leaves(then, '', a);
  leaves(now, '', b);
  return [...new Set([...a.keys(), ...b.keys()])]
    .filter((key) => a.get(key) !== b.get(key))
    .map((key) => ({ what: `${prefix} ${key}`, then: a.get(key) ?? 'not given', now: b.get(key) ?? 'not given' }));
}

/**
 * What has changed since a build was planned: its parts, its job or the engine. Quotes and pads come and go; they do not make a
 * plan outdated.
 */
export function outdatedBy(library: Library, build: StoredBuild): Difference[] {
  const { snapshot } = build;
  const differences: Difference[] =
    build.engine === ENGINE_VERSION ? [] : [{ what: 'engine', then: build.engine, now: ENGINE_VERSION }];
  let now: PlanInput;
  try {
    now = planInputFor(library, build.choice);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return [...differences, { what: error.fields[0]?.path ?? 'a part', then: 'in the crate', now: 'gone' }];
  }
  for (const key of ['host', 'cable', 'enclosure', 'drive', 'job', 'knownPairs'] as const)
    differences.push(...differencesBetween(snapshot[key], now[key], key));
  return differences;
}
