import { bridgeWatts, type Draw } from '../../chain/power-draw.ts';
import type { MBps } from '../../quantities/measures.ts';
import type { Power } from './network.ts';
import type { ThermalGeometry } from './geometry.ts';
import type { ThermalParameters } from './parameters.ts';

/** What the drive is at: nothing, reading, writing into its cache, or writing past it. */
export type Activity = 'idle' | 'read' | 'write' | 'post';

/** What the heat of a build follows from. */
export type HeatSource = { geometry: ThermalGeometry; draw: Draw; parameters: ThermalParameters };

/**
 * Gives the heat in the drive at a rate of some activity, W: idle power + energy per GB x rate / 1000.
 * @param rate MB/s; does not matter at rest
 */
export function driveWatts({ draw, parameters }: HeatSource, activity: Activity, rate: MBps): number {
  return activity === 'idle' ? parameters.idleW : parameters.idleW + (draw[activity] * parameters.heat * rate) / 1000;
}

/**
 * Shares out the heat, W: the controller makes its part of the drive's, the NAND the rest; bridge, fan and what the converter loses
 * warm the case. All that is drawn becomes heat.
 * @param rate MB/s; does not matter at rest
 */
export function powerAt(source: HeatSource, activity: Activity, rate: MBps): Power {
  const { geometry, draw, parameters } = source;
  const drive = driveWatts(source, activity, rate);
  const onCase =
    bridgeWatts(draw, activity === 'idle' ? 0 : rate) * parameters.bridge + draw.fanW + drive / draw.efficiency - drive;
  if (geometry.kind === 'disk') return { controller: drive, nand: 0, case: onCase };
  const controller = drive * parameters.controllerShare;
  return { controller, nand: drive - controller, case: onCase };
}

/** Adds up all that a build draws, W. */
export const wattsOf = (power: Power): number => power.controller + power.nand + power.case;
