import type { CauseCode } from '#core/diagnosis/causes';
import { PCIE_LANE_MBPS } from '#core/facts/buses';
import { LINK_MODES } from '#core/facts/link-modes';
import { plan } from '#core/plan/plan';
import type { PlanInput } from '#core/plan/report';
import type { Band } from '#core/quantities/band';
import { SIMULATED_FAULTS } from '#core/simulate/faults';
import { seeded } from '#core/quantities/random';
import type { Series } from '#core/series/series';
import { normals } from './series.ts';

/**
 * A fault generator of its own: ranges of what each fault does, drawn here and read from nothing that the diagnosis uses but the forecast
 * of the parts. A build lies somewhere in its band, a fault somewhere in its range, and what is read off scatters by a few percent.
 */
export type Played = {
  cause: CauseCode;
  read: number;
  write: number;
  series: Series & { controllerC?: number[]; caseC?: number[] };
  direction: 'read' | 'write';
};

export const PLAYED_FAULTS = SIMULATED_FAULTS;
export type PlayedFault = (typeof PLAYED_FAULTS)[number];

/** What the chain could do, from the plan of the build at its best. */
export type Could = {
  read: Band;
  write: Band;
  post: Band;
  cliffGB: number | null;
  mode: keyof typeof LINK_MODES;
  disk: boolean;
  startC: number;
};

/** Works out what a build could do. */
export function couldOf(input: PlanInput): Could {
  const { throughput, link, cache, thermal } = plan(
    { ...input, writeCache: 'performance', job: undefined },
    { workings: false }
  );
  if (!throughput.read || !throughput.write || !throughput.sustainedWrite || !link.mode)
    throw new RangeError('nothing runs');
  return {
    read: throughput.read,
    write: throughput.write,
    post: throughput.sustainedWrite,
    cliffGB: cache.cliffAtGB?.typical ?? null,
    mode: link.mode,
    disk: input.drive.media === 'hdd',
    startC: thermal?.startC ?? 200
  };
}

const within = (band: Band, at: number): number =>
  at < 0.5 ? band.low + (band.typical - band.low) * at * 2 : band.typical + (band.high - band.typical) * (at - 0.5) * 2;

type Draw = { random: () => number; normal: () => number; between: (low: number, high: number) => number };

function drawsOf(seed: number): Draw {
  const random = seeded(seed);
  return { random, normal: normals(random), between: (low, high) => low + (high - low) * random() };
}

/** Settled rates under a fault, MB/s: what two numbers show. */
function ratesOf(
  cause: PlayedFault,
  could: Could,
  draw: Draw
): { read: number; write: number; fullRead: number; fullWrite: number } {
  const { between, random, normal } = draw;
  const place = (random() + random() + random()) / 3;
  const fullRead = within(could.read, place) * Math.exp(0.02 * normal());
  const fullWrite = within(could.write, place) * Math.exp(0.02 * normal());
  let [read, write] = [fullRead, fullWrite];
  const cap = (limit: number) => {
    read = Math.min(read, limit);
    write = Math.min(write, limit);
  };
  const post = within(could.post, random());
  switch (cause) {
    case 'usb2-fallback':
      cap(between(31, 44));
      break;
    case '5g-port-or-cable':
      cap(between(395, 468));
      break;
    case '10g-fallback':
      cap(between(890, 1075));
      break;
    case 'bulk-only':
      cap(LINK_MODES[could.mode].read.typical * between(0.7, 0.87));
      break;
    case 'write-cache-off':
      write *= between(0.14, 0.38);
      break;
    case 'slc-cliff': {
      const before = between(0, 0.5);
      write = 1 / (before / write + (1 - before) / Math.min(write, post));
      break;
    }
    case 'thermal-throttle':
      read *= between(0.35, 0.85);
      write *= between(0.25, 0.75);
      break;
    case 'pad-no-contact':
      read *= between(0.25, 0.7);
      write *= between(0.2, 0.6);
      break;
    case 'two-lane-limit':
      cap(2 * PCIE_LANE_MBPS[3] * between(0.83, 0.9));
      break;
    case 'host-write-ceiling':
      write *= between(0.42, 0.63);
      break;
    case 'drive-nearly-full':
      write = Math.min(write, post) * between(0.35, 0.9);
      break;
    case 'smr-rewrite':
      write = between(10, 40);
      break;
    case 'weak-surface':
      read *= between(0.3, 0.9);
      break;
    case 'background-load':
      read *= between(0.5, 0.93);
      write *= between(0.45, 0.92);
      break;
    case 'encryption-cost': {
      const left = between(0.8, 0.95);
      read *= left;
      write *= left * between(0.97, 1);
      break;
    }
    case 'unstable-link':
      read *= between(0.3, 0.9);
      write *= between(0.3, 0.9);
  }
  return { read: read * Math.exp(0.015 * normal()), write: write * Math.exp(0.015 * normal()), fullRead, fullWrite };
}

