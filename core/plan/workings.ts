/* eslint-disable @typescript-eslint/no-non-null-assertion -- called for a chain that works: it has a mode; flash has a rate after its cache */
import type { Job } from '../parts/job.ts';
import { DRAIN_SHARE } from '../facts/flash.ts';
import { FILESYSTEMS } from '../facts/filesystems.ts';
import { LINK_MODES } from '../facts/link-modes.ts';
import { PCIE_LANE_MBPS } from '../facts/buses.ts';
import type { Pairing } from '../chain/rules/rule.ts';
import { modesOf } from '../chain/modes.ts';
import { slotLink, type Bottleneck, type Stage, type StageName } from '../chain/stages.ts';
import type { FilledDrive } from '../parts/fill/drive.ts';
import type { FilledEnclosure } from '../parts/fill/enclosure.ts';
import type { Port } from '../parts/host.ts';
import type { Band } from '../quantities/band.ts';
import { day, duration, figure, rate } from '../quantities/format.ts';
import { tebibytes } from '../quantities/measures.ts';
import { deliveredPrice, newestQuote } from '../cost/delivered-price.ts';
import type { JobWay } from './job-forecast.ts';
import type { PlanInput, PlanReport, Working } from './report.ts';

/** Everything the plan computed on its way; the workings only put it into words, they compute nothing new. */
export type Explained = {
  input: PlanInput;
  port: Port;
  drive: FilledDrive;
  enclosure: FilledEnclosure;
  pairing: Pairing;
  stages: readonly Stage[];
  read: Bottleneck | null;
  write: Bottleneck | null;
  usable: number;
  freeGB: number;
  report: PlanReport;
};

const dash = (b: Band) => `${rate(b.low)} – ${rate(b.typical)} – ${rate(b.high)}`;
const STAGE: Record<StageName, string> = {
  port: 'port',
  cable: 'cable',
  bridge: 'bridge',
  slot: 'slot',
  drive: 'drive'
};

function linkWorkings(x: Explained): Working[] {
  const { negotiation } = x.pairing;
  const names = (set: number) =>
    modesOf(set)
      .map((id) => LINK_MODES[id].label)
      .join(', ') || 'nothing';
  const mode = negotiation.mode;
  return [
    {
      figure: 'link.mode',
      formula: 'best mode in port ∩ cable ∩ enclosure, implied modes included',
      substituted: `port {${names(negotiation.sets.port)}} ∩ cable {${negotiation.cable ? names(negotiation.sets.cable) : 'no limit'}} ∩ enclosure {${names(negotiation.sets.bridge)}}`,
      result: mode ? LINK_MODES[mode].label : 'none',
      unit: '',
      source: mode ? LINK_MODES[mode].source : 'USB Type-C, USB4 and Thunderbolt discovery'
    }
  ];
}

