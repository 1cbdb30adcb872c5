import { appliedRule, ruleName, chosenOption, type AppliedRule, type HouseRules } from '../house-rules/house-rules.ts';
import { BRIDGE_LIMIT_C, BRIDGE_PATH, DISK_LIMIT_C, EJECTED_SHARE, TOUCH } from '../facts/thermal.ts';
import type { Finding } from '../findings/finding.ts';
import type { Enclosure } from '../parts/enclosure.ts';
import type { Band } from '../quantities/band.ts';
import { bridgeWatts } from '../chain/power-draw.ts';
import type { CacheFill, CacheForecast } from '../throughput/flash-cache.ts';
import { PARAMETER_LABELS } from '../thermal/model/parameters.ts';
import type { ThrottleTimeline, Phase } from '../thermal/throttling/timeline.ts';
import { settledTemperatures } from '../thermal/model/network.ts';
import { powerAt, wattsOf } from '../thermal/model/power.ts';
import type { ThrottleLimits, Load, Setting } from '../thermal/throttling/throttle.ts';
import {
  coolingTime,
  forecastSteady,
  likelyCases,
  mayThrottle,
  neverThrottles,
  settlePhases,
  throttleTime,
  timeConstant,
  touchOf,
  type LikelyCases,
  type SteadyForecast,
  type ThermalModel
} from '../thermal/forecast/thermal-model.ts';
import type { PlanReport } from './report.ts';

/** Continuous writing: into the cache, then past it without end. */
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

/** Reading without end. */
export const endlessReadPhase = (read: Band): Phase => ({
  activity: 'read',
  rate: read.typical,
  perMB: 0,
  volumeMB: Infinity
});

/** The rate at which writing without end settles, MB/s; most never come near a limit, and that is seen at once. */
export function sustainedRate(setting: Setting, on: readonly Phase[], limits: ThrottleLimits | null): number {
  if (!mayThrottle(setting, on, limits)) return on[on.length - 1]!.rate;
  return settlePhases(setting, on, limits).rate;
}

/** Sustained write with the throttle's share in it, as a band: slow and hot together at one end, fast and cool at the other. */
export function sustainedWriteBand(
  thermal: ThermalModel,
  write: Band,
  cache: CacheForecast,
  work: DescribedLoad
): Band {
  const { endlessWrite: on, neverThrottles: cool } = work;
  const last = on.length - 1;
  if (cool) {
    const typical = on[last]!.rate;
    return { low: Math.min(cache.sustained.low, typical), typical, high: Math.max(cache.sustained.high, typical) };
  }
  const { cases } = work;
  const typical = sustainedRate(thermal.typical, on, thermal.limits);
  const at = (end: 'low' | 'high', setting: Setting) => {
    const phases = on.map((phase, i) => ({ ...phase, rate: i === last ? cache.sustained[end] : write[end] }));
    return sustainedRate(setting, phases, thermal.limits);
  };
  return {
    low: Math.min(at('low', cases.hot), typical),
    typical,
    high: Math.max(at('high', cases.cool), typical)
  };
}

/** The mean of a job's phases, as one load that makes the same heat and moves as much in the same time. */
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

/** A build at work: the phases of its job, or of writing on; what goes on for ever of them; and its likely cases. */
export type DescribedLoad = {
  /** Writing without end, whatever the job is. */
  endlessWrite: readonly Phase[];
  phases: readonly Phase[];
  steadyPhases: readonly Phase[];
  /** Share of its way that the case goes. */
  warmUpFraction: number;
  /** Made when somebody asks for them. */
  readonly cases: LikelyCases;
  /** Whether nothing of it ever throttles, not even in the likely hot case. */
  neverThrottles: boolean;
  freeGB: number;
};
const AT_REST: readonly Phase[] = [{ activity: 'idle', rate: 0, perMB: 0, volumeMB: Infinity }];

/**
 * How far the case gets at a job's own duty: the share of its way that it goes within one job, 1 - exp(-t / tau), or the share of
 * the day that the job takes, whichever is more. A job that does not say how often it comes is taken over and over.
 */
