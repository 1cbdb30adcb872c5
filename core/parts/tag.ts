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
 * The next free tags of a kind: `D-009`, `D-010`. Numbers go on from the highest one, so that a label that still sticks on a
 * retired part never names another one.
 */
export function nextTags(kind: Kind, taken: readonly string[], count: number): string[] {
  const letter = TAG_LETTER[kind];
  let highest = 0;
  for (const tag of taken) {
    const match = new RegExp(`^${letter}-(\\d{1,9})$`).exec(tag);
    if (match) highest = Math.max(highest, Number(match[1]));
  }
  return Array.from({ length: count }, (_, i) => `${letter}-${String(highest + 1 + i).padStart(3, '0')}`);
}
