import { isEventful, readRun, type RunPhase, type RunStretch } from '../analysis/of-run.ts';
import type { PlanInput } from '../plan/report.ts';
import type { Conditions } from '../results/conditions.ts';
import type { ProtocolId } from '../results/protocol-ids.ts';
import type { PairResults } from '../results/run.ts';
import type { Settings } from '../results/settings.ts';
import type { Series } from '../series/series.ts';
import { diagnose, type Diagnosis } from './diagnose.ts';
import type { Observed } from './observed.ts';
import type { Found } from './found.ts';
import { sentenceOf, type Sentence } from './sentence.ts';
import { situationOf, type Situation } from './situation.ts';
import type { History } from './suspects.ts';
import { UnknownAnswer } from './asking.ts';

/** A run of a build, with everything that it can be judged by. */
export type JudgedRun = {
  protocol: ProtocolId;
  results: PairResults;
  conditions: Partial<Conditions>;
  settings?: Settings | null | undefined;
  series?: Series | undefined;
  phases?: readonly RunPhase[] | undefined;
  found?: Found | null | undefined;
  history?: History | undefined;
};

/** A run as it is judged: its stretches, the causes, and what is said first. */
export type Judgement = { stretches: RunStretch[]; diagnosis: Diagnosis; sentence: Sentence };

/** Protocols whose data comes from memory, unless the conditions say otherwise. */
const MADE_UP: readonly ProtocolId[] = ['pair-check', 'loop', 'soak', 'retest', 'acceptance', 'sweep'];

/** What a protocol says of its conditions by itself. */
function conditionsOf({ protocol, conditions, settings }: JudgedRun): Partial<Conditions> {
  return {
    ...(MADE_UP.includes(protocol) ? { source: 'memory' as const } : {}),
    ...(protocol === 'copy' ? { source: 'internal' as const } : {}),
    ...(settings?.GB !== undefined && protocol === 'pair-check'
      ? { testGB: settings.GB, repeats: settings.rounds ?? 1 }
      : {}),
    ...conditions
  };
}

/** The stretch that tells most: the longest in which something happened, else the longest. */
function tellingOf(stretches: readonly RunStretch[]): RunStretch | undefined {
  const longest = (list: readonly RunStretch[]) =>
    [...list].sort((a, b) => b.analysis.stats.samples - a.analysis.stats.samples)[0];
  const enough = stretches.filter(({ analysis }) => analysis.enough);
  return longest(enough.filter(isEventful)) ?? longest(enough);
}

/** Answers that were kept before the build was changed may be to what is not asked any more: they are left out. */
function diagnosed(at: Situation, observed: Observed): Diagnosis {
  try {
    return diagnose(at, observed);
  } catch (error) {
    if (!(error instanceof UnknownAnswer)) throw error;
    const tried = observed.tried?.filter((_, i) => i !== error.index) ?? [];
    return diagnosed(at, { ...observed, tried });
  }
}

/** Reads the series of a run against what was forecast of its build. */
function stretchesOf(
  { protocol, series, phases }: JudgedRun,
  conditions: Partial<Conditions>,
  at: Situation
): RunStretch[] {
  if (!series) return [];
  const { thermal, throughput } = at.report;
  const { read, write } = throughput;
  return readRun({
    protocol,
    conditions,
    series,
    phases,
    startC: thermal?.startC ?? undefined,
    predicted: { ...(read ? { read } : {}), ...(write ? { write } : {}) }
  });
}

/**
 * Judges a run of a build: reads its series, weighs the causes, and says first what came out.
 * @param at what the build says by itself
 * @example judgeRun({ protocol: 'pair-check', results: { readMBps: 39, writeMBps: 37 }, conditions: {} }, situationOf(anInput())).diagnosis.causes[0].cause // 'usb2-fallback'
 */
export function judgeRun(run: JudgedRun, at: Situation): Judgement {
  const { results, series, found, history } = run;
  const conditions = conditionsOf(run);
  const stretches = stretchesOf(run, conditions, at);
  const telling = tellingOf(stretches);
  const diagnosis = diagnosed(at, {
    results,
    conditions,
    ...(telling ? { analysis: telling.analysis, direction: telling.direction } : {}),
    ...(telling && series?.caseC ? { case: { t: series.t.map((t) => t - telling.fromS), caseC: series.caseC } } : {}),
    ...found,
    history
  });
  return { stretches, diagnosis, sentence: sentenceOf(diagnosis, results, telling) };
}

/** Judges a run of a build that is not at hand as a situation. */
export const judgeRunOn = (run: JudgedRun, input: PlanInput): Judgement => judgeRun(run, situationOf(input));
