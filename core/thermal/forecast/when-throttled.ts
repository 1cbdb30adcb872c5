/* eslint-disable @typescript-eslint/no-non-null-assertion -- a load has one phase at least */
import type { Celsius, Seconds } from '../../quantities/measures.ts';
import { settledTemperatures } from '../model/network.ts';
import { powerAt } from '../model/power.ts';
import type { Setting } from '../model/setting.ts';
import type { Phase } from '../throttling/phase-volume.ts';
import { steadyState, type SteadyState } from '../throttling/steady-state.ts';
import type { ThrottleLimits } from '../throttling/throttle.ts';
import { followThrottling } from '../throttling/timeline.ts';
import type { LikelyCases } from './likely-cases.ts';
import type { ThermalModel } from './thermal-model.ts';

/** How much nearer to a limit the hotter case may be than its distance says, for it is not quite linear. */
const NEAR = 1.2;
/** More than this share of the typical rise, and some kelvin of the room, no likely case is away from it. */
const FARTHEST = { share: 0.9, roomK: 8 } as const;

/**
 * Tells whether nothing throttles under these phases, not even in the likely hot case: its distance grows with the rise of the hottest of
 * them. Then a plan needs no case but the typical one.
 */
export function neverThrottles(
  { typical, limits }: ThermalModel,
  phases: readonly Phase[],
  casesOf: () => LikelyCases
): boolean {
  if (!limits) return true;
  const { ambientC } = typical.network;
  const hottest = hottestOf(typical, phases);
  if (hottest + FARTHEST.share * (hottest - ambientC) + FARTHEST.roomK < limits.startC) return true;
  if (hottest >= limits.startC) return false;
  const cases = casesOf();
  const scale = Math.max(1, (hottest - ambientC) / Math.max(1, cases.controllerC - ambientC));
  return hottest + cases.hotterK * scale * NEAR < limits.startC;
}

/** Gives the hottest that the controller gets where some phase alone goes on for ever at full rate, °C. */
function hottestOf(setting: Setting, phases: readonly Phase[]): Celsius {
  let hottest = -Infinity;
  for (const { activity, rate, perMB } of phases) {
    const power = powerAt(setting, activity, rate <= 0 ? 0 : 1 / (1 / rate + perMB));
    hottest = Math.max(hottest, settledTemperatures(setting.network, power).controllerC);
  }
  return hottest;
}

/** Tells whether some phase alone, going on for ever at full rate, would be too hot: nothing cooler can ever throttle. */
export const mayThrottle = (setting: Setting, phases: readonly Phase[], limits: ThrottleLimits | null): boolean =>
  limits !== null && hottestOf(setting, phases) > limits.startC;

/** Finds the time until the first throttling under these phases, s; null where none of them ever gets that hot. */
export function throttleTime(
  setting: Setting,
  phases: readonly Phase[],
  limits: ThrottleLimits | null
): Seconds | null {
  return mayThrottle(setting, phases, limits)
    ? followThrottling(setting, phases, limits, { untilThrottle: true }).throttleAtS
    : null;
}

/**
 * Finds where work without end settles that begins with other phases: a drive that was throttled in one of them comes to the last one
 * throttled, and may stay so.
 */
export function settlePhases(setting: Setting, phases: readonly Phase[], limits: ThrottleLimits | null): SteadyState {
  const last = phases[phases.length - 1]!;
  if (phases.length === 1) return steadyState(setting, last, limits);
  const before = phases.slice(0, -1);
  const held = mayThrottle(setting, before, limits) ? followThrottling(setting, before, limits).level : 0;
  return steadyState(setting, last, limits, held);
}
