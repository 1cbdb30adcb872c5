import { z } from 'zod';
import type { Celsius, Seconds } from '../quantities/unit.ts';

/** Where a temperature was read. */
export const PLACES = ['controller', 'nand', 'case'] as const;
export type Place = (typeof PLACES)[number];

/** Temperatures read off one build while it worked: by hand, or pasted from a program's log. */
export const temperatureLogSchema = z.strictObject({
  ambientC: z.number().min(-30).max(60),
  place: z.enum(PLACES).describe('what the drive reports, its NAND, or the outer face of the case'),
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

export type Reading = {
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

/** What a log says by itself: the last temperature, its rise over the air, and whether it still climbs. */
export function readLog(log: TemperatureLog): Reading {
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
 * Where a short log would have settled: what the prediction has done of its own way by then is taken to be the share that the
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

/**
 * Reads pasted lines of time and temperature: "12:30 45.1", "90 s; 51", "1.5, 48 °C", a table with a heading. Times of day count from
 * the first one; plain numbers are minutes, unless they say s or the heading does.
 * @returns the points, and the lines that held no pair of numbers
 */
export function readPastedLog(text: string): { points: { minutes: number; C: number }[]; skipped: string[] } {
  const rows: { at: number; C: number; clock: boolean }[] = [];
  const skipped: string[] = [];
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  const inSeconds =
    lines.length > 0 && /\b(s|sec|seconds)\b|\bt_s\b/i.test(lines[0]!) && !/^\s*[\d.,:]/.test(lines[0]!);
  for (const line of lines) {
    const match =
      /^\s*(?:(\d{1,2}):(\d{2})(?::(\d{2}))?|(\d+(?:[.,]\d+)?)\s*(s|sec|min|m)?)\s*(?:[;\t|]|,(?=\s|\d)|\s)\s*(-?\d+(?:[.,]\d+)?)\s*(?:°\s*C|C)?\s*$/i.exec(
        line
      );
    if (!match) {
      skipped.push(line.trim());
      continue;
    }
    const [, h, m, s, plain, unit, value] = match;
    const C = Number(value!.replace(',', '.'));
    if (plain === undefined) {
      const [a, b, c] = [Number(h), Number(m), s === undefined ? undefined : Number(s)];
      // Two numbers are minutes and seconds of a stopwatch, or hours and minutes of a clock: the latter from 60 on.
      rows.push({ at: c === undefined ? a + b / 60 : a * 60 + b + c / 60, C, clock: c !== undefined });
    } else {
      const number = Number(plain.replace(',', '.'));
      rows.push({
        at: unit?.toLowerCase().startsWith('s') || (!unit && inSeconds) ? number / 60 : number,
        C,
        clock: false
      });
    }
  }
  const first = rows[0]?.clock ? rows[0].at : 0;
  return { points: rows.map(({ at, C }) => ({ minutes: Math.round((at - first) * 1000) / 1000, C })), skipped };
}
