import { z } from 'zod';
import { currency } from './exchange-rate.ts';
import { id, isoDate, text } from './field.ts';

const amount = (title: string) => z.number().min(0).max(1e7).meta({ title });

export const quoteSchema = z.strictObject({
  partId: id(),
  vendor: text('Vendor', 120),
  date: isoDate().meta({ title: 'Date' }),
  currency: currency(),
  list: amount('List price'),
  discountPercent: z.number().min(0).max(100).meta({ title: 'Discount', unit: '%' }).optional(),
  coupon: amount('Coupon').optional(),
  shipping: amount('Shipping').optional(),
  taxPercent: z.number().min(0).max(100).meta({ title: 'Tax', unit: '%' }).optional(),
  expires: isoDate().meta({ title: 'Valid until' }).optional(),
  note: text('Note', 300).optional()
});

export type Quote = z.infer<typeof quoteSchema>;
