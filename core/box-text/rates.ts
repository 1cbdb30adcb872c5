/* eslint-disable @typescript-eslint/no-non-null-assertion -- the groups named here take part in every match of their pattern; a reading has one rate at least */
import type { Gathered } from './claims.ts';
import { numbersIn, NUMBER, type Clause } from './text.ts';

const RATE_UNIT = String.raw`(?:[MG]i?)(?:B|b|bit|Bit)(?:s|it|yte)?s? ?(?:\/ ?s(?:ec)?|ps|pro s)`;
const TOKEN = new RegExp(
  String.raw`(?<![\w.,])(${NUMBER}) ?(?:(${RATE_UNIT})|(?=\s?(?:\/|and|&)\s?(?:up to )?(?:${NUMBER}) ?(${RATE_UNIT})))`,
  'gi'
);
/** "Read" and "write" as boxes of several languages print them; alone an R or a W needs its colon. */
const DIRECTION =
  /\b(reads?|reading|lesen|lecture|lectura|lettura|r:)|\b(writes?|writing|schreiben|écriture|ecriture|escritura|scrittura|w:)|\b(r)\/(w)\b/gi;

type Rate = { start: number; end: number; MBps: number[]; bits: boolean };

function ratesOf(clause: Clause): Rate[] {
  const rates: Rate[] = [];
  for (const match of clause.text.matchAll(TOKEN)) {
    const unit = match[2] ?? match[3]!;
    const giga = /^g/i.test(unit);
    const binary = /^.i/i.test(unit);
    const capitals = unit === unit.toUpperCase() && clause.text === clause.text.toUpperCase();
    const bits = /bit|b ?ps/.test(unit) ? !/B/.test(unit) : /b/.test(unit) && !capitals;
    const scale = (giga ? 1000 : 1) * (binary ? (giga ? 2 ** 30 / 1e9 : 2 ** 20 / 1e6) : 1);
    const MBps = numbersIn(match[1]!)
      .map((n) => Number((n * scale).toPrecision(6)))
      .filter((n) => n >= 30 && n <= 20_000);
    if (MBps.length > 0)
      rates.push({ start: clause.start + match.index, end: clause.start + match.index + match[0].length, MBps, bits });
  }
  return rates;
}

/** A rate that is printed in bits, or that can be read in two ways, is asked; every other is taken. */
function addRate(into: Gathered, line: Clause, path: string, { rate, at }: { rate: Rate; at: number }): void {
  const { start, end, MBps, bits } = rate;
  if (!bits && MBps.length === 1) {
    const span = { start: Math.min(start, at), end: Math.max(end, at + 4) };
    into.claims.push({ ...span, path, value: MBps[0], sure: true });
    return;
  }
  const values = bits ? [...MBps, ...MBps.map((n) => n / 8)] : MBps;
  into.questions.push({
    path,
    why: bits ? 'It is printed in bits; throughput is usually given in bytes.' : 'The number can be read in two ways.',
    options: values.map((value) => ({ value, words: line.text.trim() })),
    spans: [{ start, end }]
  });
}

/**
 * Reads sequential rates: read and write words and rates are paired in their order, which covers `read 7000`, `7000 read`,
 * `read/write 7000/6500` alike. A rate in bits where bytes are usual is asked.
 */
export function sequentialRates(clauses: readonly Clause[]): Gathered {
  const gathered: Gathered = { claims: [], questions: [] };
  for (const line of linesOf(clauses)) {
    if (/random|iops|\b4k/i.test(line.text) && !/seq/i.test(line.text)) continue;
    const after =
      /(?:after|post)[- ](?:the )?(?:slc )?cache|after that|once (?:the cache|it) is full|sustained write|native write|steady[- ]state write/i.exec(
        line.text
      );
    const words: { write: boolean; at: number }[] = [];
    for (const match of line.text.matchAll(DIRECTION)) {
      if (match[3]) words.push({ write: false, at: match.index }, { write: true, at: match.index + 2 });
      else words.push({ write: match[2] !== undefined, at: match.index });
    }
    const rates = ratesOf(line);
    const pairs =
      words.length === rates.length
        ? words.map((word, i) => ({ word, rate: rates[i]! }))
        : nearest(words, rates, line.start);
    for (const { word, rate } of pairs) {
      const path = after && word.write ? 'flash.postCacheWriteMBps' : word.write ? 'writeMBps' : 'readMBps';
      addRate(gathered, line, path, { rate, at: line.start + word.at });
    }
  }
  return gathered;
}

function nearest(words: readonly { write: boolean; at: number }[], rates: readonly Rate[], offset: number) {
  if (words.length === 0 || rates.length !== 1) return [];
  return [
    {
      word: words.reduce((a, b) =>
        Math.abs(offset + b.at - rates[0]!.start) < Math.abs(offset + a.at - rates[0]!.start) ? b : a
      ),
      rate: rates[0]!
    }
  ];
}

/** Clauses of one line that hold only half of a pair are read as one: `12,400 MB/s (read) / 11,800 MB/s (write)`. */
function linesOf(clauses: readonly Clause[]): Clause[] {
  const lines: Clause[] = [];
  for (const clause of clauses) {
    const last = lines.at(-1);
    const lonely =
      last &&
      last.line.start === clause.line.start &&
      new RegExp(RATE_UNIT, 'i').test(last.text) !== (last.text.match(DIRECTION) !== null);
    if (last && lonely && clause.start - last.end <= 1)
      lines[lines.length - 1] = {
        ...last,
        end: clause.end,
        text: last.text + ' '.repeat(clause.start - last.end) + clause.text
      };
    else lines.push(clause);
  }
  return lines;
}
