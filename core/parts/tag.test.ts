import { describe, expect, it } from 'vitest';
import { aDrive, anEnclosure, anInput } from '../../tests/parts';
import { plan } from '../plan/plan';
import { isPairOf, type KnownPair } from './known-pair';
import { nextTags } from './tag';

describe('tags', () => {
  it('go on from the highest number of their letter', () => {
    expect(nextTags('drive', ['D-003', 'D-011', 'E-050', 'mine', 'D-x'], 2)).toEqual(['D-012', 'D-013']);
    expect(nextTags('cable', [], 1)).toEqual(['C-001']);
    expect(nextTags('host', ['H-999'], 1)).toEqual(['H-1000']);
  });
});

describe('known pairs', () => {
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