function stageWorkings(x: Explained): Working[] {
  return x.stages.map((stage): Working => {
    const base = { figure: `stage.${stage.stage}`, result: stage.MBps, unit: 'MB/s' };
    if (stage.stage === 'slot') {
      const pcie = slotLink(x.drive, x.enclosure);
      return pcie
        ? {
            ...base,
            formula: 'lanes × payload of a lane × packet efficiency 0.84 – 0.875 – 0.91',
            substituted: `${pcie.lanes} × ${PCIE_LANE_MBPS[pcie.generation]} MB/s × 0.84 – 0.875 – 0.91`,
            source: `PCI Express ${pcie.generation}.0; the lower generation and fewer lanes of bridge and drive`
          }
        : {
            ...base,
            formula: 'table of SATA rates',
            substituted: stage.label,
            source: 'Serial ATA; about 560 MB/s in practice'
          };
    }
    if (stage.stage === 'drive') {
      if (x.drive.drive.media === 'hdd') {
        return {
          ...base,
          formula: 'low: inner edge; typical: mean; high: outer edge',
          substituted: `(${figure(stage.MBps.high)} + ${figure(stage.MBps.low)}) / 2`,
          source: 'areal density constant over the surface'
        };
      }
      const stated = x.drive.drive.readMBps !== undefined;
      return {
        ...base,
        formula: stated ? 'rating × 0.85 – 0.95 – 1' : 'class rating × 0.5 – 0.95 – 1',
        substituted: `${figure(x.drive.rated)} MB/s × ${stated ? '0.85 – 0.95 – 1' : '0.5 – 0.95 – 1'}`,
        source: stated ? 'data sheet, “up to”' : 'class template (assumed)'
      };
    }
    const tunnel =
      stage.stage === 'port' && x.port.tunnelMBps !== undefined ? `; tunnel share ${x.port.tunnelMBps} MB/s` : '';
    const policy =
      stage.stage === 'port' && x.report.findings.some((f) => f.code === 'write-cache-policy')
        ? '; writing, Windows’ quick removal leaves a sixth to a half of it'
        : '';
    return {
      ...base,
      formula: 'band of the link mode, whole chain healthy',
      substituted: `${stage.label}: ${dash(stage.MBps)}${tunnel}${policy}`,
      source: LINK_MODES[x.pairing.negotiation.mode!].source
    };
  });
}

/** Explains read and write: the slowest stage of each. */
function chainWorkings({ read, write, stages }: Explained): Working[] {
  const chain = (of: 'MBps' | 'writeMBps') =>
    `min(${stages.map((s) => `${STAGE[s.stage]} ${rate(s[of].typical)}`).join(', ')})`;
  const workings: Working[] = [];
  if (read)
    workings.push({
      figure: 'throughput.read',
      formula: 'the least over all links: low with low, typical with typical, high with high',
      substituted: chain('MBps'),
      result: read.band,
      unit: 'MB/s',
      source: `${STAGE[read.at]} is the slowest link`
    });
  if (write)
    workings.push({
      figure: 'throughput.write',
      formula: 'the least over all links, as they write',
      substituted: chain('writeMBps'),
      result: write.band,
      unit: 'MB/s',
      source: `${STAGE[write.at]} is the slowest link`
    });
  return workings;
}

/** Explains when the cache is full. */
function cacheWorkings({ report: { cache }, write, drive, freeGB }: Explained): Working[] {
  if (!cache.cliffAtGB || !write) return [];
  const { flash } = drive.drive;
  const size = flash?.cacheGB === undefined ? 'by class, a share of the free space' : `${figure(flash.cacheGB)} GB`;
  const drain = flash?.drainMBps ?? DRAIN_SHARE.typical * drive.postCache!.typical;
  return [
    {
      figure: 'cache.cliffAtGB',
      formula:
        flash?.cacheKind === 'fixed'
          ? 'cache / (1 − drain / ingress)'
          : 'W (1 − drain / ingress) = min(cache, (free − W) / bits per cell)',
      substituted: `cache ${size}; free ${figure(freeGB)} GB; ingress ${rate(write.band.typical)} MB/s; drain ${figure(drain)} MB/s`,
      result: cache.cliffAtGB,
      unit: 'GB',
      source: 'balance of what is written, drained and still free; drain share is an estimate'
    }
  ];
}

/** Says what throttling does to writing without end. */
const HEAT_WORDS: Record<NonNullable<PlanReport['thermal']>['form'], string> = {
  none: '; it never gets hot enough to throttle',
  off: '; once warmed through the drive switches itself off, and nothing is written any more',
  plateau: '; throttling takes its share (a plateau)',
  'saw-tooth': '; throttling takes its share (a saw-tooth)'
};

