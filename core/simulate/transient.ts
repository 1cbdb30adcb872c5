import type { Celsius, GB, MBps, Seconds } from '../quantities/measures.ts';
import { THROTTLE } from '../facts/thermal.ts';
import type { Activity } from '../thermal/model/power.ts';
import { bridgeWatts } from '../chain/power-draw.ts';
import { Bodies } from '../thermal/model/bodies.ts';
import { settledTemperatures, type Power } from '../thermal/model/network.ts';
import { powerAt } from '../thermal/model/power.ts';
import { throttledRate, type ThrottleLimits, type Setting } from '../thermal/throttling/throttle.ts';
import type { Flow, FlowEvent } from './flow.ts';

/** A stretch of work: so much through this flow, with the time that files cost beside their bytes. */
export type Leg = { flow: Flow; perMB: number; volumeGB: GB };

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
  start?: { controllerC: Celsius; nandC: Celsius; caseC: Celsius };
};

/**
 * Follows a build second by second: the flow says what would move, the throttle what is let through, the bodies how warm it
 * gets. A change of the flow falls on the end of a step; the moment at which the drive's temperature crosses a limit is found
 * inside the step, so that the length of a step does not decide when it throttles.
 * `MBps[i]` is the mean over (t[i-1], t[i]].
 */
export function runTransient(
  setting: Setting,
  limits: ThrottleLimits | null,
  legs: readonly Leg[],
  options: TransientOptions
): Transient {
  const { geometry, draw, parameters, network } = setting;
  const { seconds, everyS } = options;
  const longest = Math.min(options.stepS ?? 1, everyS);
  const idle = powerAt(geometry, draw, parameters, 'idle', 0);
  const bodies = new Bodies(network, options.start ?? settledTemperatures(network, idle));
  const storedAtStart = bodies.storedJ;
  const samples: Transient['samples'] = { t: [], MBps: [], writtenGB: [], controllerC: [], nandC: [], caseC: [] };
  const events: Transient['events'] = [];
  const peak = { controllerC: bodies.controllerC, nandC: bodies.nandC, caseC: bodies.faceC };

  let at = 0;
  let leg = 0;
  let leftGB = legs[0]?.volumeGB ?? 0;
  let level: 0 | 1 | 2 = 0;
  /** Once it has switched itself off nothing is moved any more, and only the bridge makes heat. */
  let off = false;
  const bridgeAlone: Power = { controller: 0, nand: 0, case: bridgeWatts(draw, 0) * parameters.bridge + draw.fanW };
  let [moved, written, heatJ] = [0, 0, 0];
  let doneS: Seconds | null = legs.length === 0 ? 0 : null;
  const record = (mean: MBps) => {
    const { nandC, faceC } = bodies;
    samples.t.push(at);
    samples.MBps.push(mean);
    samples.writtenGB.push(written);
    samples.controllerC.push(bodies.controllerC);
    samples.nandC.push(nandC);
    samples.caseC.push(faceC);
    // NAND and case are slow: between two samples they reach nothing that the samples do not show.
    if (nandC > peak.nandC) peak.nandC = nandC;
    if (faceC > peak.caseC) peak.caseC = faceC;
  };
  record(0);
  let powered: { rate: MBps; work: Activity; power: Power } = { rate: 0, work: 'idle', power: idle };

  /** The limit that the temperature is watched for at a level: upwards to the next step, downwards to the release. */
  const upper = () => (!limits || off ? Infinity : [limits.startC, limits.criticalC, limits.offC][level]!);
  const lower = () =>
    !limits || off || level === 0 ? -Infinity : (level === 1 ? limits.startC : limits.criticalC) - limits.releaseK;

  while (at < seconds - 1e-9) {
    const until = Math.min(seconds, samples.t.length * everyS);
    const movedBefore = moved;
    const begun = at;
    while (at < until - 1e-9) {
      const now = off ? undefined : legs[leg];
      const full = now ? now.flow.rate() : 0;
      const rate = now
        ? throttledRate({ activity: 'write', rate: full, perMB: now.perMB }, THROTTLE.factors[level]!)
        : 0;
      const work = now ? now.flow.work() : 'idle';
      // The same power for as long as nothing changes.
      if (now && (rate !== powered.rate || work !== powered.work))
        powered = { rate, work, power: powerAt(geometry, draw, parameters, work, rate) };
      const power = off ? bridgeAlone : now ? powered.power : idle;
      const last = legs[legs.length - 1];
      let step = Math.min(longest, until - at);
      if (now) {
        step = Math.min(step, Math.max(now.flow.untilChange(rate), 1e-6));
        if (rate > 0) step = Math.min(step, Math.max((leftGB * 1000) / rate, 1e-6));
      } else if (last && !off) step = Math.min(step, Math.max(last.flow.untilChange(0), 1e-6));

      bodies.step(power, step);
      const [high, low] = [upper(), lower()];
      const reached = bodies.controllerC;
      const crossed: 'up' | 'down' | undefined = reached > high ? 'up' : reached < low ? 'down' : undefined;
      if (crossed) {
        let [a, b] = [0, step];
        for (let i = 0; i < 40 && b - a > 1e-7; i++) {
          const middle = (a + b) / 2;
          const there = bodies.controllerAt(middle);
          if (crossed === 'up' ? there > high : there < low) b = middle;
          else a = middle;
        }
        bodies.back();
        step = b;
        bodies.step(power, step);
      }
      at += step;
      heatJ += (power.controller + power.nand + power.case) * step;
      if (reached > peak.controllerC) peak.controllerC = bodies.controllerC;
      const event = now ? now.flow.advance(rate, step) : off ? undefined : last?.flow.advance(0, step);
      if (event) events.push({ t: at, kind: event });
      if (now) {
        const gb = (rate * step) / 1000;
        moved += gb;
        if (work !== 'read') written += gb;
        leftGB -= gb;
        if (leftGB <= 1e-9) {
          leg += 1;
          leftGB = legs[leg]?.volumeGB ?? 0;
          if (leg < legs.length) events.push({ t: at, kind: 'turn' });
          else {
            doneS = at;
            events.push({ t: at, kind: 'done' });
          }
        }
      }
      if (crossed === 'up' && level === 2) {
        off = true;
        events.push({ t: at, kind: 'off' });
      } else if (crossed === 'up') {
        level = (level + 1) as 1 | 2;
        events.push({ t: at, kind: level === 2 ? 'critical' : 'throttle' });
      } else if (crossed === 'down') {
        level = (level - 1) as 0 | 1;
        events.push({ t: at, kind: 'release' });
      }
    }
    record(((moved - movedBefore) * 1000) / (at - begun));
  }
  return { samples, events, doneS, movedGB: moved, peak, heatJ, storedJ: bodies.storedJ - storedAtStart };
}
