import type { RankRow } from '#core/compare/ranking/request';

/** A row, and the ports of the same host on which the same parts come to the same figures. */
export type FoldedRow = { row: RankRow; rank: number; alike: RankRow[] };

const figures = ({ portId: _p, ...rest }: RankRow) => JSON.stringify(rest);

/** Rows that differ in nothing but the port stand as one, under the first of their ranks. */
export function foldPorts(rows: readonly RankRow[], fold: boolean): FoldedRow[] {
  const folded = new Map<string, FoldedRow>();
  rows.forEach((row, i) => {
    const key = fold ? figures(row) : String(i);
    const found = folded.get(key);
    if (found) found.alike.push(row);
    else folded.set(key, { row, rank: i + 1, alike: [] });
  });
  return [...folded.values()];
}
