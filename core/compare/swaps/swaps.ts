import { assemble, type InStock, type Library } from '../../build/assemble.ts';
import type { Choice } from '../../build/choice.ts';
import { optionsAt, pickedAt, withPicked, type ChainPlace } from '../../build/options.ts';
import { exchange } from '../../cost/convert.ts';
import { deliveredPrice, newestQuote } from '../../cost/delivered-price.ts';
import { chosenOption } from '../../house-rules/house-rules.ts';
import { plan } from '../../plan/plan.ts';
import type { PlanReport } from '../../plan/report.ts';

/** What a part would cost here: nothing or its resale value where one is free in the crate, else its newest quote. */
export type Price = { amount: number; currency: string; from: 'crate' | 'quote' };

/** A part in the place of another, and the plan with it. */
export type Swap = {
  place: ChainPlace;
  id: string;
  name: string;
  choice: Choice;
  stock: InStock;
  price: Price | null;
  report: PlanReport;
  /** Price over the MB/s gained: of writing, or of reading where only that gains. Null without a gain or a price. */
  perGain: { of: 'write' | 'read'; amount: number; currency: string } | null;
};

const NO_STOCK: InStock = { owned: 0, free: 0, builds: [] };
/** Gives how many of a part are at hand. */
export const stockOfPart = (library: Library, modelId: string): InStock => library.stock.get(modelId) ?? NO_STOCK;

/**
 * Gives what a part costs, delivered: nothing more where it is at hand, else its newest price in the currency of the crate.
 * @returns null where it is not in the crate and nobody has quoted it in a currency that can be converted
 * @example priceOf(libraryOf([], []), 'none') // null
 */
export function priceOf(library: Library, modelId: string): Price | null {
  const { currency, rates } = library.exchange;
  const { free, resale = 0 } = stockOfPart(library, modelId);
  const resold = chosenOption('reuse', library.houseRules) === 'resale';
  if (free > 0) return { amount: resold ? resale : 0, currency, from: 'crate' };
  const quote = newestQuote(library.quotes, modelId);
  if (!quote) return null;
  const into = exchange(deliveredPrice(quote), quote.currency, currency, rates);
  return into ? { amount: into.amount, currency, from: 'quote' } : null;
}

/** A gain below this share is none. */
const NO_GAIN = 0.001;

/**
 * Tells what a MB/s more costs, where the swap gives more of them.
 * @example pricePerGain(plan(anInput()), plan(anInput()), null) // null
 */
export function pricePerGain(base: PlanReport, report: PlanReport, price: Price | null): Swap['perGain'] {
  if (!price) return null;
  for (const of of ['write', 'read'] as const) {
    const [was, is] = [base.throughput[of]?.typical ?? 0, report.throughput[of]?.typical ?? 0];
    if (is - was > Math.max(was, 1) * NO_GAIN)
      return { of, amount: price.amount / (is - was), currency: price.currency };
  }
  return null;
}

/** Gives the plan with every other part that the crate knows at one place. Parts without which there is no plan are left out. */
export function swapsAt(library: Library, choice: Choice, place: ChainPlace, base: PlanReport): Swap[] {
  const picked = pickedAt(choice, place);
  return optionsAt(library, place).flatMap(({ id, name, modelId }): Swap[] => {
    if (id === picked) return [];
    const next = withPicked(choice, place, id) as Choice;
    const assembled = assemble(library, next);
    if (!assembled.ok) return [];
    const report = plan(assembled.input, { workings: false });
    const price = priceOf(library, modelId);
    const stock = stockOfPart(library, modelId);
    return [{ place, id, name, choice: next, stock, price, report, perGain: pricePerGain(base, report, price) }];
  });
}
