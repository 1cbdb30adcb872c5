import type { Draw } from '../../chain/power-draw.ts';
import { SHUTDOWN_C, THROTTLE } from '../../facts/thermal.ts';
import type { Drive } from '../../parts/drive.ts';
import type { Celsius, MBps } from '../../quantities/measures.ts';
import type { ThermalParameters } from '../model/parameters.ts';
import { decayParts, heatSlope } from './chip-modes.ts';
import {
  chipRises,
  settledTemperatures,
  type Network,
  type Power,
  type ThermalGeometry,
  type Temperatures
} from '../model/network.ts';
import { sawToothOf } from './saw-tooth.ts';
import { powerAt, type Activity } from '../model/power.ts';

/** Temperatures at which a drive throttles, as it reports them itself, and the one at which it switches itself off. */
export type ThrottleLimits = { startC: Celsius; criticalC: Celsius; releaseK: number; offC: Celsius };

/** @returns the stated limits, or the usual ones; null for a hard disk, which does not throttle */
export function throttleLimits(drive: Drive): ThrottleLimits | null {
  if (drive.media === 'hdd') return null;
  const startC = drive.throttle?.startC ?? THROTTLE.startC;
  const criticalC = Math.max(drive.throttle?.criticalC ?? startC + (THROTTLE.criticalC - THROTTLE.startC), startC + 1);
  return { startC, criticalC, releaseK: THROTTLE.releaseK, offC: Math.max(SHUTDOWN_C, criticalC + 2) };
}

/** A build at one setting of its parameters. */
export type Setting = { geometry: ThermalGeometry; draw: Draw; parameters: ThermalParameters; network: Network };

/** Some steady work: what, at which rate, and what each MB costs in time beside its bytes (files), s/MB. */
export type Load = { activity: Activity; rate: MBps; perMB: number };

/** Rate of a load when the drive lets through a share of it; the time for files is not throttled. */
export const throttledRate = ({ rate, perMB }: Load, factor: number): MBps =>
  rate <= 0 ? 0 : 1 / (1 / (rate * factor) + perMB);

/** What throttling looks like once warmed through; `off` where the drive switches itself off. */
export type ThrottleForm = 'none' | 'saw-tooth' | 'plateau' | 'off';

type RateLevel = { rate: MBps; power: Power; rise: number };

/** A load at its three levels of throttling: rate, heat, and how far the controller stands over the case. */
export type RateLevels = readonly [RateLevel, RateLevel, RateLevel];

function stepOf({ geometry, draw, parameters, network }: Setting, load: Load, factor: number): RateLevel {
  const rate = throttledRate(load, factor);
  const power = powerAt(geometry, draw, parameters, load.activity, rate);
  return { rate, power, rise: chipRises(network, power.controller, power.nand).controller };
}

export const rateLevels = (setting: Setting, load: Load): RateLevels => [
  stepOf(setting, load, THROTTLE.factors[0]),
  stepOf(setting, load, THROTTLE.factors[1]),
  stepOf(setting, load, THROTTLE.factors[2])
];

export const blend = (a: RateLevel, b: RateLevel, share: number): { rate: MBps; power: Power } => ({
  rate: a.rate * share + b.rate * (1 - share),
  power: {
    controller: a.power.controller * share + b.power.controller * (1 - share),
    nand: a.power.nand * share + b.power.nand * (1 - share),
    case: a.power.case * share + b.power.case * (1 - share)
  }
});

/**
 * Share of the time in the faster of two levels of a saw-tooth between `low` and `high`, when the faster one would heat towards
 * `hot` and the slower one cool towards `cold`: t_up = tau ln((hot - low) / (hot - high)), t_down = tau ln((high - cold) / (low - cold)).
 */
export function dutyOf(hot: Celsius, cold: Celsius, low: Celsius, high: Celsius): number {
  if (hot <= high) return 1;
  if (cold >= low) return 0;
  const up = Math.log((hot - low) / (hot - high));
  const down = Math.log((high - cold) / (low - cold));
  return up / (up + down);
}

/** A load that goes on until everything is warmed through; `controllerC` is the highest that it gets to. */
export type SteadyState = Temperatures & {
  form: ThrottleForm;
  rate: MBps;
  /** Mean power, W. */
  power: Power;
  /** 0 at full rate, or between full and half; 1 at half, or between half and a quarter; 2 at a quarter. */
  level: 0 | 1 | 2;
};

