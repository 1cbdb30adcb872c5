import { IDLE_DRAIN_SHARE, SMR_REGION_GB, SMR_REWRITE } from '../facts/flash.ts';
import type { FlashCache } from '../throughput/flash-cache.ts';
import { diskRateAt } from '../throughput/disk.ts';
import type { GB, MBps, Seconds } from '../quantities/measures.ts';
import type { Activity } from '../thermal/model/power.ts';

/**
 * Where data comes from and goes to, as a machine with a state: at which rate it would flow now if nothing throttled, and when
 * that changes. The thermal side asks for the rate, lets a share of it through, and tells how long it did.
 */
export type Flow = {
  /** Rate if nothing throttles, MB/s. */
  rate(): MBps;
  work(): Activity;
  /** Seconds until the rate changes by itself, at this actual rate; Infinity if it does not. */
  untilChange(actual: MBps): Seconds;
  /** Moves on; gives the kind of change that came with the end of this time, if one did. */
  advance(actual: MBps, seconds: Seconds): FlowEvent | undefined;
};
export type FlowEvent = 'cliff' | 'host-cliff' | 'recovered' | 'smr-collapse' | 'pass-done';

const EPS = 1e-9;

/** Gives writing to flash: into the cache until it is full, then at what the cells take; at rest the cache empties. */
export function flashWrite(
  cache: FlashCache,
  freeGB: GB,
  ingress: MBps,
  /** What is written goes over the same bounded stretch again and again: no more room than that is taken. */
  boundedGB: GB = Infinity
): Flow {
  const post = cache.post.typical;
  const drain = cache.drain.typical;
  // The same drive that collapses behind a fast link never falls behind a slow one.
  let cached = ingress > post && drain < ingress;
  let [writtenGB, heldGB] = [0, 0];
  const size = cache.sizeGB.typical;
  const takenGB = () => Math.min(writtenGB, boundedGB);
  const room = () => (cache.kind === 'fixed' ? size : Math.min(size, Math.max(0, (freeGB - takenGB()) / cache.bits)));
  return {
    rate: () => (cached ? ingress : Math.min(ingress, post)),
    work: () => (cached || ingress <= post ? 'write' : 'post'),
    untilChange(actual) {
      if (actual <= 0) {
        const idle = post * IDLE_DRAIN_SHARE.typical;
        return heldGB > EPS ? (heldGB * 1000) / idle : Infinity;
      }
      if (!cached) return Infinity;
      const grows = Math.max(0, actual - drain) / 1000;
      const toSize = grows > 0 ? (size - heldGB) / grows : Infinity;
      if (cache.kind === 'fixed') return Math.max(0, toSize);
      const closes = grows + (writtenGB < boundedGB ? actual / 1000 / cache.bits : 0);
      const toRoom = closes > 0 ? ((freeGB - takenGB()) / cache.bits - heldGB) / closes : Infinity;
      const toBound = writtenGB < boundedGB - EPS ? ((boundedGB - writtenGB) * 1000) / actual : Infinity;
      return Math.max(0, Math.min(toSize, toRoom, toBound));
    },
    advance(actual, seconds) {
      if (actual <= 0) {
        const had = heldGB;
        heldGB = Math.max(0, heldGB - (post * IDLE_DRAIN_SHARE.typical * seconds) / 1000);
        if (had > EPS && heldGB <= EPS) {
          cached = ingress > post && drain < ingress;
          return 'recovered';
        }
        return undefined;
      }
      writtenGB += (actual * seconds) / 1000;
      if (!cached) return undefined;
      heldGB = Math.max(0, heldGB + ((actual - drain) * seconds) / 1000);
      if (heldGB < room() - 1e-6) return undefined;
      cached = false;
      return 'cliff';
    }
  };
}

/** Gives nothing for a while: what the other flow holds goes on emptying. */
export function resting(flow: Flow | undefined): Flow {
  return {
    rate: () => 0,
    work: () => 'idle',
    untilChange: () => flow?.untilChange(0) ?? Infinity,
    advance: (_actual, seconds) => flow?.advance(0, seconds)
  };
}

/** Gives one rate all the time. */
export function plainFlow(rate: MBps, work: Activity): Flow {
  return { rate: () => rate, work: () => work, untilChange: () => Infinity, advance: () => undefined };
}

/** Gives from the drive onto a host disk with a cache of its own. */
export function ontoHostDisk(rate: MBps, cacheGB: GB, after: MBps): Flow {
  let leftGB = cacheGB;
  return {
    rate: () => (leftGB > EPS ? rate : Math.min(rate, after)),
    work: () => 'read',
    untilChange: (actual) => (leftGB > EPS && actual > 0 ? (leftGB * 1000) / actual : Infinity),
    advance(actual, seconds) {
      if (leftGB <= EPS) return undefined;
      leftGB -= (actual * seconds) / 1000;
      return leftGB <= 1e-6 ? ((leftGB = 0), 'host-cliff') : undefined;
    }
  };
}

export type DiskSide = {
  capacityGB: GB;
  outer: MBps;
  inner: MBps;
  /** Where it begins, as a share of the capacity from the outer edge. */
  from: number;
  /** The link and the host's own disk, in every zone; after so much from a drive the latter may fall off a cache. */
  cap: MBps;
  hostCliffGB: GB | null;
  hostAfter: MBps;
  /** Shingled tracks that were written before. */
  rewriting: boolean;
  shingled: boolean;
};

/** Gives a hard disk from where it is filled to inwards; a shingled one collapses once it has to rewrite tracks. */
export function diskFlow(side: DiskSide, work: 'read' | 'write'): Flow {
  let at = side.from;
  let rewriting = side.rewriting;
  let regionGB: GB = SMR_REGION_GB.typical;
  const collapses = () => work === 'write' && side.shingled && rewriting;
  let hostLeftGB = side.hostCliffGB ?? Infinity;
  const cap = () => (hostLeftGB > EPS ? side.cap : Math.min(side.cap, side.hostAfter));
  const zone = () => Math.min(cap(), diskRateAt(Math.min(1, at), side.outer, side.inner));
  return {
    rate: () => (collapses() && regionGB <= EPS ? Math.min(zone(), SMR_REWRITE.typical) : zone()),
    work: () => work,
    untilChange(actual) {
      if (actual <= 0) return Infinity;
      const toEnd = ((1 - at) * side.capacityGB * 1000) / actual;
      const toHost = hostLeftGB > EPS ? (hostLeftGB * 1000) / actual : Infinity;
      const next = Math.min(toEnd, toHost);
      return collapses() && regionGB > EPS ? Math.min(next, (regionGB * 1000) / actual) : Math.max(next, 1e-3);
    },
    advance(actual, seconds) {
      const moved = (actual * seconds) / 1000;
      at += moved / side.capacityGB;
      if (hostLeftGB > EPS && (hostLeftGB -= moved) <= 1e-6) {
        hostLeftGB = 0;
        return 'host-cliff';
      }
      if (collapses() && regionGB > EPS) {
        regionGB -= moved;
        if (regionGB <= 1e-6) {
          regionGB = 0;
          return 'smr-collapse';
        }
      }
      if (at < 1 - 1e-9) return undefined;
      // Round again, over what is there already.
      at = side.from >= 1 ? 0 : side.from;
      rewriting = true;
      return 'pass-done';
    }
  };
}
