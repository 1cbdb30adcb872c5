/* eslint-disable @typescript-eslint/no-non-null-assertion -- a load has one phase at least; what throttles has limits */
import type { Band } from '../../quantities/band.ts';
import type { Celsius } from '../../quantities/measures.ts';
import { settledTemperatures } from '../model/network.ts';
import { powerAt } from '../model/power.ts';
import type { Setting } from '../model/setting.ts';
import type { Phase } from '../throttling/phase-volume.ts';
import type { SteadyState } from '../throttling/steady-state.ts';
import type { Load, ThrottleLimits } from '../throttling/throttle.ts';
import type { DeviationEnd, LikelyCases } from './likely-cases.ts';
import type { ThermalModel } from './thermal-model.ts';
import { settlePhases } from './when-throttled.ts';

const bandOf = (cool: number, typical: number, hot: number): Band => ({
  low: Math.min(cool, typical),
  typical,
  high: Math.max(hot, typical)
});

export type SteadyForecast = { typical: SteadyState; caseC: Band; controllerC: Band; nandC: Band };

/** Some load as it goes on: its phases, and how far the case gets in it. */
export type SteadyLoad = {
  /** The last of them settles. */
  phases: readonly Phase[];
  /** How far the case gets from rest to its steady temperature, 0..1; 1 for work without end. */
  warmUpFraction: number;
};

/**
 * Gives the state of work that ends before the case is warmed through: chips follow within seconds and stand over the case as in
 * endless work, the case goes a share of its way from rest.
 */
function partlyWarmedUp(
  setting: Setting,
  load: Load,
  { fraction, limits }: { fraction: number; limits: ThrottleLimits | null },
  endless: SteadyState
): SteadyState {
  const at = settledTemperatures(setting.network, powerAt(setting, load.activity, load.rate * fraction));
  const controllerC = at.caseC + endless.controllerC - endless.caseC;
  const nandC = at.caseC + endless.nandC - endless.caseC;
  const form = limits && controllerC > limits.startC ? endless.form : 'none';
  return { ...endless, form, controllerC, nandC, caseC: at.caseC, faceC: at.faceC };
}

/**
 * Forecasts where the last of some phases settles, °C as bands, throttling included.
 * @param cool whether nothing throttles, by `neverThrottles`: the bands are then the distances of the likely cases
 */
export function forecastSteady(
  model: ThermalModel,
  { phases, warmUpFraction: fraction }: SteadyLoad,
  cases: LikelyCases,
  cool: boolean
): SteadyForecast {
  const { limits } = model;
  const settled = (setting: Setting) => {
    const { rate } = setting.parameters;
    const own = rate === 1 ? phases : phases.map((phase) => ({ ...phase, rate: phase.rate * rate }));
    const endless = settlePhases(setting, own, limits);
    return fraction >= 1 ? endless : partlyWarmedUp(setting, own[own.length - 1]!, { fraction, limits }, endless);
  };
  const typical = settled(model.typical);
  const calm = () => {
    const whole = fraction >= 1;
    return bandsFromDeviations(
      typical,
      cases,
      whole ? 1 : feltShare(model.typical, typical, phases[phases.length - 1]!)
    );
  };
  if (cool) return calm();
  const hotCase = settled(cases.hot);
  if (hotCase.form === 'none' && typical.form === 'none') return calm();
  const coolCase = settled(cases.cool);
  // On its way to a plateau at half rate a drive gets to where it throttles, though it settles below that.
  const reached = hotCase.form === 'none' ? hotCase.controllerC : Math.max(hotCase.controllerC, limits!.startC);
  return {
    typical,
    caseC: bandOf(settled(cases.faceCool).faceC, typical.faceC, settled(cases.faceHot).faceC),
    controllerC: bandOf(coolCase.controllerC, typical.controllerC, reached),
    nandC: bandOf(coolCase.nandC, typical.nandC, hotCase.nandC)
  };
}

/** Gives the part of its rise that the case gets to, 0..1, by its outer face. */
function feltShare({ network, ...rest }: Setting, typical: SteadyState, load: Load): number {
  const { ambientC } = network;
  const endless = settledTemperatures(network, powerAt(rest, load.activity, load.rate)).faceC;
  return endless > ambientC ? Math.min(1, (typical.faceC - ambientC) / (endless - ambientC)) : 1;
}

/** Lays bands around the typical temperatures: what a parameter does to the case counts by how far the case gets. */
function bandsFromDeviations(typical: SteadyState, cases: LikelyCases, felt: number): SteadyForecast {
  const around = (value: Celsius, cool: DeviationEnd, hot: DeviationEnd): Band => ({
    low: value - cases.spread(cool, felt),
    typical: value,
    high: value + cases.spread(hot, felt)
  });
  return {
    typical,
    caseC: around(typical.faceC, 'coolFace', 'hotFace'),
    controllerC: around(typical.controllerC, 'coolController', 'hotController'),
    nandC: around(typical.nandC, 'coolNand', 'hotNand')
  };
}
