import { band, type Band } from '../quantities/band.ts';
import type { Gbps, MBps, Metre } from '../quantities/measures.ts';

/** Which way a mode carries data: decides what tunnels PCIe, what speaks USB storage, and the latency of a request. */
export type Carrier = 'usb2' | 'usb3' | 'usb4' | 'thunderbolt' | 'esata';

type LinkModeFacts = {
  /** What the person reads. */
  label: string;
  /** The line rate that is printed on boxes. */
  lineGbps: Gbps;
  carrier: Carrier;
  /** Nothing can move faster through this mode than this. */
  ceiling: MBps;
  /** Sequential rate of a whole healthy chain; no packet factor goes on top. */
  read: Band<MBps>;
  write: Band<MBps>;
  /** The same where the host speaks bulk-only transport instead of UAS. */
  bulkOnly?: Band<MBps>;
  /** Preference in negotiation; a tie is settled by order in this table, the earlier one wins. */
  rank: number;
  /** Longest passive cable that is safe without certification. */
  passiveLengthM: Metre;
  source: string;
};

const both = (b: Band<MBps>) => ({ read: b, write: b });

/**
 * The link modes, best first. usb4-20g and tbt3-20g stand before usb-20g at the same rank, because a port that offers both
 * looks for USB4 first (USB Type-C state machine).
 */
export const LINK_MODES = {
  'tbt5-80g': {
    label: 'Thunderbolt 5',
    lineGbps: 80,
    carrier: 'thunderbolt',
    ceiling: 7877,
    read: band(5400, 6100, 7000),
    write: band(4500, 5900, 6600),
    rank: 7,
    passiveLengthM: 0.8,
    source: 'USB4 v2: 2 x 40 Gb/s PAM-3, 11b/7t; PCIe tunnel 4.0 x4'
  },
  'tbt4-40g': {
    label: 'Thunderbolt 4',
    lineGbps: 40,
    carrier: 'thunderbolt',
    ceiling: 4190,
    ...both(band(2600, 2900, 3200)),
    rank: 6,
    passiveLengthM: 0.8,
    source: 'USB4 1.0 link; PCIe share at least 32 Gb/s; hard limit as USB4 40Gbps with 128 B payloads'
  },
  'usb4-40g': {
    label: 'USB4 40 Gb/s',
    lineGbps: 40,
    carrier: 'usb4',
    ceiling: 4190,
    ...both(band(2500, 3000, 3900)),
    rank: 6,
    passiveLengthM: 0.8,
    source: 'USB4 1.0: 2 x 20 Gb/s, 128b/132b; hard limit 4190 MB/s at 128 B payloads'
  },
  'tbt3-40g': {
    label: 'Thunderbolt 3',
    lineGbps: 40,
    carrier: 'thunderbolt',
    ceiling: 3406,
    ...both(band(2150, 2500, 2800)),
    rank: 5,
    passiveLengthM: 0.8,
    source: '2 x 20.625 Gb/s, 64b/66b; PCIe 3.0 x4 at 128 B payloads 3406 MB/s, many computers leave 22 Gb/s'
  },
  'usb4-20g': {
    label: 'USB4 20 Gb/s',
    lineGbps: 20,
    carrier: 'usb4',
    ceiling: 2424,
    ...both(band(1400, 1750, 2050)),
    rank: 4,
    passiveLengthM: 2,
    source: 'USB4 1.0: 2 x 10 Gb/s, 64b/66b; band is an estimate'
  },
  'tbt3-20g': {
    label: 'Thunderbolt 3 at 20 Gb/s',
    lineGbps: 20,
    carrier: 'thunderbolt',
    ceiling: 2100,
    ...both(band(1300, 1600, 1900)),
    rank: 4,
    passiveLengthM: 2,
    source: '2 x 10.3125 Gb/s, 64b/66b; 2500 MB/s at 128 B payloads (0.84) 2100; band is an estimate'
  },
  'usb-20g': {
    label: 'USB 20 Gb/s (2x2)',
    lineGbps: 20,
    carrier: 'usb3',
    ceiling: 2424,
    ...both(band(1750, 1950, 2100)),
    bulkOnly: band(1313, 1560, 1785), // 0.75 - 0.80 - 0.85 of the UAS band
    rank: 4,
    passiveLengthM: 1,
    source: 'USB 3.2 Gen 2x2: 2 x 10 Gb/s, 128b/132b'
  },
  'usb-10g': {
    label: 'USB 10 Gb/s',
    lineGbps: 10,
    carrier: 'usb3',
    ceiling: 1212,
    ...both(band(900, 1000, 1070)),
    bulkOnly: band(700, 800, 900),
    rank: 3,
    passiveLengthM: 1,
    source: 'USB 3.2 Gen 2x1: 10 Gb/s, 128b/132b'
  },
  'usb-5g': {
    label: 'USB 5 Gb/s',
    lineGbps: 5,
    carrier: 'usb3',
    ceiling: 500,
    ...both(band(400, 435, 465)),
    bulkOnly: band(300, 370, 420),
    rank: 2,
    passiveLengthM: 2,
    source: 'USB 3.2 Gen 1x1: 5 Gb/s, 8b/10b'
  },
  'esata-6g': {
    label: 'eSATA 6 Gb/s',
    lineGbps: 6,
    carrier: 'esata',
    ceiling: 600,
    ...both(band(500, 540, 560)),
    rank: 2,
    passiveLengthM: 2,
    source: 'Serial ATA 3: 6 Gb/s, 8b/10b'
  },
  'esata-3g': {
    label: 'eSATA 3 Gb/s',
    lineGbps: 3,
    carrier: 'esata',
    ceiling: 300,
    ...both(band(260, 275, 285)),
    rank: 1,
    passiveLengthM: 2,
    source: 'Serial ATA 2: 3 Gb/s, 8b/10b'
  },
  usb2: {
    label: 'USB 2.0',
    lineGbps: 0.48,
    carrier: 'usb2',
    ceiling: 53,
    ...both(band(32, 38, 43)),
    rank: 0,
    passiveLengthM: 4,
    source: 'USB 2.0: 13 x 512 B per 125 µs microframe'
  }
} as const satisfies Record<string, LinkModeFacts>;

