/* eslint-disable @typescript-eslint/no-non-null-assertion -- every chain has a slot, and a part that limits alone leaves a mode without it */
import { QUICK_REMOVAL_SHARE } from '../../facts/flash.ts';
import type { LinkMode } from '../../facts/link-modes.ts';
import type { Finding } from '../../findings/finding.ts';
import { chosenOption, ruleName, type HouseRules } from '../../house-rules/house-rules.ts';
import type { FilledDrive } from '../../parts/fill/drive.ts';
import type { FilledEnclosure } from '../../parts/fill/enclosure.ts';
import type { Port } from '../../parts/host.ts';
import type { MBps } from '../../quantities/measures.ts';
import { hasMode, isTunnelled } from '../modes.ts';
import { modeRank, type Negotiation } from '../negotiate.ts';
import { bottleneckOf, chainStages, generationOf, linkRates, runsUas, type Bottleneck, type Stage } from '../stages.ts';
import type { WriteCachePolicy } from '../write-cache.ts';

/** A loss below this share is not worth a finding. */
const WORTH_SAYING = 0.1;
/** A drive is faster than its link from this factor on. */
const CLEARLY_FASTER = 1.1;
/** Rates that differ by less are the same. */
const SAME_RATE = 1.001;

/** A chain that runs, with everything that may hold it back. */
export type RunningLink = {
  negotiation: Negotiation;
  mode: LinkMode;
  port: Port;
  enclosure: FilledEnclosure;
  drive: FilledDrive;
  /** Null on systems that always cache. */
  policy: WriteCachePolicy | null;
  stages: readonly Stage[];
  read: Bottleneck;
  write: Bottleneck;
  /** What the job needs to write, MB/s. */
  neededWrite: MBps | undefined;
  rules: HouseRules | undefined;
};

/** One rule looks at one thing that may limit a chain; no rule sees or stops another. */
export type LimitRule = (chain: RunningLink) => readonly Finding[];

type Rates = { read: MBps; write: MBps };
const NONE: readonly Finding[] = [];
const loss = (now: MBps, better: MBps): number => 1 - now / better;
const losesEnough = (now: MBps, better: MBps): boolean => loss(now, better) > WORTH_SAYING;
const ratesOf = ({ read, write }: RunningLink): Rates => ({ read: read.band.typical, write: write.band.typical });
const removesQuickly = ({ policy }: RunningLink): boolean => policy?.policy === 'quick-removal';

/** Gives the rates of the same enclosure and drive in a mode, with an ideal port and cable on the same system, MB/s. */
function idealRates(chain: RunningLink, mode: LinkMode): Rates {
  const { enclosure, drive, stages } = chain;
  const slot = stages.find((s) => s.stage === 'slot')!;
  const link = linkRates(mode, generationOf(enclosure), enclosure.uas);
  const share = removesQuickly(chain) && isTunnelled(mode) ? QUICK_REMOVAL_SHARE.typical : 1;
  return {
    read: Math.min(link.read.typical, slot.MBps.typical, drive.read.typical),
    write: Math.min(link.write.typical * share, slot.writeMBps.typical, drive.write.typical)
  };
}

/** Gives the write of the chain with something of its port taken away, typical, MB/s. */
const writeWithout = (chain: RunningLink, port: Port, quickRemoval: boolean): MBps =>
  bottleneckOf(chainStages({ ...chain, port, quickRemoval }), 'writeMBps').band.typical;

const OUTSIDE = ['port', 'cable'] as const;

/** Finds which of port and cable, and with what mode in its place, would make a chain faster. */
function replaceable({ negotiation, mode }: RunningLink, best: LinkMode) {
  const limiting = OUTSIDE.filter((part) => negotiation.limiting.includes(part));
  const alone = limiting.filter((part) => modeRank(negotiation.without[part]) > modeRank(mode));
  const lacking = OUTSIDE.filter((part) => !hasMode(negotiation.sets[part], best));
  return alone.length > 0
    ? alone.map((part) => ({ part, wanted: negotiation.without[part]!, other: undefined }))
    : limiting.slice(0, 1).map((part) => ({ part, wanted: best, other: lacking.find((p) => p !== part) }));
}

/** Names the house rule by which a link that is fast enough for its job may stay. */
function enoughFor({ neededWrite, rules }: RunningLink, now: Rates) {
  return neededWrite !== undefined && now.write >= neededWrite && chosenOption('link', rules) === 'by-job'
    ? { enough: { needs: neededWrite, rule: ruleName('link', rules) } }
    : {};
}

/**
 * Finds port, cable and adapter that hold a chain down: only where they cost more than a tenth against the same enclosure and drive in
 * its best mode, or miss what the job needs.
 */
