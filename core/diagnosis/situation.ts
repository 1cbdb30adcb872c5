import { handsOf, type Hands } from '../assembly/hands.ts';
import { runSheet } from '../assembly/run-sheet.ts';
import type { LinkMode } from '../facts/link-modes.ts';
import { plan } from '../plan/plan.ts';
import type { PlanInput, PlanReport } from '../plan/report.ts';
import type { PairResults } from '../results/run.ts';

/** What a build already says, before anything is asked. */
export type Situation = {
  hands: Hands;
  report: PlanReport;
  /** How it should run; null where nothing comes about. */
  mode: LinkMode | null;
  findings: ReadonlySet<string>;
  /** Codes of the steps of its run sheet. */
  steps: ReadonlySet<string>;
  /** The newest result, where there is one. */
  results: PairResults | undefined;
  /** How likely each cause is by the whole of that result, where it was judged with its series: shares of 1. */
  judged?: Readonly<Partial<Record<string, number>>> | undefined;
};

/**
 * Works out what a build already says.
 * @param results its newest result, where it was measured
 * @example situationOf(anInput()).mode // 'usb4-40g'
 */
export function situationOf(input: PlanInput, results?: PairResults, readyMade = false): Situation {
  const report = plan(input, { workings: false });
  let steps: Situation['steps'] | undefined;
  return {
    hands: handsOf(input, 1, readyMade),
    report,
    mode: report.link.mode,
    findings: new Set(report.findings.map(({ code }) => code)),
    // A whole sheet: made for who asks for a step to go back to, and that is seldom.
    get steps() {
      return (steps ??= stepCodes(input, readyMade));
    },
    results
  };
}

function stepCodes(input: PlanInput, readyMade: boolean): Situation['steps'] {
  const { stages } = runSheet(input, readyMade ? { from: 'ready-made' } : {});
  return new Set(stages.flatMap(({ steps }) => steps.map(({ code }) => code)));
}
