import type { LinkMode } from '../facts/link-modes.ts';
import type { HouseRules } from '../facts/schools.ts';
import { TOUCH } from '../facts/thermal.ts';
import type { FilledDrive, FilledEnclosure } from '../parts/fill.ts';
import type { Band } from '../quantities/band.ts';
import type { Celsius, Seconds } from '../quantities/unit.ts';
import type { StackPlan } from '../stack/plan-pads.ts';
import { heatOf, type Heat } from './heat.ts';
import { copyKnobs, openKnobs, typicalKnobs, type KnobName, type Knobs, type KnobsOf } from './knobs.ts';
import { march, type Phase } from './march.ts';
import { heatOut, networkOf, riseFor, settle, shapeOf, type Shape, type Temperatures } from './network.ts';
import { powerAt } from './power.ts';
import { limitsOf, settleLoad, type Limits, type Load, type Setting, type Settled } from './throttle.ts';

/** How a build warms, with everything that is uncertain about it still open. */
export type Warmth = {
  shape: Shape;
  heat: Heat;
  of: KnobsOf;
  limits: Limits | null;
  typical: Setting;
};

export type Circumstances = {
  ambientC?: number | undefined;
  /** Instead of what the enclosure has. */
  fan?: boolean | undefined;
  /** Without any pads. */
  bare?: boolean | undefined;
};

export const settingAt = (shape: Shape, heat: Heat, knobs: Knobs): Setting => ({
  shape,
  heat,
  knobs,
  network: networkOf(shape, knobs)
});

export function warmthOf(
  drive: FilledDrive,
  enclosure: FilledEnclosure,
  mode: LinkMode | null,
  stack: Pick<StackPlan, 'filled'>,
  rules: HouseRules | undefined,
  more: Circumstances = {}
): Warmth {
  const fan = more.fan ?? enclosure.enclosure.cooling?.kind === 'fan';
  const shape = shapeOf(drive, enclosure, stack, fan, more.bare === true);
  const heat = heatOf(drive, enclosure, mode, fan);
  const of: KnobsOf = { drive, enclosure, heat, rules, ambientC: more.ambientC, fan };
  return { shape, heat, of, limits: limitsOf(drive.drive), typical: settingAt(shape, heat, typicalKnobs(of)) };
}

/** What one uncertain thing does to the controller, K, at its hotter and its cooler end. */
export type Influence = { name: KnobName; hotK: number; coolK: number };

/** The likely hot and cool cases of the controller, and of what a hand feels. */
export type LikelyCases = { hot: Setting; cool: Setting; faceHot: Setting; faceCool: Setting; influences: Influence[] };

/**
 * The likely hot and cool case. Each uncertain thing alone is put to its ends, the others typical; the deviations d that follow add
 * up like independent errors, as the root of the sum of their squares D. The case at that distance that is likeliest moves each
 * thing by d / D of the way to its end: everything bad at once would be hotter, and next to never happens.
 */
export function likelyCases(
  { shape, heat, of: about, typical: { knobs: usual } }: Warmth,
  load: Load,
  rate: Band | undefined
): LikelyCases {
  const open = openKnobs(about, rate);
  const knobs = copyKnobs(usual);
  const temperatures = (): Temperatures =>
    settle(networkOf(shape, knobs), powerAt(shape, heat, knobs, load.work, load.rate * knobs.rate));
  const base = temperatures();
  const influences: Influence[] = [];
  const face: { hotK: number; coolK: number }[] = [];
  for (const { name, hot, cool } of open) {
    knobs[name] = hot;
    const up = temperatures();
    knobs[name] = cool;
    const down = temperatures();
    knobs[name] = usual[name];
    influences.push({ name, hotK: up.controllerC - base.controllerC, coolK: down.controllerC - base.controllerC });
    face.push({ hotK: up.faceC - base.faceC, coolK: down.faceC - base.faceC });
  }
  const towards = (of: readonly { hotK: number; coolK: number }[], end: 'hot' | 'cool'): Setting => {
    const key = end === 'hot' ? 'hotK' : 'coolK';
    let squares = 0;
    for (const deviation of of) squares += deviation[key] * deviation[key];
    const whole = Math.sqrt(squares);
    const moved = copyKnobs(usual);
    if (whole > 0)
      for (let i = 0; i < of.length; i++) {
        const { name, [end]: to } = open[i]!;
        moved[name] += ((to - moved[name]) * Math.abs(of[i]![key])) / whole;
      }
    return settingAt(shape, heat, moved);
  };
  return {
    hot: towards(influences, 'hot'),
    cool: towards(influences, 'cool'),
    faceHot: towards(face, 'hot'),
    faceCool: towards(face, 'cool'),
    influences
  };
}

const bandOf = (cool: number, typical: number, hot: number): Band => ({
  low: Math.min(cool, typical),
  typical,
  high: Math.max(hot, typical)
});

export type SteadyForecast = { typical: Settled; caseC: Band; controllerC: Band; nandC: Band };

