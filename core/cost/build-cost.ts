import type { Quote } from '../parts/quote.ts';
import { landedPrice, newestQuote } from './landed.ts';

export type BuildCost = {
  total: number;
  currency: string;
  perTB: number;
  perTiBUsable: number;
  /** Date of the oldest quote in it. */
  oldestQuote: string;
  /** Parts that no quote covers; they count as 0. */
  withoutQuote: string[];
};

type Priced = { role: string; id: string | undefined };

/**
 * Landed total over the capacity. Null where drive or enclosure have no quote, or the quotes are in several currencies:
 * nothing is converted without a rate that the person entered.
 */
export function buildCost(
  parts: readonly Priced[],
  quotes: readonly Quote[] | undefined,
  capacityTB: number,
  usableTiB: number
): BuildCost | null {
  if (!quotes || quotes.length === 0) return null;
  let total = 0;
  let currency: string | undefined;
  let oldestQuote = '';
  const withoutQuote: string[] = [];
  for (const part of parts) {
    const quote = part.id === undefined ? undefined : newestQuote(quotes, part.id);
    if (!quote) {
      if (part.role === 'drive' || part.role === 'enclosure') return null;
      withoutQuote.push(part.role);
      continue;
    }
    if (currency !== undefined && quote.currency !== currency) return null;
    currency = quote.currency;
    total += landedPrice(quote);
    if (oldestQuote === '' || quote.date < oldestQuote) oldestQuote = quote.date;
  }
  if (currency === undefined) return null;
  return { total, currency, perTB: total / capacityTB, perTiBUsable: total / usableTiB, oldestQuote, withoutQuote };
}
