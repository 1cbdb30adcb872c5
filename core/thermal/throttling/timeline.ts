import type { Celsius, GB, MBps, Seconds } from '../../quantities/measures.ts';
import { roomLeft, type CacheFill } from '../../throughput/flash-cache.ts';
import { chipsAfter, chipModes } from './chip-modes.ts';
import { chipRises, faceRise, heatOut, settledTemperatures, type Power } from '../model/network.ts';
import { powerAt, wattsOf } from '../model/power.ts';
import {
  dutyOf,
  blend,
  rateLevels,
  type ThrottleForm,
  type ThrottleLimits,
  type Load,
  type Setting
} from './throttle.ts';

/**
 * A load and how much of it there is, MB; the last one may be without end. A phase that fills a cache ends when that is full, which
 * is later at a throttled rate; what it moves beyond its volume is taken off the phase after it.
 */
export type Phase = Load & { volumeMB: number; fills?: CacheFill };

/** Temperatures on their way: of the case, and of controller and NAND over it. */
type State = { caseC: Celsius; controller: number; nand: number };

export type ThrottleTimeline = {
  seconds: Seconds;
  movedGB: GB;
  /** When the drive throttles for the first time; null if it does not. */
  throttleAtS: Seconds | null;
  /** When it switches itself off; what comes after that is followed as if it had not. */
  offAtS: Seconds | null;
  form: ThrottleForm;
  /** The level of throttling at the end; in a saw-tooth the one where it spends more of its time. */
  level: 0 | 1 | 2;
  /** Mean rate from the first throttling on. */
  throttledMBps: MBps;
  peakControllerC: Celsius;
  peakCaseC: Celsius;
  peakFaceC: Celsius;
};

/** A case that moves less than this in a longest step has settled, K; and so far from a limit chips stay on their side of it. */
const SETTLED_K = 1e-4;
const NEAR_K = 0.01;
/** Turns of a slow tooth that differ by less than this share are one like the other. */
const SAME_PERIOD = 1e-3;

/** Steps of the slow body: short where everything moves, then a share of its time constant, s. */
const FIRST_S = 4;
const GROWTH = 1.5;
const LONGEST_SHARE = 0.12;

/**
 * Follows a job through its phases in closed form: the case as one slow body with all of the heat capacity, controller and NAND
 * over it as two fast modes whose course is known exactly, and, from the first throttling on, the mean rate that the case's
 * temperature allows. Some dozen steps for an hour.
 * @param horizonS stops here, where the phases have no end
 * @param more.start temperatures when it begins; settled idle where left out
 * @param more.untilThrottle stops at the first throttling, or where the last phase has settled without one
 */
