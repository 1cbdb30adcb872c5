import { DISK, POST_CACHE, POST_CACHE_SPREAD } from '../../facts/flash.ts';
import { BUS_POWERED_HUB_W, PORT_POWER_W, SHEET_FACTOR } from '../../facts/buses.ts';
import { LINK_MODES, type LinkMode } from '../../facts/link-modes.ts';
import { USUAL_LENGTH_MM } from '../../facts/m2.ts';
import { scaleBand, type Band } from '../../quantities/band.ts';
import type { MBps } from '../../quantities/measures.ts';
import type { Drive } from '../drive.ts';
import type { Enclosure } from '../enclosure.ts';
import type { Port } from '../host.ts';

/**
 * Class templates: typical values for what a specification leaves out, with a wider band than a stated value has. What of them a
 * plan used is listed by `plan/assumptions.ts`; stating a listed value gives the same typical figures and no wider band.
 */

export type FilledDrive = {
  readonly drive: Drive;
  protocol: 'nvme' | 'sata';
  pcie: { generation: 2 | 3 | 4 | 5; lanes: 1 | 2 | 4 } | null;
  sataGbps: 1.5 | 3 | 6;
  /** Of a hard disk: low the inner edge, typical the mean, high the outer edge. */
  read: Band<MBps>;
  write: Band<MBps>;
  /** The rating in MB/s, as printed or typical for the class: of reading, and of writing. */
  rated: MBps;
  ratedWrite: MBps;
  cell: 'tlc' | 'qlc' | 'mlc' | 'slc';
  dram: boolean | undefined;
  postCache: Band<MBps> | null;
  m2LengthMm: number;
  m2Key: 'M' | 'B' | 'B+M';
  thicknessMm: number;
  doubleSided: boolean;
  rpm: number;
};

const SHEET_BY_GENERATION = { 2: [1500, 1200], 3: [3000, 2400], 4: [5500, 4500], 5: [11000, 9500] } as const;
const SATA_SHEET = [550, 520] as const;
/** A figure that a template gave: the class spreads wider than one data sheet. Estimate. */
const CLASS_FACTOR = { low: 0.5, typical: SHEET_FACTOR.typical, high: 1 } as const;

/** The slowest generation that reaches the faster of the two ratings. */
function generationFrom(drive: Drive): 2 | 3 | 4 | 5 {
  const fastest = Math.max(drive.readMBps ?? 0, drive.writeMBps ?? 0);
  return fastest > 7600 ? 5 : fastest > 3600 ? 4 : 3;
}

const sheet = (value: number) => scaleBand(value, SHEET_FACTOR.low, SHEET_FACTOR.typical, SHEET_FACTOR.high);
const typical = (value: number) => scaleBand(value, CLASS_FACTOR.low, CLASS_FACTOR.typical, CLASS_FACTOR.high);

/** The size of disk that stands in where a hard disk has no size of its own here. */
export const diskSize = ({ formFactor }: Drive): '2.5in' | '3.5in' => (formFactor === '3.5in' ? '3.5in' : '2.5in');

/**
 * Gives the rates of a hard disk at its two edges, MB/s: stated, or by its class. A rating is the outer edge; a write rating below it
 * scales both edges.
 */
function diskRates(drive: Drive): { read: Band; write: Band } {
  const outer = drive.disk?.outerMBps ?? drive.readMBps ?? drive.writeMBps ?? DISK.outerMBps[diskSize(drive)].typical;
  const stated = drive.disk?.innerMBps;
  const inner = stated !== undefined && stated <= outer ? stated : outer * DISK.innerShare.typical;
  const read = { low: inner, typical: (outer + inner) / 2, high: outer };
  const share = Math.min(1, (drive.writeMBps ?? outer) / outer);
  return { read, write: share < 1 ? scaleBand(share, inner, read.typical, outer) : read };
}