function settledAs(
  form: ThrottleForm,
  level: 0 | 1 | 2,
  at: { rate: MBps; power: Power },
  t: Temperatures
): SteadyState {
  const { controllerC, nandC, caseC, faceC } = t;
  return { form, level, rate: at.rate, power: at.power, controllerC, nandC, caseC, faceC };
}

/**
 * Where a load settles, throttling included. At full rate where that stays below the start; at half where half rate stays above
 * the release, and at a quarter where even that does, above the critical temperature; else in a saw-tooth between two rates, whose
 * share follows from the orbit. A drive that comes throttled stays so where the slower rate alone keeps it above its release. The heat that a case gives off is linear around the mean of the tooth, which is found by
 * repetition.
 */
export function steadyState(
  setting: Setting,
  load: Load,
  limits: ThrottleLimits | null,
  held: 0 | 1 | 2 = 0
): SteadyState {
  const { network } = setting;
  const first = stepOf(setting, load, THROTTLE.factors[0]);
  const full = settledTemperatures(network, first.power);
  // Most loads never come near a limit, and need nothing else.
  if (!limits || (held === 0 && full.controllerC <= limits.startC)) return settledAs('none', 0, first, full);
  const steps: RateLevels = [
    first,
    stepOf(setting, load, THROTTLE.factors[1]),
    stepOf(setting, load, THROTTLE.factors[2])
  ];
  const half = settledTemperatures(network, steps[1].power);
  const quarter = settledTemperatures(network, steps[2].power);
  const settled = [full, half, quarter];
  const plain = (at: 0 | 1 | 2, form: ThrottleForm): SteadyState => settledAs(form, at, steps[at], settled[at]!);
  const { startC, criticalC, releaseK, offC } = limits;
  if (quarter.controllerC >= offC) {
    // As warm as the case is when the controller gets there; then the drive is off, and nothing is moved any more.
    const cooler = quarter.controllerC - offC;
    const { ambientC } = network;
    const at = {
      controllerC: offC,
      nandC: Math.max(ambientC, quarter.nandC - cooler),
      caseC: Math.max(ambientC, quarter.caseC - cooler),
      faceC: Math.max(ambientC, quarter.faceC - cooler)
    };
    return settledAs('off', 2, { rate: 0, power: steps[2].power }, at);
  }
  if (held === 2 && quarter.controllerC >= criticalC - releaseK) return plain(2, 'plateau');
  const stays = held > 0 && half.controllerC >= startC - releaseK && half.controllerC <= criticalC;
  if (full.controllerC <= startC) return stays ? plain(1, 'plateau') : plain(0, 'none');
  const tooth = (upper: 0 | 1, high: Celsius): SteadyState => {
    const [fast, slow] = [steps[upper], steps[upper + 1]!];
    const step: Power = {
      controller: fast.power.controller - slow.power.controller,
      nand: fast.power.nand - slow.power.nand,
      case: fast.power.case - slow.power.case
    };
    let share = 0.5;
    for (let i = 0; i < 6; i++) {
      const mean = blend(fast, slow, share);
      const around = settledTemperatures(network, mean.power);
      const conductance = heatSlope(network, around.caseC - network.ambientC);
      const watts = step.controller + step.nand + step.case;
      // The settled ends of a case that is linear around the mean.
      const caseKelvin = watts / conductance;
      const cold = around.caseC - caseKelvin * share + slow.rise;
      const orbit = sawToothOf(decayParts(network, step, caseKelvin, conductance), cold, high - releaseK, high);
      const next = orbit ? orbit.fastS / (orbit.fastS + orbit.slowS) : cold >= high - releaseK ? 0 : 1;
      if (Math.abs(next - share) < 1e-4) break;
      share = next;
    }
    const mean = blend(fast, slow, share);
    const around = settledTemperatures(network, mean.power);
    const at = settledAs('saw-tooth', upper, mean, around);
    at.controllerC = high;
    return at;
  };
  if (half.controllerC < startC - releaseK) return tooth(0, startC);
  if (half.controllerC <= criticalC) return plain(1, 'plateau');
  return quarter.controllerC < criticalC - releaseK ? tooth(1, criticalC) : plain(2, 'plateau');
}
