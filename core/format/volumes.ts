import { FILESYSTEMS } from '../facts/filesystems.ts';
import { volumeNameProblem } from '../erase/volume-name.ts';
import { makes } from '../erase/makers.ts';
import { quantity } from '../quantities/format.ts';
import type { Formatter, Volume } from '../sheets/format-choices.ts';

/** Smallest volume that is worth planning, GB. */
export const LEAST_VOLUME_GB = 1;

/** A volume at its place on the disk: where it begins and ends, as shares of the disk. */
export type PlacedVolume = { name: string; GB: number; from: number; to: number; rest: boolean };
export type VolumesPlan = {
  placed: PlacedVolume[];
  /** What is left over, GB; below 0 where more is planned than there is. */
  leftGB: number;
  problems: { path: string; message: string }[];
  remarks: string[];
};

/** What the plan of volumes is made for. */
export type VolumesOn = { diskGB: number; scheme: 'gpt' | 'mbr'; system: Formatter; shared: boolean };

/** How much a volume takes, GB; what states no size shares what the others leave. */
function sizesOf(volumes: readonly Volume[], { diskGB, shared }: VolumesOn): { sizes: number[]; leftGB: number } {
  const stated = volumes.reduce((sum, { GB }) => sum + (GB ?? 0), 0);
  const open = volumes.filter(({ GB }) => GB === undefined).length;
  if (shared) return { sizes: volumes.map(({ GB }) => GB ?? diskGB), leftGB: diskGB };
  const left = diskGB - stated;
  const each = open > 0 ? Math.max(0, left) / open : 0;
  return { sizes: volumes.map(({ GB }) => GB ?? each), leftGB: open > 0 ? Math.min(0, left) : left };
}

// eslint-disable-next-line complexity -- one line for each thing that cannot be
function problemsOf(
  volumes: readonly Volume[],
  sizes: readonly number[],
  leftGB: number,
  on: VolumesOn
): VolumesPlan['problems'] {
  const problems: VolumesPlan['problems'] = [];
  const add = (i: number, field: string, message: string) => problems.push({ path: `volumes.${i}.${field}`, message });
  for (const [i, { name, filesystem, GB }] of volumes.entries()) {
    const wrong = volumeNameProblem(name, filesystem);
    if (wrong) add(i, 'name', wrong);
    if (volumes.slice(0, i).some((other) => other.name.toLowerCase() === name.toLowerCase()))
      add(i, 'name', 'is the name of another volume');
    if ((sizes[i] ?? 0) < LEAST_VOLUME_GB) add(i, 'GB', `leaves less than ${LEAST_VOLUME_GB} GB for it`);
    if (on.shared && filesystem !== 'apfs') add(i, 'filesystem', 'shares no container: only APFS volumes do');
    if (on.shared && GB !== undefined && GB > on.diskGB) add(i, 'GB', 'is more than the disk has');
    if (on.system !== 'chromeos' && !makes(on.system, filesystem))
      add(i, 'filesystem', `is not made there: ${FILESYSTEMS[filesystem].label} has to be made on another system`);
  }
  if (leftGB < -1e-6) {
    const last = volumes.map(({ GB }) => GB !== undefined).lastIndexOf(true);
    add(Math.max(0, last), 'GB', `is ${quantity(-leftGB, 'GB')} more than the disk has`);
  }
  if (on.scheme === 'mbr' && volumes.length > 4)
    problems.push({ path: 'volumes', message: 'an MBR holds four partitions' });
  return problems;
}

function remarksOf(volumes: readonly Volume[], { shared, diskGB }: VolumesOn): string[] {
  const uses = new Set(volumes.map(({ use }) => use));
  const remarks: string[] = [];
  if (uses.has('backup') && uses.size > 1)
    remarks.push(
      'Two volumes on one disk are one copy: the backup here saves you from a slip of the hand, not from the loss of the disk. Keep another copy elsewhere.'
    );
  if (shared && volumes.length > 1)
    remarks.push(
      'The volumes share the room of their container: none is full before the container is. A backup fills all of it, so give it a quota.'
    );
  if (!shared && volumes.length > 1)
    remarks.push(
      'Fixed partitions: what one does not use the others cannot have, and making one larger later may mean to erase.'
    );
  const backup = volumes.find(({ use }) => use === 'backup');
  if (shared && backup && backup.GB === undefined)
    remarks.push(`“${backup.name}” has no quota: it can fill all ${quantity(diskGB, 'GB')}.`);
  return remarks;
}

/**
 * Lays volumes out on a disk in their order, and says what cannot be.
 * @param on disk in GB (10^9 bytes)
 * @example planVolumes([], { diskGB: 2000, scheme: 'gpt', system: 'linux', shared: false }).leftGB // 2000
 */
export function planVolumes(volumes: readonly Volume[], on: VolumesOn): VolumesPlan {
  const { sizes, leftGB } = sizesOf(volumes, on);
  let at = 0;
  const placed = volumes.map(({ name, GB }, i) => {
    const size = sizes[i] ?? 0;
    const from = on.shared ? 0 : at;
    at += size;
    return {
      name,
      GB: size,
      from: from / on.diskGB,
      to: Math.min(1, (from + size) / on.diskGB),
      rest: GB === undefined
    };
  });
  return { placed, leftGB, problems: problemsOf(volumes, sizes, leftGB, on), remarks: remarksOf(volumes, on) };
}

/**
 * Moves the border between two neighbours: the left one gets a new size, the right one what that leaves it.
 * @param i which volume is on the left
 * @param GB its new size; kept between the least one and what both have together
 * @example moveBorder([{ GB: 500 }, { GB: 500 }], 0, 700) // [700, 300]
 */
export function moveBorder(sizes: readonly { GB: number }[], i: number, GB: number): [number, number] {
  const both = (sizes[i]?.GB ?? 0) + (sizes[i + 1]?.GB ?? 0);
  const left = Math.min(Math.max(LEAST_VOLUME_GB, GB), Math.max(LEAST_VOLUME_GB, both - LEAST_VOLUME_GB));
  return [left, Math.max(0, both - left)];
}
