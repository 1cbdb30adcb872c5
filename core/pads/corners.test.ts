import { describe, expect, it } from 'vitest';
import { aDrive, anEnclosure } from '../../tests/parts';
import { boardProblems, boardRule, type Component } from './board';
import { labelThickness, planPads } from './plan-pads';
import { padStress } from './press';

const chip = (change: Partial<Component>): Component => ({
  role: 'nand',
  side: 'top',
  xMm: 30,
  yMm: 3,
  widthMm: 14,
  lengthMm: 18,
  heightMm: 1,
  ...change
});

describe('pressure of a pad', () => {
  // The line between 40 (0.15 MPa) and 60 (0.40 MPa) is straight in the logarithm: at 45 a quarter of the way,
  // 0.15 x (0.40 / 0.15)^0.25 = 0.15 x 1.27788 = 0.19168; at 50 halfway, sqrt(0.15 x 0.40) = 0.24495.
  it.each([
    [20, 0.05],
    [30, Math.sqrt(0.05 * 0.15)],
    [40, 0.15],
    [45, 0.19168],
    [50, 0.24495],
    [60, 0.4]
  ])('Shore 00 %d at 30 %% is %f MPa', (shore, MPa) => expect(padStress(shore, 0.3)).toBeCloseTo(MPa, 4));
  it('goes with the compression to the power of 1.5: half of it is 0.3536 of the pressure', () =>
    expect(padStress(40, 0.15)).toBeCloseTo(0.15 * 0.35355, 5));
});

describe('what is wrong over chips of one gap', () => {
  it('a bare chip beside one that sits badly is said too', () => {
    // clearance 2 mm, chips of 1 mm: gaps of 1 mm. A pad of 1.05 mm sits at 4.8 %: marginal; the other has none.
    const stack = planPads({
      drive: aDrive({ components: [chip({}), chip({ xMm: 50 })] }),
      doubleSided: false,
      enclosure: anEnclosure({ clearanceTopMm: 2 }),
      pads: [{ kind: 'pad', id: 'thin', name: 'thin', thicknessMm: 1.05, widthMm: 40, lengthMm: 40, quantity: 3 }],
      chosen: {
        pieces: [
          { component: 0, layers: ['thin'] },
          { component: 1, layers: [] }
        ]
      }
    });
    expect(stack.rows.map(({ verdict }) => verdict)).toEqual(['marginal', 'no-contact']);
    expect(stack.findings.map(({ code }) => code)).toEqual(['pad-no-contact', 'pad-none-fits']);
  });
});

describe('a label', () => {
  it('of metal stays, and takes its 0.08 mm of every gap on the upper side: 2 - 1 - 0.08 = 0.92', () => {
    expect(labelThickness(aDrive({ label: 'metal' }), undefined)).toBe(0.08);
    const stack = planPads({
      drive: aDrive({ label: 'metal', components: [chip({}), chip({ side: 'bottom' })] }),
      doubleSided: true,
      enclosure: anEnclosure({ clearanceTopMm: 2, clearanceBottomMm: 2, takesDoubleSided: true })
    });
    expect(stack.rows.map(({ side, gapMm }) => [side, gapMm])).toEqual([
      ['top', 0.92],
      ['bottom', 1]
    ]);
  });
  it('of paper stays by default, and takes none where the crate takes it off', () => {
    expect(labelThickness(aDrive({ label: 'paper' }), undefined)).toBe(0.08);
    expect(labelThickness(aDrive({ label: 'paper' }), { label: 'remove' })).toBe(0);
  });
});

describe('a board whose length nobody states', () => {
  it('is 80 mm long for its chips too: one that ends at 98 mm is off it', () => {
    const components = [chip({ xMm: 84 })];
    const issues: string[] = [];
    const context = { addIssue: ({ path }: { path: PropertyKey[] }) => void issues.push(path.join('.')) };
    boardRule({ formFactor: 'm2', components }, context);
    expect(issues.length).toBeGreaterThan(0);
    expect(boardProblems(components, 80).length).toBe(issues.length);
    expect(boardProblems(components, 110)).toEqual([]);
  });
});
