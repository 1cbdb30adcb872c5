import { band } from '../quantities/band.ts';

/** Share of the free space that a dynamic cache takes. Estimates. */
export const CACHE_SHARE = {
  tlc: band(0.05, 0.15, 0.33),
  qlc: band(0.08, 0.18, 0.25),
  /** SATA drives have 12 to 80 GB for each terabyte. */
  sata: band(0.012, 0.04, 0.08)
} as const;

/** Bits a cell holds: a dynamic cache of N GB takes the room of N x bits GB of ordinary data. */
export const BITS_PER_CELL = { slc: 1, mlc: 2, tlc: 3, qlc: 4 } as const;

/** Native rate after the cache, MB/s. Estimates per class. */
export const POST_CACHE = {
  'nvme-tlc': band(400, 1000, 1900),
  'nvme-tlc-small': band(300, 700, 1200),
  'sata-tlc': band(200, 400, 500),
  'sata-tlc-dramless': band(50, 100, 150),
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
  ahci: band(10, 18, 30),
  /** The system's own stack, on a write. */
  hostWrite: band(20, 35, 50)
} as const;

/** How much sooner a hard disk is done with a random 4 KiB write that its own cache takes than with a read. Estimate: 0.8 - 1.2 - 2 MB/s. */
export const DISK_WRITE_GAIN = band(3.6, 4.3, 5.9);

/** Seconds a file costs beside its bytes. */
export const FILE_COST_S = {
  tunnel: band(0.0001, 0.0004, 0.0015),
  usb: band(0.0005, 0.0015, 0.005),
  quickRemoval: band(0.002, 0.005, 0.01),
  diskRead: band(0.006, 0.012, 0.02),
  diskWrite: band(0.002, 0.008, 0.02)
} as const;

/**
 * Heat and power, W and J per GB moved. Estimates per class.
 * A tunnel keeps the PCIe link of the drive awake; behind a USB bridge it sleeps in part. With its bridge a drive at rest so comes to
 * 1 - 1.6 - 2.2 W over USB and 2 - 2.8 - 3.6 W in a tunnel, at the port.
 */
export const POWER = {
  nvmeIdleW: { usb: band(0.6, 1, 1.4), tunnel: band(1, 1.5, 2) },
  nvmeWriteJPerGB: band(1, 1.5, 2),
  nvmePeakW: { 2: band(4, 6, 8), 3: band(4, 6, 8), 4: band(5, 7, 9), 5: band(8, 11, 14) },
  sataIdleW: band(0.3, 0.7, 1.2),
  sataJPerGB: band(3, 4, 5),
  sataPeakW: band(3, 4, 5),
  disk25W: band(0.8, 1.8, 2.8),
  disk25SpinUpW: band(4.5, 5, 5.5),
  disk35W: band(3.5, 6, 9),
  /** Of the bridge at the full rate of its link; at rest it draws a share of that, and in between it grows with the rate. */
  bridgeW: { usb: band(0.8, 1.15, 1.5), tunnel: band(1.5, 2.2, 3), tunnel80: band(3, 4, 5) },
  bridgeRestShare: { usb: 0.4, tunnel: 0.5 },
  fanW: 0.5,
  converterEfficiency: 0.88
} as const;

/**
 * What Windows' quick removal leaves of the write through a tunnel: a sixth to a half (500 of 2900 MB/s seen). Estimate.
 * Over USB it shows in files alone.
 */
export const QUICK_REMOVAL_SHARE = band(1 / 6, 1 / 4, 1 / 2);

/** Mechanical latency of a hard disk. */
export const DISK = {
  seekMs: band(8, 10.5, 13),
  rpm25: 5400,
  rpm35: 7200,
  /** Rate at the inner edge over that at the outer one. */
  innerShare: band(0.42, 0.48, 0.55),
  /** MB/s at the outer edge where nothing is stated. */
  outerMBps: { '2.5in': band(100, 140, 170), '3.5in': band(180, 230, 280) },
  /** How far one disk may differ from what is stated of its model. Estimate. */
  stated: band(0.97, 1, 1.03)
} as const;

/** Shingled disks rewriting, MB/s. */
export const SMR_REWRITE = band(3, 20, 60);

/** What a shingled disk takes before it has to rewrite its tracks, GB. Estimate. */
export const SMR_REGION_GB = band(10, 25, 60);

/** Host terabytes written per terabyte of work, by kind of work. */
export const WORKLOAD_FACTOR = { sequential: 0.6, mixed: 1, smallRandom: 2 } as const;
