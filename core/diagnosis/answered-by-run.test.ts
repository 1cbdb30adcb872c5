import { describe, expect, it } from 'vitest';
import { analyse } from '../analysis/analyse';
import { plan } from '../plan/plan';
import { seeded } from '../quantities/random';
import type { Series } from '../series/series';
import { anInput } from '../../tests/parts';
import { answerByRun, type AnsweringRun } from './answered-by-run';
import { MEASURED_QUESTIONS } from './questions/measured';

const forecast = plan(anInput()).throughput;
const seconds = Array.from({ length: 600 }, (_, i) => i + 1);
const run = (change: Partial<AnsweringRun>): AnsweringRun => ({
  protocol: 'soak',
  results: {},
  conditions: {},
  stretches: [],
  ...change
});
function soak(
  rate: (s: number) => number,
  conditions: AnsweringRun['conditions'] = {},
  more: Partial<Series> = {}
): AnsweringRun {
  const random = seeded(3);
  const series = { t: seconds, MBps: seconds.map((s) => rate(s) * (1 + (random() - 0.5) * 0.03)), ...more };
  const direction = more.positionFraction ? 'read' : 'write';
  const analysis = analyse({ series, direction, startC: 80 });
  return run({ conditions, stretches: [{ label: '', direction, fromS: 0, toS: 600, analysis }] });
}
const asked = (test: string, before: AnsweringRun, later: AnsweringRun) =>
  answerByRun(test, { before, later, forecast });
const fallAfter = (s0: number) => soak((s) => (s <= s0 ? 3000 : 1500));

describe('a test is answered by a later run', () => {
  it.each([
    // 200 s at 3000 MB/s are 600 GB; 15 % are 510 to 690 GB, 170 to 230 s.
    [210, 'same'],
    [150, 'earlier'],
    [260, undefined],
    [600, 'none']
  ])('that falls after %i s where it fell after 200 s: %s', (s0, outcome) => {
    expect(asked('same-again', fallAfter(200), fallAfter(s0))).toBe(outcome);
  });

  it('whether memory as the source is as fast as forecast', () => {
    const check = (readMBps: number, writeMBps: number) =>
      run({ protocol: 'pair-check', results: { readMBps, writeMBps } });
    // The forecast begins at 2800 MB/s each way.
    expect(asked('made-up-source', run({}), check(3300, 3200))).toBe('yes');
    expect(asked('made-up-source', run({}), check(3300, 1200))).toBe('no');
    expect(asked('made-up-source', run({}), run({}))).toBeUndefined();
    expect(asked('scratch-volume', run({}), check(3300, 3200))).toBeUndefined();
    expect(asked('scratch-volume', run({}), { ...check(3300, 3200), conditions: { encrypted: false } })).toBe('yes');
  });

  it('whether a fan helps, and whether it is even once everything else is paused', () => {
    const warm = { controllerC: seconds.map((s) => Math.min(80, 40 + s * 0.2)) };
    const hot = soak((s) => (s <= 200 ? 3000 : 1500), {}, warm);
    const even = (conditions: AnsweringRun['conditions']) => soak(() => 3000, conditions);
    expect(asked('fan', hot, even({ fan: true }))).toBe('yes');
    expect(
      asked(
        'fan',
        hot,
        soak((s) => (s <= 210 ? 3000 : 1500), { fan: true }, warm)
      )
    ).toBe('no');
    expect(asked('fan', hot, even({}))).toBeUndefined();
    expect(asked('paused', hot, even({ indexing: false }))).toBe('yes');
    expect(asked('paused', hot, even({}))).toBeUndefined();
  });

  it('whether the same places of a disk are slow', () => {
    const sweep = (...weak: number[]) =>
      soak(
        (s) => (220 - s / 6) * (weak.some((at) => s / 600 > at && s / 600 < at + 0.012) ? 0.2 : 1),
        {},
        {
          positionFraction: seconds.map((s) => s / 600)
        }
      );
    expect(asked('second-sweep', sweep(0.2, 0.6), sweep(0.2, 0.6))).toBe('same');
    expect(asked('second-sweep', sweep(0.2, 0.6), sweep(0.4, 0.8))).toBe('others');
    expect(asked('second-sweep', sweep(0.2, 0.6), sweep())).toBe('others');
  });

  it('whether it is faster once there is room', () => {
    const full = run({ results: { writeMBps: 800 }, conditions: { fillPercent: 95 } });
    const later = (writeMBps: number, fillPercent: number) =>
      run({ results: { writeMBps }, conditions: { fillPercent } });
    expect(asked('free-space', full, later(3000, 70))).toBe('yes');
    expect(asked('free-space', full, later(850, 70))).toBe('no'); // 6 % more is scatter
    expect(asked('free-space', full, later(3000, 90))).toBeUndefined();
  });

  it('is known for every test that is a way of measuring, and gives outcomes of that test only', () => {
    for (const { code, protocol, outcomes } of MEASURED_QUESTIONS) {
      if (!protocol) continue;
      const said = asked(code, fallAfter(200), {
        ...fallAfter(200),
        results: { readMBps: 1, writeMBps: 1 },
        conditions: { fan: true, indexing: false, encrypted: false }
      });
      if (said !== undefined)
        expect(
          outcomes.map(({ outcome }) => outcome),
          code
        ).toContain(said);
    }
  });
});
