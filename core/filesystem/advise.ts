import {
  FILESYSTEM_IDS,
  FILESYSTEMS,
  MBR_MAX_TB,
  OS_LABEL,
  type FilesystemId,
  type OsFamily
} from '../facts/filesystems.ts';
import {
  appliedRule,
  ruleName,
  chosenOption,
  type AppliedRule,
  type HouseRules,
  type HouseRuleId
} from '../house-rules/house-rules.ts';
import { roleOf, type Role } from './role.ts';
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

/** The advice with what it found, and the house rules that decided something of it. */
export type AdvisedFilesystem = { advice: FilesystemAdvice; findings: Finding[]; decisions: AppliedRule[] };

export type AdviceInput = {
  host: Os;
  media: 'nvme' | 'sata-ssd' | 'hdd';
  capacityTB: number;
  job: Job | undefined;
  rules: HouseRules | undefined;
};

/** What a system can do with a filesystem; `old` where its version is too old for that, and whether software helps. */
type Access = { can: 'writes' | 'reads' | 'no'; old?: { since: string; software: boolean }; unsureBefore?: string };

const WRITES: Access = { can: 'writes' };
const READS: Access = { can: 'reads' };
const KNOWS_NOT: Access = { can: 'no' };

function accessOf(id: FilesystemId, os: Os): Access {
  const facts = FILESYSTEMS[id];
  const support = facts.writes[os.family];
  if (!support) return facts.reads[os.family] ? READS : KNOWS_NOT;
  const { since, sure, software } = support;
  if (since && os.version && compareVersions(os.version, since) < 0)
    return { can: 'writes', old: { since, software: software === true } };
  if (sure && os.version && compareVersions(os.version, sure) < 0) return { can: 'writes', unsureBefore: sure };
  return WRITES;
}

/** Systems that share APFS. */
const APPLE: readonly OsFamily[] = ['macos', 'ipados', 'ios'];

/** Preference among what is left, best first; lower is better. The house rules speak only where practice differs. */
function preference(
  id: FilesystemId,
  families: readonly OsFamily[],
  input: AdviceInput
): { rank: number; because: string; school?: HouseRuleId } {
  const { media, job, rules } = input;
  const only = families.length === 1 ? families[0] : undefined;
  const shares = only === undefined && families.includes('macos') && families.every((family) => APPLE.includes(family));
  if (shares && id === 'apfs') return { rank: 0, because: 'what all of these systems read and write' };
  if (only === 'macos') {
    if (media !== 'hdd') {
      if (id === 'apfs')
        return {
          rank: 0,
          because: 'macOS and a flash drive: journaled by copy-on-write, with snapshots and encryption'
        };
      if (id === 'hfs+') return { rank: 1, because: 'for macOS before 10.13' };
    } else if (id === chosenOption('mac-disk', rules))
      return { rank: 0, because: ruleName('mac-disk', rules), school: 'mac-disk' };
    else if (id === 'apfs' || id === 'hfs+')
      return { rank: 1, because: `the other side of the ${ruleName('mac-disk', rules)}` };
  }
  if (only === 'windows') {
    const ruled = chosenOption('windows-drive', rules);
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
    switch (id) {
      case 'ext4':
        return { rank: 0, because: 'Linux only: journaled and understood by every kernel' };
      case 'xfs': {
        const large = (job?.largestFileGB ?? 0) >= 50 && (job?.files ?? 0) <= 100_000;
        return { rank: large ? -1 : 1, because: 'Linux only: strong with large files' };
      }
      case 'btrfs':
        return {
          rank: job?.purposes.includes('archive') ? -2 : 2,
          because: 'Linux only: checksums show silent damage, snapshots'
        };
    }
  }
  return SHARED[id] ?? OTHERWISE;
}

/** What several families share. */
const SHARED: Partial<Record<FilesystemId, { rank: number; because: string }>> = {
  exfat: { rank: 10, because: 'every system here reads and writes it; no journal, so always eject' },
  ntfs: { rank: 11, because: 'journaled, and every system that has to write it can' },
  fat32: { rank: 20, because: 'the oldest devices read it; files up to 4 GiB' }
};
const OTHERWISE = { rank: 15, because: 'works on every system here' };