export function followThrottling(
  setting: Setting,
  phases: readonly Phase[],
  limits: ThrottleLimits | null,
  horizonS: Seconds = Infinity,
  more: { untilThrottle?: boolean; start?: { controllerC: Celsius; nandC: Celsius; caseC: Celsius } } = {}
): ThrottleTimeline {
  const { network, geometry, draw, parameters } = setting;
  const { surface, ambientC, controllerJK, nandJK, caseJK } = network;
  const first = more.start ?? settledTemperatures(network, powerAt(geometry, draw, parameters, 'idle', 0));
  const whole = controllerJK + nandJK + caseJK;
  const followers = chipModes(network);
  const longest = (LONGEST_SHARE * whole) / (heatOut(surface, 20, ambientC) / 20);
  let state: State = {
    caseC: first.caseC,
    controller: first.controllerC - first.caseC,
    nand: first.nandC - first.caseC
  };

  /** The state after some seconds of constant power. */
  const after = (from: State, power: Power, seconds: Seconds): State => {
    const watts = wattsOf(power);
    const storedAt = whole * from.caseC + controllerJK * from.controller + nandJK * from.nand;
    const leaves = (caseC: Celsius) => heatOut(surface, caseC - ambientC, ambientC);
    const at = (dt: Seconds, slope: number, out: number): State => {
      // The chips lag behind a case that warms: a constant pull of C x slope on each of them.
      const end = chipRises(network, power.controller - controllerJK * slope, power.nand - nandJK * slope);
      const { controller, nand } = chipsAfter(followers, from, end, dt);
      const stored = storedAt + (watts - out) * dt;
      return { caseC: (stored - controllerJK * controller - nandJK * nand) / whole, controller, nand };
    };
    const out = leaves(from.caseC);
    const middle = at(seconds / 2, (watts - out) / whole, out);
    const outMiddle = leaves(middle.caseC);
    return at(seconds, (watts - outMiddle) / whole, outMiddle);
  };

  let seconds = 0;
  let movedMB = 0;
  let movedAtThrottle = 0;
  let throttleAtS: Seconds | null = null;
  let offAtS: Seconds | null = null;
  let form: ThrottleForm = 'none';
  let level: 0 | 1 | 2 = 0;
  /** Between this level and the one below it goes up and down too quickly to follow. */
  let quick = false;
  let lastShare = 1;
  let [peakControllerC, peakCaseC] = [state.caseC + state.controller, state.caseC];
  const see = (controllerC: Celsius) => {
    if (controllerC > peakControllerC) peakControllerC = controllerC;
    if (state.caseC > peakCaseC) peakCaseC = state.caseC;
  };
  const startC = limits?.startC ?? Infinity;
  const criticalC = limits?.criticalC ?? Infinity;
  const releaseK = limits?.releaseK ?? 0;
  let offC = limits?.offC ?? Infinity;

  let owedMB = 0;
  done: for (const [at, phase] of phases.entries()) {
    const steps = rateLevels(setting, phase);
    const next = phases[at + 1];
    const whole = phase.volumeMB + (phase.fills && next ? next.volumeMB : 0);
    let left = phase.fills ? whole : Math.max(0, phase.volumeMB - owedMB);
    let [heldGB, writtenGB] = [0, 0];
    /** Seconds until the phase is over at this rate. */
    const untilEnd = (rate: MBps) =>
      Math.min(left, phase.fills && next ? roomLeft(phase.fills, heldGB, writtenGB, rate) * 1000 : left) / rate;
    const move = (rate: MBps, dt: Seconds) => {
      movedMB += rate * dt;
      left -= rate * dt;
      seconds += dt;
      if (!phase.fills) return;
      writtenGB += (rate * dt) / 1000;
      heldGB = Math.max(0, heldGB + ((rate - phase.fills.drain) * dt) / 1000);
    };
    const goesOn = (rate: MBps) => left > 1e-9 && untilEnd(rate) > 1e-9;
    let step = FIRST_S;
    let last: { seconds: Seconds; movedMB: number; period: Seconds } | undefined;
    while (seconds < horizonS && goesOn(steps[level].rate)) {
      if (quick) {
        // The mean of the tooth at the case's temperature in the middle of the step.
        const [fast, slow] = [steps[level], steps[level + 1]!];
        const high = level === 0 ? startC : criticalC;
        const share = (caseC: Celsius) => dutyOf(caseC + fast.rise, caseC + slow.rise, high - releaseK, high);
        const here = blend(fast, slow, share(state.caseC));
        if (here.rate <= 0) break;
        let dt = Math.min(step, untilEnd(here.rate), horizonS - seconds);
        const middle = after(state, here.power, dt / 2);
        const part = share(middle.caseC);
        if (part >= 1 || part <= 0) {
          // Cool enough for the faster rate, or too warm to come back from the slower one.
          quick = false;
          if (part <= 0) level = (level + 1) as 1 | 2;
          step = FIRST_S;
          continue;
        }
        lastShare = part;
        const mean = blend(fast, slow, part);
        dt = Math.min(dt, untilEnd(mean.rate));
        if (dt <= 1e-9) break;
        const before = state.caseC;
        state = after(state, mean.power, dt);
        form = 'saw-tooth';
        see(high);
        move(mean.rate, dt);
        // What has settled goes on as it is: a job of months is no more work than one of hours.
        if (dt >= longest && Math.abs(state.caseC - before) < SETTLED_K)
          move(mean.rate, Math.max(0, Math.min(untilEnd(mean.rate), horizonS - seconds)));
        step = Math.min(step * GROWTH, longest);
        continue;
      }
      const { rate, power } = steps[level];
      if (rate <= 0) break;
      let dt = Math.min(step, untilEnd(rate), horizonS - seconds);
      const above = level === 0 ? startC : level === 1 ? criticalC : offC;
      const below = level === 0 ? -Infinity : (level === 1 ? startC : criticalC) - releaseK;
      const outside = (s: State) => s.caseC + s.controller > above || s.caseC + s.controller < below;
      let then = after(state, power, dt);
      const crossed = outside(then);
      if (crossed) {
        // The moment within the step, by halving: the way up to it is known exactly.
        let [low, high] = [0, dt];
        for (let i = 0; i < 14; i++) {
          dt = (low + high) / 2;
          then = after(state, power, dt);
          if (outside(then)) high = dt;
          else low = dt;
        }
        dt = high;
        then = after(state, power, dt);
      }
      const change = Math.abs(then.caseC - state.caseC);
      const settledDown = dt >= longest && change < 1e-3;
      const chipC = then.caseC + then.controller;
      const forGood = dt >= longest && change < SETTLED_K && chipC + NEAR_K < above && chipC - NEAR_K > below;
      state = then;
      see(state.caseC + state.controller);
      move(rate, dt);
      step = Math.min(step * GROWTH, longest);
      if (more.untilThrottle && settledDown && !crossed) left = 0;
      else if (forGood && !crossed) move(rate, Math.max(0, Math.min(untilEnd(rate), horizonS - seconds)));
      if (!crossed) continue;
      step = FIRST_S;
      if (state.caseC + state.controller < below) {
        level = (level - 1) as 0 | 1;
        continue;
      }
      if (last) {
        // A slow tooth that repeats itself is followed no further: whole turns of it pass at its mean rate.
        const period = seconds - last.seconds;
        const mean = (movedMB - last.movedMB) / period;
        const turns = Math.floor(Math.min(untilEnd(mean), horizonS - seconds) / period) - 1;
        if (Math.abs(period - last.period) < SAME_PERIOD * period && turns > 0) move(mean, turns * period);
        last = { seconds, movedMB, period };
      } else last = { seconds, movedMB, period: 0 };
      if (throttleAtS === null) {
        throttleAtS = seconds;
        movedAtThrottle = movedMB;
        if (more.untilThrottle) break done;
      }
      if (level === 2) {
        offAtS = seconds;
        offC = Infinity;
        form = 'off';
        continue;
      }
      // At the slower rate it would be cool again by itself within seconds, and hot within seconds after: only their mean matters.
      const slower = steps[level + 1]!;
      if (state.caseC + slower.rise < above - releaseK) quick = true;
      else {
        level = (level + 1) as 1 | 2;
        if (form === 'none') form = 'plateau';
      }
    }
    owedMB = phase.fills && next ? writtenGB * 1000 - phase.volumeMB : 0;
  }
  const throttledS = throttleAtS === null ? 0 : seconds - throttleAtS;
  const throttledMBps = throttledS > 0 ? (movedMB - movedAtThrottle) / throttledS : 0;
  const peakFaceC = ambientC + faceRise(surface, peakCaseC - ambientC, ambientC);
  const movedGB = movedMB / 1000;
  return {
    seconds,
    movedGB,
    throttleAtS,
    offAtS,
    form,
    level: quick && lastShare < 0.5 ? ((level + 1) as 1 | 2) : level,
    throttledMBps,
    peakControllerC: Math.min(peakControllerC, limits?.offC ?? Infinity),
    peakCaseC,
    peakFaceC
  };
}