export type LinkMode = keyof typeof LINK_MODES;
export const LINK_MODE_IDS = Object.keys(LINK_MODES) as LinkMode[];

/** A 40 Gb/s link depends on the PCIe generation of the bridge; where that is not known, the wide band above holds. */
export const USB4_40G_BY_BRIDGE = {
  3: { band: band(2500, 2850, 3150), ceiling: 3938 },
  4: { band: band(2800, 3400, 3900), ceiling: 4190 }
} as const;

const USB = ['usb-10g', 'usb-5g', 'usb2'] as const;
/** What both lane pairs of a passive cable carry at 10 Gb/s each. */
export const BOTH_PAIRS = ['usb4-20g', 'tbt3-20g', 'usb-20g'] as const;

/**
 * What a listed mode also gives, per kind of part.
 * Hosts: USB4 and Thunderbolt ports never imply 2x2. A Thunderbolt 3 host port carries USB 10 Gb/s as well.
 * Bridges: only usb4 and usb modes imply; a Thunderbolt-only bridge has no USB fallback at all.
 * Cables: passive 40 Gb/s wiring carries everything; an old active Thunderbolt 3 cable carries USB at 2.0 only;
 * USB4 20 Gb/s, 2x2 and Thunderbolt 3 at 20 Gb/s are the same two wire pairs, and a passive C-to-C cable sold for 10 Gb/s that is
 * wired in full has them too (`link/negotiate.ts` adds them by its ends).
 */
export const IMPLIED_MODES: Record<
  'host' | 'bridge' | 'passive-cable' | 'active-cable',
  Partial<Record<LinkMode, readonly LinkMode[]>>
> = {
  host: {
    'tbt5-80g': ['tbt4-40g', 'usb4-40g', 'usb4-20g', 'tbt3-40g', 'tbt3-20g', ...USB],
    'tbt4-40g': ['usb4-40g', 'usb4-20g', 'tbt3-40g', 'tbt3-20g', ...USB],
    'usb4-40g': ['usb4-20g', ...USB],
    'tbt3-40g': ['tbt3-20g', ...USB],
    'tbt3-20g': USB,
    'usb4-20g': USB,
    'usb-20g': USB,
    'usb-10g': ['usb-5g', 'usb2'],
    'usb-5g': ['usb2'],
    'esata-6g': ['esata-3g']
  },
  bridge: {
    // One link under two labels; the USB fallback must be listed.
    'tbt4-40g': ['usb4-40g'],
    'tbt3-40g': ['tbt3-20g'],
    'usb4-40g': ['usb4-20g', ...USB],
    'usb4-20g': USB,
    'usb-20g': USB,
    'usb-10g': ['usb-5g', 'usb2'],
    'usb-5g': ['usb2'],
    'esata-6g': ['esata-3g']
  },
  'passive-cable': {
    'tbt5-80g': ['tbt4-40g', 'usb4-40g', 'tbt3-40g', ...BOTH_PAIRS, ...USB],
    'tbt4-40g': ['tbt5-80g', 'usb4-40g', 'tbt3-40g', ...BOTH_PAIRS, ...USB],
    'usb4-40g': ['tbt5-80g', 'tbt4-40g', 'tbt3-40g', ...BOTH_PAIRS, ...USB],
    'tbt3-40g': ['tbt5-80g', 'tbt4-40g', 'usb4-40g', ...BOTH_PAIRS, ...USB],
    'tbt3-20g': ['usb4-20g', 'usb-20g', ...USB],
    'usb4-20g': ['tbt3-20g', 'usb-20g', ...USB],
    'usb-20g': ['usb4-20g', 'tbt3-20g', ...USB],
    'usb-10g': ['usb-5g', 'usb2'],
    'usb-5g': ['usb2'],
    'esata-6g': ['esata-3g']
  },
  'active-cable': {
    'tbt5-80g': ['tbt4-40g', 'usb4-40g', 'tbt3-40g', 'tbt3-20g', 'usb4-20g', ...USB],
    'tbt4-40g': ['usb4-40g', 'tbt3-40g', 'tbt3-20g', 'usb4-20g', ...USB],
    'usb4-40g': ['tbt4-40g', 'tbt3-40g', 'tbt3-20g', 'usb4-20g', ...USB],
    'tbt3-40g': ['tbt3-20g', 'usb2'],
    'tbt3-20g': ['usb2'],
    'usb4-20g': USB,
    'usb-20g': USB,
    'usb-10g': ['usb-5g', 'usb2'],
    'usb-5g': ['usb2'],
    'esata-6g': ['esata-3g']
  }
};

export const PLUGS = ['usb-c', 'usb-a', 'usb-b', 'micro-b', 'esata'] as const;
export type Plug = (typeof PLUGS)[number];

/** The fastest mode a plug lets through; everything of a higher rank is lost there. eSATA and USB never mix. */
export const PLUG_TOP_MODE: Record<Plug, LinkMode> = {
  'usb-c': 'tbt5-80g',
  'usb-a': 'usb-10g',
  'usb-b': 'usb-10g',
  'micro-b': 'usb-10g',
  esata: 'esata-6g'
};
