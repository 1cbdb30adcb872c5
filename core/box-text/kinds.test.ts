import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Kind } from '../parts/kinds';
import { covers, judge } from '../../tests/reading-score';
import { claimsIn, measured, meansWhenSaid } from './pattern';
import { readSpecification } from './read';
import { settleClaims } from './settle-claims';
import { blank, denied, normalise } from './text';

/** What was read, path by path; what is asked instead has a question mark. */
function read(kind: Kind, text: string): Record<string, unknown> {
  const { found, questions } = readSpecification(text, kind);
  return Object.fromEntries([...found.map((f) => [f.path, f.value]), ...questions.map((q) => [q.path, '?'])]);
}

describe('one line of a box at a time', () => {
  it.each<[Kind, string, Record<string, unknown>]>([
    [
      'drive',
      'M.2 2280 NVMe SSD, PCIe 4.0 x4',
      { formFactor: 'm2', media: 'nvme', 'pcie.generation': 4, 'pcie.lanes': 4 }
    ],
    ['drive', 'NVMe SSD, 1.2 PBW', { enduranceTBW: 1200 }],
    ['drive', 'NVMe SSD, 600 TBW, 5-year limited warranty', { enduranceTBW: 600, warrantyYears: 5 }],
    ['drive', 'Read up to 7,300 MB/s, write up to 6,600 MB/s, NVMe', { readMBps: 7300, writeMBps: 6600 }],
    ['drive', 'NVMe, sequential write: 5.8 GB/s', { writeMBps: 5800 }],
    ['drive', '3.5-inch hard disk, 7200 rpm, CMR, 256 MB cache', { formFactor: '3.5in', media: 'hdd' }],
    ['cable', 'USB-C to USB-C, 0.8 m, 40Gbps, USB4', { ends: ['usb-c', 'usb-c'], lengthM: 0.8 }],
    ['cable', 'USB-A to micro-B, 30 cm', { ends: ['usb-a', 'micro-b'], lengthM: 0.3 }],
    ['cable', 'active cable, 2 m, USB-C to C', { active: true, lengthM: 2 }],
    ['cable', 'passive, 1 metre, USB C to C', { active: false, lengthM: 1 }],
    ['pad', '0.5 x 20 x 70 mm, 6 W/mK', { thicknessMm: 0.5, widthMm: 20, lengthMm: 70, conductivityWmK: 6 }],
    ['pad', 'thermal pad 85 mm x 45 mm x 1.5 mm, 12.8 W/m·K, 2 pcs', { thicknessMm: 1.5, quantity: 2 }],
    ['pad', 'Shore 00: 35, 1 mm thick, pack of 4', { shore00: 35, thicknessMm: 1, quantity: 4 }],
    ['alternative', 'Portable SSD, 2 TB, up to 1050 MB/s read', { sort: 'portable', capacityTB: 2 }],
    ['alternative', 'SDXC card 256 GB', { sort: 'memory-card', capacityTB: 0.256 }],
    ['host', 'Windows 11, front: 1 x USB-A 3.2 Gen 1', { 'os.family': 'windows', 'os.version': '11' }],
    ['host', 'Linux kernel 6.8', { 'os.family': 'linux', 'os.version': '6.8' }]
  ])('%s: %s', (kind, text, wanted) => {
    const got = read(kind, text);
    for (const [path, value] of Object.entries(wanted))
      expect(covers(got[path], value, path === 'ends'), `${path}: ${JSON.stringify(got)}`).toBe(true);
  });
  it('two ports of one sort are two ports', () => {
    const ports = read('host', 'macOS 15\n2 x Thunderbolt 4 (USB-C)').ports as { plug: string; modes: string[] }[];
    expect(ports).toHaveLength(2);
    for (const port of ports) expect(port).toMatchObject({ plug: 'usb-c' });
  });
  it('what is denied is not read', () => {
    expect(read('enclosure', 'NVMe M.2 enclosure, USB 10Gbps, does not support TRIM').trim).not.toBe(true);
    expect(read('enclosure', 'M.2 NVMe case, USB 10Gbps; no fan').cooling).not.toEqual({ kind: 'active' });
  });
});

describe('settling claims', () => {
  const text = 'one two three';
  const claim = (value: unknown, start: number, end: number, sure = true) => ({ path: 'x', value, start, end, sure });
  it('what agrees is found, with all its words', () => {
    expect(settleClaims(text, [claim(1, 0, 3), claim(1, 4, 7)], []).found).toEqual([
      {
        path: 'x',
        value: 1,
        words: ['one', 'two'],
        spans: [
          { start: 0, end: 3 },
          { start: 4, end: 7 }
        ],
        sure: true
      }
    ]);
  });
  it('two sure ones that differ are asked, each with its own words', () => {
    const { found, questions } = settleClaims(text, [claim(1, 0, 3), claim(2, 4, 7)], []);
    expect(found).toEqual([]);
    expect(questions[0]!.options).toEqual([
      { value: 1, words: 'one' },
      { value: 2, words: 'two' }
    ]);
  });
  it('a sure one outweighs likely ones', () => {
    const { found } = settleClaims(text, [claim(1, 0, 3, false), claim(2, 4, 7), claim(3, 8, 13, false)], []);
    expect(found).toMatchObject([{ value: 2, sure: true }]);
  });
  it('what is asked already is not found as well', () => {
    const question = { path: 'x', why: 'w', options: [], spans: [] };
    expect(settleClaims(text, [claim(1, 0, 3)], [question])).toEqual({ found: [], questions: [question] });
  });
});

