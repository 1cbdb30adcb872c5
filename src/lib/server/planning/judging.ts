import type { Knex } from 'knex';
import { readRun, type RunStretch, type SampledRun } from '#core/analysis/of-run';
import { QUESTIONS, UnknownAnswer } from '#core/diagnosis/asking';
import { wordsFor } from '#core/diagnosis/question';
import { MEASURED_QUESTIONS } from '#core/diagnosis/questions/measured';
import { diagnose } from '#core/diagnosis/diagnose';
import type { FoundLater } from '#core/diagnosis/found';
import { adviceOf, judgeRun, sampledRun, type Advice, type Judgement } from '#core/diagnosis/of-run';
import type { CaseTemperatures } from '#core/diagnosis/shapes';
import { answerByRun } from '#core/diagnosis/answered-by-run';
import type { NextTest } from '#core/diagnosis/next-test';
import { situationOf, type Situation } from '#core/diagnosis/situation';
import type { ProtocolId } from '#core/results/protocol-ids';
import type { History, SuspectPart } from '#core/diagnosis/suspects';
import { digest } from '#core/assembly/hands';
import type { PlanInput, PlanReport } from '#core/plan/report';
import { compareWithPlan } from '#core/results/compare';
import { hasFigures } from '#core/results/newest';
import { refuse } from '../problems/problem';
import { seriesOfRun } from '../repositories/run-rig';
import { getRun, listRuns, type StoredRun } from '../repositories/runs';
import { getBuild, listBuilds } from '../repositories/builds';
import { itemOfPart, listUnits, type StoredUnit } from '../repositories/units';
import { inWorker } from '../workers/run';
import { buildNow, loadLibrary } from './planning';

/** A series of more samples than this is read in a thread of its own. */
const AT_ONCE = 40_000;
/** Readings that are remembered: the same run is judged on several pages. */
const REMEMBERED = 200;

type Reading = { stretches: RunStretch[]; case?: CaseTemperatures };
const readings = new Map<string, Reading>();

/** Reads the series of a run, or remembers how it was read. */
async function readingOf(
  db: Knex,
  crateId: string,
  run: StoredRun,
  of: (series: SampledRun['series']) => SampledRun
): Promise<Reading> {
  const { conditions, startC, predicted } = of({ t: [], MBps: [] });
  const key = JSON.stringify([run.id, run.series?.fileId, conditions.source, startC, predicted]);
  const known = readings.get(key);
  if (known) return known;
  const series = await seriesOfRun(db, run, crateId).catch(() => undefined);
  if (!series) return { stretches: [] };
  const sampled = of(series);
  const stretches = series.t.length > AT_ONCE ? await inWorker('read', sampled) : readRun(sampled);
  const reading: Reading = {
    stretches,
    ...(series.caseC ? { case: thinned(series.t, series.caseC) } : {})
  };
  readings.set(key, reading);
  for (const old of readings.keys()) {
    if (readings.size <= REMEMBERED) break;
    readings.delete(old);
  }
  return reading;
}

/** A case warms slowly: a few hundred of its temperatures say all. */
function thinned(t: readonly number[], caseC: readonly number[]): CaseTemperatures {
  const every = Math.max(1, Math.floor(t.length / 500));
  const some = (list: readonly number[]) => list.filter((_, i) => i % every === 0);
  return { t: some(t), caseC: some(caseC) };
}

/** Reads the series of a run that is of no build, and so has no forecast. */
export const readAlone = (db: Knex, crateId: string, run: StoredRun): Promise<Reading> =>
  run.rig?.state === 'running' || !run.series
    ? Promise.resolve({ stretches: [] })
    : readingOf(db, crateId, run, (series) => ({
        protocol: run.protocol,
        conditions: run.conditions,
        series,
        phases: run.series?.phases
      }));

/** Judges a run of a build, with its series where it has one and is done. */
export async function judgementOf(
  db: Knex,
  args: { crateId: string; run: StoredRun; input: PlanInput; history?: History | undefined }
): Promise<Judgement> {
  const { crateId, run, input, history } = args;
  const at = situationOf(input);
  return judgeRun({ ...run, ...(await sampledReading(db, crateId, run, at)), history }, at);
}

/** Reads the series of a run against the forecast of its build; nothing while it is still sampled. */
const sampledReading = (db: Knex, crateId: string, run: StoredRun, at: Situation): Promise<Reading> =>
  run.series && run.rig?.state !== 'running'
    ? readingOf(db, crateId, run, (series) => sampledRun(run, at, series, run.series?.phases))
    : Promise.resolve({ stretches: [] });

