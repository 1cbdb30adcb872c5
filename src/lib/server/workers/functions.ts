import { rank } from '#core/compare/ranking/rank';
import { analyse } from '#core/analysis/analyse';
import type { AnalyseInput } from '#core/analysis/report';
import { readRun, type SampledRun } from '#core/analysis/of-run';
import { simulate, type SimulateInput } from '#core/simulate/simulate';
import { playRig, type RigSettings } from '#core/simulate/rig';
import type { ProtocolPhase } from '#core/protocols/phase';
import type { PlanInput } from '#core/plan/report';
import type { RankInput } from '#core/compare/ranking/request';

/** Tells how much of a piece of work is done, 0 to 1. */
type Tell = (share: number) => void;

/** Everything that is computed away from the thread that serves pages: pure functions, by name. */
export const WORK = {
  simulate: (input: SimulateInput) => simulate(input),
  rig: (asked: { input: PlanInput; phases: readonly ProtocolPhase[]; settings: RigSettings; wantedS: number }) =>
    playRig(asked.input, asked.phases, asked.settings, asked.wantedS),
  analyse: (input: AnalyseInput) => analyse(input),
  read: (run: SampledRun) => readRun(run),
  rank: (input: RankInput, tell: Tell) => rank(input, tell)
} as const;

export type WorkName = keyof typeof WORK;
export type InputOf<N extends WorkName> = Parameters<(typeof WORK)[N]>[0];
export type ResultOf<N extends WorkName> = ReturnType<(typeof WORK)[N]>;

/** What a worker says to the one who started it. */
export type WorkerMessage = { share: number } | { result: unknown; ms: number };
