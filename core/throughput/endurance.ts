import { WORKLOAD_FACTOR } from '../facts/flash.ts';

/**
 * Years until the rated endurance is used up: TBW x 1000 / (GB a day x 365 x workload factor).
 * TBW counts host terabytes; the rating workload's amplification is inside it.
 * @returns Infinity when nothing is written
 */
export function enduranceYears(ratedTBW: number, gbPerDay: number, workload: keyof typeof WORKLOAD_FACTOR): number {
  return gbPerDay <= 0 ? Infinity : (ratedTBW * 1000) / (gbPerDay * 365 * WORKLOAD_FACTOR[workload]);
}
