import { linkCeiling, slotCeiling } from '../chain/stages.ts';
import { isTunnelled } from '../chain/modes.ts';
import { fillDrive } from '../parts/fill/drive.ts';
import { fillEnclosure } from '../parts/fill/enclosure.ts';
import { plan } from '../plan/plan.ts';
import { portOf } from '../plan/resolve-build.ts';
import type { Band } from '../quantities/band.ts';
import type { PlanInput, PlanReport } from '../plan/report.ts';
import { rate } from '../quantities/format.ts';
import { SUSPECT_QD1_READ } from '../throughput/random.ts';
import type { PairResults } from './run.ts';
import { RESULT_FIELDS, type ResultField } from './run-fields.ts';

/**
 * The plausibility gates: what is entered or imported passes them before it is kept. Impossible figures are refused; suspicious
 * ones are kept only after the person has looked at them. Each alarm says what is wrong and what was probably meant.
 */
export type Alarm = {
  id: string;
  field: ResultField;
  level: 'impossible' | 'suspicious';
  message: string;
  meant?: { value: number; text: string };
};

/** More than this share above the best sequential figure of the weakest stage is suspicious. */
const ABOVE_BEST = 1.1;

/** What a port that was measured may still give, over what is stated of it. */
const PORT_TOLERANCE = 1.05;

/**
 * Finds what nothing can pass this chain faster than, MB/s: the payload ceiling of the mode and of the slot, and what the port is stated to
 * hold back: its tunnel share, and of a write its ceiling.
 */
export function hardCeiling(input: PlanInput, report: PlanReport, of: 'read' | 'write' = 'read'): number | null {
  const { mode } = report.link;
  if (mode === null) return null;
  const enclosure = fillEnclosure(input.enclosure);
  const drive = fillDrive(input.drive);
  const port = portOf(input.host, input.portId);
  const held = [isTunnelled(mode) ? port?.tunnelMBps : undefined, of === 'write' ? port?.writeCapMBps : undefined];
  return Math.min(
    linkCeiling(mode, enclosure.generationKnown ? enclosure.pcie.generation : undefined),
    slotCeiling(drive, enclosure),
    ...held.map((value) => (value ?? Infinity) * PORT_TOLERANCE)
  );
}

const GUESSES: readonly { divide: number; because: string }[] = [
  { divide: 8, because: 'bits typed for bytes' },
  { divide: 1000, because: 'a thousand too much: kB/s for MB/s, or MB/s for GB/s' },
  { divide: 8000, because: 'kilobits typed for megabytes' },
  { divide: 10, because: 'a digit too many' },
  { divide: 100, because: 'two digits too many' }
];

/** The slip that brings the figure nearest to what was expected; undefined where none brings it within a factor of two. */
function probablyMeant(
  value: number,
  expected: number | undefined,
  ceiling: number
): (Alarm['meant'] & { because: string }) | undefined {
  let best: { value: number; because: string; distance: number } | undefined;
  for (const { divide, because } of GUESSES) {
    const candidate = Number((value / divide).toPrecision(6));
    if (candidate > ceiling) continue;
    const distance = Math.abs(Math.log(candidate / (expected ?? ceiling / 1.2)));
    if (distance < Math.log(2) && (!best || distance < best.distance)) best = { value: candidate, because, distance };
  }
  return best && { value: best.value, text: `${rate(best.value)} MB/s`, because: best.because };
}

/** The write that a result is held against: on Windows with its cache on, for somebody may have switched it since the plan. */
function writeBand(input: PlanInput, report: PlanReport): Band | null {
  return input.host.os.family === 'windows' && input.writeCache !== 'performance'
    ? plan({ ...input, writeCache: 'performance' }, { workings: false }).throughput.write
    : report.throughput.write;
}