/** Says what the newest result of a build asks for. */
export async function adviceFor(
  db: Knex,
  args: { crateId: string; run: StoredRun; input: PlanInput; report: PlanReport }
): Promise<Advice | null> {
  const below = compareWithPlan(args.run.results, args.report).some(({ place }) => place === 'below');
  // Figures that are as forecast, with no series behind them, ask for nothing.
  if (!below && !args.run.series && !args.run.found) return null;
  return adviceOf(await judgementOf(db, args), below);
}

/** Names of what the parts of a history are, by their ids. */
export type PartNames = Record<string, string>;

/** The very things that a run was measured with: the items where they are known, else their models. */
function thingsOf(run: StoredRun, items: ReadonlyMap<string, StoredUnit>): Partial<Record<SuspectPart, string>> {
  const { hostId, portId, ...models } = run.chain.ids;
  const used = (run.conditions.unitIds ?? []).flatMap((id) => items.get(id) ?? []);
  const itemOr = (modelId: string | undefined) =>
    modelId && (used.find(({ unit }) => unit.modelId === modelId)?.id ?? modelId);
  const things: [SuspectPart, string | undefined][] = [
    ['drive', itemOr(models.driveId)],
    ['enclosure', itemOr(models.enclosureId)],
    ['cable', itemOr(models.cableId)],
    ['host', hostId],
    ['port', hostId && portId && `${hostId} ${portId}`]
  ];
  return Object.fromEntries(things.filter(([, id]) => id !== undefined && id !== ''));
}

/** More runs than this tell nothing more of a part. */
const TELLING = 200;

/** Of many runs those that have a part in common with the first, before the others; each kind the newest first. */
function mostTelling(first: StoredRun, runs: readonly StoredRun[]): StoredRun[] {
  if (runs.length <= TELLING) return [...runs];
  const own = first.chain.ids;
  const shares = ({ chain: { ids } }: StoredRun) =>
    ids.driveId === own.driveId ||
    ids.enclosureId === own.enclosureId ||
    ids.hostId === own.hostId ||
    (ids.cableId !== undefined && ids.cableId === own.cableId);
  return [...runs.filter(shares), ...runs.filter((run) => !shares(run))].slice(0, TELLING);
}

/**
 * What every build of a crate was like when it was measured last, with the things it was measured with: what parts are suspect follows
 * from it. Runs of one build with the same things count once.
 * @param args.first the run that is judged: it comes first
 */
export async function historyOf(
  db: Knex,
  args: { crateId: string; simulated: boolean; first: StoredRun }
): Promise<{ history: History; names: PartNames }> {
  const { crateId, simulated, first } = args;
  const all = await listRuns(db, { crateId, limit: 1000 });
  const telling = mostTelling(
    first,
    all.filter(
      (run) => run.id !== first.id && hasFigures(run) && run.accepted.length === 0 && (simulated || !run.simulated)
    )
  );
  const buildIds = [...new Set([first, ...telling].flatMap(({ buildId }) => buildId ?? []))];
  const unitIds = [...new Set([first, ...telling].flatMap(({ conditions }) => conditions.unitIds ?? []))];
  const [builds, units] = await Promise.all([
    listBuilds(db, crateId, buildIds),
    unitIds.length > 0 ? listUnits(db, { crateId, ids: unitIds }) : []
  ]);
  const library = await loadLibrary(
    db,
    crateId,
    builds.map(({ choice }) => choice)
  );
  const reports = new Map(builds.map((build) => [build.id, buildNow(library, build).report]));
  const items = new Map(units.map((one) => [one.id, one]));
  const names: PartNames = {};
  const seen = new Set<string>();
  const history: History = [];
  for (const run of [first, ...telling]) {
    const report = run.buildId && reports.get(run.buildId);
    if (!run.buildId || !report) continue;
    const ids = thingsOf(run, items);
    const build = digest(JSON.stringify([run.buildId, ids]));
    if (seen.has(build)) continue;
    seen.add(build);
    name(names, run, ids, items);
    const healthy = !compareWithPlan(run.results, report).some(
      ({ field, place }) => place === 'below' && (field === 'readMBps' || field === 'writeMBps')
    );
    history.push({ ids, build, healthy });
  }
  return { history, names };
}

function name(
  names: PartNames,
  { chain }: StoredRun,
  ids: Partial<Record<SuspectPart, string>>,
  items: ReadonlyMap<string, StoredUnit>
): void {
  const put = (part: SuspectPart, text: string | undefined) => {
    const id = ids[part];
    if (!id || !text) return;
    const tag = items.get(id)?.unit.tag;
    names[id] = tag ? `${text} (${tag})` : text;
  };
  put('drive', chain.drive);
  put('enclosure', chain.enclosure);
  put('cable', chain.cable);
  put('host', chain.host);
  put('port', `${chain.port} of ${chain.host}`);
}

