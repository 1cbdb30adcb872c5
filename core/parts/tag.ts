/* eslint-disable @typescript-eslint/no-non-null-assertion -- both groups take part in every match */
import type { Kind } from './kinds.ts';

/** The letter that a unit's tag begins with says its kind, so that a label can be read without a scanner. */
export const TAG_LETTER: Record<Kind, string> = {
  drive: 'D',
  enclosure: 'E',
  cable: 'C',
  pad: 'P',
  host: 'H',
  alternative: 'X'
};

/**
 * Gives the letter and number of a tag that was given or could be: `D-009` is D and 9. Other tags are a person's own: undefined.
 * @example tagNumber('D-009') // { letter: 'D', number: 9 }
 */
export function tagNumber(tag: string): { letter: string; number: number } | undefined {
  const match = /^([A-Z])-(\d{1,9})$/.exec(tag);
  return match ? { letter: match[1]!, number: Number(match[2]) } : undefined;
}

/**
 * Gives the tags of a kind that follow a number: after 8 two more drives are `D-009` and `D-010`.
 * @param last the highest number that was ever given to this letter, so that a label never names another thing
 * @example tagsAfter('drive', 8, 2) // ['D-009', 'D-010']
 */
export const tagsAfter = (kind: Kind, last: number, count: number): string[] =>
  Array.from({ length: count }, (_, i) => `${TAG_LETTER[kind]}-${String(last + 1 + i).padStart(3, '0')}`);

/**
 * Tells what makes two tags the same: case, accents and invisible characters do not tell them apart, neither for a person who reads a label
 * nor for the database.
 * @example tagKey('d-009') === tagKey('D-009') // true
 */
export const tagKey = (tag: string): string =>
  tag
    .normalize('NFKD')
    .replace(/[\p{M}\p{Cf}]/gu, '')
    .trim()
    .toLowerCase();
