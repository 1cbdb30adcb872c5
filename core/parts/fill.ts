import { DISK, POST_CACHE, POST_CACHE_SPREAD } from '../facts/flash.ts';
import { PORT_POWER_W, SHEET_FACTOR } from '../facts/buses.ts';
import { LINK_MODES, type LinkMode } from '../facts/link-modes.ts';
import type { Assume } from '../findings/finding.ts';
import { scaleBand, type Band } from '../quantities/band.ts';
import type { MBps } from '../quantities/unit.ts';
import type { Drive } from './drive.ts';
import type { Enclosure } from './enclosure.ts';
import type { Port } from './host.ts';

/**
 * Class templates: typical values for what a specification leaves out, each said openly through `assume`, and with a
 * wider band than a stated value has.
 */

export type FilledDrive = {
  readonly drive: Drive;
  protocol: 'nvme' | 'sata';
  pcie: { generation: 2 | 3 | 4 | 5; lanes: 1 | 2 | 4 } | null;
  sataGbps: 1.5 | 3 | 6;
  read: Band<MBps>;
  write: Band<MBps>;
  /** The rating in MB/s, as printed or typical for the class. */
  rated: MBps;
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
/** A figure that a template gave: the class spreads wider than one data sheet. Estimate. */
const CLASS_FACTOR = { low: 0.5, typical: 0.85, high: 1 } as const;

function generationFrom(drive: Drive): 2 | 3 | 4 | 5 {
  const fastest = Math.max(drive.readMBps ?? 0, drive.writeMBps ?? 0);
  return fastest > 7600 ? 5 : fastest > 3600 ? 4 : 3;
}

const sheet = (value: number) => scaleBand(value, SHEET_FACTOR.low, SHEET_FACTOR.typical, SHEET_FACTOR.high);
const typical = (value: number) => scaleBand(value, CLASS_FACTOR.low, CLASS_FACTOR.typical, CLASS_FACTOR.high);

/** Rates over the radius of a disk: low at the inner edge, typical the mean, high at the outer edge. */
function diskRates(drive: Drive, assume: Assume): { read: Band; rated: number } {
  const classOuter = drive.formFactor === '3.5in' ? 230 : 140;
  const outer = drive.disk?.outerMBps ?? drive.readMBps ?? classOuter;
  if (outer === classOuter && drive.disk?.outerMBps === undefined && drive.readMBps === undefined) {
    assume(
      'drive',
      'disk.outerMBps',
      outer,
      `typical for a ${drive.formFactor === '3.5in' ? '3.5' : '2.5'}-inch hard disk`
    );
  }
  const stated = drive.disk?.innerMBps;
  const inner = stated !== undefined && stated <= outer ? stated : outer * DISK.innerShare;
  if (stated === undefined)
    assume('drive', 'disk.innerMBps', Math.round(inner), 'inner tracks run at about 0.48 of the outer ones');
  return { read: { low: inner, typical: (outer + inner) / 2, high: outer }, rated: outer };
}

/** @returns the drive with everything the plan needs; what the sheet leaves out is filled and listed through `assume` */
export function fillDrive(drive: Drive, assume: Assume): FilledDrive {
  const isDisk = drive.media === 'hdd';
  const protocol = drive.media === 'nvme' ? 'nvme' : 'sata';
  let pcie: FilledDrive['pcie'] = null;
  let read: Band;
  let write: Band;
  let rated: number;
  let postCache: Band | null = null;
  const cell = drive.flash?.cell ?? 'tlc';

  if (isDisk) {
    ({ read, rated } = diskRates(drive, assume));
    write = read;
  } else {
    if (protocol === 'nvme') {
      if (drive.pcie) pcie = drive.pcie;
      else {
        pcie = { generation: generationFrom(drive), lanes: drive.m2Key === 'B+M' ? 2 : 4 };
        assume(
          'drive',
          'pcie',
          `PCIe ${pcie.generation} x${pcie.lanes}`,
          drive.readMBps ? 'the slowest generation that reaches its read rate' : 'the most common class'
        );
      }
    }
    const [classRead, classWrite] = pcie ? SHEET_BY_GENERATION[pcie.generation] : [550, 520];
    const className = pcie ? `a PCIe ${pcie.generation} drive` : 'a SATA SSD';
    if (drive.readMBps !== undefined) read = sheet(drive.readMBps);
    else {
      read = typical(classRead);
      assume('drive', 'readMBps', classRead, `typical for ${className}`);
    }
    rated = drive.readMBps ?? classRead;
    if (drive.writeMBps !== undefined) write = sheet(drive.writeMBps);
    else {
      const value = drive.readMBps === undefined ? classWrite : Math.round((drive.readMBps * classWrite) / classRead);
      write = typical(value);
      assume('drive', 'writeMBps', value, `typical for ${className}`);
    }
    if (drive.flash?.cell === undefined) assume('drive', 'flash.cell', 'tlc', 'the most common cells');
    const post = drive.flash?.postCacheWriteMBps;
    if (post !== undefined)
      postCache = scaleBand(post, POST_CACHE_SPREAD.low, POST_CACHE_SPREAD.typical, POST_CACHE_SPREAD.high);
    else if (cell !== 'slc') {
      const small = protocol === 'nvme' && (pcie!.generation <= 3 || drive.capacityTB < 0.9);
      postCache =
        cell === 'qlc'
          ? POST_CACHE.qlc
          : protocol === 'sata'
            ? POST_CACHE['sata-tlc']
            : cell === 'mlc'
              ? POST_CACHE['nvme-mlc']
              : small
                ? POST_CACHE['nvme-tlc-small']
                : POST_CACHE['nvme-tlc'];
      assume(
        'drive',
        'flash.postCacheWriteMBps',
        postCache.typical,
        `estimate for ${cell.toUpperCase()} (${postCache.low} to ${postCache.high})`
      );
    }
    if (drive.flash?.dram === undefined)
      assume('drive', 'flash.dram', 'unknown', 'both cases are inside the random band');
  }

  const isM2 = drive.formFactor === 'm2';
  if (isM2 && drive.m2LengthMm === undefined) assume('drive', 'm2LengthMm', 80, 'most M.2 drives are 80 mm long');
  const m2Key = drive.m2Key ?? (protocol === 'sata' ? 'B+M' : 'M');
  if (isM2 && drive.m2Key === undefined)
    assume('drive', 'm2Key', m2Key, `usual for ${protocol === 'sata' ? 'SATA' : 'NVMe'} modules`);
  const thickness = drive.formFactor === '3.5in' ? 26.1 : !isDisk ? 7 : drive.capacityTB > 2 ? 15 : 9.5;
  if (!isM2 && drive.thicknessMm === undefined)
    assume('drive', 'thicknessMm', thickness, 'usual for this kind of drive');
  const doubleSided = isM2 && (drive.sides === undefined ? drive.capacityTB >= 4 : drive.sides === 'double');
  if (isM2 && drive.sides === undefined)
    assume('drive', 'sides', doubleSided ? 'double' : 'single', 'from 4 TB on many drives carry chips on both sides');
  const rpm = drive.disk?.rpm ?? (drive.formFactor === '3.5in' ? DISK.rpm35 : DISK.rpm25);
  if (isDisk && drive.disk?.rpm === undefined) assume('drive', 'disk.rpm', rpm, 'usual for this size');

  return {
    drive,
    protocol,
    pcie,
    sataGbps: drive.sataGbps ?? 6,
    read,
    write,
    rated,
    cell,
    dram: drive.flash?.dram,
    postCache,
    m2LengthMm: drive.m2LengthMm ?? 80,
    m2Key,
    thicknessMm: drive.thicknessMm ?? thickness,
    doubleSided,
    rpm
  };
}

export type FilledEnclosure = {
  readonly enclosure: Enclosure;
  pcie: { generation: 2 | 3 | 4 | 5; lanes: 1 | 2 | 4 };
  /** Whether the generation behind the bridge was stated: the 40 Gb/s band depends on it. */
  generationKnown: boolean;
  sataGbps: 1.5 | 3 | 6;
  m2LengthsMm: readonly number[];
  m2Keys: readonly ('M' | 'B' | 'B+M')[];
  maxThicknessMm: number;
  uas: boolean;
};

const top = (modes: readonly LinkMode[]) =>
  modes.reduce((best, mode) => (LINK_MODES[mode].rank > LINK_MODES[best].rank ? mode : best), modes[0]!);

export function fillEnclosure(enclosure: Enclosure, assume: Assume): FilledEnclosure {
  const takesNvme = enclosure.protocols.includes('nvme');
  const takesSata = enclosure.protocols.includes('sata');
  const best = LINK_MODES[top(enclosure.modes)];
  const pcie = enclosure.downstreamPcie ?? {
    generation: best.rank >= 6 ? (4 as const) : (3 as const),
    lanes: best.rank >= 4 ? (4 as const) : (2 as const)
  };
  if (takesNvme && !enclosure.downstreamPcie) {
    assume(
      'enclosure',
      'downstreamPcie',
      `PCIe ${pcie.generation} x${pcie.lanes}`,
      `usual behind a ${best.label} bridge`
    );
  }
  if (takesSata && enclosure.downstreamSataGbps === undefined)
    assume('enclosure', 'downstreamSataGbps', 6, 'usual for SATA bridges');
  const isM2 = enclosure.formFactor === 'm2';
  const m2LengthsMm = enclosure.m2LengthsMm ?? [42, 60, 80];
  if (isM2 && !enclosure.m2LengthsMm) assume('enclosure', 'm2LengthsMm', '42, 60, 80', 'usual for M.2 enclosures');
  const m2Keys = enclosure.m2Keys ?? (takesNvme ? (['M', 'B+M'] as const) : (['B', 'B+M'] as const));
  if (isM2 && !enclosure.m2Keys)
    assume('enclosure', 'm2Keys', m2Keys.join(', '), `usual for ${takesNvme ? 'NVMe' : 'SATA'} enclosures`);
  const maxThicknessMm = enclosure.maxThicknessMm ?? (enclosure.formFactor === '3.5in' ? 26.1 : 9.5);
  if (!isM2 && enclosure.maxThicknessMm === undefined)
    assume('enclosure', 'maxThicknessMm', maxThicknessMm, 'usual for such bays');
  if (enclosure.uas === undefined && best.carrier === 'usb3')
    assume('enclosure', 'uas', true, 'usual for bridges of this class');
  return {
    enclosure,
    pcie,
    generationKnown: enclosure.downstreamPcie !== undefined,
    sataGbps: enclosure.downstreamSataGbps ?? 6,
    m2LengthsMm,
    m2Keys,
    maxThicknessMm,
    uas: enclosure.uas ?? true
  };
}

/** What a port gives when it states nothing: by its plug and best mode. Source: USB 3.2, USB Type-C, USB4, Thunderbolt. */
export function portPower(port: Port, assume: Assume): { watts: number; stated: boolean } {
  if (port.powerW !== undefined) return { watts: port.powerW, stated: true };
  const best = LINK_MODES[top(port.modes)];
  const watts =
    best.carrier === 'esata'
      ? PORT_POWER_W.esata
      : best.carrier === 'thunderbolt'
        ? PORT_POWER_W.thunderbolt
        : best.carrier === 'usb4' || best.lineGbps === 20
          ? PORT_POWER_W.twoLane
          : best.carrier === 'usb2'
            ? PORT_POWER_W.usb2
            : PORT_POWER_W.usb3;
  assume('port', 'powerW', watts, `the least a ${best.label} port gives`);
  return { watts, stated: false };
}
