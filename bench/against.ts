import { pathToFileURL } from 'node:url';
import { plan } from '#core/plan/plan';
import type { PlanInput } from '#core/plan/report';
import { rank } from '#core/compare/ranking/rank';
import type { RankInput } from '#core/compare/ranking/request';
import { proposePads, type Proposals } from '#core/pads/propose';
import type { StackInput } from '#core/pads/plan-pads';
import { seeded } from '#core/quantities/random';
import type { randomCrate } from '../tests/random-crate.ts';
import { aDrive, anEnclosure } from '../tests/parts.ts';
import { planInputs } from './plan-inputs.ts';

/**
 * The core as it is against the core of an earlier commit, in one run and in turn, so that a slow moment of the machine falls on both.
 * Prints medians of 41 rounds, and the median of the ratios of rounds that ran side by side; nothing here is a pass or a fail.
 */
const ROUNDS = 41;
const PER_ROUND = 400;
/** The interval in which the median lies at about 95 %, by the order of the rounds: no shape of the scatter is assumed. */
function interval(values: readonly number[]): string {
  const sorted = [...values].sort((a, b) => a - b);
  const cut = Math.max(0, Math.floor((sorted.length - 1.96 * Math.sqrt(sorted.length)) / 2));
  return `${sorted[cut]!.toFixed(2)} - ${sorted[sorted.length - 1 - cut]!.toFixed(2)}`;
}
const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

type Plan = (input: PlanInput, options: { workings: boolean }) => unknown;
/** An earlier state of the same doors, bundled by scripts/bench.mjs; its generator makes what both of them understand. */
const before = (await import(pathToFileURL(process.argv[2]!).href)) as {
  plan: Plan;
  rank: (input: RankInput) => unknown;
  proposePads: (input: StackInput) => Proposals | null;
  randomCrate: typeof randomCrate;
};

function microseconds(plan: Plan, input: PlanInput, times: number): number {
  const from = performance.now();
  for (let i = 0; i < times; i++) plan(input, { workings: false });
  return ((performance.now() - from) * 1000) / times;
}
const line = (name: string, ...values: string[]) =>
  console.log(name.padEnd(40), ...values.map((value) => value.padStart(12)));

line('one plan without workings, µs', 'before', 'now', 'ratio', '95 %');
const both: [Plan, Plan] = [before.plan, plan];
// Every kind of input first, so that no input has code made for it alone.
for (const input of Object.values(planInputs)) for (const run of both) microseconds(run, input, 3000);
for (const [name, input] of Object.entries(planInputs)) {
  const [was, is, ratio]: [number[], number[], number[]] = [[], [], []];
  for (let i = 0; i < ROUNDS; i++) {
    was.push(microseconds(both[0], input, PER_ROUND));
    is.push(microseconds(both[1], input, PER_ROUND));
    ratio.push(is[i]! / was[i]!);
  }
  line(name, median(was).toFixed(1), median(is).toFixed(1), median(ratio).toFixed(2), interval(ratio));
}

line('\nranking 22 million, ms', 'before', 'now', 'ratio', '95 %');
for (const [name, plain] of [
  ['mixed crate', false],
  ['all M.2 NVMe', true]
] as const) {
  const crate = before.randomCrate(11, { hosts: 5, portsEach: 4, cables: 30, enclosures: 200, drives: 200 }, { plain });
  const [was, is]: [number[], number[]] = [[], []];
  for (let i = 0; i < 9; i++) {
    let from = performance.now();
    before.rank({ ...crate, limit: 100 });
    was.push(performance.now() - from);
    from = performance.now();
    rank({ ...crate, limit: 100 });
    is.push(performance.now() - from);
  }
  const ratio = is.map((ms, i) => ms / was[i]!);
  line(name, median(was).toFixed(0), median(is).toFixed(0), median(ratio).toFixed(2), interval(ratio));
}

/** Chips of so many different heights, spread over both sides, with pads of six thicknesses at hand. */
function boardOfMany(chips: number): StackInput {
  const random = seeded(5);
  const components = Array.from({ length: chips }, (_, i) => ({
    role: i === 0 ? ('controller' as const) : ('nand' as const),
    side: i % 2 === 0 ? ('top' as const) : ('bottom' as const),
    xMm: 2 + (i % 20) * 3.8,
    yMm: 1 + Math.floor(i / 20) * 10,
    widthMm: 3,
    lengthMm: 3,
    heightMm: Math.round((0.5 + random()) * 1000) / 1000
  }));
  return {
    drive: aDrive({ components }),
    doubleSided: true,
    enclosure: anEnclosure({ clearanceTopMm: 2.2, clearanceBottomMm: 2.2, takesDoubleSided: true }),
    pads: [0.5, 0.75, 1, 1.5, 2, 3].map((thicknessMm, i) => ({
      kind: 'pad' as const,
      id: `pad-${i}`,
      name: `${thicknessMm} mm`,
      thicknessMm,
      widthMm: 50,
      lengthMm: 100,
      shore00: 20 + 5 * i,
      quantity: 4
    }))
  };
}
const timed = (work: () => unknown): number => {
  const from = performance.now();
  work();
  return performance.now() - from;
};
line('\npads, by chips of different heights, ms', 'before', 'now');
for (const chips of [4, 8, 12, 40]) {
  const input = boardOfMany(chips);
  // What took minutes before is timed now only.
  const was = chips <= 12 ? timed(() => before.proposePads(input)) : undefined;
  const is = Array.from({ length: ROUNDS }, () => timed(() => proposePads(input)));
  line(`${chips} chips`, was?.toFixed(1) ?? '–', median(is).toFixed(1));
}
