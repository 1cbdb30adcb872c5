import { sizeOf } from '../listing/text.ts';

/** Most files of a list that are read. */
const MOST_FILES = 200_000;

/**
 * Reads the sizes of files out of a list that was pasted: the first number with its unit on each line, bytes where there is none.
 * @returns sizes in bytes, and how many lines hold none
 * @example readSizes('4096 a.txt\n1.5 MB b.tif\nname').sizes // [4096, 1500000]
 */
export function readSizes(text: string): { sizes: number[]; unread: number } {
  const sizes: number[] = [];
  let unread = 0;
  for (const line of text.split('\n').slice(0, MOST_FILES)) {
    if (line.trim() === '') continue;
    // A long listing has rights, links, owner and group before the size; folders have none of their own.
    const long = /^([-dl])[rwxsStT-]{9}\S? +\d+ +\S+ +\S+ +(\d[\d.,]{0,20}[KMGT]?) /.exec(line.slice(0, 400));
    if (long?.[1] === 'd') continue;
    const found = long?.[2] ?? /(?:^|\s)(\d[\d.,]{0,20}(?: ?[KMGT]i?B?| ?B)?)(?=\s|$)/i.exec(line.slice(0, 400))?.[1];
    // K, M and G without a B are powers of 1024 there.
    const size = found === undefined ? null : sizeOf(found, !/b$/i.test(found));
    if (size) sizes.push(Math.round(size.gb * 1e9));
    else unread += 1;
  }
  return { sizes, unread };
}