/** Judges a stored run as its build is now. @returns nothing where it is of no build, or of the internal disk */
export async function judgementOfRun(
  db: Knex,
  { crateId, run, demo }: { crateId: string; run: StoredRun; demo: boolean }
): Promise<{ judgement: Judgement; names: PartNames } | undefined> {
  // The internal disk, or a program that is timed with it, is not the chain.
  if (!run.buildId || run.protocol === 'baseline' || run.protocol === 'own-program') return undefined;
  const build = await getBuild(db, { crate_id: crateId, id: run.buildId });
  const { snapshot } = buildNow(await loadLibrary(db, crateId, [build.choice]), build);
  const { history, names } = await historyOf(db, { crateId, simulated: demo, first: run });
  const judgement = await judgementOf(db, { crateId, run, input: snapshot, history });
  // Of all suspects those that this run was measured with.
  const own = history[0]?.ids ?? {};
  const suspects = judgement.diagnosis.suspects.filter(({ part, id }) => own[part] === id);
  return { judgement: { ...judgement, diagnosis: { ...judgement.diagnosis, suspects } }, names };
}

/** @throws Problem `bad-input` with the path of a test that the build of this run is not asked for */
export async function refuseUnknownTests(
  db: Knex,
  where: { crateId: string; id: string },
  found: FoundLater
): Promise<void> {
  const run = await getRun(db, where);
  if (!run.buildId) refuse([{ path: 'found', message: 'belongs to the result of a build' }]);
  const build = await getBuild(db, { crate_id: where.crateId, id: run.buildId ?? '' });
  const { snapshot } = buildNow(await loadLibrary(db, where.crateId, [build.choice]), build);
  try {
    diagnose(situationOf(snapshot), found);
  } catch (error) {
    if (!(error instanceof UnknownAnswer)) throw error;
    const what = error.what === 'test' ? 'is nothing that this build is asked' : 'is no outcome of this test';
    refuse([{ path: error.message.replace(/^answers/, 'found.tried'), message: what }]);
  }
}

/** The very item of a part that a run was measured with: the one it names, else the one that is in its build. */
export async function itemOfRun(
  db: Knex,
  { crateId, run }: { crateId: string; run: StoredRun },
  part: 'drive' | 'enclosure' | 'cable'
): Promise<StoredUnit | undefined> {
  const { buildId, conditions, chain } = run;
  const modelId = chain.ids[`${part}Id`];
  const named = conditions.unitIds?.length ? await listUnits(db, { crateId, ids: conditions.unitIds }) : [];
  const item = named.find(({ unit }) => unit.modelId === modelId);
  return item ?? (buildId ? itemOfPart(db, { crateId, buildId, modelId }) : undefined);
}

/** What each test that was tried on a run asked and showed, in words; those that its build is not asked any more are left out. */
export function triedWords(run: StoredRun, input: PlanInput): { test: string; text: string }[] {
  const at = situationOf(input);
  return (run.found?.tried ?? []).flatMap(({ test, outcome }) => {
    const question = [...QUESTIONS, ...MEASURED_QUESTIONS].find(({ code }) => code === test);
    if (!question) return [];
    const said = question.outcomes.find((one) => one.outcome === outcome)?.text;
    const answer = said === undefined ? 'I cannot tell' : wordsFor(said, at);
    return [{ test, text: `${wordsFor(question.text, at)} ${answer}.` }];
  });
}

/** A later run that answers a test, with the outcome that it shows. */
export type AnsweringLater = { runId: string; protocol: ProtocolId; date: string; simulated: boolean; outcome: string };

/** Finds the later runs of the same build that answer a test which is a way of measuring, the newest first. */
export async function answersByLaterRuns(
  db: Knex,
  args: { crateId: string; run: StoredRun; input: PlanInput; next: NextTest | null; same: readonly StoredRun[] }
): Promise<AnsweringLater[]> {
  const { crateId, run, input, next, same } = args;
  if (!next?.protocol) return [];
  const later = same
    .filter((one) => one.protocol === next.protocol && one.simulated === run.simulated && isLater(one, run))
    .filter(({ rig }) => !rig || rig.state === 'done')
    .slice(0, MOST_LATER);
  const at = situationOf(input);
  const read = async (one: StoredRun) => ({ ...one, ...(await sampledReading(db, crateId, one, at)) });
  const before = await read(run);
  const answers: AnsweringLater[] = [];
  for (const one of later) {
    const outcome = answerByRun(next.test, { before, later: await read(one), forecast: at.report.throughput });
    if (outcome)
      answers.push({ runId: one.id, protocol: one.protocol, date: one.date, simulated: one.simulated, outcome });
  }
  return answers;
}

/** More runs than this are not looked through for an answer. */
const MOST_LATER = 5;
/** Ids rise with the time at which runs were kept. */
const isLater = (one: StoredRun, other: StoredRun): boolean =>
  one.date > other.date || (one.date === other.date && one.id > other.id);
