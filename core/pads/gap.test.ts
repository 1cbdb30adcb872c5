import { describe, expect, it } from 'vitest';
import { aDrive, anEnclosure, anInput } from '../../tests/parts';
import { plan } from '../plan/plan';
import { choosePad, compression, contactOf, padKinds, stockPadFor } from './gap';

const pad = (thicknessMm: number, more = {}) => ({
  kind: 'pad' as const,
  name: `pad ${thicknessMm}`,
  thicknessMm,
  widthMm: 50,
  lengthMm: 50,
  ...more
});
const kinds = (...thicknesses: number[]) =>
  padKinds(
    undefined,
    thicknesses.map((t) => pad(t))
  );
/** What was chosen, by thickness. */
const chosen = (choice: ReturnType<typeof choosePad>) => ({
  layers: choice!.layers.map((p) => p.thicknessMm),
  compression: choice!.compression,
  verdict: choice!.verdict
});

describe('compression (t - gap) / t and its class', () => {
  it.each([
    [1, 0.7, 0.3, 'good'], // in floating point (1 - 0.7) / 1 is just above 0.30
    [1, 0.9, 0.1, 'good'],
    [1, 0.95, 0.05, 'marginal'],
    [1, 1, 0, 'marginal'],
    [1, 1.01, -0.01, 'no-contact'],
    [2, 1.2, 0.4, 'high'],
    [2, 1, 0.5, 'over-compressed'],
    [1, 0.55, 0.45, 'high']
  ] as const)('%d mm in a %d mm gap', (t, gap, share, verdict) => {
    expect(compression(t, gap)).toBeCloseTo(share, 9);
    expect(contactOf(compression(t, gap))).toBe(verdict);
  });
});

describe('choosing', () => {
  it('a gap of 0.8 mm takes 1.0 (20 %), not 1.5 (47 %) or 0.5 (none)', () => {
    expect(chosen(choosePad(0.8, kinds(0.5, 1, 1.5, 2), false))).toEqual({
      layers: [1],
      compression: 0.2,
      verdict: 'good'
    });
  });
  it('stacks two only where the rule allows it, and prefers one', () => {
    // 2.1 mm: 2.0 does not touch; 0.5 + 2.0 = 2.5 is (2.5 - 2.1)/2.5 = 16 %
    expect(choosePad(2.1, kinds(0.5, 2), false)!.verdict).toBe('no-contact');
    expect(chosen(choosePad(2.1, kinds(0.5, 2), true))).toEqual({
      layers: [0.5, 2],
      compression: 0.16,
      verdict: 'good'
    });
  });
  it('what to buy: 1.2 mm wants 1.5 (20 %); 0.95 has no single stock pad in the good range', () => {
    expect(stockPadFor(1.2)).toBe(1.5);
    expect(stockPadFor(0.95)).toBeUndefined(); // 1.0 is 5 %, 1.5 is 36.7 %
  });
  it('nothing at hand is null', () => expect(choosePad(1, [], true)).toBeNull());
});

describe('in a plan', () => {
  const chip = {
    role: 'controller' as const,
    side: 'top' as const,
    xMm: 10,
    yMm: 5,
    widthMm: 12,
    lengthMm: 12,
    heightMm: 1.2
  };
  it('clearance 2.0 less a 1.2 mm chip leaves 0.8: a 1 mm pad, 20 %', () => {
    const report = plan(anInput({ drive: aDrive({ components: [chip] }), pads: [pad(0.5), pad(1)] }));
    expect(report.stack.components).toMatchObject([
      { component: 0, role: 'controller', side: 'top', gapMm: 0.8, pads: [1], compressionPercent: 20, verdict: 'good' }
    ]);
    expect(report.stack).toMatchObject({ from: 'stated', chosen: false });
  });
  it('the 2 mm pad that bends a board: 60 % in 0.8 mm, with the right one named', () => {
    const report = plan(anInput({ drive: aDrive({ components: [chip] }), pads: [pad(2)] }));
    expect(report.findings.find((f) => f.about === 'pad')).toMatchObject({
      code: 'pad-over-compressed',
      severity: 'check',
      remedy: 'A 1\u202fmm pad would sit right.'
    });
  });
  it('a pad from the box counts first of all; without any, stock thicknesses are assumed and said', () => {
    const inBox = plan(
      anInput({ drive: aDrive({ components: [chip] }), enclosure: anEnclosure({ includedPads: [pad(1)] }) })
    );
    expect(inBox.assumed.some((a) => a.part === 'pad' && a.field === 'thicknessMm')).toBe(false);
    const none = plan(anInput({ drive: aDrive({ components: [chip] }) }));
    expect(none.assumed.find((a) => a.part === 'pad')).toBeDefined();
    expect(none.stack.components[0]!.pads).toEqual([1]);
  });
  it('pads that were settled on are taken, a bare chip too; one that is gone is replaced, and that is said', () => {
    const settled = (layers: string[]) =>
      plan(
        anInput({
          drive: aDrive({ components: [chip] }),
          pads: [pad(1, { id: undefined }), pad(1.5, { id: undefined })],
          stack: { pieces: [{ component: 0, layers }] }
        })
      );
    expect(settled(['pad 1.5']).stack).toMatchObject({
      chosen: true,
      components: [{ pads: [1.5], verdict: 'over-compressed' }]
    });
    const bare = settled([]);
    expect(bare.stack.components).toMatchObject([{ pads: [], verdict: 'no-contact' }]);
    expect(bare.findings.map((f) => f.message).join()).toMatch(/No pad lies over the controller/);
    const gone = settled(['pad 7']);
    expect(gone.stack).toMatchObject({ chosen: false, components: [{ pads: [1] }] });
    expect(gone.assumed.find((a) => a.field === 'stack')!.from).toMatch(/not in the box or at hand any more/);
  });
  it('without clearance there is nothing to choose; without chips the height code stands in, and says so', () => {
    expect(
      plan(anInput({ drive: aDrive({ components: [chip] }), enclosure: anEnclosure({ clearanceTopMm: undefined }) }))
        .stack.components
    ).toEqual([]);
    const assumed = plan(anInput());
    expect(assumed.stack.from).toBe('template');
    // S3: 1.5 mm high under 2.0 mm leaves 0.5 for each of controller and two NAND
    expect(assumed.stack.components.map((row) => [row.role, row.gapMm])).toEqual([
      ['controller', 0.5],
      ['nand', 0.5],
      ['nand', 0.5]
    ]);
    expect(assumed.assumed.find((a) => a.field === 'components')!.value).toBe('height code S3');
    const lower = plan(anInput({ drive: aDrive({ m2HeightCode: 'S1' }) }));
    expect(lower.stack.components[0]!.gapMm).toBe(0.8);
  });
});
