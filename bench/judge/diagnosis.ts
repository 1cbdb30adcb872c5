import { analyse } from '#core/analysis/analyse';
import { CAUSE_WORDS, type CauseCode } from '#core/diagnosis/causes';
import { diagnose, type Diagnosis } from '#core/diagnosis/diagnose';
import type { Observed } from '#core/diagnosis/observed';
import { MEASURED_PRIORS } from '#core/diagnosis/priors';
import { CANNOT_TELL } from '#core/diagnosis/question';
import { MEASURED_QUESTIONS } from '#core/diagnosis/questions/measured';
import { situationOf, type Situation } from '#core/diagnosis/situation';
import { QUESTIONS } from '#core/diagnosis/asking';
import { seeded } from '#core/quantities/random';
import { withInterval } from './analysis.ts';
import { BUILDS, type BuildId } from './builds.ts';
import { CASES, type Case } from './cases.ts';
import { couldOf, numbers, played, PLAYED_FAULTS, type Could, type Played, type PlayedFault } from './faults.ts';

const line = (name: string, value: string): string => `| ${name} | ${value} |`;
const ids = Object.keys(BUILDS) as BuildId[];
type Stage = { id: BuildId; at: Situation; could: Could; faults: PlayedFault[]; weights: number[] };

/** Causes that what is given cannot tell apart; either counts as the other. Listed in docs/models.md. */
const ALIKE: readonly (readonly CauseCode[])[] = [
  ['write-cache-off', 'host-write-ceiling'],
  // A ceiling on writes can lie just where a link does; only reading tells them apart.
  ['host-write-ceiling', '5g-port-or-cable'],
  ['host-write-ceiling', 'two-lane-limit'],
  ['host-write-ceiling', '10g-fallback'],
  ['host-write-ceiling', 'usb2-fallback'],
  ['write-cache-off', 'usb2-fallback'],
  ['write-cache-off', '10g-fallback'],
  ['write-cache-off', 'smr-rewrite'],
  ['unstable-link', 'no-power', 'bridge-firmware', 'not-seated']
];
const ALIKE_BY_NUMBERS: readonly (readonly CauseCode[])[] = [
  ['write-cache-off', 'host-write-ceiling'],
  [
    'thermal-throttle',
    'pad-no-contact',
    'background-load',
    'unstable-link',
    'no-power',
    'bridge-firmware',
    'not-seated'
  ],
  ['healthy', 'host-disk-cliff']
];
const same = (groups: readonly (readonly CauseCode[])[], a: CauseCode | undefined, b: CauseCode): boolean =>
  a === b || groups.some((group) => a !== undefined && group.includes(a) && group.includes(b));

/** Whether a fault can be on a build, and slows it by 5 % or more. */
function possible(fault: PlayedFault, could: Could, at: Situation): boolean {
  if (!(CAUSE_WORDS[fault].applies?.(at) ?? true)) return false;
  if (fault === 'slc-cliff') return could.cliffGB !== null;
  if (fault === 'weak-surface' || fault === 'smr-rewrite') return could.disk;
  if (fault === 'encryption-cost') return at.hands.input.job?.encrypt === true;
  if (fault === 'drive-nearly-full') return !could.disk;
  const probe = played(fault, could, 1);
  return (
    fault === 'healthy' ||
    fault === 'host-disk-cliff' ||
    probe.read < could.read.typical * 0.9 ||
    probe.write < could.write.typical * 0.9
  );
}

function stages(uniform: boolean): Stage[] {
  return ids.map((id) => {
    const at = situationOf(BUILDS[id]);
    const could = couldOf(BUILDS[id]);
    const faults = PLAYED_FAULTS.filter((fault) => possible(fault, could, at));
    return { id, at, could, faults, weights: faults.map((fault) => (uniform ? 1 : (MEASURED_PRIORS[fault] ?? 0))) };
  });
}

function pick<T>(list: readonly T[], weights: readonly number[], at: number): T {
  let left = at * weights.reduce((a, b) => a + b, 0);
  const found = list.findIndex((_, i) => (left -= weights[i] ?? 0) < 0);
  return list[found < 0 ? list.length - 1 : found] as T;
}

