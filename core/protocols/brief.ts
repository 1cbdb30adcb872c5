import { FILE_COST_S } from '../facts/flash.ts';
import { type Band } from '../quantities/band.ts';
import { figure, quantity } from '../quantities/format.ts';
import type { GB, Seconds } from '../quantities/measures.ts';
import type { ProtocolId } from '../results/protocol-ids.ts';
import type { Settings } from '../results/settings.ts';
import type { ProtocolPhase } from './phase.ts';
import { phasesOf, settled } from './phases.ts';
import { internalRates, type TestedSubject } from './tested.ts';

/** Something that would spoil a run, and what helps. */
export type Spoiler = { code: SpoilerCode; text: string; serious: boolean };
export type SpoilerCode =
  | 'memory'
  | 'internal-disk'
  | 'internal-cache'
  | 'too-short-for-heat'
  | 'too-small-for-cache'
  | 'indexing'
  | 'battery'
  | 'other-devices'
  | 'does-not-fit'
  | 'other-end-full'
  | 'writes-over'
  | 'wear';

/** What a protocol costs and needs, before it starts. */
export type Brief = {
  settings: Settings;
  phases: ProtocolPhase[];
  /** Null where nothing is forecast of the subject and a phase is counted in bytes. */
  seconds: Band<Seconds> | null;
  /** Onto the drive; a band where the time is set and the rate is not known exactly. */
  writesGB: Band<GB> | null;
  readsGB: GB | null;
  /** Of the rated endurance, percent; null where the drive states none. */
  wearPercent: number | null;
  /** Room that has to be free, GB: on what is measured, and on the other end of a copy. */
  needsGB: { drive: GB; other: GB };
  spoilers: Spoiler[];
};

const flat = (value: number): Band => ({ low: value, typical: value, high: value });
const add = (a: Band, b: Band): Band => ({ low: a.low + b.low, typical: a.typical + b.typical, high: a.high + b.high });
const secondsFor = (GB: GB, rate: Band): Band => ({
  low: (GB * 1000) / rate.high,
  typical: (GB * 1000) / rate.typical,
  high: (GB * 1000) / rate.low
});

