import { z } from 'zod';

const KIB = 1024;

/**
 * Makes a field for an allocation unit, as advice writes it.
 * @example allocationUnit().safeParse('128 KiB').success // true
 */
export const allocationUnit = () => z.string().regex(/^\d{1,4} (?:KiB|MiB)$/, 'must be such as 128 KiB');

/**
 * Reads an allocation unit as it is written in advice, bytes.
 * @example clusterBytes('32 KiB') // 32768
 */
export function clusterBytes(text: string): number {
  const [number = '', unit] = text.split(' ');
  return Number(number) * (unit === 'MiB' ? KIB * KIB : KIB);
}

/**
 * Writes an allocation unit.
 * @example clusterText(131072) // '128 KiB'
 */
export const clusterText = (bytes: number): string =>
  bytes >= 2 ** 20 ? `${bytes / 2 ** 20} MiB` : `${bytes / 1024} KiB`;
