import type { Conditions } from '../results/conditions.ts';
import type { ProtocolId } from '../results/protocol-ids.ts';
import { sliceSeries, type Series } from '../series/series.ts';
import { analyse } from './analyse.ts';
import type { Analysis, AnalyseInput } from './report.ts';

/** A step of a protocol in time, with what was done in it where that is known. */
export type RunPhase = { label: string; fromS: number; toS: number; work?: string | undefined };

/** A stretch of a run in which data went one way, as it was read. Times of its analysis count from its own beginning. */
export type RunStretch = {
  label: string;
  direction: 'read' | 'write';
  fromS: number;
  toS: number;
  analysis: Analysis;
};

/** What a run is, as far as its series is read by it. */
export type SampledRun = {
  protocol: ProtocolId;
  conditions: Partial<Conditions>;
  series: Series;
  phases?: readonly RunPhase[] | undefined;
  /** Where the drive begins to throttle, °C. */
  startC?: number | undefined;
  predicted?: Partial<Record<'read' | 'write', AnalyseInput['predicted']>>;
};

/** Shorter steps are judged by their means. */
const LEAST_SAMPLES = 40;
/** More stretches than this nobody looks at: the longest. */
const MOST_STRETCHES = 8;

const DIRECTION: Record<string, 'read' | 'write'> = {
  write: 'write',
  rewrite: 'write',
  'copy-in': 'write',
  task: 'write',
  'internal-write': 'write',
  read: 'read',
  'copy-out': 'read',
  'internal-read': 'read'
};

/** Which way data went where nobody says in which step. */
const usualDirection = ({ protocol, conditions }: SampledRun): 'read' | 'write' =>
  protocol === 'sweep' || conditions.source === 'drive' ? 'read' : 'write';

/**
 * Reads a run: each of its longer steps by itself, or all of it where no steps are known.
 * @param run series in s and MB/s
 * @returns in order of time; none where everything is too short
 * @example readRun({ protocol: 'soak', conditions: {}, series: { t: [1], MBps: [100] } })[0].direction // 'write'
 */
export function readRun(run: SampledRun): RunStretch[] {
  const { series, phases } = run;
  const end = series.t.at(-1) ?? 0;
  const known = phases?.filter(({ work }) => work !== undefined) ?? [];
  if (known.length === 0) {
    const direction = usualDirection(run);
    return [{ label: '', direction, fromS: 0, toS: end, analysis: analysed(run, series, direction) }];
  }
  const cut = known.flatMap((phase) => {
    const direction = DIRECTION[phase.work ?? ''];
    const [from, to] = [firstAfter(series.t, phase.fromS), firstAfter(series.t, phase.toS)];
    return direction && to - from >= LEAST_SAMPLES ? [{ ...phase, direction, from, to }] : [];
  });
  return cut
    .sort((a, b) => b.to - b.from - (a.to - a.from))
    .slice(0, MOST_STRETCHES)
    .sort((a, b) => a.fromS - b.fromS)
    .map(({ label, direction, fromS, toS, from, to }) => {
      const part = sliceSeries(series, from, to);
      const shifted = { ...part, t: part.t.map((t) => t - fromS) };
      return { label, direction, fromS, toS, analysis: analysed(run, shifted, direction) };
    });
}

const analysed = ({ startC, predicted }: SampledRun, series: Series, direction: 'read' | 'write'): Analysis =>
  analyse({
    series,
    direction,
    ...(startC === undefined ? {} : { startC }),
    ...(predicted?.[direction] ? { predicted: predicted[direction] } : {})
  });

/** The first sample that lies after a moment: one at the turn of two steps belongs to the one before. */
function firstAfter(t: readonly number[], s: number): number {
  let [low, high] = [0, t.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((t[middle] as number) > s + 1e-9) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Tells whether something happened in a stretch beside an even rate. */
export const isEventful = ({ analysis }: RunStretch): boolean =>
  analysis.steps.length > 0 ||
  analysis.throttle !== null ||
  analysis.dropouts.length > 0 ||
  (analysis.irregular?.count ?? 0) >= 3 ||
  analysis.dips !== null ||
  (analysis.zone?.weak.length ?? 0) > 0;

/** Something to be named in the chart of a run. */
export type RunEvent = {
  atS: number;
  label: string;
  kind: 'fall' | 'throttle' | 'recovery' | 'stop' | 'weak' | 'dips';
};

/** What comes more often than this is named once. */
const OFTEN = 3;

/**
 * Lists what happened in a run, in order of time, as a chart names it.
 * @example eventsOf([]) // []
 */
export function eventsOf(stretches: readonly RunStretch[]): RunEvent[] {
  const all = stretches
    .flatMap(({ fromS, analysis }) => {
      const { steps, throttle, recovery, dropouts, irregular, dips } = analysis;
      const events: RunEvent[] = steps.map(({ atS, kind }) => ({
        atS: fromS + atS,
        label: kind === 'cache' ? 'cache full' : kind === 'throttle' ? 'throttles' : 'falls',
        kind: kind === 'throttle' ? 'throttle' : 'fall'
      }));
      if (throttle?.form === 'saw-tooth')
        events.push({ atS: fromS + throttle.atS, label: 'throttles', kind: 'throttle' });
      for (const { toS } of recovery) events.push({ atS: fromS + toS, label: 'recovers', kind: 'recovery' });
      for (const { atS, forS } of dropouts)
        events.push({ atS: fromS + atS, label: forS > 60 ? 'pause' : 'stops', kind: 'stop' });
      if (dips || (irregular && irregular.count >= 3)) {
        const first = analysis.plateau.find(({ MBps }) => MBps < analysis.median * 0.85);
        events.push({ atS: fromS + (first?.fromS ?? 0), label: 'dips', kind: 'dips' });
      }
      return events;
    })
    .sort((a, b) => a.atS - b.atS);
  // What came often is named once, with how often.
  const counts = new Map<string, number>();
  for (const { label } of all) counts.set(label, (counts.get(label) ?? 0) + 1);
  return all.flatMap((event, i) => {
    const times = counts.get(event.label) ?? 1;
    if (times <= OFTEN) return [event];
    return all.findIndex(({ label }) => label === event.label) === i
      ? [{ ...event, label: `${event.label}, ${times} times` }]
      : [];
  });
}
