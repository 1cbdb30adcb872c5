import { SHUTDOWN_C, THROTTLE } from '../../facts/thermal.ts';
import type { Drive } from '../../parts/drive.ts';
import type { Celsius, MBps } from '../../quantities/measures.ts';
import { chipRises, type Power } from '../model/network.ts';
import { powerAt, type Activity } from '../model/power.ts';
import type { Setting } from '../model/setting.ts';

/** Temperatures at which a drive throttles, as it reports them itself, and the one at which it switches itself off. */
export type ThrottleLimits = { startC: Celsius; criticalC: Celsius; releaseK: number; offC: Celsius };

/**
 * Gives the limits of a drive, °C: the stated ones, or the usual ones.
 * @returns null for a hard disk, which does not throttle
 */
export function throttleLimits(drive: Drive): ThrottleLimits | null {
  if (drive.media === 'hdd') return null;
  const startC = drive.throttle?.startC ?? THROTTLE.startC;
  const criticalC = Math.max(drive.throttle?.criticalC ?? startC + (THROTTLE.criticalC - THROTTLE.startC), startC + 1);
  return { startC, criticalC, releaseK: THROTTLE.releaseK, offC: Math.max(SHUTDOWN_C, criticalC + 2) };
}

/** Some steady work: what, at which rate, and what each MB costs in time beside its bytes (files), s/MB. */
export type Load = { activity: Activity; rate: MBps; perMB: number };

/** Gives the rate of a load when the drive lets through a share of it, MB/s; the time for files is not throttled. */
export const throttledRate = ({ rate, perMB }: Load, factor: number): MBps =>
  rate <= 0 ? 0 : 1 / (1 / (rate * factor) + perMB);

/** What throttling looks like once warmed through; `off` where the drive switches itself off. */
export type ThrottleForm = 'none' | 'saw-tooth' | 'plateau' | 'off';

/** How far a drive is throttled: 0 at full rate, 1 at half, 2 at a quarter. */
export type ThrottleLevel = 0 | 1 | 2;

/** A load at one level: its rate, MB/s, its heat, W, and how far the controller stands over the case, K. */
export type RateLevel = { rate: MBps; power: Power; rise: number };

/** A load at its three levels of throttling. */
export type RateLevels = readonly [RateLevel, RateLevel, RateLevel];

/** Gives a load at one level of throttling. */
export function levelOf(setting: Setting, load: Load, level: ThrottleLevel): RateLevel {
  const rate = throttledRate(load, THROTTLE.factors[level]);
  const power = powerAt(setting, load.activity, rate);
  return { rate, power, rise: chipRises(setting.network, power.controller, power.nand).controller };
}

/** Gives a load at all three levels of throttling. */
export const rateLevels = (setting: Setting, load: Load): RateLevels => [
  levelOf(setting, load, 0),
  levelOf(setting, load, 1),
  levelOf(setting, load, 2)
];

/** Means two levels by the share of the time that is spent in the first. */
export const blend = (a: RateLevel, b: RateLevel, share: number): { rate: MBps; power: Power } => ({
  rate: a.rate * share + b.rate * (1 - share),
  power: {
    controller: a.power.controller * share + b.power.controller * (1 - share),
    nand: a.power.nand * share + b.power.nand * (1 - share),
    case: a.power.case * share + b.power.case * (1 - share)
  }
});

/**
 * Gives the share of the time in the faster of two levels of a saw-tooth between `low` and `high`, when the faster one would heat
 * towards `hot` and the slower one cool towards `cold`: t_up = tau ln((hot - low) / (hot - high)),
 * t_down = tau ln((high - cold) / (low - cold)).
 * @returns 0..1; 1 where the faster one never gets to `high`, 0 where the slower one never cools to `low`
 * @example dutyOf(90, 30, 50, 70) // 0.5
 */
export function dutyOf(hot: Celsius, cold: Celsius, low: Celsius, high: Celsius): number {
  if (hot <= high) return 1;
  if (cold >= low) return 0;
  const up = Math.log((hot - low) / (hot - high));
  const down = Math.log((high - cold) / (low - cold));
  return up / (up + down);
}
