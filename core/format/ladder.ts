import { z } from 'zod';
import {
  FILESYSTEM_IDS,
  FILESYSTEMS,
  OS_FAMILIES,
  OS_LABEL,
  type FilesystemId,
  type OsFamily
} from '../facts/filesystems.ts';
import { bandSchema } from '../plan/report.ts';
import { band, type Band } from '../quantities/band.ts';
import { capacity, figure, quantity } from '../quantities/format.ts';

const MIB = 2 ** 20;

/** What systems put before or between partitions on GPT, bytes. */
const BEFORE: Partial<Record<OsFamily, { bytes: number; what: string }>> = {
  macos: { bytes: 200 * MIB, what: 'The small EFI partition that macOS puts first' },
  windows: { bytes: 16 * MIB, what: 'The reserved partition that Windows puts first' }
};
/** An MBR counts 2^32 sectors of 512 B. */
const MBR_BYTES = 2 ** 32 * 512;
/** Share that the maker of ext4 keeps back for the system by default. */
const EXT4_RESERVE = 0.05;
const EXT4_TABLES = band(0.014, 0.016, 0.018);
/** What flash wants to stay free of it, so that it finds blank blocks. */
const HEADROOM = band(0.1, 0.15, 0.2);

export const ladderRequestSchema = z.strictObject({
  capacityTB: z.number().positive().max(1000),
  capacityBytes: z.number().int().positive().max(1e15).optional().describe('exactly, where the drive says it'),
  filesystem: z.enum(FILESYSTEM_IDS),
  scheme: z.enum(['gpt', 'mbr']),
  os: z.enum(OS_FAMILIES),
  media: z.enum(['nvme', 'sata-ssd', 'hdd']).optional(),
  observedFreeBytes: z.number().min(0).max(1e15).optional()
});
export type LadderRequest = z.infer<typeof ladderRequestSchema>;

const stepSchema = z.strictObject({
  what: z.string(),
  bytes: z.number().describe('what is left after this step'),
  takes: z.number().describe('what this step takes'),
  code: z.enum(['label', 'binary', 'scheme', 'before', 'filesystem', 'reserve', 'free', 'headroom'])
});
export const ladderReportSchema = z.strictObject({
  steps: z.array(stepSchema),
  freeBytes: bandSchema.describe('what the system should report as free on the empty volume'),
  difference: z
    .strictObject({
      bytes: z.number().describe('observed less expected'),
      percent: z.number(),
      inside: z.boolean(),
      cause: z.string()
    })
    .optional()
});
export type LadderReport = z.infer<typeof ladderReportSchema>;
export type LadderStep = z.infer<typeof stepSchema>;

/** What the partition scheme itself takes: two tables of 33 sectors and their alignment to MiB, or one MiB before the first. */
function schemeStep(left: number, scheme: 'gpt' | 'mbr'): LadderStep {
  if (scheme === 'gpt')
    return { code: 'scheme', what: 'GPT: a table at each end, aligned to MiB', takes: 2 * MIB, bytes: left - 2 * MIB };
  const takes = Math.max(0, left - MBR_BYTES) + MIB;
  return {
    code: 'scheme',
    what:
      left > MBR_BYTES
        ? 'MBR: counts 2³² sectors of 512 B, the rest is out of reach'
        : 'MBR: one MiB before the first partition',
    takes,
    bytes: left - takes
  };
}

const tables = (filesystem: FilesystemId): Band =>
  filesystem === 'ext4' ? EXT4_TABLES : FILESYSTEMS[filesystem].overhead;

const SUPERSCRIPT_TIB = 2 ** 40;

/**
 * Works out what is left of a drive from its label to what is free for files, step by step, and compares that with what a system reports.
 * @param request capacity in TB (10^12 bytes), what is observed in bytes
 * @example capacityLadder({ capacityTB: 2, filesystem: 'exfat', scheme: 'gpt', os: 'linux' }).steps.length // 5
 */
