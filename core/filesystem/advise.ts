import {
  FILESYSTEM_IDS,
  FILESYSTEMS,
  MBR_MAX_TB,
  OS_LABEL,
  type FilesystemId,
  type OsFamily
} from '../facts/filesystems.ts';
import { decision, ruleName, schoolChoice, type Decision, type HouseRules, type SchoolId } from '../facts/schools.ts';
import type { Finding } from '../findings/finding.ts';
import type { Os } from '../parts/host.ts';
import type { Job } from '../parts/job.ts';
import { compareVersions } from './versions.ts';

export type FilesystemPick = {
  filesystem: FilesystemId;
  scheme: 'gpt' | 'mbr';
  allocationUnit?: string;
  because: string[];
};
export type FilesystemAdvice = {
  first: FilesystemPick;
  others: FilesystemPick[];
  rejected: { filesystem: FilesystemId; because: string }[];
};

export type AdviceInput = {
  host: Os;
  media: 'nvme' | 'sata-ssd' | 'hdd';
  capacityTB: number;
  job: Job | undefined;
  rules: HouseRules | undefined;
};

type Access = 'writes' | 'reads' | 'no' | { tooOld: string };

function accessOf(id: FilesystemId, os: Os): Access {
  const facts = FILESYSTEMS[id];
  const support = facts.writes[os.family];
  if (support) {
    if (support.since && os.version && compareVersions(os.version, support.since) < 0) return { tooOld: support.since };
    return 'writes';
  }
  return facts.reads[os.family] ? 'reads' : 'no';
}

/** Preference among what is left, best first; lower is better. The house rules speak only where practice differs. */
function preference(
  id: FilesystemId,
  families: readonly OsFamily[],
  input: AdviceInput
): { rank: number; because: string; school?: SchoolId } {
  const { media, job, rules, host } = input;
  const only = families.length === 1 ? families[0] : undefined;
  const backup = job?.purposes.includes('backup') ?? false;
  if (
    only === 'macos' ||
    (families.length === 2 && families.includes('macos') && families.includes('ipados') && id === 'apfs')
  ) {
    const modern = !host.version || compareVersions(host.version, '11') >= 0;
    const school = backup ? 'mac-backup' : 'mac-disk';
    const ruled = schoolChoice(school, rules);
    if (media !== 'hdd' && !backup) {
      if (id === 'apfs')
        return {
          rank: 0,
          because: 'macOS and a flash drive: journaled by copy-on-write, with snapshots and encryption'
        };
      if (id === 'hfs+') return { rank: 1, because: 'for macOS before 10.13' };
    } else if (id === (backup && !modern ? 'hfs+' : ruled)) {
      if (backup && !modern)
        return { rank: 0, because: 'a backup target for macOS before 11, whose backup knows nothing else' };
      return {
        rank: 0,
        because: ruleName(school, rules),
        school
      };
    } else if (id === 'apfs' || id === 'hfs+')
      return {
        rank: 1,
        because: backup && !modern ? 'for later systems' : `the other side of the ${ruleName(school, rules)}`
      };
  }
  if (only === 'windows') {
    const ruled = schoolChoice('windows-drive', rules);
    if (id === ruled)
      return {
        rank: 0,
        because: ruleName('windows-drive', rules),
        school: 'windows-drive'
      };
    if (id === 'ntfs' || id === 'exfat')
      return { rank: 1, because: `the other side of the ${ruleName('windows-drive', rules)}` };
  }
  if (only === 'linux') {
    const linux: Partial<Record<FilesystemId, [number, string]>> = {
      ext4: [0, 'Linux only: journaled and understood by every kernel'],
      xfs: [
        job?.largestFileGB !== undefined && job.largestFileGB >= 50 && !((job.files ?? 0) > 100_000) ? -1 : 1,
        'Linux only: strong with large files'
      ],
      btrfs: [job?.purposes.includes('archive') ? -2 : 2, 'Linux only: checksums show silent damage, snapshots']
    };
    const own = linux[id];
    if (own) return { rank: own[0], because: own[1] };
  }
  const shared: Partial<Record<FilesystemId, [number, string]>> = {
    exfat: [10, 'every system here reads and writes it; no journal, so always eject'],
    ntfs: [11, 'journaled, and every system that has to write it can'],
    fat32: [20, 'the oldest devices read it; files up to 4 GiB']
  };
  const [rank, because] = shared[id] ?? [15, 'works on every system here'];
  return { rank, because };
}

