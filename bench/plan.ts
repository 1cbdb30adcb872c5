import { plan } from '#core/plan/plan';
import type { PlanInput } from '#core/plan/report';
import { benchRank } from './rank.ts';
import { benchSimulate } from './simulate.ts';
import { planInputs } from './plan-inputs.ts';

/**
 * How long one plan takes, with its workings and without, in one run and in turn, so that a slow moment of the machine falls on
 * both. Prints the median of many rounds; nothing here is a pass or a fail.
 */
const ROUNDS = 41;
const PER_ROUND = 1000;

function round(input: PlanInput, workings: boolean): number {
  const from = performance.now();
  for (let i = 0; i < PER_ROUND; i++) plan(input, { workings });
  return ((performance.now() - from) * 1000) / PER_ROUND;
}

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

console.log(
  'one plan, µs (median of rounds)'.padEnd(40),
  'without'.padStart(9),
  'with workings'.padStart(14),
  'ratio'.padStart(7)
);
for (const [name, input] of Object.entries(planInputs)) {
  const without: number[] = [];
  const withThem: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    without.push(round(input, false));
    withThem.push(round(input, true));
  }
  const [a, b] = [median(without), median(withThem)];
  console.log(name.padEnd(40), a.toFixed(1).padStart(9), b.toFixed(1).padStart(14), (b / a).toFixed(1).padStart(7));
}

benchSimulate();
benchRank();
