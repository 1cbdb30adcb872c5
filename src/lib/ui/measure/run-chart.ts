import type { Data, Layout } from 'plotly.js';
import type { Band } from '#core/quantities/band';
import { duration, figure, rate } from '#core/quantities/format';
import type { Series } from '#core/series/series';

/** A stretch of a run, for the chart and its list. */
export type ChartPhase = { label: string; fromS: number; toS: number };

/** The unit of the time axis: seconds for a short run, hours for a long one. */
export function timeUnit(seconds: number): { unit: 's' | 'min' | 'h'; per: number } {
  if (seconds < 180) return { unit: 's', per: 1 };
  return seconds < 4 * 3600 ? { unit: 'min', per: 60 } : { unit: 'h', per: 3600 };
}

/**
 * The rate over time, over the forecast where there is one. What is drawn was measured: the series comes thinned out with every peak and
 * dip in it.
 */
export function rateChart(
  series: Series,
  forecast: Band | null,
  colours: { band: string; ink: string },
  phases: readonly ChartPhase[] = []
): { traces: Data[]; layout: Partial<Layout> } {
  const last = series.t.at(-1) ?? 0;
  const { unit, per } = timeUnit(last);
  const traces: Data[] = [
    {
      type: 'scatter',
      mode: 'lines',
      name: 'rate',
      x: series.t.map((t) => t / per),
      y: series.MBps,
      line: { width: 1.6, color: colours.ink, shape: series.t.length < 200 ? 'vh' : 'linear' },
      hovertemplate: `%{x:.1f} ${unit}: %{y:.0f} MB/s`
    }
  ];
  const layout: Partial<Layout> = {
    xaxis: { title: { text: `time, ${unit}` }, range: [0, Math.max(last / per, 1e-3)] },
    yaxis: { title: { text: 'MB/s' }, rangemode: 'tozero' },
    showlegend: false,
    height: 250,
    shapes: [
      ...phaseMarks(phases, per, colours.band),
      ...(forecast
        ? [
            {
              type: 'rect',
              xref: 'paper',
              x0: 0,
              x1: 1,
              yref: 'y',
              y0: forecast.low,
              y1: forecast.high,
              layer: 'below',
              line: { width: 0 },
              fillcolor: colours.band,
              opacity: 0.35
            } as const
          ]
        : [])
    ]
  };
  return { traces, layout };
}

/** So many steps at most are marked: more would hide the rate. */
const MARKED = 40;

/** A thin line where one step of the protocol ends and the next begins; which is which stands in the list below. */
function phaseMarks(phases: readonly ChartPhase[], per: number, color: string): NonNullable<Layout['shapes']> {
  if (phases.length > MARKED) return [];
  return phases.slice(1).map(({ fromS }) => ({
    type: 'line',
    xref: 'x',
    yref: 'paper',
    x0: fromS / per,
    x1: fromS / per,
    y0: 0,
    y1: 1,
    line: { width: 1, dash: 'dot', color }
  }));
}

/** Something that happened, at its time. */
export type ChartEvent = { atS: number; label: string };

/** How wide a letter of a name is about, and how high a row of names, px; what margins take of the width. */
const NAME = { letter: 6.8, gap: 10, row: 17, margins: 68 } as const;
/** More rows than this would take the place of the chart. */
const MOST_ROWS = 4;

type NamedEvent = ChartEvent & { row: number };

/**
 * Puts names of events into rows, from the last one back: a name that reaches over the lines of later ones stands above their names, so
 * that no name lies over another or over a line. Those that would stand too high have none.
 * @param at where each lies, px
 */
function inRows(events: readonly ChartEvent[], at: (event: ChartEvent) => number): NamedEvent[] {
  const named: NamedEvent[] = [];
  for (const event of [...events].sort((a, b) => b.atS - a.atS)) {
    const [from, to] = [at(event), at(event) + event.label.length * NAME.letter + NAME.gap];
    const crossed = named.filter((other) => at(other) >= from - 1 && at(other) < to);
    const row = crossed.reduce((most, other) => Math.max(most, other.row + 1), 0);
    if (row < MOST_ROWS) named.push({ ...event, row });
  }
  return named;
}

/**
 * Puts the names of events above a chart, each with a line down to its time.
 * @param view time per unit of the axis, what of it is shown, the width in px
 */
