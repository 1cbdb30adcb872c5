import { DISK, LATENCY } from '../facts/flash.ts';
import { LINK_MODES, type LinkMode } from '../facts/link-modes.ts';
import type { FilledDrive } from '../parts/fill.ts';
import type { Band } from '../quantities/band.ts';
import type { MBps, Microseconds } from '../quantities/unit.ts';

/** A queue-depth-1 read above this is no such thing: the figure comes from a deep queue, or from memory. MB/s. */
export const SUSPECT_QD1_READ: MBps = 120;

/** Time that the link adds to one request, µs. */
export function linkLatency(mode: LinkMode, uas: boolean): Band<Microseconds> {
  const { carrier } = LINK_MODES[mode];
  if (carrier === 'usb4' || carrier === 'thunderbolt') return LATENCY.tunnel;
  if (carrier === 'esata') return LATENCY.ahci;
  return carrier === 'usb3' && uas ? LATENCY.uas : LATENCY.bulkOnly;
}

function mediaLatency(drive: FilledDrive, direction: 'read' | 'write'): Band<Microseconds> {
  if (drive.drive.media === 'hdd') {
    // One seek and half a turn; without the disk's own write cache both directions cost the same.
    const half = (30 / drive.rpm) * 1e6;
    const seek = drive.drive.disk?.seekMs;
    const seeks = seek === undefined ? DISK.seekMs : { low: seek * 0.8, typical: seek, high: seek * 1.25 };
    return { low: seeks.low * 1000 + half, typical: seeks.typical * 1000 + half, high: seeks.high * 1000 + half };
  }
  const base = direction === 'read' ? LATENCY.nandRead : LATENCY.bufferedWrite;
  if (drive.dram === true) return base;
  // Unknown: the good case with DRAM, the bad one without.
  const extra = LATENCY.dramless;
  return drive.dram === false
    ? { low: base.low + extra.low, typical: base.typical + extra.typical, high: base.high + extra.high }
    : { low: base.low, typical: base.typical + extra.typical / 2, high: base.high + extra.high };
}

/** Random 4 KiB at queue depth 1 is latency: 4096 B / (t_media + t_link); bytes per µs are MB/s. */
export function randomRate(drive: FilledDrive, mode: LinkMode, uas: boolean, direction: 'read' | 'write'): Band<MBps> {
  const media = mediaLatency(drive, direction);
  const link = linkLatency(mode, uas);
  return {
    low: 4096 / (media.high + link.high),
    typical: 4096 / (media.typical + link.typical),
    high: 4096 / (media.low + link.low)
  };
}
