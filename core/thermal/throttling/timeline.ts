/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices below the number of phases and levels, in the inner loop */
import type { Celsius, GB, MBps, Seconds } from '../../quantities/measures.ts';
import { faceRise, settledTemperatures, type Power } from '../model/network.ts';
import { powerAt } from '../model/power.ts';
import { NOTHING, PhaseVolume, type Phase } from './phase-volume.ts';
import { SlowCase, type ThermalState } from './slow-case.ts';
import {
  blend,
  dutyOf,
  rateLevels,
  type RateLevels,
  type ThrottleForm,
  type ThrottleLevel,
  type ThrottleLimits
} from './throttle.ts';
import type { Setting } from '../model/setting.ts';

export type ThrottleTimeline = {
  seconds: Seconds;
  movedGB: GB;
  /** When the drive throttles for the first time; null if it does not. */
  throttleAtS: Seconds | null;
  /** When it switches itself off; what comes after that is followed as if it had not. */
  offAtS: Seconds | null;
  form: ThrottleForm;
  /** The level of throttling at the end; in a saw-tooth the one where it spends more of its time. */
  level: ThrottleLevel;
  /** Mean rate from the first throttling on. */
  throttledMBps: MBps;
  peakControllerC: Celsius;
  peakCaseC: Celsius;
  peakFaceC: Celsius;
};

/** Where to begin and where to stop. */
export type FollowOptions = {
  /** Stops here, where the phases have no end. */
  horizonS?: Seconds;
  /** Temperatures at the beginning; those at rest where left out. */
  start?: { controllerC: Celsius; nandC: Celsius; caseC: Celsius };
  /** Stops at the first throttling, or where the last phase has settled without one. */
  untilThrottle?: boolean;
};

/** A case that moves less than this in a longest step has settled, K; and so far from a limit chips stay on their side of it. */
const SETTLED_K = 1e-4;
const NEAR_K = 0.01;
/** A case that moves less than this in a longest step brings the chips to no limit any more, K. */
const CALM_K = 1e-3;
/** Turns of a slow saw-tooth that differ by less than this share are one like the other. */
const SAME_PERIOD = 1e-3;
/** Halvings that find the moment within a step at which a limit is crossed. */
const HALVINGS = 14;

/** Steps of the case: short where everything moves, then longer by this factor up to `SlowCase.longestS`, s. */
const FIRST_S = 4;
const GROWTH = 1.5;

const UNLIMITED = { startC: Infinity, criticalC: Infinity, releaseK: 0, offC: Infinity } as const;

/** What becomes of following after one step: on, on to the next phase, or no further. */
type Going = 'on' | 'phase-over' | 'stop';

/** One crossing of a limit: when, and how much had been moved by then. */
type Turn = { seconds: Seconds; movedMB: number; periodS: Seconds };

/** One build on its way through the phases of a job. */
class Follower {
  readonly #setting: Setting;
  readonly #case: SlowCase;
  readonly #horizonS: Seconds;
  readonly #untilThrottle: boolean;
  /** A drive that has switched itself off once is followed as if it had not: its limit is lifted. */
  #limits: { startC: Celsius; criticalC: Celsius; releaseK: number; offC: Celsius };
  readonly #offC: Celsius;

  #state: ThermalState;
  #seconds: Seconds = 0;
  #movedMB = 0;
  #movedAtThrottleMB = 0;
  #throttleAtS: Seconds | null = null;
  #offAtS: Seconds | null = null;
  #form: ThrottleForm = 'none';
  #level: ThrottleLevel = 0;
  /** Whether it goes up and down between this level and the one below it too quickly to follow, and the time in the upper one. */
  #inTooth = false;
  #upperShare = 1;
  #peakControllerC: Celsius;
  #peakCaseC: Celsius;

  // Of the phase that is on.
  #levels!: RateLevels;
  #volume!: PhaseVolume;
  #stepS: Seconds = FIRST_S;
  #lastTurn: Turn | undefined;

  constructor(setting: Setting, limits: ThrottleLimits | null, options: FollowOptions) {
    const { network } = setting;
    const at = options.start ?? settledTemperatures(network, powerAt(setting, 'idle', 0));
    this.#setting = setting;
    this.#case = new SlowCase(network);
    this.#horizonS = options.horizonS ?? Infinity;
    this.#untilThrottle = options.untilThrottle ?? false;
    this.#limits = { ...(limits ?? UNLIMITED) };
    this.#offC = this.#limits.offC;
    this.#state = { caseC: at.caseC, controller: at.controllerC - at.caseC, nand: at.nandC - at.caseC };
    this.#peakControllerC = this.#state.caseC + this.#state.controller;
    this.#peakCaseC = this.#state.caseC;
  }

