import type { Data } from 'plotly.js';
import type { AlternativePoint, FrontierPoint, RankRow } from '#core/compare/ranking/request';
import { money, rate } from '#core/quantities/format';
import { plotText } from '../common/plot-text';

type Named = (row: Pick<RankRow, 'hostId' | 'portId' | 'cableId' | 'enclosureId' | 'driveId'>) => string;
export const keyOf = (c: Pick<RankRow, 'hostId' | 'portId' | 'cableId' | 'enclosureId' | 'driveId'>): string =>
  [c.hostId, c.portId, c.cableId ?? '', c.enclosureId, c.driveId].join('~');

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
  const right = Math.max(0, ...[...priced, ...drawn].map(({ perTB }) => perTB!));
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
      // A name begins at its point, and near the right edge it ends there.
      textposition: drawn.map((way) => (way.perTB! > right * 0.6 ? 'middle left' : 'middle right')),

      cliponaxis: false,
      x: drawn.map((way) => Number(way.perTB!.toFixed(2))),
      y: drawn.map((way) => way.write!),
      text: drawn.map((way) => ` ${plotText(way.name)} `),
      hovertemplate: `%{text}<br>%{x:.2f} ${currency}/TB, %{y:.0f} MB/s<extra>no forecast of a cache</extra>`
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
