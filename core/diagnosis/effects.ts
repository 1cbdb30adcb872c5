import { PCIE_LANE_MBPS } from '../facts/buses.ts';
import { LINK_MODES } from '../facts/link-modes.ts';
import type { Band } from '../quantities/band.ts';
import type { Best } from './best.ts';
import type { CauseCode } from './causes.ts';

/** Rates of a chain, MB/s: in one go, behind the cache, small blocks; and what the other side lets through of a copy, a share. */
export type Rates = { read: number; write: number; post: number; r4: number; w4: number; other: number };
export type RateName = keyof Rates;

/** What a cause does to some of the rates, all by one place in its range, 0 to 1. */
export type RateChange = {
  of: readonly RateName[];
  to: (rate: number, at: number, sound: Rates, best: Best) => number;
};

const between = (low: number, high: number, at: number): number => low * (high / low) ** at;
const share =
  (low: number, high: number): RateChange['to'] =>
  (rate, at) =>
    rate * between(low, high, at);
const SEQUENTIAL = ['read', 'write'] as const;
const SMALL = ['r4', 'w4'] as const;

const cappedTo = ({ low, high }: Band): readonly RateChange[] => [
  { of: [...SEQUENTIAL, ...SMALL], to: (rate, at) => Math.min(rate, between(low, high, at)) }
];
/** Reading and writing each lose a share of their own. */
const lost = (low: number, high: number): readonly RateChange[] => [
  { of: ['read', 'r4'], to: share(low, high) },
  { of: ['write', 'w4'], to: share(low, high) }
];
const LOOSE = lost(0.2, 0.95);

/** Half of the lanes that there are; or two of an older generation, where the bridge falls back in that too. */
function twoLanes(rate: number, at: number, _sound: Rates, best: Best): number {
  const own = best.lane ?? Infinity;
  const [lane, within] = at < 0.5 ? [own, at * 2] : [Math.min(own, PCIE_LANE_MBPS[3]), at * 2 - 1];
  return Math.min(rate, 2 * lane * between(0.82, 0.92, within));
}

/**
 * What each cause makes of the rates of a chain, each change with a range of its own. A cause that is not here changes none. Estimates, but
 * for the bands of links and the rates of lanes.
 */
export const EFFECTS: Partial<Record<CauseCode, readonly RateChange[]>> = {
  'usb2-fallback': cappedTo(LINK_MODES.usb2.read),
  '5g-port-or-cable': cappedTo(LINK_MODES['usb-5g'].read),
  '10g-fallback': cappedTo(LINK_MODES['usb-10g'].read),
  'bulk-only': [
    {
      of: SEQUENTIAL,
      to: (rate, at, _sound, { bulkOnly }) =>
        Math.min(rate * between(0.7, 0.95, at), bulkOnly ? between(bulkOnly.low, bulkOnly.high, at) : Infinity)
    },
    { of: SMALL, to: share(0.25, 0.7) }
  ],
  'write-cache-off': [
    { of: ['write', 'post'], to: (rate, at, { write }) => Math.min(rate, write * between(0.15, 0.4, at)) },
    { of: ['w4'], to: share(0.3, 1) }
  ],
  'slc-cliff': [
    {
      // A test that runs into it holds some of the time before and some after.
      of: ['write'],
      to: (rate, at, { post }) => 1 / ((at * 0.6) / rate + (1 - at * 0.6) / Math.min(post, rate))
    }
  ],
  'host-disk-cliff': [{ of: ['other'], to: share(0.12, 0.7) }],
  'thermal-throttle': lost(0.25, 0.85),
  'pad-no-contact': lost(0.2, 0.7),
  'two-lane-limit': [{ of: SEQUENTIAL, to: twoLanes }],
  'host-write-ceiling': [
    { of: ['write', 'post'], to: (rate, at, { write }) => Math.min(rate, write * between(0.38, 0.68, at)) }
  ],
  'drive-nearly-full': [
    {
      of: ['write'],
      to: (rate, at, { post }) => between(Math.min(post, rate) * 0.35, Math.min(rate, post * 1.1), at)
    },
    { of: ['post'], to: share(0.35, 0.85) },
    { of: ['read'], to: share(0.9, 1) }
  ],
  'smr-rewrite': [{ of: ['write', 'post'], to: (_rate, at) => between(10, 42, at) }],
  'weak-surface': [
    { of: ['read'], to: share(0.25, 0.95) },
    { of: ['write'], to: share(0.6, 1) }
  ],
  'background-load': lost(0.4, 0.93),
  'encryption-cost': [
    { of: SEQUENTIAL, to: share(0.8, 0.96) },
    { of: SMALL, to: share(0.5, 0.92) }
  ],
  'unstable-link': LOOSE,
  'no-power': LOOSE,
  'bridge-firmware': LOOSE,
  'not-seated': LOOSE
};

/** Causes under which a run begins as fast as the chain can be. */
export const BEGINS_WELL: ReadonlySet<CauseCode> = new Set<CauseCode>([
  'healthy',
  'slc-cliff',
  'host-disk-cliff',
  'thermal-throttle',
  'pad-no-contact',
  'drive-nearly-full',
  'smr-rewrite',
  'weak-surface',
  'background-load',
  'unstable-link',
  'no-power',
  'bridge-firmware',
  'not-seated'
]);
