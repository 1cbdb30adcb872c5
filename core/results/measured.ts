import { day } from '../quantities/format.ts';
import type { Measured, PlanReport } from '../plan/report.ts';
import type { PairResults } from './run.ts';

/** A result of one chain, as far as it can stand in the place of a forecast. */
export type MeasuredRun = { date: string; simulated: boolean; results: PairResults };

/**
 * Says what the time of a job rests on instead of the forecast; of a simulated result that it is one.
 * @example restsOn({ date: '2026-11-23', simulated: false }) // 'with rates measured on 23 Nov 2026'
 */
export const restsOn = ({ date, simulated }: Measured): string =>
  simulated ? `with simulated rates of ${day(date)}` : `with rates measured on ${day(date)}`;

/** Below this share of the low end of its forecast a result shows a fault, and is not what the build does when it is well. */
const FAULT_BELOW = 0.6;

/**
 * Picks the rates that a job is timed with: those of the newest result without a fault.
 * @param runs newest first, without those that were kept against an alarm
 * @param forecast of the same chain, without anything measured
 */
export function soundRates(runs: readonly MeasuredRun[], forecast: PlanReport['throughput']): Measured | undefined {
  const faulty = (value: number | undefined, band: { low: number } | null) =>
    value !== undefined && (band === null || value < band.low * FAULT_BELOW);
  for (const { date, simulated, results } of runs) {
    const { readMBps, writeMBps } = results;
    if (readMBps === undefined && writeMBps === undefined) continue;
    if (faulty(readMBps, forecast.read) || faulty(writeMBps, forecast.write)) continue;
    return {
      ...(readMBps === undefined ? {} : { readMBps }),
      ...(writeMBps === undefined ? {} : { writeMBps }),
      date,
      ...(simulated ? { simulated } : {})
    };
  }
  return undefined;
}
