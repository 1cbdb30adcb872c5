/* eslint-disable @typescript-eslint/no-non-null-assertion -- a load has one phase at least */
import type { Band } from '../quantities/band.ts';
import type { CacheFill, CacheForecast } from '../throughput/flash-cache.ts';
import type { Phase } from '../thermal/throttling/phase-volume.ts';
import type { ThrottleLimits, Load } from '../thermal/throttling/throttle.ts';
import type { Setting } from '../thermal/model/setting.ts';
import type { ThermalModel } from '../thermal/forecast/thermal-model.ts';
import { timeConstant } from '../thermal/forecast/touch.ts';
import { likelyCases, type LikelyCases } from '../thermal/forecast/likely-cases.ts';
import { mayThrottle, neverThrottles, settlePhases } from '../thermal/forecast/when-throttled.ts';

/** Gives the phases of writing without end: into the cache, then past it. */
export function endlessWritePhases(write: Band, cache: CacheForecast, fills: CacheFill | null): Phase[] {
  const cliff = cache.typicalCliff ? cache.cliffAtGB : null;
  const base = { perMB: 0 };
  return cliff === null
    ? [{ activity: 'write', rate: write.typical, volumeMB: Infinity, ...base }]
    : [
        {
          activity: 'write',
          rate: write.typical,
          volumeMB: cliff.typical * 1000,
          ...base,
          ...(fills ? { fills } : {})
        },
        { activity: 'post', rate: cache.sustained.typical, volumeMB: Infinity, ...base }
      ];
}

/** Gives the phase of reading without end. */
export const endlessReadPhase = (read: Band): Phase => ({
  activity: 'read',
  rate: read.typical,
  perMB: 0,
  volumeMB: Infinity
});

/** Finds the rate at which writing without end settles, MB/s; most never come near a limit, and that is seen at once. */
export function sustainedRate(setting: Setting, phases: readonly Phase[], limits: ThrottleLimits | null): number {
  if (!mayThrottle(setting, phases, limits)) return phases[phases.length - 1]!.rate;
  return settlePhases(setting, phases, limits).rate;
}

/** Forecasts writing without end, MB/s, with what throttling takes of it: slow and hot at one end, fast and cool at the other. */
export function sustainedWriteBand(
  thermal: ThermalModel,
  write: Band,
  cache: CacheForecast,
  load: DescribedLoad
): Band {
  const { endlessWrite } = load;
  const last = endlessWrite.length - 1;
  if (load.neverThrottles) {
    const typical = endlessWrite[last]!.rate;
    return { low: Math.min(cache.sustained.low, typical), typical, high: Math.max(cache.sustained.high, typical) };
  }
  const { cases } = load;
  const typical = sustainedRate(thermal.typical, endlessWrite, thermal.limits);
  const at = (end: 'low' | 'high', setting: Setting) => {
    const phases = endlessWrite.map((phase, i) => ({ ...phase, rate: i === last ? cache.sustained[end] : write[end] }));
    return sustainedRate(setting, phases, thermal.limits);
  };
  return {
    low: Math.min(at('low', cases.hot), typical),
    typical,
    high: Math.max(at('high', cases.cool), typical)
  };
}

/** Means the phases of a job: one load that makes the same heat and moves as much in the same time. */
function meanLoad(thermal: ThermalModel, phases: readonly Phase[]): Load {
  let [seconds, joules, mb] = [0, 0, 0];
  for (const { activity: work, rate, perMB, volumeMB } of phases) {
    seconds += volumeMB / rate + volumeMB * perMB;
    joules += (thermal.draw[work === 'idle' ? 'read' : work] * volumeMB) / 1000;
    mb += volumeMB;
  }
  if (thermal.draw.write <= 0) return { activity: 'write', rate: mb / seconds, perMB: 0 };
  // A rate of writing that makes this heat.
  return { activity: 'write', rate: (joules / thermal.draw.write / seconds) * 1000, perMB: 0 };
}

/** What a build is at: the phases of its job or of writing without end, what goes on for ever of them, and its likely cases. */
export type DescribedLoad = {
  /** Writing without end, whatever the job is. */
  endlessWrite: readonly Phase[];
  phases: readonly Phase[];
  /** A job at its own mean, over and over; else writing without end. */
  steadyPhases: readonly Phase[];
  /** How far the case gets from idle to its steady temperature in one job, 0..1. */
  warmUpFraction: number;
  /** Made when somebody asks for them. */
  readonly cases: LikelyCases;
  /** Whether nothing of it ever throttles, not even in the likely hot case. */
  neverThrottles: boolean;
  freeGB: number;
};

/** The load of a build to describe: how it writes, MB/s, and the phases of its job where it has one. */
export type LoadOf = {
  endlessWrite: readonly Phase[];
  job: readonly Phase[] | null;
  perDay: number | undefined;
  write: Band;
  freeGB: number;
};

/**
 * Gives how far the case gets from idle to its steady temperature at a job's own duty, 0..1: within one job 1 - exp(-t / tau), or the
 * share of the day that the job takes, whichever is more. A job that does not say how often it comes is taken over and over.
 */
function warmUpFraction(thermal: ThermalModel, phases: readonly Phase[], perDay: number | undefined): number {
  if (perDay === undefined) return 1;
  let seconds = 0;
  for (const { rate, perMB, volumeMB } of phases) seconds += volumeMB / rate + volumeMB * perMB;
  return Math.min(1, Math.max(1 - Math.exp(-seconds / timeConstant(thermal.typical)), (perDay * seconds) / 86_400));
}

/** Describes the load that steady temperatures are for: a job at its own mean, else writing without end. */
export function describeLoad(thermal: ThermalModel, of: LoadOf): DescribedLoad {
  const { endlessWrite, job, perDay, write, freeGB } = of;
  const steadyPhases = job ? [endless(meanLoad(thermal, job))] : endlessWrite;
  let made: LikelyCases | undefined;
  const cases = () => (made ??= likelyCases(thermal, steadyPhases[steadyPhases.length - 1]!, write));
  return {
    endlessWrite,
    phases: job ?? endlessWrite,
    steadyPhases,
    warmUpFraction: job ? warmUpFraction(thermal, job, perDay) : 1,
    get cases() {
      return cases();
    },
    neverThrottles: neverThrottles(thermal, endlessWrite, cases) && (!job || neverThrottles(thermal, job, cases)),
    freeGB
  };
}

const endless = ({ activity, rate, perMB }: Load): Phase => ({ activity, rate, perMB, volumeMB: Infinity });
