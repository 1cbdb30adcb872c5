import type { InStock, Library } from './assemble.ts';
import { exchange } from '../cost/convert.ts';
import { deliveredPrice, newestQuote } from '../cost/delivered-price.ts';
import type { Need } from '../cost/shopping.ts';

/** What of a build is still to be paid, and what has no price. */
export type ToPay = {
  /** In the crate's currency. */
  amount: number;
  currency: string;
  /** What the amount is for. */
  names: string[];
  /** On its way: taken as paid. */
  ordered: string[];
  /** To be bought, and nobody noted a price. */
  unpriced: string[];
};

/** Says whether one more of a part is at hand, after so many others are taken. */
function standing(stock: InStock | undefined, taken: number, tag: string | undefined): 'owned' | 'ordered' | 'to-buy' {
  if (!stock) return 'to-buy';
  const mine = stock.free + (tag !== undefined && stock.builds.includes(tag) ? 1 : 0);
  if (mine > taken) return 'owned';
  return mine + (stock.ordered ?? 0) > taken ? 'ordered' : 'to-buy';
}

/** Adds a part to the bill, at its newest price. */
function bill(sum: ToPay, { quotes, exchange: home }: Library, name: string, modelId: string | undefined): void {
  const quote = newestQuote(quotes, modelId);
  const price = quote && exchange(deliveredPrice(quote), quote.currency, home.currency, home.rates);
  sum.amount += price?.amount ?? 0;
  (price ? sum.names : sum.unpriced).push(name);
}

/**
 * Adds up what of a build is still to be paid, delivered: what is neither at hand, nor ordered, nor in a box. A computer is never to
 * pay, for it is what one builds for.
 * @param tag the build; items in it are its own, those in other builds are not free
 * @example leftToPay(libraryOf([], []), []).amount // 0
 */
export function leftToPay(library: Library, needs: readonly Need[], tag?: string): ToPay {
  const { currency } = library.exchange;
  const sum: ToPay = { amount: 0, currency, names: [], ordered: [], unpriced: [] };
  const used = new Map<string, number>();
  for (const { role, name, modelId, inBoxOf } of needs) {
    if (inBoxOf || role === 'host') continue;
    const taken = used.get(modelId ?? '') ?? 0;
    if (modelId !== undefined) used.set(modelId, taken + 1);
    const has = standing(library.stock.get(modelId ?? ''), taken, tag);
    if (has === 'ordered') sum.ordered.push(name);
    else if (has === 'to-buy') bill(sum, library, name, modelId);
  }
  return sum;
}
