import type { Data } from 'plotly.js';
import type { AlternativePoint, FrontierPoint, RankRow } from '#core/compare/ranking/request';
import { money, rate } from '#core/quantities/format';
import { plotText } from '../common/plot-text';
import { placeLabels, type Place } from '../geometry/labels';

type Named = (row: Pick<RankRow, 'hostId' | 'portId' | 'cableId' | 'enclosureId' | 'driveId'>) => string;
export const keyOf = (c: Pick<RankRow, 'hostId' | 'portId' | 'cableId' | 'enclosureId' | 'driveId'>): string =>
  [c.hostId, c.portId, c.cableId ?? '', c.enclosureId, c.driveId].join('~');

type Spot = { perTB: number; write: number };
/** About the size in which the chart is drawn, px: names need not be placed to the pixel. */
const SIZE = { width: 550, height: 190 };
const STEPS = 30;

/** Points along the steps of a line, so that names keep off it. */
const alongSteps = (points: readonly Spot[]): Spot[] =>
  points.flatMap((point, i) => {
    const next = points[i + 1];
    if (!next) return [point];
    const across = Array.from({ length: STEPS }, (_, n) => ({
      perTB: point.perTB + ((next.perTB - point.perTB) * n) / STEPS,
      write: point.write
    }));
    const up = Array.from({ length: STEPS }, (_, n) => ({
      perTB: next.perTB,
      write: point.write * (next.write / point.write) ** (n / STEPS)
    }));
    return [...across, ...up];
  });

/** Where each name stands: over no other, and where it can be over no mark and no line. The write is drawn by its logarithm. */
function placesOf(named: readonly (Spot & { text: string })[], marks: readonly Spot[]): Place[] {
  const all = [...named, ...marks].filter(({ write }) => write > 0);
  const right = Math.max(1, ...all.map(({ perTB }) => perTB)) * 1.05;
  const logs = all.map(({ write }) => Math.log(write));
  const [low, high] = [Math.min(...logs) - 0.2, Math.max(...logs) + 0.2];
  const toPlot = ({ perTB, write }: Spot) => ({
    x: (perTB / right) * SIZE.width,
    y: SIZE.height * (1 - (Math.log(Math.max(write, 1e-6)) - low) / (high - low))
  });
  return placeLabels(
    named.map((spot) => ({ ...toPlot(spot), text: spot.text })),
    marks.map(toPlot),
    SIZE
  );
}

/** More names than this nobody could read; the others are told where one points at them. */
const MOST_NAMES = 12;

/** Which ready-made things are named: where there are many, those that no other one beats in price and write both. */
function namedOnes(ways: readonly Spot[]): Set<number> {
  const all = ways.map((_, i) => i);
  if (all.length <= MOST_NAMES) return new Set(all);
  const byPrice = all.sort((a, b) => ways[a]!.perTB - ways[b]!.perTB || ways[b]!.write - ways[a]!.write);
  let fastest = 0;
  const best = byPrice.filter((i) => {
    const better = ways[i]!.write > fastest;
    fastest = Math.max(fastest, ways[i]!.write);
    return better;
  });
  return new Set(best.slice(0, MOST_NAMES));
}

/**
 * Price of a terabyte against the write after the cache: the rows that are shown, at hand and to buy, the frontier of all of them,
 * and what is ready-made. What has no price has no place here.
 */
// eslint-disable-next-line max-params -- a chart is data: what it shows, and its three labels
export function rankTraces(
  rows: readonly RankRow[],
  frontier: readonly FrontierPoint[],
  ways: readonly AlternativePoint[],
  nameOf: Named,
  capacityOf: (driveId: string) => number,
  currency: string
): Data[] {
  const priced = rows.filter((row) => row.perTB !== null);
  const points = (name: string, list: readonly RankRow[], symbol: string): Data => ({
    type: 'scatter',
    mode: 'markers',
    name,
    marker: { size: 9, symbol },
    x: list.map((row) => Number(row.perTB!.toFixed(2))),
    y: list.map((row) => row.sustainedWrite.typical),
    text: list.map((row) => plotText(nameOf(row))),
    customdata: list.map(keyOf),
    hovertemplate: `%{text}<br>%{x:.2f} ${currency}/TB, %{y:.0f} MB/s<extra></extra>`
  });
  const open = (row: RankRow) => row.toBuy.length > 0;
  const drawn = ways.filter((way) => way.perTB !== null && way.write !== null);
  const marks = [
    ...priced.map((row) => ({ perTB: row.perTB!, write: row.sustainedWrite.typical })),
    ...alongSteps(frontier.map(({ cost, sustainedWrite }) => ({ perTB: cost, write: sustainedWrite })))
  ];
  const ready = drawn.map(({ perTB, write, name }) => ({ perTB: perTB!, write: write!, text: ` ${plotText(name)} ` }));
  const isNamed = namedOnes(ready);
  const places = placesOf(
    ready.filter((_, i) => isNamed.has(i)),
    [...marks, ...ready.filter((_, i) => !isNamed.has(i))]
  );
  const onIt = frontier.map(({ first }) => plotText(nameOf(first)));
  return [
    {
      type: 'scatter',
      mode: 'lines',
      name: 'best for the money: cheapest for its speed',
      line: { shape: 'hv', width: 2 },
      x: frontier.map(({ cost }) => Number(cost.toFixed(2))),
      y: frontier.map(({ sustainedWrite }) => sustainedWrite),
      text: onIt,
      customdata: frontier.map(({ first }) => keyOf(first)),
      hovertemplate: `%{text}<br>%{x:.2f} ${currency}/TB, %{y:.0f} MB/s<extra>best for the money</extra>`
    },
    points(
      'at hand',
      priced.filter((row) => !open(row)),
      'circle'
    ),
    points('something to buy', priced.filter(open), 'circle-open'),
    {
      type: 'scatter',
      mode: 'text+markers',
      name: 'ready-made, as stated',
      marker: { size: 11, symbol: 'diamond' },
      textposition: ready.map((_, i) => (isNamed.has(i) ? places.shift()! : 'middle right')),
      cliponaxis: false,
      x: ready.map(({ perTB }) => Number(perTB.toFixed(2))),
      y: ready.map(({ write }) => write),
      text: ready.map(({ text }, i) => (isNamed.has(i) ? text : '')),
      hovertext: ready.map(({ text }) => text.trim()),
      hovertemplate: `%{hovertext}<br>%{x:.2f} ${currency}/TB, %{y:.0f} MB/s<extra>no forecast of a cache</extra>`
    }
  ].filter((trace) => (trace as { x: unknown[] }).x.length > 0) as Data[];
}

/** The chart in a sentence, for those who do not see it. */
export function chartSummary(frontier: readonly FrontierPoint[], nameOf: Named, currency: string): string {
  const [cheapest, fastest] = [frontier[0], frontier.at(-1)];
  if (!cheapest || !fastest) return 'Nothing here has a price yet.';
  const at = (point: FrontierPoint) =>
    `${nameOf(point.first)}, ${money(point.cost, `${currency}/TB`)} and ${rate(point.sustainedWrite)}\u202fMB/s`;
  return frontier.length === 1
    ? `One is both the cheapest and the fastest: ${at(cheapest)}.`
    : `Best for the money: ${frontier.length} points, from the cheapest (${at(cheapest)}) to the fastest (${at(fastest)}).`;
}
