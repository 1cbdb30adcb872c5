/* eslint-disable @typescript-eslint/no-non-null-assertion -- the fit returns one value for each parameter that went in */
import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import type { Celsius } from '../quantities/measures.ts';
import type { Probe } from './log.ts';
import { networkOf, settledTemperatures } from '../thermal/model/network.ts';
import { powerAt } from '../thermal/model/power.ts';
import type { Load } from '../thermal/throttling/throttle.ts';
import type { Setting } from '../thermal/model/setting.ts';

/** One settled temperature, and the build that it was read on as the model has it without any fit. */
export type FitPoint = { setting: Setting; load: Load; place: Probe; measuredC: Celsius };

/**
 * What readings of one enclosure can tell: only products are seen in a temperature. Heat and resistance come as one, so that what is
 * fitted are factors on rises: of the case over the air, and of the chips over the case.
 */
export type Fit = {
  caseFactor: number;
  /** Left out where the readings cannot tell it from the other one. */
  chipFactor?: number;
  readings: number;
  /** Root of the mean square of measured less computed, K. */
  beforeK: number;
  afterK: number;
};

const temperatureAt = ({ setting, load, place }: FitPoint, caseFactor: number, chipFactor: number): Celsius => {
  const { draw, parameters } = setting;
  const geometry = { ...setting.geometry, caseFactor, chipFactor };
  const power = powerAt({ geometry, draw, parameters }, load.activity, load.rate);
  const at = settledTemperatures(networkOf(geometry, parameters), power);
  return place === 'case' ? at.faceC : place === 'nand' ? at.nandC : at.controllerC;
};

const rms = (readings: readonly FitPoint[], caseFactor: number, chipFactor: number): number =>
  Math.sqrt(
    readings.reduce((sum, r) => sum + (r.measuredC - temperatureAt(r, caseFactor, chipFactor)) ** 2, 0) /
      readings.length
  );

/** Tells what is still missing before a fit says something, in words; null where there is enough. */
export function missingForFit(readings: readonly { place: Probe }[]): string | null {
  if (readings.length >= 3 || readings.filter((r) => r.place === 'case').length >= 2) return null;
  return 'Two settled readings on the case, or three in all, are the least that a fit can rest on.';
}

/**
 * Fits the factors of an enclosure to settled readings, by least squares (Levenberg and Marquardt) in their logarithms. Both factors
 * are fitted where there are readings on the case and on a chip, at least three in all; with readings of one place only the
 * factor of the case.
 * @returns null where there are too few readings
 */
export function fitEnclosure(readings: readonly FitPoint[]): Fit | null {
  if (missingForFit(readings) !== null) return null;
  const onCase = readings.filter((r) => r.place === 'case').length;
  const both = onCase > 0 && onCase < readings.length && readings.length >= 3;
  const result = levenbergMarquardt(
    { x: readings.map((_, i) => i), y: readings.map((r) => r.measuredC) },
    ([a, b]: number[]) =>
      (i: number) =>
        temperatureAt(readings[i]!, Math.exp(a!), both ? Math.exp(b!) : 1),
    {
      initialValues: both ? [0, 0] : [0],
      minValues: both ? [-2, -2] : [-2],
      maxValues: both ? [2, 2] : [2],
      gradientDifference: 1e-4,
      damping: 0.1,
      maxIterations: 60,
      errorTolerance: 1e-8
    }
  );
  const [caseFactor, chipFactor] = result.parameterValues.map((value) => Math.exp(value)) as [number, number?];
  return {
    caseFactor,
    ...(both ? { chipFactor: chipFactor! } : {}),
    readings: readings.length,
    beforeK: rms(readings, 1, 1),
    afterK: rms(readings, caseFactor, both ? chipFactor! : 1)
  };
}
