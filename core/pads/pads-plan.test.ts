import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { aDrive, anEnclosure } from '../../tests/parts';
import { boardOf, boardProblems, usualChips, type Component } from './board';
import { cutPlan, cutPieces } from './cutting/cut';
import { padKinds } from './gap';
import { packPieces } from './cutting/pack';
import { planPads } from './plan-pads';
import { boardStiffness, bowOf, padStress } from './press';
import { gapsAfterImprint, proposePads } from './propose';

const chip = (change: Partial<Component> = {}): Component => ({
  role: 'controller',
  side: 'top',
  xMm: 20,
  yMm: 5,
  widthMm: 12,
  lengthMm: 13,
  heightMm: 1.2,
  ...change
});
const nand = (change: Partial<Component> = {}) =>
  chip({ role: 'nand', xMm: 50, yMm: 4, widthMm: 14, lengthMm: 18, ...change });
const pad = (thicknessMm: number, change = {}) => ({
  kind: 'pad' as const,
  id: `pad-${thicknessMm}`,
  name: `pad ${thicknessMm}`,
  thicknessMm,
  widthMm: 40,
  lengthMm: 60,
  ...change
});

describe('the board', () => {
  it('is the drive’s own where it states its chips, else the usual one of its length and height code', () => {
    expect(boardOf(aDrive({ components: [chip()] }))).toMatchObject({ from: 'stated', lengthMm: 80, widthMm: 22 });
    const usual = boardOf(aDrive({ m2LengthMm: 42, m2HeightCode: 'D4' }))!;
    expect(usual).toMatchObject({ from: 'template', lengthMm: 42, heightCode: 'D4' });
    // D4: 1.5 mm above, 0.7 below
    expect(new Set(usual.chips.filter((c) => c.side === 'top').map((c) => c.heightMm))).toEqual(new Set([1.5]));
    expect(new Set(usual.chips.filter((c) => c.side === 'bottom').map((c) => c.heightMm))).toEqual(new Set([0.7]));
    expect(boardOf(aDrive({ formFactor: '2.5in' }))).toBeNull();
  });
  it.each([30, 42, 60, 80, 110] as const)(
    'the usual chips of %i mm lie on their board and on nothing else',
    (length) => {
      for (const code of ['S1', 'D3'] as const) expect(boardProblems(usualChips(length, code), length)).toEqual([]);
    }
  );
  it.each([
    ['beyond the end', chip({ xMm: 70 }), 'xMm', /reaches to 83 mm; the board is 80 mm long/],
    ['on the gold edge', chip({ xMm: 2 }), 'xMm', /gold edge/],
    ['in the screw notch', chip({ xMm: 66, yMm: 5 }), 'xMm', /screw notch/],
    ['over the side', chip({ yMm: 15 }), 'yMm', /27 mm; the board is 22 mm wide/],
    ['negative', chip({ yMm: -1 }), 'yMm', /negative/],
    ['of no size', chip({ widthMm: 0 }), 'widthMm', /more than 0/],
    ['under a lid that is too low', chip({ heightMm: 2.4 }), 'heightMm', /higher than the 2 mm that the lid leaves/]
  ] as const)('%s is refused with its place', (_, bad, field, words) => {
    const problems = boardProblems([nand({ xMm: 30, yMm: 4, lengthMm: 10 }), bad], 80, 22, { top: 2 });
    const own = problems.find((p) => p.chip === 1 && p.field === field);
    expect(own?.message).toMatch(words);
  });
  it('two on one place are refused, on two sides they are not', () => {
    expect(boardProblems([chip(), chip({ xMm: 30 })], 80)).toMatchObject([
      { chip: 1, message: expect.stringMatching(/lies over chip 1 \(controller\)/) }
    ]);
    expect(boardProblems([chip(), chip({ side: 'bottom' })], 80)).toEqual([]);
    // side by side with no gap between them touches nothing
    expect(boardProblems([chip(), chip({ xMm: 33 })], 80)).toEqual([]);
  });
});

