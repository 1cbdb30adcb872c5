import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HELD_OUT } from '../../tests/specifications/held-out';
import { HELD_OUT_2 } from '../../tests/specifications/held-out-2';
import { HELD_OUT_3 } from '../../tests/specifications/held-out-3';
import { TUNING } from '../../tests/specifications/tuning';
import { draftFrom, readDraft } from '../parts/form/form';
import { formFields } from '../parts/form/form-fields';
import { KINDS } from '../parts/kinds';
import { MODEL_SCHEMAS, modelSchema } from '../parts/model';
import { covers, judge } from '../../tests/reading-score';
import { readSpecification, TEXT_LIMIT } from './read';
import { specFrom } from './spec';
import { believable, clausesOf, numbersIn } from './text';

const total = (texts: typeof HELD_OUT) => {
  const verdicts = texts.map((text) => judge(text));
  return {
    share: verdicts.reduce((n, v) => n + v.right, 0) / verdicts.reduce((n, v) => n + v.stated, 0),
    sureAndWrong: verdicts.flatMap((v, i) => v.wrong.filter((w) => w.sure).map((w) => `${texts[i]!.name}: ${w.path}`))
  };
};

describe('reading specification texts', () => {
  it('has enough texts to judge on, each with four fields at least, a third of them with a contradiction', () => {
    for (const texts of [TUNING, HELD_OUT]) {
      expect(texts.length).toBeGreaterThanOrEqual(20);
      for (const text of texts)
        expect(Object.keys({ ...text.stated, ...text.asked }).length + 1, text.name).toBeGreaterThanOrEqual(4);
      expect(texts.filter((text) => text.asked).length / texts.length).toBeGreaterThanOrEqual(1 / 3);
    }
  });
  it('reads at least 92 of 100 fields of the texts it was not tuned on, and marks none sure that is wrong', () => {
    const { share, sureAndWrong } = total(HELD_OUT);
    expect(sureAndWrong).toEqual([]);
    expect(share).toBeGreaterThanOrEqual(0.92);
  });
  it('reads at least 95 of 100 fields of sixty texts in four languages, and marks none sure that is wrong', () => {
    // Read once before anything was mended for them: 641 of 665 fields, two of them sure and wrong (both of a mistaken kind).
    const fields = HELD_OUT_2.map(
      ({ stated, asked }) => 1 + Object.keys(stated).length + Object.keys(asked ?? {}).length
    );
    expect(HELD_OUT_2).toHaveLength(60);
    expect(fields.reduce((a, b) => a + b, 0)).toBeGreaterThanOrEqual(600);
    const { share, sureAndWrong } = total(HELD_OUT_2);
    expect(sureAndWrong).toEqual([]);
    expect(share).toBeGreaterThanOrEqual(0.95);
  });
  it('reads at least 95 of 100 fields of two dozen noisy texts, and marks none sure that is wrong', () => {
    // Read once before anything was mended for them: 214 of 224 fields, one of them sure and wrong, in a text of a mistaken kind.
    const { share, sureAndWrong } = total(HELD_OUT_3);
    expect(sureAndWrong).toEqual([]);
    expect(share).toBeGreaterThanOrEqual(0.95);
  });
  it.each([
    'eSATA 3 Gb/s and eSATA 6 Gb/s enclosure for 2.5 inch SATA drives',
    'eSATA dock, 6 Gb/s, USB 3.0 5 Gb/s',
    'case: eSATA 6GB/s'
  ])('rates of eSATA are read or asked, never lost: %s', (text) => {
    const { found, questions } = readSpecification(text, 'enclosure');
    const modes = [...found, ...questions].filter(({ path }) => path === 'modes');
    expect(modes).toHaveLength(1);
  });
  it('reads nearly everything of the texts it was tuned on', () => {
    const { share, sureAndWrong } = total(TUNING);
    expect(sureAndWrong).toEqual([]);
    expect(share).toBeGreaterThanOrEqual(0.99);
  });
  it('quotes the words of the text for every field, at the place where they stand', () => {
    for (const { text, name } of [...TUNING, ...HELD_OUT, ...HELD_OUT_2]) {
      const reading = readSpecification(text);
      for (const found of reading.found) {
        expect(found.words.length, name).toBeGreaterThan(0);
        for (const { start, end } of found.spans) {
          expect(start, `${name} ${found.path}`).toBeLessThan(end);
          expect(found.words).toContain(text.slice(start, end).trim().replace(/\s+/g, ' '));
        }
      }
    }
  });
});

describe('what is open is asked', () => {
  const questionOf = (text: string, path: string) =>
    readSpecification(text, 'enclosure').questions.find((q) => q.path === path);
  it.each([
    ['a rate in bytes', 'Case for NVMe, USB-C, up to 10GB/s', [['usb-10g']]],
    ['USB 3.2 alone', 'NVMe enclosure, USB 3.2', [['usb-5g'], ['usb-10g'], ['usb-20g']]],
    ['Thunderbolt without a number', 'Thunderbolt NVMe enclosure', [['tbt3-40g'], ['tbt4-40g'], ['tbt5-80g']]],
    ['two rates', 'NVMe enclosure 10Gbps, fast 20Gbps', [['usb-10g'], ['usb-20g'], ['usb4-20g']]]
  ])('%s', (_name, text, options) => {
    const asked = questionOf(text, 'modes');
    for (const option of options) expect(asked?.options.map((o) => o.value)).toContainEqual(option);
    expect(readSpecification(text, 'enclosure').found.some((f) => f.path === 'modes')).toBe(false);
  });
  it('says bits for bytes in so many words', () => {
    expect(questionOf('USB4 case, 40GB/s, M.2 NVMe', 'modes')?.why).toContain(
      '40GB/s would be bytes; links are rated in bits'
    );
  });
  it('a rate beside a name that means several speeds settles it', () => {
    const reading = readSpecification('NVMe enclosure, USB 3.2, 20 Gb/s', 'enclosure');
    expect(reading.found.find((f) => f.path === 'modes')?.value).toEqual(['usb-20g']);
  });
});

