import { describe, expect, it } from 'vitest';
import { aDrive, anEnclosure, anInput } from '../../../../tests/parts';
import { planPads } from '#core/pads/plan-pads';
import { cutPlan, cutPieces } from '#core/pads/cutting/cut';
import { simulate } from '#core/simulate/simulate';
import { chipWords, moved, sectionOf } from '../geometry/pads';
import { CHECK_BAR_MM, templateOf } from '../geometry/template';
import {
  eventMarks,
  limitMark,
  namedEvents,
  numberedEvents,
  rateTraces,
  runSentence,
  samplesCsv,
  temperatureTraces
} from './heat-chart';
import { queryFor, sceneFrom, setUpsOf, usualScene, wrongIn } from './set-ups';

const chip = {
  role: 'controller' as const,
  side: 'top' as const,
  xMm: 20,
  yMm: 5,
  widthMm: 12,
  lengthMm: 13,
  heightMm: 1.2
};
const board = { lengthMm: 80, widthMm: 22, chips: [chip] };
const laid = planPads({ drive: aDrive({ components: [chip] }), doubleSided: false, enclosure: anEnclosure() });

describe('moving a chip', () => {
  it('goes by so much, in tenths', () => expect(moved(chip, 0.5, -0.1, board)).toMatchObject({ xMm: 20.5, yMm: 4.9 }));
  it('stops at the gold edge and at the rim', () => {
    expect(moved(chip, -100, -100, board)).toMatchObject({ xMm: 4, yMm: 0 });
    expect(moved(chip, 100, 100, board)).toMatchObject({ xMm: 67, yMm: 10 });
  });
  it('is told in words with its gap and pad', () =>
    expect(chipWords(chip, laid.rows[0])).toBe(
      'controller, upper side, 20 mm from the gold edge, 5 mm from the left edge, 13 × 12 × 1.2 mm; gap 0.8 mm, pad 1 mm, good'
    ));
});

describe('the section', () => {
  it('stands to scale: lid at 2 mm, the pad from chip to lid, the board 0.8 mm', () => {
    const { slabs, top } = sectionOf(board, laid.rows, { top: 2, bottom: undefined });
    expect(slabs.find((s) => s.kind === 'pad')).toMatchObject({
      x: 20,
      width: 13,
      y: -2,
      height: 0.8,
      verdict: 'good'
    });
    expect(slabs.find((s) => s.kind === 'lid')).toMatchObject({ y: -3, height: 1 });
    expect(slabs.find((s) => s.kind === 'board')).toMatchObject({ y: 0, height: 0.8 });
    expect(slabs.some((s) => s.kind === 'base')).toBe(false);
    expect(top).toBe(-3);
  });
  it('shows a pad that does not touch as it is sold, with air over it', () => {
    const row = { ...laid.rows[0]!, pads: [0.5], verdict: 'no-contact' as const, gapMm: 0.8 };
    const { slabs } = sectionOf(board, [row], { top: 2, bottom: 1 });
    expect(slabs.find((s) => s.kind === 'pad')).toMatchObject({ y: -1.7, height: 0.5 });
    const air = slabs.find((s) => s.kind === 'air')!;
    expect([air.y, air.height]).toEqual([-2, expect.closeTo(0.3, 9)]);
    // floor 1 mm under the board
    expect(slabs.find((s) => s.kind === 'base')!.y).toBeCloseTo(1.8, 9);
  });
});

describe('the cutting template', () => {
  const pieces = cutPieces(laid.board!, laid.filled, false);
  const template = templateOf(cutPlan(pieces), pieces, laid.board!);
  it('has a bar of 50 mm, and every piece at true size on its pad and on the board', () => {
    expect(template.items.find((i) => i.kind === 'check')).toMatchObject({ length: CHECK_BAR_MM });
    const sizes = template.items.flatMap((i) =>
      i.kind === 'piece' ? [[i.width, i.height].sort((a, b) => a - b)] : []
    );
    expect(sizes).toEqual([
      [12, 13],
      [12, 13]
    ]);
    expect(template.items.find((i) => i.kind === 'board')).toMatchObject({ width: 80, height: 22 });
  });
  it('keeps everything inside, and pads apart from each other', () => {
    for (const item of template.items)
      if ('width' in item) {
        expect(item.x + item.width).toBeLessThanOrEqual(template.width);
        expect(item.y + item.height).toBeLessThanOrEqual(template.height);
      }
    expect(template.width).toBeLessThanOrEqual(190);
  });
});

const small = anInput({ enclosure: anEnclosure({ cooling: { kind: 'passive', areaCm2: 60, massG: 40 } }) });
const run = { name: '=case', report: simulate({ ...small, seconds: 1800 })! };

