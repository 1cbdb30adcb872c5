import { readSpecification } from '../core/box-text/read.ts';
import type { BoxReading } from '../core/box-text/claims.ts';

/** What a careful person reads in a text; see `judge`. */
export type Expected = {
  kind: string;
  text: string;
  stated: Record<string, unknown>;
  asked?: Record<string, unknown[]>;
};
export type ReadingScore = {
  stated: number;
  right: number;
  /** Fields read wrongly or out of nothing, with whether they were marked sure. */
  wrong: { path: string; wanted: unknown; got: unknown; sure: boolean }[];
};

const isObject = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);

/** Equal, where lists may stand in any order and a wanted object need only hold the keys it gives. */
export function covers(got: unknown, wanted: unknown, ordered = false): boolean {
  if (Array.isArray(wanted)) {
    if (!Array.isArray(got) || got.length !== wanted.length) return false;
    if (ordered) return wanted.every((w, i) => covers(got[i], w));
    const rest = [...got];
    return wanted.every((w) => {
      const at = rest.findIndex((g) => covers(g, w));
      if (at >= 0) rest.splice(at, 1);
      return at >= 0;
    });
  }
  if (isObject(wanted)) return isObject(got) && Object.entries(wanted).every(([key, w]) => covers(got[key], w));
  if (typeof wanted === 'number') return typeof got === 'number' && Math.abs(got - wanted) <= 1e-6 * Math.abs(wanted);
  return got === wanted;
}

/**
 * Compares a reading with what a person reads. A stated field is right when it was read with that value; a field that the
 * text leaves open is right when it was asked with the person's answers among those offered. Everything else that was read
 * with certainty, although the text does not state it, is wrong.
 */
export function judge(expected: Expected, reading: BoxReading = readSpecification(expected.text)): ReadingScore {
  const asked = expected.asked ?? {};
  const verdict: ReadingScore = {
    stated: 1 + Object.keys(expected.stated).length + Object.keys(asked).length,
    right: 0,
    wrong: []
  };
  if (reading.kind === expected.kind) verdict.right += 1;
  else verdict.wrong.push({ path: 'kind', wanted: expected.kind, got: reading.kind, sure: reading.kindSure });
  const found = new Map(reading.found.map((f) => [f.path, f]));
  for (const [path, wanted] of Object.entries(expected.stated)) {
    const got = found.get(path);
    if (got && covers(got.value, wanted)) verdict.right += 1;
    else verdict.wrong.push({ path, wanted, got: got?.value, sure: got?.sure ?? false });
  }
  for (const [path, wanted] of Object.entries(asked)) {
    const question = reading.questions.find((q) => q.path === path);
    if (question && wanted.every((w) => question.options.some((o) => covers(o.value, w)))) verdict.right += 1;
    else
      verdict.wrong.push({
        path,
        wanted,
        got: question?.options.map((o) => o.value) ?? found.get(path)?.value,
        sure: found.get(path)?.sure ?? false
      });
  }
  for (const { path, value, sure } of reading.found)
    if (!(path in expected.stated) && !(path in asked) && sure)
      verdict.wrong.push({ path, wanted: undefined, got: value, sure });
  return verdict;
}
