import { describe, expect, it } from 'vitest';
import { randomCrate } from '../../tests/random-crate';
import { HOUSE_RULE_IDS, HOUSE_RULES, type HouseRuleId } from '../house-rules/house-rules';
import { seeded } from '../quantities/random';
import { plan } from './plan';
import { planReportSchema, type PlanInput } from './report';

const SIZES = { hosts: 3, portsEach: 2, cables: 5, enclosures: 8, drives: 10 };

/** Plans over parts of every kind, with every school on a random side. */
function* randomInputs(seed: number, count: number): Generator<PlanInput> {
  const crate = randomCrate(seed, SIZES);
  const random = seeded(seed + 1000);
  const some = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  for (let i = 0; i < count; i++) {
    const host = some(crate.hosts);
    const houseRules = Object.fromEntries(
      HOUSE_RULE_IDS.filter(() => random() < 0.5).map((id) => [id, some(Object.keys(HOUSE_RULES[id].choices))])
    );
    yield {
      host,
      portId: some(host.ports).id,
      ...(crate.cables.length > 0 && random() < 0.8 ? { cable: some(crate.cables) } : {}),
      enclosure: some(crate.enclosures),
      drive: some(crate.drives),
      ...(crate.pads ? { pads: crate.pads } : {}),
      ...(random() < 0.8 ? { job: crate.job } : {}),
      quotes: crate.quotes ?? [],
      houseRules
    };
  }
}

describe('whatever the parts are', () => {
  it.each([11, 12, 13, 14, 15, 16])('crate %i: a plan is what its schema says, and the same twice', (seed) => {
    for (const input of randomInputs(seed, 40)) {
      const report = plan(input);
      const parsed = planReportSchema.safeParse(report);
      expect(parsed.error?.issues ?? []).toEqual([]);
      expect(JSON.parse(JSON.stringify(report))).toEqual(JSON.parse(JSON.stringify(plan(input))));
      expect(JSON.stringify(report)).not.toMatch(/NaN|undefined|Infinity/);
    }
  });
  it.each([21, 22, 23])('crate %i: the verdict is the worst finding, each with its reason', (seed) => {
    for (const input of randomInputs(seed, 40)) {
      const report = plan(input, { workings: false });
      const worst = (['fail', 'check', 'limit'] as const).find((s) => report.findings.some((f) => f.severity === s));
      expect(report.verdict).toBe({ fail: 'fails', check: 'check', limit: 'limited', none: 'works' }[worst ?? 'none']);
      for (const { code, reason, message } of report.findings) {
        expect(reason.length, code).toBeGreaterThan(20);
        expect(reason, code).not.toBe(message);
      }
      // said worst first, as a reader takes them
      const order = report.findings.map(({ severity }) => ['fail', 'check', 'limit', 'note'].indexOf(severity));
      expect(order).toEqual([...order].sort((a, b) => a - b));
    }
  });
  it.each([31, 32, 33])('crate %i: bands are in order, and shares are shares', (seed) => {
    for (const input of randomInputs(seed, 40)) {
      const { throughput, reachable, cache, job, trim } = plan(input, { workings: false });
      for (const band of [
        ...Object.values(throughput),
        cache.cliffAtGB,
        job?.seconds ?? null,
        trim?.onceWrittenGB ?? null
      ]) {
        if (!band) continue;
        expect(band.low).toBeGreaterThanOrEqual(0);
        expect(band.typical).toBeGreaterThanOrEqual(band.low);
        expect(band.high).toBeGreaterThanOrEqual(band.typical);
      }
      for (const percent of [reachable?.readPercent, reachable?.writePercent]) {
        if (percent === undefined || percent === null) continue;
        expect(percent).toBeGreaterThan(0);
        expect(percent).toBeLessThanOrEqual(100);
      }
    }
  });
  it.each([41, 42, 43])('crate %i: the ways of a job add up to its typical time', (seed) => {
    for (const input of randomInputs(seed, 40)) {
      const { job } = plan(input, { workings: false });
      if (!job) continue;
      const sum = job.ways.reduce((total, way) => total + way.seconds, 0);
      expect(sum / job.seconds.typical).toBeCloseTo(1, 6);
      for (const { seconds, MBps, spent } of job.ways) {
        expect((spent.bytes + spent.afterCliff + spent.files + spent.throttled) / seconds).toBeCloseTo(1, 9);
        expect((MBps * seconds) / 1000).toBeCloseTo(input.job!.transferGB, 6);
      }
    }
  });
  it.each([51, 52, 53])('crate %i: a school that decided is known, once, on the side that was chosen', (seed) => {
    for (const input of randomInputs(seed, 40)) {
      const decided = plan(input, { workings: false }).houseRules;
      expect(new Set(decided.map((d) => d.school)).size).toBe(decided.length);
      for (const { school, choice, own, effect } of decided) {
        const id = school as HouseRuleId;
        expect(HOUSE_RULE_IDS).toContain(id);
        expect(own).toBe(input.houseRules?.[id] !== undefined);
        expect(choice).toBe(input.houseRules?.[id] ?? HOUSE_RULES[id].standard);
        expect(effect).toMatch(/^\S.*[^.]$/s);
      }
    }
  });
  it('where nothing works there are no figures to be had: no rates, no TRIM, no share, no job', () => {
    let failed = 0;
    for (const input of randomInputs(61, 120)) {
      const report = plan(input, { workings: false });
      if (report.throughput.read !== null) continue;
      failed += 1;
      expect(report.verdict).toBe('fails');
      expect(report.trim).toBeNull();
      expect(report.reachable).toBeNull();
      expect(report.job).toBeUndefined();
      expect(report.link.stages).toEqual([]);
    }
    expect(failed).toBeGreaterThan(10);
  });
});
