import type { PlanInput, PlanReport } from '../plan/report.ts';
import { rate } from '../quantities/format.ts';
import { checkCopy, claimOf, type CopyAlarm } from '../results/copy-gates.ts';
import { wayOfCopy, type Conditions, type CopyEnd } from '../results/conditions.ts';
import { checkPairResults, hardCeiling, type Alarm } from '../results/gates.ts';
import type { ProtocolId } from '../results/protocol-ids.ts';
import type { PairResults, Repeat } from '../results/run.ts';
import type { Series } from '../series/series.ts';

/** An alarm of any protocol, with the place of what raised it in what was sent. */
export type RunAlarm = (Omit<Alarm, 'field'> & { field: string; path: string }) | (CopyAlarm & { path: string });

type Given = {
  protocol: ProtocolId;
  results?: PairResults | undefined;
  series?: Series | undefined;
  conditions: Conditions;
};
type Build = { input: PlanInput; report: PlanReport };

/** A sample may be above what the payload allows by so much: a second that ended late took more than a second's bytes. */
const SAMPLE_TOLERANCE = 1.1;
/** Where more than this share of the samples is above the ceiling it is no matter of single seconds. */
const ABOVE_SHARE = 0.01;

function seriesAlarms({ series, protocol }: Given, build: Build): RunAlarm[] {
  if (!series || protocol === 'baseline') return [];
  const ceilings = (['read', 'write'] as const).map((of) => hardCeiling(build.input, build.report, of));
  const ceiling = Math.max(...ceilings.map((value) => value ?? 0));
  if (ceiling <= 0) return [];
  const above = series.MBps.filter((value) => value > ceiling * SAMPLE_TOLERANCE);
  if (above.length === 0) return [];
  const highest = Math.max(...series.MBps.slice(0, 100_000), ...above.slice(0, 100));
  const most = above.length / series.MBps.length > ABOVE_SHARE;
  return [
    {
      id: most ? 'series-above-ceiling' : 'series-peaks-above-ceiling',
      field: 'MBps',
      path: 'series.MBps',
      level: most ? 'impossible' : 'suspicious',
      message: most
        ? `${above.length} of ${series.MBps.length} samples are above the ${rate(ceiling)} MB/s that this chain can pass, up to ${rate(highest)}. Are they MiB/s, Mb/s, or from memory?`
        : `${above.length} of ${series.MBps.length} samples are above the ${rate(ceiling)} MB/s that this chain can pass. Single seconds that took the bytes of the next?`
    }
  ];
}

/** What a repeat that a tool timed can raise. */
const TOOL_ALARMS: ReadonlySet<string> = new Set(['copy-above-ceiling', 'copy-contradicts']);

/** From where to where a repeat went: as the conditions say, where they are of this way; else the other end of the drive. */
function endsOf({ source, target }: Conditions, into: boolean): { source: CopyEnd; target: CopyEnd } {
  if (source !== undefined && target !== undefined && (wayOfCopy(source, target).measured === 'write') === into)
    return { source, target };
  // The way back: what was the target is the source now.
  const other = (source === 'drive' ? target : source) ?? 'memory';
  const end = other === 'drive' ? 'memory' : other;
  return into ? { source: end, target: 'drive' } : { source: 'drive', target: end };
}

const INTO: ReadonlySet<string> = new Set(['copy-in', 'write', 'rewrite']);
const COPIES: ReadonlySet<string> = new Set(['copy-in', 'copy-out']);

function alarmsOfRepeat(
  { what, GB, seconds, MBps, byHand }: Repeat,
  conditions: Conditions,
  build: Build | null
): CopyAlarm[] {
  if (GB === undefined || seconds === undefined || what === 'task') return [];
  const claim = claimOf({ GB, seconds, MBps }, { ...conditions, ...endsOf(conditions, INTO.has(what)) });
  // A tool writes past the memory and times itself: only what cannot be counts there.
  const timed = byHand === true || COPIES.has(what);
  return claim ? checkCopy(claim, build).filter(({ id }) => timed || TOOL_ALARMS.has(id)) : [];
}

/** Repeats that were timed by hand are copies: each is judged as one; an alarm is told once. */
function repeatAlarms({ results, conditions }: Given, build: Build | null): RunAlarm[] {
  const alarms: RunAlarm[] = [];
  for (const [i, repeat] of (results?.repeats ?? []).entries())
    for (const alarm of alarmsOfRepeat(repeat, conditions, build))
      if (!alarms.some(({ id }) => id === alarm.id))
        alarms.push({ ...alarm, path: `results.repeats.${i}.${alarm.field}` });
  return alarms;
}

/** Rates of whole copies against the same ceilings as any other. */
function copyRateAlarms({ results }: Given, build: Build): RunAlarm[] {
  return (['copyInMBps', 'copyOutMBps'] as const).flatMap((field): RunAlarm[] => {
    const value = results?.[field];
    const ceiling = hardCeiling(build.input, build.report, field === 'copyInMBps' ? 'write' : 'read');
    if (value === undefined || ceiling === null || value <= ceiling) return [];
    return [
      {
        id: `${field}-above-ceiling`,
        field,
        path: `results.${field}`,
        level: 'impossible',
        message: `A copy at ${rate(value)} MB/s cannot pass this chain: its ceiling is ${rate(ceiling)} MB/s.`
      }
    ];
  });
}

/**
 * Lists every alarm that a run raises, whatever its protocol: its figures, its timed repeats, its series.
 * @param build the plan of the build it was made on; null for an internal disk or something ready-made, whose ceilings nobody knows
 * @example checkRun({ protocol: 'soak', results: { writeMBps: 3000 }, conditions: {} }, null) // []
 */
export function checkRun(run: Given, build: Build | null): RunAlarm[] {
  const alarms = repeatAlarms(run, build);
  if (!build || run.protocol === 'baseline') return alarms;
  const pairs = run.results ? checkPairResults(run.results, build.input, build.report) : [];
  return [
    ...pairs.map((alarm) => ({ ...alarm, path: `results.${alarm.field}` })),
    ...copyRateAlarms(run, build),
    ...alarms,
    ...seriesAlarms(run, build)
  ];
}
