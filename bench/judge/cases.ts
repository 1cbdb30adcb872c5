import type { CauseCode } from '#core/diagnosis/causes';
import { seeded } from '#core/quantities/random';
import type { PairResults } from '#core/results/run';
import type { Conditions } from '#core/results/conditions';
import type { Series } from '#core/series/series';
import type { BuildId } from './builds.ts';

/**
 * Cases as practitioners tell them: what was measured and seen on which build, and what it was. Written down before the tables of the
 * diagnosis were, from the signatures of the trade and not from its rules. Several causes where they cannot be told apart by what is given.
 */
export type Case = {
  name: string;
  build: BuildId;
  results?: PairResults;
  series?: Series;
  direction?: 'read' | 'write';
  conditions?: Partial<Conditions>;
  negotiatedGbps?: number;
  log?: string;
  symptoms?: string[];
  tried?: { test: string; outcome: string }[];
  is: CauseCode | readonly CauseCode[];
};

const noisy = (rates: number[], more: Partial<Series> = {}, noise = 0.02): Series => {
  const random = seeded(rates.length * 31 + Math.round(rates[0] ?? 0));
  return {
    t: rates.map((_, i) => i + 1),
    MBps: rates.map((rate) => rate * (1 + (random() + random() - 1) * noise * 1.7)),
    ...more
  };
};
const of = (seconds: number, rate: (s: number) => number): number[] =>
  Array.from({ length: seconds }, (_, i) => rate(i + 1));
/** From one temperature towards another with a time constant, °C. */
const warming = (seconds: number, from: number, to: number, tau: number): number[] =>
  of(seconds, (s) => Math.round(to + (from - to) * Math.exp(-s / tau)));
/** As warm as it gets up to a limit that it stays at. */
const held = (seconds: number, from: number, limit: number, towards: number, tau: number): number[] =>
  warming(seconds, from, towards, tau).map((C) => Math.min(limit, C));
const flat = (rate: number, seconds = 120, more: Partial<Series> = {}): Series =>
  noisy(
    of(seconds, () => rate),
    more
  );
const fall = (args: { from: number; to: number; atS: number; seconds: number; C?: number[] }): Series =>
  noisy(
    of(args.seconds, (s) => (s <= args.atS ? args.from : args.to)),
    args.C ? { controllerC: args.C } : {}
  );
const saw = (high: number, low: number, first: number, period: number): Series =>
  noisy(
    of(600, (s) => (s > first && (s - first) % period < period / 2 ? low : high)),
    {
      controllerC: of(600, (s) =>
        s <= first
          ? Math.round(82 - 45 * Math.exp(-s / (first / 3)))
          : 74 +
            Math.round(
              8 *
                ((s - first) % period < period / 2
                  ? 1 - ((s - first) % period) / (period / 2)
                  : ((s - first) % period) / (period / 2) - 1)
            )
      )
    }
  );
const pass = (outer: number, inner: number, weak: (p: number) => boolean = () => false): Series =>
  noisy(
    of(800, (s) => (outer + (inner - outer) * (s / 800)) * (weak(s / 800) ? 0.2 : 1)),
    { positionFraction: of(800, (s) => s / 800) }
  );
/** At times that no clock gives. */
const nowAndThen = (rate: number, low: number, lengths = [4, 9, 3, 12, 6, 5, 10]): number[] => {
  const at = [31, 58, 97, 120, 171, 208, 262];
  return of(300, (s) => (at.some((begin, i) => s >= begin && s < begin + (lengths[i] ?? 4)) ? low : rate));
};
const rw = (readMBps: number, writeMBps: number): PairResults => ({ readMBps, writeMBps });
const asked = (...pairs: [string, string][]) => pairs.map(([test, outcome]) => ({ test, outcome }));