/** A run that warms towards a temperature, with what holds it back there. */
function warmed(seconds: number, settlesC: number, tau: number, draw: Draw): number[] {
  const start = draw.between(28, 42);
  return Array.from({ length: seconds }, (_, s) => settlesC + (start - settlesC) * Math.exp(-s / tau));
}

/** Faults that only writing shows. */
const OF_WRITING: readonly PlayedFault[] = [
  'write-cache-off',
  'host-write-ceiling',
  'slc-cliff',
  'drive-nearly-full',
  'smr-rewrite'
];

/** Whether the run reads: what only shows so, and half of the passes over a disk. */
function readsOf(cause: PlayedFault, could: Could, { random }: Draw): boolean {
  if (cause === 'weak-surface') return true;
  if (OF_WRITING.includes(cause)) return false;
  return (cause === 'host-disk-cliff' || could.disk) && random() < 0.5;
}

/** The series of a fault: a write of some minutes, on a disk a pass over it. */
function seriesOf(
  cause: PlayedFault,
  could: Could,
  rates: ReturnType<typeof ratesOf>,
  draw: Draw
): Pick<Played, 'series' | 'direction'> {
  const { between, random, normal } = draw;
  const noise = between(0.01, 0.05);
  const jitter = () => Math.exp(noise * normal());
  const direction = readsOf(cause, could, draw) ? 'read' : 'write';
  const full = direction === 'read' ? rates.fullRead : rates.fullWrite;
  const settled = direction === 'read' ? rates.read : rates.write;
  let seconds = Math.round(between(300, 900));
  const rate: number[] = [];
  let C = could.disk
    ? warmed(1200, between(35, 48), 900, draw)
    : warmed(1200, between(42, could.startC - 14), between(80, 250), draw);
  let position: number[] | undefined;
  const begins = [
    'slc-cliff',
    'host-disk-cliff',
    'drive-nearly-full',
    'smr-rewrite',
    'thermal-throttle',
    'pad-no-contact',
    'weak-surface',
    'background-load',
    'unstable-link',
    'healthy'
  ].includes(cause);
  const level = begins ? full : settled;
  for (let s = 0; s < 1200; s++) rate.push(level);
  const fallAt = (at: number, to: number) => {
    for (let s = Math.round(at); s < 1200; s++) rate[s] = to;
    seconds = Math.max(seconds, Math.min(1200, Math.round(at) + 120));
  };
  const perS = (GB: number) => (GB * 1000) / full;
  const post = within(could.post, random());
  if (cause === 'slc-cliff' && could.cliffGB !== null)
    fallAt(Math.min(1000, perS(could.cliffGB * between(0.85, 1.15))), post);
  if (cause === 'drive-nearly-full')
    fallAt(
      Math.min(1000, Math.max(3, perS((could.cliffGB ?? 60) * between(0.03, 0.4)))),
      Math.min(full * 0.85, post * between(0.4, 0.85))
    );
  if (cause === 'host-disk-cliff') fallAt(between(20, 400), full * between(0.15, 0.65));
  if (cause === 'smr-rewrite') fallAt(between(30, 500), between(10, 40));
  let caseC: number[] | undefined;
  if (cause === 'thermal-throttle' || cause === 'pad-no-contact') {
    const pad = cause === 'pad-no-contact';
    const at = Math.round(pad ? between(30, 150) : between(150, 700));
    const left = between(0.3, 0.7);
    const [start, limit] = [between(32, 42), could.startC];
    C = rate.map((_, s) =>
      s < at
        ? start + ((limit - start) * (1 - Math.exp((-2.5 * s) / at))) / (1 - Math.exp(-2.5))
        : limit - between(0, 2)
    );
    const period = pad ? between(14, 50) : between(30, 120);
    const saws = random() < 0.6;
    for (let s = at; s < 1200; s++) {
      const phase = ((s - at) % period) / period;
      if (!saws || phase < 0.5) rate[s] = full * left;
      if (saws) C[s] = limit - 8 * (phase < 0.5 ? phase * 2 : 2 - phase * 2);
    }
    seconds = Math.max(seconds, Math.min(1200, at + 200));
    const rise = pad ? between(1, 9) : between(12, 32);
    const from = between(22, 28);
    caseC = rate.map((_, s) => from + rise * Math.min(1.6, s / at));
  }
  const spells = (chance: number, short: number, long: number, share: () => number) => {
    for (let s = 10; s < 1200; s++) {
      if (random() >= chance) continue;
      const [until, left] = [s + Math.round(between(short, long)), share()];
      for (; s < Math.min(until, 1200); s++) rate[s] = (rate[s] ?? 0) * left;
    }
  };
  if (cause === 'background-load') spells(0.025, 3, 15, () => between(0.35, 0.65));
  if (cause === 'unstable-link') spells(0.012, 1, 6, () => 0);
  if (could.disk && (direction === 'read' || cause === 'weak-surface')) {
    const places = Array.from({ length: 2 + Math.floor(random() * 3) }, () => between(0.05, 0.95));
    position = rate.map((_, s) => s / seconds);
    const [outer, inner] = [full * 1.3, full * 0.68];
    for (let s = 0; s < 1200; s++) {
      const p = position[s] ?? 0;
      rate[s] = ((rate[s] ?? 0) / full) * (outer + (inner - outer) * p);
      if (cause === 'weak-surface' && places.some((at) => p >= at && p < at + 0.012))
        rate[s] = (rate[s] ?? 0) * between(0.1, 0.4);
    }
  } else if (cause === 'weak-surface') spells(0.012, 2, 8, () => between(0.1, 0.4));
  const cut = <T>(list: T[]): T[] => list.slice(0, seconds);
  return {
    direction,
    series: {
      t: cut(rate.map((_, s) => s + 1)),
      MBps: cut(rate.map((value) => value * jitter())),
      controllerC: cut(C.map((value) => Math.round(value + 0.3 * normal()))),
      ...(caseC ? { caseC: cut(caseC.map((value) => Math.round(value * 10) / 10)) } : {}),
      ...(position ? { positionFraction: cut(position.map((p) => Math.min(1, p))) } : {})
    }
  };
}

