/* eslint-disable @typescript-eslint/no-non-null-assertion -- ORDER counts the places of this very list */
import type { FormFactor } from '../parts/drive.ts';
import type { LinkMode, Plug } from '../facts/link-modes.ts';
import type { FilesystemId, OsFamily } from '../facts/filesystems.ts';
import type { Band } from '../quantities/band.ts';

/** How grave a finding is, the least first. */
export const SEVERITIES = ['note', 'limit', 'check', 'fail'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** What a finding is about. */
export const ABOUTS = ['host', 'port', 'cable', 'enclosure', 'drive', 'pad', 'job'] as const;
export type About = (typeof ABOUTS)[number];

/** What a build comes to, the best first. */
export const VERDICTS = ['works', 'limited', 'check', 'fails'] as const;
export type Verdict = (typeof VERDICTS)[number];

/** Gain that a limit costs, MB/s: what the chain does now, and what the enclosure and drive do in their best mode. */
type Gain = {
  /** The house rule, where the job has all that it needs as it is. */ enough?: { needs: number; rule: string };
  now: number;
  best: number;
  direction: 'read' | 'write';
  /** Another part has to change with it. */ with?: 'port' | 'cable';
};

/** The facts behind each finding. Words are made from them in `words.ts`; nothing else about a finding is text. */
export type FindingFacts = {
  'no-common-link-mode': { port: readonly LinkMode[]; bridge: readonly LinkMode[]; thunderboltOnly: boolean };
  'plug-mismatch': { port: Plug; enclosure: readonly Plug[]; ends?: readonly [Plug, Plug] };
  'port-limits-link': Gain & { mode: LinkMode; wanted: LinkMode };
  'cable-limits-link': Gain & { mode: LinkMode; wanted: LinkMode };
  'adapter-limits-link': Gain & { mode: LinkMode; wanted: LinkMode; via: 'hub' | 'bus-powered-hub' | 'adapter' };
  'cable-rate-likely': { mode: LinkMode };
  /** Write now and with the other policy, MB/s; or the time of the job, s, where only its files cost more. */
  'write-cache-policy': {
    from: 'build' | 'rule' | 'system';
    now: number;
    better: number;
    of: 'rate' | 'job';
    rule: string;
  };
  'bridge-limits-link': { mode: LinkMode; bridge: number; drive: number };
  'drive-limits-link': { drive: number; link: number };
  'drive-faster-than-link': { drive: number; link: number; percent: number; keep: boolean; rule: string };
  'bulk-only-transport': { who: 'port' | 'enclosure'; read: number; withUas: number };
  'host-write-ceiling': { cap: number; without: number };
  'cable-length-doubtful': { lengthM: number; safeM: number; mode: LinkMode };
  'pcie-generation-above-tunnel': { drive: number; slot: number };

  'form-factor-mismatch': { drive: FormFactor; bay: FormFactor };
  'm2-length-unsupported': { driveMm: number; takesMm: readonly number[]; assumed: boolean };
  'm2-key-mismatch': { drive: string; takes: readonly string[]; assumed: boolean };
  'protocol-unsupported': { drive: 'nvme' | 'sata'; takes: readonly string[] };
  'bay-too-thin': { driveMm: number; bayMm: number; assumed: boolean };
  'capacity-above-limit': { driveTB: number; limitTB: number };
  'double-sided-no-clearance': { clearanceMm?: number; neededMm: number; assumed: boolean };
  'heatsink-blocks-lid': { heatsinkMm: number; clearanceMm?: number };
  'port-power-short': {
    need: Band;
    portW: number;
    what: 'steady' | 'peak';
    portAssumed: boolean;
    usbA: boolean;
  };
  'shared-hub-power': { hubW: { low: number; high: number }; need: Band; peakW: number };
  'external-supply-needed': { stated: boolean };
  'esata-needs-power': { stated: boolean };
  'sectors-4096': Record<never, never>;
  'surface-implausible': { areaCm2: number; leastCm2: number };
  'trim-not-passed': { who: 'bridge' | 'transport' };
  'drive-nearly-full': { percent: number };
  'smr-rewrite-risk': { recording: 'smr' | 'unknown' };

  'known-bad-pair': { bridge: string; reason: string; source?: string };
  'known-good-pair': { bridge: string; reason: string; source?: string };

  'unit-suspect': { what: 'read' | 'write'; value: number; ceiling: number; meant: 'bits' | 'kilo' | 'unknown' };

  'pad-none-fits': { gapMm: number; buyMm?: number | undefined; role: string };
  'pad-no-contact': { gapMm: number; padMm: number; buyMm?: number | undefined; role: string; assumed?: boolean };
  'pad-over-compressed': {
    gapMm: number;
    padMm: number;
    percent: number;
    buyMm?: number | undefined;
    role: string;
    assumed?: boolean;
  };
  'chip-touches-lid': { role: string; heightMm: number; roomMm: number; assumed: boolean };
  'board-bows': { bowMm: number; limitMm: number };
  'pad-pressure-high': { role: string; pressureMPa: number; limitMPa: number };

  'throttles-in-job': { afterS: number; from: number; to: number; form: 'saw-tooth' | 'plateau'; startC: number };
  'case-too-hot-to-hold': { caseC: number; limitC: number; material: 'aluminium' | 'plastic'; rule?: string };
  'disk-too-warm': { diskC: number; limitC: number };
  'drive-shuts-down': { afterS: number | null; offC: number };
  'bridge-too-hot': { bridgeC: number; limitC: number };
  'room-outside-drive-range': { roomC: number; limitC: number };

  'filesystem-no-common': { writers: readonly OsFamily[]; readers: readonly OsFamily[] };
  'filesystem-read-only-on-host': { filesystem: FilesystemId; hosts: readonly OsFamily[] };
  'os-too-old': { family: OsFamily; version: string; since: string; filesystem: FilesystemId; perhaps: boolean };
  'file-above-limit': { fileGB: number; limitGB: number; filesystem: FilesystemId };
  'mbr-above-2tib': { capacityTB: number; who: 'house rule' | 'device'; families: readonly OsFamily[] };
  'filesystem-excludes-host': {
    filesystem: FilesystemId;
    role: 'boot' | 'backup' | 'nearest';
    system: OsFamily;
    excluded: readonly OsFamily[];
    readOnly: readonly OsFamily[];
  };

  'cache-cliff-in-job': { atGB: number; before: number; after: number };
  'job-minimum-missed': { needs: number; gives: number; assumed: boolean };
  'job-does-not-fit': { needGB: number; freeGB: number };
  'endurance-short': { years: number; warrantyYears: number; gbPerDay: number };
};

export type FindingCode = keyof FindingFacts;
export type Finding = {
  [C in FindingCode]: { code: C; severity: Severity; about: About } & FindingFacts[C];
}[FindingCode];

const ORDER = Object.fromEntries(SEVERITIES.map((severity, at) => [severity, at])) as Record<Severity, number>;

/** Orders verdicts, the best first. */
export const VERDICT_ORDER = Object.fromEntries(VERDICTS.map((verdict, at) => [verdict, at])) as Record<
  Verdict,
  number
>;

/** Gives the worst finding decides. */
export function verdictOf(findings: readonly { severity: Severity }[]): Verdict {
  let worst = 0;
  for (const finding of findings) if (ORDER[finding.severity] > worst) worst = ORDER[finding.severity];
  return VERDICTS[worst]!;
}

/** Gives worst first; among equals the order in which the rules found them. */
export function worstFirst<F extends { severity: Severity }>(findings: readonly F[]): F[] {
  return [...findings].sort((a, b) => ORDER[b.severity] - ORDER[a.severity]);
}

/** A value that was filled in from a class template, where it came from, and the groups of figures that rest on it. */
export type Assumed = {
  part: About;
  field: string;
  value: number | string | boolean;
  from: string;
  figures: string[];
};
