import type { ListedDevice } from './device.ts';

/** Fewest characters at the end of a serial that say which device is meant. */
export const LEAST_IDENTITY = 4;

/**
 * Writes a serial so that two writings of it are one: capitals, nothing but letters and digits.
 * @example plainSerial(' ab-12_3 ') // 'AB123'
 */
export const plainSerial = (serial: string): string => serial.toUpperCase().replace(/[^\p{L}\p{N}]/gu, '');

/** Serials that chips come with where nobody gave them one, as parts of which a longer one may be made up. */
const FILLERS = new Set([
  'DEVICE',
  'SERIAL',
  'SERIALNUMBER',
  'NONE',
  'NULL',
  'UNKNOWN',
  'NOTAVAILABLE',
  'TOBEFILLEDBYOEM',
  'DEFAULT',
  'TEST',
  'NOSERIAL',
  'DISK',
  'USB',
  'DEADBEEF',
  'CAFEBABE',
  'ABCDEF',
  'INVALID',
  'EXAMPLE',
  'SN',
  'NA'
]);

/** Whether each character follows the one before it, up or down, as 0123456789ABCDEF does. */
function counts(serial: string): boolean {
  const order = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ';
  const steps = [...serial].slice(1).map((char, i) => {
    const [from, to] = [order.indexOf(serial[i] ?? ''), order.indexOf(char)];
    // After 9 may come 0, after F too.
    return from === 9 && to === 0 ? 1 : from === 15 && to === 0 ? 1 : to - from;
  });
  return steps.length > 0 && (steps.every((step) => step === 1) || steps.every((step) => step === -1));
}

/** The smallest part of which a text is made up by repeating it. */
function period(text: string): string {
  for (let n = 1; n <= text.length / 2; n++)
    if (text.length % n === 0 && text === text.slice(0, n).repeat(text.length / n)) return text.slice(0, n);
  return text;
}

/**
 * Tells whether a serial says nothing about which device it is: too short, a known filler, one that counts up or repeats, or is mostly
 * noughts.
 * @example isFiller('0123456789ABCDEF') // true
 */
export function isFiller(serial: string): boolean {
  const plain = plainSerial(serial);
  if (plain.length < LEAST_IDENTITY) return true;
  const part = period(plain);
  if (FILLERS.has(plain) || part !== plain || counts(plain)) return true;
  // Noughts or letters F with a last few that count devices: 000000000001.
  const core = plain.replace(/^(?:0+|F+)/, '');
  return core.length < LEAST_IDENTITY || (counts(core) && core.length >= 6) || new Set(plain).size < 3;
}

/**
 * Gives the serial by which a device can be told, as it is compared; nothing where it has none that tells.
 * @example tellingSerial({ serial: '0000' }) // undefined
 */
export function tellingSerial({ serial }: Pick<ListedDevice, 'serial'>): string | undefined {
  return serial === undefined || isFiller(serial) ? undefined : plainSerial(serial);
}

/** How far two sizes may be apart where one is rounded: to a tenth of a terabyte, as some systems do, or by their share. */
const ROUNDING = { gb: 60, share: 0.06 };

/**
 * Tells whether two sizes can be those of one device: the same bytes, or the beginning of them, as in a listing that is cut; where one of
 * them is rounded, close enough.
 * @example sameSize({ bytes: 5, approxGB: 0 }, { bytes: 5, approxGB: 0 }) // true
 */
export function sameSize(
  a: Pick<ListedDevice, 'bytes' | 'approxGB'>,
  b: Pick<ListedDevice, 'bytes' | 'approxGB'>
): boolean {
  if (a.bytes !== null && b.bytes !== null) {
    const [one, other] = [String(a.bytes), String(b.bytes)];
    return one.startsWith(other) || other.startsWith(one);
  }
  if (a.approxGB === null || b.approxGB === null) return true;
  return Math.abs(a.approxGB - b.approxGB) <= Math.max(ROUNDING.gb, ROUNDING.share * Math.max(a.approxGB, b.approxGB));
}

/**
 * Tells whether two serials are of one device: equal, or one holds the other, as bridges cut and pad them.
 * @example sameSerial('fh24-a07733', 'FH24A07733') // 'equal'
 */
export function sameSerial(listed: string, expected: string): 'equal' | 'part' | null {
  const [a, b] = [plainSerial(listed), plainSerial(expected)];
  if (a === b) return 'equal';
  const [short, long] = a.length < b.length ? [a, b] : [b, a];
  return short.length >= 8 && (long.startsWith(short) || long.endsWith(short)) ? 'part' : null;
}
