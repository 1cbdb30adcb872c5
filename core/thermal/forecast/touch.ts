import { TOUCH } from '../../facts/thermal.ts';
import type { Celsius, Seconds } from '../../quantities/measures.ts';
import { heatOut, riseFor } from '../model/network.ts';
import type { Setting } from '../model/setting.ts';

export type Touch = 'comfortable' | 'brief' | 'do-not-hold';

/** Tells how a case of this temperature may be touched, by its material. */
export function touchOf(faceC: Celsius, material: 'aluminium' | 'plastic'): Touch {
  const limits = TOUCH[material];
  return faceC <= limits.hoursC ? 'comfortable' : faceC <= limits.tenSecondsC ? 'brief' : 'do-not-hold';
}

/** Gives the time in which the case comes 63 % of the way, s: all of its heat capacity over what it gives off at 15 K. */
export function timeConstant({ network }: Setting): Seconds {
  const { controllerJK, nandJK, caseJK, surface, ambientC } = network;
  return (controllerJK + nandJK + caseJK) / (heatOut(surface, 15, ambientC) / 15);
}

/** Gives the time until a case is cool enough for hours of contact after its drive was ejected, s; 0 where it is already. */
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
