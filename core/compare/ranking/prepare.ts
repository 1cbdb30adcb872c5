import type { Host, Port } from '../../parts/host.ts';
import { formattedDrive } from '../../filesystem/formatted.ts';
import { pairKey, chainKey } from '../../build/chain-key.ts';
import type { FilesystemId } from '../../facts/filesystems.ts';
import { chosenOption, type HouseRules } from '../../house-rules/house-rules.ts';
import type { FindingCode } from '../../findings/finding.ts';
import { fillDrive, type FilledDrive } from '../../parts/fill/drive.ts';
import { fillEnclosure, type FilledEnclosure } from '../../parts/fill/enclosure.ts';
import { portPower, type PortPower } from '../../parts/fill/port.ts';
import type { Alternative } from '../../parts/alternative.ts';
import { needGB, usableFreeGB } from '../../throughput/job-time.ts';
import { writeCachePolicy } from '../../chain/write-cache.ts';
import type { Known } from '../../build/gather.ts';
import type { MeasuredRun } from '../../results/measured.ts';
import { pricesOf, type Prices } from './prices.ts';
import { type Filters, type RankInput, beginWeights, type Weights } from './request.ts';

/** How a drive is formatted for a host and a job, what is usable of it, TiB, and the first thing that stands against it. */
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
  alternatives: (Alternative & { id: string })[];
  /** Whether parts at hand count with what they would sell for. */
  resold: boolean;
  /** The request as it came. */
  request: RankInput;
};

/** Parts without an id get one, so that a row can name them. */
const named = <T extends { id?: string | undefined }>(parts: readonly T[], word: string): (T & { id: string })[] =>
  parts.map((part, i) => ({ ...part, id: part.id ?? `${word}-${i + 1}` }));

/** Gives how each drive is formatted for a host: once for all that are alike. */
function fitsOf(host: Host, { drives, job, houseRules }: RankInput): FilesystemFit[] {
  const alike = new Map<string, FilesystemFit>();
  const rules = houseRules as HouseRules | undefined;
  return drives.map(({ media, capacityTB, fillFraction }): FilesystemFit => {
    const key = `${media} ${capacityTB}`;
    let found = alike.get(key);
    if (!found) {
      const { advice, findings, usable } = formattedDrive({ host: host.os, media, capacityTB, job, rules });
      const fail = findings.find(({ severity }) => severity === 'fail')?.code;
      found = { fail, usableTiB: usable, filesystem: advice.first.filesystem };
      alike.set(key, found);
    }
    const fits = needGB(job) <= usableFreeGB(found.usableTiB, fillFraction);
    return found.fail === undefined && !fits ? { ...found, fail: 'job-does-not-fit' } : found;
  });
}

/** Sorts results by the chain that they are of, in the order in which they come. */
function resultsByChain(results: RankInput['measured'] = []): Map<string, MeasuredRun[]> {
  const byChain = new Map<string, MeasuredRun[]>();
  for (const { date, simulated, readMBps, writeMBps, ...ids } of results) {
    const key = chainKey(ids);
    byChain.set(key, [...(byChain.get(key) ?? []), { date, simulated, results: { readMBps, writeMBps } }]);
  }
  return byChain;
}

/** Works out what is needed once a part or once a pair, and not once a combination. */
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
  const filesystemFits = hosts.map((host) => fitsOf(host, input));
  const prices = pricesOf(input);
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
      measured: resultsByChain(input.measured)
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
