import { readQuantity, type ParsedQuantity } from './read.ts';

const CLOCK = /^(?:(\d{1,4}):)?(\d{1,4}):([0-5]?\d(?:[.,]\d{1,3})?)$/;
const LONGER = /^(\d[\d.,]{0,12}) ?(min|minutes|h|hours)$/i;

/**
 * Tells whether a text is meant as a time: it stands as on a clock, or ends in a unit of time.
 * @example looksLikeTime('950 MB/s') // false
 */
export const looksLikeTime = (text: string): boolean =>
  CLOCK.test(text.trim()) || /\d ?(?:s|sec|seconds|min|minutes|h|hours)$/i.test(text.trim());

/** A time as on a clock, s; undefined where it does not stand so. */
function onClock(text: string): number | undefined {
  const found = CLOCK.exec(text);
  if (!found) return undefined;
  const [, hours = '0', minutes = '0', seconds = '0'] = found;
  return Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds.replace(',', '.'));
}

/**
 * Reads a time as people write it: 3:42, 1:02:03, 0:42.5, 95 s, 3 min, 1.5 h.
 * @returns s; why not, where it is none
 * @example readTime('3:42') // { ok: true, value: 222 }
 */
export function readTime(text: string, most = 1e7): ParsedQuantity {
  const trimmed = text.trim();
  const clock = onClock(trimmed);
  if (clock !== undefined) return readQuantity(String(clock), { unit: 's', min: 0.01, max: most });
  const [, number, unit] = LONGER.exec(trimmed) ?? [];
  if (number === undefined || unit === undefined) return readQuantity(trimmed, { unit: 's', min: 0.01, max: most });
  const read = readQuantity(number, { unit: '', min: 0, max: most });
  return read.ok ? { ok: true, value: read.value * (unit.toLowerCase().startsWith('m') ? 60 : 3600) } : read;
}
