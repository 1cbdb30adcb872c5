import type { Quote } from '../parts/quote.ts';

/**
 * Gives the price delivered, in the currency of the price: (list x (1 - discount) x (1 - coupon percent) - coupon + shipping) x
 * (1 + tax). Never below 0.
 * @example deliveredPrice({ partId: 'p', vendor: 'V', date: '2026-11-01', currency: 'EUR', list: 100, shipping: 5 }) // 105
 */
export function deliveredPrice(
  quote: Pick<Quote, 'list' | 'discountPercent' | 'coupon' | 'couponPercent' | 'shipping' | 'taxPercent'>
): number {
  const left = (1 - (quote.discountPercent ?? 0) / 100) * (1 - (quote.couponPercent ?? 0) / 100);
  const reduced = quote.list * left - (quote.coupon ?? 0);
  return Math.max(0, reduced + (quote.shipping ?? 0)) * (1 + (quote.taxPercent ?? 0) / 100);
}

/** Gives the newest quote for a part; of two on one day the cheaper one. */
export function newestQuote(quotes: readonly Quote[], partId: string | undefined): Quote | undefined {
  let newest: Quote | undefined;
  for (const quote of quotes) {
    if (quote.partId !== partId) continue;
    if (
      !newest ||
      quote.date > newest.date ||
      (quote.date === newest.date && deliveredPrice(quote) < deliveredPrice(newest))
    )
      newest = quote;
  }
  return newest;
}
