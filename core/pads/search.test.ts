import { describe, expect, it } from 'vitest';
import { aDrive, anEnclosure } from '../../tests/parts';
import { BOARD_LIMITS } from '../facts/m2';
import { seeded } from '../quantities/random';
import { boardOf, type Component } from './board';
import { cutPieces } from './cutting/cut';
import { layIn, padKinds, padOptions, type PadKind } from './gap';
import { boardBow, gapsOf, componentRow, type FilledGap } from './plan-pads';
import { proposePads } from './propose';
import { compareKeys, Judge, searchSets, waysEach } from './search';

const pads = [0.5, 1, 1.5, 2].map((thicknessMm) => ({
  kind: 'pad' as const,
  name: `P${thicknessMm}`,
  thicknessMm,
  widthMm: 20,
  lengthMm: 70
}));

/** A board with chips on a grid, each of a height of its own, some of them below. */
function randomBoard(seed: number, count: number): Component[] {
  const random = seeded(seed);
  return Array.from({ length: count }, (_, i): Component => {
    const column = i % 10;
    const row = Math.floor(i / 10) % 2;
    return {
      role: random() < 0.3 ? 'controller' : 'nand',
      side: i >= 20 ? 'bottom' : 'top',
      xMm: 6 + column * 7,
      yMm: 1 + row * 10,
      widthMm: 8,
      lengthMm: 6,
      heightMm: Math.round((0.6 + random() * 1) * 100) / 100
    };
  });
}

function search(components: Component[], stacked: boolean) {
  const drive = aDrive({ components });
  const enclosure = anEnclosure({ clearanceTopMm: 2.2, clearanceBottomMm: 2.2 });
  const board = boardOf(drive, true)!;
  const places = gapsOf(board, enclosure, undefined, 0);
  const byKey = new Map<string, typeof places>();
  for (const p of places) {
    const key = `${p.chip.side} ${p.chip.role} ${p.gapMm}`;
    byKey.set(key, [...(byKey.get(key) ?? []), p]);
  }
  const groups = [...byKey.values()];
  const kinds = padKinds(undefined, pads);
  const each = waysEach(groups.length, 4);
  const ways = groups.map((group) =>
    padOptions(group[0]!.gapMm, kinds, stacked)
      .slice(0, each)
      .map(({ layers }) => layers)
  );
  return { board, places, groups, ways, judge: new Judge(board, places, groups, ways, false) };
}

/** The key of a set the long way: from the rows and the pieces that would be shown. */
function keyTheLongWay({ board, places, groups, ways }: ReturnType<typeof search>, pick: readonly number[]): number[] {
  const filled = places.map((place): FilledGap => {
    const group = groups.findIndex((g) => g.includes(place));
    return { ...place, choice: layIn(ways[group]![pick[group]!]! as readonly PadKind[], place.gapMm) };
  });
  const rows = filled.map((place) => componentRow(place, place.choice));
  const bow = boardBow(board, rows)?.typical ?? 0;
  const pieces = cutPieces(board, filled, false);
  const count = (verdict: string) => rows.filter((row) => row.verdict === verdict).length;
  const backed = rows.some((row) => row.side === 'bottom' && row.forceN > 0);
  return [
    count('no-contact'),
    count('over-compressed'),
    rows.length - count('good'),
    count('high'),
    !backed && bow > BOARD_LIMITS.bowMm ? 1 : 0,
    pieces.filter((piece) => piece.layer > 0).length,
    Math.round(bow * 10),
    pieces.length,
    new Set(pieces.map((piece) => piece.pad.key)).size,
    pieces.filter((piece) => piece.pad.from === 'shop').length,
    pieces.filter((piece) => piece.pad.from === 'hand').length,
    rows.reduce((sum, row) => sum + Math.abs(row.compressionPercent - 20), 0)
  ];
}

function* picksOf(sizes: readonly number[], from = 0): Generator<number[]> {
  if (from === sizes.length) {
    yield [];
    return;
  }
  for (let way = 0; way < sizes[from]!; way++) for (const rest of picksOf(sizes, from + 1)) yield [way, ...rest];
}

describe('the best set of pads', () => {
  it('a key is what the rows and pieces of the set come to', () => {
    const random = seeded(7);
    for (let seed = 0; seed < 60; seed++) {
      const found = search(randomBoard(seed, 2 + (seed % 24)), seed % 2 === 0);
      const pick = found.ways.map((list) => Math.floor(random() * list.length));
      const [fast, slow] = [found.judge.keyOf(pick), keyTheLongWay(found, pick)];
      expect(fast.slice(0, -1)).toEqual(slow.slice(0, -1));
      expect(fast.at(-1)).toBeCloseTo(slow.at(-1)!, 6);
    }
  });

  it('equals looking at every set, on 300 boards of up to 12 groups', () => {
    let most = 0;
    for (let seed = 0; seed < 300; seed++) {
      const { judge, ways, groups } = search(randomBoard(1000 + seed, 1 + (seed % 12)), seed % 3 === 0);
      most = Math.max(most, groups.length);
      const sizes = ways.map((list) => list.length);
      let best: number[] | undefined;
      for (const pick of picksOf(sizes)) {
        const key = judge.keyOf(pick);
        if (!best || compareKeys(key, best) < 0) best = key;
      }
      expect(compareKeys(searchSets(judge, sizes)[0]!.key, best!), `board ${seed}`).toBe(0);
    }
    expect(most).toBe(12);
  }, 60_000);

  it('beyond 12 groups it is never worse than the best way of every group by itself', () => {
    for (let seed = 0; seed < 12; seed++) {
      const { judge, ways, groups } = search(randomBoard(2000 + seed, 24 + (seed % 16)), false);
      expect(groups.length).toBeGreaterThan(12);
      const sizes = ways.map((list) => list.length);
      const greedy = judge.keyOf(sizes.map(() => 0));
      expect(compareKeys(searchSets(judge, sizes)[0]!.key, greedy)).toBeLessThanOrEqual(0);
    }
  });

  it('tries more ways where there are few groups', () =>
    // 4^6 = 4096, 3^7 = 2187, 2^12 = 4096; beyond, a beam takes all four
    expect([1, 6, 7, 8, 12, 13].map((groups) => waysEach(groups, 4))).toEqual([4, 4, 3, 2, 2, 4]));

  it('40 chips of different heights get their proposals', () => {
    const drive = aDrive({ components: randomBoard(5, 40) });
    const made = proposePads({
      drive,
      doubleSided: true,
      enclosure: anEnclosure({ clearanceTopMm: 2.2, clearanceBottomMm: 2.2, takesDoubleSided: true }),
      pads
    })!;
    expect(made.sets.length).toBeGreaterThan(1);
    expect(made.sets[0]!.rows).toHaveLength(40);
  });
});
