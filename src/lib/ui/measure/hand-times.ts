import type { ProtocolPhase } from '#core/protocols/phase';
import type { TimedPhase } from '#core/protocols/summary';
import type { Repeat } from '#core/results/run';

/** What somebody typed, or stopped, for one step: a rate, or how long it took. */
export type HandTime = { text: string; seconds?: number; MBps?: number; error?: string };
const NOTHING: HandTime = { text: '' };
/** A step that was timed, and whether by hand. */
export type HandPhase = TimedPhase & { byHand: boolean };

/** A step at a rate: one with a size takes as long as the rate says, one with a length moves as much as it says. */
function atRate({ GB, seconds }: ProtocolPhase, MBps: number): { GB: number; seconds: number } | undefined {
  if (GB) return { GB, seconds: (GB * 1000) / MBps };
  return seconds ? { GB: (MBps * seconds) / 1000, seconds } : undefined;
}

function timed(phase: ProtocolPhase, { seconds, MBps, error }: HandTime): HandPhase | undefined {
  if (error || phase.work === 'rest' || phase.work.startsWith('random')) return undefined;
  const byHand = seconds !== undefined;
  const made = byHand ? phase.GB && { GB: phase.GB, seconds } : MBps && atRate(phase, MBps);
  return made ? { work: phase.work, ...(phase.round ? { round: phase.round } : {}), ...made, byHand } : undefined;
}

/** Makes timed steps of what was typed; steps without anything, and rests, are left out. */
export const timedByHand = (phases: readonly ProtocolPhase[], times: readonly HandTime[]): HandPhase[] =>
  phases.flatMap((phase, i) => timed(phase, times[i] ?? NOTHING) ?? []);

/** Marks the repeats that were timed by hand: they are judged as copies are. The two lists go side by side. */
export const handRepeats = (repeats: readonly Repeat[], phases: readonly HandPhase[]): Repeat[] =>
  repeats.map((repeat, i) => (phases[i]?.byHand ? { ...repeat, byHand: true } : repeat));