type Hit = { truth: CauseCode; first: CauseCode; confidence: number; hit: boolean; among: boolean };

const hitOf = (truth: CauseCode, { causes }: Diagnosis, alike: typeof ALIKE): Hit => ({
  truth,
  first: causes[0]?.cause ?? 'healthy',
  // Causes that count as one are believed as one.
  confidence: causes
    .filter(({ cause }) => same(alike, cause, causes[0]?.cause ?? 'healthy'))
    .reduce((sum, { confidence }) => sum + confidence, 0),
  hit: same(alike, causes[0]?.cause, truth),
  among: causes.slice(0, 3).some(({ cause }) => same(alike, cause, truth))
});

/** What somebody has of a played run: a copy shows the other disk, and of the others some are copies too. */
const observedOf = ({ series, direction, cause }: Played, at: Situation): Observed => ({
  conditions: { source: cause === 'host-disk-cliff' || series.t.length % 3 === 0 ? 'internal' : 'memory' },
  analysis: analyse({ series, direction, ...(at.report.thermal?.startC ? { startC: at.report.thermal.startC } : {}) }),
  direction,
  ...(series.caseC ? { case: { t: series.t, caseC: series.caseC } } : {})
});

function seriesHits(seed: number, of: number, uniform: boolean): Hit[] {
  const random = seeded(seed);
  const all = stages(uniform);
  return Array.from({ length: of }, (_, k) => {
    const stage = all[k % all.length] as Stage;
    const fault = pick(stage.faults, stage.weights, random());
    const one = played(fault, stage.could, seed * 7 + k * 7919);
    return hitOf(one.cause, diagnose(stage.at, observedOf(one, stage.at)), ALIKE);
  });
}

/** Cells of the plane of two numbers that the bound is taken over: 5 % wide. */
const CELL = 0.06;
/** Pairs of numbers that it is learned from, for each build. */
const LEARNED = 60_000;

/**
 * The most that anybody could hit with two numbers: the likeliest cause of each cell of the plane, learned from one half of what is played
 * and counted on the other.
 */
function boundOf(stage: Stage, seed: number, alike: typeof ALIKE): { bound: number; hits: number; of: number } {
  const cells = new Map<string, Map<CauseCode, number>>();
  const random = seeded(seed);
  const key = ({ read, write }: { read: number; write: number }) =>
    `${Math.round(Math.log(read) / CELL)} ${Math.round(Math.log(write) / CELL)}`;
  const groupOf = (cause: CauseCode) => alike.find((group) => group.includes(cause))?.[0] ?? cause;
  const draw = (k: number) => {
    const fault = pick(stage.faults, stage.weights, random());
    return numbers(fault, stage.could, seed + k * 104729);
  };
  for (let k = 0; k < LEARNED; k++) {
    const one = draw(k);
    const cell = cells.get(key(one)) ?? new Map<CauseCode, number>();
    cell.set(groupOf(one.cause), (cell.get(groupOf(one.cause)) ?? 0) + 1);
    cells.set(key(one), cell);
  }
  let [bound, hits] = [0, 0];
  const of = 400;
  for (let k = 0; k < of; k++) {
    const one = draw(LEARNED + k);
    const cell = cells.get(key(one));
    const best = cell && [...cell].sort((a, b) => b[1] - a[1])[0]?.[0];
    if (best === groupOf(one.cause)) bound += 1;
    const { causes } = diagnose(stage.at, { results: { readMBps: one.read, writeMBps: one.write } });
    if (same(alike, causes[0]?.cause, one.cause)) hits += 1;
  }
  return { bound, hits, of };
}

/** Answers a test as somebody would whose fault is known: by the table of the question, for nobody has another. */
function answered(test: string, truth: CauseCode, random: () => number): string {
  const question = [...QUESTIONS, ...MEASURED_QUESTIONS].find(({ code }) => code === test);
  if (!question) return CANNOT_TELL;
  const row = question.given[truth] ?? question.usual;
  return pick(question.outcomes, row, random()).outcome;
}

