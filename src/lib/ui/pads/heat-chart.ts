import type { Data, Layout } from 'plotly.js';
import type { SimulateReport } from '#core/simulate/simulate';
import { duration, figure, quantity, rate } from '#core/quantities/format';
import { guard } from '#core/tables/table';
import { plotText as plain } from '../common/plot-text';

/** What each event is called on the chart and in its list. */
export const EVENT_WORDS: Record<SimulateReport['events'][number]['kind'], string> = {
  cliff: 'write cache full',
  'host-cliff': 'cache of the other disk full',
  recovered: 'write cache empty again',
  'smr-collapse': 'tracks are rewritten',
  'pass-done': 'end of the disk, round again',
  throttle: 'throttles to half',
  critical: 'critical: a quarter',
  off: 'switches itself off',
  release: 'full rate again',
  turn: 'now the other way',
  done: 'done'
};

export type Run = { name: string; report: SimulateReport };

/** Events worth naming: of a saw-tooth the first turns only, and how many there were. */
export function namedEvents(report: SimulateReport): { t: number; kind: string; words: string }[] {
  const seen = new Map<string, number>();
  const counts = new Map<string, number>();
  for (const { kind } of report.events) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  return report.events.flatMap(({ t, kind }) => {
    const times = (seen.get(kind) ?? 0) + 1;
    seen.set(kind, times);
    if (times > 1) return [];
    const all = counts.get(kind)!;
    return [{ t, kind, words: `${EVENT_WORDS[kind]}${all > 1 ? `, ${all} times in all` : ''}` }];
  });
}

const minutes = (seconds: readonly number[]) => seconds.map((t) => t / 60);
const DASHES = ['solid', 'dash'] as const;

/** Rates over time, the set-ups over each other; each line is named with what it shows and its unit. */
export function rateTraces(runs: readonly Run[]): Data[] {
  return runs.map(({ name, report }, i) => ({
    type: 'scatter',
    mode: 'lines',
    name: plain(name),
    x: minutes(report.samples.t.slice(1)),
    y: report.samples.MBps.slice(1),
    line: { dash: DASHES[i]!, width: 2, shape: 'vh' },
    hovertemplate: '%{x:.1f} min: %{y:.0f} MB/s'
  }));
}

const PLACES = [
  ['controllerC', 'controller'],
  ['nandC', 'NAND'],
  ['caseC', 'case']
] as const;

export function temperatureTraces(runs: readonly Run[], colours: readonly string[]): Data[] {
  return runs.flatMap(({ name, report }, i) =>
    PLACES.flatMap(([key, label], place): Data[] =>
      report.samples[key].length === 0
        ? []
        : [
            {
              type: 'scatter',
              mode: 'lines',
              name: `${report.samples.nandC.length === 0 && key === 'controllerC' ? 'disk' : label}${runs.length > 1 ? `, ${plain(name)}` : ''}`,
              x: minutes(report.samples.t),
              y: report.samples[key],
              line: { dash: DASHES[i]!, width: place === 0 ? 2.5 : 1.5, color: colours[place]! },
              hovertemplate: '%{x:.1f} min: %{y:.1f} °C'
            }
          ]
    )
  );
}

/** An event of one of the runs, with the number that it has on the chart. */
export type NumberedEvent = { number: number; t: number; run: string; words: string };

/** Events of all runs in the order of time, numbered: the numbers stand on the chart, the words in the table beside it. */
export function numberedEvents(runs: readonly Run[]): NumberedEvent[] {
  return runs
    .flatMap(({ name, report }) => namedEvents(report).map(({ t, words }) => ({ t, run: name, words })))
    .sort((a, b) => a.t - b.t)
    .map((event, i) => ({ number: i + 1, ...event }));
}

/** A number takes about this share of the width of a chart, with room around it; so high is a row of numbers, px. */
const NUMBER_WIDTH = 0.032;
const ROW_PX = 14;
const PLOT_PX = 210;

/**
 * Marks of the events of every run: a dotted line, and above the plot its number, in the first row where it stands beside no other.
 * @returns the layout, and how many rows of numbers there are
 */
