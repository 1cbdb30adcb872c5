/* eslint-disable @typescript-eslint/no-non-null-assertion -- every pattern of a number has a group that begins with a digit */
import type { Claim, Gathered, OpenQuestion } from './claims.ts';
import { believable, denied, NUMBER } from './text.ts';

/** What a pattern makes of a match: one value, nothing, or several readings that must be asked about. */
export type Meaning = { value: unknown } | { options: unknown[]; why: string } | undefined;

export type Pattern = {
  path: string;
  match: RegExp;
  sure?: boolean;
  /** Where words such as "no" or "without" before the match take it back: what it then means. */
  denies?: unknown;
  mean: (match: RegExpExecArray | RegExpMatchArray) => Meaning;
};

/** Makes what a pattern found out of a value; undefined stays nothing. */
export const meaning = (value: unknown): Meaning => (value === undefined ? undefined : { value });

/** Gives a pattern that means one thing wherever it occurs; denied, it means something else or nothing. */
export const meansWhenSaid = (
  path: string,
  match: RegExp,
  value: unknown,
  more: { sure?: boolean; denies?: unknown } = {}
): Pattern => ({
  path,
  match,
  mean: () => meaning(value),
  ...more
});

/**
 * Gives a number in a unit. `before` and `after` are what stands around it, `units` what each spelling is worth in the field's unit,
 * `min` and `max` what is believable for this field.
 */
// eslint-disable-next-line max-params -- a row of a table of patterns
export function measured(
  path: string,
  before: string,
  units: Readonly<Record<string, number>>,
  after: string,
  [min, max]: readonly [number, number],
  sure = true
): Pattern {
  const names = Object.keys(units)
    .sort((a, b) => b.length - a.length)
    .map((name) => name.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&'));
  const unit = names.includes('') ? `(${names.filter(Boolean).join('|')})?` : `(${names.join('|')})`;
  return {
    path,
    sure,
    match: new RegExp(`${before}(?<![\\w.,])(${NUMBER}) ?-?${unit}(?![A-Za-z0-9])${after}`, 'gi'),
    mean: (match) => {
      const groups = match.slice(1).filter((group) => group !== undefined);
      const printed = groups.find((group) => /^\d/.test(group))!;
      const spelled = (groups[groups.indexOf(printed) + 1] ?? '').toLowerCase();
      const factor = Object.entries(units).find(([name]) => name.toLowerCase() === spelled)?.[1] ?? units[''] ?? 1;
      const values = believable(printed, factor, min, max);
      if (values.length > 1) return { options: values, why: `“${printed}” can be read in two ways.` };
      return meaning(values[0]);
    }
  };
}

/** Lists all that a list of patterns finds in a text. */
export function claimsIn(text: string, patterns: readonly Pattern[]): Gathered {
  const claims: Claim[] = [];
  const questions: OpenQuestion[] = [];
  for (const { path, match, mean, sure = true, denies } of patterns) {
    for (const m of text.matchAll(match)) {
      const start = m.index + (m[0].length - m[0].trimStart().length);
      const end = m.index + m[0].trimEnd().length;
      if (denied(text, start)) {
        if (denies !== undefined) claims.push({ path, value: denies, start, end, sure });
        continue;
      }
      const meaning = mean(m);
      if (meaning === undefined) continue;
      if ('value' in meaning) claims.push({ path, value: meaning.value, start, end, sure });
      else
        questions.push({
          path,
          why: meaning.why,
          options: meaning.options.map((value) => ({ value, words: m[0].trim() })),
          spans: [{ start, end }]
        });
    }
  }
  return { claims, questions };
}

/** Puts what several readers found together. */
export const allClaims = (...parts: readonly Gathered[]): Gathered => ({
  claims: parts.flatMap((part) => part.claims),
  questions: parts.flatMap((part) => part.questions)
});

/** Lists every match of a pattern gathered into one list value, in a fixed order. */
// eslint-disable-next-line max-params -- a row of a table of patterns
export function listOf<T>(
  text: string,
  path: string,
  match: RegExp,
  read: (m: RegExpMatchArray) => T | T[] | undefined,
  order: readonly T[],
  sure = true
): Gathered {
  const spans: { start: number; end: number }[] = [];
  const values = new Set<T>();
  for (const m of text.matchAll(match)) {
    if (denied(text, m.index)) continue;
    const value = read(m);
    for (const one of Array.isArray(value) ? value : value === undefined ? [] : [value]) values.add(one);
    if (value !== undefined) spans.push({ start: m.index, end: m.index + m[0].length });
  }
  if (values.size === 0) return { claims: [], questions: [] };
  const value = order.filter((one) => values.has(one));
  return { claims: spans.map((span) => ({ ...span, path, value, sure })), questions: [] };
}