/** Explains the write after the cache. */
function sustainedWorkings({ report: { throughput, cache, thermal }, write, drive }: Explained): Working[] {
  if (!throughput.sustainedWrite || !write) return [];
  const stated = drive.drive.flash?.postCacheWriteMBps !== undefined;
  const after = drive.postCache ? `; after the cache ${dash(drive.postCache)}` : '';
  return [
    {
      figure: 'throughput.sustainedWrite',
      formula: cache.cliffAtGB
        ? 'minimum of the write band and the rate after the cache'
        : 'the write band: the cache outlasts this connection',
      substituted: `write ${dash(write.band)}${after}`,
      result: throughput.sustainedWrite,
      unit: 'MB/s',
      source: `${stated ? 'stated rate after the cache' : 'class estimate'}${HEAT_WORDS[thermal?.form ?? 'none']}`
    }
  ];
}

const RANDOM_SOURCE = {
  disk: {
    Read: 'seek and half a turn, queue depth 1',
    Write: 'the disk’s own cache takes it; queue depth 1, an estimate'
  },
  flash: {
    Read: 'NAND or buffer latency and the link’s, queue depth 1',
    Write: 'NAND or buffer latency and the link’s, queue depth 1'
  }
} as const;

/** Explains small accesses, one after the other. */
const randomWorkings = ({ report: { throughput }, drive }: Explained): Working[] =>
  (['Read', 'Write'] as const).flatMap((direction): Working[] => {
    const band = throughput[`random4k${direction}`];
    if (!band) return [];
    return [
      {
        figure: `throughput.random4k${direction}`,
        formula: direction === 'Write' ? '4096 B / (t_media + t_link + t_host)' : '4096 B / (t_media + t_link)',
        substituted: `4096 B / ${figure(4096 / band.high)} – ${figure(4096 / band.typical)} – ${figure(4096 / band.low)} µs`,
        result: band,
        unit: 'MB/s',
        source: RANDOM_SOURCE[drive.drive.media === 'hdd' ? 'disk' : 'flash'][direction]
      }
    ];
  });

const rateWorkings = (x: Explained): Working[] => [
  ...chainWorkings(x),
  ...cacheWorkings(x),
  ...sustainedWorkings(x),
  ...randomWorkings(x)
];

/** Says at which rates a job is timed. */
function jobRates(direction: Job['direction'], read: number, write: number): string {
  if (direction === 'out') return `read ${rate(read)}`;
  return direction === 'in' ? `write ${rate(write)}` : `write ${rate(write)}, then read ${rate(read)}`;
}

/** Says which results a time rests on. */
const restsOn = (measured: PlanReport['measured']): string =>
  measured
    ? `; with the rates ${measured.simulated ? 'of the simulated rig' : 'measured'} on ${day(measured.date)} in the place of the forecast`
    : '';

/** Explains how long a job takes, and what most of the time is spent on. */
// eslint-disable-next-line complexity -- one sentence with its optional parts
function jobWorkings({ input: { job, host }, report, read, write }: Explained): Working[] {
  if (!job || !report.job || !read || !write) return [];
  const { seconds, ways } = report.job;
  const { measured } = report;
  const rates = jobRates(
    job.direction,
    measured?.readMBps ?? read.band.typical,
    measured?.writeMBps ?? write.band.typical
  );
  const disk = host.internalDisk;
  const own = disk ? `; ${host.name}’s own disk reads ${disk.readMBps} and writes ${disk.writeMBps} MB/s` : '';
  const cliffGB = job.direction === 'out' ? undefined : report.cache.cliffAtGB?.typical;
  const cliff = cliffGB === undefined ? '' : `; the cache is full after ${figure(cliffGB)} GB`;
  return [
    {
      figure: 'job.seconds',
      formula: 'bytes until the cache is full / rate + bytes after it / rate after + files × time per file',
      substituted: `${figure(job.transferGB)} GB, ${job.files ?? 1} files; ${rates} MB/s${cliff}${own}`,
      result: seconds,
      unit: 's',
      source: `${duration(seconds.low)} to ${duration(seconds.high)}; per-file cost by filesystem and link${restsOn(measured)}`
    },
    {
      figure: 'job.limit',
      formula: 'what most of the time is spent on: bytes at the lower of both ends, bytes after a cliff, or files',
      substituted: ways.map(spentWords).join('; '),
      result: [...new Set(ways.map((way) => LIMIT_WORD[way.limitedBy]))].join(', then '),
      unit: '',
      source: `typical case; ${ways.map((way) => `${rate(way.MBps)} MB/s`).join(' and ')} over the whole of it`
    }
  ];
}

