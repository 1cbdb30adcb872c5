import { MBR_MAX_TB, type FilesystemId } from '../../facts/filesystems.ts';
import { schoolChoice, type HouseRules } from '../../house-rules/house-rules.ts';
import { adviseFilesystem } from '../../filesystem/advise.ts';
import { usableTiB } from '../../filesystem/capacity.ts';
import type { FindingCode } from '../../findings/finding.ts';
import {
  fillDrive,
  fillEnclosure,
  portPower,
  type FilledDrive,
  type FilledEnclosure,
  type PortPower
} from '../../parts/fill/fill.ts';
import type { Port } from '../../parts/host.ts';
import type { Alternative } from '../../parts/alternative.ts';
import { needGB, usableFreeGB } from '../../throughput/job-time.ts';
import { writeCachePolicy } from '../../chain/write-cache.ts';
import { chainKey } from '../../build/chain-key.ts';
import { gather, type Known } from '../../build/gather.ts';
import type { MeasuredRun } from '../../results/measured.ts';
import type { PlanInput } from '../../plan/report.ts';
import type { LinkClass, Links } from './links.ts';
import { pricesOf, type Prices } from './prices.ts';
import type { Filters, RankInput } from './request.ts';
import { beginWeights, type Weights } from './request.ts';

/** What host, drive and job have to do with each other, whatever lies between them. */
export type Suits = { fail: FindingCode | undefined; usableTiB: number; filesystem: FilesystemId };

export type Prepared = {
  input: RankInput;
  rules: HouseRules | undefined;
  weights: Weights;
  filters: Filters;
  ports: { host: number; port: Port; watts: PortPower }[];
  /** Which hosts write without a cache of their own. */
  quickRemoval: boolean[];
  drives: { filled: FilledDrive; freeGB: number }[];
  enclosures: FilledEnclosure[];
  /** By host and drive. */
  suits: Suits[][];
  prices: Prices;
  /** What is known around the parts, as every plan takes it. */
  known: Known;
  /** Combinations that were measured, by drive and enclosure. */
  measuredPairs: ReadonlySet<string>;
  /** The links of each enclosure, found in the first walk and used again in the second. */
  links?: (enclosure: FilledEnclosure) => Links;
  alternatives: (Alternative & { id: string })[];
  /** Whether parts at hand count with what they would sell for. */
  resold: boolean;
  /** The request as it came. */
  given: RankInput;
};

/** Names a drive in an enclosure. */
export const pairKey = (driveId: string, enclosureId: string): string => `${driveId} ${enclosureId}`;

/** Parts without an id get one, so that a row can name them. */
const named = <T extends { id?: string | undefined }>(parts: readonly T[], word: string): (T & { id: string })[] =>
  parts.map((part, i) => ({ ...part, id: part.id ?? `${word}-${i + 1}` }));

/** Everything that needs to be worked out once a part, once a pair, and not once a combination. */
export function prepare(given: RankInput): Prepared {
  const input: RankInput = {
    ...given,
    hosts: named(given.hosts, 'host'),
    cables: named(given.cables, 'cable'),
    enclosures: named(given.enclosures, 'enclosure'),
    drives: named(given.drives, 'drive')
  };
  const { job, hosts, drives } = input;
  const rules = input.houseRules as HouseRules | undefined;
  const suits = hosts.map((host) => {
    const advised = new Map<string, { fail: FindingCode | undefined; usableTiB: number; filesystem: FilesystemId }>();
    return drives.map((drive): Suits => {
      const key = `${drive.media} ${drive.capacityTB}`;
      let found = advised.get(key);
      if (!found) {
        const { media, capacityTB } = drive;
        const { advice, findings } = adviseFilesystem({ host: host.os, media, capacityTB, job, rules });
        const { filesystem, scheme } = advice.first;
        const held = scheme === 'mbr' ? Math.min(capacityTB, MBR_MAX_TB) : capacityTB;
        const usable = usableTiB(held, filesystem, host.os.family === 'macos');
        found = { fail: findings.find((f) => f.severity === 'fail')?.code, usableTiB: usable, filesystem };
        advised.set(key, found);
      }
      const fits = needGB(job) <= usableFreeGB(found.usableTiB, drive.fillFraction);
      return found.fail === undefined && !fits ? { ...found, fail: 'job-does-not-fit' } : found;
    });
  });
  const prices = pricesOf(input);
  const measured = new Map<string, MeasuredRun[]>();
  for (const { date, simulated, readMBps, writeMBps, ...ids } of input.measured ?? []) {
    const key = chainKey(ids);
    measured.set(key, [...(measured.get(key) ?? []), { date, simulated, results: { readMBps, writeMBps } }]);
  }
  return {
    input,
    rules,
    given,
    known: {
      pads: input.pads ?? [],
      quotes: prices.quotes,
      houseRules: input.houseRules ?? {},
      knownPairs: input.knownPairs ?? [],
      exchange: input.exchange ?? { currency: prices.currency ?? '', rates: [] },
      measured
    },
    measuredPairs: new Set((input.measured ?? []).map((run) => pairKey(run.driveId, run.enclosureId))),
    resold: schoolChoice('reuse', rules) === 'resale',
    alternatives: named(given.alternatives ?? [], 'alternative'),
    weights: { ...beginWeights(job, rules).weights, ...given.weights },
    filters: given.filters ?? {},
    ports: hosts.flatMap((host, i) => host.ports.map((port) => ({ host: i, port, watts: portPower(port) }))),
    quickRemoval: hosts.map(({ os }) => writeCachePolicy(os, rules, undefined)?.policy === 'quick-removal'),
    drives: drives.map((drive) => ({
      filled: fillDrive(drive),
      freeGB: drive.capacityTB * 1000 * (1 - (drive.fillFraction ?? 0))
    })),
    enclosures: input.enclosures.map((enclosure) => fillEnclosure(enclosure)),
    suits,
    prices
  };
}

/** Gathers one combination, as a page or the API does. */
export function inputOf(set: Prepared, drive: number, enclosure: number, link: LinkClass, cable: number): PlanInput {
  const { input, ports, known } = set;
  return gather(
    {
      host: input.hosts[link.host]!,
      portId: ports[link.port]!.port.id,
      ...(cable >= 0 ? { cable: input.cables[cable]! } : {}),
      enclosure: input.enclosures[enclosure]!,
      drive: input.drives[drive]!,
      job: input.job
    },
    known
  );
}