const LINKS: readonly Case[] = [
  { name: 'everything at 38', build: 'u4', results: rw(39, 37), is: 'usb2-fallback' },
  { name: 'a fast stick of a build at 41', build: 'u10', results: rw(41.5, 40), is: 'usb2-fallback' },
  { name: 'SATA at 33', build: 'sata', results: rw(36, 33), is: 'usb2-fallback' },
  { name: 'a disk at 36', build: 'hdd', results: rw(38, 36), is: 'usb2-fallback' },
  {
    name: '480 Mb/s in the log',
    build: 'u4',
    results: rw(40, 38),
    log: 'usb 1-2: new high-speed USB device number 9 using xhci_hcd',
    is: 'usb2-fallback'
  },
  { name: 'slow and 0.48 shown', build: 'u10', results: { readMBps: 42 }, negotiatedGbps: 0.48, is: 'usb2-fallback' },
  { name: 'one write at 35', build: 'qlc', results: { writeMBps: 35 }, negotiatedGbps: 0.48, is: 'usb2-fallback' },
  { name: '40 Gb/s build at 440', build: 'u4', results: rw(440, 430), is: '5g-port-or-cable' },
  { name: '10 Gb/s build at 425', build: 'u10', results: rw(432, 420), is: '5g-port-or-cable' },
  { name: '20 Gb/s build at 445', build: 'u20', results: rw(450, 445), is: '5g-port-or-cable' },
  {
    name: '5 Gb/s in the log',
    build: 'u10',
    results: rw(420, 411),
    log: 'usb 2-1: new SuperSpeed USB device number 3 using xhci_hcd',
    is: '5g-port-or-cable'
  },
  {
    name: 'only the speed is known: 5',
    build: 'qlc',
    results: { readMBps: 436 },
    negotiatedGbps: 5,
    is: '5g-port-or-cable'
  },
  { name: '40 Gb/s build at 1000', build: 'u4', results: rw(1010, 985), is: '10g-fallback' },
  { name: 'Mac at 960', build: 't3mac', results: rw(980, 950), is: '10g-fallback' },
  { name: '2x2 build at 1030', build: 'u20', results: rw(1035, 1000), is: '10g-fallback' },
  { name: '10 Gb/s read off', build: 't3mac', results: rw(1000, 960), negotiatedGbps: 10, is: '10g-fallback' },
  {
    name: 'flat at 1000 for ten minutes',
    build: 'u4',
    series: flat(1000, 600),
    direction: 'write',
    is: '10g-fallback'
  },
  { name: 'flat at 40', build: 'u10', series: flat(40, 300), direction: 'write', is: 'usb2-fallback' },
  {
    name: 'bulk-only',
    build: 'u10',
    results: { readMBps: 790, writeMBps: 770, random4kReadMBps: 15, random4kWriteMBps: 13 },
    is: 'bulk-only'
  },
  {
    name: 'bulk-only by its driver',
    build: 'u10',
    results: rw(810, 780),
    log: 'usb-storage 2-1:1.0: USB Mass Storage device detected',
    is: 'bulk-only'
  },
  {
    name: 'UAS is ignored',
    build: 'u20',
    results: rw(1560, 1500),
    log: 'usb 2-1: UAS is ignored for this device, using usb-storage instead',
    is: 'bulk-only'
  },
  {
    name: 'two lanes',
    build: 'u4',
    results: rw(1690, 1660),
    tried: asked(['width-shown', 'two']),
    is: 'two-lane-limit'
  },
  {
    name: 'two lanes by the rate alone',
    build: 'u4',
    results: rw(1700, 1680),
    negotiatedGbps: 40,
    is: 'two-lane-limit'
  }
];

