import type { RankReport, RankRow } from '#core/compare/ranking/request';
import type { Way } from './Against.svelte';
import { keyOf } from './chart';
import type { FoldedRow } from './fold';
import type { RankNames } from './names';
import { heldAgainst } from './state';

/** Gives what a row comes to, as a way to the end. */
export const wayOf = (row: RankRow, { lineOf }: RankNames): Way => ({
  key: keyOf(row),
  name: lineOf(row),
  cost: row.cost,
  seconds: row.seconds
});

/** Gives the pairing that stands next to the one that is looked at: below the first, above all others. */
export function runnerUp(folded: readonly FoldedRow[], looked: RankRow): RankRow | undefined {
  const at = folded.findIndex(({ row }) => keyOf(row) === keyOf(looked));
  return (at <= 0 ? folded[1] : folded[0])?.row;
}

/**
 * Lists what a row can be held against, and which of them it is held against at first: the next pairing, unless the crate decided
 * otherwise by a house rule of its own.
 */
export function besideOf(
  report: RankReport,
  folded: readonly FoldedRow[],
  looked: RankRow,
  { names, rule }: { names: RankNames; rule: { choice: string; own: boolean } }
): { ways: Way[]; first: string | undefined } {
  const next = runnerUp(folded, looked);
  const cheapest = report.frontier[0]?.first;
  const plain = cheapest && report.rows.find((row) => keyOf(row) === keyOf(cheapest));
  return {
    ways: [
      ...(next ? [{ ...wayOf(next, names), name: `the next one: ${names.lineOf(next)}` }] : []),
      ...report.alternatives.map(({ id, name, cost, seconds }) => ({ key: id, name, cost, seconds })),
      ...(plain && keyOf(plain) !== keyOf(looked)
        ? [{ ...wayOf(plain, names), name: `the cheapest: ${names.lineOf(plain)}` }]
        : [])
    ],
    first: !rule.own && next ? keyOf(next) : heldAgainst(report.alternatives, rule.choice)?.id
  };
}
