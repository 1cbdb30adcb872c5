import { describe, expect, it } from 'vitest';
import { randomCrate } from '../../../tests/random-crate';
import { plan } from '../../plan/plan';
import { rank } from './rank';
import { compareIds } from './combination';
import {
  CRITERIA,
  rankInputSchema,
  USUAL_WEIGHTS,
  type Combination,
  type Filters,
  type RankInput,
  type Weights
} from './request';

type Row = Combination & {
  verdict: string;
  sustained: number;
  read: number;
  seconds: number;
  cost: number | null;
  perTB: number | null;
  score: number;
};

/** The same ranking the long way: `plan()` on every combination, everything compared with everything. */
function theLongWay(input: RankInput, weights: Weights, filters: Filters, currency: string | null) {
  const rejected = new Map<string, number>();
  const rows: Row[] = [];
  let considered = 0;
  let filtered = 0;
  for (const host of input.hosts)
    for (const port of host.ports)
      for (const enclosure of input.enclosures)
        for (const cable of enclosure.captiveCable || input.cables.length === 0 ? [undefined] : input.cables)
          for (const drive of input.drives) {
            considered += 1;
            const {
              hosts: _h,
              cables: _c,
              enclosures: _e,
              drives: _d,
              weights: _w,
              filters: _f,
              stock,
              limit: _l,
              measured: _m,
              ...rest
            } = input;
            const report = plan({ ...rest, host, portId: port.id, cable, enclosure, drive }, { workings: false });
            const fail = report.findings.find((finding) => finding.severity === 'fail');
            if (fail) {
              rejected.set(fail.code, (rejected.get(fail.code) ?? 0) + 1);
              continue;
            }
            const priced = report.cost !== null && report.cost.currency === currency;
            const cost = priced ? report.cost!.total : null;
            // Pads that the stack takes and that are not in the box; on chips that are only assumed nobody cuts any.
            const used = report.stack.from === 'stated' ? report.stack.components.flatMap((row) => row.pads) : [];
            const pads = (input.pads ?? []).filter(
              ({ thicknessMm }) =>
                used.includes(thicknessMm) &&
                !enclosure.includedPads?.some((boxed) => boxed.thicknessMm === thicknessMm)
            );
            const toBuy = [drive, enclosure, ...(cable ? [cable] : []), ...pads].filter((part) => !stock?.[part.id!]);
            const sustained = report.throughput.sustainedWrite!.typical;
            const out =
              (filters.verdicts && !filters.verdicts.includes(report.verdict as 'works')) ||
              (filters.minSustainedWriteMBps !== undefined && sustained < filters.minSustainedWriteMBps) ||
              (filters.minCapacityTB !== undefined && drive.capacityTB < filters.minCapacityTB) ||
              (filters.maxCost !== undefined && !(cost !== null && cost <= filters.maxCost)) ||
              (filters.ownedOnly && toBuy.length > 0);
            if (out) {
              filtered += 1;
              continue;
            }
            rows.push({
              hostId: host.id!,
              portId: port.id,
              ...(cable ? { cableId: cable.id! } : {}),
              enclosureId: enclosure.id!,
              driveId: drive.id!,
              verdict: report.verdict,
              sustained,
              read: report.throughput.read!.typical,
              seconds: report.job!.seconds.typical,
              cost,
              perTB: priced ? report.cost!.perTB : null,
              score: 0
            });
          }
  const value = (row: Row, c: (typeof CRITERIA)[number]) =>
    ({ sustainedWrite: row.sustained, read: row.read, seconds: row.seconds, cost: row.cost, perTB: row.perTB })[c];
  const higher = { sustainedWrite: true, read: true, seconds: false, cost: false, perTB: false };
  for (const c of CRITERIA) {
    const known = rows.map((row) => value(row, c)).filter((v) => v !== null);
    if (known.length === 0 || weights[c] === 0) continue;
    const [low, high] = [Math.min(...known), Math.max(...known)];
    const [best, worst] = higher[c] ? [high, low] : [low, high];
    for (const row of rows) {
      const v = value(row, c) ?? worst;
      // a cent is the least that anything costs
      const floor = c === 'cost' || c === 'perTB' ? 0.01 : 1e-3;
      const [b, x] = [Math.max(best, floor), Math.max(v, floor)];
      row.score += weights[c] * Math.log(higher[c] ? x / b : b / x);
    }
  }
  rows.sort(
    (a, b) => b.score - a.score || (a.cost ?? Number.MAX_VALUE) - (b.cost ?? Number.MAX_VALUE) || compareIds(a, b)
  );
  const beaten = (row: Row) =>
    rows.some(
      (other) =>
        other.cost !== null &&
        other.cost <= row.cost! &&
        other.sustained >= row.sustained &&
        (other.cost < row.cost! || other.sustained > row.sustained)
    );
  // Only one of each cost can be on the frontier: it is enough to test the fastest.
  const frontier = rows.filter((row) => row.cost !== null && !beaten(row));
  return { considered, filtered, rows, rejected, frontier };
}

