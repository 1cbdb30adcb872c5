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
  baseline: 'internal disk',
  retest: 'retest',
  acceptance: 'acceptance test',
  'cross-copy': 'copy between two externals',
  'own-program': 'own program'
};

/** A run, as far as its figures may stand for its build. */
type Kept = {
  protocol: ProtocolId;
  results: PairResults;
  accepted?: readonly string[];
  rig?: { state: string } | null;
};

const hasFigures = ({ protocol, results, rig }: Kept): boolean =>
  protocol !== 'baseline' &&
  (!rig || rig.state === 'done') &&
  RESULT_FIELDS.some((field) => results[field] !== undefined);

/**
 * Finds the newest run whose figures say how fast its build is: one that has come to its end, of the chain and not of the computer's own
 * disk. One that was kept against an alarm stands back behind an older one without.
 * @param runs newest first
 * @example newestFigures([]) // undefined
 */
export function newestFigures<R extends Kept>(runs: readonly R[]): R | undefined {
  const withFigures = runs.filter(hasFigures);
  return withFigures.find(({ accepted }) => (accepted?.length ?? 0) === 0) ?? withFigures[0];
}
