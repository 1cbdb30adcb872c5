import type { PlanInput, PlanReport } from '../plan/report.ts';
import { duration, quantity, rate } from '../quantities/format.ts';
import type { GB, MBps, Seconds } from '../quantities/measures.ts';
import { wayOfCopy, type Conditions, type CopyEnd } from './conditions.ts';
import { hardCeiling } from './gates.ts';
import { stopwatchError } from './stopwatch.ts';

/** A copy as somebody timed it. `MBps` only where a rate was typed beside size and time. */
export type CopyClaim = {
  GB: GB;
  seconds: Seconds;
  MBps?: MBps | undefined;
  source: CopyEnd;
  target: CopyEnd;
  memoryGB?: GB | undefined;
  flushed?: boolean | undefined;
  /** Another result of the same way on the same build by a tool that makes up its data, MB/s. */
  own?: MBps | undefined;
};

/** What is wrong with a copy, and what was probably meant; `meant` is put into its field by one click. */
export type CopyAlarm = {
  id: string;
  field: 'GB' | 'seconds' | 'MBps' | 'flushed';
  level: 'impossible' | 'suspicious';
  message: string;
  meant?: { field: 'GB' | 'seconds' | 'MBps' | 'flushed'; value: number | boolean; text: string };
};

/** The slowest ceiling that the bytes had to pass, MB/s, and what it is. */
type Slowest = { MBps: MBps; of: string };

/** A disk that somebody measured may be so much faster on another day. */
const DISK_TOLERANCE = 1.1;

function slowestCeiling({ source, target }: CopyClaim, input: PlanInput, report: PlanReport): Slowest | null {
  const { measured } = wayOfCopy(source, target);
  if (measured === 'neither') return null;
  const chain = hardCeiling(input, report, measured);
  const disk = input.host.internalDisk;
  const internal = source === 'internal' ? disk?.readMBps : target === 'internal' ? disk?.writeMBps : undefined;
  const ends: Slowest[] = [
    ...(chain === null ? [] : [{ MBps: chain, of: 'the connection' }]),
    ...(internal === undefined
      ? []
      : [{ MBps: internal * DISK_TOLERANCE, of: `the internal disk of ${input.host.name}` }])
  ];
  return ends.length === 0 ? null : ends.reduce((a, b) => (b.MBps < a.MBps ? b : a));
}

/** Slips of the hand, each with what it would make of size and time. */
const SLIPS: readonly { field: 'GB' | 'seconds'; by: (claim: CopyClaim) => number; because: string }[] = [
  { field: 'seconds', by: ({ seconds }) => seconds + 60, because: 'a minute dropped' },
  { field: 'GB', by: ({ GB }) => GB / 8, because: 'gigabits for gigabytes' },
  { field: 'GB', by: ({ GB }) => GB / 1000, because: 'MB for GB' },
  { field: 'GB', by: ({ GB }) => GB / 10, because: 'a digit too many' },
  { field: 'seconds', by: ({ seconds }) => seconds * 60, because: 'minutes for seconds' },
  { field: 'seconds', by: ({ seconds }) => seconds + 600, because: 'ten minutes dropped' }
];

function probablyMeant(
  claim: CopyClaim,
  expected: MBps,
  most: MBps
): (CopyAlarm['meant'] & { because: string }) | undefined {
  let best: (CopyAlarm['meant'] & { because: string; off: number }) | undefined;
  for (const { field, by, because } of SLIPS) {
    const value = Number(by(claim).toPrecision(6));
    const made = ((field === 'GB' ? value : claim.GB) * 1000) / (field === 'seconds' ? value : claim.seconds);
    if (!(made <= most)) continue;
    const off = Math.abs(Math.log(made / expected));
    if (off < Math.log(2.5) && (!best || off < best.off))
      best = { field, value, because, off, text: field === 'GB' ? quantity(value, 'GB') : duration(value) };
  }
  return best;
}

/** Below this a copy measured a memory somewhere, s. */
const SHORTEST_S = 10;
/** A typed rate may differ from size over time by rounding, as a share. */
const ROUNDED = 0.02;

/**
 * Lists the alarms that a timed copy raises: impossible where its bytes cannot have passed the slowest ceiling in that time, or would have
 * fitted into the memory; suspicious where it is short, faster than the build's own test, or does not agree with itself.
 * @param build the plan of the build it was made on; null for what has none
 * @example checkCopy({ GB: 100, seconds: 240, source: 'internal', target: 'drive' }, null) // []
 */
