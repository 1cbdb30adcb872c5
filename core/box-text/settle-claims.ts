/* eslint-disable @typescript-eslint/no-non-null-assertion -- the value looked for comes from the same list */
import type { Claim, Found, OpenQuestion, Span } from './claims.ts';

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
const spanOf = ({ start, end }: Span): Span => ({ start, end });
const quote = (text: string, { start, end }: Span) => text.slice(start, end).trim().replace(/\s+/g, ' ');

/**
 * Claims into fields: what agrees is found, what does not is a question with each answer beside its words.
 * A sure claim outweighs a likely one; two sure ones that differ are asked.
 */
export function settleClaims(
  text: string,
  claims: readonly Claim[],
  asked: readonly OpenQuestion[]
): { found: Found[]; questions: OpenQuestion[] } {
  const found: Found[] = [];
  const questions: OpenQuestion[] = [...asked];
  const byPath = new Map<string, Claim[]>();
  for (const claim of claims) byPath.set(claim.path, [...(byPath.get(claim.path) ?? []), claim]);
  for (const [path, all] of byPath) {
    if (questions.some((question) => question.path === path)) continue;
    const sure = all.filter((claim) => claim.sure);
    const among = sure.length > 0 ? sure : all;
    const values: unknown[] = [];
    for (const { value } of among) if (!values.some((v) => same(v, value))) values.push(value);
    if (values.length === 1) {
      found.push({
        path,
        value: values[0],
        words: [...new Set(among.map((claim) => quote(text, claim)))],
        spans: among.map(spanOf),
        sure: sure.length > 0
      });
      continue;
    }
    questions.push({
      path,
      why: 'The text says this in more than one way.',
      options: values.map((value) => ({
        value,
        words: quote(
          text,
          among.find((claim) => same(claim.value, value))!
        )
      })),
      spans: among.map(spanOf)
    });
  }
  return { found, questions };
}
