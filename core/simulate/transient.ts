import type { Celsius, GB, MBps, Seconds } from '../quantities/measures.ts';
import { THROTTLE } from '../facts/thermal.ts';
import { type Activity, powerAt } from '../thermal/model/power.ts';
import { bridgeWatts } from '../chain/power-draw.ts';
import { Bodies } from '../thermal/model/bodies.ts';
import { settledTemperatures, type Power } from '../thermal/model/network.ts';
import { throttledRate, type ThrottleLimits, type ThrottleLevel } from '../thermal/throttling/throttle.ts';
import type { Setting } from '../thermal/model/setting.ts';
import type { Flow, FlowEvent } from './flow.ts';

/** A stretch of work: so much through this flow, or for so long, with the time that files cost beside their bytes. */
export type Leg = { flow: Flow; perMB: number; volumeGB: GB; seconds?: Seconds | undefined };

export const EVENT_KINDS = [
  'cliff',
  'host-cliff',
  'recovered',
  'smr-collapse',
  'pass-done',
  'throttle',
  'critical',
  'release',
  'off',
  'turn',
  'done'
] as const satisfies readonly (FlowEvent | 'throttle' | 'critical' | 'release' | 'off' | 'turn' | 'done')[];
export type EventKind = (typeof EVENT_KINDS)[number];

export type Transient = {
  samples: {
    t: Seconds[];
    MBps: MBps[];
    writtenGB: GB[];
    controllerC: Celsius[];
    nandC: Celsius[];
    /** The outer face. */
    caseC: Celsius[];
  };
  events: { t: Seconds; kind: EventKind }[];
  /** When the last leg was done; null if it was not within the time. */
  doneS: Seconds | null;
  movedGB: GB;
  peak: { controllerC: Celsius; nandC: Celsius; caseC: Celsius };
  /** Heat made, J; heat stored at the end less that at the beginning. */
  heatJ: number;
  storedJ: number;
};

export type TransientOptions = {
  seconds: Seconds;
  /** Between samples. */
  everyS: Seconds;
  /** Longest step of the solver; the sample interval where it is shorter. */
  stepS?: Seconds;
  /** Ends with the last leg, though there is time left. */
  untilDone?: boolean;
  start?: { controllerC: Celsius; nandC: Celsius; caseC: Celsius };
};

/** The longest step of the solver where nobody asks for another, s. */
const USUAL_STEP_S = 1;
/** Steps are never shorter than this, so that a change that is due now still lets time pass, s. */
const SHORTEST_S = 1e-6;
/** Times and volumes that differ by less are the same, s and GB. */
const SAME = 1e-9;
/** How exactly the moment of a crossed limit is found: halvings at most, and s. */
const CROSSING = { halvings: 40, s: 1e-7 } as const;

/** One build on the rig: what moves, what is let through, and how warm everything is. */
class TransientRun {
  readonly #setting: Setting;
  readonly #limits: ThrottleLimits | null;
  readonly #legs: readonly Leg[];
  readonly #everyS: Seconds;
  readonly #longestS: Seconds;
  readonly #untilDone: boolean;
  readonly #bodies: Bodies;
  readonly #idle: Power;
  readonly #bridgeAlone: Power;
  readonly #storedAtStart: number;
  readonly #samples: Transient['samples'] = { t: [], MBps: [], writtenGB: [], controllerC: [], nandC: [], caseC: [] };
  readonly #events: Transient['events'] = [];
  readonly #peak: Transient['peak'];

  #at: Seconds = 0;
  #leg = 0;
  #leftGB: GB;
  #leftS: Seconds;
  #level: ThrottleLevel = 0;
  /** Once it has switched itself off nothing is moved any more, and only the bridge makes heat. */
  #off = false;
  #movedGB: GB = 0;
  #writtenGB: GB = 0;
  #heatJ = 0;
  #doneS: Seconds | null;
  /** The power of the work that is on: the same for as long as nothing changes. */
  #powered: { rate: MBps; activity: Activity; power: Power };

