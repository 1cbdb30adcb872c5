import { MBR_MAX_TB, type FilesystemId } from '../../facts/filesystems.ts';
import { chosenOption, type HouseRules } from '../../house-rules/house-rules.ts';
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
import type { LinkClass, EnclosureLinks } from './links.ts';
import { pricesOf, type Prices } from './prices.ts';
import { type Filters, type RankInput, beginWeights, type Weights } from './request.ts';

/** What host, drive and job have to do with each other, whatever lies between them. */
export type FilesystemFit = { fail: FindingCode | undefined; usableTiB: number; filesystem: FilesystemId };

export type Prepared = {
  withIds: RankInput;
  rules: HouseRules | undefined;
  weights: Weights;
  filters: Filters;
  ports: { host: number; port: Port; watts: PortPower }[];
  /** Which hosts write without a cache of their own. */
  quickRemoval: boolean[];
  drives: { filled: FilledDrive; freeGB: number }[];
  enclosures: FilledEnclosure[];
  /** By host and drive. */
  filesystemFits: FilesystemFit[][];
  prices: Prices;
  /** What is known around the parts, as every plan takes it. */
  known: Known;
  /** Combinations that were measured, by drive and enclosure. */
  measuredPairs: ReadonlySet<string>;
  /** The links of each enclosure, found in the first walk and used again in the second. */
  links?: (enclosure: FilledEnclosure) => EnclosureLinks;
  alternatives: (Alternative & { id: string })[];
  /** Whether parts at hand count with what they would sell for. */
  resold: boolean;
  /** The request as it came. */
  request: RankInput;
};

/** Names a drive in an enclosure. */
export const pairKey = (driveId: string, enclosureId: string): string => `${driveId} ${enclosureId}`;

/** Parts without an id get one, so that a row can name them. */
const named = <T extends { id?: string | undefined }>(parts: readonly T[], word: string): (T & { id: string })[] =>
  parts.map((part, i) => ({ ...part, id: part.id ?? `${word}-${i + 1}` }));

/** Everything that needs to be worked out once a part, once a pair, and not once a combination. */
export function prepare(request: RankInput): Prepared {
  const input: RankInput = {
    ...request,
    hosts: named(request.hosts, 'host'),
    cables: named(request.cables, 'cable'),
    enclosures: named(request.enclosures, 'enclosure'),
    drives: named(request.drives, 'drive')
  };
  const { job, hosts, drives } = input;
  const rules = input.houseRules as HouseRules | undefined;
  const filesystemFits = hosts.map((host) => {
    const advised = new Map<string, { fail: FindingCode | undefined; usableTiB: number; filesystem: FilesystemId }>();
    return drives.map((drive): FilesystemFit => {
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
    withIds: input,
    rules,
    request,
    known: {
      pads: input.pads ?? [],
      quotes: prices.quotes,
      houseRules: input.houseRules ?? {},
      knownPairs: input.knownPairs ?? [],
      exchange: input.exchange ?? { currency: prices.currency ?? '', rates: [] },
      measured
    },
    measuredPairs: new Set((input.measured ?? []).map((run) => pairKey(run.driveId, run.enclosureId))),
    resold: chosenOption('reuse', rules) === 'resale',
    alternatives: named(request.alternatives ?? [], 'alternative'),
    weights: { ...beginWeights(job, rules).weights, ...request.weights },
    filters: request.filters ?? {},
    ports: hosts.flatMap((host, i) => host.ports.map((port) => ({ host: i, port, watts: portPower(port) }))),
    quickRemoval: hosts.map(({ os }) => writeCachePolicy(os, rules, undefined)?.policy === 'quick-removal'),
    drives: drives.map((drive) => ({
      filled: fillDrive(drive),
      freeGB: drive.capacityTB * 1000 * (1 - (drive.fillFraction ?? 0))
    })),
    enclosures: input.enclosures.map((enclosure) => fillEnclosure(enclosure)),
    filesystemFits,
    prices
  };
}

/** Gathers one combination, as a page or the API does. */
export function inputOf(set: Prepared, drive: number, enclosure: number, link: LinkClass, cable: number): PlanInput {
  const { withIds: input, ports, known } = set;
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
