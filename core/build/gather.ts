import { soundRates, type MeasuredRun } from '../results/measured.ts';
import type { ExchangeRate } from '../parts/exchange-rate.ts';
import { isPairOf, type KnownPair } from '../parts/known-pair.ts';
import type { Pad } from '../parts/pad.ts';
import type { Quote } from '../parts/quote.ts';
import { plan } from '../plan/plan.ts';
import type { PlanInput } from '../plan/report.ts';
import { chainKey, type ChainIds } from './chain-key.ts';

/** What is known around parts beside their specifications, as far as somebody loaded it for the ids that are asked. */
export type Known = {
  pads: readonly Pad[];
  quotes: readonly Quote[];
  houseRules: Record<string, string>;
  knownPairs: readonly KnownPair[];
  exchange: { currency: string; rates: readonly ExchangeRate[] };
  /** Results by chain (`chainKey`), newest first: those that count where this is planned. */
  measured: ReadonlyMap<string, readonly MeasuredRun[]>;
};

/** The parts of one build, resolved. */
export type ChosenParts = Pick<
  PlanInput,
  'host' | 'portId' | 'cable' | 'enclosure' | 'drive' | 'job' | 'stack' | 'writeCache'
>;

/** Quotes by part: a crate has thousands, and swaps are planned by the hundred. */
const indexes = new WeakMap<readonly Quote[], Map<string, Quote[]>>();
function quotesByPart(quotes: readonly Quote[]): Map<string, Quote[]> {
  let index = indexes.get(quotes);
  if (!index) {
    index = new Map();
    for (const quote of quotes) {
      const list = index.get(quote.partId);
      if (list) list.push(quote);
      else index.set(quote.partId, [quote]);
    }
    indexes.set(quotes, index);
  }
  return index;
}

/**
 * Puts the input of a plan together: the chosen parts, and of everything that is known what belongs to them. Page, API, ranking,
 * what-if, several at once, jobs and shopping list all come through here, so that they cannot disagree.
 * @example gather(anInput(), libraryOf([], [])).quotes // []
 */
export function gather(parts: ChosenParts, known: Known): PlanInput {
  const { host, portId, cable, enclosure, drive, job, stack, writeCache } = parts;
  const byPart = quotesByPart(known.quotes);
  const quotes = [cable, enclosure, drive, ...known.pads].flatMap((part) =>
    part?.id === undefined ? [] : (byPart.get(part.id) ?? [])
  );
  // Only what is known of this very pair: a plan keeps what it was made from, and no more.
  const knownPairs = known.knownPairs.filter((pair) => isPairOf(pair, drive, enclosure.bridge));
  const input: PlanInput = {
    host,
    portId,
    ...(cable ? { cable } : {}),
    enclosure,
    drive,
    ...(known.pads.length > 0 ? { pads: [...known.pads] } : {}),
    ...(job ? { job } : {}),
    ...(stack ? { stack } : {}),
    ...(writeCache ? { writeCache } : {}),
    quotes,
    houseRules: known.houseRules,
    ...(knownPairs.length > 0 ? { knownPairs } : {}),
    ...(known.exchange.rates.length > 0
      ? { exchange: { currency: known.exchange.currency, rates: [...known.exchange.rates] } }
      : {})
  };
  const measured = job && measuredFor(input, known);
  return measured ? { ...input, measured } : input;
}

/** Finds the newest result of this very chain that shows no fault against its forecast. */
function measuredFor(input: PlanInput, { measured }: Known): PlanInput['measured'] {
  if (measured.size === 0) return undefined;
  const { host, portId, cable, enclosure, drive } = input;
  if (!host.id || !enclosure.id || !drive.id) return undefined;
  const ids: ChainIds = { hostId: host.id, portId, cableId: cable?.id, enclosureId: enclosure.id, driveId: drive.id };
  const runs = measured.get(chainKey(ids));
  return runs && soundRates(runs, plan(input, { workings: false }).throughput);
}
