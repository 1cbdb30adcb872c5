import { analyse } from '#core/analysis/analyse';
import type { Analysis } from '#core/analysis/report';
import { madeUp, NO_CLIFF, stepDown, TROUBLES, warmFall, type MadeUp, type Trouble } from './series.ts';

/** So many series of each kind. */
const PER_CELL = 200;
const PER_SHAPE = 600;

/** A share with its interval at 95 % (Wilson). */
export function withInterval(hits: number, of: number): string {
  const [p, z] = [hits / of, 1.96];
  const middle = (p + (z * z) / (2 * of)) / (1 + (z * z) / of);
  const half = (z / (1 + (z * z) / of)) * Math.sqrt((p * (1 - p)) / of + (z * z) / (4 * of * of));
  const percent = (value: number) => (100 * value).toFixed(1);
  return `${percent(p)} % (${percent(Math.max(0, middle - half))} to ${percent(Math.min(1, middle + half))}) of ${of}`;
}

/** Within 2 % of where it was, or two samples. */
function isFound({ stepS, everyS }: MadeUp, { steps }: Analysis): boolean {
  return stepS !== null && steps.some(({ atS }) => Math.abs(atS - stepS) <= Math.max(0.02 * stepS, 2 * everyS) + 1e-9);
}

type Corner = { share: number; noise: number; trouble: Trouble };

/** How often steps of one kind are found where they are. */
function hitsOf(corner: Corner, seed: number, times: number): number {
  let hits = 0;
  for (let k = 1; k <= times; k++) {
    const made = stepDown({ seed: seed + k * 7919, ...corner });
    if (isFound(made, analyse({ series: made.series, direction: 'write' }))) hits += 1;
  }
  return hits;
}

/** Tells how often steps of one height are found where they are, with every trouble. */
function steps(seed: number, shares: readonly number[], noises: readonly number[]): (Corner & { hits: number })[] {
  let next = seed;
  return shares.flatMap((share) =>
    noises.flatMap((noise) =>
      TROUBLES.map((trouble) => {
        const corner = { share, noise, trouble };
        return { ...corner, hits: hitsOf(corner, (next += 7919 * PER_CELL), PER_CELL) };
      })
    )
  );
}

const line = (name: string, value: string): string => `| ${name} | ${value} |`;

/** The worst of many is worse than it is by chance: it is measured once more by itself. */
const AGAIN = 2000;

function stepLines(name: string, cells: (Corner & { hits: number })[], seed: number): string[] {
  const sum = cells.reduce((total, { hits }) => total + hits, 0);
  const [worst] = [...cells].sort((a, b) => a.hits - b.hits);
  if (!worst) return [];
  const { hits: _once, ...corner } = worst;
  const words = `to ${corner.share}, noise ${Math.round(corner.noise * 100)} %, ${corner.trouble}`;
  return [
    line(`${name}: mean`, withInterval(sum, cells.length * PER_CELL)),
    line(`${name}: worst corner (${words}), once more`, withInterval(hitsOf(corner, seed ^ 0x3c6ef372, AGAIN), AGAIN))
  ];
}

function falseCliffs(seed: number): string[] {
  return Object.entries(NO_CLIFF).map(([name, make]) => {
    let cliffs = 0;
    for (let k = 0; k < PER_SHAPE; k++)
      if (analyse({ series: make(seed + k * 104729), direction: 'write' }).cliff) cliffs += 1;
    return line(`false cliff: ${name}`, withInterval(cliffs, PER_SHAPE));
  });
}

function heat(seed: number): string[] {
  const told = { right: 0, wrong: 0, bare: 0, named: 0 };
  for (let k = 0; k < PER_SHAPE; k++) {
    const what = k % 2 === 0 ? 'throttle' : 'cache';
    const series = warmFall(seed + k * 15485863, what);
    const [kind] = analyse({ series, direction: 'write' }).steps.map((step) => step.kind);
    if (kind === what) told.right += 1;
    else if (kind && kind !== 'cannot-tell') told.wrong += 1;
    const { controllerC: _without, ...blind } = series;
    const [guess] = analyse({ series: blind, direction: 'write' }).steps.map((step) => step.kind);
    if (guess === 'cannot-tell') told.bare += 1;
    else told.named += 1;
  }
  return [
    line('throttle told from cache, with temperature', withInterval(told.right, PER_SHAPE)),
    line('… called the other', withInterval(told.wrong, PER_SHAPE)),
    line('one step without temperature: “cannot tell”', withInterval(told.bare, PER_SHAPE))
  ];
}

function times(): string[] {
  const shapes = { flat: () => 900, stepped: (share: number) => (share < 0.4 ? 900 : 400), noisy: () => 900 };
  return Object.entries(shapes).map(([name, rate]) => {
    const seconds = [100_000, 1_000_000].map((samples) => {
      const series = madeUp({ seed: 7, noise: name === 'noisy' ? 0.3 : 0.02, samples, rate });
      const from = performance.now();
      analyse({ series, direction: 'write' });
      return (performance.now() - from) / 1000;
    });
    const [small = 0, large = 0] = seconds;
    return line(`a million samples, ${name}`, `${large.toFixed(2)} s, ${(large / small).toFixed(1)} times 100 000`);
  });
}

/**
 * Measures the analysis on made-up series.
 * @param seed that all are made from
 * @returns lines of a table
 */
export function judgeAnalysis(seed: number): string[] {
  return [
    '| Analysis | |',
    '| --- | --- |',
    ...stepLines('step to 0.7 and less, noise to 10 %', steps(seed, [0.7, 0.5, 0.25], [0.02, 0.05, 0.1]), seed),
    ...stepLines('step to 0.9, noise 3 %', steps(seed + 1, [0.9], [0.03]), seed),
    ...stepLines('step to 0.85, noise 10 %', steps(seed + 2, [0.85], [0.1]), seed),
    ...falseCliffs(seed + 3),
    ...heat(seed + 4),
    ...times()
  ];
}
