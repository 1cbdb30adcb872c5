import { exchange } from './convert.ts';
import { deliveredPrice } from './delivered-price.ts';
import type { ExchangeRate } from '../parts/exchange-rate.ts';
import type { Quote } from '../parts/quote.ts';

type PricedPart = {
  id: string;
  kind: string;
  name: string;
  target?: { amount: number; currency: string } | null | undefined;
};
/** The cheapest price of a part that still holds, in the crate's own currency where it can be had in it. */
export type Cheapest<Part extends PricedPart> = {
  part: Part;
  quote: Quote;
  home: number | undefined;
  count: number;
};
export type PriceOrder = 'name' | 'price' | 'age' | 'target';

/**
 * Lists the cheapest price of each part that still holds on a day; a part without one is left out.
 * @param rates what prices of other currencies are converted with; without one a price stands last
 * @example cheapestPrices({ parts: [], quotes: [], rates: [] }, 'EUR', '2026-11-27') // []
 */
export function cheapestPrices<Part extends PricedPart>(
  { parts, quotes, rates }: { parts: readonly Part[]; quotes: readonly Quote[]; rates: readonly ExchangeRate[] },
  currency: string,
  today: string
): Cheapest<Part>[] {
  const byPart = new Map<string, Quote[]>();
  for (const quote of quotes) {
    const list = byPart.get(quote.partId);
    if (list) list.push(quote);
    else byPart.set(quote.partId, [quote]);
  }
  return parts.flatMap((part) => {
    const valid = (byPart.get(part.id) ?? [])
      .filter((quote) => !(quote.expires && quote.expires < today))
      .map((quote) => ({ quote, home: exchange(deliveredPrice(quote), quote.currency, currency, [...rates])?.amount }))
      .sort((a, b) => (a.home ?? Infinity) - (b.home ?? Infinity));
    const [best] = valid;
    return best ? [{ part, ...best, count: valid.length }] : [];
  });
}

/**
 * Tells how far a price is above the target of its part; below nought where the target is reached, undefined without one.
 * @example aboveTarget({ part: { id: 'a', kind: 'drive', name: 'Awl' }, quote: { partId: 'a', vendor: 'Shop', date: '2026-11-01', currency: 'EUR', list: 9 }, home: 9, count: 1 }, 'EUR') // undefined
 */
export const aboveTarget = ({ part, home }: Cheapest<PricedPart>, currency: string): number | undefined =>
  part.target && home !== undefined && part.target.currency === currency ? home - part.target.amount : undefined;

/**
 * Gives those that match every word, in an order.
 * @example sortedPrices([], { find: '', sort: 'name', down: false, currency: 'EUR' }) // []
 */
export function sortedPrices<Part extends PricedPart>(
  rows: readonly Cheapest<Part>[],
  { find, sort, down, currency }: { find: string; sort: PriceOrder; down: boolean; currency: string }
): Cheapest<Part>[] {
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  const key = (row: Cheapest<Part>): string | number =>
    ({
      name: row.part.name,
      price: row.home ?? Infinity,
      age: row.quote.date,
      target: aboveTarget(row, currency) ?? Infinity
    })[sort];
  const order = (a: string | number, b: string | number): number =>
    typeof a === 'number' && typeof b === 'number' ? (a === b ? 0 : a - b) : String(a).localeCompare(String(b));
  return rows
    .filter(({ part, quote }) =>
      words.every((word) => `${part.name} ${part.kind} ${quote.vendor}`.toLowerCase().includes(word))
    )
    .sort((a, b) => order(key(a), key(b)) * (down ? -1 : 1) || a.part.name.localeCompare(b.part.name));
}