// eslint-disable-next-line complexity -- three alarms, the gravest first
function sequentialAlarm(
  field: 'readMBps' | 'writeMBps' | 'sustainedWriteMBps',
  value: number,
  input: PlanInput,
  report: PlanReport
): Alarm | undefined {
  const { read, sustainedWrite } = report.throughput;
  const band = field === 'readMBps' ? read : field === 'writeMBps' ? writeBand(input, report) : sustainedWrite;
  const what = field === 'readMBps' ? 'read' : 'write';
  const ceiling = hardCeiling(input, report, what);
  if (ceiling !== null && value > ceiling) {
    const meant = probablyMeant(value, band?.typical, ceiling);
    return {
      id: `${field}-above-ceiling`,
      field,
      level: 'impossible',
      message: `${rate(value)} MB/s cannot pass this chain: its ceiling is ${rate(ceiling)} MB/s. ${
        meant ? `Was ${meant.text} meant (${meant.because})?` : 'A typing slip, or a result from the memory cache?'
      }`,
      ...(meant ? { meant: { value: meant.value, text: meant.text } } : {})
    };
  }
  // After the cache a drive may well be faster than its class: that is asked only above what the whole chain does.
  const best = field === 'sustainedWriteMBps' ? report.throughput.write : band;
  if (best && value > best.high * ABOVE_BEST) {
    return {
      id: `${field}-above-band`,
      field,
      level: 'suspicious',
      message: `A ${what} of ${rate(value)} MB/s is more than a tenth above the best that the weakest stage does (${rate(best.high)} MB/s). A test smaller than twice the computer's memory measures that memory.`
    };
  }
  // 0.95 typed for 950: gigabytes for megabytes, or a stray decimal sign.
  if (band && value * 1000 >= band.low * 0.5 && value * 1000 <= band.high * 1.1) {
    return {
      id: `${field}-thousandth`,
      field,
      level: 'suspicious',
      message: `A ${what} of ${rate(value)} MB/s is a thousandth of what was expected. Was it GB/s?`,
      meant: { value: Number((value * 1000).toPrecision(6)), text: `${rate(value * 1000)} MB/s` }
    };
  }
  return undefined;
}

function randomAlarm(
  field: 'random4kReadMBps' | 'random4kWriteMBps',
  value: number,
  report: PlanReport
): Alarm | undefined {
  const band = report.throughput[field === 'random4kReadMBps' ? 'random4kRead' : 'random4kWrite'];
  if (field === 'random4kReadMBps' && value > SUSPECT_QD1_READ) {
    return {
      id: `${field}-deep-queue`,
      field,
      level: 'suspicious',
      message: `A random read of ${rate(value)} MB/s at queue depth 1 is not believable (above ${SUSPECT_QD1_READ}). Was it measured with a deep queue, or from memory?`
    };
  }
  if (band && value > band.high * 1.5) {
    return {
      id: `${field}-above-band`,
      field,
      level: 'suspicious',
      message: `${rate(value)} MB/s is far above the ${rate(band.high)} MB/s that one request at a time can give here. Was the queue depth 1?`
    };
  }
  return undefined;
}

/**
 * Lists every alarm that a speed-check result raises against the plan of its build; an empty list lets it pass.
 * @example checkPairResults({}, anInput(), plan(anInput())) // []
 */
export function checkPairResults(results: PairResults, input: PlanInput, report: PlanReport): Alarm[] {
  const alarms: Alarm[] = [];
  const first = RESULT_FIELDS.find((field) => results[field] !== undefined);
  if (report.throughput.read === null && first) {
    alarms.push({
      id: 'plan-says-it-fails',
      field: first,
      level: 'suspicious',
      message:
        'The plan says that this build does not work, so there is nothing to measure. Are these the parts that were measured?'
    });
  }
  for (const field of ['readMBps', 'writeMBps', 'sustainedWriteMBps'] as const) {
    const value = results[field];
    const alarm = value === undefined ? undefined : sequentialAlarm(field, value, input, report);
    if (alarm) alarms.push(alarm);
  }
  for (const field of ['random4kReadMBps', 'random4kWriteMBps'] as const) {
    const value = results[field];
    const alarm = value === undefined ? undefined : randomAlarm(field, value, report);
    if (alarm) alarms.push(alarm);
  }
  return alarms;
}

/**
 * Gives the alarms that stand in the way: every impossible one, and the suspicious ones that were not accepted.
 * @example blocking([], []) // []
 */
export function blocking<A extends Pick<Alarm, 'id' | 'level'>>(
  alarms: readonly A[],
  accepted: readonly string[]
): A[] {
  return alarms.filter((alarm) => alarm.level === 'impossible' || !accepted.includes(alarm.id));
}