export function capacityLadder(request: LadderRequest): LadderReport {
  const { capacityTB, filesystem, scheme, os, media } = request;
  const whole = request.capacityBytes ?? Math.round(capacityTB * 1e12);
  const label = FILESYSTEMS[filesystem].label;
  const steps: LadderStep[] = [
    { code: 'label', what: `On the label: ${capacity(capacityTB)}, of 10¹² bytes each`, takes: 0, bytes: whole },
    {
      code: 'binary',
      what: `The same counted in powers of 1024: ${figure(whole / SUPERSCRIPT_TIB)} TiB, which many systems write as TB`,
      takes: 0,
      bytes: whole
    },
    schemeStep(whole, scheme)
  ];
  const last = () => steps.at(-1)?.bytes ?? 0;
  const take = (code: LadderStep['code'], what: string, takes: number) =>
    steps.push({ code, what, takes, bytes: last() - takes });
  const before = scheme === 'gpt' ? BEFORE[os] : undefined;
  if (before) take('before', before.what, before.bytes);
  const partition = last();
  const own = tables(filesystem);
  take('filesystem', `What ${label} keeps for itself, about ${figure(own.typical * 100)} %`, partition * own.typical);
  const reserve = filesystem === 'ext4' ? partition * EXT4_RESERVE : 0;
  if (reserve > 0) take('reserve', 'What ext4 keeps back for the system, 5 % unless told otherwise', reserve);
  const free: Band = {
    low: partition * (1 - own.high) - reserve,
    typical: last(),
    high: partition * (1 - own.low) - reserve
  };
  steps.push({ code: 'free', what: `Free for files on ${OS_LABEL[os]}`, takes: 0, bytes: free.typical });
  if (media !== undefined && media !== 'hdd')
    take('headroom', 'Kept empty for speed: 10 to 20 % of a flash drive', free.typical * HEADROOM.typical);
  const observed = request.observedFreeBytes;
  return {
    steps,
    freeBytes: free,
    ...(observed === undefined ? {} : { difference: differenceOf(observed, { request, free, whole, reserve }) })
  };
}

type Against = { request: LadderRequest; free: Band; whole: number; reserve: number };

/** How close two sizes are taken for one, as a share. */
const CLOSE = 0.012;
const near = (a: number, b: number): boolean => Math.abs(a - b) <= CLOSE * Math.max(a, b);

/**
 * Tells the last digit of a figure that somebody read off a screen, bytes: 1.99 TB may be up to 2.00 where a system cuts digits off, and
 * from 1.985 where it rounds. Only units that systems show are looked at, and never more than half a percent, so that a true difference
 * is not swallowed.
 */
function readTo(observed: number): number {
  for (const unit of [1e12, 1e9, 2 ** 40, 2 ** 30])
    for (const digits of [0, 1, 2]) {
      const step = unit / 10 ** digits;
      const whole = Math.round(observed / step);
      if (whole > 0 && Math.abs(observed - whole * step) < 1) return Math.min(step, observed * 0.005);
    }
  return 0;
}

/** What a difference looks like, the first that fits. */
const CAUSES: readonly {
  fits: (observed: number, against: Against) => boolean;
  says: (observed: number, against: Against) => string;
}[] = [
  {
    fits: (observed, { whole }) => observed > whole * 1.001,
    says: (_, { whole }) =>
      `That is more than the drive has (${capacity(whole / 1e12)}): another drive, or a fake that reports more than it holds. Fill it once and read it back before you trust it.`
  },
  {
    fits: (observed, { free }) =>
      near(observed * 1.099511627776, free.typical) || near(observed * 1.073741824, free.typical),
    says: () =>
      'The figure seems to be in TiB or GiB, called TB or GB: counted in powers of 1024 it is what was expected.'
  },
  {
    fits: (observed, { whole }) => whole > MBR_BYTES && near(observed, MBR_BYTES),
    says: () =>
      'It stops at 2.2 TB: an MBR, or a bridge that counts 2³² sectors. Use GPT; if it stays, the bridge is too old for this drive.'
  },
  {
    fits: (observed, { whole }) => whole > MBR_BYTES && near(observed, whole % MBR_BYTES),
    says: () =>
      'That is what is left beyond 2.2 TB: an old bridge begins to count anew there. This enclosure is too old for this drive.'
  },
  {
    fits: (observed, { free, reserve }) =>
      reserve > 0 && near(observed, free.typical + reserve) && observed > free.high,
    says: () => 'The share for the system was not kept back: it was made with another reserve than the usual 5 %.'
  },
  {
    fits: (observed, { free, request }) => request.filesystem !== 'ext4' && near(observed, free.typical * 0.934),
    says: () => 'It is what ext4 would leave with its reserve: look whether it was made with that instead.'
  },
  {
    fits: (observed, { free }) => observed > free.high,
    says: () => 'A little more than expected: the filesystem was made with leaner tables. No fault.'
  },
  {
    fits: (observed, { free }) => observed >= free.low * 0.9,
    says: () =>
      'Something is on it already: a trash, an index, snapshots, or files that came with it. Look with hidden files shown.'
  }
];

/** Compares what a system reports with what was expected, and names the likely cause of a difference. */
function differenceOf(observed: number, against: Against): NonNullable<LadderReport['difference']> {
  const { free } = against;
  const bytes = observed - free.typical;
  const read = readTo(observed);
  const inside = observed + read >= free.low * 0.999 && observed - read / 2 <= free.high * 1.001;
  const cause = CAUSES.find(({ fits }) => fits(observed, against));
  return {
    bytes,
    percent: (bytes / free.typical) * 100,
    inside,
    cause: inside
      ? 'As expected.'
      : (cause?.says(observed, against) ??
        `Much less than expected (${quantity(observed / 1e9, 'GB')}): the volume does not take the whole drive; another partition is still on it, or its size was set.`)
  };
}
