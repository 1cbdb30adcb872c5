import { describe, expect, it } from 'vitest';
import { readDay } from './days.ts';
import { day } from './format.ts';

describe('a day as people write it', () => {
  it.each([
    ['27 Nov 2026', '2026-11-27'],
    ['27. November 2026', '2026-11-27'],
    ['Nov 27, 2026', '2026-11-27'],
    ['1 sep 2026', '2026-09-01'],
    ['27.11.2026', '2026-11-27'],
    ['1. 3. 2027', '2027-03-01'],
    ['2026-1-5', '2026-01-05'],
    ['  2028-02-29 ', '2028-02-29']
  ])('%s', (text, iso) => expect(readDay(text)).toBe(iso));

  it.each([
    '',
    '30 Feb 2026',
    '2026-13-01',
    '3/4/2026',
    '27 Foo 2026',
    '27 Nov 26',
    '0 Jan 2026',
    'Nov 2026',
    '2027-02-29'
  ])('%s is none', (text) => expect(readDay(text)).toBeUndefined());

  it('reads what it writes', () => {
    for (let month = 1; month <= 12; month++) {
      const iso = `2026-${String(month).padStart(2, '0')}-17`;
      expect(readDay(day(iso))).toBe(iso);
    }
  });
});
