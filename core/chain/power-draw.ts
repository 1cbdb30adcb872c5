import type { Drive } from '../parts/drive.ts';
import { POWER } from '../facts/flash.ts';
import { LINK_MODES, type LinkMode } from '../facts/link-modes.ts';
import { HEAT_J_PER_GB, HEAT_SPREAD, STATED_POWER } from '../facts/thermal.ts';
import { isTunnelled } from './modes.ts';
import type { FilledDrive } from '../parts/fill/drive.ts';
import type { FilledEnclosure } from '../parts/fill/enclosure.ts';
import { scaleBand, type Band } from '../quantities/band.ts';
import type { MBps, Watt } from '../quantities/measures.ts';

/** What draws power in a build: all of it is drawn from the port, and all of it becomes heat. */
export type Draw = {
  /** Of the drive at rest, or of a disk that turns. */
  idleW: Band<Watt>;
  /** J/GB of each work, typical; all of them are off by one factor, `spread`. */
  read: number;
  write: number;
  post: number;
  spread: Band;
  /** Of the bridge: at rest, what comes on top at the full rate of its link, and how far both may be off. */
  bridgeRestW: Watt;
  bridgeGrowthW: Watt;
  bridgeSpread: Band;
  fullMBps: MBps;
  fanW: Watt;
  /** What the drive draws is converted at this efficiency; the rest is heat in the case. 1 where it has a supply of its own. */
  efficiency: number;
  /** Which of it the data sheets state. */
  stated: { idle: boolean; perGB: boolean; bridge: boolean; rest: boolean };
};

const ONE: Band = { low: 1, typical: 1, high: 1 };
const bridgeKind = (mode: LinkMode | null): keyof typeof POWER.bridgeW =>
  mode === 'tbt5-80g' ? 'tunnel80' : mode !== null && isTunnelled(mode) ? 'tunnel' : 'usb';
/** Names the kind of a mode: modes of one kind draw the same at the same rate. */
export const drawKind = (mode: LinkMode): string => `${bridgeKind(mode)} ${LINK_MODES[mode].read.typical}`;

const ofSheet = (value: number): Band => scaleBand(value, STATED_POWER.low, STATED_POWER.typical, STATED_POWER.high);
const spreadOf = ({ low, typical, high }: Band): Band => ({ low: low / typical, typical: 1, high: high / typical });

const BRIDGE_SPREAD = {
  usb: spreadOf(POWER.bridgeW.usb),
  tunnel: spreadOf(POWER.bridgeW.tunnel),
  tunnel80: spreadOf(POWER.bridgeW.tunnel80)
};

/** A 3.5-inch disk runs on a supply of its own, outside the case. */
const efficiencyOf = ({ media, formFactor }: Drive): number =>
  media === 'hdd' && formFactor === '3.5in' ? 1 : POWER.converterEfficiency;

/** Gives the stated power of a drive at rest, W: of a hard disk that of turning, whatever it moves. */
const statedIdle = ({ media, power }: Drive): Watt | undefined =>
  media === 'hdd' ? (power?.activeW ?? power?.idleW) : power?.idleW;

/** Gives the usual power of a drive at rest, W. */
function usualIdle({ media, formFactor }: Drive, tunnelled: boolean): Band<Watt> {
  if (media === 'hdd') return formFactor === '3.5in' ? POWER.disk35W : POWER.disk25W;
  return media === 'nvme' ? POWER.nvmeIdleW[tunnelled ? 'tunnel' : 'usb'] : POWER.sataIdleW;
}

/** The part of a measured power at rest that is at most the drive's. */
const DRIVE_SHARE_AT_REST = 0.7;

/** What drive and bridge draw at rest, W. */
type Rest = { idleW: Band<Watt>; bridgeRestW: Watt };

/**
 * Finds what draws at rest. A measured power at rest of the enclosure with its drive is what both draw together: the drive keeps its
 * part of it, at most seven tenths, and the bridge the rest.
 */
