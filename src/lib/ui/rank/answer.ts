import type { Combination, RankRow, Weights } from '#core/compare/ranking/request';
import { duration, money, rate } from '#core/quantities/format';
import { keyOf } from './chart';
import { CRITERION_WORD } from './state';

/** What a ranking answers before it asks: the first, why it is first, the next one and what would make it first, the cheapest. */
export type RankAnswer = { first: string; why: string; next?: string; cheapest?: string };

type Said = {
  lineOf: (row: Combination) => string;
  currency: string | null;
  /** The cheapest of all that were ranked; it may stand far below the rows that are shown. */
  cheapest?: { first: Combination; cost: number } | undefined;
};

const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);
const price = (amount: number | null, currency: string | null) =>
  amount === null || currency === null ? 'without a price' : money(amount, currency);

/** Why the first is first: what of the best it reaches in what counts most. */
function whyOf({ shares }: RankRow, weights: Weights): string {
  const weightOf = (criterion: string) => weights[criterion as keyof Weights] ?? 0;
  const counted = Object.entries(shares)
    .filter(([criterion]) => weightOf(criterion) > 0)
    .sort(([a], [b]) => weightOf(b) - weightOf(a));
  const said = counted.map(([criterion, share]) => {
    const name = lower(CRITERION_WORD[criterion as keyof typeof CRITERION_WORD]);
    return share >= 0.995 ? `the best ${name}` : `${Math.round(share * 100)}\u202f% of the best ${name}`;
  });
  return said.length === 0
    ? 'Nothing is weighed.'
    : `First because it comes to ${said.join(', ')}, and nothing adds up to more.`;
}

/**
 * What would make the second the first. A score is a sum of weights times the logarithms of shares, so that a price lower by the
 * factor e^(-d/w) makes up for a distance of d, w being what all prices weigh together; a rate higher by e^(d/w) does the same.
 */
function wouldBeFirst(first: RankRow, second: RankRow, weights: Weights, { currency }: Said): string {
  const distance = first.score - second.score;
  if (distance < 1e-9) return ' It is as good as the first.';
  const byPrice = weights.cost + weights.perTB;
  if (byPrice > 0 && second.cost !== null && currency) {
    const needed = second.cost * Math.exp(-distance / byPrice);
    if (needed > second.cost * 0.2)
      return ` It would be first for less than ${money(needed, currency)}, ${money(second.cost - needed, currency)} below its price.`;
  }
  if (weights.sustainedWrite > 0) {
    const needed = second.sustainedWrite.typical * Math.exp(distance / weights.sustainedWrite);
    if (needed < second.sustainedWrite.typical * 5)
      return ` It would be first if it wrote ${rate(needed)}\u202fMB/s after the cache, not ${rate(second.sustainedWrite.typical)}.`;
  }
  return ' No change of one figure alone would make it the first.';
}

/**
 * Answers which to buy, from rows in their order.
 * @param rows pairings, each once, the best first
 * @param counted what counts how much; what is left out does not count
 */
export function rankAnswer(rows: readonly RankRow[], counted: Partial<Weights>, said: Said): RankAnswer | undefined {
  const [first, second] = rows;
  const weights: Weights = { sustainedWrite: 0, read: 0, seconds: 0, cost: 0, perTB: 0, ...counted };
  if (!first) return undefined;
  const { lineOf, currency, cheapest } = said;
  const figures = (row: RankRow) => `the job in about ${duration(row.seconds)}, ${price(row.cost, currency)}`;
  return {
    first: `${lineOf(first)}: ${figures(first)}.`,
    why: whyOf(first, weights),
    ...(second ? { next: `${lineOf(second)}: ${figures(second)}.${wouldBeFirst(first, second, weights, said)}` } : {}),
    ...(cheapest
      ? {
          cheapest:
            keyOf(cheapest.first) === keyOf(first)
              ? 'The first is the cheapest, too.'
              : `${lineOf(cheapest.first)}: ${price(cheapest.cost, currency)}.`
        }
      : {})
  };
}
