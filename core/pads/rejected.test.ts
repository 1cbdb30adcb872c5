import { describe, expect, it } from 'vitest';
import { aDrive, anEnclosure } from '../../tests/parts.ts';
import { boardOf, usualChips } from './board.ts';
import { cutPieces, partRejected } from './cutting/cut.ts';
import { isRejected, stockPadsFor } from './gap.ts';
import { gapsAfterImprint } from './propose.ts';
import { gapsOf, planPads } from './plan-pads.ts';

const chip = (role: 'controller' | 'nand', xMm: number) =>
  ({ role, side: 'top', xMm, yMm: 4, widthMm: 12, lengthMm: 13, heightMm: 1 }) as const;
const pad = (thicknessMm: number) =>
  ({ kind: 'pad', id: `p${thicknessMm}`, name: `${thicknessMm} mm`, thicknessMm, widthMm: 50, lengthMm: 50 }) as const;
/** A lid 2.2 mm over the board leaves 1.2 mm over a chip of 1 mm. */
const stack = (thicknessMm: number, more: object = {}) => ({
  drive: aDrive({ components: [chip('controller', 15), chip('nand', 45)] }),
  doubleSided: false,
  enclosure: anEnclosure({ clearanceTopMm: 2.2 }),
  pads: [pad(thicknessMm)],
  ...more
});

describe('a pad that is rejected', () => {
  it('presses too hard, does not touch, or is high where a thickness that is sold does better', () => {
    // 2 mm in 1.2 mm: 40 %; 1.5 mm is sold, and gives 20 %
    expect(isRejected('high', 1.2)).toBe(true);
    expect(isRejected('no-contact', 1.2)).toBe(true);
    expect(isRejected('over-compressed', 1.2)).toBe(true);
    expect(isRejected('good', 1.2)).toBe(false);
    expect(isRejected('marginal', 1.2)).toBe(false);
    // nothing that is sold closes 20 mm well
    expect(isRejected('high', 20)).toBe(false);
  });
  it('is answered with what is sold and closes the gap: one pad, else two layers', () => {
    expect(stockPadsFor(1.2)).toEqual([1.5]);
    // 2 mm gives 3 %, 3 mm 35 %; two layers of 2.5 mm together give 22 %
    expect(stockPadsFor(1.95).reduce((a, b) => a + b, 0)).toBe(2.5);
    // 1 mm gives 8 %, 1.5 mm 39 %
    expect(stockPadsFor(0.92)).toEqual([]);
    expect(stockPadsFor(20)).toEqual([]);
  });
  it('is parted from what may be cut, so that no template is drawn for it', () => {
    const bad = planPads(stack(2));
    const { cut, rejected } = partRejected(bad.filled);
    expect(rejected.map(({ at }) => at)).toEqual([0, 1]);
    expect(cutPieces(bad.board!, cut, false)).toEqual([]);
    // 1.5 mm in 1.2 mm: 20 %
    const good = planPads(stack(1.5));
    expect(partRejected(good.filled).rejected).toEqual([]);
    expect(cutPieces(good.board!, partRejected(good.filled).cut, false)).toHaveLength(2);
  });
  it('one bad pad does not keep the other from being cut', () => {
    const chosen = { pieces: [], gaps: [{ component: 1, atLeastMm: 0.7, measured: true }] };
    // 1 mm: 30 % in 0.7 mm is good, and in 1.2 mm it does not touch
    const { filled, board } = planPads(stack(1, { chosen }));
    const { cut, rejected } = partRejected(filled);
    expect(rejected.map(({ at }) => at)).toEqual([0]);
    expect(cutPieces(board!, cut, false).map(({ components }) => components)).toEqual([[1]]);
  });
});

describe('a gap that was measured', () => {
  const drive = stack(1).drive;
  const board = boardOf(drive)!;
  const gaps = (clearanceTopMm: number | undefined, gap?: object) => {
    const { clearanceTopMm: _, ...open } = anEnclosure();
    const enclosure = clearanceTopMm === undefined ? open : { ...open, clearanceTopMm };
    const chosen = gap ? { pieces: [], gaps: [{ component: 0, atLeastMm: 0.8, ...gap }] } : undefined;
    return gapsOf(board, enclosure, chosen, 0).map(({ at, gapMm }) => [at, gapMm]);
  };
  it('is the gap, smaller or larger than what the parts state', () => {
    expect(gaps(2.2)).toEqual([
      [0, 1.2],
      [1, 1.2]
    ]);
    expect(gaps(2.2, { measured: true })[0]).toEqual([0, 0.8]);
    // an imprint says only that it is no smaller
    expect(gaps(2.2, {})[0]).toEqual([0, 1.2]);
  });
  it('is known where the enclosure states no room', () => {
    expect(gaps(undefined)).toEqual([]);
    expect(gaps(undefined, { measured: true })).toEqual([[0, 0.8]]);
    expect(gaps(undefined, {})).toEqual([]);
  });
  it('stays measured after an imprint has shown it wider', () => {
    const chosen = { pieces: [], gaps: [{ component: 0, atLeastMm: 0.8, measured: true }] };
    const { rows } = planPads(stack(1, { chosen }));
    expect(gapsAfterImprint(chosen, rows, [0]).gaps?.[0]).toMatchObject({ component: 0, measured: true });
  });
});

describe('the board of a drive without DRAM', () => {
  it('shows none', () => {
    const roles = (dram: boolean | undefined) =>
      boardOf(
        aDrive({ components: undefined, flash: { cell: 'tlc', ...(dram === undefined ? {} : { dram }) } })
      )!.chips.map(({ role }) => role);
    expect(roles(false)).not.toContain('dram');
    expect(roles(true)).toContain('dram');
    expect(roles(undefined)).toContain('dram');
    expect(usualChips(80, 'S3', false).length).toBe(usualChips(80, 'S3').length - 1);
  });
});