function allocationUnit(id: FilesystemId, job: Job | undefined): string | undefined {
  if (id !== 'exfat' || !job?.files) return undefined;
  const meanKB = (job.transferGB * 1e6) / job.files;
  if (meanKB < 256) return '32 KiB';
  return meanKB > 64_000 ? '1 MiB' : undefined;
}

/** A filesystem that is left after the filter. */
type Kept = {
  id: FilesystemId;
  rank: number;
  because: string;
  readOnly: OsFamily[];
  old: { os: Os; since: string; perhaps: boolean } | undefined;
  school: HouseRuleId | undefined;
};

/** What systems say to a filesystem. The first reason is the one that is told. */
type Seen = { reason: string | undefined; old: Kept['old']; readOnly: OsFamily[] };

function ask(seen: Seen, id: FilesystemId, os: Os, writes: boolean): void {
  const access = accessOf(id, os);
  if (access === WRITES) return;
  const { can, old: since, unsureBefore } = access;
  if (since) {
    if (since.software) seen.old ??= { os, since: since.since, perhaps: false };
    else seen.reason ??= `needs ${OS_LABEL[os.family]} ${since.since}, this one is ${os.version}`;
  } else if (unsureBefore) seen.old ??= { os, since: unsureBefore, perhaps: true };
  else if (can === 'no') seen.reason ??= `${OS_LABEL[os.family]} does not ${writes ? 'know' : 'read'} it`;
  else if (can === 'reads') {
    if (writes) seen.reason ??= `${OS_LABEL[os.family]} reads it but does not write it`;
    else seen.readOnly.push(os.family);
  }
}

/** An add-on filesystem costs more than a second choice, and less than the limits of FAT32. */
const ADD_ON_RANK = 2;

const unique = (list: readonly Os[]): OsFamily[] => [...new Set(list.map(({ family }) => family))];

/**
 * Advises which filesystem suits every system that has to write and every one that has to read. A role comes first: what a system
 * starts from or makes its own backups on, whatever others can do with it. Else first a filter with a reason for each one
 * rejected, then a preference: what is native to one family, else what all share.
 * Where nothing survives, the advice names what comes nearest (most systems write it) and a finding says so.
 */