/** Finds whether a module has chips on its underside: stated, else by its chips, its height code, its capacity. */
export function isDoubleSided({ formFactor, sides, components, m2HeightCode, capacityTB }: Drive): boolean {
  if (formFactor !== 'm2') return false;
  if (sides !== undefined) return sides === 'double';
  if (components?.length) return components.some(({ side }) => side === 'bottom');
  return m2HeightCode === undefined ? capacityTB >= 4 : m2HeightCode.startsWith('D');
}
/** Whether the sides of a module are only taken from its capacity. */
export const sidesAssumed = ({ formFactor, sides, components, m2HeightCode }: Drive): boolean =>
  formFactor === 'm2' && sides === undefined && !components?.length && m2HeightCode === undefined;

function postCacheOf(drive: Drive, protocol: 'nvme' | 'sata', generation: number): Band {
  const cell = drive.flash?.cell ?? 'tlc';
  if (cell === 'qlc') return POST_CACHE.qlc;
  if (protocol === 'sata')
    return drive.flash?.dram === false ? POST_CACHE['sata-tlc-dramless'] : POST_CACHE['sata-tlc'];
  if (cell === 'mlc') return POST_CACHE['nvme-mlc'];
  return generation <= 3 || drive.capacityTB < 0.9 ? POST_CACHE['nvme-tlc-small'] : POST_CACHE['nvme-tlc'];
}

/** Ratings of a solid-state drive, MB/s: stated, or of its class; a missing write in the proportion of the class to the read. */
export function ratingsOf(drive: Drive, pcie: FilledDrive['pcie']): { read: MBps; write: MBps; className: string } {
  const [classRead, classWrite] = pcie ? SHEET_BY_GENERATION[pcie.generation] : SATA_SHEET;
  return {
    read: drive.readMBps ?? classRead,
    write:
      drive.writeMBps ??
      (drive.readMBps === undefined ? classWrite : Math.round((drive.readMBps * classWrite) / classRead)),
    className: pcie ? `a PCIe ${pcie.generation} drive` : 'a SATA SSD'
  };
}

/** Fills in the drive with everything that a plan needs. */
export function fillDrive(drive: Drive): FilledDrive {
  const isDisk = drive.media === 'hdd';
  const protocol = drive.media === 'nvme' ? 'nvme' : 'sata';
  const cell = drive.flash?.cell ?? 'tlc';
  let pcie: FilledDrive['pcie'] = null;
  let read: Band;
  let write: Band;
  let rated: number;
  let ratedWrite: number;
  let postCache: Band | null = null;

  if (isDisk) {
    ({ read, write } = diskRates(drive));
    [rated, ratedWrite] = [read.high, write.high];
  } else {
    if (protocol === 'nvme')
      pcie = drive.pcie ?? { generation: generationFrom(drive), lanes: drive.m2Key === 'B+M' ? 2 : 4 };
    const ratings = ratingsOf(drive, pcie);
    [rated, ratedWrite] = [ratings.read, ratings.write];
    read = drive.readMBps === undefined ? typical(rated) : sheet(rated);
    write = drive.writeMBps === undefined ? typical(ratedWrite) : sheet(ratedWrite);
    const post = drive.flash?.postCacheWriteMBps;
    if (post !== undefined)
      postCache = scaleBand(post, POST_CACHE_SPREAD.low, POST_CACHE_SPREAD.typical, POST_CACHE_SPREAD.high);
    else if (cell !== 'slc') postCache = postCacheOf(drive, protocol, pcie?.generation ?? 0);
  }

  const thickness = drive.formFactor === '3.5in' ? 26.1 : !isDisk ? 7 : drive.capacityTB > 2 ? 15 : 9.5;
  return {
    drive,
    protocol,
    pcie,
    sataGbps: drive.sataGbps ?? 6,
    read,
    write,
    rated,
    ratedWrite,
    cell,
    dram: drive.flash?.dram,
    postCache,
    m2LengthMm: drive.m2LengthMm ?? USUAL_LENGTH_MM,
    m2Key: drive.m2Key ?? (protocol === 'sata' ? 'B+M' : 'M'),
    thicknessMm: drive.thicknessMm ?? thickness,
    doubleSided: isDoubleSided(drive),
    rpm: drive.disk?.rpm ?? (drive.formFactor === '3.5in' ? DISK.rpm35 : DISK.rpm25)
  };
}

