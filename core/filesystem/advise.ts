/* eslint-disable @typescript-eslint/no-non-null-assertion -- a filesystem is kept or named the nearest; what speaks of a job or a version was asked because there is one */
import { FILESYSTEM_IDS, FILESYSTEMS, OS_LABEL, type FilesystemId, type OsFamily } from '../facts/filesystems.ts';
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
import { accessOf, WRITES } from './access.ts';
import { APPLE, encryptionFor } from './encryption.ts';
import { impliedBy } from './implied.ts';
import { schemeFor, SIMPLE } from './scheme.ts';

export type FilesystemPick = {
  filesystem: FilesystemId;
  scheme: 'gpt' | 'mbr';
  allocationUnit?: string;
  because: string[];
  /** Where names are to differ by case alone: the variant of it that keeps them apart. */
  variant?: 'case-sensitive';
  /** The house rule that put it here. */
  rule?: HouseRuleId;
};
export type FilesystemAdvice = {
  first: FilesystemPick;
  others: FilesystemPick[];
  rejected: { filesystem: FilesystemId; because: string }[];
  /** None does all of what was asked: the first is only what comes nearest. */
  none?: true;
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

/** How much a filesystem is preferred, lower is better, with the reason and the house rule that decided it. */
export type Preference = { rank: number; because: string; school?: HouseRuleId };

/** Prefers what is native to Macs alone. */
function onMac(id: FilesystemId, { media, rules }: AdviceInput): Preference | undefined {
  if (id !== 'apfs' && id !== 'hfs+') return undefined;
  if (media !== 'hdd')
    return id === 'apfs'
      ? { rank: 0, because: 'macOS and a flash drive: journaled by copy-on-write, with snapshots and encryption' }
      : { rank: 1, because: 'for macOS before 10.13' };
  const because = ruleName('mac-disk', rules);
  return id === chosenOption('mac-disk', rules)
    ? { rank: 0, because, school: 'mac-disk' }
    : { rank: 1, because: `the other option of the ${because}` };
}

/** Prefers what is native to Windows alone. */
function onWindows(id: FilesystemId, { rules }: AdviceInput): Preference | undefined {
  if (id !== 'ntfs' && id !== 'exfat') return undefined;
  const because = ruleName('windows-drive', rules);
  return id === chosenOption('windows-drive', rules)
    ? {
        rank: 0,
        because: `${id === 'ntfs' ? 'native to Windows, with a journal' : 'read and written everywhere'}; ${because}`,
        school: 'windows-drive'
      }
    : { rank: 1, because: `the other option of the ${because}` };
}

/** Files from this size on are large, and more than so many are many. */
const LARGE_FILE_GB = 50;
const MANY_FILES = 100_000;

/** Prefers what is native to Linux alone. */
function onLinux(id: FilesystemId, { job }: AdviceInput): Preference | undefined {
  if (id === 'ext4') return { rank: 0, because: 'Linux only: journaled and understood by every kernel' };
  if (id === 'xfs') {
    const large = (job?.largestFileGB ?? 0) >= LARGE_FILE_GB && (job?.files ?? 0) <= MANY_FILES;
    return { rank: large ? -1 : 1, because: 'Linux only: strong with large files' };
  }
  const archive = job?.purposes.includes('archive');
  return id === 'btrfs'
    ? { rank: archive ? -2 : 2, because: 'Linux only: checksums show silent damage, snapshots' }
    : undefined;
}

/** What each family prefers where it is alone. The house rules speak only where practice differs. */
const ALONE: Partial<Record<OsFamily, (id: FilesystemId, input: AdviceInput) => Preference | undefined>> = {
  macos: onMac,
  windows: onWindows,
  linux: onLinux
};

/** Prefers among what is left: what is native to one family, else what all share. */
function preference(id: FilesystemId, families: readonly OsFamily[], input: AdviceInput): Preference {
  const [only] = families.length === 1 ? families : [];
  if (only) return ALONE[only]?.(id, input) ?? SHARED[id] ?? OTHERWISE;
  // Older cars and radios know nothing else; what they cannot hold was rejected before.
  if (id === 'fat32' && families.includes('car'))
    return { rank: 5, because: 'cars of every age read it; files up to 4 GiB' };
  const apple = families.includes('macos') && families.every((family) => APPLE.includes(family));
  if (apple && id === 'apfs') return { rank: 0, because: 'what all of these systems read and write' };
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
  /** Systems whose version may be too old for it. */
  old: { os: Os; since: string; perhaps: boolean }[];
  school: HouseRuleId | undefined;
};

/** What systems say to a filesystem. The first reason is the one that is told. */
type Seen = { reason: string | undefined; old: Kept['old']; readOnly: OsFamily[] };

// eslint-disable-next-line complexity -- one line for each answer that a system can give
function ask(seen: Seen, id: FilesystemId, os: Os, writes: boolean): void {
  const access = accessOf(id, os);
  if (access === WRITES) return;
  const { can, old, unsureBefore } = access;
  const name = OS_LABEL[os.family];
  if (old && !old.software) seen.reason ??= `needs ${name} ${old.since}, this one is ${os.version}`;
  else if (old || unsureBefore)
    seen.old.push({ os, since: (old?.since ?? unsureBefore)!, perhaps: unsureBefore !== undefined });
  else if (can === 'no') seen.reason ??= `${name} does not ${writes ? 'know' : 'read'} it`;
  else if (can === 'reads' && writes) seen.reason ??= `${name} reads it but does not write it`;
  else if (can === 'reads') seen.readOnly.push(os.family);
}

/** An add-on filesystem costs more than a second choice, and less than the limits of FAT32. */
const ADD_ON_RANK = 2;

const unique = (list: readonly Os[]): OsFamily[] => [...new Set(list.map(({ family }) => family))];

/** Who writes and who reads: the host of the plan itself writes, unless the job only takes from the drive. */
export type Systems = { writers: Os[]; readers: Os[]; families: OsFamily[] };

/**
 * Gathers the systems of a job, with the devices that its purposes speak of.
 * @example systemsOf({ family: 'macos' }, undefined).writers.length // 1
 */
export function systemsOf(host: Os, job: Job | undefined): Systems {
  const writers: Os[] = [...(job?.writeHosts ?? [])];
  const readers: Os[] = [...(job?.readHosts ?? [])];
  (job?.direction === 'out' ? readers : writers).push(host);
  if (job && job.purposes.length > 0) {
    const implied = impliedBy(job.purposes, [...writers, ...readers]);
    writers.push(...implied.writers);
    readers.push(...implied.readers);
  }
  const families: OsFamily[] = [];
  for (const list of [writers, readers])
    for (const os of list) if (!families.includes(os.family)) families.push(os.family);
  return { writers, readers, families };
}

/** Asks everything that may speak against a filesystem; the first reason is the one that is told. */
// eslint-disable-next-line complexity -- one line for each thing that may speak against a filesystem
function seenAs(id: FilesystemId, input: AdviceInput, { writers, readers }: Systems, role: Role | null): Seen {
  const { host, job, capacityTB } = input;
  const seen: Seen = { reason: undefined, old: [], readOnly: [] };
  if (role && !role.able.includes(id)) seen.reason = role.refusal;
  else if (role?.filesystem !== id) {
    // The first reason rejects: nobody else need be asked.
    for (let i = 0; i < writers.length && seen.reason === undefined; i++) ask(seen, id, writers[i]!, true);
    for (let i = 0; i < readers.length && seen.reason === undefined; i++) ask(seen, id, readers[i]!, false);
  }
  const formatLimit = FILESYSTEMS[id].maxFormatGB?.[host.family];
  if (formatLimit !== undefined && capacityTB * 1000 > formatLimit)
    seen.reason ??= `${OS_LABEL[host.family]} formats at most 32 GiB with it by default`;
  if (job?.caseNames && ONE_NAME.includes(id)) seen.reason ??= 'names that differ only by case are one name there';
  if (job?.encrypt && id === 'fat32') seen.reason ??= 'an encrypted container on it ends at 4 GiB';
  return seen;
}

/** Filesystems on which every system takes names that differ only by case for one. */
const ONE_NAME: readonly FilesystemId[] = ['ntfs', 'exfat', 'fat32'];
/** Those that keep them apart in a variant of their own. */
const BY_VARIANT: readonly FilesystemId[] = ['apfs', 'hfs+'];

/** What the filter leaves, best first, what it rejects, and the first filesystem whose limit for files alone was in the way. */
type Filtered = {
  kept: Kept[];
  rejected: FilesystemAdvice['rejected'];
  tooLarge: { id: FilesystemId; limitGB: number } | undefined;
};

// eslint-disable-next-line complexity -- one line for each way a filesystem can leave or stay
function filter(input: AdviceInput, systems: Systems, role: Role | null): Filtered {
  const largestGB = input.job?.largestFileGB ?? 0;
  const out: Filtered = { kept: [], rejected: [], tooLarge: undefined };
  for (const id of FILESYSTEM_IDS) {
    const seen = seenAs(id, input, systems, role);
    const { maxFileGB } = FILESYSTEMS[id];
    if (maxFileGB !== undefined && largestGB > maxFileGB) {
      if (seen.reason === undefined) out.tooLarge ??= { id, limitGB: maxFileGB };
      seen.reason ??= 'files above 4 GiB do not fit';
    }
    const { reason, old, readOnly } = seen;
    if (reason !== undefined) out.rejected.push({ filesystem: id, because: reason });
    else if (role?.filesystem === id) out.kept.push({ ...asRole(role), readOnly, old });
    else {
      const { rank, because, school } = preference(id, systems.families, input);
      const addOn = old.some(({ perhaps }) => !perhaps);
      out.kept.push({ id, rank: addOn ? rank + ADD_ON_RANK : rank, because, readOnly, old, school });
    }
  }
  out.kept.sort((a, b) => a.rank - b.rank);
  return out;
}

/** What a role needs comes before every preference. */
const asRole = ({ filesystem, because, school }: Role): Kept => ({
  id: filesystem,
  rank: -10,
  because,
  readOnly: [],
  old: [],
  school
});

/** Says why nothing survives the filter. */
const nothingFinding = (
  { job }: AdviceInput,
  { writers, readers }: Systems,
  tooLarge: Filtered['tooLarge']
): Finding =>
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
      };

