/* eslint-disable @typescript-eslint/no-non-null-assertion -- there are always three levels */
import type { Celsius, MBps } from '../../quantities/measures.ts';
import { settledTemperatures, type Network, type Power, type Temperatures } from '../model/network.ts';
import type { Setting } from '../model/setting.ts';
import { decayParts, heatSlope } from './chip-modes.ts';
import { sawToothOf } from './saw-tooth.ts';
import {
  blend,
  levelOf,
  type Load,
  type RateLevel,
  type RateLevels,
  type ThrottleForm,
  type ThrottleLevel,
  type ThrottleLimits
} from './throttle.ts';

/** A load that goes on until everything is warmed through; `controllerC` is the highest that it gets to. */
export type SteadyState = Temperatures & {
  form: ThrottleForm;
  rate: MBps;
  /** Mean power, W. */
  power: Power;
  /** In a saw-tooth the faster of its two levels. */
  level: ThrottleLevel;
};

function settledAs(
  form: ThrottleForm,
  level: ThrottleLevel,
  at: { rate: MBps; power: Power },
  t: Temperatures
): SteadyState {
  const { controllerC, nandC, caseC, faceC } = t;
  return { form, level, rate: at.rate, power: at.power, controllerC, nandC, caseC, faceC };
}

/** As warm as everything is when the controller gets to where the drive switches itself off; then nothing is moved any more. */
function switchedOff(network: Network, slowest: RateLevel, quarter: Temperatures, offC: Celsius): SteadyState {
  const cooler = quarter.controllerC - offC;
  const { ambientC } = network;
  const at = {
    controllerC: offC,
    nandC: Math.max(ambientC, quarter.nandC - cooler),
    caseC: Math.max(ambientC, quarter.caseC - cooler),
    faceC: Math.max(ambientC, quarter.faceC - cooler)
  };
  return settledAs('off', 2, { rate: 0, power: slowest.power }, at);
}

/** Repetitions within which the mean of a saw-tooth is found, and how near is near enough. */
const REPETITIONS = 6;
const SAME_SHARE = 1e-4;

/**
 * Finds the saw-tooth between two levels: the heat that a case gives off is linear around its mean, which is found by repetition.
 * @param high where the controller turns round, °C; it comes back `releaseK` below
 */
function sawTooth(
  network: Network,
  levels: RateLevels,
  upper: 0 | 1,
  { high, releaseK }: { high: Celsius; releaseK: number }
): SteadyState {
  const [fast, slow] = [levels[upper], levels[upper + 1]!];
  const step: Power = {
    controller: fast.power.controller - slow.power.controller,
    nand: fast.power.nand - slow.power.nand,
    case: fast.power.case - slow.power.case
  };
  const watts = step.controller + step.nand + step.case;
  let share = 0.5;
  for (let i = 0; i < REPETITIONS; i++) {
    const around = settledTemperatures(network, blend(fast, slow, share).power);
    const conductance = heatSlope(network, around.caseC - network.ambientC);
    // The settled ends of a case that is linear around the mean.
    const caseKelvin = watts / conductance;
    const cold = around.caseC - caseKelvin * share + slow.rise;
    const tooth = sawToothOf(decayParts(network, step, caseKelvin, conductance), cold, high - releaseK, high);
    const next = tooth ? tooth.fastS / (tooth.fastS + tooth.slowS) : cold >= high - releaseK ? 0 : 1;
    if (Math.abs(next - share) < SAME_SHARE) break;
    share = next;
  }
  const mean = blend(fast, slow, share);
  const at = settledAs('saw-tooth', upper, mean, settledTemperatures(network, mean.power));
  at.controllerC = high;
  return at;
}

/**
 * Finds where a load settles, throttling included. At full rate where that stays below the start; at half where half rate stays above
 * the release, and at a quarter where even that does, above the critical temperature; else in a saw-tooth between two rates.
 * @param limits null for a drive that does not throttle
 * @param held the level at which the drive comes: it stays there where the slower rate alone keeps it above its release
 */
export function steadyState(
  setting: Setting,
  load: Load,
  limits: ThrottleLimits | null,
  held: ThrottleLevel = 0
): SteadyState {
  const { network } = setting;
  const first = levelOf(setting, load, 0);
  const full = settledTemperatures(network, first.power);
  // Most loads never come near a limit, and need nothing else.
  if (!limits || (held === 0 && full.controllerC <= limits.startC)) return settledAs('none', 0, first, full);
  return throttledState(network, [first, levelOf(setting, load, 1), levelOf(setting, load, 2)], full, limits, held);
}

// eslint-disable-next-line max-params -- one step of the function above, with what that has worked out
function throttledState(
  network: Network,
  levels: RateLevels,
  full: Temperatures,
  limits: ThrottleLimits,
  held: ThrottleLevel
): SteadyState {
  const { startC, criticalC, releaseK, offC } = limits;
  const half = settledTemperatures(network, levels[1].power);
  const quarter = settledTemperatures(network, levels[2].power);
  if (quarter.controllerC >= offC) return switchedOff(network, levels[2], quarter, offC);
  const plateau = (level: 1 | 2) => settledAs('plateau', level, levels[level], level === 1 ? half : quarter);
  if (held === 2 && quarter.controllerC >= criticalC - releaseK) return plateau(2);
  if (full.controllerC <= startC) {
    const stays = held > 0 && half.controllerC >= startC - releaseK && half.controllerC <= criticalC;
    return stays ? plateau(1) : settledAs('none', 0, levels[0], full);
  }
  if (half.controllerC < startC - releaseK) return sawTooth(network, levels, 0, { high: startC, releaseK });
  if (half.controllerC <= criticalC) return plateau(1);
  return quarter.controllerC < criticalC - releaseK
    ? sawTooth(network, levels, 1, { high: criticalC, releaseK })
    : plateau(2);
}
