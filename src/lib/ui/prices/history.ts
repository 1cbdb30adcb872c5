import type { Data } from 'plotly.js';
import { deliveredPrice } from '#core/cost/delivered-price';
import type { Quote } from '#core/parts/quote';
import { plotText } from '../common/plot-text';

/** Landed prices over time, a step line a vendor and currency, and the target price as a dotted line. */
export function priceTraces(
  quotes: readonly Quote[],
  target: { amount: number; currency: string } | undefined
): Data[] {
  const lines = new Map<string, Quote[]>();
  for (const quote of quotes) {
    const name = `${quote.vendor}, ${quote.currency}`;
    lines.set(name, [...(lines.get(name) ?? []), quote]);
  }
  const traces: Data[] = [...lines].map(([name, list]) => {
    const byDay = [...list].sort((a, b) => (a.date < b.date ? -1 : 1));
    return {
      type: 'scatter',
      mode: 'lines+markers',
      name: plotText(name),
      line: { shape: 'hv' },
      x: byDay.map((quote) => quote.date),
      y: byDay.map((quote) => Number(deliveredPrice(quote).toFixed(2))),
      hovertemplate: '%{x}<br>%{y:.2f}<extra>%{fullData.name}</extra>'
    };
  });
  const days = quotes.map((quote) => quote.date).sort();
  if (target && days.length > 0)
    traces.push({
      type: 'scatter',
      mode: 'lines',
      name: `target, ${target.currency}`,
      line: { dash: 'dot' },
      x: [days[0]!, days.at(-1)!],
      y: [target.amount, target.amount]
    });
  return traces;
}

/** How old a date is, in the largest unit that fits: `today`, `12 days`, `5 months`. */
export function age(date: string, today: string): string {
  const days = Math.round((Date.parse(today) - Date.parse(date)) / 86_400_000);
  if (days <= 0) return 'today';
  if (days === 1) return '1 day';
  if (days < 60) return `${days} days`;
  return `${Math.round(days / 30.4)} months`;
}
