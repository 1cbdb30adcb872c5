import { describe, expect, it } from 'vitest';
import type { Os } from '../parts/host';
import type { Job } from '../parts/job';
import { adviseFilesystem, type AdviceInput } from './advise';
import { usableTiB } from './capacity';
import { compareVersions } from './versions';

const mac: Os = { family: 'macos', version: '14' };
const windows: Os = { family: 'windows' };
const linux: Os = { family: 'linux', version: '6.1' };
const job = (change: Partial<Job>): Job => ({ name: 'job', purposes: [], transferGB: 100, direction: 'in', ...change });
const advise = (change: Partial<AdviceInput>) =>
  adviseFilesystem({ host: mac, media: 'nvme', capacityTB: 2, job: undefined, rules: undefined, ...change });
const first = (change: Partial<AdviceInput>) => {
  const { filesystem, scheme } = advise(change).advice.first;
  return `${filesystem} ${scheme}`;
};

describe('the first advice', () => {
  it.each<[string, Partial<AdviceInput>, string]>([
    ['a Mac alone, flash', {}, 'apfs gpt'],
    ['a Mac alone, hard disk', { media: 'hdd' }, 'hfs+ gpt'],
    ['the same with the house rule for APFS', { media: 'hdd', rules: { 'mac-disk': 'apfs' } }, 'apfs gpt'],
    ['a backup target on macOS 14', { media: 'hdd', job: job({ purposes: ['backup'] }) }, 'apfs gpt'],
    [
      'a backup target on macOS 10.15',
      { host: { family: 'macos', version: '10.15' }, media: 'hdd', job: job({ purposes: ['backup'] }) },
      'hfs+ gpt'
    ],
    ['macOS 10.12 does not write APFS', { host: { family: 'macos', version: '10.12' } }, 'hfs+ gpt'],
    ['Windows alone', { host: windows }, 'ntfs gpt'],
    ['Windows alone with the other house rule', { host: windows, rules: { 'windows-drive': 'exfat' } }, 'exfat gpt'],
    ['Linux alone', { host: linux }, 'ext4 gpt'],
    ['Linux alone, an archive', { host: linux, job: job({ purposes: ['archive'] }) }, 'btrfs gpt'],
    ['Mac and Windows both write', { job: job({ writeHosts: [mac, windows] }) }, 'exfat gpt'],
    ['Linux writes, Mac and Windows read', { host: linux, job: job({ readHosts: [mac, windows] }) }, 'exfat gpt'],
    ['a camera: MBR, for simple devices', { job: job({ writeHosts: [{ family: 'camera' }] }) }, 'exfat mbr'],
    ['the house rule for MBR', { rules: { scheme: 'mbr' } }, 'apfs mbr']
  ])('%s: %s', (_name, change, expected) => expect(first(change)).toBe(expected));

  it('names the house rule where it decided', () => {
    expect(advise({ media: 'hdd' }).advice.first.because.join(' ')).toContain(
      'house rule “Mac hard disk”: Mac OS Extended'
    );
  });

  it('clusters follow the mean file: 100 GB in 1 000 000 files is 100 kB each', () => {
    expect(advise({ job: job({ writeHosts: [windows], files: 1_000_000 }) }).advice.first.allocationUnit).toBe(
      '32 KiB'
    );
    expect(advise({ job: job({ writeHosts: [windows], files: 100 }) }).advice.first.allocationUnit).toBe('1 MiB');
    expect(advise({ job: job({ writeHosts: [windows], files: 50_000 }) }).advice.first.allocationUnit).toBeUndefined();
  });
});

describe('what is rejected, and why', () => {
  it('gives a reason for every one that is not offered', () => {
    const { advice } = advise({ job: job({ writeHosts: [windows], largestFileGB: 9 }) });
    expect(Object.fromEntries(advice.rejected.map((r) => [r.filesystem, r.because]))).toEqual({
      apfs: 'Windows does not know it',
      'hfs+': 'Windows does not know it',
      ntfs: 'macOS reads it but does not write it',
      fat32: 'files above 4 GiB do not fit',
      ext4: 'Windows does not know it',
      xfs: 'Windows does not know it',
      btrfs: 'Windows does not know it'
    });
  });

  it('an old kernel: exFAT needs Linux 5.7, and software gives it to an older one', () => {
    const { findings, advice } = advise({
      job: job({ writeHosts: [{ family: 'linux', version: '4.19' }, windows], largestFileGB: 9 })
    });
    expect(findings.map((f) => `${f.severity} ${f.code}`)).toEqual(['check os-too-old']);
    expect(advice.first.filesystem).toBe('exfat');
  });

  it('MBR above 2 TiB fails: 2^32 x 512 B = 2.199 TB', () => {
    expect(advise({ rules: { scheme: 'mbr' }, capacityTB: 4 }).findings.map((f) => f.code)).toEqual(['mbr-above-2tib']);
    expect(advise({ rules: { scheme: 'mbr' }, capacityTB: 2.19 }).findings).toEqual([]);
  });
});

describe('room', () => {
  it('2 TB as APFS made on a Mac: (1.81899 - 0.00018) TiB x 0.997 = 1.8134', () => {
    expect(usableTiB(2, 'apfs', true)).toBeCloseTo(1.8134, 3);
  });
  it('exFAT on Windows loses 0.03 %: 1.81899 x 0.9997 = 1.81844', () => {
    expect(usableTiB(2, 'exfat', false)).toBeCloseTo(1.81844, 4);
  });
  it('versions compare by number', () => {
    expect([
      compareVersions('10.6.5', '10.13'),
      compareVersions('14', '10.13'),
      compareVersions('5.15', '5.15.0')
    ]).toEqual([-1, 1, 0]);
  });
});
