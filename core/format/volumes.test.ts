import { describe, expect, it } from 'vitest';
import type { Volume } from '../sheets/format-choices';
import { moveBorder, planVolumes, type VolumesOn } from './volumes';
import { filesystemMatrix, findInMatrix } from './matrix';

const volume = (change: Partial<Volume>): Volume => ({ name: 'WORK', filesystem: 'exfat', use: 'work', ...change });
const on = (change: Partial<VolumesOn> = {}): VolumesOn => ({
  diskGB: 2000,
  scheme: 'gpt',
  system: 'macos',
  shared: false,
  ...change
});

describe('volumes on a disk', () => {
  it('700 GB and the rest: 0 to 0.35, and 0.35 to 1', () => {
    const { placed, leftGB, problems } = planVolumes(
      [volume({ GB: 700 }), volume({ name: 'BACK', use: 'backup' })],
      on()
    );
    expect(placed.map(({ from, to, GB }) => [from, to, GB])).toEqual([
      [0, 0.35, 700],
      [0.35, 1, 1300]
    ]);
    expect(leftGB).toBe(0);
    expect(problems).toEqual([]);
  });
  it('two without a size share what the third leaves: (2000 - 500) / 2 = 750', () => {
    const { placed } = planVolumes([volume({ GB: 500 }), volume({ name: 'B' }), volume({ name: 'C' })], on());
    expect(placed.map(({ GB }) => GB)).toEqual([500, 750, 750]);
  });
  it('more than there is: 1500 + 800 - 2000 = 300 too much, said at the last size', () => {
    const { problems, leftGB } = planVolumes([volume({ GB: 1500 }), volume({ name: 'B', GB: 800 })], on());
    expect(leftGB).toBe(-300);
    expect(problems).toEqual([{ path: 'volumes.1.GB', message: 'is 300\u202fGB more than the disk has' }]);
  });
  it('work and backup on one disk are one copy', () => {
    expect(planVolumes([volume({}), volume({ name: 'B', use: 'backup' })], on()).remarks.join(' ')).toContain(
      'one copy'
    );
    expect(planVolumes([volume({}), volume({ name: 'B', use: 'exchange' })], on()).remarks.join(' ')).not.toContain(
      'one copy'
    );
  });
  it('a shared container is APFS only, all of it is everybody’s, and a backup wants a quota', () => {
    const shared = on({ shared: true });
    expect(planVolumes([volume({ filesystem: 'apfs' }), volume({ name: 'B' })], shared).problems[0]?.path).toBe(
      'volumes.1.filesystem'
    );
    const both = planVolumes(
      [volume({ filesystem: 'apfs' }), volume({ name: 'B', filesystem: 'apfs', use: 'backup' })],
      shared
    );
    expect(both.placed.map(({ from, to }) => [from, to])).toEqual([
      [0, 1],
      [0, 1]
    ]);
    expect(both.remarks.join(' ')).toMatch(/no quota/);
  });
  it.each<[string, Volume[], Partial<VolumesOn>, string]>([
    ['a name twice, in any case', [volume({}), volume({ name: 'work' })], {}, 'volumes.1.name'],
    ['a name that exFAT does not hold', [volume({ name: 'much-too-long' })], {}, 'volumes.0.name'],
    ['ext4 on macOS', [volume({ filesystem: 'ext4' })], {}, 'volumes.0.filesystem'],
    ['five on an MBR', ['A', 'B', 'C', 'D', 'E'].map((name) => volume({ name })), { scheme: 'mbr' }, 'volumes'],
    ['nothing left for it', [volume({ GB: 2000 }), volume({ name: 'B' })], {}, 'volumes.1.GB']
  ])('%s is refused at its field', (_name, volumes, change, path) =>
    expect(planVolumes(volumes, on(change)).problems.map((problem) => problem.path)).toContain(path)
  );
  it('a border moves within what its two neighbours have', () => {
    expect(moveBorder([{ GB: 500 }, { GB: 500 }], 0, 700)).toEqual([700, 300]);
    expect(moveBorder([{ GB: 500 }, { GB: 500 }], 0, 5000)).toEqual([999, 1]);
    expect(moveBorder([{ GB: 500 }, { GB: 500 }], 0, -5)).toEqual([1, 999]);
  });
});

describe('the matrix', () => {
  it('has every filesystem with every system, and nothing twice', () => {
    for (const { cells } of filesystemMatrix()) expect(new Set(cells.map(({ os }) => os)).size).toBe(cells.length);
    const cell = (filesystem: string, os: string) =>
      filesystemMatrix()
        .find((row) => row.filesystem === filesystem)
        ?.cells.find((one) => one.os === os);
    expect(cell('ntfs', 'macos')).toMatchObject({ does: 'reads', makes: false });
    expect(cell('exfat', 'linux')).toMatchObject({
      does: 'writes',
      makes: true,
      note: 'from 5.7; older kernels through FUSE'
    });
    expect(cell('apfs', 'windows')?.does).toBe('no');
  });
  it('is searched by filesystem, by system and by words', () => {
    expect(findInMatrix(filesystemMatrix(), 'ntfs').rows.map(({ filesystem }) => filesystem)).toContain('ntfs');
    expect(findInMatrix(filesystemMatrix(), 'linux').systems).toEqual(['linux']);
    expect(findInMatrix(filesystemMatrix(), 'checksums').rows.map(({ filesystem }) => filesystem)).toEqual(['btrfs']);
    expect(findInMatrix(filesystemMatrix(), 'zzz').rows).toEqual([]);
  });
});
