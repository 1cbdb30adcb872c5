import type { OsFamily } from '../facts/filesystems.ts';
import type { Alternative } from '../parts/alternative.ts';
import type { Host } from '../parts/host.ts';
import type { PlanInput, PlanReport } from '../plan/report.ts';
import { scaleBand, type Band } from '../quantities/band.ts';
import type { GB, Seconds } from '../quantities/measures.ts';
import type { Tested } from './phases.ts';

/** What is known of a subject before it is measured: all a brief and a planner ask of it. */
export type TestedSubject = Tested & {
  name: string;
  /** Null where nothing is forecast: then only what was set is known. */
  read: Band | null;
  write: Band | null;
  sustained: Band | null;
  /** Written in one go until the fast cache is full, GB; null where there is no such place. */
  cliffGB: Band<GB> | null;
  recoverS: Band<Seconds> | null;
  enduranceTBW?: number | undefined;
  warm?: { idleC: number; steadyC: number; timeConstantS: Seconds } | null | undefined;
  host?: { name: string; family: OsFamily; memoryGB?: number | undefined; internal?: Host['internalDisk'] } | undefined;
};

const hostOf = ({ name, os, memoryGB, internalDisk }: Host): TestedSubject['host'] => ({
  name,
  family: os.family,
  memoryGB,
  internal: internalDisk
});

/**
 * Tells what is known of a build before it is measured.
 * @example testedBuild(anInput(), plan(anInput())).media // 'nvme'
 */
export function testedBuild({ drive, host }: PlanInput, report: PlanReport): TestedSubject {
  const capacityGB = drive.capacityTB * 1000;
  const { read, write, sustainedWrite } = report.throughput;
  return {
    name: drive.name,
    capacityGB,
    freeGB: capacityGB * (1 - (drive.fillFraction ?? 0)),
    media: drive.media,
    read,
    write,
    sustained: sustainedWrite,
    cliffGB: report.cache.cliffAtGB,
    recoverS: report.cache.recoverS,
    enduranceTBW: drive.enduranceTBW,
    warm: report.thermal && {
      idleC: report.thermal.idleCaseC,
      steadyC: report.thermal.steadyCaseC.typical,
      timeConstantS: report.thermal.timeConstantS
    },
    host: hostOf(host)
  };
}

/** How far the rates on a label may be off. Estimate: labels say “up to”. */
const LABEL = { low: 0.5, typical: 0.9, high: 1 } as const;
const label = (value: number | undefined): Band | null =>
  value === undefined ? null : scaleBand(value, LABEL.low, LABEL.typical, LABEL.high);

/**
 * Tells what is known of a ready-made drive, a stick or a card: its label.
 * @example testedModel({ kind: 'alternative', name: 'Stick', sort: 'flash-stick', capacityTB: 0.5 }).capacityGB // 500
 */
export function testedModel(model: Alternative): TestedSubject {
  const capacityGB = model.capacityTB * 1000;
  const write = label(model.writeMBps);
  return {
    name: model.name,
    capacityGB,
    freeGB: capacityGB,
    media: 'sata-ssd',
    read: label(model.readMBps),
    write,
    sustained: null,
    cliffGB: null,
    recoverS: null
  };
}

/** What somebody measured of an internal disk comes back within this. Estimate. */
const MEASURED = { low: 0.8, typical: 1, high: 1.05 } as const;

/** Makes what is forecast of an internal disk from what was entered of it. */
export function internalRates(
  disk: Host['internalDisk']
): Pick<TestedSubject, 'read' | 'write' | 'sustained' | 'cliffGB'> {
  const around = (value: number | undefined) =>
    value === undefined ? null : scaleBand(value, MEASURED.low, MEASURED.typical, MEASURED.high);
  const cache = disk?.cacheGB;
  return {
    read: around(disk?.readMBps),
    write: around(disk?.writeMBps),
    sustained: around(disk?.postCacheWriteMBps ?? disk?.writeMBps),
    cliffGB: cache === undefined ? null : { low: cache * 0.7, typical: cache, high: cache }
  };
}

/**
 * Tells what is known of a computer's internal disk.
 * @returns with nothing forecast where its rates were never entered
 * @example testedHost(aHost()).read // null
 */
export function testedHost(host: Host): TestedSubject {
  const disk = host.internalDisk;
  return {
    name: `internal disk of ${host.name}`,
    capacityGB: disk?.freeGB ?? 500,
    freeGB: disk?.freeGB ?? 500,
    media: 'nvme',
    ...internalRates(disk),
    recoverS: null,
    host: hostOf(host)
  };
}