/** Finds what comes nearest where nothing survives the filter: what most systems write, and then what most read. */
function nearest({ writers, readers }: Systems, { host, job }: AdviceInput): Kept {
  // What a newer system would bring is nearer than what it never has; who makes the drive has to have it first of all.
  const worth = (id: FilesystemId, os: Os, reads: boolean) => {
    const { can, old } = accessOf(id, os);
    const does = can === 'writes' || (reads && can === 'reads');
    return (does ? (old ? 1 : 2) : 0) * (os === host ? 2 : 1);
  };
  const reach = (id: FilesystemId) =>
    writers.reduce((sum, os) => sum + worth(id, os, false) * 2, 0) +
    readers.reduce((sum, os) => sum + worth(id, os, true), 0);
  // A limit below the largest file would lose the file itself.
  const holds = (id: FilesystemId) => (FILESYSTEMS[id].maxFileGB ?? Infinity) >= (job?.largestFileGB ?? 0);
  const id = FILESYSTEM_IDS.filter(holds).sort((a, b) => reach(b) - reach(a))[0]!;
  const because = 'the nearest to what this job needs; see the finding';
  return { id, rank: 0, because, readOnly: [], old: [], school: undefined };
}

/** Says what speaks against the best one: only of what is advised, for a version too old for something else is nobody's trouble. */
function bestFindings({ id, old, readOnly }: Kept): Finding[] {
  const findings: Finding[] = [];
  const told = new Set<string>();
  for (const { os, since, perhaps } of old) {
    if (told.has(`${os.family} ${os.version}`)) continue;
    told.add(`${os.family} ${os.version}`);
    findings.push({
      code: 'os-too-old',
      severity: 'check',
      about: 'host',
      family: os.family,
      version: os.version!,
      since,
      filesystem: id,
      perhaps
    });
  }
  if (readOnly.length > 0)
    findings.push({
      code: 'filesystem-read-only-on-host',
      severity: 'note',
      about: 'job',
      filesystem: id,
      hosts: readOnly
    });
  return findings;
}

