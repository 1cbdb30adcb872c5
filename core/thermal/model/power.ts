import { bridgeWatts, type Draw } from '../../chain/power-draw.ts';
import type { MBps } from '../../quantities/measures.ts';
import type { Knobs } from './parameters.ts';
import type { Power, Shape } from './network.ts';

/** What the drive is at: nothing, reading, writing into its cache, or writing past it. */
export type Work = 'idle' | 'read' | 'write' | 'post';

/** Gives the heat in the drive at a rate of some work, W. */
export function driveWatts(draw: Draw, knobs: Knobs, work: Work, rate: MBps): number {
  return work === 'idle' ? knobs.idleW : knobs.idleW + (draw[work] * knobs.heat * rate) / 1000;
}

/**
 * Shares out the heat: the controller makes its part of the drive's, the NAND the rest; bridge, fan and what the converter loses warm
 * the case. All that is drawn becomes heat.
 */
export function powerAt(shape: Shape, draw: Draw, knobs: Knobs, work: Work, rate: MBps): Power {
  const drive = driveWatts(draw, knobs, work, rate);
  const onCase =
    bridgeWatts(draw, work === 'idle' ? 0 : rate) * knobs.bridge + draw.fanW + drive / draw.efficiency - drive;
  if (shape.kind === 'disk') return { controller: drive, nand: 0, case: onCase };
  const controller = drive * knobs.controllerShare;
  return { controller, nand: drive - controller, case: onCase };
}

/** Adds up all that a build draws, W. */
export const wattsOf = (power: Power): number => power.controller + power.nand + power.case;
