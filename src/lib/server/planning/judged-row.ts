import { createHash } from 'node:crypto';
import { answersOfBuild } from '#core/answers/of-build';
import type { PlanAnswer } from '#core/answers/answers';
import { assemble, type Library } from '#core/build/assemble';
import { nextStep, type NextStep } from '#core/build/next-step';
import { STAGE_LABEL, type BuildStage } from '#core/build/stages';
import type { Advice } from '#core/diagnosis/of-run';
import type { Verdict } from '#core/findings/finding';
import { ENGINE_VERSION } from '#core/plan/plan';
import type { PlanInput, PlanReport } from '#core/plan/report';
import { briefOf } from '#core/protocols/brief';
import { coolDown } from '#core/protocols/planner';
import { testedBuild } from '#core/protocols/tested';
import { compareWithPlan, type Comparison } from '#core/results/compare';
import { wordsOf, type ListedColumns } from '../repositories/judgements';
import type { BriefBuild, StoredBuild } from '../repositories/builds';
import type { StoredRun } from '../repositories/runs';
import type { BuildNow } from './planning';
import { progressNow, type NewestSheets } from './sheets';

/** A build as it stands in a list: what the small lane and the columns need, and no more. */
export type BuildRow = {
  id: string;
  tag: string;
  name: string;
  stage: BuildStage;
  version: number;
  verdict: Verdict;
  parts: { host: string; port: string; cable: string | undefined; enclosure: string; drive: string };
  stages: PlanReport['link']['stages'];
  bottleneck: PlanReport['link']['bottleneck'];
  /** Whether the parts do not go together, and the lane is only what would be if they did. */
  ifItFitted: boolean;
  write: PlanReport['throughput']['write'];
  perTB: { amount: number; currency: string } | undefined;
  latest: { comparisons: Comparison[]; date: string; simulated: boolean } | undefined;
  outdated: boolean;
  next: NextStep;
  /** What a person asks of it, answered in sentences and in a few words. */
  answers: PlanAnswer[];
  /** How long a soak and a speed check take, and how long it cools after a soak, s; null where it does not run yet. */
  takes: { soakS: number; checkS: number; coolS: number } | null;
};

/** Changes whenever the same things can be judged otherwise, though the engine of plans is the same. */
export const JUDGING_ENGINE = `${ENGINE_VERSION}/1`;

/** Everything that the row of one build is made from, beside its parts as they are now. */
export type Around = {
  library: Library;
  newest: StoredRun | undefined;
  sheets: Record<'assemble' | 'format', ReturnType<NewestSheets>>;
};

const sha256 = (value: unknown): string => createHash('sha256').update(JSON.stringify(value)).digest('hex');

/** What every build of a crate hangs on alike: made once for all that are judged from one library. */
const shared = new WeakMap<Library, string>();
function sharedDigest(library: Library): string {
  const known = shared.get(library);
  if (known) return known;
  const { pads, quotes, houseRules, exchange, stock } = library;
  const ids = new Set(pads.map(({ id }) => id));
  const made = sha256([
    pads,
    quotes.filter(({ partId }) => ids.has(partId)),
    houseRules,
    exchange,
    [...stock].filter(([id]) => ids.has(id))
  ]);
  shared.set(library, made);
  return made;
}

/**
 * Makes the key of a judgement: a digest of everything that it is made from, and of the engine. Where it is the same, so is the judgement,
 * as long as the day is one that its next step holds for.
 */
export function judgementKey(build: BriefBuild, { library, newest, sheets }: Around): string {
  const assembled = assemble(library, build.choice);
  const { hostId, cableId, enclosureId, driveId } = build.choice;
  const own = [hostId, cableId, enclosureId, driveId];
  return sha256([
    JUDGING_ENGINE,
    sharedDigest(library),
    build,
    assembled.ok ? ownInput(assembled.input, own) : assembled.missing,
    own.map((id) => id && library.stock.get(id)),
    newest,
    sheets
  ]);
}

/** Of the input of a plan what belongs to this build alone. */
function ownInput(input: PlanInput, own: readonly (string | undefined)[]): Partial<PlanInput> {
  const { pads: _pads, houseRules: _rules, exchange: _exchange, quotes, ...rest } = input;
  return { ...rest, quotes: quotes?.filter(({ partId }) => own.includes(partId)) };
}

/** Makes the row of a build. */
export function buildRow(
  build: StoredBuild,
  now: BuildNow,
  { library, newest, sheets }: Around,
  judged: { advice: Advice | null | undefined; today: string }
): BuildRow {
  const { report, snapshot, differences } = now;
  const comparisons = newest ? compareWithPlan(newest.results, report) : [];
  const outdated = differences.length > 0;
  const next = nextStep(
    {
      stage: build.stage,
      report,
      outdated,
      latest: comparisons,
      measuredOn: newest?.date,
      advice: judged.advice,
      sheet: progressNow(sheets.assemble, build, snapshot),
      formatSheet: progressNow(sheets.format, build, snapshot),
      rules: library.houseRules
    },
    judged.today
  );
  return {
    id: build.id,
    tag: build.tag,
    name: build.name,
    stage: build.stage,
    version: build.version,
    verdict: report.verdict,
    parts: {
      host: snapshot.host.name,
      port: snapshot.host.ports.find((p) => p.id === snapshot.portId)?.label ?? snapshot.portId,
      cable: snapshot.cable?.name,
      enclosure: snapshot.enclosure.name,
      drive: snapshot.drive.name
    },
    stages: (report.ifItFitted ?? report).link.stages,
    bottleneck: (report.ifItFitted ?? report).link.bottleneck,
    ifItFitted: report.ifItFitted !== null,
    write: report.throughput.write,
    perTB: report.cost ? { amount: report.cost.perTB, currency: report.cost.currency } : undefined,
    latest: newest ? { comparisons, date: newest.date, simulated: newest.simulated } : undefined,
    outdated,
    next,
    answers: answersOfBuild(library, { input: snapshot, report, tag: build.tag }),
    takes: takesOf(snapshot, report)
  };
}

function takesOf(snapshot: PlanInput, report: PlanReport): BuildRow['takes'] {
  if (report.throughput.read === null) return null;
  const tested = testedBuild(snapshot, report);
  const seconds = (id: 'soak' | 'pair-check') => Math.round(briefOf(id, {}, tested).seconds?.typical ?? 0);
  return { soakS: seconds('soak'), checkS: seconds('pair-check'), coolS: Math.round(coolDown(tested)?.seconds ?? 0) };
}

/** What a list sorts, counts and looks for, of a row. */
export function listedColumns({
  tag,
  name,
  stage,
  verdict,
  parts,
  write,
  perTB,
  latest,
  next
}: BuildRow): ListedColumns {
  return {
    stage,
    verdict,
    tone: next.tone,
    writeMBps: write?.typical,
    measuredMBps: latest?.comparisons.find(({ field }) => field === 'writeMBps')?.measured,
    perTB: perTB?.amount,
    words: wordsOf([tag, name, STAGE_LABEL[stage], ...Object.values(parts)])
  };
}
