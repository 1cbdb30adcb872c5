import { fileCost } from '../throughput/job-time.ts';
import { assumptionsOf } from '../plan/assumptions.ts';
import type { PlanInput, PlanReport } from '../plan/report.ts';
import { resolveBuild, type ResolvedBuild } from '../plan/resolve-build.ts';
import type { Band } from '../quantities/band.ts';
import type { GB, MBps, Seconds } from '../quantities/measures.ts';
import { seeded } from '../quantities/random.ts';
import type { Series } from '../series/series.ts';
import type { ProtocolPhase } from '../protocols/phase.ts';
import { randomRate } from '../throughput/random.ts';
import { noisy, type SimulatedFault } from './faults.ts';
import { ontoHostDisk, plainFlow, resting, type Flow } from './flow.ts';
import { placeIn, PlayedChain } from './played-chain.ts';
import { playedBuild, playedHeat } from './simulate.ts';
import { runTransient, type Leg, type Transient } from './transient.ts';

/** What the rig is told beside the build and the phases. */
export type RigSettings = {
  fault?: SimulatedFault | undefined;
  seed: number;
  /** The stretch that a soak writes over. */
  boundedGB?: GB | undefined;
  /** How fast the other external is, where two copy to each other. */
  other?: { readMBps: MBps; writeMBps: MBps } | undefined;
  ambientC?: number | undefined;
  fillFraction?: number | undefined;
  fan?: boolean | undefined;
};

/** A phase as it went: when, how much. */
export type PlayedPhase = ProtocolPhase & { fromS: Seconds; toS: Seconds; movedGB: GB };

export type RigRun = {
  simulated: true;
  series: Series;
  phases: PlayedPhase[];
  events: Transient['events'];
  assumed: PlanReport['assumed'];
};

/** No protocol goes on for longer than this, s: four weeks. */
const LONGEST_S = 28 * 86_400;
/** About so many samples a run has at most; a second lies between two, less for a short one. */
const SAMPLES = 20_000;
const SHORT_RUN_S = 120;

const capped = (flow: Flow, limit: MBps): Flow => ({ ...flow, rate: () => Math.min(flow.rate(), limit) });
/** The external drive has nothing to do with it. */
const elsewhere = (flow: Flow): Flow => ({ ...flow, work: () => 'idle' });

/** Makes the legs of a protocol on a build: what is written goes through one cache, whatever phase it is in. */
class Legs {
  readonly #build: ResolvedBuild;
  readonly #chain: PlayedChain;
  readonly #again: PlayedChain;
  readonly #settings: RigSettings;
  readonly #share: number;
  readonly #written: Flow;
  #copied: Flow | undefined;