/** Says where the time of one direction goes. */
function spentWords({ direction, spent }: JobWay): string {
  const after = spent.afterCliff > 0 ? `, ${duration(spent.afterCliff)} after the cache` : '';
  const where = direction === 'in' ? 'onto the drive' : 'from the drive';
  return `${where}: ${duration(spent.bytes)} of bytes${after}, ${duration(spent.files)} of files`;
}

/** What sets the pace of a job, in words. */
export const LIMIT_WORD: Record<JobWay['limitedBy'], string> = {
  files: 'the many files',
  'host-disk': 'the computer’s own disk',
  'host-disk-cache': 'the write cache of the computer’s own disk',
  'drive-cache': 'the drive’s write cache',
  drive: 'the drive',
  link: 'the link',
  heat: 'the heat'
};

/** Whether the drive learns what was freed, and how much of its rating the chain lets through. */
function driveWorkings({ report: { reachable, trim }, input: { drive }, stages }: Explained): Working[] {
  const workings: Working[] = [];
  const link = stages.filter(({ stage }) => stage !== 'drive');
  for (const [of, percent, rated] of [
    ['read', reachable?.readPercent, drive.readMBps],
    ['write', reachable?.writePercent, drive.writeMBps]
  ] as const) {
    if (percent === undefined || percent === null || rated === undefined) continue;
    const narrowest = Math.min(...link.map((s) => s[of === 'read' ? 'MBps' : 'writeMBps'].typical));
    workings.push({
      figure: `reachable.${of}`,
      formula: 'what the stages before the drive carry / its rating, 100 % at most',
      substituted: `${rate(narrowest)} / ${rate(rated)} MB/s`,
      result: percent,
      unit: '%',
      source: 'typical rate of the chain; the rating is an “up to” value of the data sheet'
    });
  }
  if (trim && trim.answer !== 'not-needed')
    workings.push({
      figure: 'trim',
      formula: 'link, bridge, filesystem and system must all pass it on',
      substituted: trim.because.join('; '),
      result: trim.answer,
      unit: '',
      source: `${trim.effect}${trim.check ? ` How to find out: ${trim.check}` : ''}`
    });
  return workings;
}

/** Says what was fitted to the readings of an enclosure. */
function fittedWords(fitted: NonNullable<PlanReport['thermal']>['fitted']): string {
  if (!fitted) return '';
  const chips = fitted.chipFactor === undefined ? '' : `, chips over it × ${figure(fitted.chipFactor)}`;
  return `; fitted to ${fitted.readings} readings of this enclosure: its rise × ${figure(fitted.caseFactor)}${chips}`;
}