// eslint-disable-next-line complexity -- one line for each alarm, the gravest first
export function checkCopy(claim: CopyClaim, build: { input: PlanInput; report: PlanReport } | null): CopyAlarm[] {
  const alarms: CopyAlarm[] = [];
  const made = (claim.GB * 1000) / claim.seconds;
  const { measured } = wayOfCopy(claim.source, claim.target);
  const slowest = build && slowestCeiling(claim, build.input, build.report);
  const band = build && measured !== 'neither' ? build.report.throughput[measured] : null;
  if (slowest && made > slowest.MBps) {
    const meant = probablyMeant(claim, Math.min(band?.typical ?? Infinity, slowest.MBps / 1.2), slowest.MBps);
    alarms.push({
      id: 'copy-above-ceiling',
      field: meant?.field === 'seconds' ? 'seconds' : 'GB',
      level: 'impossible',
      message: `${quantity(claim.GB, 'GB')} in ${duration(claim.seconds)} are ${rate(made)} MB/s, and nothing passes ${slowest.of} faster than ${rate(slowest.MBps)} MB/s. ${meant ? `Was ${meant.text} meant (${meant.because})?` : 'A typing slip, or was it stopped while the last bytes were still in memory?'}`,
      ...(meant ? { meant: { field: meant.field, value: meant.value, text: meant.text } } : {})
    });
  }
  const memory = claim.memoryGB;
  if (memory !== undefined && claim.GB < 2 * memory && measured === 'write' && claim.flushed !== true)
    alarms.push({
      id: 'copy-in-memory',
      field: 'flushed',
      level: 'impossible',
      message: `${quantity(claim.GB, 'GB')} fit into the ${quantity(memory, 'GB')} of memory, so the system may say “done” long before they are on the drive. It counts only if the watch was stopped when the drive could be ejected; or copy ${quantity(Math.ceil(2 * memory), 'GB')} or more.`,
      meant: { field: 'flushed', value: true, text: 'stopped when it could be ejected' }
    });
  if (memory !== undefined && claim.GB < 2 * memory && measured === 'read')
    alarms.push({
      id: 'copy-from-memory',
      field: 'GB',
      level: 'suspicious',
      message: `${quantity(claim.GB, 'GB')} fit into the ${quantity(memory, 'GB')} of memory: if they were copied or opened before, they came from there. Plug the drive out and in before each copy, or take more.`
    });
  if (claim.seconds < SHORTEST_S)
    alarms.push({
      id: 'copy-too-short',
      field: 'seconds',
      level: 'suspicious',
      message: `In ${duration(claim.seconds)} a finger is off by ${((stopwatchError(false) / claim.seconds) * 100).toFixed(0)} %, and memories on the way hide the rest. Copy more.`
    });
  if (
    claim.own !== undefined &&
    made > claim.own * DISK_TOLERANCE &&
    !alarms.some(({ level }) => level === 'impossible')
  )
    alarms.push({
      id: 'copy-faster-than-test',
      field: 'seconds',
      level: 'suspicious',
      message: `${rate(made)} MB/s is faster than the same build in its own test (${rate(claim.own)} MB/s): files make a copy slower, never faster. Was part of it in memory?`
    });
  if (claim.MBps !== undefined) {
    const off = Math.max(ROUNDED, stopwatchError(true) / claim.seconds);
    if (Math.abs(Math.log(claim.MBps / made)) > Math.log(1 + off))
      alarms.push({
        id: 'copy-contradicts',
        field: 'MBps',
        level: 'impossible',
        message: `${quantity(claim.GB, 'GB')} in ${duration(claim.seconds)} are ${rate(made)} MB/s, not ${rate(claim.MBps)}: one of the three is wrong.`,
        meant: { field: 'MBps', value: Number(made.toPrecision(4)), text: `${rate(made)} MB/s` }
      });
  }
  return alarms;
}

/**
 * Makes the claim of a copy from what was entered under which conditions; undefined where it is not said from where to where.
 */
export const claimOf = (
  copy: { GB: GB; seconds: Seconds; MBps?: MBps | undefined },
  { source, target, memoryGB, flushed }: Conditions,
  own?: MBps
): CopyClaim | undefined =>
  source === undefined || target === undefined ? undefined : { ...copy, source, target, memoryGB, flushed, own };

/** A ratio or a percentage that was claimed of two figures. */
export type RatioClaim = { one: MBps; other: MBps; times?: number | undefined; percent?: number | undefined };

/**
 * Tells whether a claimed ratio or percentage follows from the two figures that it is said to be made of.
 * @returns what is wrong, with what follows instead; nothing where it follows
 * @example checkRatio({ one: 950, other: 475, times: 2 }) // undefined
 */
export function checkRatio({ one, other, times, percent }: RatioClaim): string | undefined {
  const ratio = one / other;
  const follows = (claimed: number) => Math.abs(Math.log(claimed / ratio)) <= Math.log(1 + ROUNDED);
  if (times !== undefined && !follows(times))
    return `${rate(one)} to ${rate(other)} MB/s are ${ratio.toFixed(2)} times, not ${times}.`;
  if (percent !== undefined && !(percent > -100 && follows(1 + percent / 100)))
    return `${rate(one)} against ${rate(other)} MB/s are ${((ratio - 1) * 100).toFixed(0)} % ${ratio >= 1 ? 'more' : 'less'}, not ${percent} %.`;
  return undefined;
}
