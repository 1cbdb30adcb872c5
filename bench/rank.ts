import { plan } from '#core/plan/plan';
import { rank } from '#core/compare/ranking/rank';
import type { RankInput } from '#core/compare/ranking/request';
import { randomCrate } from '../tests/random-crate.ts';

/**
 * Every combination of 200 drives, 200 enclosures, 20 ports and 30 cables: the ranking beside the uncut loop, which asks `plan()`
 * about each combination. The loop is timed on a sample spread over all of them, in turn with the ranking, for all of them would take
 * minutes. Prints; nothing here is a pass or a fail.
 */
const SIZES = { hosts: 5, portsEach: 4, cables: 30, enclosures: 200, drives: 200 };
const SAMPLE = 40_000;

function uncut(crate: RankInput, count: number): number {
  const {
    hosts,
    cables,
    enclosures,
    drives,
    weights: _w,
    filters: _f,
    stock: _s,
    limit: _l,
    measured: _m,
    ...rest
  } = crate;
  const ports = hosts.flatMap((host) => host.ports.map((port) => ({ host, portId: port.id })));
  const quotes = crate.quotes!.filter((_, i) => i < 3);
  const total = ports.length * cables.length * enclosures.length * drives.length;
  const step = Math.floor(total / count) | 1;
  const from = performance.now();
  for (let n = 0, i = 0; n < count; n++, i = (i + step) % total) {
    const port = ports[i % ports.length]!;
    const cable = cables[Math.floor(i / ports.length) % cables.length]!;
    const enclosure = enclosures[Math.floor(i / ports.length / cables.length) % enclosures.length]!;
    const drive = drives[Math.floor(i / ports.length / cables.length / enclosures.length)]!;
    plan({ ...rest, quotes, ...port, cable, enclosure, drive }, { workings: false });
  }
  return (performance.now() - from) / count;
}

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
const mb = () => process.memoryUsage().rss / 1e6;

export function benchRank(rounds = 5): void {
  console.log('\nranking 24 million combinations, ms (median of rounds)');
  for (const [name, plain] of [
    ['mixed crate: NVMe, SATA, disks', false],
    ['all M.2 NVMe: nothing is cut short', true]
  ] as const) {
    const crate = randomCrate(11, SIZES, { plain });
    const cut: number[] = [];
    const top: number[] = [];
    const loop: number[] = [];
    let report = rank({ ...crate, limit: 0 });
    for (let i = 0; i < rounds; i++) {
      let from = performance.now();
      report = rank({ ...crate, limit: 0 });
      cut.push(performance.now() - from);
      from = performance.now();
      rank({ ...crate, limit: 100 });
      top.push(performance.now() - from);
      loop.push(uncut(crate, SAMPLE));
    }
    const all = median(loop) * report.considered;
    console.log(
      `${name}: ${(report.considered / 1e6).toFixed(1)} million, ${report.accepted} accepted, frontier of ${report.frontier.length}`
    );
    console.log(
      `  frontier and counts ${median(cut).toFixed(0)}; with the first 100 rows ${median(top).toFixed(0)}; uncut loop ${all.toFixed(0)}` +
        ` (${(median(loop) * 1000).toFixed(1)} µs each, sampled); ${(all / median(cut)).toFixed(0)} times; memory ${mb().toFixed(0)} MB`
    );
  }
}