/**
 * Work that does not go on for long enough to warm the case through: chips follow within seconds and stand over the case as in
 * endless work, the case goes a share of its way from rest.
 */
function shared(setting: Setting, load: Load, share: number, endless: Settled, limits: Limits | null): Settled {
  const { network, shape, heat, knobs } = setting;
  const power = powerAt(shape, heat, knobs, load.work, load.rate * share);
  const at = settle(network, power);
  const controllerC = at.caseC + endless.controllerC - endless.caseC;
  const nandC = at.caseC + endless.nandC - endless.caseC;
  const form = limits && controllerC > limits.startC ? endless.form : 'none';
  return { ...endless, form, controllerC, nandC, caseC: at.caseC, faceC: at.faceC };
}

/**
 * Where the last of some phases settles, as bands, throttling included.
 * @param share of its way that the case goes in work that ends before it is warmed through; 1 for work without end
 */
export function forecastSteady(
  warmth: Warmth,
  phases: readonly Phase[],
  cases: LikelyCases,
  share = 1
): SteadyForecast {
  const settled = (setting: Setting) => {
    const { rate } = setting.knobs;
    const own = rate === 1 ? phases : phases.map((phase) => ({ ...phase, rate: phase.rate * rate }));
    const endless = settlePhases(setting, own, warmth.limits);
    return share >= 1 ? endless : shared(setting, own[own.length - 1]!, share, endless, warmth.limits);
  };
  const typical = settled(warmth.typical);
  const [hot, cool] = [settled(cases.hot), settled(cases.cool)];
  // On its way to a plateau at half rate a drive gets to where it throttles, though it settles below that.
  const reached = hot.form === 'none' ? hot.controllerC : Math.max(hot.controllerC, warmth.limits!.startC);
  return {
    typical,
    caseC: bandOf(settled(cases.faceCool).faceC, typical.faceC, settled(cases.faceHot).faceC),
    controllerC: bandOf(cool.controllerC, typical.controllerC, reached),
    nandC: bandOf(cool.nandC, typical.nandC, hot.nandC)
  };
}

/** Whether some phase alone, going on for ever at full rate, would be too hot: nothing cooler can ever throttle. */
export function mayThrottle(setting: Setting, phases: readonly Phase[], limits: Limits | null): boolean {
  if (!limits) return false;
  return phases.some(
    ({ work, rate, perMB }) =>
      settle(
        setting.network,
        powerAt(setting.shape, setting.heat, setting.knobs, work, rate <= 0 ? 0 : 1 / (1 / rate + perMB))
      ).controllerC > limits.startC
  );
}

/** Time until the first throttling under these phases, or null where none of them ever gets that hot. */
export function throttleTime(setting: Setting, phases: readonly Phase[], limits: Limits | null): Seconds | null {
  return mayThrottle(setting, phases, limits)
    ? march(setting, phases, limits, Infinity, { untilThrottle: true }).throttleAtS
    : null;
}

/**
 * Where work without end settles that begins with other phases: a drive that was throttled in one of them comes to the last one
 * throttled, and may stay so.
 */
export function settlePhases(setting: Setting, phases: readonly Phase[], limits: Limits | null): Settled {
  const last = phases[phases.length - 1]!;
  const before = phases.slice(0, -1);
  const held = before.length > 0 && mayThrottle(setting, before, limits) ? march(setting, before, limits).level : 0;
  return settleLoad(setting, last, limits, held);
}

export type Touch = 'comfortable' | 'brief' | 'do-not-hold';

/** How a case of this temperature may be touched, by its material. */
export function touchOf(faceC: Celsius, material: 'aluminium' | 'plastic'): Touch {
  const limits = TOUCH[material];
  return faceC <= limits.hoursC ? 'comfortable' : faceC <= limits.tenSecondsC ? 'brief' : 'do-not-hold';
}

/** The time in which the case comes 63 % of the way, s: all of its heat capacity over what it gives off at 15 K. */
export function timeConstant({ network }: Setting): Seconds {
  const { controllerJK, nandJK, caseJK, surface, ambientC } = network;
  return (controllerJK + nandJK + caseJK) / (heatOut(surface, 15, ambientC) / 15);
}

/** How long until a case is cool enough for hours of contact after its drive was ejected, s; 0 where it is already. */
export function coolingTime(setting: Setting, fromC: Celsius, watts: number): Seconds | null {
  const { network } = setting;
  const { surface, ambientC } = network;
  const limit = TOUCH.aluminium.hoursC;
  if (fromC <= limit) return 0;
  if (ambientC + riseFor(surface, watts, ambientC) >= limit) return null;
  const whole = network.controllerJK + network.nandJK + network.caseJK;
  // Degree by degree, each in the time that its heat takes to leave.
  let seconds = 0;
  for (let caseC = fromC; caseC > limit; caseC -= 1) {
    const part = Math.min(1, caseC - limit);
    seconds += (whole * part) / (heatOut(surface, caseC - part / 2 - ambientC, ambientC) - watts);
  }
  return seconds;
}