export function eventMarks(runs: readonly Run[]): { layout: Partial<Layout>; rows: number } {
  const events = numberedEvents(runs);
  const whole = Math.max(1, ...runs.map(({ report }) => report.samples.t.at(-1) ?? 0));
  const ends: number[] = [];
  const placed = events.map(({ t, number }) => {
    const at = t / whole;
    const found = ends.findIndex((end) => at - end >= NUMBER_WIDTH);
    const row = found < 0 ? ends.length : found;
    ends[row] = at;
    return { t, number, row };
  });
  const layout: Partial<Layout> = {
    shapes: events.map(({ t }) => ({
      type: 'line',
      xref: 'x',
      yref: 'paper',
      x0: t / 60,
      x1: t / 60,
      y0: 0,
      y1: 1,
      line: { width: 1, dash: 'dot' }
    })),
    annotations: placed.map(({ t, number, row }) => ({
      x: t / 60,
      y: 1,
      xref: 'x',
      yref: 'paper',
      text: String(number),
      showarrow: false,
      xanchor: 'center',
      yanchor: 'bottom',
      yshift: row * ROW_PX,
      font: { size: 12 }
    }))
  };
  return { layout, rows: ends.length };
}

/** What the chart of rates looks like: its numbers stand between the plot and the legend. */
export function rateLayout(runs: readonly Run[]): Partial<Layout> {
  const { layout, rows } = eventMarks(runs);
  const above = rows * ROW_PX;
  return {
    height: PLOT_PX + 80 + above,
    xaxis: { title: { text: 'minutes' }, rangemode: 'tozero' },
    yaxis: { title: { text: 'MB/s' }, rangemode: 'tozero' },
    margin: { l: 56, r: 12, t: 40 + above, b: 40 },
    legend: { orientation: 'h', y: 1 + (above + 6) / PLOT_PX, yanchor: 'bottom' },
    showlegend: runs.length > 1,
    ...layout
  };
}

/** What the chart of temperatures looks like, as high as the one beside it. */
export function temperatureLayout(runs: readonly Run[]): Partial<Layout> {
  return {
    height: rateLayout(runs).height ?? PLOT_PX,
    xaxis: { title: { text: 'minutes' }, rangemode: 'tozero' },
    yaxis: { title: { text: '°C' } },
    margin: { l: 56, r: 12, t: 48, b: 40 },
    legend: { orientation: 'h', y: 1.02, yanchor: 'bottom' },
    ...limitMark(runs[0]?.report.summary.startC ?? null)
  };
}

/** A line at the temperature where the drive throttles. */
export function limitMark(startC: number | null): Partial<Layout> {
  if (startC === null) return {};
  return {
    shapes: [
      {
        type: 'line',
        xref: 'paper',
        yref: 'y',
        x0: 0,
        x1: 1,
        y0: startC,
        y1: startC,
        line: { width: 1, dash: 'dashdot' }
      }
    ],
    annotations: [
      {
        x: 1,
        y: startC,
        xref: 'paper',
        yref: 'y',
        text: `throttles from ${figure(startC)} °C`,
        showarrow: false,
        xanchor: 'right',
        yanchor: 'top',
        font: { size: 12 }
      }
    ]
  };
}

/** A run in one sentence, with its units. */
export function runSentence({ name, report }: Run): string {
  const { summary, events, samples } = report;
  const last = samples.t.at(-1)!;
  const throttled = events.filter((e) => e.kind === 'throttle').length;
  const moved = samples.t.length > 1 ? (summary.movedGB * 1000) / (summary.doneS ?? last) : 0;
  return `${name}: ${
    summary.doneS === null
      ? `${quantity(summary.movedGB, 'GB')} in ${duration(last)}`
      : `done after ${duration(summary.doneS)}`
  }, ${rate(moved)} MB/s on average; at most ${figure(summary.peakControllerC)} °C at the ${samples.nandC.length === 0 ? 'disk' : 'controller'}, ${figure(
    summary.peakCaseC
  )} °C on the case${throttled > 0 ? `; throttled ${throttled === 1 ? 'once' : `${throttled} times`}` : ''}.`;
}

/** Samples as a table of text that spreadsheets open: one row a sample, a column for each series, units in the heads. */
export function samplesCsv(runs: readonly Run[]): string {
  const heads = ['setup', 't_s', 'MBps', 'writtenGB', 'controllerC', 'nandC', 'caseC', 'simulated'];
  const safe = (text: string) => `"${guard(text).replaceAll('"', '""')}"`;
  const rows = runs.flatMap(({ name, report: { samples } }) =>
    samples.t.map((t, i) =>
      [
        safe(name),
        t.toFixed(1),
        samples.MBps[i]!.toFixed(2),
        samples.writtenGB[i]!.toFixed(4),
        samples.controllerC[i]!.toFixed(2),
        samples.nandC[i]?.toFixed(2) ?? '',
        samples.caseC[i]!.toFixed(2),
        'yes'
      ].join(',')
    )
  );
  return [heads.join(','), ...rows].join('\r\n') + '\r\n';
}
