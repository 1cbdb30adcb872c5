import { FILESYSTEM_IDS, FILESYSTEMS, OS_LABEL, type FilesystemId, type OsFamily } from '../facts/filesystems.ts';
import type { Finding } from '../findings/finding.ts';
import type { Os } from '../parts/host.ts';
import { listed, quantity } from '../quantities/format.ts';
import { accessOf } from './access.ts';
import type { AdvisedFilesystem, AdviceInput, Systems } from './advise.ts';
import { SIMPLE } from './scheme.ts';

const COMPUTERS: readonly OsFamily[] = ['macos', 'windows', 'linux', 'chromeos'];

const works = (id: FilesystemId, os: Os, writes: boolean): boolean => {
  const { can, old } = accessOf(id, os);
  return old === undefined && (can === 'writes' || (!writes && can === 'reads'));
};

/** A filesystem that these systems share, the widest first. */
const WIDE: readonly FilesystemId[] = ['exfat', 'ntfs', 'fat32', ...FILESYSTEM_IDS];
const shared = (writers: readonly Os[], readers: readonly Os[], largestGB: number): FilesystemId | undefined =>
  WIDE.find(
    (id) =>
      (FILESYSTEMS[id].maxFileGB ?? Infinity) >= largestGB &&
      writers.every((os) => works(id, os, true)) &&
      readers.every((os) => works(id, os, false))
  );

const names = (families: readonly OsFamily[]): string =>
  listed([...new Set(families)].map((family) => OS_LABEL[family]));

/** Which systems do without, by the finding that says so. */
function leftOutOf(findings: readonly Finding[]): { excluded: readonly OsFamily[]; readOnly: readonly OsFamily[] } {
  for (const finding of findings)
    if (finding.code === 'filesystem-excludes-host') return { excluded: finding.excluded, readOnly: finding.readOnly };
  return { excluded: [], readOnly: [] };
}

/** Two volumes: what stands first for those who have it, and another one for the rest and the computer that fills it. */
function twoVolumes(
  first: FilesystemId,
  out: readonly OsFamily[],
  { host, job }: AdviceInput,
  systems: Systems
): string[] {
  const theirs = [...systems.writers, ...systems.readers].filter(({ family }) => out.includes(family));
  const second = shared(
    [host, ...theirs.filter((os) => systems.writers.includes(os))],
    theirs,
    job?.largestFileGB ?? 0
  );
  return second && second !== first
    ? [
        `Two volumes on the drive: ${FILESYSTEMS[first].label} for what only ${names([host.family])} needs, ${FILESYSTEMS[second].label} for what is exchanged with ${names(out)}. Two volumes on one disk are one copy.`
      ]
    : [];
}

/** Which filesystem a newer system would bring. */
function byUpdate(systems: Systems, largestGB: number): string[] {
  const all = [...systems.writers, ...systems.readers];
  for (const id of WIDE) {
    if ((FILESYSTEMS[id].maxFileGB ?? Infinity) < largestGB) continue;
    const old = all.filter((os) => accessOf(id, os).old !== undefined);
    const rest = all.filter((os) => !old.includes(os));
    const [first] = old;
    const since = first && accessOf(id, first).old?.since;
    if (first && since && rest.every((os) => works(id, os, systems.writers.includes(os))))
      return [
        `With ${OS_LABEL[first.family]} ${since} or newer instead of ${first.version}, ${FILESYSTEMS[id].label} does.`
      ];
  }
  return [];
}

/**
 * Gives the least bad ways out where no filesystem does all that a job asks for, the better ones first.
 * @example waysOut(input, adviseFilesystem(input), systemsOf(input.host, input.job))
 */
export function waysOut(input: AdviceInput, { advice, findings }: AdvisedFilesystem, systems: Systems): string[] {
  const { job } = input;
  const first = advice.first.filesystem;
  const { excluded, readOnly } = leftOutOf(findings);
  const out = [...excluded, ...readOnly];
  const computers = out.filter((family) => COMPUTERS.includes(family));
  const largest = job?.largestFileGB ?? 0;
  const ways: string[] = [];
  if (out.length > 0) {
    ways.push(...twoVolumes(first, out, input, systems), ...byUpdate(systems, largest));
    if (computers.length > 0)
      ways.push(
        `A path over the network: leave the drive at ${names([input.host.family])} and share it; ${names(computers)} then needs no filesystem of its own.`,
        `Extra software on ${names(computers)} that opens ${FILESYSTEMS[first].label}: it has to be bought and kept up to date with the system, and is no base for a backup. Try it with a small drive first.`
      );
    else ways.push(`Another drive for ${names(out)}.`);
  }
  if (findings.some(({ code }) => code === 'file-above-limit'))
    ways.push(`Split files above ${quantity(4.29, 'GB')}, or leave out the system that forces FAT32.`);
  if (job?.caseNames)
    ways.push('Keep what differs only by case in one archive or in a container that is opened on one system.');
  if (job?.encrypt && systems.families.some((family) => SIMPLE.includes(family)))
    ways.push(
      'Leave the device its plain drive, and encrypt what is copied off it: an encrypted container or a second, encrypted volume that only the computers open.'
    );
  return ways.length > 0
    ? ways
    : ['Two drives instead of one, or a path over the network: no volume does all of this.'];
}