const WRITES: readonly Case[] = [
  { name: 'quick removal', build: 'u4win', results: rw(3300, 790), is: ['write-cache-off', 'host-write-ceiling'] },
  {
    name: 'quick removal, policy seen',
    build: 'u4win',
    results: rw(3300, 820),
    tried: asked(['policy', 'quick']),
    is: 'write-cache-off'
  },
  {
    name: 'quick removal at 10 Gb/s',
    build: 'u10',
    results: rw(1010, 240),
    conditions: { writeCache: 'quick-removal' },
    is: 'write-cache-off'
  },
  {
    name: 'writes a quarter on SATA',
    build: 'sata',
    results: rw(520, 125),
    tried: asked(['policy', 'quick']),
    is: 'write-cache-off'
  },
  { name: 'writes half on a Mac', build: 't3mac', results: rw(2500, 1270), is: 'host-write-ceiling' },
  {
    name: 'writes half, policy is better',
    build: 'u4win',
    results: rw(3300, 1650),
    conditions: { writeCache: 'performance' },
    is: 'host-write-ceiling'
  },
  { name: 'writes half on Linux', build: 'u4', results: rw(3400, 1700), is: 'host-write-ceiling' },
  {
    name: 'cache full, cool',
    build: 'u4',
    series: fall({ from: 3300, to: 1480, atS: 60, seconds: 300, C: warming(300, 34, 58, 150) }),
    direction: 'write',
    is: 'slc-cliff'
  },
  {
    name: 'cache full on QLC',
    build: 'qlc',
    series: fall({ from: 980, to: 160, atS: 121, seconds: 600, C: warming(600, 32, 52, 200) }),
    direction: 'write',
    is: 'slc-cliff'
  },
  {
    name: 'cache full on SATA',
    build: 'sata',
    series: fall({ from: 490, to: 415, atS: 82, seconds: 300 }),
    direction: 'write',
    is: 'slc-cliff'
  },
  {
    name: 'cache full, no temperature',
    build: 'u4',
    series: fall({ from: 3350, to: 1500, atS: 59, seconds: 300 }),
    direction: 'write',
    is: 'slc-cliff'
  },
  {
    name: 'sustained write is low',
    build: 'qlc',
    results: { readMBps: 1000, writeMBps: 165 },
    is: ['slc-cliff', 'write-cache-off']
  },
  {
    name: 'rest brings it back',
    build: 'qlc',
    results: { readMBps: 1000, writeMBps: 158 },
    tried: asked(['rest', 'yes']),
    is: 'slc-cliff'
  },
  {
    name: 'nearly full',
    build: 'u4',
    series: fall({ from: 3300, to: 820, atS: 6, seconds: 300, C: warming(300, 33, 55, 150) }),
    direction: 'write',
    conditions: { fillPercent: 95 },
    is: 'drive-nearly-full'
  },
  {
    name: 'nearly full, said so',
    build: 'qlc',
    results: rw(990, 88),
    conditions: { fillPercent: 96 },
    is: 'drive-nearly-full'
  },
  {
    name: 'nearly full on SATA',
    build: 'sata',
    results: rw(520, 210),
    tried: asked(['how-full', 'full']),
    is: 'drive-nearly-full'
  },
  { name: 'shingled, rewriting', build: 'smr', results: rw(115, 22), is: 'smr-rewrite' },
  {
    name: 'shingled, after a while',
    build: 'smr',
    series: fall({ from: 105, to: 20, atS: 250, seconds: 900 }),
    direction: 'write',
    is: 'smr-rewrite'
  },
  {
    name: 'shingled, an hour helps',
    build: 'smr',
    results: rw(110, 30),
    tried: asked(['rest-hour', 'yes']),
    is: 'smr-rewrite'
  },
  { name: 'shingled at 15', build: 'smr', results: { readMBps: 120, writeMBps: 15 }, is: 'smr-rewrite' },
  {
    name: 'copy falls, check is fast',
    build: 't3mac',
    results: { readMBps: 2450, writeMBps: 2400, copyOutMBps: 800 },
    is: 'host-disk-cliff'
  },
  {
    name: 'another source is fast',
    build: 'u4',
    results: { copyInMBps: 900 },
    tried: asked(['other-source', 'no']),
    is: 'host-disk-cliff'
  },
  {
    name: 'reads off it slowly, reads fast',
    build: 'u10',
    results: { readMBps: 1010, writeMBps: 990, copyOutMBps: 280 },
    is: 'host-disk-cliff'
  },
  {
    name: 'falls while it is copied off',
    build: 'u4',
    series: fall({ from: 2900, to: 900, atS: 25, seconds: 200, C: warming(200, 33, 50, 150) }),
    direction: 'read',
    conditions: { source: 'drive', target: 'internal' },
    is: 'host-disk-cliff'
  }
];