export const outsideLimits: LimitRule = (chain) => {
  const { negotiation, mode, port, neededWrite } = chain;
  const bestMode = negotiation.best.bridge ?? mode;
  if (modeRank(bestMode) <= modeRank(mode)) return NONE;
  const now = ratesOf(chain);
  const best = idealRates(chain, bestMode);
  const missesJob = neededWrite !== undefined && now.write < neededWrite && best.write > now.write * SAME_RATE;
  const writeLoses = losesEnough(now.write, best.write) || missesJob;
  if (!writeLoses && !losesEnough(now.read, best.read)) return NONE;
  // The write is what most jobs wait for; the read is named where only it loses.
  const direction = writeLoses ? 'write' : 'read';
  return replaceable(chain, bestMode).map(({ part, wanted, other }): Finding => {
    const facts = {
      severity: 'limit',
      now: now[direction],
      best: idealRates(chain, wanted)[direction],
      direction,
      mode,
      wanted,
      ...(other ? { with: other } : {}),
      ...enoughFor(chain, now)
    } as const;
    if (part === 'cable') return { code: 'cable-limits-link', about: 'cable', ...facts };
    return port.via
      ? { code: 'adapter-limits-link', about: 'port', via: port.via, ...facts }
      : { code: 'port-limits-link', about: 'port', ...facts };
  });
};

/** Finds a chain over USB that has to do without UAS, where the drive could do more. */
export const bulkOnly: LimitRule = ({ mode, port, enclosure, drive }) => {
  if (runsUas(port, enclosure)) return NONE;
  const withUas = linkRates(mode, undefined, true).read.typical;
  const without = linkRates(mode, undefined, false).read.typical;
  if (without >= withUas || drive.read.typical <= without) return NONE;
  const who = port.uas === false ? 'port' : 'enclosure';
  return [{ code: 'bulk-only-transport', severity: 'limit', about: who, who, read: without, withUas }];
};

/** Finds a port whose writes have a ceiling of their own. */
export const hostWriteCeiling: LimitRule = (chain) => {
  const { port, write } = chain;
  if (port.writeCapMBps === undefined) return NONE;
  const free = writeWithout(chain, { ...port, writeCapMBps: undefined }, removesQuickly(chain));
  if (!losesEnough(write.band.typical, free)) return NONE;
  return [{ code: 'host-write-ceiling', severity: 'limit', about: 'port', cap: port.writeCapMBps, without: free }];
};

/** Finds a tunnel that writes without the host's cache, because the drive may be pulled at any time. */
export const writeCacheOff: LimitRule = (chain) => {
  const { mode, port, write, policy, rules } = chain;
  if (!policy || !removesQuickly(chain) || !isTunnelled(mode)) return NONE;
  const now = write.band.typical;
  const better = writeWithout(chain, port, false);
  if (!losesEnough(now, better)) return NONE;
  const rule = ruleName('write-cache', rules);
  return [
    { code: 'write-cache-policy', severity: 'limit', about: 'host', from: policy.from, now, better, of: 'rate', rule }
  ];
};

/** Notes a bridge, or its slot, that is the slowest of the chain. */
export const bridgeLimits: LimitRule = ({ mode, drive, read }) =>
  read.at === 'bridge' || read.at === 'slot'
    ? [
        {
          code: 'bridge-limits-link',
          severity: 'note',
          about: 'enclosure',
          mode,
          bridge: read.band.typical,
          drive: drive.read.typical
        }
      ]
    : NONE;

/** Notes what drive or link leave unused of the other. */
export const driveAgainstLink: LimitRule = ({ drive, stages, read, rules }) => {
  let link = Infinity;
  for (const { stage, MBps } of stages) if (stage !== 'drive') link = Math.min(link, MBps.typical);
  if (read.at === 'drive')
    return [{ code: 'drive-limits-link', severity: 'note', about: 'drive', drive: drive.read.typical, link }];
  if (drive.rated <= link * CLEARLY_FASTER) return NONE;
  return [
    {
      code: 'drive-faster-than-link',
      severity: 'note',
      about: 'drive',
      drive: drive.rated,
      link,
      percent: (100 * link) / drive.rated,
      keep: chosenOption('drive-class', rules) === 'headroom',
      rule: ruleName('drive-class', rules)
    }
  ];
};

/** In the order from the host outwards. */
export const LIMIT_RULES: readonly LimitRule[] = [
  outsideLimits,
  bulkOnly,
  hostWriteCeiling,
  writeCacheOff,
  bridgeLimits,
  driveAgainstLink
];

/** Finds who limits whom in a chain that runs. */
export function limitFindings(chain: RunningLink): Finding[] {
  const findings: Finding[] = [];
  for (const rule of LIMIT_RULES) for (const finding of rule(chain)) findings.push(finding);
  return findings;
}
