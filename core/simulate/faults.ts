import type { CauseCode } from '../diagnosis/causes.ts';
import { LINK_MODES } from '../facts/link-modes.ts';
import type { MBps } from '../quantities/measures.ts';
import { seeded } from '../quantities/random.ts';

/**
 * Faults that the stand-in rig can play in a simulation, by the causes of a diagnosis. Each bends the very models that a healthy
 * build is forecast with; those that move no data at all cannot be simulated over time.
 */
export const SIMULATED_FAULTS = [
  'healthy',
  'usb2-fallback',
  '5g-port-or-cable',
  '10g-fallback',
  'bulk-only',
  'write-cache-off',
  'slc-cliff',
  'host-disk-cliff',
  'thermal-throttle',
  'pad-no-contact',
  'two-lane-limit',
  'host-write-ceiling',
  'drive-nearly-full',
  'smr-rewrite',
  'weak-surface',
  'background-load',
  'encryption-cost',
  'unstable-link'
] as const satisfies readonly CauseCode[];
export type SimulatedFault = (typeof SIMULATED_FAULTS)[number];

/** Tells what a fault does to the two rates. */
export function faultyRate(fault: SimulatedFault, direction: 'read' | 'write', rate: MBps, lane: MBps): MBps {
  const cap = (limit: number) => Math.min(rate, limit);
  switch (fault) {
    case 'usb2-fallback':
      return cap(LINK_MODES.usb2.write.typical);
    case '5g-port-or-cable':
      return cap(LINK_MODES['usb-5g'].write.typical);
    case '10g-fallback':
      return cap(LINK_MODES['usb-10g'].write.typical);
    case 'bulk-only':
      return rate * 0.8;
    case 'two-lane-limit':
      return cap(2 * lane * 0.875);
    case 'encryption-cost':
      return rate * 0.88;
    case 'write-cache-off':
      return direction === 'write' ? rate * 0.25 : rate;
    case 'host-write-ceiling':
      return direction === 'write' ? rate * 0.5 : rate;
    default:
      return rate;
  }
}

/** How far the fill of a drive goes where it is nearly full, and what is left of its rate after the cache. */
export const NEARLY_FULL_DRIVE = { fill: 0.93, post: 0.6 } as const;

/** A case whose surface is covered gives off this share of its heat. */
export const COVERED = 0.4;

/** How many weak places a disk has that is played with one, and how wide each is, as a share of its capacity. */
const WEAK_PLACES = { count: 3, share: 0.012, left: 0.15 } as const;

/**
 * Gives noise on the samples of a run, the same for the same seed: a hundredth or two everywhere, and what a fault adds on top, such as
 * dips that come at random, drops to nothing, or weak places.
 */
export function noisy(
  rates: readonly MBps[],
  fault: SimulatedFault,
  seed: number,
  /** Where on the disk each sample was, 0 to 1: weak places then are the same in every pass. */
  places?: readonly number[]
): MBps[] {
  const random = seeded(seed);
  const weakAt = places ? Array.from({ length: WEAK_PLACES.count }, () => random()) : [];
  const isWeak = (i: number): boolean => {
    const place = places?.[i];
    if (place === undefined) return i % 97 > 88;
    return weakAt.some((at) => place >= at && place < at + WEAK_PLACES.share);
  };
  let busy = 0;
  return rates.map((rate, i) => {
    const shade = 1 + (random() + random() + random() - 1.5) * 0.02;
    const chance = random();
    if (rate <= 0) return 0;
    if (busy > 0) busy -= 1;
    else if (fault === 'background-load' && chance < 0.04) busy = 3 + Math.floor(random() * 12);
    else if (fault === 'unstable-link' && chance < 0.01) busy = 2 + Math.floor(random() * 5);
    const dip = busy === 0 ? 1 : fault === 'unstable-link' ? 0 : 0.45;
    const weak = fault === 'weak-surface' && isWeak(i) ? WEAK_PLACES.left : 1;
    return Math.max(0, rate * shade * dip * weak);
  });
}