/** Follows the writes of a protocol through the fast cache: what went in so far decides how fast the next GB goes. */
class WriteClock {
  #written: GB = 0;
  readonly #subject: TestedSubject;
  constructor(subject: TestedSubject) {
    this.#subject = subject;
  }
  /** At rest the cache empties, in the time that the plan says. */
  rest(seconds: Seconds): void {
    const { recoverS, cliffGB } = this.#subject;
    if (!recoverS || !cliffGB) return;
    this.#written = Math.max(0, this.#written - (cliffGB.typical * seconds) / Math.max(1, recoverS.typical));
  }
  /** Time for so much. */
  time(GB: GB): Band | null {
    const { write, sustained, cliffGB, media } = this.#subject;
    if (!write) return null;
    const slow = media === 'hdd' || cliffGB === null ? write : (sustained ?? write);
    const left = cliffGB === null || media === 'hdd' ? GB : Math.max(0, Math.min(GB, cliffGB.typical - this.#written));
    this.#written += GB;
    return add(secondsFor(left, write), secondsFor(GB - left, slow));
  }
  /** How much goes in, in so many seconds. */
  volume(seconds: Seconds): Band | null {
    const { write, sustained, cliffGB, media } = this.#subject;
    if (!write) return null;
    const slow = media === 'hdd' || cliffGB === null ? write : (sustained ?? write);
    const room = cliffGB === null || media === 'hdd' ? Infinity : Math.max(0, cliffGB.typical - this.#written);
    const at = (end: 'low' | 'typical' | 'high'): number => {
      const fastS = Math.min(seconds, (room * 1000) / write[end]);
      return (fastS * write[end] + (seconds - fastS) * slow[end]) / 1000;
    };
    const made = { low: at('low'), typical: at('typical'), high: at('high') };
    this.#written += made.typical;
    return made;
  }
}

/** The computer's own disk behind a build: nothing is forecast of one that nobody entered. */
function internalOf(subject: TestedSubject): TestedSubject {
  const { host } = subject;
  if (!host || host.name === subject.name || subject.name.startsWith('internal disk')) return subject;
  const disk = host.internal;
  return {
    ...subject,
    ...internalRates(disk),
    capacityGB: disk?.freeGB ?? Infinity,
    freeGB: disk?.freeGB ?? Infinity,
    media: 'nvme',
    recoverS: null,
    enduranceTBW: undefined
  };
}

/** What one phase takes and moves. */
type Cost = { seconds: Band | null; writes: Band | null; reads: GB | null };

const capped = (rate: Band | null, limit: number | undefined): Band | null =>
  rate && limit !== undefined
    ? { low: Math.min(rate.low, limit), typical: Math.min(rate.typical, limit), high: Math.min(rate.high, limit) }
    : rate;

/** How much of a rewritten share a shingled disk loses is not known here: a rewrite takes at least as long as a write. */
// eslint-disable-next-line complexity -- one case for each kind of phase
function costOf(phase: ProtocolPhase, subject: TestedSubject, clock: WriteClock): Cost {
  const { GB = 0, seconds = 0, files = 0 } = phase;
  const internal = subject.host?.internal;
  const fileS: Band = files === 0 ? flat(0) : scale(FILE_COST_S.usb, files);
  const plus = (time: Band | null): Band | null => time && add(time, fileS);
  const nothing = flat(0);
  switch (phase.work) {
    case 'rest':
      clock.rest(seconds);
      return { seconds: flat(seconds), writes: nothing, reads: 0 };
    case 'random-read':
    case 'random-write':
      return { seconds: flat(seconds), writes: nothing, reads: 0 };
    case 'internal-write':
      return { seconds: clock.time(GB), writes: flat(GB), reads: 0 };
    case 'internal-read':
      return { seconds: subject.read && secondsFor(GB, subject.read), writes: nothing, reads: GB };
    case 'task':
      return { seconds: { low: seconds, typical: seconds, high: seconds * 2 }, writes: flat(GB / 2), reads: GB / 2 };
    case 'write':
      if (phase.GB === undefined) return { seconds: flat(seconds), writes: clock.volume(seconds), reads: 0 };
      return { seconds: plus(clock.time(GB)), writes: flat(GB), reads: 0 };
    case 'rewrite':
      return { seconds: plus(clock.time(GB)), writes: flat(GB), reads: 0 };
    case 'copy-in': {
      const rate = capped(subject.write, internal?.readMBps);
      const own = clock.time(GB);
      const other = rate && secondsFor(GB, rate);
      return { seconds: plus(own && other && slower(own, other)), writes: flat(GB), reads: 0 };
    }
    case 'copy-out': {
      const rate = capped(subject.read, internal?.writeMBps);
      return { seconds: plus(rate && secondsFor(GB, rate)), writes: nothing, reads: GB };
    }
    case 'read':
      return { seconds: subject.read && secondsFor(GB, subject.read), writes: nothing, reads: GB };
  }
}
const scale = (of: Band, factor: number): Band => ({
  low: of.low * factor,
  typical: of.typical * factor,
  high: of.high * factor
});
const slower = (a: Band, b: Band): Band => ({
  low: Math.max(a.low, b.low),
  typical: Math.max(a.typical, b.typical),
  high: Math.max(a.high, b.high)
});

/**
 * Says what a protocol will cost on a subject before it starts: time from the forecast rates and the fast cache, bytes, wear, room, and what
 * would spoil it.
 * @param set what a person set; the rest is what is usual
 * @example briefOf('soak', { seconds: 900 }, testedBuild(anInput(), plan(anInput()))).seconds // { low: 900, typical: 900, high: 900 }
 */
export function briefOf(id: ProtocolId, set: Settings, subject: TestedSubject): Brief {
  const of = id === 'baseline' ? internalOf(subject) : subject;
  const settings = settled(id, set, of);
  const phases = phasesOf(id, settings, of);
  const clock = new WriteClock(of);
  let seconds: Band | null = flat(0);
  let writes: Band | null = flat(0);
  let reads: number | null = 0;
  for (const phase of phases) {
    const cost = costOf(phase, of, clock);
    seconds = seconds && cost.seconds && add(seconds, cost.seconds);
    writes = writes && cost.writes && add(writes, cost.writes);
    reads = reads === null || cost.reads === null ? null : reads + cost.reads;
  }
  const onInternal = id === 'baseline';
  const needsGB = roomFor(id, settings, subject);
  const wear = subject.enduranceTBW;
  return {
    settings,
    phases,
    seconds,
    writesGB: writes,
    readsGB: reads,
    wearPercent: wear === undefined || writes === null || onInternal ? null : (writes.typical / (wear * 1000)) * 100,
    needsGB,
    spoilers: spoilersOf(id, settings, subject, { seconds, writes, needsGB })
  };
}

/** Room on both ends, GB: a copy back goes beside what was copied, so it needs the room of the folder once more. */
function roomFor(id: ProtocolId, { GB = 0 }: Settings, subject: TestedSubject): Brief['needsGB'] {
  switch (id) {
    case 'copy':
      return { drive: GB, other: GB * 2 };
    case 'cross-copy':
      return { drive: GB, other: GB * 2 };
    case 'acceptance':
      return { drive: subject.capacityGB, other: 0 };
    case 'sweep':
      return { drive: 0, other: 0 };
    default:
      return { drive: GB, other: 0 };
  }
}

type Costs = { seconds: Band | null; writes: Band | null; needsGB: Brief['needsGB'] };

/** What heat needs to show itself: a case is at 70 % of its rise after a quarter of an hour. */
const LONG_ENOUGH_S = 600;

function spoilersOf(id: ProtocolId, settings: Settings, subject: TestedSubject, costs: Costs): Spoiler[] {
  const found: Spoiler[] = [];
  const say = (code: SpoilerCode, text: string, serious = false) => found.push({ code, text, serious });
  roomSpoilers(id, subject, costs, say);
  sizeSpoilers(id, settings, subject, costs, say);
  const family = subject.host?.family;
  if (family === 'macos' || family === 'windows')
    say(
      'indexing',
      family === 'macos'
        ? 'The index of the system reads every new file: exclude the volume from it, or wait until it is done.'
        : 'A virus scanner and the index read every new file: exclude the drive while you measure.'
    );
  say('battery', 'On battery a computer and its ports save: plug it in, or write down that it ran on battery.');
  if (id !== 'cross-copy' && id !== 'baseline')
    say(
      'other-devices',
      'Another drive on the same hub or controller takes its share: leave only this one plugged in.'
    );
  return found;
}

type Say = (code: SpoilerCode, text: string, serious?: boolean) => void;

// eslint-disable-next-line complexity -- one line for each thing that can stand in the way
function roomSpoilers(id: ProtocolId, subject: TestedSubject, { needsGB, writes }: Costs, say: Say): void {
  const { freeGB, host, enduranceTBW } = subject;
  if (needsGB.drive > freeGB * 1.001 && id !== 'acceptance')
    say(
      'does-not-fit',
      `It needs ${quantity(needsGB.drive, 'GB')}, and about ${quantity(freeGB, 'GB')} are free.`,
      true
    );
  const otherFree = host?.internal?.freeGB;
  if (needsGB.other > 0 && otherFree !== undefined && needsGB.other > otherFree && id === 'copy')
    say(
      'other-end-full',
      `The other end needs ${quantity(needsGB.other, 'GB')}, and ${quantity(otherFree, 'GB')} are free on the internal disk.`,
      true
    );
  if (id === 'acceptance' || (id === 'sweep' && (writes?.typical ?? 0) > 0))
    say(
      'writes-over',
      'It writes over everything on the drive. Only for one that holds nothing, or whose copies were opened and compared.',
      true
    );
  if (enduranceTBW !== undefined && writes && writes.typical / (enduranceTBW * 1000) > 0.005)
    say(
      'wear',
      `It uses ${figure((writes.typical / (enduranceTBW * 1000)) * 100)} % of what the drive is rated to take in all its life.`
    );
}

// eslint-disable-next-line complexity, max-params -- one line for each thing that a size can be too small for
function sizeSpoilers(
  id: ProtocolId,
  { GB }: Settings,
  subject: TestedSubject,
  { seconds, writes }: Costs,
  say: Say
): void {
  const { host, read, write, cliffGB } = subject;
  const memory = host?.memoryGB;
  const buffered = id === 'copy' || id === 'cross-copy' || id === 'baseline' || id === 'loop';
  if (buffered && GB !== undefined) {
    if (memory !== undefined && GB < 2 * memory)
      say(
        'memory',
        `${quantity(GB, 'GB')} are less than twice the ${quantity(memory, 'GB')} of memory: it would measure the memory. Take ${quantity(Math.ceil(2 * memory), 'GB')} or more.`,
        true
      );
    else if (memory === undefined)
      say('memory', 'It must be larger than twice the memory of the computer, else it measures the memory.');
  }
  const internal = host?.internal;
  if (id === 'copy' && internal && write && read) {
    if (internal.readMBps < write.typical || internal.writeMBps < read.typical)
      say(
        'internal-disk',
        `The internal disk of ${host.name} (reads ${figure(internal.readMBps)}, writes ${figure(internal.writeMBps)} MB/s) is slower than this drive: the copy measures that disk. Copy between two externals to leave it out.`
      );
    if (internal.cacheGB !== undefined && GB !== undefined && GB > internal.cacheGB)
      say(
        'internal-cache',
        `Copies back fill the write cache of the internal disk after about ${quantity(internal.cacheGB, 'GB')}: what slows down then is not this drive.`
      );
  }
  if ((id === 'soak' || id === 'loop') && seconds && seconds.typical < LONG_ENOUGH_S)
    say(
      'too-short-for-heat',
      'Under ten minutes the case has gone less than half of its way up: this says nothing about heat.'
    );
  if (id === 'soak' && cliffGB && writes && writes.typical < cliffGB.high)
    say(
      'too-small-for-cache',
      `The fast cache is forecast to be full after ${figure(cliffGB.low)} to ${figure(cliffGB.high)} GB: this may end before it.`
    );
}
