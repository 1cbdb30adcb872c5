import type { GB, MBps, Seconds } from '../quantities/measures.ts';
import type { ProtocolId } from '../results/protocol-ids.ts';
import type { PairResults, Repeat } from '../results/run.ts';
import { median } from '../results/repeats.ts';
import type { Series } from '../series/series.ts';
import type { ProtocolPhase } from './phase.ts';

/** A phase that was timed: by the rig, or by hand. */
export type TimedPhase = Pick<ProtocolPhase, 'work' | 'round'> & { GB: GB; seconds: Seconds };

const WHAT: Partial<Record<ProtocolPhase['work'], Repeat['what']>> = {
  write: 'write',
  read: 'read',
  rewrite: 'rewrite',
  'copy-in': 'copy-in',
  'copy-out': 'copy-out',
  'internal-write': 'write',
  'internal-read': 'read',
  task: 'task'
};
/** Both ends of a soak that are averaged: its first half minute, and its last quarter where it was long enough to settle. */
const FIRST_S = 30;
const SETTLED_AFTER_S = 300;
/** A program that takes no more than this longer than on the internal disk is itself the limit. */
const PROGRAM_LIMIT = 1.05;

const round = (value: number): number => Number(value.toPrecision(4));

function meanOver({ t, MBps }: Series, fromS: Seconds, toS: Seconds): MBps | undefined {
  let [moved, seconds] = [0, 0];
  for (let i = 0; i < t.length; i++) {
    const from = t[i - 1] ?? 0;
    const to = t[i] as number;
    if (to <= fromS || from >= toS) continue;
    moved += (MBps[i] ?? 0) * (to - from);
    seconds += to - from;
  }
  return seconds > 0 ? moved / seconds : undefined;
}

/**
 * Sums a run up in the figures that are kept of it: medians over repeats; of a loop those of the settled half of its rounds; of a soak the
 * first half minute and the last quarter; copies by their way.
 * @param taskS of one's own program: how long it takes on the internal disk, s
 * @example summarise('copy', [{ work: 'copy-in', GB: 10, seconds: 10 }], undefined).copyInMBps // 1000
 */
export function summarise(
  protocol: ProtocolId,
  timed: readonly TimedPhase[],
  series: Series | undefined,
  taskS?: Seconds
): PairResults {
  const repeats: Repeat[] = timed.flatMap(({ work, GB, seconds }) => {
    const what = WHAT[work];
    return what && seconds > 0 && GB > 0
      ? [{ what, GB: round(GB), seconds: round(seconds), MBps: round((GB * 1000) / seconds) }]
      : [];
  });
  const rates = (...whats: Repeat['what'][]) =>
    repeats.filter(({ what }) => whats.includes(what)).map(({ MBps }) => MBps as number);
  const settledOnly = (list: number[]) => (protocol === 'loop' ? list.slice(Math.floor(list.length / 2)) : list);
  const middle = (...whats: Repeat['what'][]): number | undefined => {
    const list = settledOnly(rates(...whats));
    return list.length > 0 ? round(median(list)) : undefined;
  };
  const random = (work: 'random-read' | 'random-write') => {
    const found = timed.find((phase) => phase.work === work);
    return found && found.seconds > 0 ? round((found.GB * 1000) / found.seconds) : undefined;
  };
  const figures: PairResults = { repeats };
  const put = (field: Exclude<keyof PairResults, 'repeats' | 'limitedBy'>, value: number | undefined) => {
    if (value !== undefined && value > 0.001) figures[field] = value;
  };
  if (protocol === 'copy' || protocol === 'cross-copy') {
    put('copyInMBps', middle('copy-in'));
    put('copyOutMBps', middle('copy-out'));
    return figures;
  }
  if (protocol === 'own-program') {
    const seconds = repeats.map((repeat) => repeat.seconds as number);
    if (taskS !== undefined && seconds.length > 0)
      figures.limitedBy = median(seconds) <= taskS * PROGRAM_LIMIT ? 'program' : 'drive';
    return figures;
  }
  if (protocol === 'soak' || protocol === 'retest') soakFigures(protocol, timed, series, put);
  else put(protocol === 'acceptance' ? 'sustainedWriteMBps' : 'writeMBps', middle('write'));
  // The last write of a retest is its long one.
  const checks = rates('write').slice(0, -1);
  if (protocol === 'retest' && checks.length > 0) put('writeMBps', round(median(checks)));
  put('readMBps', middle('read'));
  put('random4kReadMBps', random('random-read'));
  put('random4kWriteMBps', random('random-write'));
  return figures;
}

type Put = (field: 'writeMBps' | 'sustainedWriteMBps', value: number | undefined) => void;

/** The long write is the last phase of both: of a soak the only one. */
function soakFigures(protocol: ProtocolId, timed: readonly TimedPhase[], series: Series | undefined, put: Put): void {
  const last = timed.at(-1);
  const end = series?.t.at(-1);
  if (!series || end === undefined || last?.work !== 'write') return;
  const from = Math.max(0, end - last.seconds);
  const first = meanOver(series, from, from + FIRST_S);
  if (protocol === 'soak') put('writeMBps', first && round(first));
  if (last.seconds < SETTLED_AFTER_S) return;
  const settledRate = meanOver(series, end - last.seconds / 4, end);
  put('sustainedWriteMBps', settledRate && round(settledRate));
}