export function adviseFilesystem(input: AdviceInput): AdvisedFilesystem {
  const { host, job, capacityTB, rules } = input;
  const writers: Os[] = [...(job?.writeHosts ?? [])];
  const readers: Os[] = [...(job?.readHosts ?? [])];
  // The host of the plan itself writes, unless the job only takes from the drive.
  (job?.direction === 'out' ? readers : writers).push(host);
  const families: OsFamily[] = [];
  for (const list of [writers, readers])
    for (const os of list) if (!families.includes(os.family)) families.push(os.family);
  const role = roleOf(host, input.media, job, rules);

  const findings: Finding[] = [];
  const rejected: FilesystemAdvice['rejected'] = [];
  const kept: Kept[] = [];
  let tooLarge: { id: FilesystemId; limitGB: number } | undefined;

  for (const id of FILESYSTEM_IDS) {
    const facts = FILESYSTEMS[id];
    const readOnly: OsFamily[] = [];
    const seen: Seen = { reason: undefined, old: undefined, readOnly };
    if (role && !role.able.includes(id)) seen.reason = role.refusal;
    else if (role?.filesystem !== id) {
      for (const os of writers) ask(seen, id, os, true);
      for (const os of readers) ask(seen, id, os, false);
    }
    const formatLimit = facts.maxFormatGB?.[host.family];
    if (formatLimit !== undefined && capacityTB * 1000 > formatLimit)
      seen.reason ??= `${OS_LABEL[host.family]} formats at most 32 GiB with it by default`;
    if (job?.encrypt && id === 'fat32') seen.reason ??= 'an encrypted container on it ends at 4 GiB';
    if (facts.maxFileGB !== undefined && (job?.largestFileGB ?? 0) > facts.maxFileGB) {
      if (seen.reason === undefined) tooLarge ??= { id, limitGB: facts.maxFileGB };
      seen.reason ??= 'files above 4 GiB do not fit';
    }
    const { reason, old } = seen;
    if (reason !== undefined) {
      rejected.push({ filesystem: id, because: reason });
      continue;
    }
    if (role?.filesystem === id) {
      kept.push({ id, rank: -10, because: role.because, readOnly, old, school: role.school });
      continue;
    }
    const { rank, because, school } = preference(id, families, input);
    kept.push({ id, rank: old && !old.perhaps ? rank + ADD_ON_RANK : rank, because, readOnly, old, school });
  }
  kept.sort((a, b) => a.rank - b.rank);

  if (role) {
    const finding = leftOut(role, host, writers, readers);
    if (finding) findings.push(finding);
  } else if (kept.length === 0) {
    findings.push(
      tooLarge
        ? {
            code: 'file-above-limit',
            severity: 'fail',
            about: 'job',
            fileGB: job!.largestFileGB!,
            limitGB: tooLarge.limitGB,
            filesystem: tooLarge.id
          }
        : {
            code: 'filesystem-no-common',
            severity: 'fail',
            about: 'job',
            writers: unique(writers),
            readers: unique(readers)
          }
    );
    const works = (id: FilesystemId, os: Os, reads: boolean) => {
      const { can, old } = accessOf(id, os);
      return old === undefined && (can === 'writes' || (reads && can === 'reads'));
    };
    const reach = (id: FilesystemId) =>
      writers.filter((os) => works(id, os, false)).length * 2 + readers.filter((os) => works(id, os, true)).length;
    const nearest = [...FILESYSTEM_IDS].sort((a, b) => reach(b) - reach(a))[0]!;
    const because = 'the nearest to what this job needs; see the finding';
    kept.push({ id: nearest, rank: 0, because, readOnly: [], old: undefined, school: undefined });
  }
  const best = kept[0]!;
  // Only of what is advised: a version that is too old for something else is nobody's trouble.
  if (best.old)
    findings.push({
      code: 'os-too-old',
      severity: 'check',
      about: 'host',
      family: best.old.os.family,
      version: best.old.os.version!,
      since: best.old.since,
      filesystem: best.id,
      perhaps: best.old.perhaps
    });
  if (best.readOnly.length > 0)
    findings.push({
      code: 'filesystem-read-only-on-host',
      severity: 'note',
      about: 'job',
      filesystem: best.id,
      hosts: best.readOnly
    });

  const { scheme, because: schemeReason, finding: schemeFinding } = schemeFor(families, capacityTB, rules);
  if (schemeFinding) findings.push(schemeFinding);
  const secret = encryptionFor(best.id, families, job, rules);
  const picks = kept.map(({ id, because }, at): FilesystemPick => {
    const unit = allocationUnit(id, job);
    const reasons = [because, schemeReason];
    if (unit) reasons.push(`${unit} clusters for the mean file size of this job`);
    if (secret && at === 0) reasons.push(secret.because);
    return unit
      ? { filesystem: id, scheme, allocationUnit: unit, because: reasons }
      : { filesystem: id, scheme, because: reasons };
  });
  const decisions: AppliedRule[] = [];
  if (best.school)
    decisions.push(appliedRule(best.school, rules, `${FILESYSTEMS[best.id].label} stands first among what would do`));
  if (rules?.scheme) decisions.push(appliedRule('scheme', rules, `${scheme.toUpperCase()} partitions`));
  if (secret?.advised) decisions.push(appliedRule('encrypt', rules, secret.effect));
  return { advice: { first: picks[0]!, others: picks.slice(1), rejected }, findings, decisions };
}