  follow(phases: readonly Phase[]): void {
    let owedMB = 0;
    for (let i = 0; i < phases.length; i++) {
      this.#levels = rateLevels(this.#setting, phases[i]!);
      this.#volume = new PhaseVolume(phases[i]!, phases[i + 1], owedMB);
      this.#stepS = FIRST_S;
      this.#lastTurn = undefined;
      let going: Going = 'on';
      while (going === 'on' && this.#seconds < this.#horizonS && this.#volume.goesOn(this.#levels[this.#level].rate))
        going = this.#inTooth ? this.#stepInTooth() : this.#stepAtLevel();
      if (going === 'stop') return;
      owedMB = this.#volume.owedMB;
    }
  }

  /** The most that one step may last at a rate, s. */
  #most(rate: MBps): Seconds {
    return Math.min(this.#stepS, this.#volume.secondsLeft(rate), this.#horizonS - this.#seconds);
  }

  #move(rate: MBps, seconds: Seconds): void {
    this.#movedMB += rate * seconds;
    this.#seconds += seconds;
    this.#volume.take(rate, seconds);
  }

  /** What has settled goes on as it is: a job of months is no more work than one of hours. */
  #moveToEnd(rate: MBps): void {
    this.#move(rate, Math.max(0, Math.min(this.#volume.secondsLeft(rate), this.#horizonS - this.#seconds)));
  }

  #see(controllerC: Celsius): void {
    if (controllerC > this.#peakControllerC) this.#peakControllerC = controllerC;
    if (this.#state.caseC > this.#peakCaseC) this.#peakCaseC = this.#state.caseC;
  }

  #slower(): void {
    this.#level = (this.#level + 1) as 1 | 2;
  }

  /** One step of a quick saw-tooth: the mean of its two rates at the case's temperature in the middle of the step. */
  #stepInTooth(): Going {
    const { startC, criticalC, releaseK } = this.#limits;
    const [fast, slow] = [this.#levels[this.#level], this.#levels[this.#level + 1]!];
    const high = this.#level === 0 ? startC : criticalC;
    const shareAt = (caseC: Celsius) => dutyOf(caseC + fast.rise, caseC + slow.rise, high - releaseK, high);
    const here = blend(fast, slow, shareAt(this.#state.caseC));
    if (here.rate <= 0) return 'phase-over';
    const most = this.#most(here.rate);
    const share = shareAt(this.#case.after(this.#state, here.power, most / 2).caseC);
    if (share >= 1 || share <= 0) {
      // Cool enough for the faster rate, or too warm to come back from the slower one.
      this.#inTooth = false;
      if (share <= 0) this.#slower();
      this.#stepS = FIRST_S;
      return 'on';
    }
    this.#upperShare = share;
    const mean = blend(fast, slow, share);
    const seconds = Math.min(most, this.#volume.secondsLeft(mean.rate));
    if (seconds <= NOTHING) return 'phase-over';
    const before = this.#state.caseC;
    this.#state = this.#case.after(this.#state, mean.power, seconds);
    this.#form = 'saw-tooth';
    this.#see(high);
    this.#move(mean.rate, seconds);
    if (seconds >= this.#case.longestS && Math.abs(this.#state.caseC - before) < SETTLED_K) this.#moveToEnd(mean.rate);
    this.#stepS = Math.min(this.#stepS * GROWTH, this.#case.longestS);
    return 'on';
  }

  /** Temperatures of the controller between which the drive stays at its level. */
  #bounds(): { above: Celsius; below: Celsius } {
    const { startC, criticalC, releaseK, offC } = this.#limits;
    if (this.#level === 0) return { above: startC, below: -Infinity };
    return this.#level === 1
      ? { above: criticalC, below: startC - releaseK }
      : { above: offC, below: criticalC - releaseK };
  }

  /** One step at one rate, as far as the next limit. */
  #stepAtLevel(): Going {
    const { rate, power } = this.#levels[this.#level];
    if (rate <= 0) return 'phase-over';
    const most = this.#most(rate);
    const { above, below } = this.#bounds();
    const outside = ({ caseC, controller }: ThermalState) => caseC + controller > above || caseC + controller < below;
    let then = this.#case.after(this.#state, power, most);
    const crossed = outside(then);
    const seconds = crossed ? this.#crossing(power, most, outside) : most;
    if (crossed) then = this.#case.after(this.#state, power, seconds);
    const changeK = Math.abs(then.caseC - this.#state.caseC);
    const chipC = then.caseC + then.controller;
    this.#state = then;
    this.#see(chipC);
    this.#move(rate, seconds);
    this.#stepS = Math.min(this.#stepS * GROWTH, this.#case.longestS);
    if (crossed) return this.#cross(above, below);
    if (seconds >= this.#case.longestS) {
      const forGood = changeK < SETTLED_K && chipC + NEAR_K < above && chipC - NEAR_K > below;
      if (this.#untilThrottle && changeK < CALM_K) this.#volume.drop();
      else if (forGood) this.#moveToEnd(rate);
    }
    return 'on';
  }

  /** Finds the moment within a step at which a limit is crossed, by halving: the way up to it is known exactly. */
  #crossing(power: Power, most: Seconds, outside: (state: ThermalState) => boolean): Seconds {
    let [low, high] = [0, most];
    for (let i = 0; i < HALVINGS; i++) {
      const middle = (low + high) / 2;
      if (outside(this.#case.after(this.#state, power, middle))) high = middle;
      else low = middle;
    }
    return high;
  }

  /** Changes the level after a limit was crossed. */
  #cross(above: Celsius, below: Celsius): Going {
    this.#stepS = FIRST_S;
    if (this.#state.caseC + this.#state.controller < below) {
      this.#level = (this.#level - 1) as 0 | 1;
      return 'on';
    }
    this.#skipEqualTurns();
    if (this.#throttleAtS === null) {
      this.#throttleAtS = this.#seconds;
      this.#movedAtThrottleMB = this.#movedMB;
      if (this.#untilThrottle) return 'stop';
    }
    if (this.#level === 2) {
      this.#offAtS = this.#seconds;
      this.#limits.offC = Infinity;
      this.#form = 'off';
      return 'on';
    }
    // At the slower rate it would be cool again by itself within seconds, and hot within seconds after: only their mean matters.
    if (this.#state.caseC + this.#levels[this.#level + 1]!.rise < above - this.#limits.releaseK) this.#inTooth = true;
    else {
      this.#slower();
      if (this.#form === 'none') this.#form = 'plateau';
    }
    return 'on';
  }

  /** A slow saw-tooth that repeats itself is followed no further: whole turns of it pass at its mean rate. */
  #skipEqualTurns(): void {
    const last = this.#lastTurn;
    if (!last) {
      this.#lastTurn = { seconds: this.#seconds, movedMB: this.#movedMB, periodS: 0 };
      return;
    }
    const periodS = this.#seconds - last.seconds;
    const mean = (this.#movedMB - last.movedMB) / periodS;
    const left = Math.min(this.#volume.secondsLeft(mean), this.#horizonS - this.#seconds);
    const turns = Math.floor(left / periodS) - 1;
    if (Math.abs(periodS - last.periodS) < SAME_PERIOD * periodS && turns > 0) this.#move(mean, turns * periodS);
    this.#lastTurn = { seconds: this.#seconds, movedMB: this.#movedMB, periodS };
  }

  get timeline(): ThrottleTimeline {
    const { surface, ambientC } = this.#setting.network;
    const throttledS = this.#throttleAtS === null ? 0 : this.#seconds - this.#throttleAtS;
    return {
      seconds: this.#seconds,
      movedGB: this.#movedMB / 1000,
      throttleAtS: this.#throttleAtS,
      offAtS: this.#offAtS,
      form: this.#form,
      level: this.#inTooth && this.#upperShare < 0.5 ? ((this.#level + 1) as 1 | 2) : this.#level,
      throttledMBps: throttledS > 0 ? (this.#movedMB - this.#movedAtThrottleMB) / throttledS : 0,
      peakControllerC: Math.min(this.#peakControllerC, this.#offC),
      peakCaseC: this.#peakCaseC,
      peakFaceC: ambientC + faceRise(surface, this.#peakCaseC - ambientC, ambientC)
    };
  }
}

/**
 * Follows a job through its phases in closed form and returns time, peak temperatures and throttling: the case as one slow body,
 * controller and NAND over it in two fast modes, and, from the first throttling on, the mean rate that the temperature of the case
 * allows. Some dozen steps for an hour.
 * @param phases in their order; only the last may be without end, and then `horizonS` ends it
 * @param limits null for a drive that does not throttle
 * @returns seconds, GB and °C; the peak of the controller is never above the temperature at which the drive switches itself off
 */
export function followThrottling(
  setting: Setting,
  phases: readonly Phase[],
  limits: ThrottleLimits | null,
  options: FollowOptions = {}
): ThrottleTimeline {
  const follower = new Follower(setting, limits, options);
  follower.follow(phases);
  return follower.timeline;
}