/** The fewest minutes in which one who knows the cause could show it: the cheapest single test that makes it certain enough. */
function minutesOfOneWhoKnows(at: Situation, observed: Observed, truth: CauseCode): number {
  const sure = (tried: Observed['tried']) => {
    const { causes } = diagnose(at, { ...observed, tried });
    return same(ALIKE, causes[0]?.cause, truth) && (causes[0]?.confidence ?? 0) >= 0.8;
  };
  if (sure([])) return 0;
  const open = [...QUESTIONS.filter((q) => q.for.includes('slow')), ...MEASURED_QUESTIONS].filter(
    (q) => q.applies?.(at) ?? true
  );
  let best = Infinity;
  for (const question of open) {
    const row = question.given[truth] ?? question.usual;
    const outcome = question.outcomes[row.indexOf(Math.max(...row))]?.outcome;
    if (question.minutes >= best || outcome === undefined) continue;
    if (sure([{ test: question.code, outcome }])) best = question.minutes;
  }
  return best;
}

/** How many times as many minutes, with the interval of a ratio of two sums (delta method). */
function timesAsMany(pairs: readonly { minutes: number; known: number }[]): string {
  const sum = (of: (pair: { minutes: number; known: number }) => number) =>
    pairs.reduce((all, one) => all + of(one), 0);
  const known = Math.max(
    1,
    sum((pair) => pair.known)
  );
  const times = sum((pair) => pair.minutes) / known;
  const error = Math.sqrt(sum((pair) => (pair.minutes - times * pair.known) ** 2)) / known;
  const [low, high] = [times - 1.96 * error, times + 1.96 * error].map((end) => end.toFixed(2));
  return `${times.toFixed(2)} times (${low} to ${high}), over ${pairs.length}`;
}

function withTests(seed: number, of: number): string[] {
  const random = seeded(seed);
  const all = stages(false);
  const told = { hits: 0, sound: 0, compared: [] as { minutes: number; known: number }[] };
  for (let k = 0; k < of; k++) {
    const stage = all[k % all.length] as Stage;
    const fault = pick(stage.faults.slice(1), stage.weights.slice(1), random());
    const one = numbers(fault, stage.could, seed + k * 15485863);
    if (one.cause === 'healthy') {
      told.sound += 1;
      continue;
    }
    const observed: Observed = {
      results: { readMBps: one.read, writeMBps: one.write, ...(one.copyOut ? { copyOutMBps: one.copyOut } : {}) }
    };
    const tried: { test: string; outcome: string }[] = [];
    let diagnosis = diagnose(stage.at, observed);
    let minutes = 0;
    while (diagnosis.next && tried.length < 3) {
      minutes += diagnosis.next.minutes;
      tried.push({ test: diagnosis.next.test, outcome: answered(diagnosis.next.test, fault, random) });
      diagnosis = diagnose(stage.at, { ...observed, tried });
    }
    const hit = same(ALIKE, diagnosis.causes[0]?.cause, fault);
    if (hit) told.hits += 1;
    const known = minutesOfOneWhoKnows(stage.at, observed, fault);
    if (hit && known > 0 && known < Infinity) told.compared.push({ minutes, known });
  }
  return [
    line('right after at most three tests, from two numbers', withInterval(told.hits, of)),
    line('minutes against one who knows', timesAsMany(told.compared))
  ];
}

/** Puts a case before the diagnosis. */
export function diagnoseCase(one: Case): Diagnosis {
  const at = situationOf(BUILDS[one.build]);
  const direction = one.direction ?? 'write';
  return diagnose(at, {
    results: one.results,
    ...(one.series
      ? {
          analysis: analyse({
            series: one.series,
            direction,
            ...(at.report.thermal?.startC ? { startC: at.report.thermal.startC } : {})
          }),
          direction,
          ...(one.series.caseC ? { case: { t: one.series.t, caseC: one.series.caseC } } : {})
        }
      : {}),
    conditions: one.conditions,
    negotiatedGbps: one.negotiatedGbps,
    log: one.log,
    symptoms: one.symptoms as Observed['symptoms'],
    tried: one.tried
  });
}

