import type { Band } from '#core/quantities/band';
import { duration, figure, money, rate } from '#core/quantities/format';
import { FILESYSTEMS } from '#core/facts/filesystems';
import type { PlanReport } from '#core/plan/report';

export type FigureRow = {
  key: string;
  label: string;
  value: string;
  unit: string;
  range: string;
  band: Band | null;
  words?: boolean;
  /** What would be if the parts fitted. */
  ifItFitted?: boolean;
};

/** What the chain would do if its parts went together. */
function wouldRows({ ifItFitted }: PlanReport): FigureRow[] {
  if (!ifItFitted) return [];
  const { throughput, cache, job } = ifItFitted;
  const rows = [
    ...speed('would.read', 'Read', throughput.read),
    ...speed('would.write', 'Write', throughput.write),
    ...speed('would.sustainedWrite', 'Write after the cache', throughput.sustainedWrite),
    ...cacheRow('would.cliffAtGB', cache.cliffAtGB),
    ...jobRow('would.seconds', job?.seconds)
  ];
  return rows.map((row) => ({ ...row, ifItFitted: true }));
}

/** Two times with their unit once, where it is the same. */
function spanOf({ low, high }: Band): string {
  const [from, to] = [split(duration(low)), split(duration(high))];
  return from.unit === to.unit ? `${from.value} – ${to.value} ${to.unit}` : `${duration(low)} – ${duration(high)}`;
}

const cacheRow = (key: string, band: Band | null): FigureRow[] =>
  band
    ? [
        {
          key,
          label: 'Cache is full after',
          value: figure(band.typical),
          unit: 'GB',
          range: `${figure(band.low)} – ${figure(band.high)}`,
          band: null
        }
      ]
    : [];

const jobRow = (key: string, seconds: Band | undefined, measured: PlanReport['measured'] = null): FigureRow[] =>
  seconds
    ? [
        {
          key,
          label: `The job takes${measured ? (measured.simulated ? ', simulated' : ', as measured') : ''}`,
          ...split(duration(seconds.typical)),
          range: spanOf(seconds),
          band: null
        }
      ]
    : [];

const speed = (key: string, label: string, band: Band | null): FigureRow[] =>
  band
    ? [{ key, label, value: rate(band.typical), unit: 'MB/s', range: `${rate(band.low)} – ${rate(band.high)}`, band }]
    : [];

/** Finds the result of a working by its key; undefined where the plan came without workings. */
const resultOf = ({ workings }: PlanReport, key: string) => workings.find((w) => w.figure === key)?.result;

const limitRows = (report: PlanReport): FigureRow[] => {
  const limit = resultOf(report, 'job.limit');
  if (limit === undefined) return [];
  const value = typeof limit === 'string' ? limit : '';
  return [{ key: 'job.limit', label: 'The job waits for', value, unit: '', range: '', band: null, words: true }];
};

/** Advertised against reachable: reading, and writing beside it. */
function reachableRows(report: PlanReport): FigureRow[] {
  const [ofRead, ofWrite] = (['read', 'write'] as const).map((of) => resultOf(report, `reachable.${of}`));
  if (typeof ofRead !== 'number' && typeof ofWrite !== 'number') return [];
  const percent = (value: unknown) => (typeof value === 'number' ? value.toFixed(0) : '–');
  return [
    {
      key: typeof ofRead === 'number' ? 'reachable.read' : 'reachable.write',
      label: 'Used of its rating',
      value: percent(ofRead),
      unit: '%',
      range: `read, ${percent(ofWrite)} % write`,
      band: null
    }
  ];
}

function trimRows(report: PlanReport): FigureRow[] {
  const trim = resultOf(report, 'trim');
  if (trim === undefined) return [];
  const range = report.trim?.onceWrittenGB ? 'the cache shrinks without it' : '';
  return [{ key: 'trim', label: 'TRIM gets through', value: String(trim), unit: '', range, band: null, words: true }];
}

function filesystemRows(report: PlanReport): FigureRow[] {
  const { filesystem, scheme, allocationUnit } = report.filesystem.first;
  const usable = resultOf(report, 'capacity.usable');
  const rows: FigureRow[] = [
    {
      key: 'filesystem.first',
      label: 'Filesystem',
      value: FILESYSTEMS[filesystem].label,
      unit: scheme.toUpperCase(),
      range: allocationUnit ?? '',
      band: null
    }
  ];
  if (typeof usable === 'number')
    rows.push({
      key: 'capacity.usable',
      label: 'Usable',
      value: usable.toFixed(2),
      unit: 'TiB',
      range: '',
      band: null
    });
  return rows;
}

