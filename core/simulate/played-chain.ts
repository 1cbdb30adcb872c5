import { slotLink } from '../chain/stages.ts';
import { PCIE_LANE_MBPS } from '../facts/buses.ts';
import type { Job } from '../parts/job.ts';
import type { ResolvedBuild } from '../plan/resolve-build.ts';
import type { Band } from '../quantities/band.ts';
import { flashCacheOf } from '../throughput/flash-cache.ts';
import {
  diskEdges,
  diskStart,
  directionsOf,
  fileCost,
  hostEnd,
  type JobChain,
  type JobDirection
} from '../throughput/job-time.ts';
import { faultyRate, NEARLY_FULL_DRIVE, type SimulatedFault } from './faults.ts';
import { diskFlow, flashWrite, ontoHostDisk, plainFlow, type Flow } from './flow.ts';
import type { Leg } from './transient.ts';

/** What the fault of the host's own disk does: after so much it takes a share of the rate. */
const HOST_CLIFF = { GB: 60, share: 1 / 3 } as const;

const sameAs = (value: number) => ({ low: value, typical: value, high: value });

/** What moves in one direction: its rate, MB/s, and where the host's own disk falls off its cache. */
type Feed = { MBps: number; hostCliffGB: number | null; hostAfter: number };

/** What is played on a chain. */
export type PlayedWork = {
  /** The job that is copied; undefined where the drive is written or read by itself. */
  job: Job | undefined;
  /** Over what was written before. */
  rewrites?: boolean | undefined;
  /** Where in the bands this very chain lies, 0 to 1; in the middle where nobody says. */
  share?: number | undefined;
};

/** Gives a place in a band: 0 its low end, 0.5 the typical value, 1 its high end. */
export const placeIn = ({ low, typical, high }: Band, share: number): number =>
  share < 0.5 ? low + (typical - low) * share * 2 : typical + (high - typical) * (share - 0.5) * 2;

/** The chain of a build on the rig, with a fault in it. */
export class PlayedChain {
  readonly #build: ResolvedBuild;
  readonly #chain: JobChain;
  readonly #fault: SimulatedFault;
  readonly #job: Job | undefined;
  readonly #rewrites: boolean;
  readonly #share: number;

  constructor(build: ResolvedBuild, chain: JobChain, fault: SimulatedFault, { job, rewrites, share }: PlayedWork) {
    this.#build = build;
    this.#chain = chain;
    this.#fault = fault;
    this.#job = job;
    this.#rewrites = rewrites === true || fault === 'smr-rewrite';
    this.#share = share ?? 0.5;
  }

  legs(writeGB: number | undefined): Leg[] {
    const job = this.#job;
    return job
      ? directionsOf(job).map((way) => this.#leg(way, job.transferGB))
      : [this.#leg('in', writeGB ?? Infinity)];
  }

  /** Writing or reading the drive by itself, over a bounded stretch where one is given; nothing else takes part. */
  alone(way: JobDirection, volumeGB: number, boundedGB?: number): Flow {
    return this.#flow(way, volumeGB, boundedGB, false);
  }

  /** What the other end of a copy lets through, and what the drive does then. */
  copy(way: JobDirection, volumeGB: number): Flow {
    return this.#flow(way, volumeGB, undefined, true);
  }

  #leg(way: JobDirection, volumeGB: number): Leg {
    const files = this.#job ? (this.#job.files ?? 1) * fileCost(this.#chain, way).typical : 0;
    return { flow: this.#flow(way, volumeGB), perMB: files === 0 ? 0 : files / (volumeGB * 1000), volumeGB };
  }

  #flow(way: JobDirection, volumeGB: number, boundedGB?: number, copies = this.#job !== undefined): Flow {
    const feed = this.#feed(way, copies);
    if (this.#build.drive.drive.media === 'hdd') return this.#diskFlow(way, volumeGB, feed);
    return way === 'in' ? this.#flashWrite(feed.MBps, boundedGB) : flashRead(feed);
  }

  /** Where a fault or the host's own disk holds a direction back: the same caps as in the plan's own job time. */
  #feed(way: JobDirection, copies: boolean): Feed {
    const { drive, enclosure } = this.#build;
    const chain = this.#chain;
    const of = way === 'in' ? 'write' : 'read';
    const pcie = slotLink(drive, enclosure);
    const lane = PCIE_LANE_MBPS[pcie?.generation ?? 3];
    const rate = placeIn((drive.drive.media === 'hdd' ? chain.link : chain)[of], this.#share);
    const link = faultyRate(this.#fault, of, rate, lane);
    const other = copies ? hostEnd(chain.host, way, link) : UNHINDERED;
    const MBps = Math.min(link, other.MBps);
    // The host's own disk falls off its cache while it takes what comes from the drive, by itself or as a fault.
    return this.#fault === 'host-disk-cliff' && way === 'out'
      ? { MBps, hostCliffGB: HOST_CLIFF.GB, hostAfter: MBps * HOST_CLIFF.share }
      : { MBps, hostCliffGB: other.cliffGB, hostAfter: other.after };
  }

  #diskFlow(way: JobDirection, volumeGB: number, { MBps, hostCliffGB, hostAfter }: Feed): Flow {
    const { drive } = this.#build;
    const of = way === 'in' ? 'write' : 'read';
    const { outer, inner } = diskEdges(drive, of);
    const factor = this.#chain.diskFactor[of];
    const from = Number.isFinite(volumeGB)
      ? diskStart(drive, volumeGB, way, 'typical')
      : (drive.drive.fillFraction ?? 0);
    return diskFlow(
      {
        capacityGB: drive.drive.capacityTB * 1000,
        outer: outer.typical * factor,
        inner: inner.typical * factor,
        from,
        cap: MBps,
        hostCliffGB,
        hostAfter,
        rewriting: this.#rewrites,
        shingled: drive.drive.disk?.recording === 'smr' || this.#fault === 'smr-rewrite'
      },
      of
    );
  }

  #flashWrite(MBps: number, boundedGB: number | undefined): Flow {
    const { drive, freeGB } = this.#build;
    const cache = flashCacheOf(drive, freeGB);
    if (!cache) return plainFlow(MBps, 'write');
    const post = cache.post.typical * (this.#fault === 'drive-nearly-full' ? NEARLY_FULL_DRIVE.post : 1);
    return flashWrite({ ...cache, post: sameAs(post) }, freeGB, MBps, boundedGB);
  }
}

const UNHINDERED = { MBps: Infinity, cliffGB: null, after: Infinity } as const;

const flashRead = ({ MBps, hostCliffGB, hostAfter }: Feed): Flow =>
  hostCliffGB !== null && MBps > hostAfter ? ontoHostDisk(MBps, hostCliffGB, hostAfter) : plainFlow(MBps, 'read');
