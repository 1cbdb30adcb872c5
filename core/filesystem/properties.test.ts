import { describe, expect, it } from 'vitest';
import { FILESYSTEMS, OS_FAMILIES } from '../facts/filesystems';
import { HOUSE_RULES } from '../house-rules/house-rules';
import { PURPOSES } from '../parts/job';
import type { Os } from '../parts/host';
import { seeded } from '../quantities/random';
import { accessOf } from './access';
import { adviseFilesystem, systemsOf, type AdviceInput } from './advise';
import { expectedSlack, slackOf } from './clusters';
import { readSizes } from './size-list';
import { fullAdvice } from './full-advice';
import { roleOf } from './role';

const VERSIONS: Partial<Record<Os['family'], string[]>> = {
  macos: ['10.6.3', '10.11', '10.13', '14'],
  linux: ['4.19', '5.4', '5.10', '6.1'],
  android: ['11', '14'],
  ipados: ['12', '17'],
  ios: ['12', '17']
};

function situation(seed: number): AdviceInput {
  const random = seeded(seed);
  const some = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const system = (): Os => {
    const family = some(OS_FAMILIES);
    const versions = VERSIONS[family];
    return versions && random() < 0.7 ? { family, version: some(versions) } : { family };
  };
  const systems = () => Array.from({ length: Math.floor(random() * 4) }, system);
  return {
    host: system(),
    media: some(['nvme', 'sata-ssd', 'hdd'] as const),
    capacityTB: some([0.032, 0.5, 2, 8]),
    job: {
      name: 'j',
      purposes: PURPOSES.filter(() => random() < 0.12),
      transferGB: 500,
      direction: some(['in', 'out', 'both'] as const),
      writeHosts: systems(),
      readHosts: systems(),
      ...(random() < 0.5 ? { largestFileGB: some([0.5, 4.2, 4.4, 90]) } : {}),
      ...(random() < 0.3 ? { encrypt: true } : {}),
      ...(random() < 0.15 ? { caseNames: true } : {}),
      ...(random() < 0.3 ? { files: some([1, 1000, 2_000_000]) } : {})
    },
    rules:
      random() < 0.5
        ? undefined
        : Object.fromEntries(Object.entries(HOUSE_RULES).map(([id, { choices }]) => [id, some(Object.keys(choices))]))
  };
}

describe('whatever is asked', () => {
  const all = Array.from({ length: 4000 }, (_, i) => situation(i + 1)).map((of) => ({
    of,
    advised: adviseFilesystem(of)
  }));

  it('no role: every computer that must write can, or a finding names it', () => {
    for (const { of, advised } of all) {
      if (roleOf(of.host, of.media, of.job, of.rules)) continue;
      const { filesystem } = advised.advice.first;
      const named = advised.findings.flatMap((finding) =>
        finding.code === 'filesystem-excludes-host'
          ? [...finding.excluded, ...finding.readOnly]
          : finding.code === 'os-too-old'
            ? [finding.family]
            : []
      );
      for (const os of systemsOf(of.host, of.job).writers) {
        const { can, old } = accessOf(filesystem, os);
        if (can !== 'writes' || old) expect(named, JSON.stringify({ of, filesystem })).toContain(os.family);
      }
    }
  });
  it('never a file limit below the largest file', () => {
    for (const { of, advised } of all)
      expect(FILESYSTEMS[advised.advice.first.filesystem].maxFileGB ?? Infinity).toBeGreaterThanOrEqual(
        of.job?.largestFileGB ?? 0
      );
  });
  it('every filesystem stands in exactly one place, and none comes with ways out', () => {
    for (const { of, advised } of all) {
      const full = fullAdvice(of, advised);
      const places = [full.first, ...full.others, ...full.rejected].map(({ filesystem }) => filesystem);
      expect(new Set(full.none ? places.slice(1) : places).size).toBe(full.none ? places.length - 1 : places.length);
      if (full.none) expect(full.ways?.length).toBeGreaterThan(0);
      else expect(full.ways).toBeUndefined();
    }
  });
  it('names that differ only by case are never put where they are one', () => {
    for (const { of, advised } of all)
      if (of.job?.caseNames && !advised.advice.none)
        expect(['ntfs', 'exfat', 'fat32']).not.toContain(advised.advice.first.filesystem);
  });
  it('the order of the systems makes no difference', () => {
    for (const { of, advised } of all.slice(0, 1000)) {
      const turned = {
        ...of,
        job: of.job && {
          ...of.job,
          writeHosts: [...(of.job.writeHosts ?? [])].reverse(),
          readHosts: [...(of.job.readHosts ?? [])].reverse()
        }
      };
      expect(adviseFilesystem(turned).advice.first.filesystem).toBe(advised.advice.first.filesystem);
    }
  });
});

describe('what the ends of files leave unused', () => {
  it('from sizes: 1, 4096 and 5000 bytes in units of 4096: 4095 + 0 + 3192 = 7287', () =>
    expect(slackOf([1, 4096, 5000], 4096).bytes).toBe(7287));
  it('sizes are read off a list: bytes without a unit, decimal units, names beside them', () =>
    expect(readSizes('4096 a.txt\n1.5 MB b.tif\n-rw-r--r-- 1 x x 700 Nov 27 c\nno size here\n2 KiB d')).toEqual({
      sizes: [4096, 1_500_000, 700, 2048],
      unread: 1
    }));
  it('from a mean of one unit: 4096 / (1 - 1/e) - 4096 = 2383.8', () =>
    // 1 - 1/e = 0.632121; 4096 / 0.632121 = 6479.8
    expect(expectedSlack(1, 4096, 4096).perFile).toBeCloseTo(2383.8, 0));
  it('large files leave half a unit: m = 100 c gives c (1/2 + 1/1200) = 0.5008 c', () =>
    expect(expectedSlack(1, 409_600, 4096).perFile / 4096).toBeCloseTo(0.5008, 3));
  it('files of next to nothing leave nearly the whole unit', () =>
    expect(expectedSlack(1, 1, 131_072).perFile).toBeCloseTo(131_071, 0));
  it('the estimate holds for sizes that are drawn so: mean 40 kB in units of 128 KiB, within 1 %', () => {
    const random = seeded(7);
    const sizes = Array.from({ length: 200_000 }, () => -Math.log(1 - random()) * 40_000);
    const measured = slackOf(sizes, 131_072).perFile;
    expect(Math.abs(expectedSlack(1, 40_000, 131_072).perFile / measured - 1)).toBeLessThan(0.01);
  });
});
