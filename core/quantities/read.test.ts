import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bandText, day, duration, figure, money, rate } from './format';
import { convert, readQuantity, type UnitName } from './read';
import { band, capBand, minBand, positionInBand } from './band';
import { tebibytes } from './measures';

describe('what people type', () => {
  it.each<[string, UnitName, number]>([
    ['10 Gb/s', 'Gb/s', 10],
    ['10Gbps', 'Gb/s', 10],
    ['10 Gbit/s', 'Gb/s', 10],
    ['10 Gb/s', 'MB/s', 1250], // 10e9 / 8 = 1.25e9 B/s
    ['1,2 GB/s', 'MB/s', 1200],
    ['1.2 GB/s', 'MB/s', 1200],
    ['950 MB/s', 'MB/s', 950],
    ['950', 'MB/s', 950],
    ['906 MiB/s', 'MB/s', 950.009856], // 906 x 1.048576
    ['4 TB', 'TB', 4],
    ['4tb', 'TB', 4],
    ['500 GB', 'TB', 0.5],
    ['3.64 TiB', 'TB', 4.00222232559], // 3.64 x 1.099511627776
    ['0.5 mm', 'mm', 0.5],
    ['0,5mm', 'mm', 0.5],
    ['1 in', 'mm', 25.4],
    ['3 W/mK', 'W/mK', 3],
    ['77 °F', '°C', 25],
    ['1 200 MB/s', 'MB/s', 1200],
    ['1.234,5', 'MB/s', 1234.5],
    ['1,234.5', 'MB/s', 1234.5],
    ['12 min', 's', 720],
    ['1 PBW', 'TBW', 1000],
    ['1e3', 'MB/s', 1000]
  ])('reads “%s” into %s', (text, unit, value) => {
    const reading = readQuantity(text, { unit });
    expect(reading.ok && reading.value).toBeCloseTo(value, 9);
  });

  it('asks whether 40 GB/s for a link was 40 Gb/s', () => {
    const reading = readQuantity('40 GB/s', { unit: 'Gb/s', min: 0.1, max: 80 });
    expect(reading).toMatchObject({
      ok: false,
      problem: 'out-of-range',
      suggestions: [{ text: '40 Gb/s', value: 40 }]
    });
    expect(!reading.ok && reading.message).toContain('40 Gb/s');
  });

  it('does not choose between 1.2 and 1200 for “1,200”', () => {
    const reading = readQuantity('1,200', { unit: 'MB/s' });
    expect(reading).toMatchObject({ ok: false, problem: 'ambiguous' });
    expect(!reading.ok && reading.suggestions.map((s) => s.value)).toEqual([1.2, 1200]);
  });

  it.each([
    ['', 'empty'],
    ['fast', 'not-a-number'],
    ['10 furlongs', 'unit-unknown'],
    ['10 mm', 'wrong-dimension'],
    ['1.2.3,4,5', 'not-a-number'],
    ['--5', 'not-a-number'],
    ['-5 MB/s', 'out-of-range'],
    ['1e999', 'out-of-range'],
    ['<b>5</b>', 'not-a-number']
  ])('refuses “%s”: %s', (text, problem) => {
    expect(readQuantity(text, { unit: 'MB/s', min: 0, max: 20_000 })).toMatchObject({ ok: false, problem });
  });

  it('950 MB for a rate: says that the “per second” is missing, and offers it', () => {
    expect(readQuantity('950 MB', { unit: 'MB/s' })).toMatchObject({
      ok: false,
      suggestions: [{ text: '950 MB/s', value: 950 }]
    });
  });

  it('what is converted there and back is the same', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.001, max: 1e6, noNaN: true }),
        fc.constantFrom<UnitName[]>(['MB/s', 'Gb/s'], ['TB', 'TiB'], ['mm', 'in'], ['°C', '°F']),
        (value, [a, b]) => {
          // twelve figures are kept, and 0 °C is 32 °F: the error is relative to the larger of the two
          expect(Math.abs(convert(convert(value, a!, b!), b!, a!) - value)).toBeLessThan(1e-9 * Math.max(1, value));
        }
      ),
      { seed: 3, numRuns: 200 }
    );
  });

  it('never throws and never returns anything but a finite number, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 30 }), (text) => {
        const reading = readQuantity(text, { unit: 'MB/s', min: 0, max: 1e6 });
        expect(reading.ok ? Number.isFinite(reading.value) : reading.message.length > 0).toBe(true);
      }),
      { seed: 4, numRuns: 1000 }
    );
  });
});

describe('how numbers look', () => {
  it.each([
    [1000, '1000'],
    [14.286, '14.3'],
    [1.8189, '1.82'],
    [0.034, '0.034'],
    [0, '0'],
    [2, '2']
  ])('%d is %s', (value, text) => expect(figure(value)).toBe(text));

  it.each([
    [99.96, '100'],
    [100.4, '100'],
    [1212, '1210'],
    [6891.5, '6890'],
    [999.6, '1000'],
    [12_345, '12300'],
    [57.69, '57.7']
  ])('as a rate %d is %s: three figures', (value, text) => expect(rate(value)).toBe(text));

  it('durations, money, days', () => {
    expect(duration(42)).toBe('42\u202fs');
    expect(duration(426)).toBe('7:06\u202fmin');
    expect(duration(8100)).toBe('2:15\u202fh');
    expect(duration(3 * 86_400)).toBe('3\u202fdays');
    expect(duration(3599.7)).toBe('1:00\u202fh');
    expect(money(107.4, 'EUR')).toBe('107.40\u202fEUR');
    expect(day('2026-11-23T10:00:00Z')).toBe('23 Nov 2026');
    expect(day('soon')).toBe('soon');
  });

  it('bands and places', () => {
    expect(bandText(band(900, 1000, 1070), 'MB/s')).toBe('900 – 1070\u202fMB/s');
    expect(() => band(2, 1, 3)).toThrow(RangeError);
    expect(minBand(band(1, 5, 9), band(2, 3, 10))).toEqual({ low: 1, typical: 3, high: 9 });
    expect(capBand(band(1, 5, 9), 4)).toEqual({ low: 1, typical: 4, high: 4 });
    expect([
      positionInBand(0.9, band(1, 2, 3)),
      positionInBand(1, band(1, 2, 3)),
      positionInBand(3.1, band(1, 2, 3))
    ]).toEqual(['below', 'within', 'above']);
  });

  it('1 TB is 0.9095 TiB', () => expect(tebibytes(1)).toBeCloseTo(0.9095, 4));
});