export function withEvents(
  layout: Partial<Layout>,
  events: readonly ChartEvent[],
  view: { per: number; range: [number, number]; width: number; color: string }
): Partial<Layout> {
  const { per, range, width, color } = view;
  const plot = Math.max(100, width - NAME.margins);
  const at = ({ atS }: ChartEvent) => ((atS / per - range[0]) / Math.max(1e-9, range[1] - range[0])) * plot;
  const named = inRows(
    events.filter((event) => at(event) >= 0 && at(event) <= plot),
    at
  );
  if (named.length === 0) return layout;
  const rows = Math.max(...named.map(({ row }) => row)) + 1;
  const over = Math.max(...named.map((event) => at(event) + event.label.length * NAME.letter - plot));
  const inner = layout.height ?? 240;
  return {
    ...layout,
    height: inner + rows * NAME.row,
    // What is named near the end has room beside the chart.
    margin: { l: 56, r: Math.max(12, Math.ceil(over)), t: 8 + rows * NAME.row, b: 40 },
    shapes: [
      ...(layout.shapes ?? []),
      ...named.map(
        ({ atS, row }) =>
          ({
            type: 'line',
            xref: 'x',
            yref: 'paper',
            x0: atS / per,
            x1: atS / per,
            y0: 0,
            y1: 1 + ((row + 0.2) * NAME.row) / (inner - 48),
            line: { width: 1, color }
          }) as const
      )
    ],
    annotations: named.map(({ atS, label, row }) => ({
      text: label,
      x: atS / per,
      xref: 'x',
      xshift: 2,
      y: 1,
      yref: 'paper',
      yanchor: 'bottom',
      xanchor: 'left',
      yshift: row * NAME.row,
      showarrow: false,
      font: { size: 12, color }
    }))
  };
}

const TEMPERATURES = [
  ['controllerC', 'drive'],
  ['nandC', 'flash chips'],
  ['caseC', 'case']
] as const;

/** Temperatures under the rate, on the same time. */
export function warmthChart(
  series: Series,
  colours: readonly string[]
): { traces: Data[]; layout: Partial<Layout> } | null {
  const there = TEMPERATURES.filter(([id]) => series[id]);
  if (there.length === 0) return null;
  const { unit, per } = timeUnit(series.t.at(-1) ?? 0);
  return {
    traces: there.map(([id, name], i) => ({
      type: 'scatter',
      mode: 'lines',
      name,
      x: series.t.map((t) => t / per),
      y: series[id] ?? [],
      line: { width: 1.6, color: colours[i] ?? 'gray', dash: (['solid', 'dash', 'dot'] as const)[i] ?? 'solid' },
      hovertemplate: `%{x:.1f} ${unit}: %{y:.1f} °C`
    })),
    layout: {
      xaxis: { title: { text: `time, ${unit}` } },
      yaxis: { title: { text: '°C' } },
      // Names of the lines stand above them.
      margin: { l: 56, r: 12, t: 28, b: 40 },
      legend: { orientation: 'h', y: 1.28 },
      height: 200
    }
  };
}

/** The run in a sentence, for those who do not see the chart. */
export function runInWords(series: Series, forecast: Band | null): string {
  const rates = series.MBps;
  if (rates.length === 0) return 'Nothing sampled yet.';
  const highest = rates.reduce((a, b) => Math.max(a, b), 0);
  const lowest = rates.reduce((a, b) => Math.min(a, b), Infinity);
  const warmest = series.caseC?.reduce((a, b) => Math.max(a, b), -Infinity);
  return [
    `${duration(series.t.at(-1) ?? 0)}, from ${rate(lowest)} to ${rate(highest)} MB/s`,
    forecast ? `forecast ${rate(forecast.low)} to ${rate(forecast.high)} MB/s` : undefined,
    warmest === undefined || !Number.isFinite(warmest) ? undefined : `case at most ${figure(warmest)} °C`
  ]
    .filter(Boolean)
    .join('; ');
}

/** A row of the table beside the chart: a stretch of the time, with its mean and its ends. */
export type SeriesRow = { fromS: number; toS: number; mean: number; low: number; high: number; caseC?: number };

/** The series in a few rows, for a table: each a twelfth of the time. */
export function seriesRows(series: Series, rows = 12): SeriesRow[] {
  const end = series.t.at(-1) ?? 0;
  if (end === 0) return [];
  return Array.from({ length: rows }, (_, k): SeriesRow | undefined => {
    const [fromS, toS] = [(end * k) / rows, (end * (k + 1)) / rows];
    let [moved, seconds, low, high] = [0, 0, Infinity, 0];
    let caseC: number | undefined;
    for (const [i, t] of series.t.entries()) {
      if (t <= fromS || t > toS + 1e-9) continue;
      const step = t - (series.t[i - 1] ?? 0);
      const value = series.MBps[i] ?? 0;
      moved += value * step;
      seconds += step;
      low = Math.min(low, value);
      high = Math.max(high, value);
      caseC = series.caseC?.[i] ?? caseC;
    }
    if (seconds === 0) return undefined;
    return { fromS, toS, mean: moved / seconds, low, high, ...(caseC === undefined ? {} : { caseC }) };
  }).flatMap((row) => row ?? []);
}
