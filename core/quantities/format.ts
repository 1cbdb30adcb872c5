import type { Band } from './band.ts';

/** One rule for how a number looks, on screen, in a report and on paper. The unit follows after a fixed narrow space. */
export const UNIT_SPACE = '\u202f';

/**
 * Rounds for reading: whole numbers from 100 up, one decimal from 10, two below, so that a figure claims no more
 * than it knows. Thousands are not grouped: a point or a comma there reads as a decimal sign to half of the world (`countText`
 * groups counts with a space).
 * @example figure(1234.5) // '1235'
 */
export function figure(value: number): string {
  const size = Math.abs(value);
  if (size >= 100 || size === 0) return String(Math.round(value));
  // As a number again, it has no zeros at its end, and what rounds to nothing has no sign.
  return String(Number(value.toFixed(size >= 10 ? 1 : size >= 0.1 ? 2 : 3)));
}

/**
 * Gives a figure with its unit: `1000 MB/s`.
 * @example quantity(40, 'Gb/s') // '40\u202fGb/s'
 */
export function quantity(value: number, unit: string): string {
  return `${figure(value)}${UNIT_SPACE}${unit}`;
}

/**
 * Gives a number of things, however many: from 10 000 up in groups of three with a narrow space between them, which nobody reads as
 * a decimal sign.
 * @example countText(43200000) // '43\u202f200\u202f000'
 */
export function countText(count: number): string {
  if (Math.abs(count) < 10_000) return String(count);
  const groups: string[] = [];
  for (let rest = String(Math.abs(count)); rest !== ''; rest = rest.slice(0, -3)) groups.unshift(rest.slice(-3));
  return `${count < 0 ? '-' : ''}${groups.join(UNIT_SPACE)}`;
}

/**
 * Rates are rounded to what a benchmark can tell: three figures. By arithmetic, for every plan says some in its sentences.
 * @example rate(3412) // '3410'
 */
export function rate(value: number): string {
  if (value < 100) return figure(value);
  let step = 1;
  while (value >= step * 1000) step *= 10;
  return String(Math.round(value / step) * step);
}

/**
 * Writes a band as its two ends.
 * @example bandText({ low: 900, typical: 1000, high: 1070 }, 'MB/s') // '900 – 1070\u202fMB/s'
 */
export function bandText(band: Band, unit: string): string {
  return `${rate(band.low)} – ${rate(band.high)}${UNIT_SPACE}${unit}`;
}

/**
 * Seconds as a person says them: `42 s`, `7:06 min`, `2:15 h`.
 * @example duration(90) // '1:30\u202fmin'
 */
export function duration(seconds: number): string {
  const s = Math.round(seconds);
  const two = (n: number) => String(n).padStart(2, '0');
  if (s < 60) return `${s < 10 ? figure(seconds) : s}${UNIT_SPACE}s`;
  if (s < 3600) return `${Math.floor(s / 60)}:${two(s % 60)}${UNIT_SPACE}min`;
  const minutes = Math.round(seconds / 60);
  if (minutes < 48 * 60) return `${Math.floor(minutes / 60)}:${two(minutes % 60)}${UNIT_SPACE}h`;
  return `${figure(seconds / 86400)}${UNIT_SPACE}days`;
}

/**
 * Gives money with two decimals and its currency after it.
 * @example money(12.5, 'EUR') // '12.50\u202fEUR'
 */
export function money(amount: number, currency: string): string {
  return `${amount.toFixed(2)}${UNIT_SPACE}${currency}`;
}

/**
 * Capacities in the unit in which drives are sold.
 * @example capacity(2) // '2\u202fTB'
 */
export function capacity(tb: number): string {
  return tb < 1 ? quantity(tb * 1000, 'GB') : quantity(tb, 'TB');
}

export const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/**
 * Gives `2026-11-23` as `23 Nov 2026`; anything else comes back as it is.
 * @example day('2026-11-23') // '23 Nov 2026'
 */
export function day(iso: string): string {
  const match = /^(\d{4})-(\d{2})-(\d{2})/.exec(iso);
  return match ? `${Number(match[3])} ${MONTHS[Number(match[2]) - 1]} ${match[1]}` : iso;
}

/**
 * Gives a number of things with their word, `1 price` and `2 prices`.
 * @param many where the plural is not the word with an s
 * @example counted(1, 'price') // '1 price'
 */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}

/**
 * Gives a thing with its article, `a port` and `an item`; by its first letter, which is right for the words that forms have.
 * @example aThing('item') // 'an item'
 */
export const aThing = (word: string): string => `${/^[aeio]/i.test(word) ? 'an' : 'a'} ${word}`;

/**
 * Joins names: `a`, `a and b`, `a, b and c`.
 * @example listed(['a', 'b', 'c']) // 'a, b and c'
 */
export const listed = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
