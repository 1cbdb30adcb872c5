import { DISK, POST_CACHE, POST_CACHE_SPREAD } from '../../facts/flash.ts';
import { SHEET_FACTOR } from '../../facts/buses.ts';
import { USUAL_LENGTH_MM } from '../../facts/m2.ts';
import { scaleBand, type Band } from '../../quantities/band.ts';
import type { MBps } from '../../quantities/measures.ts';
import type { Drive } from '../drive.ts';

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

/** Gives the size of disk that stands in where a hard disk has no size of its own here. */
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

/**
 * Finds whether a module has chips on its underside: stated, else by its chips, its height code, its capacity.
 * @example isDoubleSided(aDrive({ sides: undefined, capacityTB: 4 })) // true
 */
export function isDoubleSided({ formFactor, sides, components, m2HeightCode, capacityTB }: Drive): boolean {
  if (formFactor !== 'm2') return false;
  if (sides !== undefined) return sides === 'double';
  if (components?.length) return components.some(({ side }) => side === 'bottom');
  return m2HeightCode === undefined ? capacityTB >= 4 : m2HeightCode.startsWith('D');
}
/** Tells whether the sides of a module are only taken from its capacity. */
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

/** What the media of a drive decides: its rates and ratings, MB/s, its lanes, and the rate after its cache. */
type OfMedia = Pick<FilledDrive, 'pcie' | 'read' | 'write' | 'rated' | 'ratedWrite' | 'postCache'>;

function fillDisk(drive: Drive): OfMedia {
  const { read, write } = diskRates(drive);
  return { pcie: null, read, write, rated: read.high, ratedWrite: write.high, postCache: null };
}

function fillFlash(drive: Drive): OfMedia {
  const protocol = protocolOf(drive);
  const lanes = drive.m2Key === 'B+M' ? 2 : 4;
  const pcie = protocol === 'nvme' ? (drive.pcie ?? { generation: generationFrom(drive), lanes }) : null;
  const { read, write } = ratingsOf(drive, pcie);
  return {
    pcie,
    read: drive.readMBps === undefined ? typical(read) : sheet(read),
    write: drive.writeMBps === undefined ? typical(write) : sheet(write),
    rated: read,
    ratedWrite: write,
    postCache: postCacheBand(drive, protocol, pcie?.generation ?? 0)
  };
}

const protocolOf = ({ media }: Drive): 'nvme' | 'sata' => (media === 'nvme' ? 'nvme' : 'sata');
const cellOf = ({ flash }: Drive): FilledDrive['cell'] => flash?.cell ?? 'tlc';

/** Gives the rate after the cache, MB/s: stated, or of the class; null for cells that need no cache. */
function postCacheBand(drive: Drive, protocol: 'nvme' | 'sata', generation: number): Band | null {
  const stated = drive.flash?.postCacheWriteMBps;
  if (stated !== undefined)
    return scaleBand(stated, POST_CACHE_SPREAD.low, POST_CACHE_SPREAD.typical, POST_CACHE_SPREAD.high);
  return cellOf(drive) === 'slc' ? null : postCacheOf(drive, protocol, generation);
}

/** Usual thicknesses of drives in a shell, mm. */
function usualThicknessMm({ formFactor, media, capacityTB }: Drive): number {
  if (formFactor === '3.5in') return 26.1;
  if (media !== 'hdd') return 7;
  return capacityTB > 2 ? 15 : 9.5;
}

/** Fills in a drive with everything that a plan needs: what it does not state is typical for its class. */
export function fillDrive(drive: Drive): FilledDrive {
  const { pcie, read, write, rated, ratedWrite, postCache } =
    drive.media === 'hdd' ? fillDisk(drive) : fillFlash(drive);
  const protocol = protocolOf(drive);
  return {
    drive,
    protocol,
    pcie,
    sataGbps: drive.sataGbps ?? 6,
    read,
    write,
    rated,
    ratedWrite,
    cell: cellOf(drive),
    dram: drive.flash?.dram,
    postCache,
    m2LengthMm: drive.m2LengthMm ?? USUAL_LENGTH_MM,
    m2Key: drive.m2Key ?? (protocol === 'sata' ? 'B+M' : 'M'),
    thicknessMm: drive.thicknessMm ?? usualThicknessMm(drive),
    doubleSided: isDoubleSided(drive),
    rpm: drive.disk?.rpm ?? (drive.formFactor === '3.5in' ? DISK.rpm35 : DISK.rpm25)
  };
}