export type FilledEnclosure = {
  readonly enclosure: Enclosure;
  /** The best of its modes. */
  best: LinkMode;
  pcie: { generation: 2 | 3 | 4 | 5; lanes: 1 | 2 | 4 };
  /** Whether the generation behind the bridge was stated: the 40 Gb/s band depends on it. */
  generationKnown: boolean;
  sataGbps: 1.5 | 3 | 6;
  m2LengthsMm: readonly number[];
  m2Keys: readonly ('M' | 'B' | 'B+M')[];
  maxThicknessMm: number;
  uas: boolean;
};

const NVME_KEYS = ['M', 'B+M'] as const;
const SATA_KEYS = ['B', 'B+M'] as const;
const USUAL_LENGTHS = [42, 60, 80] as const;

/** Finds the best of a list of modes; of two of one rank the earlier one of the table, whatever the order of the list. */
export function bestOf(modes: readonly LinkMode[]): LinkMode {
  let best = modes[0]!;
  for (const mode of modes) if (MODE_ORDER[mode] < MODE_ORDER[best]) best = mode;
  return best;
}
const MODE_ORDER = Object.fromEntries(Object.keys(LINK_MODES).map((id, i) => [id, i])) as Record<LinkMode, number>;

/** Fills in the enclosure with everything that a plan needs. */
export function fillEnclosure(enclosure: Enclosure): FilledEnclosure {
  const best = bestOf(enclosure.modes);
  const { rank } = LINK_MODES[best];
  return {
    enclosure,
    best,
    pcie: enclosure.downstreamPcie ?? {
      generation: rank >= 6 ? (4 as const) : (3 as const),
      lanes: rank >= 4 ? (4 as const) : (2 as const)
    },
    generationKnown: enclosure.downstreamPcie !== undefined,
    sataGbps: enclosure.downstreamSataGbps ?? 6,
    m2LengthsMm: enclosure.m2LengthsMm ?? USUAL_LENGTHS,
    m2Keys: enclosure.m2Keys ?? (enclosure.protocols.includes('nvme') ? NVME_KEYS : SATA_KEYS),
    maxThicknessMm: enclosure.maxThicknessMm ?? (enclosure.formFactor === '3.5in' ? 26.1 : 9.5),
    uas: enclosure.uas ?? true
  };
}

/** The least that a port of this mode gives, W. Source: USB 3.2, USB Type-C, USB4, Thunderbolt. */
function modePower(mode: LinkMode): number {
  const { carrier, lineGbps } = LINK_MODES[mode];
  if (carrier === 'esata') return PORT_POWER_W.esata;
  if (carrier === 'thunderbolt') return PORT_POWER_W.thunderbolt;
  if (carrier === 'usb4' || lineGbps === 20) return PORT_POWER_W.twoLane;
  return carrier === 'usb2' ? PORT_POWER_W.usb2 : PORT_POWER_W.usb3;
}

/** What a port gives, W, and whether that is stated. */
export type PortPower = { watts: number; stated: boolean };

/**
 * Gives the power of a port: stated, or the least of the best-fed of its modes. Behind a hub without a supply of its own it is what
 * that hub has for all of its ports together.
 */
export function portPower(port: Port): PortPower {
  if (port.powerW !== undefined) return { watts: port.powerW, stated: true };
  let watts = 0;
  for (const mode of port.modes) watts = Math.max(watts, modePower(mode));
  return { watts: port.via === 'bus-powered-hub' ? Math.min(watts, BUS_POWERED_HUB_W.low) : watts, stated: false };
}