const HEAT: readonly Case[] = [
  {
    name: 'saw-tooth at 82',
    build: 'u4',
    series: saw(3200, 1600, 150, 60),
    direction: 'write',
    is: 'thermal-throttle'
  },
  {
    name: 'half at its limit',
    build: 'u10',
    series: fall({ from: 1000, to: 500, atS: 320, seconds: 900, C: held(900, 35, 80, 92, 150) }),
    direction: 'write',
    is: 'thermal-throttle'
  },
  {
    name: 'reading gets slow at 81',
    build: 't3mac',
    series: fall({ from: 2500, to: 1250, atS: 280, seconds: 700, C: held(700, 36, 81, 95, 130) }),
    direction: 'read',
    is: 'thermal-throttle'
  },
  {
    name: 'a fan helps',
    build: 'u4',
    results: rw(2000, 1500),
    tried: asked(['case-warm', 'hot'], ['rest', 'yes']),
    is: 'thermal-throttle'
  },
  {
    name: 'hot case, up and down',
    build: 'u10',
    tried: asked(['how-it-falls', 'up-and-down'], ['case-warm', 'hot']),
    results: { writeMBps: 560 },
    is: 'thermal-throttle'
  },
  {
    name: 'within a minute, case cool',
    build: 'u4',
    series: {
      ...fall({ from: 3300, to: 1600, atS: 40, seconds: 400, C: held(400, 38, 81, 110, 43) }),
      caseC: warming(400, 25, 33, 300)
    },
    direction: 'write',
    is: 'pad-no-contact'
  },
  {
    name: 'saw-tooth from the first minute, case cool',
    build: 'u10',
    series: { ...saw(1000, 500, 55, 24), caseC: warming(600, 25, 32, 300) },
    direction: 'write',
    is: 'pad-no-contact'
  },
  {
    name: 'slow after minutes, case cool to the hand',
    build: 't3mac',
    results: rw(1400, 1200),
    tried: asked(['how-it-falls', 'up-and-down'], ['case-warm', 'cool']),
    is: 'pad-no-contact'
  },
  {
    name: 'throttles, no case temperature',
    build: 'u10',
    series: saw(990, 500, 70, 30),
    direction: 'write',
    is: ['pad-no-contact', 'thermal-throttle']
  },
  {
    name: 'warm room, held at 79',
    build: 'u20',
    series: {
      ...fall({ from: 1900, to: 950, atS: 400, seconds: 1200, C: held(1200, 40, 80, 88, 170) }),
      caseC: warming(1200, 30, 62, 400)
    },
    direction: 'write',
    conditions: { ambientC: 33 },
    is: 'thermal-throttle'
  }
];