describe('pressure and bow', () => {
  it('Shore 40 at 30 % presses with 0.15 MPa, at 50 % with 0.15 x (5/3)^1.5 = 0.3227, without contact with none', () => {
    expect(padStress(40, 0.3)).toBeCloseTo(0.15, 9);
    expect(padStress(40, 0.5)).toBeCloseTo(0.32275, 4);
    expect(padStress(40, -0.1)).toBe(0);
    // halfway between 20 and 40 on the logarithm: sqrt(0.05 x 0.15)
    expect(padStress(30, 0.3)).toBeCloseTo(Math.sqrt(0.0075), 9);
  });
  it('an 80 mm board has 5 N/mm, one of 42 mm (80/42)³ as much', () => {
    expect(boardStiffness(80).typical).toBe(5);
    expect(boardStiffness(42).typical).toBeCloseTo(5 * (80 / 42) ** 3, 9);
  });
  it('50 N over 1 mm of squeeze against 5 N/mm: (t - gap) kp / (kp + kb) = 50 / 55', () =>
    expect(bowOf([{ side: 'top', squeezeMm: 1, forceN: 50 }], 5)).toBeCloseTo(50 / 55, 9));
  it('the same from below holds it straight', () =>
    expect(
      bowOf(
        [
          { side: 'top', squeezeMm: 1, forceN: 50 },
          { side: 'bottom', squeezeMm: 0.5, forceN: 50 }
        ],
        5
      )
    ).toBeCloseTo(0, 9));
  it('a 2 mm pad in 0.8 mm over 12 x 13 mm bows the board by most of a millimetre, and the plan says so', () => {
    const laid = planPads({
      drive: aDrive({ components: [chip()] }),
      doubleSided: false,
      enclosure: anEnclosure(),
      pads: [pad(2, { shore00: 40 })]
    });
    // c = 0.6: 0.15 x 2^1.5 = 0.4243 MPa x 156 mm² = 66.2 N over 1.2 mm = 55.2 N/mm; 66.2 / (55.2 + 5) = 1.10 mm
    expect(laid.bowMm!.typical).toBeCloseTo(1.1, 2);
    expect(laid.findings.map((f) => f.code)).toEqual(['pad-over-compressed', 'board-bows']);
  });
});

describe('proposals', () => {
  const input = (more = {}) => ({
    drive: aDrive({ components: [chip(), nand()] }),
    doubleSided: false,
    enclosure: anEnclosure(),
    pads: [pad(0.5), pad(1), pad(1.5)],
    ...more
  });
  it('best first: contact everywhere at 20 %, from the pads at hand, with reasons', () => {
    const [best, ...rest] = proposePads(input())!.sets;
    expect(best!.rows.map((r) => r.pads)).toEqual([[1], [1]]);
    expect(best!.allGood).toBe(true);
    expect(best!.because.join('; ')).toMatch(/every chip with 10 to 30 % compression.*2 pieces to cut.*pad 1: at hand/);
    expect(rest.every((set) => !set.allGood)).toBe(true);
  });
  it('what came in the box goes before the drawer', () => {
    const enclosure = anEnclosure({ includedPads: [pad(1, { id: undefined, name: 'boxed' })] });
    const [best] = proposePads(input({ enclosure }))!.sets;
    expect(best!.choice.pieces.flatMap((p) => p.layers)).toEqual(['box:boxed', 'box:boxed']);
  });
  it('is what the plan takes when nobody settled on anything', () => {
    const random = fc.record({
      top: fc.integer({ min: 14, max: 40 }),
      controller: fc.integer({ min: 8, max: 14 }),
      nand: fc.integer({ min: 8, max: 14 }),
      stack: fc.boolean(),
      sheet: fc.boolean()
    });
    fc.assert(
      fc.property(random, (x) => {
        const given = {
          drive: aDrive({ components: [chip({ heightMm: x.controller / 10 }), nand({ heightMm: x.nand / 10 })] }),
          doubleSided: false,
          enclosure: anEnclosure({ clearanceTopMm: x.top / 10 }),
          pads: [pad(0.5), pad(1), pad(1.5), pad(2)],
          rules: {
            'gap-not-closed': x.stack ? 'stack' : 'buy-right',
            pieces: x.sheet ? 'sheet' : 'per-chip'
          }
        };
        const laid = planPads(given);
        const proposals = proposePads(given);
        if (!proposals) return;
        const worse = (rows: typeof laid.rows) => rows.filter((r) => r.verdict !== 'good').length;
        // Never fewer chips well seated than in the plan's own choice.
        expect(worse(proposals.sets[0]!.rows)).toBeLessThanOrEqual(worse(laid.rows));
        for (const set of proposals.sets) for (const row of set.rows) expect(row.pads.length).toBeGreaterThan(0);
      }),
      { seed: 5, numRuns: 150 }
    );
  });
  it('stacks two only by house rule, and then closes 2.1 mm with 1 + 1.5', () => {
    const wide = { enclosure: anEnclosure({ clearanceTopMm: 3.3 }), pads: [pad(1), pad(1.5)] };
    const plain = proposePads(input(wide))!;
    expect(plain.sets[0]!.rows[0]!.verdict).toBe('no-contact');
    // 2.1 mm: 3.0 is 30 %
    expect(plain.toBuy.map((b) => b.thicknessMm)).toEqual([3, 3]);
    const stacked = proposePads(input({ ...wide, rules: { 'gap-not-closed': 'stack' } }))!;
    // 2.5 mm in 2.1: 16 %
    expect(stacked.sets[0]!.rows.map((r) => [r.pads, r.compressionPercent])).toEqual([
      [[1, 1.5], 16],
      [[1, 1.5], 16]
    ]);
    expect(stacked.toBuy).toEqual([]);
  });
  it('one sheet by house rule, for gaps that differ', () => {
    const rules = { pieces: 'sheet' };
    const drive = aDrive({ components: [chip({ heightMm: 1.3 }), nand()] });
    const { sets, board } = proposePads(input({ drive, rules }))!;
    expect(new Set(sets[0]!.rows.map((r) => r.pads.join()))).toEqual(new Set(['1']));
    expect(sets[0]!.pieces).toHaveLength(1);
    expect(sets[0]!.pieces[0]).toMatchObject({
      components: [0, 1],
      xMm: 20,
      lengthMm: 48,
      label: 'controller and NAND'
    });
    expect(board.lengthMm).toBe(80);
  });
  it('no imprint at the controller: the gap is at least that pad, and the next proposal is thicker there alone', () => {
    const laid = planPads(input());
    const after = gapsAfterImprint({ pieces: [] }, laid.rows, [0]);
    expect(after.gaps).toEqual([{ component: 0, atLeastMm: 1.1 }]);
    const next = proposePads(input({ chosen: after }))!.sets[0]!;
    // 1.5 mm in at least 1.1: at most 26.7 %
    expect(next.rows.map((r) => r.pads)).toEqual([[1.5], [1]]);
    expect(next.choice.gaps).toEqual(after.gaps);
    // A second time without contact widens it again.
    const again = gapsAfterImprint(next.choice, next.rows, [0]);
    expect(again.gaps![0]!.atLeastMm).toBe(1.6);
  });
});

