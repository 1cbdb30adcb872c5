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
type Kept = { protocol: ProtocolId; results: PairResults; rig?: { state: string } | null };

/**
 * Finds the newest run whose figures say how fast its build is: one that has come to its end, of the chain and not of the computer's own disk.
 * @param runs newest first
 * @example newestFigures([]) // undefined
 */
export const newestFigures = <R extends Kept>(runs: readonly R[]): R | undefined =>
  runs.find(
    ({ protocol, results, rig }) =>
      protocol !== 'baseline' &&
      (!rig || rig.state === 'done') &&
      RESULT_FIELDS.some((field) => results[field] !== undefined)
  );
