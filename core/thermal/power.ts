import type { MBps } from '../quantities/unit.ts';
import type { Heat, Work } from './heat.ts';
import type { Knobs } from './knobs.ts';
import type { Power, Shape } from './network.ts';

/** Heat in the drive at a rate of some work, W. */
export function driveWatts(heat: Heat, knobs: Knobs, work: Work, rate: MBps): number {
  return work === 'idle' ? knobs.idleW : knobs.idleW + (heat[work] * knobs.heat * rate) / 1000;
}

/**
 * Where the heat goes: the controller makes its share of the drive's, the NAND the rest; bridge, fan and what the converter
 * loses warm the case. All that is drawn becomes heat.
 */
export function powerAt(shape: Shape, heat: Heat, knobs: Knobs, work: Work, rate: MBps): Power {
  const drive = driveWatts(heat, knobs, work, rate);
  const lost = drive / heat.efficiency - drive;
  if (shape.kind === 'disk') return { controller: drive, nand: 0, case: knobs.bridgeW + lost };
  const controller = drive * knobs.controllerShare;
  return { controller, nand: drive - controller, case: knobs.bridgeW + lost };
}

/** All that a build draws, W. */
export const wattsOf = (power: Power): number => power.controller + power.nand + power.case;
