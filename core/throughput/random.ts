import { DISK, DISK_WRITE_GAIN, LATENCY } from '../facts/flash.ts';
import { LINK_MODES, type LinkMode } from '../facts/link-modes.ts';
import { isTunnelled } from '../chain/modes.ts';
import type { FilledDrive } from '../parts/fill/drive.ts';
import type { Band } from '../quantities/band.ts';
import type { MBps, Microseconds } from '../quantities/measures.ts';

/** A queue-depth-1 read above this is no such thing: the figure comes from a deep queue, or from memory. MB/s. */
export const SUSPECT_QD1_READ: MBps = 120;

/** Gives time that the link adds to one request, µs. */
export function linkLatency(mode: LinkMode, uas: boolean): Band<Microseconds> {
  const { carrier } = LINK_MODES[mode];
  if (carrier === 'usb4' || carrier === 'thunderbolt') return LATENCY.tunnel;
  if (carrier === 'esata') return LATENCY.ahci;
  return carrier === 'usb3' && uas ? LATENCY.uas : LATENCY.bulkOnly;
}

/** A band of times and one on top of it. */
const plus = (a: Band, b: Band): Band => ({
  low: a.low + b.low,
  typical: a.typical + b.typical,
  high: a.high + b.high
});

/** Time of one request in a hard disk, µs: one seek and half a turn; a write is done when the disk's own cache has it. */
function diskLatency({ rpm, drive }: FilledDrive, direction: 'read' | 'write'): Band<Microseconds> {
  const half = (30 / rpm) * 1e6;
  const seek = drive.disk?.seekMs;
  const seeks = seek === undefined ? DISK.seekMs : { low: seek * 0.8, typical: seek, high: seek * 1.25 };
  const read = { low: seeks.low * 1000 + half, typical: seeks.typical * 1000 + half, high: seeks.high * 1000 + half };
  return direction === 'read'
    ? read
    : {
        low: read.low / DISK_WRITE_GAIN.high,
        typical: read.typical / DISK_WRITE_GAIN.typical,
        high: read.high / DISK_WRITE_GAIN.low
      };
}

function flashLatency({ dram }: FilledDrive, tunnelled: boolean, direction: 'read' | 'write'): Band<Microseconds> {
  const base = direction === 'read' ? LATENCY.nandRead : LATENCY.bufferedWrite;
  // In a tunnel a drive without DRAM keeps its map in the host's memory; behind a USB bridge it cannot.
  if (dram === true || tunnelled) return base;
  const extra = LATENCY.dramless;
  // Unknown: the good case with DRAM, the bad one without.
  return dram === false
    ? plus(base, extra)
    : { low: base.low, typical: base.typical + extra.typical / 2, high: base.high + extra.high };
}

/**
 * Gives the rate of random 4 KiB requests one at a time: 4096 B / (t_media + t_link), and on writes the time of the host's own stack;
 * bytes per µs are MB/s.
 */
export function randomRate(drive: FilledDrive, mode: LinkMode, uas: boolean, direction: 'read' | 'write'): Band<MBps> {
  const disk = drive.drive.media === 'hdd';
  const media = disk ? diskLatency(drive, direction) : flashLatency(drive, isTunnelled(mode), direction);
  const link = linkLatency(mode, uas);
  const whole = plus(media, direction === 'write' ? plus(link, LATENCY.hostWrite) : link);
  return { low: 4096 / whole.high, typical: 4096 / whole.typical, high: 4096 / whole.low };
}