const powerRows = ({ power }: PlanReport): FigureRow[] =>
  power
    ? [
        {
          key: 'power.steady',
          label: 'Power, writing',
          value: power.steadyW.typical.toFixed(1),
          unit: 'W',
          range: `${power.steadyW.low.toFixed(1)} – ${power.steadyW.high.toFixed(1)}`,
          band: null
        }
      ]
    : [];

const costRows = ({ cost }: PlanReport): FigureRow[] =>
  cost
    ? [
        {
          key: 'cost.total',
          label: 'Price delivered',
          ...split(money(cost.total, cost.currency)),
          range: '',
          band: null
        },
        {
          key: 'cost.perTB',
          label: 'Per TB',
          value: cost.perTB.toFixed(2),
          unit: `${cost.currency}/TB`,
          range: `${cost.perTiBUsable.toFixed(2)} per TiB`,
          band: null
        }
      ]
    : [];

/** Lists the figures of a plan in the order in which a person asks for them. Keys are those of the workings. */
export function figureRows(report: PlanReport): FigureRow[] {
  const { throughput, cache, job } = report;
  return [
    ...wouldRows(report),
    ...speed('throughput.read', 'Read', throughput.read),
    ...speed('throughput.write', 'Write', throughput.write),
    ...speed('throughput.sustainedWrite', 'Write after the cache', throughput.sustainedWrite),
    ...speed('throughput.random4kRead', 'Random 4 KiB read', throughput.random4kRead),
    ...speed('throughput.random4kWrite', 'Random 4 KiB write', throughput.random4kWrite),
    ...cacheRow('cache.cliffAtGB', cache.cliffAtGB),
    ...jobRow('job.seconds', job?.seconds, report.measured),
    ...limitRows(report),
    ...reachableRows(report),
    ...trimRows(report),
    ...heatRows(report),
    ...stackRows(report),
    ...filesystemRows(report),
    ...powerRows(report),
    ...costRows(report)
  ];
}

/** Pads of chips of one kind in one gap are one row; the first of them has the working. */
function stackRows(report: PlanReport): FigureRow[] {
  const seen = new Set<string>();
  return report.stack.components.flatMap((row, i) => {
    const key = `${row.role} ${row.side} ${row.gapMm} ${row.pads.join()}`;
    if (seen.has(key)) return [];
    seen.add(key);
    return [
      {
        key: `stack.${i}`,
        label: row.role === 'nand' ? `Pad, NAND ${row.side}` : `Pad, ${row.role}`,
        value: row.pads.length > 0 ? row.pads.map((t) => t.toFixed(1)).join(' + ') : 'none',
        unit: row.pads.length > 0 ? 'mm' : '',
        range: row.pads.length > 0 ? `${figure(row.compressionPercent)} % · ${row.verdict.replace('-', ' ')}` : 'bare',
        band: null
      }
    ];
  });
}

/** How warm it gets, and when it throttles. */
function heatRows({ thermal, throughput }: PlanReport): FigureRow[] {
  if (!thermal || !throughput.write) return [];
  const degrees = (key: string, label: string, band: Band): FigureRow => ({
    key,
    label,
    value: band.typical.toFixed(0),
    unit: '°C',
    range: `${band.low.toFixed(0)} – ${band.high.toFixed(0)}`,
    band: null
  });
  const { throttleAfterS } = thermal;
  return [
    degrees('thermal.case', 'Case, long write', thermal.steadyCaseC),
    degrees(
      'thermal.controller',
      thermal.steadyNandC ? 'Chip, long write' : 'Disk, long write',
      thermal.steadyControllerC
    ),
    ...(throttleAfterS
      ? [
          {
            key: 'thermal.throttle',
            label: 'Throttles after',
            ...split(duration(throttleAfterS.typical)),
            range: spanOf(throttleAfterS),
            band: null
          }
        ]
      : [])
  ];
}

function split(text: string): { value: string; unit: string } {
  const [value = '', unit = ''] = text.split('\u202f');
  return { value, unit };
}
