/* eslint-disable @typescript-eslint/no-non-null-assertion -- a log has two points at least, by its schema; indices below the length of the list */
import { z } from 'zod';
import type { Celsius, Seconds } from '../quantities/measures.ts';

/** Where a temperature was read. */
export const PROBES = ['controller', 'nand', 'case'] as const;
export type Probe = (typeof PROBES)[number];

/** Temperatures read off one build while it worked: by hand, or pasted from a program's log. */
export const temperatureLogSchema = z.strictObject({
  ambientC: z.number().min(-30).max(60),
  place: z.enum(PROBES).describe('what the drive reports, its NAND, or the outer face of the case'),
  work: z.enum(['idle', 'read', 'write', 'post']).describe('at rest, reading, writing into the cache, or past it'),
  MBps: z.number().min(0).max(20_000),
  fan: z.boolean().optional().describe('a fan on the case, whatever the enclosure has'),
  idleC: z.number().min(-30).max(150).optional().describe('before the work began'),
  points: z
    .array(z.strictObject({ minutes: z.number().min(0).max(10_000), C: z.number().min(-30).max(150) }))
    .min(1)
    .max(2000)
    .refine((points) => points.every((p, i) => i === 0 || p.minutes > points[i - 1]!.minutes), {
      message: 'times must rise'
    })
    .describe('since the work began'),
  note: z.string().max(500).optional()
});
export type TemperatureLog = z.infer<typeof temperatureLogSchema>;

/** Below this slope a temperature counts as settled, K/min. */
export const STEADY_K_PER_MIN = 0.5;
/** The slope is taken over the last minutes. */
const SLOPE_MINUTES = 3;

export type TemperatureReading = {
  /** The last temperature, and how far it is over the air. */
  lastC: Celsius;
  peakC: Celsius;
  riseK: number;
  afterS: Seconds;
  /** Over the last minutes, K/min; null with a single point. */
  slope: number | null;
  state: 'steady' | 'not-yet' | 'unknown';
};

/** Slope of a straight line through points, by least squares. */
function slopeThrough(points: readonly { minutes: number; C: number }[]): number | null {
  if (points.length < 2) return null;
  const n = points.length;
  const x = points.reduce((sum, p) => sum + p.minutes, 0) / n;
  const y = points.reduce((sum, p) => sum + p.C, 0) / n;
  const sxx = points.reduce((sum, p) => sum + (p.minutes - x) ** 2, 0);
  return points.reduce((sum, p) => sum + (p.minutes - x) * (p.C - y), 0) / sxx;
}

/** Tells what a log says by itself: the last temperature, its rise over the air, and whether it still climbs. */
export function readLog(log: TemperatureLog): TemperatureReading {
  const last = log.points[log.points.length - 1]!;
  const idle = log.idleC === undefined ? [] : [{ minutes: 0, C: log.idleC }];
  const points = log.points[0]!.minutes > 0 ? [...idle, ...log.points] : log.points;
  const recent = points.filter((p) => p.minutes >= last.minutes - SLOPE_MINUTES);
  // What stood before the work began says nothing about the end of it.
  const slope = slopeThrough(recent.length > 1 ? recent : log.points.slice(-2));
  return {
    lastC: last.C,
    peakC: Math.max(...log.points.map((p) => p.C)),
    riseK: last.C - log.ambientC,
    afterS: last.minutes * 60,
    slope,
    state: slope === null ? 'unknown' : Math.abs(slope) < STEADY_K_PER_MIN ? 'steady' : 'not-yet'
  };
}

/**
 * Tells where a short log would have settled: what the prediction has done of its own way by then is taken to be the share that the
 * reading has done of its way, T = T0 + (T_last - T0) / share.
 * @param predicted temperatures of the prediction at the same place: at the start, at the last reading, and settled
 * @returns null where hardly anything of the way is done, so that the answer would only be the error of the reading
 */
export function extrapolate(
  log: TemperatureLog,
  predicted: { startC: Celsius; thenC: Celsius; settledC: Celsius }
): { C: Celsius; share: number } | null {
  const whole = predicted.settledC - predicted.startC;
  const share = Math.abs(whole) < 0.5 ? 1 : Math.min(1, Math.max(0, (predicted.thenC - predicted.startC) / whole));
  const { lastC } = readLog(log);
  if (log.work === 'idle' || share > 0.98) return { C: lastC, share: 1 };
  if (share < 0.2) return null;
  const startC = log.idleC ?? predicted.startC;
  return { C: startC + (lastC - startC) / share, share };
}

const DAY_MINUTES = 1440;