describe('numbers as they are printed', () => {
  it.each([
    ['7,100', [7100, 7.1]],
    ['5,0', [5]],
    ['1.4', [1.4]],
    ['12 400', [12400]],
    ['1.234,5', [1234.5]],
    ['five', [5]]
  ])('%s', (printed, numbers) => expect(numbersIn(printed)).toEqual(numbers));
  it('the believable range decides between two readings', () => {
    expect(believable('7,100', 1, 30, 20_000)).toEqual([7100]);
    expect(believable('1,200', 1, 0.5, 2000)).toEqual([1200, 1.2]);
  });
  it('a clause ends at a comma, not inside a number', () => {
    expect(clausesOf('read 7,100 MB/s, write 6,4 GB/s; TLC').map((c) => c.text.trim())).toEqual([
      'read 7,100 MB/s',
      'write 6,4 GB/s',
      'TLC'
    ]);
  });
});

describe('a reading as the start of a form', () => {
  it('is a whole specification where the text says enough', () => {
    const box = TUNING.find((t) => t.name === 'USB4 with its fallbacks')!;
    const spec = specFrom(readSpecification(box.text));
    expect(modelSchema.safeParse({ ...spec, plug: 'usb-c' }).error?.issues).toBeUndefined();
  });
  it('answers fill what was asked, and what is put aside is left out', () => {
    const reading = readSpecification('Slate 500 GB SATA SSD 2.5"\nCapacity: 1 TB\nwarranty 3 years');
    const asked = reading.questions.find((q) => q.path === 'capacityTB')!;
    expect(specFrom(reading)).not.toHaveProperty('capacityTB');
    const at = asked.options.findIndex((o) => o.value === 1);
    expect(specFrom(reading, { capacityTB: at }, new Set(['warrantyYears']))).toMatchObject({
      kind: 'drive',
      capacityTB: 1
    });
    expect(specFrom(reading, { capacityTB: at }, new Set(['warrantyYears']))).not.toHaveProperty('warrantyYears');
  });
  it('every reading fits the form of its kind: no field that the schema does not have, no value out of its range', () => {
    for (const { text, name } of [...TUNING, ...HELD_OUT, ...HELD_OUT_2]) {
      const spec = specFrom(readSpecification(text));
      const fields = formFields(MODEL_SCHEMAS[spec.kind as (typeof KINDS)[number]]);
      const { spec: back, errors } = readDraft(fields, draftFrom(fields, spec));
      const wrong = Object.entries(errors).filter(([, e]) => !/needed/.test(e.message));
      expect(wrong, name).toEqual([]);
      expect({ kind: spec.kind, ...back }, name).toEqual(spec);
    }
  });
});

describe('hostile text', () => {
  it('never throws and never hangs, whatever is pasted', () => {
    const words = [
      'USB',
      '3.2',
      'Gen',
      '2x2',
      '40GB/s',
      'TB',
      '1,200',
      '2280',
      'M.2',
      'NVMe',
      '"',
      '\n',
      'read',
      'write',
      '/',
      '<b>',
      '%',
      '100 x 100 x',
      'mm',
      'cable',
      'no',
      '🔥',
      '\u0000'
    ];
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...words), { maxLength: 60 }),
        fc.constantFrom(...KINDS, undefined),
        (tokens, kind) => {
          const reading = readSpecification(tokens.join(' '), kind);
          expect(reading.name.length).toBeLessThanOrEqual(80);
          specFrom(reading);
        }
      ),
      { seed: 7, numRuns: 300 }
    );
  });
  it('looks at no more than its limit', () => {
    const reading = readSpecification(`NVMe SSD 1TB\n${'x'.repeat(TEXT_LIMIT)}\nwarranty 3 years`);
    expect(reading.found.some((f) => f.path === 'warrantyYears')).toBe(false);
  });
  it.each(['', '   ', '\n\n', '123', 'NaN TB'])('%j gives nothing and no name that is not there', (text) => {
    expect(readSpecification(text).found).toEqual([]);
  });
});

describe('the judge', () => {
  it('compares lists without order and objects by the keys wanted', () => {
    expect(covers([{ a: 1, b: 2 }, { a: 3 }], [{ a: 3 }, { a: 1 }])).toBe(true);
    expect(covers([1, 2], [1, 2, 3])).toBe(false);
    expect(covers({ a: 1 }, { a: 2 })).toBe(false);
  });
  it('counts a wrong field, a missing one and one out of nothing', () => {
    const verdict = judge(
      { kind: 'drive', text: '', stated: { capacityTB: 2, media: 'nvme' } },
      {
        kind: 'drive',
        kindSure: true,
        name: '',
        questions: [],
        found: [
          { path: 'capacityTB', value: 1, words: [], spans: [], sure: true },
          { path: 'sides', value: 'single', words: [], spans: [], sure: true }
        ]
      }
    );
    expect(verdict.right).toBe(1);
    expect(verdict.wrong.map((w) => [w.path, w.sure])).toEqual([
      ['capacityTB', true],
      ['media', false],
      ['sides', true]
    ]);
  });
});
