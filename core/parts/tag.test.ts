import { describe, expect, it } from 'vitest';
import { aDrive, anEnclosure, anInput } from '../../tests/parts';
import { plan } from '../plan/plan';
import { isPairOf, type KnownPair } from './known-pair';
import { tagKey, tagNumber, tagsAfter } from './tag';

describe('tags', () => {
  it('go on from the last number of their letter', () => {
    expect(tagsAfter('drive', 11, 2)).toEqual(['D-012', 'D-013']);
    expect(tagsAfter('cable', 0, 1)).toEqual(['C-001']);
    expect(tagsAfter('host', 999, 1)).toEqual(['H-1000']);
  });

  it.each([
    ['D-011', { letter: 'D', number: 11 }],
    ['E-5', { letter: 'E', number: 5 }],
    ['mine', undefined],
    ['D-x', undefined],
    ['D-1234567890', undefined],
    ['d-001', undefined]
  ])('%s is read as given or as a person’s own', (tag, read) => expect(tagNumber(tag)).toEqual(read));
});

describe('the same tag', () => {
  it.each([
    ['E-1', 'É-1', true],
    ['d-001', 'D-001', true],
    ['D-00\u200b1', 'D-001', true],
    ['D-1', 'D-01', false]
  ])('%s and %s: %s', (a, b, same) => expect(tagKey(a) === tagKey(b)).toBe(same));
});

describe('known combinations', () => {
  const bad: KnownPair = {
    drive: 'Test T4 2TB',
    bridge: 'Mullion  M10',
    verdict: 'bad',
    reason: 'drops out under load'
  };
  it('are found by the drive’s name or id and by the bridge in any case', () => {
    expect(isPairOf(bad, aDrive(), 'mullion m10')).toBe(true);
    expect(isPairOf(bad, aDrive({ name: 'Other' }), 'Mullion M10')).toBe(false);
    expect(isPairOf(bad, aDrive(), undefined)).toBe(false);
    expect(isPairOf({ ...bad, driveId: 'a' }, { id: 'b', name: 'Test T4 2TB' }, 'Mullion M10')).toBe(false);
  });
  it('a bad one makes the plan a check with its reason, and outweighs a good one; a good one is a note', () => {
    const input = anInput({ enclosure: anEnclosure({ bridge: 'Mullion M10' }) });
    const good: KnownPair = { ...bad, verdict: 'good', reason: 'a year of daily use' };
    const both = plan({ ...input, knownPairs: [good, bad] });
    expect(both.verdict).toBe('check');
    expect(both.findings.find((f) => f.code === 'known-bad-pair')?.message).toContain('drops out under load');
    const fine = plan({ ...input, knownPairs: [good] });
    expect(fine.verdict).toBe(plan(input).verdict);
    expect(fine.findings.find((f) => f.code === 'known-good-pair')?.severity).toBe('note');
    expect(plan(input).findings.some((f) => f.code.startsWith('known'))).toBe(false);
  });
});
