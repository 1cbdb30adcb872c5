import type { Band } from '#core/quantities/band';
import { bandText, duration, quantity } from '#core/quantities/format';

/** A time that is forecast, in the unit in which a person thinks of it. */
export function takesWords(seconds: Band | null): string {
  if (!seconds) return 'nobody can say';
  if (seconds.high - seconds.low < Math.max(1, seconds.typical * 0.02)) return duration(seconds.typical);
  return `${duration(seconds.low)} to ${duration(seconds.high)}`;
}

/** Bytes that are forecast. */
export const bytesWords = (GB: Band | number | null): string => {
  if (GB === null) return 'nobody can say';
  if (typeof GB === 'number') return quantity(GB, 'GB');
  return GB.high - GB.low < Math.max(0.1, GB.typical * 0.02) ? quantity(GB.typical, 'GB') : bandText(GB, 'GB');
};
