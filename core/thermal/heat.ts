import { POWER } from '../facts/flash.ts';
import { HEAT_J_PER_GB, HEAT_SPREAD, STATED_POWER } from '../facts/thermal.ts';
import { isTunnelled } from '../link/modes.ts';
import type { LinkMode } from '../facts/link-modes.ts';
import type { FilledDrive, FilledEnclosure } from '../parts/fill.ts';
import { scaleBand, type Band } from '../quantities/band.ts';
import type { Watt } from '../quantities/unit.ts';

/** What the drive is at: nothing, reading, writing into its cache, or writing past it. */
export type Work = 'idle' | 'read' | 'write' | 'post';

/** Where the heat of a build comes from. */
export type Heat = {
  idleW: Band<Watt>;
  /** J/GB of each work, typical; all of them are off by one factor. */
  read: number;
  write: number;
  post: number;
  spread: Band;
  /** Heat that goes straight into the case: the bridge and the fan, W. */
  bridgeW: Band<Watt>;
  /** What the drive draws is converted at this efficiency; the rest is heat in the case. 1 without a converter. */
  efficiency: number;
};

const flat = (value: number): Band => ({ low: value, typical: value, high: value });
const NOTHING = flat(1);

/**
 * Heat of a build: idle power and joules for each GB moved. A stated active power holds at the drive's rated write; a hard disk
 * turns at one power whatever it moves.
 * Source: class figures, estimates with their ranges.
 */
export function heatOf(drive: FilledDrive, enclosure: FilledEnclosure, mode: LinkMode | null, blown: boolean): Heat {
  const { media, power, formFactor } = drive.drive;
  const tunnelled = mode !== null && isTunnelled(mode);
  const stated = enclosure.enclosure.bridgePowerW;
  const bridge =
    stated === undefined
      ? tunnelled
        ? POWER.bridgeTunnelW
        : POWER.bridgeUsbW
      : scaleBand(stated, STATED_POWER.low, STATED_POWER.typical, STATED_POWER.high);
  const fan = blown ? POWER.fanW : 0;
  const bridgeW = { low: bridge.low + fan, typical: bridge.typical + fan, high: bridge.high + fan };
  const ofSheet = (value: number | undefined, usual: Band) =>
    value === undefined ? usual : scaleBand(value, STATED_POWER.low, STATED_POWER.typical, STATED_POWER.high);
  if (media === 'hdd') {
    const usual = formFactor === '3.5in' ? POWER.disk35W : POWER.disk25W;
    const idleW = ofSheet(power?.activeW ?? power?.idleW, usual);
    // A 3.5-inch disk runs on a supply of its own, outside the case.
    const efficiency = formFactor === '3.5in' ? 1 : POWER.converterEfficiency;
    return { idleW, read: 0, write: 0, post: 0, spread: NOTHING, bridgeW, efficiency };
  }
  const nvme = media === 'nvme';
  const idleW = ofSheet(power?.idleW, nvme ? POWER.nvmeIdleW : POWER.sataIdleW);
  const each = power?.activeW === undefined ? undefined : eachGB(power.activeW - idleW.typical, drive);
  return {
    idleW,
    read: each === undefined ? (nvme ? HEAT_J_PER_GB.nvmeRead : HEAT_J_PER_GB.sata) : each * 0.6,
    write: each ?? (nvme ? HEAT_J_PER_GB.nvmeWrite : HEAT_J_PER_GB.sata),
    post: each === undefined ? (nvme ? HEAT_J_PER_GB.nvmePost[drive.cell] : HEAT_J_PER_GB.sata) : each * 2,
    spread: each !== undefined ? STATED_POWER : nvme ? HEAT_SPREAD.nvme : HEAT_SPREAD.sata,
    bridgeW,
    efficiency: POWER.converterEfficiency
  };
}

/** J/GB of a drive whose active power is stated: it holds at the rated write. */
const eachGB = (watts: number, drive: FilledDrive): number =>
  Math.max(0, watts) / ((drive.drive.writeMBps ?? drive.write.high) / 1000);
