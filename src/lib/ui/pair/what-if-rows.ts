import type { ChainPlace } from '#core/build/options';
import { VERDICT_ORDER } from '#core/findings/finding';
import type { SwapRow } from '#core/compare/swaps/what-if';

export const PLACE_WORD: Record<ChainPlace, string> = {
  port: 'port',
  cable: 'cable',
  enclosure: 'enclosure',
  drive: 'drive'
};

export type SwapColumn = 'name' | 'verdict' | 'read' | 'write' | 'sustained' | 'seconds' | 'price' | 'perGain';

function valueOf(row: SwapRow, column: SwapColumn): number | string | null {
  switch (column) {
    case 'name':
      return row.name;
    case 'verdict':
      return VERDICT_ORDER[row.verdict];
    case 'price':
      return row.price?.amount ?? null;
    case 'perGain':
      return row.perGain?.amount ?? null;
    case 'seconds':
      return row.seconds;
    default:
      return row[column]?.typical ?? null;
  }
}

/** Names of the same value, always in the same order. Asking the language for it takes as long as the whole list. */
const byName = (a: SwapRow, b: SwapRow): number => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0);

/** Sorted by a column; what has no value stands at the end either way, and names settle ties. */
export function sortedRows(rows: readonly SwapRow[], column: SwapColumn, down: boolean): SwapRow[] {
  const sign = down ? -1 : 1;
  return [...rows].sort((a, b) => {
    const [x, y] = [valueOf(a, column), valueOf(b, column)];
    if (x === null || y === null) return x === y ? byName(a, b) : x === null ? 1 : -1;
    const order = typeof x === 'string' ? x.localeCompare(y as string) : x - (y as number);
    return sign * order || byName(a, b);
  });
}
