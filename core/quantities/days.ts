import { MONTHS } from './format.ts';

const DAY_MS = 86_400_000;

/**
 * Gives a calendar day some days later, without time zones.
 *  @param iso `2026-11-23`   @throws RangeError if it is no such date */
export function addDays(iso: string, days: number): string {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(iso);
  if (!match) throw new RangeError(`no date: ${iso}`);
  const at = Date.UTC(Number(match[1]), Number(match[2]) - 1, Number(match[3])) + days * DAY_MS;
  return new Date(at).toISOString().slice(0, 10);
}

const TYPED = [
  /^(?<y>\d{4})-(?<m>\d{1,2})-(?<d>\d{1,2})$/,
  /^(?<d>\d{1,2})\. ?(?<m>\d{1,2})\. ?(?<y>\d{4})$/,
  /^(?<d>\d{1,2})\.? (?<name>[a-z]{3,9})\.?,? (?<y>\d{4})$/i,
  /^(?<name>[a-z]{3,9})\.? (?<d>\d{1,2}),? (?<y>\d{4})$/i
];

/**
 * Reads a day as people write it; undefined where it is none. Days with slashes are read differently by different
 * people and therefore not at all.
 * @example readDay('27 Nov 2026') // '2026-11-27'
 */
export function readDay(text: string): string | undefined {
  const typed = text.trim().slice(0, 40).replace(/\s/g, ' ');
  const parts = TYPED.map((form) => form.exec(typed)?.groups).find((groups) => groups);
  if (!parts) return undefined;
  const name = parts.name?.slice(0, 3).toLowerCase();
  const month = name ? MONTHS.findIndex((short) => short.toLowerCase() === name) + 1 : Number(parts.m);
  const two = (n: number) => String(n).padStart(2, '0');
  const iso = `${parts.y}-${two(month)}-${two(Number(parts.d))}`;
  const at = new Date(`${iso}T00:00:00Z`);
  // The thirtieth of February would otherwise become the second of March.
  return !Number.isNaN(at.getTime()) && at.toISOString().startsWith(iso) ? iso : undefined;
}
