const escapeLike = (word: string) => word.replace(/[\\%_]/g, (sign) => `\\${sign}`);
/** More words than this nobody looks for. */
const MOST_WORDS = 8;

/** Turns what somebody typed into patterns for `like`, one for each word: `%` and `_` are looked for as they are. */
export const likeWords = (find: string): string[] =>
  find
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .slice(0, MOST_WORDS)
    .map((word) => `%${escapeLike(word)}%`);
