/**
 * Cleans what was pasted: colours of a terminal, marks of an encoding, odd blanks and line ends, tabs.
 * @example tidy('a\u00a0b\r\n') // 'a b\n'
 */
export function tidy(text: string): string {
  return (
    text
      // eslint-disable-next-line no-control-regex -- colours and cursor moves of a terminal
      .replace(/\u001b\[[0-9;?]*[A-Za-z]/g, '')
      .replace(/[\ufeff\u200b-\u200f\u2060]/g, '')
      .replace(/\r\n?/g, '\n')
      .replace(/[\u00a0\u2000-\u200a\u202f\u205f\u3000]/g, ' ')
      .split('\n')
      .map(untabbed)
      .join('\n')
  );
}

/** Sets tabs out to columns of eight, as a terminal does. */
function untabbed(line: string): string {
  if (!line.includes('\t')) return line;
  let out = '';
  for (const char of line) out += char === '\t' ? ' '.repeat(8 - (out.length % 8)) : char;
  return out;
}

/** A size as a listing gives it: GB (10^9), and the bytes where they are exact. */
export type ListedSize = { gb: number; bytes: number | null };

const POWER: Record<string, number> = { '': 0, K: 1, M: 2, G: 3, T: 4, P: 5, К: 1, М: 2, Г: 3, Т: 4, П: 5 };
const SIZE =
  /^([\d.,' ]*\d)\s*(?:([KMGTPКМГТП])(i)?\s*(?:B|bytes?|o|octets|Б|b)?|(?:B|bytes?|octets|Bytes?|byte|б|Б|байт)?)$/iu;

/** Reads a number as any language writes it; where a point could part thousands or decimals, by what `whole` says. */
function numberOf(text: string, whole: boolean): { value: number } | null {
  const tight = text.trim().replace(/(?<=\d)[ '](?=\d{3})/g, '');
  if (!/^\d+(?:[.,]\d+)*$/.test(tight)) return null;
  const marks = tight.match(/[.,]/g) ?? [];
  const last = marks.at(-1);
  if (last === undefined) return { value: Number(tight) };
  const groups = tight.split(/[.,]/);
  const thousands = groups.slice(1).every((group) => group.length === 3);
  const alike = marks.every((mark) => mark === last);
  // Two of one mark part thousands; one mark and three digits do so only where there can be no decimals.
  if (thousands && alike && (marks.length > 1 || whole)) return { value: Number(groups.join('')) };
  if (marks.length > 1 && marks.slice(0, -1).includes(last)) return null;
  const decimals = groups.at(-1) ?? '';
  return { value: Number(`${groups.slice(0, -1).join('')}.${decimals}`) };
}

/**
 * Reads a size in the words of a system.
 * @param binary whether K, M, G and T without an i are powers of 1024 there, as on Windows and in most listings of Linux
 * @example sizeOf('1,8T', true)?.gb // 1979.1209299968
 */
// eslint-disable-next-line complexity -- one line for each thing that such a listing can hold
export function sizeOf(text: string, binary: boolean): ListedSize | null {
  if (text.length > 40) return null;
  const [, number, letter = '', iec] = SIZE.exec(text.trim()) ?? [];
  if (number === undefined) return null;
  const power = POWER[letter.toUpperCase()] ?? 0;
  // A thousand gigabytes may be written with a mark; there is no half byte.
  const read = numberOf(number, power === 0 || (power === 3 && /^\d[.,]\d{3}$/.test(number.trim())));
  if (!read) return null;
  const factor = (iec || binary ? 1024 : 1000) ** power;
  const bytes = power === 0 && Number.isSafeInteger(read.value) ? read.value : null;
  return { gb: (read.value * factor) / 1e9, bytes };
}

/**
 * Makes a cell of a listing into what it says: nothing where it is empty or a dash.
 * @example cellText(' - ') // undefined
 */
export function cellText(cell: string | null | undefined): string | undefined {
  const text = (cell ?? '').trim().replace(/\s+/g, ' ');
  return text === '' || text === '-' || text === '--' || /^(?:n\/a|null|\(null\)|none)$/i.test(text) ? undefined : text;
}

/**
 * Tells whether a system left out the end of a cell.
 * @example isClipped('WD-1234...') // true
 */
export const isClipped = (cell: string): boolean => /(?:\.{3}|…)\s*$/.test(cell);