describe('cutting', () => {
  const kinds = padKinds(undefined, [pad(1)]);
  it('one piece a chip, chips of one kind with the same gap share one, clear of gold edge and rim', () => {
    const board = {
      lengthMm: 80,
      widthMm: 22,
      from: 'stated' as const,
      chips: [chip(), nand({ xMm: 40, lengthMm: 14, yMm: 0 }), nand({ xMm: 56, lengthMm: 14, yMm: 0 })]
    };
    const filled = board.chips.map((c, at) => ({
      chip: c,
      at,
      gapMm: 0.8,
      choice: { layers: [kinds[0]!], compression: 0.2, verdict: 'good' as const }
    }));
    const pieces = cutPieces(board, filled, false);
    expect(pieces.map((p) => [p.label, p.lengthMm, p.widthMm, p.yMm])).toEqual([
      ['controller', 13, 12, 5],
      // from 40 to 70 mm; 1 mm clear of the edge at y = 0
      ['NAND', 30, 13, 1]
    ]);
    expect(cutPieces(board, filled, true)).toHaveLength(1);
  });
  it('two pieces of 13 x 12 and 18 x 14 on 40 x 60: a band of 14 mm across, 560 mm² less 156 and 252', () => {
    const { sheets, wasteMm2, wasteAtLeastMm2, exact } = packPieces(
      [
        { lengthMm: 13, widthMm: 12 },
        { lengthMm: 18, widthMm: 14 }
      ],
      { lengthMm: 60, widthMm: 40 },
      1
    );
    expect(exact).toBe(true);
    // side by side across the pad: 18 and 12 or 13 wide, 14 long
    expect(sheets).toHaveLength(1);
    expect(sheets[0]!.band).toEqual({ lengthMm: 14, widthMm: 40 });
    expect([wasteMm2, wasteAtLeastMm2]).toEqual([152, 152]);
  });
  it('eight squares of 10 fill 40 x 20 without waste; nine need another band', () => {
    const squares = (n: number) => Array.from({ length: n }, () => ({ lengthMm: 10, widthMm: 10 }));
    expect(packPieces(squares(8), { lengthMm: 100, widthMm: 40 }, 1)).toMatchObject({ wasteMm2: 0, exact: true });
    const nine = packPieces(squares(9), { lengthMm: 100, widthMm: 40 }, 1);
    expect(nine.exact).toBe(false);
    // 3 bands of 10 x 40 for 900 mm²
    expect(nine.wasteMm2).toBe(300);
    expect(nine.wasteAtLeastMm2).toBeLessThanOrEqual(nine.wasteMm2);
    expect(nine.left).toEqual([]);
  });
  it('what is larger than a pad is left, and so is what the pads do not suffice for', () => {
    const big = packPieces([{ lengthMm: 90, widthMm: 30 }], { lengthMm: 60, widthMm: 40 }, 1);
    expect(big).toMatchObject({ left: [0], sheets: [] });
    const many = packPieces(
      [
        { lengthMm: 40, widthMm: 40 },
        { lengthMm: 30, widthMm: 40 }
      ],
      { lengthMm: 60, widthMm: 40 },
      1
    );
    // one pad takes the larger of the two
    expect(many.left).toEqual([1]);
  });
  const sizes = fc.array(
    fc.record({ lengthMm: fc.integer({ min: 5, max: 30 }), widthMm: fc.integer({ min: 5, max: 20 }) }),
    { minLength: 1, maxLength: 12 }
  );
  it('whatever the pieces: none overlaps, all lie in their band, each is there once, and the bound holds', () => {
    fc.assert(
      fc.property(sizes, (pieces) => {
        const sheet = { lengthMm: 70, widthMm: 40 };
        const { sheets, left, wasteMm2, wasteAtLeastMm2, exact } = packPieces(pieces, sheet, 20);
        expect(exact).toBe(pieces.length <= 8);
        expect([...sheets.flatMap((s) => s.placed.map((p) => p.piece)), ...left].sort((a, b) => a - b)).toEqual(
          pieces.map((_, i) => i)
        );
        expect(wasteAtLeastMm2).toBeLessThanOrEqual(wasteMm2 + 1e-6);
        for (const { placed, band } of sheets) {
          expect(band.lengthMm).toBeLessThanOrEqual(sheet.lengthMm + 1e-9);
          placed.forEach((p, i) => {
            const own = pieces[p.piece]!;
            expect([p.lengthMm, p.widthMm].sort()).toEqual([own.lengthMm, own.widthMm].sort());
            expect(p.xMm + p.lengthMm).toBeLessThanOrEqual(band.lengthMm + 1e-9);
            expect(p.yMm + p.widthMm).toBeLessThanOrEqual(band.widthMm + 1e-9);
            for (const q of placed.slice(0, i))
              expect(
                p.xMm >= q.xMm + q.lengthMm - 1e-9 ||
                  q.xMm >= p.xMm + p.lengthMm - 1e-9 ||
                  p.yMm >= q.yMm + q.widthMm - 1e-9 ||
                  q.yMm >= p.yMm + p.widthMm - 1e-9
              ).toBe(true);
          });
        }
      }),
      { seed: 11, numRuns: 40 }
    );
  }, 30_000);
  it('the exact one is never beaten by filling in some order', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ lengthMm: fc.integer({ min: 5, max: 25 }), widthMm: fc.integer({ min: 5, max: 20 }) }), {
          minLength: 2,
          maxLength: 5
        }),
        (pieces) => {
          const sheet = { lengthMm: 200, widthMm: 30 };
          const exact = packPieces(pieces, sheet, 5);
          // In one row, every one lying: as anyone would cut them without thinking.
          const row =
            pieces.reduce((sum, p) => sum + p.lengthMm, 0) * sheet.widthMm -
            pieces.reduce((sum, p) => sum + p.lengthMm * p.widthMm, 0);
          expect(exact.wasteMm2).toBeLessThanOrEqual(row + 1e-9);
        }
      ),
      { seed: 3, numRuns: 100 }
    );
  });
  it('kind by kind onto its own pads', () => {
    const laid = planPads({
      drive: aDrive({ components: [chip({ heightMm: 0.7 }), nand()] }),
      doubleSided: false,
      enclosure: anEnclosure(),
      pads: [pad(1), pad(1.5)]
    });
    const sheets = cutPlan(cutPieces(laid.board!, laid.filled, false));
    // gaps of 1.3 and 0.8 mm: 1.5 (13 %) and 1.0 (20 %)
    expect(sheets.map((s) => [s.pad.thicknessMm, s.pieces.map((p) => p.label)])).toEqual([
      [1.5, ['controller']],
      [1, ['NAND']]
    ]);
  });
});
