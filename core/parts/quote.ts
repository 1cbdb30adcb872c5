import { z } from 'zod';
import { currency } from './exchange-rate.ts';
import { id, isAhead, isoDate, text } from './form/field.ts';

const amount = (title: string) => z.number().min(0).max(1e7).meta({ title });

export const quoteSchema = z.strictObject({
  partId: id(),
  vendor: text('Vendor', 120),
  date: isoDate().meta({ title: 'Date' }),
  currency: currency(),
  list: amount('List price'),
  discountPercent: z.number().min(0).max(100).meta({ title: 'Discount', unit: '%' }).optional(),
  coupon: z.number().min(0).max(1e7).meta({ title: 'Coupon, amount', percentTo: 'Coupon, %' }).optional(),
  couponPercent: z.number().min(0).max(100).meta({ title: 'Coupon', unit: '%' }).optional(),
  shipping: amount('Shipping').optional(),
  taxPercent: z.number().min(0).max(100).meta({ title: 'Tax', unit: '%' }).optional(),
  expires: isoDate().meta({ title: 'Valid until' }).optional(),
  note: text('Note', 300).optional()
});

/**
 * Tells what no single field shows: a price below nothing, an offer that ran out before it was made, a day to come.
 * @example quoteProblems({ partId: 'p', vendor: 'V', date: '2026-11-01', currency: 'EUR', list: 100 }) // []
 */
export function quoteProblems(quote: Quote, today: string): { path: string; message: string }[] {
  const problems: { path: string; message: string }[] = [];
  const reduced = quote.list * (1 - (quote.discountPercent ?? 0) / 100) * (1 - (quote.couponPercent ?? 0) / 100);
  if ((quote.coupon ?? 0) > reduced) problems.push({ path: 'coupon', message: 'is more than the price' });
  if (quote.expires !== undefined && quote.expires < quote.date)
    problems.push({ path: 'expires', message: 'is before the date of the price' });
  if (isAhead(quote.date, today)) problems.push({ path: 'date', message: 'is still to come' });
  return problems;
}

export type Quote = z.infer<typeof quoteSchema>;