/** Explains temperatures: the heat that is made, and the paths on which it leaves. */
function heatWorkings({ report: { thermal, stack } }: Explained): Working[] {
  if (!thermal) return [];
  const degrees = (value: number) => `${value.toFixed(1)} °C`;
  const work = {
    idle: 'at rest',
    read: `reading at ${rate(thermal.load.MBps)} MB/s`,
    write: `writing at ${rate(thermal.load.MBps)} MB/s`,
    post: `writing past the cache at ${rate(thermal.load.MBps)} MB/s`
  }[thermal.load.work];
  const duty =
    thermal.load.share < 1
      ? `; the case goes ${Math.round(thermal.load.share * 100)} % of its way in one job: 1 − e^(−t/τ), or the job’s share of the day`
      : '';
  const most = thermal.influences
    .slice(0, 3)
    .map(({ what, hotK, coolK }) => `${what} (+${hotK.toFixed(1)}, ${coolK.toFixed(1)} K)`)
    .join(', ');
  const fitted = fittedWords(thermal.fitted);
  const workings: Working[] = [
    {
      figure: 'thermal.case',
      formula:
        'T = ambient + Q / (h A + desk), h = c (ΔT / L)^0.25 + 4 ε σ Tm³, c 1.42 for standing faces, 1.32 for the upper one; a fan 25 – 30 – 35 W/(m² K)',
      substituted: `${figure(thermal.watts)} W ${work}, at ${figure(thermal.ambientC)} °C in the room; time constant ${duration(thermal.timeConstantS)}${duty}`,
      result: thermal.steadyCaseC,
      unit: '°C',
      source: `outer face, settled; at rest ${degrees(thermal.idleCaseC)}${fitted}`
    },
    {
      figure: 'thermal.controller',
      formula: 'T = case + rise over its pad: G = A / (t / k + contact), the board path, and the NAND beside it',
      substituted: `${work}; most uncertain: ${most}`,
      result: thermal.steadyControllerC,
      unit: '°C',
      source: `as the drive reports it${thermal.startC === null ? '' : `, throttles from ${degrees(thermal.startC)}; the silicon can be 5 to 30 K hotter`}. The band is the likely hot and cool case: deviations of the uncertain values as the root of the sum of squares`
    },
    {
      figure: 'thermal.throttle',
      formula:
        'the controller’s way up, in closed form; half of the rate at the start, a quarter 8 K above, released 8 K below each',
      substituted:
        thermal.throttleAfterS === null
          ? `${work}: settles at ${degrees(thermal.steadyControllerC.typical)}`
          : `from settled idle, ${work}`,
      result: thermal.throttleAfterS ?? 'never',
      unit: thermal.throttleAfterS ? 's' : '',
      source:
        thermal.form === 'none'
          ? 'no throttling once warmed through'
          : thermal.form === 'off'
            ? 'warmed through it switches itself off'
            : `warmed through: ${thermal.form === 'plateau' ? 'a plateau at a lower rate' : 'a saw-tooth between two rates'}`
    },
    {
      figure: 'thermal.battery',
      formula: 'idle power × 0.4 – 0.7 – 1 × 24 h',
      substituted: `${figure(thermal.idleW)} W at rest`,
      result: thermal.ejectedWhPerDay,
      unit: 'Wh',
      source: 'many bridges stay powered after ejecting; unplug'
    }
  ];
  if (stack.bowMm)
    workings.push({
      figure: 'stack.bow',
      formula: 'bow = (Σ kp d above − Σ kp d below) / (Σ kp + kb), kp = force / squeeze',
      substituted: stack.components
        .filter((row) => row.forceN > 0)
        .map((row) => `${row.role} ${figure(row.forceN)} N at ${figure(row.pressureMPa)} MPa`)
        .join(', '),
      result: stack.bowMm,
      unit: 'mm',
      source:
        'stress at 30 % by hardness, × (c / 0.3)^1.5; an 80 mm board 3 – 5 – 7.5 N/mm; pads relax to half. Estimate'
    });
  return workings;
}

/** What draws power, in words. */
export const DRAW_WORD = {
  'drive-rest': 'drive at rest',
  'drive-data': 'moving data',
  converter: 'lost in the converter',
  bridge: 'bridge',
  fan: 'fan'
} as const;