describe('the chart of heat', () => {
  it('names every kind of event once, with how often it came', () => {
    const named = namedEvents(run.report);
    expect(new Set(named.map((e) => e.kind)).size).toBe(named.length);
    expect(named.map((e) => e.words).join()).toMatch(/throttles to half/);
    expect(eventMarks([run]).layout.annotations).toHaveLength(named.length);
    // two runs alike: every event twice at one time, so that the numbers stand in rows above each other
    const twice = numberedEvents([run, { ...run, name: 'b' }]);
    expect(twice.map(({ number }) => number)).toEqual(twice.map((_, i) => i + 1));
    const { layout, rows } = eventMarks([run, { ...run, name: 'b' }]);
    expect(rows).toBeGreaterThan(1);
    const spots = layout.annotations!.map(({ x, yshift }) => ({ x: Number(x) / 30, row: Number(yshift) }));
    for (const [i, a] of spots.entries())
      for (const b of spots.slice(i + 1)) if (a.row === b.row) expect(Math.abs(a.x - b.x)).toBeGreaterThan(0.03);
  });
  it('draws a rate and three temperatures, each named, in minutes', () => {
    expect(rateTraces([run])).toHaveLength(1);
    const traces = temperatureTraces([run, run], ['a', 'b', 'c']) as {
      x: number[];
      name: string;
      line: { dash: string };
    }[];
    expect(traces.map((t) => t.line.dash)).toEqual(['solid', 'solid', 'solid', 'dash', 'dash', 'dash']);
    expect(traces[0]!.x.at(-1)).toBeCloseTo(30, 6);
    expect(limitMark(80).annotations![0]!.text).toBe('throttles from 80 °C');
    expect(limitMark(null)).toEqual({});
  });
  it('says in one sentence what came of it, and exports cells that no sheet runs', () => {
    expect(runSentence(run)).toMatch(
      /GB in 30:00.min, \d+ MB\/s on average; at most [\d.]+ °C at the controller.*throttled/
    );
    const [head, first] = samplesCsv([run]).split('\r\n');
    expect(head).toBe('setup,t_s,MBps,writtenGB,controllerC,nandC,caseC,simulated');
    expect(first!.startsWith('"\'=case",0.0,')).toBe(true);
    expect(first!.endsWith(',yes')).toBe(true);
  });
});

describe('the scene in the address', () => {
  const job = { name: 'j', purposes: [], transferGB: 100, direction: 'in' as const };
  const input = anInput({ job, enclosure: anEnclosure({ cooling: { kind: 'passive', material: 'plastic' } }) });
  const other = { ...anEnclosure({ name: 'Other' }), id: '01ARZ3NDEKTSV4RRFFQ69G5FA7' };
  const library = { enclosure: new Map([[other.id, other]]) };
  it('comes back as it went, and says nothing where it is as usual', () => {
    const scene = {
      ...usualScene(input),
      load: 'write' as const,
      gb: 500,
      ambient: 31,
      beside: 'fan' as const,
      rewrite: true
    };
    expect(sceneFrom(new URLSearchParams(queryFor(scene, input)), input)).toEqual(scene);
    expect(queryFor(usualScene(input), input)).toBe('');
  });
  it('takes nothing that makes no sense', () => {
    const odd = new URLSearchParams('load=job&minutes=abc&ambient=900&fill=&beside=__proto__&case=../x&start=never');
    expect(sceneFrom(odd, input)).toEqual(usualScene(input));
    const { job: _, ...without } = input;
    expect(sceneFrom(new URLSearchParams('load=job'), without).load).toBe('soak');
    expect(wrongIn('fill', NaN)).toBe('0 to 98');
  });
  it.each([
    ['bare', 'without pads', { bare: true }],
    ['fan', 'with a fan', { fan: true }],
    ['passive', 'without a fan', { fan: false }],
    ['aluminium', 'as aluminium', { material: 'aluminium' }],
    ['edge', 'standing on edge', { stands: 'edge' }],
    ['cloth', 'lying on cloth', { stands: 'cloth' }],
    ['ambient', 'at 32 °C', { ambientC: 32 }]
  ] as const)('beside %s', (beside, name, change) => {
    const [own, second] = setUpsOf({ ...usualScene(input), beside }, input, library);
    expect(own!.name).toBe('Test 40');
    expect(second!.name).toBe(name);
    expect(second!.input).toMatchObject(change);
  });
  it('another enclosure is played with pads of its own, the same material beside itself not at all', () => {
    const settled = { ...input, stack: { pieces: [] } };
    const scene = { ...usualScene(input), beside: 'case' as const, case: other.id };
    const [own, second] = setUpsOf(scene, settled, library);
    expect(own!.input.stack).toEqual({ pieces: [] });
    expect(second!.input).not.toHaveProperty('stack');
    expect(second!.name).toBe('Other');
    expect(setUpsOf({ ...usualScene(input), beside: 'plastic' }, input, library)).toHaveLength(1);
    expect(setUpsOf({ ...usualScene(input), beside: 'flat' }, input, library)).toHaveLength(1);
    expect(setUpsOf({ ...scene, case: '' }, input, library)).toHaveLength(1);
  });
});