const PLACES: readonly Case[] = [
  {
    name: 'weak place of a disk',
    build: 'hdd',
    series: pass(240, 120, (p) => (p > 0.31 && p < 0.32) || (p > 0.7 && p < 0.712)),
    direction: 'read',
    is: 'weak-surface'
  },
  {
    name: 'three weak places',
    build: 'smr',
    series: pass(138, 70, (p) => [0.2, 0.45, 0.8].some((at) => p >= at && p < at + 0.01)),
    direction: 'read',
    is: 'weak-surface'
  },
  {
    name: 'stops in places, slow reading',
    build: 'hdd',
    results: rw(95, 170),
    tried: asked(['how-it-falls', 'places']),
    is: 'weak-surface'
  },
  {
    name: 'read errors in the log',
    build: 'hdd',
    results: { readMBps: 110 },
    log: 'blk_update_request: critical medium error, dev sdb, sector 1953525168',
    is: 'weak-surface'
  },
  {
    name: 'dips while indexing',
    build: 'u10',
    series: noisy(nowAndThen(1000, 450), { controllerC: warming(300, 33, 50, 150) }),
    direction: 'write',
    conditions: { indexing: true },
    is: 'background-load'
  },
  {
    name: 'irregular dips',
    build: 'sata',
    series: noisy(nowAndThen(490, 220)),
    direction: 'write',
    is: 'background-load'
  },
  {
    name: 'irregular dips on a disk',
    build: 'hdd',
    series: noisy(nowAndThen(200, 80)),
    direction: 'write',
    conditions: { indexing: true },
    is: 'background-load'
  },
  {
    name: 'somewhat slow, indexing',
    build: 'u10',
    results: rw(700, 640),
    conditions: { indexing: true },
    is: 'background-load'
  },
  {
    name: 'small files slow, encrypted',
    build: 'enc',
    results: { readMBps: 880, writeMBps: 850, random4kReadMBps: 19, random4kWriteMBps: 16 },
    conditions: { encrypted: true },
    is: 'encryption-cost'
  },
  {
    name: 'an eighth less, encrypted',
    build: 'enc',
    results: rw(860, 840),
    conditions: { encrypted: true },
    is: 'encryption-cost'
  },
  {
    name: 'drops to nothing',
    build: 'u10',
    series: noisy(nowAndThen(1000, 0, [3, 5, 2, 6, 4, 3, 5])),
    direction: 'write',
    is: 'unstable-link'
  },
  {
    name: 'resets in the log',
    build: 'u4',
    results: rw(2100, 1900),
    log: 'usb 2-1: reset SuperSpeed Plus Gen 2x1 USB device number 4 using xhci_hcd\nusb 2-1: reset SuperSpeed Plus Gen 2x1 USB device number 4 using xhci_hcd\nusb 2-1: USB disconnect, device number 4',
    is: 'unstable-link'
  },
  {
    name: 'disconnects when touched',
    build: 'u10',
    symptoms: ['disconnects'],
    tried: asked(['when-lost', 'touched']),
    is: 'unstable-link'
  },
  {
    name: 'goes away under load',
    build: 'hdd',
    symptoms: ['disconnects'],
    log: 'usb usb2-port1: over-current condition',
    is: 'no-power'
  },
  {
    name: 'I/O errors of a bridge in the event log',
    build: 'u10',
    results: rw(900, 700),
    log: 'Warning, disk: The IO operation at logical block address 0x1 for Disk 2 was retried.\nReset to device, \\Device\\RaidPort2, was issued.',
    is: 'unstable-link'
  }
];

const SOUND: readonly Case[] = [
  { name: 'as forecast at 40 Gb/s', build: 'u4', results: rw(3380, 3300), is: 'healthy' },
  { name: 'as forecast at 10 Gb/s', build: 'u10', results: rw(1020, 990), is: 'healthy' },
  { name: 'as forecast on SATA', build: 'sata', results: rw(525, 495), is: 'healthy' },
  { name: 'as forecast on a disk', build: 'hdd', results: rw(210, 200), is: 'healthy' },
  {
    name: 'flat for ten minutes',
    build: 'u10',
    series: flat(1000, 150, { controllerC: warming(150, 33, 55, 120) }),
    direction: 'write',
    is: 'healthy'
  },
  { name: 'a disk that slows inwards', build: 'hdd', series: pass(240, 122), direction: 'read', is: 'healthy' },
  { name: 'Mac as forecast', build: 't3mac', results: rw(2550, 2480), is: 'healthy' },
  { name: '2x2 as forecast', build: 'u20', results: rw(1960, 1900), is: 'healthy' }
];

export const CASES: readonly Case[] = [...LINKS, ...WRITES, ...HEAT, ...PLACES, ...SOUND];