function warmUpFraction(thermal: ThermalModel, phases: readonly Phase[], perDay: number | undefined): number {
  if (perDay === undefined) return 1;
  let seconds = 0;
  for (const { rate, perMB, volumeMB } of phases) seconds += volumeMB / rate + volumeMB * perMB;
  return Math.min(1, Math.max(1 - Math.exp(-seconds / timeConstant(thermal.typical)), (perDay * seconds) / 86_400));
}

/** The phases that steady temperatures are for: a job at its own mean, else writing without end. */
export function describeLoad(
  thermal: ThermalModel,
  on: readonly Phase[],
  job: readonly Phase[] | null,
  perDay: number | undefined,
  rate: Band,
  freeGB: number
): DescribedLoad {
  const steadily = job ? [endless(meanLoad(thermal, job))] : on;
  const phases = job ?? on;
  let made: LikelyCases | undefined;
  const cases = () => (made ??= likelyCases(thermal, steadily[steadily.length - 1]!, rate));
  return {
    endlessWrite: on,
    phases,
    steadyPhases: steadily,
    warmUpFraction: job ? warmUpFraction(thermal, job, perDay) : 1,
    get cases() {
      return cases();
    },
    neverThrottles: neverThrottles(thermal, on, cases) && (!job || neverThrottles(thermal, job, cases)),
    freeGB
  };
}

const endless = ({ activity: work, rate, perMB }: Load): Phase => ({ activity: work, rate, perMB, volumeMB: Infinity });

type Made = { thermal: NonNullable<PlanReport['thermal']>; findings: Finding[]; decisions: AppliedRule[] };

/** What of a build the thermal report looks at beside how it warms. */
export type HeatOf = { enclosure: Enclosure; isDisk: boolean; rules: HouseRules | undefined };

/**
 * Gives the temperature of the bridge chip: it follows the case at once, so it is no body of its own but a rise over the case,
 * P x (6 - 10 - 16 K/W). The band takes both uncertainties as independent.
 */
function bridgeC({ typical: { draw, parameters } }: ThermalModel, steady: SteadyForecast, rate: number): Band {
  const watts = bridgeWatts(draw, rate) * parameters.bridge;
  const { caseC } = steady;
  const typical = caseC.typical + watts * BRIDGE_PATH.typical;
  return {
    low: typical - Math.hypot(caseC.typical - caseC.low, watts * (BRIDGE_PATH.typical - BRIDGE_PATH.low)),
    typical,
    high: typical + Math.hypot(caseC.high - caseC.typical, watts * (BRIDGE_PATH.high - BRIDGE_PATH.typical))
  };
}

/**
 * Writes the thermal part of a report. Steady temperatures are those of the job at its own duty: how far the case gets in it, or over
 * and over; without a job those of writing without end; without a link those at rest.
 */