/** A log by hand begins within the first minutes, and has seconds between two readings: these many at least. */
const STOPWATCH = { firstBefore: 5, stepS: 10 } as const;

/**
 * Tells a clock from a stopwatch: what falls back is a clock past midnight; `12:30` at the beginning is half past twelve, for nobody
 * starts a log after twelve minutes; and `1:00, 1:01, 1:02` are minutes of a clock, for nobody writes down every second.
 */
function isClock(pairs: readonly (readonly [number, number])[]): boolean {
  if (pairs.some(([h, m]) => h > 23 || m > 59)) return false;
  const falls = pairs.some(([h, m], i) => i > 0 && h * 60 + m < pairs[i - 1]![0] * 60 + pairs[i - 1]![1]);
  if (falls || pairs[0]![0] >= STOPWATCH.firstBefore) return true;
  const steps = pairs.slice(1).map(([h, m], i) => h * 60 + m - pairs[i]![0] * 60 - pairs[i]![1]);
  return pairs[0]![0] >= 1 && steps.some((step) => step > 0 && step < STOPWATCH.stepS);
}

/** Characters of one line of a log; what is longer holds more than a time and a temperature. */
const LONGEST_LINE = 120;

const LOG_LINE =
  /^(?:(\d{1,2}):(\d{2})(?::(\d{2}))?|(\d+(?:[.,]\d+)?) ?(s|sec|min|m)?)(?: ?[;|] ?|, |,(?=\d)| )(-?\d+(?:[.,]\d+)?) ?(?:° ?C|C)?$/i;

/** One line of a log: minutes, from a clock where `clock` says so; `pair` keeps two-part times until it is known what they are. */
type LogRow = { at: number; C: number; clock: boolean; pair?: [number, number] };

const decimal = (text: string): number => Number(text.replace(',', '.'));

/** Reads one line; undefined where it holds no pair of numbers. */
function readLine(words: string, inSeconds: boolean): LogRow | undefined {
  const match = words.length > LONGEST_LINE ? null : LOG_LINE.exec(words);
  if (!match) return undefined;
  const [, h, m, s, plain, unit, value] = match;
  const C = decimal(value!);
  if (plain === undefined) {
    const [a, b] = [Number(h), Number(m)];
    return s === undefined
      ? { at: a + b / 60, C, clock: false, pair: [a, b] }
      : { at: a * 60 + b + Number(s) / 60, C, clock: true };
  }
  const seconds = unit ? unit.toLowerCase().startsWith('s') : inSeconds;
  return { at: seconds ? decimal(plain) / 60 : decimal(plain), C, clock: false };
}

/** Takes two-part times for a clock where they are one, and goes on over midnight. */
function settleClock(rows: readonly LogRow[]): void {
  const pairs = rows.flatMap(({ pair }) => (pair ? [pair] : []));
  if (pairs.length > 0 && isClock(pairs))
    for (const row of rows)
      if (row.pair) {
        row.at = row.pair[0] * 60 + row.pair[1];
        row.clock = true;
      }
  for (let i = 1; i < rows.length; i++)
    if (rows[i]!.clock) while (rows[i]!.at < rows[i - 1]!.at) rows[i]!.at += DAY_MINUTES;
}

/**
 * Reads pasted lines of time and temperature: "12:30 45.1", "90 s; 51", "1.5, 48 °C", a table with a heading. Times of day count from
 * the first one, over midnight too; plain numbers are minutes, unless they say s or the heading does. Two numbers with a colon are
 * hours and minutes of a clock, or minutes and seconds of a stopwatch (`isClock`).
 * @returns the points, and the lines that held no pair of numbers
 * @example readPastedLog('12:30 45.1\n12:31 46').points // [{ minutes: 0, C: 45.1 }, { minutes: 1, C: 46 }]
 */
export function readPastedLog(text: string): { points: { minutes: number; C: number }[]; skipped: string[] } {
  const rows: LogRow[] = [];
  const skipped: string[] = [];
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  const [head = ''] = lines;
  const inSeconds = /\b(s|sec|seconds)\b|\bt_s\b/i.test(head) && !/^\s*[\d.,:]/.test(head);
  for (const line of lines) {
    const words = line
      .slice(0, LONGEST_LINE + 1)
      .trim()
      .replace(/\s+/g, ' ');
    const row = readLine(words, inSeconds);
    if (row) rows.push(row);
    else skipped.push(words.slice(0, LONGEST_LINE));
  }
  settleClock(rows);
  const first = rows[0]?.clock ? rows[0].at : 0;
  return { points: rows.map(({ at, C }) => ({ minutes: Math.round((at - first) * 1000) / 1000, C })), skipped };
}
