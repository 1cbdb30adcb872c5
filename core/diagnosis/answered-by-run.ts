import type { RunStretch } from '../analysis/of-run.ts';
import type { PlanReport } from '../plan/report.ts';
import type { Conditions } from '../results/conditions.ts';
import type { ProtocolId } from '../results/protocol-ids.ts';
import type { PairResults } from '../results/run.ts';

/** A run, as far as it can answer a test that was asked for an earlier one. */
export type AnsweringRun = {
  protocol: ProtocolId;
  results: PairResults;
  conditions: Partial<Conditions>;
  stretches: readonly RunStretch[];
};
type Asked = { before: AnsweringRun; later: AnsweringRun; forecast: PlanReport['throughput'] };

/** About as much: within 15 %. */
const AS_MUCH = 0.15;
/** Faster, or later, than scatter makes it. */
const CLEARLY = { faster: 1.15, later: 1.5 } as const;
/** So many dips of no fixed time are too many for an even run. */
const SOME_DIPS = 3;
/** The same place of a disk, as a share of it. */
const SAME_PLACE = 0.006;
/** So much emptier, percent of the drive, is a fifth freed or nearly. */
const FREED_PERCENT = 10;

const yesNo = (is: boolean): string => (is ? 'yes' : 'no');
const firstFall = ({ stretches }: AnsweringRun) =>
  stretches.find(({ direction }) => direction === 'write')?.analysis.steps[0];
const throttle = ({ stretches }: AnsweringRun) =>
  stretches.find(({ analysis }) => analysis.throttle)?.analysis.throttle;
const weakIn = ({ stretches }: AnsweringRun) => stretches.flatMap(({ analysis }) => analysis.zone?.weak ?? []);

/** Whether every rate in one go that was measured is as forecast; undefined where none was. */
function asForecast({ results }: AnsweringRun, { read, write }: PlanReport['throughput']): boolean | undefined {
  const pairs = [
    [results.readMBps, read],
    [results.writeMBps, write]
  ] as const;
  const measured = pairs.filter(([MBps, band]) => MBps !== undefined && band !== null);
  return measured.length === 0
    ? undefined
    : measured.every(([MBps, band]) => (MBps as number) >= (band?.low ?? Infinity));
}

/** How each test that is a way of measuring is answered by a later run; undefined where that run does not answer it. */
const ANSWERS: Partial<Record<string, (asked: Asked) => string | undefined>> = {
  'made-up-source': ({ later, forecast }) => {
    const sound = asForecast(later, forecast);
    return sound === undefined ? undefined : yesNo(sound);
  },
  'same-again': ({ before, later }) => {
    const [then, now] = [firstFall(before), firstFall(later)];
    if (!then || later.stretches.length === 0) return undefined;
    if (!now) return 'none';
    if (now.atGB < then.atGB * (1 - AS_MUCH)) return 'earlier';
    return now.atGB <= then.atGB * (1 + AS_MUCH) ? 'same' : undefined;
  },
  fan: ({ before, later }) => {
    if (later.conditions.fan !== true || later.stretches.length === 0) return undefined;
    const [then, now] = [throttle(before), throttle(later)];
    return yesNo(!now || (then !== undefined && then !== null && now.atS > then.atS * CLEARLY.later));
  },
  paused: ({ later }) =>
    later.conditions.indexing !== false || later.stretches.length === 0
      ? undefined
      : yesNo(later.stretches.every(({ analysis }) => (analysis.irregular?.count ?? 0) < SOME_DIPS)),
  'second-sweep': ({ before, later }) => {
    const [then, now] = [weakIn(before), weakIn(later)];
    if (then.length === 0 || !later.stretches.some(({ analysis }) => analysis.zone)) return undefined;
    const again = then.filter((place) =>
      now.some((one) => one.from <= place.to + SAME_PLACE && one.to >= place.from - SAME_PLACE)
    );
    return again.length * 2 >= then.length ? 'same' : 'others';
  },
  'free-space': ({ before, later }) => {
    const [full, freed] = [before.conditions.fillPercent, later.conditions.fillPercent];
    const [slow, fast] = [before.results.writeMBps, later.results.writeMBps];
    if (full === undefined || freed === undefined || full - freed < FREED_PERCENT) return undefined;
    return slow === undefined || fast === undefined ? undefined : yesNo(fast > slow * CLEARLY.faster);
  },
  'scratch-volume': ({ later, forecast }) => {
    const sound = later.conditions.encrypted === false ? asForecast(later, forecast) : undefined;
    return sound === undefined ? undefined : yesNo(sound);
  }
};

/**
 * Tells what a later run of the same build answers to a test, where it does: a speed check whether memory as the source is fast, a soak
 * whether it falls after as much, a sweep whether the same places are slow.
 * @param forecast of the build, MB/s
 * @returns the code of the outcome
 * @example answerByRun('policy', {}) // undefined
 */
export const answerByRun = (test: string, asked: Asked): string | undefined => ANSWERS[test]?.(asked);
