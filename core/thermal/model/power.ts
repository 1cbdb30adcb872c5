import { bridgeWatts, type Draw } from '../../chain/power-draw.ts';
import type { MBps } from '../../quantities/measures.ts';
import type { ThermalParameters } from './parameters.ts';
import type { Power, ThermalGeometry } from './network.ts';

/** What the drive is at: nothing, reading, writing into its cache, or writing past it. */
export type Activity = 'idle' | 'read' | 'write' | 'post';

/** Gives the heat in the drive at a rate of some work, W. */
export function driveWatts(draw: Draw, parameters: ThermalParameters, work: Activity, rate: MBps): number {
  return work === 'idle' ? parameters.idleW : parameters.idleW + (draw[work] * parameters.heat * rate) / 1000;
}

/**
 * Shares out the heat: the controller makes its part of the drive's, the NAND the rest; bridge, fan and what the converter loses warm
 * the case. All that is drawn becomes heat.
 */
export function powerAt(
  shape: ThermalGeometry,
  draw: Draw,
  parameters: ThermalParameters,
  work: Activity,
  rate: MBps
): Power {
  const drive = driveWatts(draw, parameters, work, rate);
  const onCase =
    bridgeWatts(draw, work === 'idle' ? 0 : rate) * parameters.bridge + draw.fanW + drive / draw.efficiency - drive;
  if (shape.kind === 'disk') return { controller: drive, nand: 0, case: onCase };
  const controller = drive * parameters.controllerShare;
  return { controller, nand: drive - controller, case: onCase };
}

/** Adds up all that a build draws, W. */
export const wattsOf = (power: Power): number => power.controller + power.nand + power.case;
