/* eslint-disable @typescript-eslint/no-non-null-assertion -- the index lies inside the text */
import type { Span } from './claims.ts';

/** Longest stretch of one kind of character that means anything, and longest line; more is noise that patterns would choke on. */
const LONGEST_RUN = 24;
const LONGEST_LINE = 2000;

/**
 * Noise made harmless, every offset kept: a long stretch of digits, blanks or signs becomes letters that no pattern looks for, and a
 * line without end is broken.
 */
function withoutNoise(text: string): string {
  const runs = new RegExp(
    `[\\d.,' ]{${LONGEST_RUN},}|\\s{${LONGEST_RUN},}|[^\\w\\s]{${LONGEST_RUN},}|[A-Za-z_]{60,}`,
    'g'
  );
  return text
    .replace(runs, (run) =>
      run.trim() === '' ? run[0]!.repeat(2) + '\n'.repeat(run.length - 2) : 'ø'.repeat(run.length)
    )
    .split('\n')
    .map((line) =>
      line.length <= LONGEST_LINE
        ? line
        : line.replace(new RegExp(`(.{${LONGEST_LINE}}).`, 'g'), (_, kept: string) => `${kept}\n`)
    )
    .join('\n');
}

/**
 * Gives the text as the patterns see it: signs that only decorate are blanks, quotes and dashes have one form, lines broken in the
 * middle of a sentence are joined. Every offset is the same as in the original, so that words can be quoted.
 */
export function normalise(text: string): string {
  const plain = withoutNoise(text)
    .replace(/[®™©•●▪►✓✔*|]/g, ' ')
    .replace(/[\u00a0\u202f\u2009\t]/g, ' ')
    .replace(/[‐‑‒–—−]/g, '-')
    .replace(/[“”„″]/g, '"')
    .replace(/[‘’′]/g, "'")
    .replace(/×/g, 'x')
    .replace(/·/g, ' ')
    .replace(/\r/g, ' ')
    .replace(/\.{3,}| (?:\. )+(?=\S)/g, (leader) => ' '.repeat(leader.length));
  // A long line that does not end a sentence goes on in the next one, unless that one begins with a label of its own.
  const lines = plain.split('\n');
  return lines
    .map((line, i) => {
      const next = lines[i + 1] ?? '';
      const goesOn =
        line.length > 60 && !/[.:;)]$/.test(line) && /^[A-Za-z0-9]/.test(next) && !next.slice(0, 31).includes(':');
      return line + (i === lines.length - 1 ? '' : goesOn ? ' ' : '\n');
    })
    .join('');
}

/** Gives without the blanks and full stops at its end. */
export function withoutEnd(text: string): string {
  let end = text.length;
  while (end > 0 && /[\s.]/.test(text[end - 1]!)) end--;
  return text.slice(0, end);
}

/** A clause: what stands between line ends, semicolons, full stops and commas that do not belong to a number. */
export type Clause = Span & { text: string; line: Span };

/** More clauses than a page has; what follows them is noise. */
const MOST_CLAUSES = 800;

/** Splits into clauses. A label at the start of a line stays with every clause of it, for it says what they are about. */
export function clausesOf(text: string): Clause[] {
  const clauses: Clause[] = [];
  let at = 0;
  for (const raw of text.split('\n')) {
    const line = { start: at, end: at + raw.length };
    let start = 0;
    for (const cut of raw.matchAll(
      /;|\.(?=\s|$)(?<!\b(?:max|seq|min|approx|incl|no|up|gen)\.)|,(?!\d{3}\b|\d+\s*[A-Za-z%°])(?=\s|$)|,(?=[^\d\s])/gi
    )) {
      clauses.push({ start: at + start, end: at + cut.index, text: raw.slice(start, cut.index), line });
      start = cut.index + 1;
    }
    clauses.push({ start: at + start, end: line.end, text: raw.slice(start), line });
    at += raw.length + 1;
  }
  return clauses.filter((clause) => clause.text.trim() !== '').slice(0, MOST_CLAUSES);
}

export const NUMBER = String.raw`\d{1,3}(?:[ ,.']\d{3})+(?:[.,]\d+)?|\d+(?:[.,]\d+)?`;

const WORDS = [
  'zero',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve'
];
export const NUMBER_WORD = WORDS.slice(1).join('|');

/**
 * Lists every way in which a printed number can be read: `7,100` as 7100 and 7.1, `five` as 5. The range in which the field is
 * believable settles it; where it does not, the question is asked.
 */
export function numbersIn(printed: string): number[] {
  const word = WORDS.indexOf(printed.trim().toLowerCase());
  if (word >= 0) return [word];
  const compact = printed.replace(/[\s']/g, '');
  const grouped = /^\d{1,3}([.,]\d{3})+$/.test(compact);
  const decimal = Number(compact.replace(',', '.'));
  if (grouped) {
    const whole = Number(compact.replace(/[.,]/g, ''));
    return Number.isFinite(decimal) ? [whole, decimal] : [whole];
  }
  if (Number.isFinite(decimal)) return [decimal];
  const last = Math.max(compact.lastIndexOf(','), compact.lastIndexOf('.'));
  return [Number(compact.slice(0, last).replace(/[.,]/g, '') + '.' + compact.slice(last + 1))];
}

/** Gives the readings of a printed number, in the field's unit, that lie in a believable range. */
export const believable = (printed: string, factor: number, min: number, max: number): number[] =>
  numbersIn(printed)
    .map((n) => Number((n * factor).toPrecision(9)))
    .filter((n) => n >= min && n <= max);

/** Gives the same text with some stretches blanked, so that later patterns do not read them again. */
export function blank(text: string, spans: readonly Span[]): string {
  let out = text;
  for (const { start, end } of spans)
    out = out.slice(0, start) + out.slice(start, end).replace(/[^\n]/g, ' ') + out.slice(end);
  return out;
}

/** Tells whether the words before a stretch, within its clause, take it back: "no", "not", "without". */
export const denied = (text: string, at: number): boolean =>
  /\b(?:no|not|without|non|nor|never|doesn't|does not|isn't|is not)\b[^.,;\n]{0,24}$/i.test(
    text.slice(Math.max(0, at - 40), at)
  );
