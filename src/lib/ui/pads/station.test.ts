import { describe, expect, it } from 'vitest';
import { anInput } from '../../../../tests/parts';
import { untyped } from '../../../../tests/untyped';
import type { Library } from '#core/build/assemble';
import { PadStation } from './station.svelte';

const empty = untyped<Library>({
  host: new Map(),
  cable: new Map(),
  enclosure: new Map(),
  drive: new Map(),
  job: new Map(),
  pads: [],
  quotes: [],
  knownPairs: [],
  houseRules: {},
  exchange: { currency: 'EUR', rates: [] },
  stock: new Map(),
  runs: []
});
const pads = [0.5, 1, 1.5, 2].map((thicknessMm) => ({
  kind: 'pad' as const,
  id: `pad${thicknessMm}`,
  name: `Pad ${thicknessMm}`,
  thicknessMm,
  widthMm: 100,
  lengthMm: 100
}));
// controller of 1.2 mm under a lid at 2.2 mm: a gap of 1 mm
const chip = {
  role: 'controller' as const,
  side: 'top' as const,
  xMm: 20,
  yMm: 5,
  widthMm: 12,
  lengthMm: 13,
  heightMm: 1.2
};
function station() {
  const input = anInput();
  const snapshot = {
    ...input,
    drive: { ...input.drive, components: [chip] },
    enclosure: { ...input.enclosure, clearanceTopMm: 2.2 },
    pads
  };
  return new PadStation(() => ({
    library: empty,
    choice: { hostId: 'h', portId: 'p', enclosureId: 'e', driveId: 'd' },
    snapshot,
    rules: undefined
  }));
}

describe('the station for pads', () => {
  it('plans from what the build was planned from, where its parts are gone', () => {
    const one = station();
    expect(one.laid.rows[0]).toMatchObject({ component: 0, gapMm: 1 });
  });
  it('a gap that was measured is what counts, and pads for it are tried at once; without it the sum of heights is back', () => {
    const one = station();
    one.measureGap(0, 1.6);
    expect(one.tried?.gaps).toEqual([{ component: 0, atLeastMm: 1.6, measured: true }]);
    expect(one.laid.rows[0]).toMatchObject({ gapMm: 1.6 });
    // 2 mm in 1.6 mm is pressed by (2 - 1.6) / 2 = 20 %; 1.5 mm would not reach
    expect(one.layersAt(0)).toBe('pad2');
    one.measureGap(0, null);
    expect(one.laid.rows[0]).toMatchObject({ gapMm: 1 });
  });
  it('a pad chosen from the menu keeps the gaps that were measured', () => {
    const one = station();
    one.measureGap(0, 1.6);
    one.choosePad(0, 'pad0.5');
    expect(one.tried).toMatchObject({ pieces: [{ component: 0, layers: ['pad0.5'] }], gaps: [{ atLeastMm: 1.6 }] });
    expect(one.laid.rows[0]!.verdict).toBe('no-contact');
    one.choosePad(0, '');
    expect(one.laid.rows[0]!.pads).toEqual([]);
  });
  it('a pad that touched nothing makes the gap wider: the next one is tried', () => {
    const one = station();
    one.choosePad(0, 'pad1');
    const check = one.imprintOf({ 0: { onChip: 'none', onCase: 'none' } }, ' dry ');
    expect(check).toMatchObject({ note: 'dry', chips: [{ component: 0, padsMm: [1] }] });
    one.afterImprint(check);
    expect(one.laid.rows[0]!.gapMm).toBeGreaterThanOrEqual(1);
    expect(one.layersAt(0)).not.toBe('pad1');
    // of which nothing was said is even
    expect(one.imprintOf({}, '').chips[0]).toMatchObject({ onChip: 'even', onCase: 'even' });
  });
  it('chips are added, moved and taken away, and none of it is kept before it is', () => {
    const one = station();
    one.show('bottom');
    one.addChip();
    expect(one.chips).toHaveLength(2);
    expect(one.chips[1]).toMatchObject({ side: 'bottom' });
    expect(one.selected).toBe(1);
    one.setChip(1, { ...one.chips[1]!, xMm: 44 });
    expect(one.drive.components?.[1]).toMatchObject({ xMm: 44 });
    one.removeChip(0);
    expect(one.chips).toHaveLength(1);
    one.forget();
    expect(one.chips).toEqual([chip]);
    expect(one.drive).toBe(one.input.drive);
  });
  it('offers no proposals while a chip lies wrong', () => {
    const one = station();
    one.setChip(0, { ...chip, xMm: 500 });
    expect(one.problems.length).toBeGreaterThan(0);
    expect(one.proposals).toBeNull();
  });
});