function drawAtRest(drive: Drive, bridgeRestW: Watt, measured: Watt | undefined, idle: Band<Watt>): Rest {
  if (measured === undefined) return { idleW: idle, bridgeRestW };
  const both = Math.max(0, measured);
  const efficiency = efficiencyOf(drive);
  const idleW =
    statedIdle(drive) === undefined ? ofSheet(Math.min(idle.typical, DRIVE_SHARE_AT_REST * both * efficiency)) : idle;
  return { idleW, bridgeRestW: Math.max(0, both - idleW.typical / efficiency) };
}

type HeatPerGB = Pick<Draw, 'read' | 'write' | 'post' | 'spread'>;
const NO_HEAT: HeatPerGB = { read: 0, write: 0, post: 0, spread: ONE };

/**
 * Finds the energy for each GB that a drive moves, J/GB: of its class, or from a stated active power, which holds at the rated write:
 * idle + (active - idle) / rated x rate. A hard disk turns at one power whatever it moves.
 */
function heatPerGB({ drive, ratedWrite, cell }: FilledDrive, idleW: Band<Watt>): HeatPerGB {
  if (drive.media === 'hdd') return NO_HEAT;
  const nvme = drive.media === 'nvme';
  const own = HEAT_J_PER_GB;
  const activeW = drive.power?.activeW;
  const usual = nvme ? own.nvmeWrite : own.sata;
  const write = activeW === undefined ? usual : Math.max(0, activeW - idleW.typical) / (ratedWrite / 1000);
  const usualSpread = nvme ? HEAT_SPREAD.nvme : HEAT_SPREAD.sata;
  return {
    read: nvme ? (write * own.nvmeRead) / own.nvmeWrite : write,
    write,
    post: nvme ? (write * own.nvmePost[cell]) / own.nvmeWrite : write,
    spread: activeW === undefined ? usualSpread : STATED_POWER
  };
}

/**
 * Finds what a build draws: idle power, W, and joules for each GB moved, a bridge that grows with the rate, a fan.
 * Source: class figures, estimates with their ranges (`facts/flash.ts`, `facts/thermal.ts`).
 * @param mode null without a common mode: the bridge then draws as over USB
 * @param blown whether a fan runs
 */
export function drawOf(filled: FilledDrive, enclosure: FilledEnclosure, mode: LinkMode | null, blown: boolean): Draw {
  const { drive } = filled;
  const { bridgePowerW, idleW: measuredW } = enclosure.enclosure;
  const kind = bridgeKind(mode);
  const disk = drive.media === 'hdd';
  const restW = disk ? undefined : measuredW;
  const fanW = blown ? POWER.fanW : 0;
  const statedIdleW = statedIdle(drive);
  const idle = statedIdleW === undefined ? usualIdle(drive, kind !== 'usb') : ofSheet(statedIdleW);
  const full = bridgePowerW ?? POWER.bridgeW[kind].typical;
  const restShare = POWER.bridgeRestShare[kind === 'usb' ? 'usb' : 'tunnel'];
  const rest = drawAtRest(drive, full * restShare, restW === undefined ? undefined : restW - fanW, idle);
  const { read, write, post, spread } = heatPerGB(filled, rest.idleW);
  return {
    idleW: rest.idleW,
    read,
    write,
    post,
    spread,
    bridgeRestW: rest.bridgeRestW,
    bridgeGrowthW: full * (1 - restShare),
    bridgeSpread: bridgePowerW === undefined && restW === undefined ? BRIDGE_SPREAD[kind] : STATED_POWER,
    fullMBps: mode === null ? 1 : LINK_MODES[mode].read.typical,
    fanW,
    efficiency: efficiencyOf(drive),
    stated: {
      idle: statedIdleW !== undefined,
      perGB: disk || drive.power?.activeW !== undefined,
      bridge: bridgePowerW !== undefined,
      rest: restW !== undefined
    }
  };
}

