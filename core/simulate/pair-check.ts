import { linkRates } from '../chain/stages.ts';
import type { Band } from '../quantities/band.ts';
import type { PlanReport } from '../plan/report.ts';
import type { PairResults } from '../results/run.ts';
import { seeded } from '../quantities/random.ts';

/** Faults that the stand-in rig can play, by the causes of a diagnosis. */
export type Fault = 'healthy' | 'usb2-fallback' | '5g-port-or-cable' | 'write-cache-off';

/**
 * Gives a pair check on the stand-in rig: no device, but a draw from the plan's own bands, and a fault where one is asked for.
 * Every result of it must be shown as simulated.
 * @returns MB/s, rounded as a benchmark prints them; undefined where the plan forecasts nothing
 * @example simulatePairCheck(plan(anInput()), 1).readMBps > 0 // true
 */
export function simulatePairCheck(report: PlanReport, seed: number, fault: Fault = 'healthy'): PairResults | undefined {
  const { read, write, random4kRead, random4kWrite } = report.throughput;
  if (!read || !write || !random4kRead || !random4kWrite) return undefined;
  const next = seeded(seed);
  // The mean of three uniform draws: most results lie near the typical one.
  const draw = (band: Band) => {
    const at = (next() + next() + next()) / 3;
    return at < 0.5
      ? band.low + (band.typical - band.low) * at * 2
      : band.typical + (band.high - band.typical) * (at - 0.5) * 2;
  };
  const capped =
    fault === 'usb2-fallback'
      ? linkRates('usb2', undefined, true)
      : fault === '5g-port-or-cable'
        ? linkRates('usb-5g', undefined, true)
        : undefined;
  const sequential = (band: Band, of: 'read' | 'write') =>
    draw(capped && capped[of].typical < band.typical ? capped[of] : band);
  const round = (value: number) => Number(value.toPrecision(value >= 100 ? 4 : 3));
  const slow = fault === 'usb2-fallback' ? 0.6 : 1;
  return {
    readMBps: round(sequential(read, 'read')),
    writeMBps: round(sequential(write, 'write') * (fault === 'write-cache-off' ? 0.25 : 1)),
    random4kReadMBps: round(draw(random4kRead) * slow),
    random4kWriteMBps: round(draw(random4kWrite) * slow)
  };
}