const SIZES = [
  { hosts: 2, portsEach: 2, cables: 3, enclosures: 6, drives: 8 },
  { hosts: 3, portsEach: 3, cables: 5, enclosures: 9, drives: 12 },
  { hosts: 1, portsEach: 1, cables: 1, enclosures: 4, drives: 5 },
  { hosts: 4, portsEach: 2, cables: 6, enclosures: 8, drives: 8 }
];
const FILTERS: Filters[] = [
  {},
  {},
  { verdicts: ['works', 'limited'] },
  { minSustainedWriteMBps: 400, minCapacityTB: 1 },
  { maxCost: 220 },
  { ownedOnly: true }
];
const WEIGHTS: Weights[] = [
  USUAL_WEIGHTS,
  { sustainedWrite: 0, read: 2, seconds: 0, cost: 1, perTB: 0 },
  { sustainedWrite: 1, read: 1, seconds: 1, cost: 1, perTB: 1 },
  { sustainedWrite: 0, read: 0, seconds: 0, cost: 0, perTB: 0 }
];

describe('ranking every combination', () => {
  it.each(Array.from({ length: 50 }, (_, seed) => seed))(
    'crate %i: every row, figure, order and count as plan() says',
    (seed) => {
      const crate = randomCrate(seed, SIZES[seed % SIZES.length]!);
      const weights = WEIGHTS[seed % WEIGHTS.length]!;
      const filters = FILTERS[seed % FILTERS.length]!;
      const fast = rank({ ...crate, weights, filters, limit: 5000 });
      const slow = theLongWay(crate, weights, filters, fast.currency);
      expect(slow.considered).toBeLessThanOrEqual(5000);
      expect(fast.considered).toBe(slow.considered);
      expect(fast.accepted).toBe(slow.rows.length);
      expect(fast.filtered).toBe(slow.filtered);
      expect(Object.fromEntries(fast.rejected.map((r) => [r.code, r.count]))).toEqual(
        Object.fromEntries(slow.rejected)
      );
      expect(
        fast.rows.map(
          ({
            hostId,
            portId,
            cableId,
            enclosureId,
            driveId,
            verdict,
            sustainedWrite,
            read,
            seconds,
            cost,
            perTB,
            score
          }) => ({
            hostId,
            portId,
            ...(cableId ? { cableId } : {}),
            enclosureId,
            driveId,
            verdict,
            sustained: sustainedWrite.typical,
            read: read.typical,
            seconds,
            cost,
            perTB,
            score
          })
        )
      ).toEqual(slow.rows);
      const key = (c: Combination) => [c.hostId, c.portId, c.cableId, c.enclosureId, c.driveId].join();
      expect(
        fast.rows
          .filter((row) => row.frontier)
          .map(key)
          .sort()
      ).toEqual(slow.frontier.map(key).sort());
      const tbCount = slow.rows.filter(
        (row) =>
          row.perTB !== null &&
          !slow.rows.some(
            (o) =>
              o.perTB !== null &&
              o.perTB <= row.perTB! &&
              o.sustained >= row.sustained &&
              (o.perTB < row.perTB! || o.sustained > row.sustained)
          )
      ).length;
      expect(fast.frontierPerTB.reduce((sum, point) => sum + point.count, 0)).toBe(tbCount);
      expect(fast.frontier.reduce((sum, point) => sum + point.count, 0)).toBe(slow.frontier.length);
    }
  );

  it('has crates worth ranking: with rows, with frontiers, with every kind of rejection', () => {
    const codes = new Set<string>();
    let rows = 0;
    for (let seed = 0; seed < 50; seed++) {
      const report = rank({ ...randomCrate(seed, SIZES[seed % SIZES.length]!), limit: 5000 });
      rows += report.rows.length;
      for (const { code } of report.rejected) codes.add(code);
    }
    expect(rows).toBeGreaterThan(2000);
    for (const code of [
      'form-factor-mismatch',
      'm2-length-unsupported',
      'protocol-unsupported',
      'plug-mismatch',
      'no-common-link-mode',
      'port-power-short',
      'job-does-not-fit',
      'external-supply-needed',
      'double-sided-no-clearance',
      'heatsink-blocks-lid'
    ])
      expect([...codes]).toContain(code);
  });

  it('the first rows are the first rows, however few are asked for', () => {
    const crate = randomCrate(3, SIZES[1]!);
    const all = rank({ ...crate, limit: 5000 });
    for (const limit of [1, 2, 7, 40]) expect(rank({ ...crate, limit }).rows).toEqual(all.rows.slice(0, limit));
    const none = rank({ ...crate, limit: 0 });
    expect(none.rows).toEqual([]);
    expect(none.frontier).toEqual(all.frontier);
    expect(none.rejected).toEqual(all.rejected);
  });

  it('tells how far it is', () => {
    const shares: number[] = [];
    rank(randomCrate(1, SIZES[1]!), (share) => shares.push(share));
    expect(shares.at(-1)).toBe(1);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
  });

  it('examples of what was rejected are rejected for that', () => {
    const crate = randomCrate(5, SIZES[1]!);
    for (const { code, examples } of rank(crate).rejected)
      for (const { hostId, portId, cableId, enclosureId, driveId } of examples.slice(0, 5)) {
        const find = <T extends { id?: string | undefined }>(list: readonly T[], id: string | undefined) =>
          list.find((part) => part.id === id);
        const report = plan({
          host: find(crate.hosts, hostId)!,
          portId,
          cable: find(crate.cables, cableId),
          enclosure: find(crate.enclosures, enclosureId)!,
          drive: find(crate.drives, driveId)!,
          job: crate.job
        });
        expect(report.findings.find((f) => f.severity === 'fail')?.code).toBe(code);
      }
  });

  it('the random crates are valid input', () => {
    for (let seed = 0; seed < 50; seed++) {
      const parsed = rankInputSchema.safeParse(randomCrate(seed, SIZES[seed % SIZES.length]!));
      expect(parsed.error?.issues ?? []).toEqual([]);
    }
  });
});