export function thermalReport(
  of: HeatOf,
  thermal: ThermalModel,
  running: DescribedLoad | null,
  timeline: ThrottleTimeline | null
): Made {
  const { enclosure, rules } = of;
  const { typical: setting, limits } = thermal;
  const material = thermal.geometry.plastic ? 'plastic' : 'aluminium';
  const steadily = running?.steadyPhases ?? AT_REST;
  const load = steadily[steadily.length - 1]!;
  const cases = running?.cases ?? likelyCases(thermal, load, undefined);
  const cool = running?.neverThrottles ?? neverThrottles(thermal, steadily, () => cases);
  const steady = forecastSteady(thermal, steadily, cases, running?.warmUpFraction ?? 1, cool);
  const idlePower = powerAt(setting.geometry, setting.draw, setting.parameters, 'idle', 0);
  const idle = settledTemperatures(setting.network, idlePower);
  const idleW = wattsOf(idlePower);
  const bridge = bridgeC(thermal, steady, load.activity === 'idle' ? 0 : steady.typical.rate);

  let throttleAfterS: Band | null = null;
  if (running && !running.neverThrottles) {
    const going = withoutEnd(running.phases);
    const at = (s: Setting) => throttleTime(s, going, limits);
    const typical = at(setting);
    if (typical !== null) {
      // No write lasts longer than the drive has room.
      const longest = (running.freeGB * 1000) / Math.max(1, steady.typical.rate);
      const [hot, cool] = [at(cases.hot), at(cases.cool)];
      throttleAfterS = {
        low: Math.min(hot ?? typical, typical),
        typical,
        high: Math.max(cool ?? longest, typical)
      };
    }
  }

  const faceC = steady.caseC.typical;
  const touch = touchOf(faceC, material);
  const findings: Finding[] = [];
  const offAtS = timeline?.offAtS ?? null;
  if (running && limits && (offAtS !== null || steady.typical.form === 'off'))
    findings.push({
      code: 'drive-shuts-down',
      severity: 'check',
      about: 'drive',
      afterS: offAtS,
      offC: limits.offC
    });
  if (running && bridge.typical > BRIDGE_LIMIT_C)
    findings.push({
      code: 'bridge-too-hot',
      severity: 'check',
      about: 'enclosure',
      bridgeC: bridge.typical,
      limitC: BRIDGE_LIMIT_C
    });
  const decisions: AppliedRule[] = [];
  if (running && limits === null && steady.controllerC.typical > DISK_LIMIT_C)
    findings.push({
      code: 'disk-too-warm',
      severity: 'check',
      about: 'drive',
      diskC: steady.controllerC.typical,
      limitC: DISK_LIMIT_C
    });
  const asFault = chosenOption('hot-case', rules) === 'fault';
  const limitC = asFault ? TOUCH[material].tenMinutesC : TOUCH[material].tenSecondsC;
  // A surface that nobody measured or stated says "too hot" only where even the likely cool case is.
  const { cooling } = enclosure;
  const surelyC = cooling?.areaCm2 === undefined && !cooling?.measured ? steady.caseC.low : faceC;
  if (running && surelyC > limitC)
    findings.push({
      code: 'case-too-hot-to-hold',
      severity: 'check',
      about: 'enclosure',
      caseC: faceC,
      limitC,
      material,
      ...(asFault ? { rule: ruleName('hot-case', rules) } : {})
    });
  if (running && touch !== 'comfortable')
    decisions.push(
      appliedRule(
        'hot-case',
        rules,
        asFault
          ? `a case of ${Math.round(faceC)} °C is held against the limit for ten minutes of contact`
          : `a case of ${Math.round(faceC)} °C is judged by the chips and by burns within seconds alone`
      )
    );
  return {
    findings,
    decisions,
    thermal: {
      steadyCaseC: steady.caseC,
      steadyControllerC: steady.controllerC,
      steadyNandC: of.isDisk ? null : steady.nandC,
      steadyBridgeC: bridge,
      throttleAfterS,
      touch,
      form: steady.typical.form,
      load: { work: load.activity, MBps: load.rate, share: running?.warmUpFraction ?? 1 },
      watts: wattsOf(steady.typical.power),
      idleW,
      idleCaseC: idle.faceC,
      ejectedWhPerDay: {
        low: idleW * EJECTED_SHARE.low * 24,
        typical: idleW * EJECTED_SHARE.typical * 24,
        high: idleW * EJECTED_SHARE.high * 24
      },
      coolsInS: coolingTime(setting, steady.typical.caseC, idleW * EJECTED_SHARE.typical),
      peak: timeline
        ? { controllerC: timeline.peakControllerC, caseC: timeline.peakFaceC, throttleAtS: timeline.throttleAtS }
        : null,
      ambientC: setting.parameters.ambientC,
      material,
      timeConstantS: timeConstant(setting),
      startC: limits?.startC ?? null,
      influences: cases.influences
        .map(({ name, hotK, coolK }) => ({ what: PARAMETER_LABELS[name], hotK, coolK }))
        .sort((x, y) => Math.abs(y.hotK) - Math.abs(x.hotK)),
      fitted: cooling?.measured ? { ...cooling.measured } : null
    }
  };
}

/** A job that begins again and again. */
function withoutEnd(phases: readonly Phase[]): Phase[] {
  const last = phases[phases.length - 1]!;
  return [...phases.slice(0, -1), { ...last, volumeMB: Infinity }];
}
