import type { ProtocolId } from './protocol-ids.ts';
import type { PairResults } from './run.ts';
import { RESULT_FIELDS } from './run-fields.ts';

/** What each way of measuring is called. */
export const PROTOCOL_LABEL: Record<ProtocolId, string> = {
  'pair-check': 'speed check',
  loop: 'loop',
  soak: 'soak',
  copy: 'timed copy',
  sweep: 'surface sweep',
  baseline: 'test of the internal disk',
  retest: 'retest',
  acceptance: 'acceptance test',
  'cross-copy': 'copy between two externals',
  'own-program': 'test with one’s own program'
};

/** A run, as far as its figures may stand for its build. */
type Kept = {
  protocol: ProtocolId;
  results: PairResults;
  simulated: boolean;
  accepted?: readonly string[];
  rig?: { state: string } | null;
};

/**
 * Tells whether a run has figures of its build that can be held against the forecast.
 * @example hasFigures({ protocol: 'baseline', results: { writeMBps: 900 }, simulated: false }) // false
 */
export const hasFigures = ({ protocol, results, rig }: Kept): boolean =>
  protocol !== 'baseline' &&
  (!rig || rig.state === 'done') &&
  RESULT_FIELDS.some((field) => results[field] !== undefined);

/**
 * Finds the newest run whose figures say how fast its build is: one that has come to its end, of the chain and not of the computer's own
 * disk. One that was kept against an alarm stands back behind an older one without.
 * @param runs newest first
 * @param simulatedCounts whether what the stand-in rig gave counts: in the demo only, for nobody measured it
 * @example newestFigures([], true) // undefined
 */
export function newestFigures<R extends Kept>(runs: readonly R[], simulatedCounts: boolean): R | undefined {
  const withFigures = runs.filter((run) => hasFigures(run) && (simulatedCounts || !run.simulated));
  return withFigures.find(({ accepted }) => (accepted?.length ?? 0) === 0) ?? withFigures[0];
}
