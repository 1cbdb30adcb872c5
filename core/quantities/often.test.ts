import { describe, expect, it } from 'vitest';
import { often, readOften } from './often.ts';

const perDay = (text: string) => {
  const read = readOften(text);
  return read.ok ? read.perDay : read.message;
};

describe('how often', () => {
  it.each([
    ['2', 2],
    ['2 a day', 2],
    ['1 a week', 1 / 7],
    ['weekly', 1 / 7],
    ['twice a week', 2 / 7],
    ['3 a month', 36 / 365.25],
    ['3/month', 36 / 365.25],
    ['0,5 per day', 0.5],
    ['4 times a year', 4 / 365.25],
    ['2x a day', 2],
    ['1 every hour', 24],
    ['Daily', 1]
  ])('%s', (text, expected) => expect(perDay(text)).toBeCloseTo(expected, 12));

  it.each(['', '1/7', 'often', '2 a fortnight', '-1 a day', '99999 an hour'])(
    '%s is answered with how to write it',
    (text) => expect(perDay(text)).toMatch(/Write it like 2 a day|more than 10000/)
  );

  it('is said in the span in which it happens, and read back as the same', () => {
    expect([2, 1, 0.5, 1 / 7, 3 / 7, 0.1, 1 / 365.25, 0].map(often)).toEqual([
      '2 a day',
      '1 a day',
      '3.5 a week',
      '1 a week',
      '3 a week',
      // 0.1 x 30.4375 = 3.04
      '3.04 a month',
      '1 a year',
      'never'
    ]);
    for (const n of [1, 2, 5, 12])
      for (const span of ['day', 'week'])
        expect(often(Number(perDay(`${n} a ${span}`)))).toBe(
          span === 'week' && n >= 7 ? `${(n / 7).toFixed(2)} a day` : `${n} a ${span}`
        );
  });
});