/** What slows by less than this is sound. */
const SOUND = 0.95;
/** Causes that show as a lower rate and as nothing else. */
const STEADY: readonly PlayedFault[] = [
  'usb2-fallback',
  '5g-port-or-cable',
  '10g-fallback',
  'bulk-only',
  'two-lane-limit'
];

/** Plays two numbers of a fault on a build; one that takes less than 5 % is none. */
export function numbers(
  fault: PlayedFault,
  could: Could,
  seed: number
): Pick<Played, 'cause' | 'read' | 'write'> & { copyOut?: number } {
  const draw = drawsOf(seed);
  const { read, write, fullRead, fullWrite } = ratesOf(fault, could, draw);
  // Only a copy shows the other disk.
  if (fault === 'host-disk-cliff') return { cause: fault, read, write, copyOut: fullRead * draw.between(0.15, 0.65) };
  const sound = STEADY.includes(fault) && read > SOUND * fullRead && write > SOUND * fullWrite;
  return { cause: sound ? 'healthy' : fault, read, write };
}

/** Plays a fault on a build, with its series. */
export function played(fault: PlayedFault, could: Could, seed: number): Played {
  const draw = drawsOf(seed);
  const rates = ratesOf(fault, could, draw);
  return { ...numbers(fault, could, seed), ...seriesOf(fault, could, rates, draw) };
}
