import type { ExchangeRate } from '../parts/exchange-rate.ts';

export type Exchanged = { from: string; to: string; rate: number; date: string };

/**
 * Gives the rate between two currencies: the newest one entered, in either direction.
 * @returns undefined where none was entered; nothing is ever converted with a rate that nobody gave
 */
export function rateBetween(rates: readonly ExchangeRate[], from: string, to: string): Exchanged | undefined {
  let newest: Exchanged | undefined;
  for (const given of rates) {
    const straight = given.from === from && given.to === to;
    if (!straight && !(given.from === to && given.to === from)) continue;
    if (newest && newest.date >= given.date) continue;
    newest = { from, to, rate: straight ? given.rate : 1 / given.rate, date: given.date };
  }
  return newest;
}

/**
 * Gives an amount in another currency, with the rate that was used; undefined where there is none.
 * @example exchange(10, 'USD', 'EUR', [{ date: '2026-11-01', from: 'USD', to: 'EUR', rate: 0.9 }]).amount // 9
 */
export function exchange(
  amount: number,
  from: string,
  to: string,
  rates: readonly ExchangeRate[]
): { amount: number; used?: Exchanged } | undefined {
  if (from === to) return { amount };
  const used = rateBetween(rates, from, to);
  return used && { amount: amount * used.rate, used };
}
