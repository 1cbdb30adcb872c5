import { z } from 'zod';
import { isAhead, isoDate } from './form/field.ts';

/**
 * Makes the field for a currency, three letters by ISO 4217.
 * @example currency().parse('EUR') // 'EUR'
 */
export const currency = () =>
  z
    .string()
    .trim()
    .toUpperCase()
    .regex(/^[A-Z]{3}$/, 'must be three letters such as EUR')
    .meta({ title: 'Currency' });

/** What one unit of `from` is worth in `to`, as the person entered it, on a day. */
export const exchangeRateSchema = z.strictObject({
  from: currency().meta({ title: 'From' }),
  to: currency().meta({ title: 'To' }),
  rate: z.number().positive().max(1e6).meta({ title: 'Rate' }),
  date: isoDate().meta({ title: 'Date' })
});

/**
 * Tells what no single field shows: a currency in itself, a day to come.
 * @example rateProblems({ date: '2026-11-01', from: 'EUR', to: 'EUR', rate: 1 }).length // 1
 */
export function rateProblems(rate: ExchangeRate, today: string): { path: string; message: string }[] {
  return [
    ...(rate.from === rate.to ? [{ path: 'from', message: 'is the currency it is converted to' }] : []),
    ...(isAhead(rate.date, today) ? [{ path: 'date', message: 'is still to come' }] : [])
  ];
}

export type ExchangeRate = z.infer<typeof exchangeRateSchema>;
