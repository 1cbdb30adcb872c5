import type { RankRow } from '#core/compare/ranking/request';

/** A pairing at its best, its place among the pairings, and the computers and ports on which it stands lower or alike. */
export type FoldedRow = { row: RankRow; rank: number; alike: RankRow[] };

const pairing = ({ cableId, enclosureId, driveId }: RankRow) => `${cableId ?? ''} ${enclosureId} ${driveId}`;

/** Pairings that differ only by computer and port stand as one, where the first of them stands; places run without gaps. */
export function foldPorts(rows: readonly RankRow[], fold: boolean): FoldedRow[] {
  const folded = new Map<string, FoldedRow>();
  rows.forEach((row, i) => {
    const key = fold ? pairing(row) : String(i);
    const found = folded.get(key);
    if (found) found.alike.push(row);
    else folded.set(key, { row, rank: folded.size + 1, alike: [] });
  });
  return [...folded.values()];
}
