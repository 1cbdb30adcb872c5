import { plan } from '#core/plan/plan';
import { simulate } from '#core/simulate/simulate';
import { packPieces } from '#core/pads/cutting/pack';
import { seeded } from '#core/quantities/random';
import { anEnclosure, anInput } from '../tests/parts.ts';

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
const timed = (work: () => unknown): number => {
  const from = performance.now();
  work();
  return performance.now() - from;
};

const job = { name: 'j', purposes: [], transferGB: 4000, direction: 'in' as const };
const cases = {
  'stays cool': anInput({ job }),
  throttles: anInput({ job, enclosure: anEnclosure({ cooling: { kind: 'passive', areaCm2: 90, massG: 60 } }) })
};

/** An hour of a job second by second, against the plan that says the same in closed form; and cutting eight pieces exactly, against nine in some order. */
export function benchSimulate(): void {
  console.log('\none hour of a job, ms (median of rounds)'.padEnd(41), 'simulated'.padStart(9), 'plan'.padStart(14));
  for (const [name, input] of Object.entries(cases)) {
    const played: number[] = [];
    const planned: number[] = [];
    for (let i = 0; i < 60; i++) {
      played.push(timed(() => simulate({ ...input, seconds: 3600 })));
      planned.push(timed(() => plan(input, { workings: false })));
    }
    console.log(name.padEnd(40), median(played).toFixed(2).padStart(9), median(planned).toFixed(2).padStart(14));
  }
  const random = seeded(4);
  const pieces = (n: number) =>
    Array.from({ length: n }, () => ({ lengthMm: 5 + random() * 30, widthMm: 5 + random() * 20 }));
  const sheet = { lengthMm: 200, widthMm: 100 };
  const exact = Array.from({ length: 40 }, () => timed(() => packPieces(pieces(8), sheet, 3)));
  const beyond = Array.from({ length: 40 }, () => timed(() => packPieces(pieces(9), sheet, 3)));
  console.log(
    `cutting, ms: eight pieces exactly ${median(exact).toFixed(0)} (worst ${Math.max(...exact).toFixed(0)}), nine in the best of six orders ${median(beyond).toFixed(0)}`
  );
}
