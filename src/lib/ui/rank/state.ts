import type { HOUSE_RULES } from '#core/house-rules/house-rules';
import {
  CRITERIA,
  TRAITS,
  type Criterion,
  type Filters,
  type Trait,
  type Weights
} from '#core/compare/ranking/request';

/** What the page asks for, as its address keeps it. What is left out is at its default. */
export type RankState = {
  jobId?: string;
  /** Ids of parts that take part; left out, all of that kind do. */
  hostIds?: string[];
  cableIds?: string[];
  enclosureIds?: string[];
  driveIds?: string[];
  weights: Partial<Weights>;
  filters: Filters;
  takeApart: boolean;
  /** Whether all parts of a large crate take part, and not only what is owned and what has a price. */
  everything?: boolean;
};

const LISTS = { hostIds: 'hosts', cableIds: 'cables', enclosureIds: 'enclosures', driveIds: 'drives' } as const;
const NUMBERS = {
  minSustainedWriteMBps: ['min-write', 1e5],
  minCapacityTB: ['min-tb', 1000],
  maxCost: ['max-cost', 1e7],
  maxSpend: ['max-pay', 1e7]
} as const;
const VERDICTS = ['works', 'limited', 'check'] as const;
const ID = /^[0-9A-HJKMNP-TV-Z]{26}$/;

export function stateToQuery(state: RankState): string {
  const query = new URLSearchParams();
  if (state.jobId) query.set('job', state.jobId);
  for (const [key, name] of Object.entries(LISTS) as [keyof typeof LISTS, string][])
    if (state[key]) query.set(name, state[key].join('.'));
  const weights = WEIGHED.filter((c) => state.weights[c] !== undefined);
  if (weights.length > 0) query.set('weights', weights.map((c) => `${c}_${state.weights[c]}`).join('~'));
  for (const [key, [name]] of Object.entries(NUMBERS) as [keyof typeof NUMBERS, readonly [string, number]][])
    if (state.filters[key] !== undefined) query.set(name, String(state.filters[key]));
  if (state.filters.verdicts) query.set('verdicts', state.filters.verdicts.join('.'));
  if (state.filters.ownedOnly) query.set('owned', 'yes');
  if (state.takeApart) query.set('apart', 'yes');
  if (state.everything) query.set('all', 'yes');
  return query.toString();
}

/** The parts of a value in an address that a test lets through. */
const partsOf = (query: URLSearchParams, name: string, test: (part: string) => boolean): string[] =>
  query.get(name)?.split('.').filter(test) ?? [];

const MOST_IDS = 500;
const MOST_WEIGHT = 100;

/** Reads weights such as `cost_2~perTB_1`. */
function weightsFrom(query: URLSearchParams): RankState['weights'] {
  const weights: RankState['weights'] = {};
  for (const part of query.get('weights')?.split('~') ?? []) {
    const [criterion, value] = part.split('_');
    const weight = Number(value);
    if ((WEIGHED as readonly string[]).includes(criterion ?? '') && weight >= 0 && weight <= MOST_WEIGHT)
      weights[criterion as Criterion | Trait] = weight;
  }
  return weights;
}

function filtersFrom(query: URLSearchParams): RankState['filters'] {
  const filters: RankState['filters'] = {};
  for (const [key, [name, max]] of Object.entries(NUMBERS) as [keyof typeof NUMBERS, readonly [string, number]][]) {
    const text = query.get(name);
    const value = Number(text || NaN);
    if (value >= 0 && value <= max) filters[key] = value;
  }
  const verdicts = partsOf(query, 'verdicts', (v) => (VERDICTS as readonly string[]).includes(v));
  if (verdicts.length > 0) filters.verdicts = verdicts as (typeof VERDICTS)[number][];
  if (query.get('owned') === 'yes') filters.ownedOnly = true;
  return filters;
}

/** Reads an address; what makes no sense in it is left out. */
export function stateFromQuery(query: URLSearchParams): RankState {
  const state: RankState = {
    weights: weightsFrom(query),
    filters: filtersFrom(query),
    takeApart: query.get('apart') === 'yes',
    ...(query.get('all') === 'yes' ? { everything: true } : {})
  };
  const job = query.get('job');
  if (job && ID.test(job)) state.jobId = job;
  for (const [key, name] of Object.entries(LISTS) as [keyof typeof LISTS, string][]) {
    const ids = partsOf(query, name, (id) => ID.test(id));
    if (ids.length > 0) state[key] = ids.slice(0, MOST_IDS);
  }
  return state;
}

/** Everything that can be weighed: figures first, then what one lives with. */
export const WEIGHED = [...CRITERIA, ...TRAITS] as const;

export const CRITERION_WORD: Record<Criterion | Trait, string> = {
  sustainedWrite: 'Write after the cache',
  read: 'Read',
  seconds: 'Time of the job',
  cost: 'Price',
  perTB: 'Price of a terabyte',
  silence: 'Silence',
  lightness: 'Low weight',
  tools: 'Opening without tools',
  reach: 'Cable length',
  fallback: 'Fallback to plain USB',
  room: 'Room with a reserve'
};
export const CRITERION_SHORT: Record<Criterion | Trait, string> = {
  sustainedWrite: 'write',
  read: 'read',
  seconds: 'job',
  cost: 'price',
  perTB: 'per TB',
  silence: 'silence',
  lightness: 'weight',
  tools: 'no tools',
  reach: 'cable',
  fallback: 'fallback',
  room: 'room'
};

/** Which of the other ways a ranking is held against, by house rule: the first of these sorts that has a price. */
const HELD_AGAINST: Record<keyof (typeof HOUSE_RULES)['buy']['choices'], readonly string[]> = {
  bare: ['internal-upgrade', 'portable', 'other'],
  'ready-made': ['portable', 'other', 'internal-upgrade'],
  'take-out': ['other', 'portable', 'internal-upgrade']
};
export function heldAgainst<T extends { sort: string; cost: number | null }>(
  ways: readonly T[],
  choice: string
): T | undefined {
  const sorts = HELD_AGAINST[choice as keyof typeof HELD_AGAINST] ?? HELD_AGAINST.bare;
  for (const sort of sorts) {
    const found = ways.find((way) => way.sort === sort && way.cost !== null);
    if (found) return found;
  }
  return ways.find((way) => way.cost !== null);
}