  constructor(setting: Setting, limits: ThrottleLimits | null, legs: readonly Leg[], options: TransientOptions) {
    const { draw, parameters, network } = setting;
    this.#setting = setting;
    this.#limits = limits;
    this.#legs = legs;
    this.#everyS = options.everyS;
    this.#untilDone = options.untilDone === true;
    this.#longestS = Math.min(options.stepS ?? USUAL_STEP_S, options.everyS);
    this.#idle = powerAt(setting, 'idle', 0);
    this.#bridgeAlone = { controller: 0, nand: 0, case: bridgeWatts(draw, 0) * parameters.bridge + draw.fanW };
    this.#bodies = new Bodies(network, options.start ?? settledTemperatures(network, this.#idle));
    this.#storedAtStart = this.#bodies.storedJ;
    const { controllerC, nandC, faceC } = this.#bodies;
    this.#peak = { controllerC, nandC, caseC: faceC };
    this.#leftGB = legs[0]?.volumeGB ?? 0;
    this.#leftS = legs[0]?.seconds ?? Infinity;
    this.#doneS = legs.length === 0 ? 0 : null;
    this.#powered = { rate: 0, activity: 'idle', power: this.#idle };
  }

  run(seconds: Seconds): Transient {
    this.#record(0);
    while (this.#at < seconds - SAME && !this.#over) {
      const until = Math.min(seconds, this.#samples.t.length * this.#everyS);
      const [movedBefore, begun] = [this.#movedGB, this.#at];
      while (this.#at < until - SAME && !this.#over) this.#step(until);
      this.#record(((this.#movedGB - movedBefore) * 1000) / (this.#at - begun));
    }
    return {
      samples: this.#samples,
      events: this.#events,
      doneS: this.#doneS,
      movedGB: this.#movedGB,
      peak: this.#peak,
      heatJ: this.#heatJ,
      storedJ: this.#bodies.storedJ - this.#storedAtStart
    };
  }

  get #over(): boolean {
    return this.#untilDone && this.#doneS !== null;
  }

  #record(mean: MBps): void {
    const { nandC, faceC, controllerC } = this.#bodies;
    const samples = this.#samples;
    samples.t.push(this.#at);
    samples.MBps.push(mean);
    samples.writtenGB.push(this.#writtenGB);
    samples.controllerC.push(controllerC);
    samples.nandC.push(nandC);
    samples.caseC.push(faceC);
    // NAND and case are slow: between two samples they reach nothing that the samples do not show.
    if (nandC > this.#peak.nandC) this.#peak.nandC = nandC;
    if (faceC > this.#peak.caseC) this.#peak.caseC = faceC;
  }

  /** One step, as far as the next thing that changes. */
  #step(until: Seconds): void {
    const leg = this.#off ? undefined : this.#legs[this.#leg];
    const rate = leg
      ? throttledRate({ activity: 'write', rate: leg.flow.rate(), perMB: leg.perMB }, THROTTLE.factors[this.#level])
      : 0;
    const activity = leg ? leg.flow.work() : 'idle';
    const power = this.#powerOf(leg, activity, rate);
    const most = this.#most(leg, rate, until);
    this.#bodies.step(power, most);
    const reached = this.#bodies.controllerC;
    const crossed = this.#crossed(reached);
    const seconds = crossed ? this.#backToCrossing(crossed, power, most) : most;
    this.#at += seconds;
    this.#heatJ += (power.controller + power.nand + power.case) * seconds;
    if (reached > this.#peak.controllerC) this.#peak.controllerC = this.#bodies.controllerC;
    this.#advance(leg, rate, seconds);
    if (leg) this.#move(activity, (rate * seconds) / 1000, seconds);
    if (crossed) this.#changeLevel(crossed);
  }

  #powerOf(leg: Leg | undefined, activity: Activity, rate: MBps): Power {
    if (this.#off) return this.#bridgeAlone;
    if (!leg) return this.#idle;
    if (rate !== this.#powered.rate || activity !== this.#powered.activity)
      this.#powered = { rate, activity, power: powerAt(this.#setting, activity, rate) };
    return this.#powered.power;
  }

  /** The longest that the next step may be, s: a change of the flow falls on the end of a step. */
  #most(leg: Leg | undefined, rate: MBps, until: Seconds): Seconds {
    let most = Math.min(this.#longestS, until - this.#at);
    const last = this.#legs[this.#legs.length - 1];
    if (leg) {
      most = Math.min(most, Math.max(leg.flow.untilChange(rate), SHORTEST_S), Math.max(this.#leftS, SHORTEST_S));
      if (rate > 0) most = Math.min(most, Math.max((this.#leftGB * 1000) / rate, SHORTEST_S));
    } else if (last && !this.#off) most = Math.min(most, Math.max(last.flow.untilChange(0), SHORTEST_S));
    return most;
  }

  /** The temperatures that are watched for at a level: upwards to the next one, downwards to the release. */
  #bounds(): { high: Celsius; low: Celsius } {
    const limits = this.#limits;
    if (!limits || this.#off) return { high: Infinity, low: -Infinity };
    const { startC, criticalC, releaseK, offC } = limits;
    if (this.#level === 0) return { high: startC, low: -Infinity };
    return this.#level === 1 ? { high: criticalC, low: startC - releaseK } : { high: offC, low: criticalC - releaseK };
  }

  #crossed(controllerC: Celsius): 'up' | 'down' | undefined {
    const { high, low } = this.#bounds();
    return controllerC > high ? 'up' : controllerC < low ? 'down' : undefined;
  }

  /** Goes the last step again as far as the moment at which the limit was crossed. @returns its length, s */
  #backToCrossing(crossed: 'up' | 'down', power: Power, step: Seconds): Seconds {
    const { high, low } = this.#bounds();
    let [a, b] = [0, step];
    for (let i = 0; i < CROSSING.halvings && b - a > CROSSING.s; i++) {
      const middle = (a + b) / 2;
      const there = this.#bodies.controllerAt(middle);
      if (crossed === 'up' ? there > high : there < low) b = middle;
      else a = middle;
    }
    this.#bodies.back();
    this.#bodies.step(power, b);
    return b;
  }

  /** Lets the flow go on; at rest the last one recovers. */
  #advance(leg: Leg | undefined, rate: MBps, seconds: Seconds): void {
    const flow = leg?.flow ?? (this.#off ? undefined : this.#legs[this.#legs.length - 1]?.flow);
    const event = flow?.advance(rate, seconds);
    if (event) this.#events.push({ t: this.#at, kind: event });
  }

  #move(activity: Activity, gb: GB, seconds: Seconds): void {
    this.#movedGB += gb;
    if (activity !== 'read') this.#writtenGB += gb;
    this.#leftGB -= gb;
    this.#leftS -= seconds;
    if (this.#leftGB > SAME && this.#leftS > SAME) return;
    this.#leg += 1;
    this.#leftGB = this.#legs[this.#leg]?.volumeGB ?? 0;
    this.#leftS = this.#legs[this.#leg]?.seconds ?? Infinity;
    const goesOn = this.#leg < this.#legs.length;
    if (!goesOn) this.#doneS = this.#at;
    this.#events.push({ t: this.#at, kind: goesOn ? 'turn' : 'done' });
  }

  #changeLevel(crossed: 'up' | 'down'): void {
    if (crossed === 'up' && this.#level === 2) this.#off = true;
    else this.#level = (this.#level + (crossed === 'up' ? 1 : -1)) as ThrottleLevel;
    const kind = this.#off ? 'off' : crossed === 'down' ? 'release' : this.#level === 2 ? 'critical' : 'throttle';
    this.#events.push({ t: this.#at, kind });
  }
}

/**
 * Follows a build second by second: the flow says what would move, the throttle what is let through, the bodies how warm it
 * gets. A change of the flow falls on the end of a step; the moment at which the drive's temperature crosses a limit is found
 * inside the step, so that the length of a step does not decide when it throttles.
 * @param limits null for a drive that does not throttle
 * @param legs what moves, one after the other; at rest where there are none
 * @returns samples in which `MBps[i]` is the mean over (t[i-1], t[i]]; GB, °C, J
 */
export const runTransient = (
  setting: Setting,
  limits: ThrottleLimits | null,
  legs: readonly Leg[],
  options: TransientOptions
): Transient => new TransientRun(setting, limits, legs, options).run(options.seconds);
