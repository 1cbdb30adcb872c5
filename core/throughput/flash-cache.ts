import { BITS_PER_CELL, CACHE_SHARE, DRAIN_SHARE, IDLE_DRAIN_SHARE } from '../facts/flash.ts';
import type { FilledDrive } from '../parts/fill/drive.ts';
import { minBand, type Band } from '../quantities/band.ts';
import type { GB, MBps, Seconds } from '../quantities/measures.ts';

/** A write cache: for a dynamic one its size on the empty drive; free space and bits a cell matter to a dynamic one only. */
export type CacheSize = { kind: 'fixed' | 'dynamic'; cacheGB: GB; freeGB: GB; bits: number };

/**
 * Finds the volume written until the write falls off its cache, GB.
 * Fixed cache C: W = C / (1 - drain / ingress). Dynamic, b bits a cell, F GB free: W * (1 - drain / ingress) = (F - W) / b,
 * with the cached part capped at C.
 * @param ingress rate at which it is written into, MB/s
 * @param native rate past the cache, MB/s
 * @param drain rate at which the cache empties meanwhile, MB/s
 * @returns GB, or null where there is no cliff: ingress at or below the native rate, or drained as fast as it fills
 * @throws RangeError for a negative size or rate
 */
export function cliffAfter(
  { kind, cacheGB, freeGB, bits }: CacheSize,
  ingress: MBps,
  native: MBps,
  drain: MBps
): GB | null {
  if (cacheGB < 0 || freeGB < 0 || ingress < 0 || native < 0 || drain < 0)
    throw new RangeError('sizes and rates cannot be negative');
  if (ingress <= native || drain >= ingress) return null;
  const stays = 1 - drain / ingress;
  const fixed = cacheGB / stays;
  if (kind === 'fixed') return fixed;
  const dynamic = freeGB / bits / (stays + 1 / bits);
  return Math.min(fixed, dynamic);
}

export type CacheForecast = {
  cliffAtGB: Band<GB> | null;
  recoverS: Band<Seconds> | null;
  sustained: Band<MBps>;
  /** Whether the cliff comes in the typical case, and not only where everything goes badly. */
  typicalCliff: boolean;
};

/** The write cache of a flash drive: its size with so much free, how it drains, and what is left after it. */
export type FlashCache = {
  kind: 'fixed' | 'dynamic';
  sizeGB: Band<GB>;
  drain: Band<MBps>;
  post: Band<MBps>;
  bits: number;
};

/** Gives the share of the free space that the cache of a drive takes where its size is not stated. */
export const cacheShareOf = (drive: FilledDrive): Band =>
  drive.protocol === 'sata' ? CACHE_SHARE.sata : drive.cell === 'qlc' ? CACHE_SHARE.qlc : CACHE_SHARE.tlc;

/**
 * Gives the write cache of a drive with so much free, GB and MB/s as bands.
 * @returns null for a drive that has none, such as a hard disk
 */
export function flashCacheOf(drive: FilledDrive, freeGB: GB): FlashCache | null {
  if (drive.postCache === null) return null;
  const post = drive.postCache;
  const flash = drive.drive.flash;
  const share = cacheShareOf(drive);
  const stated = flash?.cacheGB;
  return {
    kind: flash?.cacheKind ?? 'dynamic',
    sizeGB:
      stated === undefined
        ? { low: share.low * freeGB, typical: share.typical * freeGB, high: share.high * freeGB }
        : { low: stated * 0.9, typical: stated, high: stated },
    drain:
      flash?.drainMBps === undefined
        ? {
            low: DRAIN_SHARE.low * post.low,
            typical: DRAIN_SHARE.typical * post.typical,
            high: DRAIN_SHARE.high * post.high
          }
        : { low: flash.drainMBps, typical: flash.drainMBps, high: flash.drainMBps },
    post,
    bits: BITS_PER_CELL[drive.cell]
  };
}

/**
 * Tells what the write cache does to a long write into this chain.
 * The cliff's band runs from the bad case (small cache, no drain, fast link) to the good one; a case without a cliff has no
 * volume, so the band is over the cases that have one.
 */
export function forecastCache(drive: FilledDrive, write: Band<MBps>, freeGB: GB): CacheForecast {
  const none = { cliffAtGB: null, recoverS: null, sustained: write, typicalCliff: false };
  const found = flashCacheOf(drive, freeGB);
  if (!found) return none;
  const { kind, sizeGB: cache, drain, post, bits } = found;
  const bad = cliffAfter({ kind, cacheGB: cache.low, freeGB, bits }, write.high, post.low, drain.low);
  if (bad === null) return none;
  const typical = cliffAfter(
    { kind, cacheGB: cache.typical, freeGB, bits },
    write.typical,
    post.typical,
    drain.typical
  );
  const good = cliffAfter({ kind, cacheGB: cache.high, freeGB, bits }, write.low, post.high, drain.high);
  // Without a cliff the volume is bounded by the drive itself; in the good case of a full one by where its cache would be full.
  const without = typical ?? Math.max(bad, freeGB);
  const full = drain.high < write.low ? cache.high / (1 - drain.high / write.low) : Infinity;
  const high = Math.max(good ?? Math.max(freeGB, Math.min(full, drive.drive.capacityTB * 1000)), without, bad);
  const cliffAtGB = { low: bad, typical: Math.max(bad, without), high };
  const idle = (size: GB, rate: MBps) => (size * 1000) / rate;
  return {
    cliffAtGB,
    recoverS: {
      low: idle(cache.low, post.high * IDLE_DRAIN_SHARE.high),
      typical: idle(cache.typical, post.typical * IDLE_DRAIN_SHARE.typical),
      high: idle(cache.high, post.low * IDLE_DRAIN_SHARE.low)
    },
    sustained: minBand(write, post),
    typicalCliff: typical !== null
  };
}

/** A write cache on its way: how much it holds, and how much was written since it was empty, GB. */
export type CacheFill = { sizeGB: GB; drain: MBps; freeGB: GB; bits: number | null };

/** Gives the cache of a drive at one end of its bands, as it is written into; null for a drive without one. */
export function fillOf(drive: FilledDrive, freeGB: GB, end: 'low' | 'typical' | 'high'): CacheFill | null {
  const cache = flashCacheOf(drive, freeGB);
  return (
    cache && {
      sizeGB: cache.sizeGB[end],
      drain: cache.drain[end],
      freeGB,
      bits: cache.kind === 'fixed' ? null : cache.bits
    }
  );
}

/** Gives volume that can still be written at a rate before the cliff, GB. The slower it is written, the more drains meanwhile. */
export function roomLeft(fill: CacheFill, heldGB: GB, writtenGB: GB, rate: MBps): GB {
  const stays = 1 - fill.drain / rate;
  if (stays <= 0) return Infinity;
  const toSize = (fill.sizeGB - heldGB) / stays;
  if (fill.bits === null) return Math.max(0, toSize);
  const closing = ((fill.freeGB - writtenGB) / fill.bits - heldGB) / (stays + 1 / fill.bits);
  return Math.max(0, Math.min(toSize, closing));
}
