/* eslint-disable @typescript-eslint/no-non-null-assertion -- a total is asked for where there is a price */
import type { ExchangeRate } from '../parts/exchange-rate.ts';
import type { Quote } from '../parts/quote.ts';
import { exchange, type Exchanged } from './convert.ts';
import { deliveredPrice, newestQuote } from './delivered-price.ts';

export type BuildCost = {
  total: number;
  currency: string;
  perTB: number;
  perTiBUsable: number;
  /** Date of the oldest price in it. */
  oldestQuote: string;
  /** Parts that no quote covers; they count as 0. */
  withoutQuote: string[];
  /** Rates with which quotes in other currencies were converted. */
  exchanged?: Exchanged[];
};

type Priced = { role: string; id: string | undefined };

/** The currency of a crate, with the rates that were entered. */
type Home = { currency: string; rates: readonly ExchangeRate[] };

/** Finds the newest price of each part; null where drive or enclosure have none, or nothing has. */
function quotesOf(
  parts: readonly Priced[],
  quotes: readonly Quote[]
): { chosen: Quote[]; withoutQuote: string[] } | null {
  const withoutQuote: string[] = [];
  const chosen: Quote[] = [];
  for (const { id, role } of parts) {
    const quote = id === undefined ? undefined : newestQuote(quotes, id);
    if (quote) chosen.push(quote);
    else if (role === 'drive' || role === 'enclosure') return null;
    else withoutQuote.push(role);
  }
  return chosen.length > 0 ? { chosen, withoutQuote } : null;
}

/** Picks the currency of a total: that of the crate where it can be reached or is needed, else that of the prices. */
function currencyFor(quotes: readonly Quote[], home: Home | undefined): string {
  const { currency } = quotes[0]!;
  const mixed = quotes.some((quote) => quote.currency !== currency);
  return home && (mixed || exchange(1, currency, home.currency, home.rates)) ? home.currency : currency;
}

/**
 * Adds up prices as delivered, and divides them by the capacity. Null where drive or enclosure have no quote, or the quotes are in several currencies and
 * no rate between them was entered: nothing is converted with a rate that the person did not give.
 */
export function buildCost(
  parts: readonly Priced[],
  quotes: readonly Quote[] | undefined,
  room: { capacityTB: number; usableTiB: number },
  home?: Home
): BuildCost | null {
  const found = quotesOf(parts, quotes ?? []);
  if (!found) return null;
  const { chosen, withoutQuote } = found;
  const wanted = currencyFor(chosen, home);
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
    perTB: total / room.capacityTB,
    perTiBUsable: total / room.usableTiB,
    oldestQuote,
    withoutQuote,
    ...(exchanged.size > 0 ? { exchanged: [...exchanged.values()] } : {})
  };
}