function cases(verbose: boolean): string[] {
  let [first, among] = [0, 0];
  for (const one of CASES) {
    const { causes } = diagnoseCase(one);
    const right = [one.is].flat();
    const found = causes.map(({ cause }) => cause);
    if (found[0] && right.includes(found[0])) first += 1;
    else if (verbose)
      console.log(
        `  ${one.name} (${one.build}): ${right.join('/')} but ${causes.map(({ cause, confidence }) => `${cause} ${confidence}`).join(', ')}`
      );
    if (found.slice(0, 3).some((cause) => right.includes(cause))) among += 1;
  }
  return [
    line('hand-written cases: first', `${first} of ${CASES.length}`),
    line('hand-written cases: among three', `${among} of ${CASES.length}`)
  ];
}

/** Bins of stated confidence with the share that was right in them. */
function reliability(hits: readonly Hit[]): string[] {
  const edges = [0, 0.5, 0.7, 0.85, 0.95, 1.01];
  return edges.slice(1).flatMap((to, i) => {
    const from = edges[i] as number;
    const bin = hits.filter(({ confidence }) => confidence >= from && confidence < to);
    if (bin.length === 0) return [];
    const stated = bin.reduce((sum, { confidence }) => sum + confidence, 0) / bin.length;
    const right = bin.filter(({ hit }) => hit).length;
    return [
      line(
        `stated ${(stated * 100).toFixed(0)} %${bin.length < 200 ? ' (fewer than 200)' : ''}`,
        withInterval(right, bin.length)
      )
    ];
  });
}

function confusion(hits: readonly Hit[]): string[] {
  return PLAYED_FAULTS.flatMap((fault) => {
    const of = hits.filter(({ truth }) => truth === fault);
    if (of.length === 0) return [];
    const wrong = new Map<CauseCode, number>();
    for (const { first, hit } of of) if (!hit) wrong.set(first, (wrong.get(first) ?? 0) + 1);
    const taken = [...wrong].sort((a, b) => b[1] - a[1]).slice(0, 3);
    return [
      line(
        fault,
        `${of.filter(({ hit }) => hit).length} of ${of.length}${taken.length > 0 ? `; taken for ${taken.map(([cause, n]) => `${cause} ${n}`).join(', ')}` : ''}`
      )
    ];
  });
}

/**
 * Measures the diagnosis: on made-up faults, by whole series and by two numbers, and on the hand-written cases.
 * @returns lines of tables
 */
export function judgeDiagnosis(seed: number, verbose = false): string[] {
  const hits = seriesHits(seed, 4000, false);
  const uniform = seriesHits(seed + 1, 2000, true);
  const share = (list: readonly Hit[], of: (hit: Hit) => boolean) => withInterval(list.filter(of).length, list.length);
  const bounds = stages(false).map((stage, i) => boundOf(stage, seed + 11 * i, ALIKE_BY_NUMBERS));
  const [bound, numbers, of] = [
    bounds.reduce((s, b) => s + b.bound, 0),
    bounds.reduce((s, b) => s + b.hits, 0),
    bounds.reduce((s, b) => s + b.of, 0)
  ];
  const sound = hits.filter(({ truth }) => truth === 'healthy');
  return [
    '| Diagnosis | |',
    '| --- | --- |',
    line(
      'whole series, right cause first',
      share(hits, ({ hit }) => hit)
    ),
    line(
      'whole series, among three',
      share(hits, ({ among }) => among)
    ),
    line(
      'the same, all faults equally often',
      share(uniform, ({ hit }) => hit)
    ),
    line(
      'the same, among three',
      share(uniform, ({ among }) => among)
    ),
    line(
      'healthy called healthy',
      share(sound, ({ hit }) => hit)
    ),
    line('two numbers, right cause first', withInterval(numbers, of)),
    line('two numbers, what nobody can do better than', withInterval(bound, of)),
    ...withTests(seed + 2, 3000),
    ...cases(verbose),
    '',
    '| Stated confidence | right |',
    '| --- | --- |',
    ...reliability(hits),
    '',
    '| Fault (whole series, equally often) | right |',
    '| --- | --- |',
    ...confusion(uniform)
  ];
}
