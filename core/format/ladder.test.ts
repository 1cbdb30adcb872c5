import { describe, expect, it } from 'vitest';
import { capacityLadder, type LadderRequest } from './ladder';

const of = (change: Partial<LadderRequest>): LadderRequest => ({
  capacityTB: 2,
  filesystem: 'exfat',
  scheme: 'gpt',
  os: 'linux',
  ...change
});
const takes = (request: LadderRequest) =>
  Object.fromEntries(capacityLadder(request).steps.map(({ code, takes }) => [code, takes]));

describe('from the label to what is free', () => {
  it('exFAT on Linux: 2 x 10^12 - 2 MiB = 1 999 997 902 848; less 0.03 % = 599 999 371', () => {
    const { steps, freeBytes } = capacityLadder(of({}));
    expect(steps.map(({ code }) => code)).toEqual(['label', 'binary', 'scheme', 'filesystem', 'free']);
    expect(steps[2]?.bytes).toBe(1_999_997_902_848);
    // 1 999 997 902 848 x 0.0003 = 599 999 370.85
    expect(steps[3]?.takes).toBeCloseTo(599_999_370.85, 0);
    expect(freeBytes.typical).toBeCloseTo(1_999_397_903_477, -1);
    // 0.05 % and 0.01 %
    expect(freeBytes.low).toBeCloseTo(1_999_997_902_848 * 0.9995, 0);
    expect(freeBytes.high).toBeCloseTo(1_999_997_902_848 * 0.9999, 0);
  });
  it('2 TB are 1.819 TiB: 2 x 10^12 / 2^40', () => expect(capacityLadder(of({})).steps[1]?.what).toContain('1.82 TiB'));
  it('macOS puts 200 MiB first, Windows 16 MiB, Linux nothing; on MBR nobody does', () => {
    expect(takes(of({ os: 'macos' })).before).toBe(209_715_200);
    expect(takes(of({ os: 'windows' })).before).toBe(16_777_216);
    expect(takes(of({})).before).toBeUndefined();
    expect(takes(of({ os: 'macos', scheme: 'mbr' })).before).toBeUndefined();
  });
  it('ext4 on 1 TB: tables 1.6 %, reserve 5 %: 10^12 - 2 MiB = 999 997 902 848; x 0.934 = 933 998 041 260', () => {
    expect(takes(of({ capacityTB: 1, filesystem: 'ext4' })).reserve).toBeCloseTo(49_999_895_142, 0);
    expect(capacityLadder(of({ capacityTB: 1, filesystem: 'ext4' })).freeBytes.typical).toBeCloseTo(933_998_041_260, 0);
  });
  it('MBR on 4 TB: 2^32 x 512 = 2 199 023 255 552 are reached', () => {
    expect(capacityLadder(of({ capacityTB: 4, scheme: 'mbr' })).steps[2]?.bytes).toBe(2_199_023_255_552 - 1_048_576);
  });
  it('flash is kept empty for a sixth to a tenth; a disk is not', () => {
    expect(takes(of({ media: 'nvme' })).headroom).toBeCloseTo(1_999_397_903_477 * 0.15, -1);
    expect(takes(of({ media: 'hdd' })).headroom).toBeUndefined();
  });
  it('what is left goes down from step to step, and is what the one before leaves less what this one takes', () => {
    for (const filesystem of ['apfs', 'hfs+', 'ntfs', 'exfat', 'fat32', 'ext4', 'xfs', 'btrfs'] as const)
      for (const os of ['macos', 'windows', 'linux'] as const)
        for (const scheme of ['gpt', 'mbr'] as const) {
          const { steps, freeBytes } = capacityLadder(of({ filesystem, os, scheme, media: 'nvme' }));
          steps.slice(1).forEach((step, i) => expect(step.bytes).toBeCloseTo((steps[i]?.bytes ?? 0) - step.takes, 0));
          expect(freeBytes.low).toBeLessThanOrEqual(freeBytes.typical);
          expect(freeBytes.typical).toBeLessThanOrEqual(freeBytes.high);
        }
  });
});

describe('what the system reports', () => {
  const says = (observedFreeBytes: number, change: Partial<LadderRequest> = {}) =>
    capacityLadder(of({ ...change, observedFreeBytes })).difference;
  it.each<[string, number, Partial<LadderRequest>, RegExp]>([
    ['as expected', 1_999_400_000_000, {}, /^As expected/],
    // 1.818 TB where TiB were meant: 1.818 x 10^12 x 1.0995 = 1.999 x 10^12
    ['TiB called TB', 1_818_000_000_000, {}, /TiB or GiB/],
    ['an MBR or an old bridge', 2_199_000_000_000, { capacityTB: 4 }, /stops at 2\.2 TB/],
    // 3 x 10^12 - 2.199 x 10^12 = 801 GB
    ['a bridge that begins anew', 800_900_000_000, { capacityTB: 3 }, /begins to count anew/],
    ['more than it has', 2_100_000_000_000, {}, /more than the drive has/],
    ['no reserve', 983_000_000_000, { capacityTB: 1, filesystem: 'ext4' }, /another reserve/],
    ['something on it', 1_980_000_000_000, {}, /Something is on it/],
    ['half of it', 1_000_000_000_000, {}, /does not take the whole drive/]
  ])('%s', (_name, bytes, change, cause) => expect(says(bytes, change)?.cause).toMatch(cause));
  // exFAT of 2 TB leaves 1.9994 x 10^12; a system that cuts off shows 1.99 TB, one that counts in powers of 1024 shows 1.81 TiB.
  // 0.5 % of 1.99 TB are 9.95 GB, so 1.97 TB stays a difference; and 1 990 123 456 789 is no rounded figure.
  it.each([
    [1.99e12, true],
    [2e12, true],
    [Math.round(1.81 * 2 ** 40), true],
    [1.97e12, false],
    [1_990_123_456_789, false]
  ])('%d bytes, read off a screen, are as expected: %s', (observedFreeBytes, inside) =>
    expect(capacityLadder(of({ observedFreeBytes })).difference?.inside).toBe(inside)
  );
  it('the difference is observed less expected', () => {
    // 1 980 000 000 000 - 1 999 397 903 477 = -19 397 903 477, 0.97 %
    expect(says(1_980_000_000_000)?.bytes).toBeCloseTo(-19_397_903_477, -1);
    expect(says(1_980_000_000_000)?.percent).toBeCloseTo(-0.97, 2);
  });
});