type Scheme = ReturnType<typeof schemeFor>;
type Encryption = ReturnType<typeof encryptionFor>;

/** Writes what is kept as picks, each with its reasons. */
const picksOf = (kept: readonly Kept[], job: Job | undefined, scheme: Scheme, secret: Encryption): FilesystemPick[] =>
  kept.map(({ id, because, school }, at) => {
    const unit = allocationUnit(id, job);
    const reasons = [because, scheme.because];
    const pick: FilesystemPick = { filesystem: id, scheme: scheme.scheme, because: reasons };
    if (unit) {
      pick.allocationUnit = unit;
      reasons.push(`${unit} clusters for the mean file size of this job`);
    }
    if (job?.caseNames && BY_VARIANT.includes(id)) {
      pick.variant = 'case-sensitive';
      reasons.push(
        'in its case-sensitive variant, for names that differ only by case; some programs refuse to start from it'
      );
    }
    if (school) pick.rule = school;
    if (secret && at === 0) reasons.push(secret.because);
    return pick;
  });

/** Names the house rules that decided something of the advice. */
function rulesApplied(
  best: Kept,
  rules: HouseRules | undefined,
  { scheme }: Scheme,
  secret: Encryption
): AppliedRule[] {
  const decisions: AppliedRule[] = [];
  if (best.school)
    decisions.push(appliedRule(best.school, rules, `${FILESYSTEMS[best.id].label} stands first among what would do`));
  if (rules?.scheme) decisions.push(appliedRule('scheme', rules, `${scheme.toUpperCase()} partitions`));
  if (secret?.advised) decisions.push(appliedRule('encrypt', rules, secret.effect));
  return decisions;
}

