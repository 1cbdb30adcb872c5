import { describe, expect, it } from 'vitest';
import { capBand } from './band';
import { countText, figure } from './format';
import { readQuantity } from './read';

describe('a ceiling over a band', () => {
  // every one of the three by itself: a band with one of them above the ceiling, with two, with all, with none
  it.each<[number, [number, number, number]]>([
    [50, [10, 20, 30]],
    [25, [10, 20, 25]],
    [15, [10, 15, 15]],
    [5, [5, 5, 5]]
  ])('10 - 20 - 30 under %d', (ceiling, [low, typical, high]) =>
    expect(capBand({ low: 10, typical: 20, high: 30 }, ceiling)).toEqual({ low, typical, high })
  );
});

describe('what people type, again', () => {
  it.each(['10 20 MB/s', '2 4 TB', "5'6", '1,2,3.4', '1 23 456'])('%j is no number', (text) =>
    expect(readQuantity(text, { unit: text.includes('TB') ? 'TB' : 'MB/s' }).ok).toBe(false)
  );
  it.each<[string, number]>([
    ['10 200 MB/s', 10200],
    ["1'200'000 MB/s", 1200000],
    ['1,200,000 MB/s', 1200000]
  ])('groups of three are one number: %j', (text, value) =>
    expect(readQuantity(text, { unit: 'MB/s' })).toMatchObject({ ok: true, value })
  );
  it('400 °F for a room is asked back in °C, and not as a thousandth: (400 - 32) / 1.8 = 204.4', () => {
    const reading = readQuantity('400 °F', { unit: '°C', min: -30, max: 60 });
    expect(reading.ok).toBe(false);
    expect(JSON.stringify(reading)).not.toContain('0.204');
  });
  it('nothing is minus nothing', () => {
    expect(figure(-0.0001)).toBe('0');
    expect(figure(-0)).toBe('0');
  });
});

describe('a number of things is read at a glance', () => {
  // Groups of three from the right, parted by the narrow no-break space U+202F; four digits are read without.
  it.each<[number, string]>([
    [0, '0'],
    [999, '999'],
    [9999, '9999'],
    [10_000, '10\u202f000'],
    [123_456, '123\u202f456'],
    [21_600_000, '21\u202f600\u202f000'],
    [-12_345, '-12\u202f345']
  ])('%d is %j', (count, text) => expect(countText(count)).toBe(text));
});
