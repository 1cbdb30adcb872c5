import type { ExchangeRate } from '../parts/exchange-rate.ts';
import type { Quote } from '../parts/quote.ts';
import { exchange, type Exchanged } from './convert.ts';
import { deliveredPrice, newestQuote } from './delivered-price.ts';

export type BuildCost = {
  total: number;
  currency: string;
  perTB: number;
  perTiBUsable: number;
  /** Date of the oldest quote in it. */
  oldestQuote: string;
  /** Parts that no quote covers; they count as 0. */
  withoutQuote: string[];
  /** Rates with which quotes in other currencies were converted. */
  exchanged?: Exchanged[];
};

type Priced = { role: string; id: string | undefined };

/**
 * Landed total over the capacity. Null where drive or enclosure have no quote, or the quotes are in several currencies and
 * no rate between them was entered: nothing is converted with a rate that the person did not give.
 */
export function buildCost(
  parts: readonly Priced[],
  quotes: readonly Quote[] | undefined,
  capacityTB: number,
  usableTiB: number,
  home?: { currency: string; rates: readonly ExchangeRate[] }
): BuildCost | null {
  if (!quotes || quotes.length === 0) return null;
  const withoutQuote: string[] = [];
  const chosen: Quote[] = [];
  for (const part of parts) {
    const quote = part.id === undefined ? undefined : newestQuote(quotes, part.id);
    if (quote) chosen.push(quote);
    else if (part.role === 'drive' || part.role === 'enclosure') return null;
    else withoutQuote.push(part.role);
  }
  const first = chosen[0];
  if (!first) return null;
  const mixed = chosen.some((quote) => quote.currency !== first.currency);
  const wanted =
    home && (mixed || exchange(1, first.currency, home.currency, home.rates)) ? home.currency : first.currency;
  let total = 0;
  let oldestQuote = '';
  const exchanged = new Map<string, Exchanged>();
  for (const quote of chosen) {
    const priced = exchange(deliveredPrice(quote), quote.currency, wanted, home?.rates ?? []);
    if (!priced) return null;
    if (priced.used) exchanged.set(quote.currency, priced.used);
    total += priced.amount;
    if (oldestQuote === '' || quote.date < oldestQuote) oldestQuote = quote.date;
  }
  return {
    total,
    currency: wanted,
    perTB: total / capacityTB,
    perTiBUsable: total / usableTiB,
    oldestQuote,
    withoutQuote,
    ...(exchanged.size > 0 ? { exchanged: [...exchanged.values()] } : {})
  };
}
