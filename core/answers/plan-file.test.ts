import { describe, expect, it } from 'vitest';
import { anInput } from '../../tests/parts.ts';
import { plan } from '../plan/plan.ts';
import { answersOf } from './answers.ts';
import { planFile, readPlanFile } from './plan-file.ts';

const input = anInput({
  quotes: [{ partId: '0'.repeat(26), vendor: 'Quay', date: '2026-11-01', currency: 'EUR', list: 10 }],
  houseRules: { scheme: 'mbr' }
});
const file = planFile(
  {
    name: 'Carrier',
    input: { ...input, drive: { ...input.drive, id: '1'.repeat(26) } },
    engine: '9',
    answers: answersOf({ report: plan(input) })
  },
  '2026-11-27'
);

describe('a plan in a file', () => {
  it('holds the parts in full and the answers; what belongs to the crate stays there', () => {
    expect(file.input).not.toHaveProperty('quotes');
    expect(file.input).not.toHaveProperty('houseRules');
    expect(file.input.drive).not.toHaveProperty('id');
    expect(file.answers[0]).toMatchObject({ about: 'goes' });
    expect(file.made).toBe('2026-11-27');
  });
  it('is read back as it was written, and makes the same plan', () => {
    const read = readPlanFile(JSON.stringify(file));
    expect(read).toEqual({ ok: true, file });
    const { houseRules: _rules, quotes: _quotes, ...plainInput } = input;
    expect(read.ok && plan(read.file.input).throughput).toEqual(plan(plainInput).throughput);
  });
  it.each([
    ['not json', '{', 'not JSON'],
    ['another file', '{"a":1}', 'no plan file'],
    ['null', 'null', 'no plan file'],
    ['a number', '7', 'no plan file'],
    ['a part that is none', JSON.stringify({ ...file, input: { ...file.input, drive: { name: 7 } } }), 'damaged'],
    ['another version', JSON.stringify({ ...file, version: 2 }), 'damaged']
  ])('%s is answered with a sentence', (_, text, says) => {
    const read = readPlanFile(text);
    expect(!read.ok && read.message).toContain(says);
  });
});