/**
 * Advises which filesystem suits every system that has to write and every one that has to read. A role comes first: what a system
 * starts from or makes its own backups on, whatever others can do with it. Else first a filter with a reason for each one
 * rejected, then a preference: what is native to one family, else what all share.
 * Where nothing survives, the advice names what comes nearest (most systems write it) and a finding says so.
 * @param input capacity in TB (10^12 bytes)
 */
export function adviseFilesystem(input: AdviceInput): AdvisedFilesystem {
  const { host, job, capacityTB, rules } = input;
  const systems = systemsOf(host, job);
  const role = roleOf(host, input.media, job, rules);
  const { kept, rejected, tooLarge } = filter(input, systems, role);
  const findings: Finding[] = [];
  const excluded = role && leftOut(role, host, systems.writers, systems.readers);
  if (excluded) findings.push(excluded);
  if (kept.length === 0) {
    findings.push(nothingFinding(input, systems, tooLarge));
    kept.push(role ? asRole(role) : nearest(systems, input));
    const left = !role && leftOut({ role: 'nearest', filesystem: kept[0]!.id }, host, systems.writers, systems.readers);
    if (left) findings.push(left);
  }
  const best = kept[0]!;
  findings.push(...bestFindings(best));
  const scheme = schemeFor(systems.families, capacityTB, rules);
  if (scheme.finding) findings.push(scheme.finding);
  const secret = encryptionFor(best.id, systems.families, job, rules);
  const picks = picksOf(kept, job, scheme, secret);
  const none =
    findings.some(({ code }) => MISSES.includes(code)) ||
    (job?.encrypt === true && systems.families.some((family) => SIMPLE.includes(family)));
  return {
    advice: {
      first: picks[0]!,
      others: picks.slice(1),
      rejected,
      ...(none ? { none: true as const } : {})
    },
    findings,
    decisions: rulesApplied(best, rules, scheme, secret)
  };
}

/** Findings that say that something of the job is not had. */
const MISSES: readonly string[] = ['filesystem-no-common', 'file-above-limit', 'filesystem-excludes-host'];

/** Says which systems of a job a role leaves out, and which of those that write can only read. */
function leftOut(
  role: Pick<Role, 'filesystem'> & { role: Role['role'] | 'nearest' },
  host: Os,
  writers: readonly Os[],
  readers: readonly Os[]
): Finding | undefined {
  const { filesystem } = role;
  const out = (os: Os) => {
    const { can, old } = accessOf(filesystem, os);
    return can === 'no' || old !== undefined;
  };
  const others = (list: readonly Os[]) => (role.role === 'nearest' ? list : list.filter((os) => os !== host));
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