describe('patterns', () => {
  const length = measured('m', '', { mm: 1, cm: 10 }, '', [1, 500]);
  it.each([
    ['80 mm', 80],
    ['8 cm', 80],
    ['8,5cm', 85],
    ['0.4 mm', undefined], // below what is believable
    ['x80 mm', undefined], // a model's name
    ['80 mmHg', undefined]
  ])('%s is %s', (text, value) => {
    expect(claimsIn(text, [length]).claims[0]?.value).toBe(value);
  });
  it('a number that can be read in two ways is asked about', () => {
    // 1,200 may be 1200 or 1.2; both lie between 1 and 5000
    const wide = measured('m', '', { mm: 1 }, '', [1, 5000]);
    expect(claimsIn('1,200 mm', [wide]).questions[0]?.options.map((o) => o.value)).toEqual([1200, 1.2]);
  });
  it('a denial turns a word round, or takes it away', () => {
    const trim = meansWhenSaid('trim', /\btrim\b/gi, true, { denies: false });
    expect(claimsIn('supports trim', [trim]).claims[0]?.value).toBe(true);
    expect(claimsIn('no trim', [trim]).claims[0]?.value).toBe(false);
    expect(claimsIn('no trim', [meansWhenSaid('trim', /\btrim\b/gi, true)]).claims).toEqual([]);
  });
  it.each([
    ['no TRIM', 3, true],
    ['without support of TRIM', 19, true],
    ['no screws. TRIM', 12, false], // another sentence
    ['nothing but TRIM', 12, false]
  ])('%s: denied %#', (text, at, expected) => expect(denied(text, at)).toBe(expected));
});

describe('the text as the patterns see it', () => {
  it('has every sign at its old place', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 300 }), (text) => {
        expect(normalise(text)).toHaveLength(text.length);
      })
    );
  });
  it('keeps line ends where stretches are blanked', () => {
    expect(blank('ab\ncd', [{ start: 1, end: 4 }])).toBe('a \n d');
  });
  it('never throws, whatever is pasted', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 400 }), (text) => {
        for (const kind of ['drive', 'enclosure', 'cable', 'host'] as const) readSpecification(text, kind);
      }),
      { numRuns: 150 }
    );
  });
});

describe('the judge', () => {
  const expected = {
    kind: 'pad',
    text: '',
    stated: { thicknessMm: 1, quantity: 2 },
    asked: { conductivityWmK: [6, 12] }
  };
  const reading = (found: [string, unknown, boolean][], asked: [string, unknown[]][] = []) => ({
    kind: 'pad' as const,
    kindSure: true,
    name: 'p',
    found: found.map(([path, value, sure]) => ({ path, value, sure, words: ['w'], spans: [] })),
    questions: asked.map(([path, values]) => ({
      path,
      why: '',
      spans: [],
      options: values.map((value) => ({ value, words: '' }))
    }))
  });
  const verdictOn = (...args: Parameters<typeof reading>) => judge(expected, reading(...args));
  it('counts the kind, what is stated and what is to be asked', () => {
    // kind + 2 stated + 1 asked = 4
    const all = verdictOn(
      [
        ['thicknessMm', 1, true],
        ['quantity', 2, true]
      ],
      [['conductivityWmK', [12, 6, 3]]]
    );
    expect(all).toMatchObject({ stated: 4, right: 4, wrong: [] });
  });
  it('what was guessed instead of asked is wrong', () => {
    const { right, wrong } = verdictOn([
      ['thicknessMm', 1, true],
      ['quantity', 2, true],
      ['conductivityWmK', 6, true]
    ]);
    expect(right).toBe(3);
    expect(wrong).toMatchObject([{ path: 'conductivityWmK', sure: true }]);
  });
  it('what was read with certainty out of nothing is wrong, what is only likely is not', () => {
    expect(verdictOn([['shore00', 40, true]]).wrong.map((w) => w.path)).toContain('shore00');
    expect(verdictOn([['shore00', 40, false]]).wrong.map((w) => w.path)).not.toContain('shore00');
  });
  it.each([
    [[2, 1], [1, 2], false, true],
    [[2, 1], [1, 2], true, false],
    [[1], [1, 2], false, false],
    [{ a: 1, b: 2 }, { a: 1 }, false, true],
    [{ a: 1 }, { a: 1, b: 2 }, false, false],
    [1.0000001, 1, false, true],
    [1.01, 1, false, false],
    ['1', 1, false, false]
  ])('%j covers %j (ordered %s): %s', (got, wanted, ordered, expected) => {
    expect(covers(got, wanted, ordered)).toBe(expected);
  });
});