function allocationUnit(id: FilesystemId, job: Job | undefined): string | undefined {
  if (id !== 'exfat' || !job?.files) return undefined;
  const meanKB = (job.transferGB * 1e6) / job.files;
  if (meanKB < 256) return '32 KiB';
  return meanKB > 64_000 ? '1 MiB' : undefined;
}

/** Devices whose firmware may know MBR only. */
const SIMPLE: readonly OsFamily[] = ['camera', 'tv', 'console'];

/**
 * Which filesystem suits every system that has to write and every one that has to read. First a filter with a reason for
 * each one rejected, then a preference: what is native to one family, else what all share.
 * Where nothing survives, the advice names what comes nearest (most systems write it) and a finding says so.
 */
export function adviseFilesystem(input: AdviceInput): {
  advice: FilesystemAdvice;
  findings: Finding[];
  /** The schools that decided something of it. */
  decisions: Decision[];
} {
  const { host, job, capacityTB, rules } = input;
  const writers: Os[] = [...(job?.writeHosts ?? [])];
  const readers: Os[] = [...(job?.readHosts ?? [])];
  // The host of the plan itself writes, unless the job only takes from the drive.
  (job?.direction === 'out' ? readers : writers).push(host);
  const families: OsFamily[] = [];
  for (const list of [writers, readers])
    for (const os of list) if (!families.includes(os.family)) families.push(os.family);
  const findings: Finding[] = [];
  const rejected: FilesystemAdvice['rejected'] = [];
  const kept: { id: FilesystemId; rank: number; because: string[]; readOnly: OsFamily[]; school?: SchoolId }[] = [];
  const rejectedBySize: { id: FilesystemId; limitGB: number }[] = [];
  const tooOld: { id: FilesystemId; os: Os; since: string }[] = [];

  for (const id of FILESYSTEM_IDS) {
    const facts = FILESYSTEMS[id];
    // The first reason is the one that is told; a file too large is a reason of its own.
    let reason: string | undefined;
    for (const os of writers) {
      const access = accessOf(id, os);
      if (access === 'reads') reason ??= `${OS_LABEL[os.family]} reads it but does not write it`;
      else if (access === 'no') reason ??= `${OS_LABEL[os.family]} does not know it`;
      else if (typeof access === 'object') {
        reason ??= `needs ${OS_LABEL[os.family]} ${access.tooOld}, this one is ${os.version}`;
        tooOld.push({ id, os, since: access.tooOld });
      }
    }
    const readOnly: OsFamily[] = [];
    for (const os of readers) {
      const access = accessOf(id, os);
      if (access === 'no') reason ??= `${OS_LABEL[os.family]} does not read it`;
      else if (access === 'reads') readOnly.push(os.family);
      else if (typeof access === 'object')
        reason ??= `needs ${OS_LABEL[os.family]} ${access.tooOld}, this one is ${os.version}`;
    }
    const formatLimit = facts.maxFormatGB?.[host.family];
    if (formatLimit !== undefined && capacityTB * 1000 > formatLimit)
      reason ??= `${OS_LABEL[host.family]} formats at most 32 GiB with it by default`;
    if (job?.encrypt && id === 'fat32') reason ??= 'no encryption of its own';
    if (facts.maxFileGB !== undefined && (job?.largestFileGB ?? 0) > facts.maxFileGB) {
      if (reason === undefined) rejectedBySize.push({ id, limitGB: facts.maxFileGB });
      reason ??= 'files above 4 GiB do not fit';
    }
    if (reason !== undefined) rejected.push({ filesystem: id, because: reason });
    else {
      const { rank, because, school } = preference(id, families, input);
      kept.push({ id, rank, because: [because], readOnly, ...(school ? { school } : {}) });
    }
  }
  kept.sort((a, b) => a.rank - b.rank);

  if (kept.length === 0) {
    const families = (list: Os[]) => [...new Set(list.map((os) => os.family))];
    const bySize = rejectedBySize[0];
    if (bySize)
      findings.push({
        code: 'file-above-limit',
        severity: 'fail',
        about: 'job',
        fileGB: job!.largestFileGB!,
        limitGB: bySize.limitGB,
        filesystem: bySize.id
      });
    else
      findings.push({
        code: 'filesystem-no-common',
        severity: 'fail',
        about: 'job',
        writers: families(writers),
        readers: families(readers)
      });
    const reach = (id: FilesystemId) =>
      writers.filter((os) => accessOf(id, os) === 'writes').length * 2 +
      readers.filter((os) => accessOf(id, os) !== 'no').length;
    const nearest = [...FILESYSTEM_IDS].sort((a, b) => reach(b) - reach(a))[0]!;
    kept.push({ id: nearest, rank: 0, because: ['the nearest to what this job needs; see the finding'], readOnly: [] });
  }
  // A newer system would have allowed the usual exchange filesystem: worth a look, since software can help.
  const exchange = tooOld.find((old) => old.id === 'exfat' || (old.id === 'ntfs' && families.length > 1));
  if (exchange)
    findings.push({
      code: 'os-too-old',
      severity: 'check',
      about: 'host',
      family: exchange.os.family,
      version: exchange.os.version!,
      since: exchange.since,
      filesystem: exchange.id
    });
  const [best] = kept;
  if (best!.readOnly.length > 0)
    findings.push({
      code: 'filesystem-read-only-on-host',
      severity: 'note',
      about: 'job',
      filesystem: best!.id,
      hosts: best!.readOnly
    });

  const device = families.some((family) => SIMPLE.includes(family)) && capacityTB <= MBR_MAX_TB;
  const scheme = device ? 'mbr' : (schoolChoice('scheme', rules) as 'gpt' | 'mbr');
  const schemeReason = device
    ? 'MBR, because simple devices may know nothing else'
    : rules?.scheme
      ? ruleName('scheme', rules)
      : 'GPT, the default of every current system';
  if (scheme === 'mbr' && capacityTB > MBR_MAX_TB) {
    findings.push({
      code: 'mbr-above-2tib',
      severity: 'fail',
      about: 'drive',
      capacityTB,
      who: device ? 'device' : 'house rule'
    });
  }
  const picks = kept.map(({ id, because }): FilesystemPick => {
    const unit = allocationUnit(id, job);
    return {
      filesystem: id,
      scheme,
      ...(unit ? { allocationUnit: unit } : {}),
      because: [...because, schemeReason, ...(unit ? [`${unit} clusters for the mean file size of this job`] : [])]
    };
  });
  const decisions: Decision[] = [];
  if (best!.school)
    decisions.push(decision(best!.school, rules, `${FILESYSTEMS[best!.id].label} stands first among what would do`));
  if (!device && rules?.scheme) decisions.push(decision('scheme', rules, `${scheme.toUpperCase()} partitions`));
  if (job?.carried && job.encrypt === undefined)
    decisions.push(
      decision('encrypt', rules, encryption(best!.id, families, schoolChoice('encrypt', rules) === 'yes'))
    );
  return { advice: { first: picks[0]!, others: picks.slice(1), rejected }, findings, decisions };
}

/** What encrypting a carried drive means with this filesystem. No native scheme spans macOS, Windows and Linux. */
function encryption(id: FilesystemId, families: readonly OsFamily[], wanted: boolean): string {
  if (!wanted) return 'it stays readable for whoever finds it';
  if (families.some((family) => SIMPLE.includes(family)))
    return 'a simple device cannot open it: encrypt what is copied off it';
  return id === 'exfat' || id === 'fat32'
    ? 'no native encryption spans these systems: an encrypted container on it'
    : `${FILESYSTEMS[id].label} with the system’s own encryption, switched on when it is formatted`;
}