  constructor(build: ResolvedBuild, settings: RigSettings) {
    const { running } = build;
    if (!running) throw new RangeError('nothing runs');
    const random = seeded(settings.seed);
    // Most chains of a kind lie near the middle of their band.
    this.#share = (random() + random() + random()) / 3;
    const fault = settings.fault ?? 'healthy';
    const of = (rewrites: boolean) =>
      new PlayedChain(build, running.chain, fault, { job: undefined, rewrites, share: this.#share });
    this.#build = build;
    this.#settings = settings;
    this.#chain = of(false);
    this.#again = of(true);
    this.#written = this.#chain.alone('in', Infinity, settings.boundedGB);
  }

  // eslint-disable-next-line complexity -- one case for each kind of phase
  of(phase: ProtocolPhase): Leg {
    const { GB = Infinity, seconds, files = 0 } = phase;
    const leg = (flow: Flow, more: Partial<Leg> = {}): Leg => ({ flow, perMB: 0, volumeGB: GB, seconds, ...more });
    const chain = this.#build.running?.chain;
    if (!chain) throw new RangeError('nothing runs');
    const perMB = (way: 'in' | 'out') => (files === 0 ? 0 : (files * fileCost(chain, way).typical) / (GB * 1000));
    switch (phase.work) {
      case 'rest':
        return leg(resting(this.#written), { volumeGB: Infinity });
      case 'write':
        return leg(this.#media === 'hdd' ? this.#chain.alone('in', GB) : this.#written, { perMB: perMB('in') });
      case 'rewrite':
        return leg(this.#media === 'hdd' ? this.#again.alone('in', GB) : this.#written);
      case 'read':
        return leg(this.#chain.alone('out', GB));
      case 'random-read':
      case 'random-write':
        return leg(plainFlow(this.#random(phase.work), phase.work === 'random-read' ? 'read' : 'write'), {
          volumeGB: Infinity
        });
      case 'copy-in':
        return leg(this.#copyIn(GB), { perMB: perMB('in') });
      case 'copy-out':
        return leg(this.#other(this.#chain.copy('out', GB), this.#chain.alone('out', GB), 'writeMBps'), {
          perMB: perMB('out')
        });
      case 'internal-write':
      case 'internal-read':
        return leg(elsewhere(this.#internal(phase.work)));
      case 'task': {
        // A program takes and gives what it can work on; the drive may give less.
        const program = (GB * 1000) / (seconds ?? 1);
        return leg(capped(this.#written, program), { seconds: undefined });
      }
    }
  }

  get #media() {
    return this.#build.drive.drive.media;
  }

  #random(work: 'random-read' | 'random-write'): MBps {
    const { drive, enclosure, negotiation } = this.#build;
    const { mode } = negotiation;
    if (mode === null) throw new RangeError('nothing runs');
    const bulk = this.#settings.fault === 'bulk-only';
    const band: Band = randomRate(
      drive,
      mode,
      !bulk && enclosure.enclosure.uas !== false,
      work === 'random-read' ? 'read' : 'write'
    );
    return placeIn(band, this.#share);
  }

  /** Copies onto the drive go through one cache; what was copied before is deleted each time. */
  #copyIn(GB: GB): Flow {
    this.#copied ??= this.#other(this.#chain.copy('in', GB), this.#chain.alone('in', GB, GB), 'readMBps');
    return this.#copied;
  }

  #other(withInternal: Flow, alone: Flow, end: 'readMBps' | 'writeMBps'): Flow {
    const { other } = this.#settings;
    return other ? capped(alone, other[end]) : withInternal;
  }

  #internal(work: 'internal-write' | 'internal-read'): Flow {
    const disk = this.#build.running?.chain.host.internalDisk;
    if (!disk) throw new RangeError('nothing is known of the internal disk');
    if (work === 'internal-read') return plainFlow(disk.readMBps, 'read');
    return disk.cacheGB === undefined || disk.postCacheWriteMBps === undefined
      ? plainFlow(disk.writeMBps, 'write')
      : ontoHostDisk(disk.writeMBps, disk.cacheGB, Math.min(disk.postCacheWriteMBps, disk.writeMBps));
  }
}

/** Splits the time at the turns from one leg to the next. */
function phasesAsPlayed(phases: readonly ProtocolPhase[], { events, doneS, samples }: Transient): PlayedPhase[] {
  const turns = events.filter(({ kind }) => kind === 'turn').map(({ t }) => t);
  const end = doneS ?? samples.t.at(-1) ?? 0;
  return phases.flatMap((phase, i) => {
    const fromS = i === 0 ? 0 : turns[i - 1];
    if (fromS === undefined) return [];
    const toS = turns[i] ?? end;
    // One that was cut off moved less than it was to move.
    const whole = turns[i] !== undefined || doneS !== null;
    const movedGB = whole && phase.GB !== undefined ? phase.GB : movedBetween(samples, fromS, toS);
    return [{ ...phase, fromS, toS, movedGB }];
  });
}

/** What went in or out between two moments, GB: by the samples that lie wholly between them, for one at a turn belongs to both sides. */
function movedBetween({ t, MBps }: Pick<Transient['samples'], 't' | 'MBps'>, fromS: Seconds, toS: Seconds): GB {
  let [moved, seconds] = [0, 0];
  for (let i = 1; i < t.length; i++) {
    const [from, to] = [t[i - 1] ?? 0, t[i] ?? 0];
    if (from < fromS - 1e-9 || to > toS + 1e-9) continue;
    moved += (MBps[i] ?? 0) * (to - from);
    seconds += to - from;
  }
  return seconds > 0 ? (moved / seconds / 1000) * (toS - fromS) : 0;
}

/** Where on a disk each sample was: a phase begins where it writes or reads first, and goes inwards with what it moves. */
function placesOf(
  samples: Transient['samples'],
  phases: readonly PlayedPhase[],
  capacityGB: GB,
  filled: number
): number[] {
  let phase = 0;
  let place = 0;
  const starts = phases.map(({ work }) => (work === 'write' ? filled : 0));
  return samples.t.map((t, i) => {
    const before = samples.t[i - 1] ?? 0;
    while (phase + 1 < phases.length && t > (phases[phase]?.toS ?? Infinity) + 1e-9) {
      phase += 1;
      place = starts[phase] ?? 0;
    }
    if (i === 0) place = starts[0] ?? 0;
    else place += ((samples.MBps[i] ?? 0) * (t - before)) / 1000 / capacityGB;
    return Math.min(1, place);
  });
}

/**
 * Plays a protocol on a build on the stand-in rig, from its first to its last phase: the plan's own models over time, with the noise of a
 * seed, somewhere in the bands of the forecast, and a fault where one is asked for. No device is involved.
 * @param wantedS how long it takes about, so that samples are dense enough and not too many
 * @returns null where the build does not connect or does not fit
 * @throws RangeError where a phase asks for an internal disk that nothing is known of
 * @example playRig(anInput(), [{ work: 'read', GB: 1, label: 'Read' }], { seed: 1 }, 60)?.phases.length // 1
 */
export function playRig(
  input: PlanInput,
  phases: readonly ProtocolPhase[],
  settings: RigSettings,
  wantedS: Seconds
): RigRun | null {
  const { seed, ambientC, fan, fillFraction } = settings;
  const fault = settings.fault ?? 'healthy';
  const asked = { ...input, seconds: 1, seed, ambientC, fan, fillFraction };
  const build = playedBuild(asked, fault);
  const resolved = resolveBuild(build);
  if (!resolved.running || resolved.broken) return null;
  const { model, setting } = playedHeat(resolved, asked, fault);
  const legs = new Legs(resolved, settings);
  const played = runTransient(
    setting,
    model.limits,
    phases.map((phase) => legs.of(phase)),
    {
      // A fault may make it last twenty times as long; a drive that switched itself off is not waited for any longer.
      seconds: Math.min(LONGEST_S, Math.max(60, wantedS * 20)),
      everyS: wantedS < SHORT_RUN_S ? 0.5 : Math.max(1, wantedS / SAMPLES),
      stepS: 2,
      untilDone: true
    }
  );
  const done = phasesAsPlayed(phases, played);
  return {
    simulated: true,
    series: seriesOf(played.samples, done, input, settings),
    phases: done,
    events: played.events,
    assumed: assumptionsOf(build, resolved)
  };
}

/** Writes down what was sampled, without the moment before anything began. */
function seriesOf(
  samples: Transient['samples'],
  phases: readonly PlayedPhase[],
  { drive }: PlanInput,
  settings: RigSettings
): Series {
  const disk = drive.media === 'hdd';
  const places = disk
    ? placesOf(samples, phases, drive.capacityTB * 1000, settings.fillFraction ?? drive.fillFraction ?? 0)
    : undefined;
  const rates = noisy(samples.MBps, settings.fault ?? 'healthy', settings.seed, places);
  const { controllerC, nandC, caseC } = samples;
  const series: Series = {
    t: samples.t.slice(1),
    MBps: rates.slice(1),
    controllerC: controllerC.slice(1),
    caseC: caseC.slice(1)
  };
  if (!disk) series.nandC = nandC.slice(1);
  if (places) series.positionFraction = places.slice(1);
  return series;
}
