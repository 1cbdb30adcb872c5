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
          label: `The job takes${measured ? (measured.simulated ? ', from simulated rates' : ', from measured rates') : ''}`,
          ...split(duration(seconds.typical)),
          range: `${duration(seconds.low)} – ${duration(seconds.high)}`,
          band: null
        }
      ]
    : [];

const speed = (key: string, label: string, band: Band | null): FigureRow[] =>
  band
    ? [{ key, label, value: rate(band.typical), unit: 'MB/s', range: `${rate(band.low)} – ${rate(band.high)}`, band }]
    : [];

/** The figures of a plan in the order in which a person asks for them. Keys are those of the workings. */
export function figureRows(report: PlanReport): FigureRow[] {
  const { throughput, cache, job, cost, filesystem } = report;
  const workingOf = (key: string) => report.workings.find((w) => w.figure === key);
  const usable = workingOf('capacity.usable')?.result;
  const limit = workingOf('job.limit');
  const trim = workingOf('trim');
  /** Advertised against reachable: reading, and writing beside it. */
  const [ofRead, ofWrite] = (['read', 'write'] as const).map((of) => workingOf(`reachable.${of}`)?.result);
  const percent = (value: unknown) => (typeof value === 'number' ? value.toFixed(0) : '–');
  return [
    ...wouldRows(report),
    ...speed('throughput.read', 'Read', throughput.read),
    ...speed('throughput.write', 'Write', throughput.write),
    ...speed('throughput.sustainedWrite', 'Write after the cache', throughput.sustainedWrite),
    ...speed('throughput.random4kRead', 'Random 4 KiB read', throughput.random4kRead),
    ...speed('throughput.random4kWrite', 'Random 4 KiB write', throughput.random4kWrite),
    ...cacheRow('cache.cliffAtGB', cache.cliffAtGB),
    ...jobRow('job.seconds', job?.seconds, report.measured),
    ...(limit
      ? [
          {
            key: 'job.limit',
            label: 'The job waits for',
            value: typeof limit.result === 'string' ? limit.result : '',
            unit: '',
            range: '',
            band: null,
            words: true
          }
        ]
      : []),
    ...(typeof ofRead === 'number' || typeof ofWrite === 'number'
      ? [
          {
            key: typeof ofRead === 'number' ? 'reachable.read' : 'reachable.write',
            label: 'Of its read rating',
            value: percent(ofRead),
            unit: '%',
            range: `${percent(ofWrite)} % of its write`,
            band: null
          }
        ]
      : []),
    ...(trim
      ? [
          {
            key: 'trim',
            label: 'TRIM gets through',
            value: String(trim.result),
            unit: '',
            range: report.trim?.onceWrittenGB ? 'the cache shrinks without it' : '',
            band: null,
            words: true
          }
        ]
      : []),
    ...heatRows(report),
    ...stackRows(report),
    {
      key: 'filesystem.first',
      label: 'Filesystem',
      value: FILESYSTEMS[filesystem.first.filesystem].label,
      unit: filesystem.first.scheme.toUpperCase(),
      range: filesystem.first.allocationUnit ?? '',
      band: null
    },
    ...(typeof usable === 'number'
      ? [{ key: 'capacity.usable', label: 'Usable', value: usable.toFixed(2), unit: 'TiB', range: '', band: null }]
      : []),
    ...(report.power
      ? [
          {
            key: 'power.steady',
            label: 'Power, writing',
            value: report.power.steadyW.typical.toFixed(1),
            unit: 'W',
            range: `${report.power.steadyW.low.toFixed(1)} – ${report.power.steadyW.high.toFixed(1)}`,
            band: null
          }
        ]
      : []),
    ...(cost
      ? [
          {
            key: 'cost.total',
            label: 'Price, landed',
            ...split(money(cost.total, cost.currency)),
            range: '',
            band: null
          },
          {
            key: 'cost.perTB',
            label: 'Per terabyte',
            value: cost.perTB.toFixed(2),
            unit: `${cost.currency}/TB`,
            range: `${cost.perTiBUsable.toFixed(2)} usable TiB`,
            band: null
          }
        ]
      : [])
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
        label: `Pad on the ${row.role === 'nand' ? `NAND, ${row.side}` : row.role}`,
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
    degrees('thermal.case', 'Case, settled', thermal.steadyCaseC),
    degrees(
      'thermal.controller',
      thermal.steadyNandC ? 'Controller, settled' : 'Disk, settled',
      thermal.steadyControllerC
    ),
    ...(throttleAfterS
      ? [
          {
            key: 'thermal.throttle',
            label: 'Throttles after',
            ...split(duration(throttleAfterS.typical)),
            range: `${duration(throttleAfterS.low)} – ${duration(throttleAfterS.high)}`,
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
