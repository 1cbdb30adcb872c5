/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices made by the walk over these very lists, in the inner loop */
import { buildCost } from '../../cost/build-cost.ts';
import { exchange } from '../../cost/convert.ts';
import { deliveredPrice, newestQuote } from '../../cost/delivered-price.ts';
import type { Quote } from '../../parts/quote.ts';
import type { RankInput } from './request.ts';

/** What parts and whole combinations cost, in one currency. NaN is "not known". */
export type Prices = {
  currency: string | null;
  /** Whether a dearer cable always makes a dearer combination. */
  plainSum: boolean;
  drive: Float64Array;
  enclosure: Float64Array;
  cable: Float64Array;
  /** The newest price of each part: all that a plan needs to price it. */
  quotes: Quote[];
  priceOf(id: string | undefined): number;
  /**
   * The landed total as a plan adds it up: drive, enclosure, cable, pads.
   * @param cable index, or -1 for none
   */
  total(drive: number, enclosure: number, cable: number, pads: readonly (string | undefined)[]): number;
};

/** The newest price of each part that is named, once. */
function newestQuotes(input: RankInput): Quote[] {
  const byPart = new Map<string, Quote[]>();
  for (const quote of input.quotes ?? []) {
    const list = byPart.get(quote.partId);
    if (list) list.push(quote);
    else byPart.set(quote.partId, [quote]);
  }
  const parts = [
    ...input.drives,
    ...input.enclosures,
    ...input.cables,
    ...(input.pads ?? []),
    ...(input.alternatives ?? [])
  ];
  const ids = new Set(parts.flatMap(({ id }) => (id === undefined ? [] : [id])));
  return [...ids].flatMap((id) => newestQuote(byPart.get(id) ?? [], id) ?? []);
}

/** Picks the currency of a ranking, and tells whether every price can be had in it. */
function currencyOf(quotes: readonly Quote[], home: RankInput['exchange']): Pick<Prices, 'currency' | 'plainSum'> {
  const currencies = [...new Set(quotes.map((quote) => quote.currency))].sort();
  const rates = home?.rates ?? [];
  if (home !== undefined && currencies.every((c) => exchange(1, c, home.currency, rates) !== undefined))
    return { currency: currencies.length === 0 ? null : home.currency, plainSum: true };
  if (currencies.length <= 1) return { currency: currencies[0] ?? null, plainSum: currencies.length === 1 };
  const count = (currency: string) => quotes.filter((quote) => quote.currency === currency).length;
  const commonest = [...currencies].sort((a, b) => count(b) - count(a))[0]!;
  return { currency: home?.currency ?? commonest, plainSum: false };
}

/**
 * Gives prices in the crate's own currency where every quote can be converted, in the quotes' own where there is but one. Where some
 * cannot be converted, combinations that come out in another currency have no price here: amounts of two currencies are never
 * compared.
 */
export function pricesOf(input: RankInput): Prices {
  const quotes = newestQuotes(input);
  const home = input.exchange;
  const rates = home?.rates ?? [];
  const { currency, plainSum } = currencyOf(quotes, home);

  const byId = new Map(quotes.map((quote) => [quote.partId, quote]));
  const priceOf = (id: string | undefined): number => {
    const quote = id === undefined ? undefined : byId.get(id);
    if (!quote || currency === null) return NaN;
    return exchange(deliveredPrice(quote), quote.currency, currency, rates)?.amount ?? NaN;
  };
  const list = (parts: readonly { id?: string | undefined }[]) => Float64Array.from(parts, ({ id }) => priceOf(id));
  const [drive, enclosure, cable] = [list(input.drives), list(input.enclosures), list(input.cables)];

  const sum: Prices['total'] = (d, e, c, pads) => {
    let total = drive[d]! + enclosure[e]!;
    if (c >= 0 && !Number.isNaN(cable[c]!)) total += cable[c]!;
    for (const pad of pads) {
      const price = priceOf(pad);
      if (!Number.isNaN(price)) total += price;
    }
    return total;
  };
  const asPlanned: Prices['total'] = (d, e, c, pads) => {
    const parts = [
      { role: 'drive', id: input.drives[d]!.id },
      { role: 'enclosure', id: input.enclosures[e]!.id },
      ...(c >= 0 ? [{ role: 'cable', id: input.cables[c]!.id }] : []),
      ...pads.map((id) => ({ role: 'pads', id }))
    ];
    const cost = buildCost(parts, quotes, { capacityTB: 1, usableTiB: 1 }, home);
    return cost && cost.currency === currency ? cost.total : NaN;
  };
  return { currency, plainSum, drive, enclosure, cable, quotes, priceOf, total: plainSum ? sum : asPlanned };
}
