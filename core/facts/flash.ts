import { band } from '../quantities/band.ts';

/** Share of the free space that a dynamic cache takes. Estimates. */
export const CACHE_SHARE = { tlc: band(0.05, 0.15, 0.33), qlc: band(0.08, 0.18, 0.25) } as const;

/** Bits a cell holds: a dynamic cache of N GB takes the room of N x bits GB of ordinary data. */
export const BITS_PER_CELL = { slc: 1, mlc: 2, tlc: 3, qlc: 4 } as const;

/** Native rate after the cache, MB/s. Estimates per class. */
export const POST_CACHE = {
  'nvme-tlc': band(400, 1000, 1900),
  'nvme-tlc-small': band(300, 700, 1200),
  'sata-tlc': band(200, 400, 500),
  'nvme-mlc': band(500, 900, 1400),
  qlc: band(70, 200, 500)
} as const;

/** How far a stated post-cache rate holds for another sample of the model. Estimate. */
export const POST_CACHE_SPREAD = { low: 0.85, typical: 1, high: 1.1 } as const;

/** Share of the native rate at which the cache drains while it is written into. */
export const DRAIN_SHARE = band(0, 0.1, 0.4);

/** Share of the native rate at which an idle drive empties its cache. Estimate. */
export const IDLE_DRAIN_SHARE = band(0.3, 0.6, 1);

/** Latency of one 4 KiB request, µs. */
export const LATENCY = {
  nandRead: band(45, 60, 75),
  bufferedWrite: band(15, 22, 30),
  dramless: band(10, 20, 40),
  tunnel: band(8, 11, 15),
  uas: band(45, 65, 90),
  bulkOnly: band(90, 120, 160),
  ahci: band(10, 18, 30)
} as const;

/** Seconds a file costs beside its bytes. */
export const FILE_COST_S = {
  tunnel: band(0.0001, 0.0004, 0.0015),
  usb: band(0.0005, 0.0015, 0.005),
  quickRemoval: band(0.002, 0.005, 0.01),
  diskRead: band(0.006, 0.012, 0.02),
  diskWrite: band(0.002, 0.008, 0.02)
} as const;

/** Heat and power, W and J per GB moved; the typical values serve the power check. */
export const POWER = {
  nvmeIdleW: band(1, 1.5, 2),
  nvmeWriteJPerGB: band(1, 1.5, 2),
  nvmePeakW: { 2: 6, 3: 6, 4: 7, 5: 11 },
  sataIdleW: band(0.3, 0.7, 1.2),
  sataJPerGB: band(3, 4, 5),
  sataPeakW: 4,
  disk25W: band(0.8, 1.8, 2.8),
  disk25SpinUpW: band(4.5, 5, 5.5),
  disk35W: band(3.5, 6, 9),
  bridgeUsbW: band(0.8, 1.15, 1.5),
  bridgeTunnelW: band(1.5, 2.2, 3),
  fanW: 0.5,
  converterEfficiency: 0.88
} as const;

/** Mechanical latency of a hard disk. */
export const DISK = { seekMs: band(8, 10.5, 13), rpm25: 5400, rpm35: 7200, innerShare: 0.48 } as const;

/** Shingled disks rewriting, MB/s. */
export const SMR_REWRITE = band(3, 20, 60);

/** What a shingled disk takes before it has to rewrite its tracks, GB. Estimate. */
export const SMR_REGION_GB = band(10, 25, 60);

/** Host terabytes written per terabyte of work, by kind of work. */
export const WORKLOAD_FACTOR = { sequential: 0.6, mixed: 1, smallRandom: 2 } as const;