function placeWorkings(x: Explained): Working[] {
  const { input, report, usable, write } = x;
  const fs = FILESYSTEMS[report.filesystem.first.filesystem];
  const workings: Working[] = [
    {
      figure: 'capacity.usable',
      formula: 'TB × 10¹² / 2⁴⁰, less what the filesystem takes',
      substituted: `${input.drive.capacityTB} TB = ${tebibytes(input.drive.capacityTB).toFixed(3)} TiB, less ${figure(fs.overhead.typical * 100)} % for ${fs.label}`,
      result: usable,
      unit: 'TiB',
      source: fs.source
    },
    {
      figure: 'filesystem.first',
      formula:
        'written by every writer, read by every reader, large enough files; then what is native, then what is shared',
      substituted:
        report.filesystem.rejected.map((r) => `${FILESYSTEMS[r.filesystem].label}: ${r.because}`).join('; ') ||
        'nothing rejected',
      result: `${fs.label}, ${report.filesystem.first.scheme.toUpperCase()}`,
      unit: '',
      source: report.filesystem.first.because.join('; ')
    }
  ];
  const { power } = report;
  if (write && power) {
    const gives =
      power.portW === null
        ? 'it has a supply of its own, or takes nothing from this port'
        : `the port gives ${figure(power.portW)} W${power.portStated ? '' : ' (assumed)'}`;
    workings.push({
      figure: 'power.steady',
      formula: '(idle + J/GB × rate) / 0.88 + bridge at that rate + fan',
      substituted: `${power.parts
        .map(({ what, W, assumed }) => `${DRAW_WORD[what]} ${figure(W.typical)} W${assumed ? ' (assumed)' : ''}`)
        .join(' + ')}; writing at ${rate(write.band.typical)} MB/s; ${gives}`,
      result: power.steadyW,
      unit: 'W',
      source: `class power where the sheet gives none; converter at 88 %; for moments about ${figure(power.peakW.typical)} W`
    });
  }
  for (const [i, row] of report.stack.components.entries()) {
    workings.push({
      figure: `stack.${i}`,
      formula: 'compression = (t − gap) / t, gap = clearance − chip height − label',
      substituted:
        row.pads.length === 0
          ? `no pad over the ${row.role}, ${row.gapMm} mm of air`
          : `(${row.pads.join(' + ')} − ${row.gapMm}) / ${row.pads.reduce((a, b) => a + b, 0)} mm over the ${row.role}`,
      result: row.compressionPercent,
      unit: '%',
      source: '10 to 30 % is good'
    });
  }
  return workings;
}

function costWorkings({ input, report: { cost }, usable }: Explained): Working[] {
  if (!cost) return [];
  const parts = [input.drive, input.enclosure, ...(input.cable ? [input.cable] : [])];
  const lines = parts.flatMap((part) => {
    const quote = newestQuote(input.quotes ?? [], part.id);
    return quote
      ? [
          `${part.name} ${deliveredPrice(quote).toFixed(2)}${quote.currency === cost.currency ? '' : ` ${quote.currency}`} (${quote.vendor}, ${day(quote.date)})`
        ]
      : [];
  });
  const { currency } = cost;
  return [
    {
      figure: 'cost.total',
      formula: 'Σ (list × (1 − discount) − coupon + shipping) × (1 + tax), newest price of each part',
      substituted: lines.join(' + '),
      result: cost.total,
      unit: currency,
      source: `oldest price ${day(cost.oldestQuote)}${cost.withoutQuote.length > 0 ? `; no price for ${cost.withoutQuote.join(', ')}` : ''}${(cost.exchanged ?? []).map((x) => `; 1 ${x.from} = ${figure(x.rate)} ${x.to}, ${day(x.date)}`).join('')}`
    },
    {
      figure: 'cost.perTB',
      formula: 'total / capacity',
      substituted: `${cost.total.toFixed(2)} / ${input.drive.capacityTB} TB`,
      result: cost.perTB,
      unit: `${currency}/TB`,
      source: 'marketed, decimal terabytes'
    },
    {
      figure: 'cost.perTiBUsable',
      formula: 'total / usable capacity',
      substituted: `${cost.total.toFixed(2)} / ${usable.toFixed(3)} TiB`,
      result: cost.perTiBUsable,
      unit: `${currency}/TiB`,
      source: 'after the filesystem, before headroom'
    }
  ];
}

/** Gives the formula, the numbers put in and the source behind every figure of a report. */
export function explain(x: Explained): Working[] {
  return [
    ...linkWorkings(x),
    ...stageWorkings(x),
    ...rateWorkings(x),
    ...driveWorkings(x),
    ...jobWorkings(x),
    ...placeWorkings(x),
    ...heatWorkings(x),
    ...costWorkings(x)
  ];
}
