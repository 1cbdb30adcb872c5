import { describe, expect, it } from 'vitest';
import { draftFrom, readDraft, type Field } from '#core/parts/form/form';
import { pairFields, quoteFields, rateFields, unitFields } from './record-fields';

const at = (fields: readonly Field[], key: string) => fields.find((f) => f.key === key);
const id = (n: number) => `0${'A'.repeat(24)}${n}`;

describe('forms of small records', () => {
  it('a quote offers the vendors named before, each once, and asks for no part', () => {
    const fields = quoteFields(['Depot', 'Markt', 'Depot']);
    expect(at(fields, 'vendor')).toMatchObject({ type: 'text', required: true, suggestions: ['Depot', 'Markt'] });
    expect(at(fields, 'partId')).toBeUndefined();
    expect(at(fields, 'date')).toMatchObject({ day: true });
    expect(at(fields, 'discountPercent')).toMatchObject({ unit: '%', max: 100 });
  });
  it('a quote goes into its form and comes back the same', () => {
    const fields = quoteFields([]);
    const quote = {
      vendor: 'Depot',
      date: '2026-11-01',
      currency: 'EUR',
      list: 99.5,
      coupon: 5,
      expires: '2026-12-01'
    };
    expect(readDraft(fields, draftFrom(fields, quote))).toEqual({ spec: quote, errors: {} });
  });
  it('a unit is put into one of the builds there are', () => {
    const fields = unitFields([{ id: id(1), tag: 'AC-0001', name: 'Backup' }]);
    expect(at(fields, 'buildId')).toEqual({
      key: 'buildId',
      title: 'In build',
      required: false,
      type: 'choice',
      options: [{ value: id(1), label: 'AC-0001 Backup' }]
    });
    expect(at(fields, 'notes')).toMatchObject({ lines: true });
    expect(readDraft(fields, { tag: 'D-1', state: 'owned', buildId: id(2) }).errors.buildId).toBeDefined();
    // 1 TB as it is sold: 10^12 bytes
    expect(readDraft(fields, { tag: 'D-1', state: 'owned', capacityBytes: '1 TB' }).spec.capacityBytes).toBe(1e12);
  });
  it('a pair is noted by its bridge at a drive, and by its drive at an enclosure', () => {
    const drives = [{ id: id(3), name: 'Chert' }];
    expect(pairFields(drives, false).map((f) => f.key)).toEqual(['bridge', 'verdict', 'reason', 'source', 'date']);
    const fields = pairFields(drives, true);
    expect(fields.map((f) => f.key)).toEqual(['driveId', 'verdict', 'reason', 'source', 'date']);
    expect(fields[0]).toMatchObject({ type: 'choice', required: true, options: [{ value: id(3), label: 'Chert' }] });
  });
  it('a rate says what it is in', () => {
    expect(rateFields('EUR').map((f) => f.title)).toEqual(['1 of', 'is in EUR', 'Date']);
    // nothing is worth nothing, and a rate is no quantity with a unit
    expect(readDraft(rateFields('EUR'), { from: 'USD', rate: '0.9 MB', date: '2026-11-01' }).errors.rate).toBeDefined();
  });
});