/** Gives what the bridge draws at a rate, W, without its spread. */
export function bridgeWatts(draw: Draw, rate: MBps): Watt {
  const share = rate / draw.fullMBps;
  return draw.bridgeRestW + draw.bridgeGrowthW * (share < 1 ? share : 1);
}

/** One part of what a build draws, and whether a data sheet states it. */
export type DrawPart = {
  what: 'drive-rest' | 'drive-data' | 'converter' | 'bridge' | 'fan';
  W: Band<Watt>;
  assumed: boolean;
};

/** Takes the power of steady writing apart, W: its parts add up to the whole, low with low and high with high. */
export function drawParts(draw: Draw, rate: Band<MBps>): DrawPart[] {
  const lost = 1 / draw.efficiency - 1;
  const over = (f: (end: 'low' | 'typical' | 'high') => number): Band => ({
    low: f('low'),
    typical: f('typical'),
    high: f('high')
  });
  const data = over((end) => (draw.write * draw.spread[end] * rate[end]) / 1000);
  const { stated } = draw;
  const restKnown = stated.idle || stated.rest;
  return [
    { what: 'drive-rest', W: draw.idleW, assumed: !restKnown },
    { what: 'drive-data', W: data, assumed: !stated.perGB },
    {
      what: 'converter',
      W: over((end) => (draw.idleW[end] + data[end]) * lost),
      assumed: !(restKnown && stated.perGB)
    },
    {
      what: 'bridge',
      W: over((end) => bridgeWatts(draw, rate[end]) * draw.bridgeSpread[end]),
      assumed: !stated.bridge
    },
    { what: 'fan', W: { low: draw.fanW, typical: draw.fanW, high: draw.fanW }, assumed: true }
  ];
}

/** Adds up the parts of a draw, W. */
export function steadyDraw(draw: Draw, rate: Band<MBps>): Band<Watt> {
  const at = (end: 'low' | 'typical' | 'high') =>
    (draw.idleW[end] + (draw.write * draw.spread[end] * rate[end]) / 1000) / draw.efficiency +
    bridgeWatts(draw, rate[end]) * draw.bridgeSpread[end] +
    draw.fanW;
  return { low: at('low'), typical: at('typical'), high: at('high') };
}

/** Finds the least that the stated figures alone come to, W: what is assumed counts nothing. */
export function statedDraw({ drive }: FilledDrive, draw: Draw, rate: MBps, ratedWrite: MBps): Watt {
  const { power, media } = drive;
  const idle = draw.stated.idle ? draw.idleW.low : 0;
  const moving =
    media === 'hdd' || power?.activeW === undefined
      ? 0
      : power.activeW * STATED_POWER.low * Math.min(1, rate / ratedWrite) * (draw.stated.idle ? 0 : 1) +
        (draw.stated.idle ? (draw.write * draw.spread.low * rate) / 1000 : 0);
  const bridge = draw.stated.bridge ? bridgeWatts(draw, rate) * draw.bridgeSpread.low : 0;
  return (idle + moving) / draw.efficiency + bridge;
}

/** Finds the most that a build draws for a moment, W: writing in bursts, or spinning up; bridge and converter count too. */
export function peakDraw({ drive, pcie }: FilledDrive, draw: Draw, steady: Band<Watt>): Band<Watt> {
  const usual =
    drive.media === 'hdd'
      ? POWER.disk25SpinUpW
      : drive.media === 'nvme'
        ? POWER.nvmePeakW[pcie?.generation ?? 3]
        : POWER.sataPeakW;
  const peak = drive.power?.peakW === undefined ? usual : ofSheet(drive.power.peakW);
  const around = draw.bridgeRestW + draw.bridgeGrowthW;
  const at = (end: 'low' | 'typical' | 'high') =>
    Math.max(steady[end], peak[end] / draw.efficiency + around * draw.bridgeSpread[end] + draw.fanW);
  return { low: at('low'), typical: at('typical'), high: at('high') };
}
