import type { Library } from '../build/assemble.ts';
import { needsOf } from '../cost/needs.ts';
import { leftToPay, type ToPay } from '../build/to-pay.ts';
import { padsWanted } from '../plan/report-parts.ts';
import type { PlanInput, PlanReport } from '../plan/report.ts';
import { answersOf, type PlanAnswer } from './answers.ts';

/** A build as it is asked about: its parts, its plan, and where it is known, its tag and its next step. */
export type AskedBuild = { input: PlanInput; report: PlanReport; tag?: string | undefined; next?: string | undefined };

/**
 * Says what of a build is still to be paid, from its parts, the boxes they come in and the pads that it needs.
 * @example toPayOf(libraryOf([], []), { input: anInput(), report: plan(anInput()) }).unpriced.length // 4
 */
export function toPayOf(library: Library, { input, report, tag }: AskedBuild): ToPay {
  const { needs } = needsOf({ ...input, padsMm: padsWanted(report), padMissing: false }, library.pads);
  return leftToPay(library, needs, tag);
}

/**
 * Answers what a person asks of a build of a crate, with what of it is still to pay.
 * @example answersOfBuild(libraryOf([], []), { input: anInput(), report: plan(anInput()) })[0].about // 'goes'
 */
export const answersOfBuild = (library: Library, build: AskedBuild): PlanAnswer[] =>
  answersOf({ report: build.report, job: build.input.job, toPay: toPayOf(library, build), next: build.next });