/** Says which systems of a job a role leaves out, and which of those that write can only read. */
function leftOut(role: Role, host: Os, writers: readonly Os[], readers: readonly Os[]): Finding | undefined {
  const { filesystem } = role;
  const out = (os: Os) => {
    const { can, old } = accessOf(filesystem, os);
    return can === 'no' || old !== undefined;
  };
  const others = (list: readonly Os[]) => list.filter((os) => os !== host);
  const excluded = unique([...others(writers), ...others(readers)].filter(out));
  const readOnly = unique(others(writers).filter((os) => accessOf(filesystem, os).can === 'reads'));
  return excluded.length + readOnly.length === 0
    ? undefined
    : {
        code: 'filesystem-excludes-host',
        severity: 'check',
        about: 'host',
        filesystem,
        role: role.role,
        system: host.family,
        excluded,
        readOnly
      };
}

/** Devices whose firmware may know MBR only. */
const SIMPLE: readonly OsFamily[] = ['camera', 'tv', 'console'];

/**
 * Picks the partition scheme. Simple devices may know MBR only: as far as that reaches they get it, unless the crate chose GPT; on a
 * larger drive that is something to look up.
 */
function schemeFor(
  families: readonly OsFamily[],
  capacityTB: number,
  rules: HouseRules | undefined
): { scheme: 'gpt' | 'mbr'; because: string; finding?: Finding } {
  const simple = families.filter((family) => SIMPLE.includes(family));
  const ruled = chosenOption('scheme', rules) as 'gpt' | 'mbr';
  const beyond = capacityTB > MBR_MAX_TB;
  const above = (severity: 'fail' | 'check', who: 'house rule' | 'device'): Finding => ({
    code: 'mbr-above-2tib',
    severity,
    about: 'drive',
    capacityTB,
    who,
    families: simple
  });
  if (rules?.scheme !== undefined) {
    const because = ruleName('scheme', rules);
    if (ruled === 'mbr') return { scheme: 'mbr', because, ...(beyond ? { finding: above('fail', 'house rule') } : {}) };
    return { scheme: 'gpt', because, ...(beyond && simple.length > 0 ? { finding: above('check', 'device') } : {}) };
  }
  if (simple.length > 0 && !beyond)
    return { scheme: 'mbr', because: 'MBR, because simple devices may know nothing else' };
  return {
    scheme: 'gpt',
    because: 'GPT, the default of every current system',
    ...(simple.length > 0 ? { finding: above('check', 'device') } : {})
  };
}

/** Which systems open the encryption of a filesystem's own system. */
const OPENS: Partial<Record<FilesystemId, readonly OsFamily[]>> = {
  apfs: APPLE,
  'hfs+': ['macos'],
  ntfs: ['windows'],
  ext4: ['linux'],
  xfs: ['linux'],
  btrfs: ['linux']
};

/**
 * Says what encrypting the drive means with this filesystem, where the job asks for it, or where it is carried and does not say.
 * No native scheme spans macOS, Windows and Linux.
 */
function encryptionFor(
  id: FilesystemId,
  families: readonly OsFamily[],
  job: Job | undefined,
  rules: HouseRules | undefined
): { because: string; effect: string; advised: boolean } | null {
  const advised = job?.encrypt === undefined && job?.carried === true;
  if (!job?.encrypt && !advised) return null;
  if (advised && chosenOption('encrypt', rules) !== 'yes') {
    const effect = 'it stays readable for whoever finds it';
    return { because: `not encrypted: ${effect}`, effect, advised };
  }
  const native = OPENS[id];
  const effect = families.some((family) => SIMPLE.includes(family))
    ? 'a simple device cannot open it: encrypt what is copied off it'
    : native && families.every((family) => native.includes(family))
      ? `${FILESYSTEMS[id].label} with the system’s own encryption, switched on when it is formatted`
      : 'no native encryption spans these systems: an encrypted container on it, made with a program that all of them have';
  return {
    because: `encryption ${advised ? 'is advisable for a carried drive' : 'as the job asks'}: ${effect}`,
    effect,
    advised
  };
}
