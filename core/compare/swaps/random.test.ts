import type { Model } from '../../parts/model';
import { untyped } from '../../../tests/untyped';
import { describe, expect, it } from 'vitest';
import { randomCrate } from '../../../tests/random-crate';
import { assemble, libraryOf, type InStock, type Library } from '../../build/assemble';
import type { Choice } from '../../build/choice';
import { optionsAt, CHAIN_PLACES, pickedAt, withPicked } from '../../build/options';
import type { Verdict } from '../../findings/finding';
import { plan } from '../../plan/plan';
import { seeded } from '../../quantities/random';
import { swapsAt } from './swaps';
import { differences } from './difference';
import { fallbacks } from '../../plan/fallback';
import { onAllHosts } from './computers';
import { offersFor } from './offers';
import { together } from '../together/together';
import { whatIf } from './what-if';

const SIZES = { hosts: 3, portsEach: 2, cables: 5, enclosures: 6, drives: 6 };
const SEEDS = [101, 102, 103, 104, 105, 106];
const ORDER: Record<Verdict, number> = { works: 0, limited: 1, check: 2, fails: 3 };

/** A crate as a library, some of it in stock, and choices of it. */
function randomLibrary(seed: number): { library: Library; choices: Choice[] } {
  const crate = randomCrate(seed, SIZES);
  const random = seeded(seed);
  const some = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const job = { ...crate.job, id: '9'.repeat(26) };
  const parts = [...crate.hosts, ...crate.cables, ...crate.enclosures, ...crate.drives, ...(crate.pads ?? [])];
  const stock = new Map<string, InStock>();
  for (const { id } of parts)
    if (random() < 0.5) {
      const inBuild = random() < 0.3;
      stock.set(id!, { owned: 1, free: inBuild ? 0 : 1, builds: inBuild ? ['AC-0001'] : [] });
    }
  const library = libraryOf(
    untyped<(Model & { id: string })[]>(parts),
    [job],
    { quotes: crate.quotes ?? [], houseRules: crate.houseRules ?? {}, knownPairs: crate.knownPairs ?? [] },
    stock
  );
  const choices = Array.from({ length: 12 }, (): Choice => {
    const host = some(crate.hosts);
    return {
      hostId: host.id!,
      portId: some(host.ports).id,
      ...(crate.cables.length > 0 && random() < 0.7 ? { cableId: some(crate.cables).id! } : {}),
      enclosureId: some(crate.enclosures).id!,
      driveId: some(crate.drives).id!,
      ...(random() < 0.6 ? { jobId: job.id } : {})
    };
  });
  return { library, choices };
}
const planOf = (library: Library, choice: Choice, workings = false) => {
  const whole = assemble(library, choice);
  if (!whole.ok) throw new Error('the crate of the test is not whole');
  return plan(whole.input, { workings });
};

describe('an offer keeps its word', () => {
  it.each(SEEDS)('crate %i: put in, the finding is gone, nothing is worse, and the rate is what was said', (seed) => {
    const { library, choices } = randomLibrary(seed);
    for (const choice of choices) {
      const base = planOf(library, choice);
      for (const offer of offersFor(library, choice, base)) {
        const next = withPicked(choice, offer.place, offer.id) as Choice;
        const report = planOf(library, next);
        expect(report.verdict).toBe(offer.verdict);
        expect(report.throughput[offer.direction]?.typical ?? null).toBe(offer.after);
        const had = base.findings.find((f) => f.code === offer.code)!;
        expect(report.findings.some((f) => f.code === offer.code && f.message === had.message)).toBe(false);
        const fails = (r: typeof base) => r.findings.filter((f) => f.severity === 'fail').length;
        if (fails(base) === 0) expect(ORDER[report.verdict]).toBeLessThanOrEqual(ORDER[base.verdict]);
        else expect(fails(report)).toBeLessThan(fails(base));
        const stock = library.stock.get(offer.place === 'port' ? offer.id.split('~')[0]! : offer.id);
        const from = (stock?.free ?? 0) > 0 ? 'free' : (stock?.owned ?? 0) > 0 ? 'in-a-build' : 'to-buy';
        expect(offer.from).toBe(from);
      }
    }
  });
  it('and there are offers to keep', () => {
    const offers = SEEDS.flatMap((seed) => {
      const { library, choices } = randomLibrary(seed);
      return choices.flatMap((choice) => offersFor(library, choice, planOf(library, choice)));
    });
    expect(offers.length).toBeGreaterThan(30);
    expect(new Set(offers.map((o) => o.place)).size).toBeGreaterThan(2);
    expect(new Set(offers.map((o) => o.from)).size).toBe(3);
    for (const { sentence, name } of offers) {
      expect(sentence).toContain(`With ${name}, `);
      expect(sentence).toMatch(/\.$/);
      expect(sentence).not.toMatch(/NaN|undefined|null/);
    }
  });
});

describe('swaps', () => {
  it.each(SEEDS)('crate %i: every other part once, each as its own plan says', (seed) => {
    const { library, choices } = randomLibrary(seed);
    const [choice] = choices;
    const base = planOf(library, choice!);
    for (const place of CHAIN_PLACES) {
      const swaps = swapsAt(library, choice!, place, base);
      const picked = pickedAt(choice!, place);
      const others = optionsAt(library, place).filter((o) => o.id !== picked);
      expect(swaps.map((s) => s.id)).toEqual(others.map((o) => o.id));
      for (const swap of swaps) expect(swap.report).toEqual(planOf(library, swap.choice));
    }
  });
  it.each(SEEDS)('crate %i: a difference there is the difference back, turned round', (seed) => {
    const { library, choices } = randomLibrary(seed);
    const [a, b] = [planOf(library, choices[0]!, true), planOf(library, choices[1]!, true)];
    const there = differences(a, b);
    const back = differences(b, a);
    expect([...back.keys()].sort()).toEqual([...there.keys()].sort());
    for (const [key, difference] of there) {
      const turned = back.get(key)!;
      expect([turned.before, turned.after]).toEqual([difference.after, difference.before]);
      if (difference.change === null) continue;
      expect(turned.change).toBeCloseTo(-difference.change, 9);
      if (difference.better !== null) expect(turned.better).toBe(!difference.better);
    }
  });
});

describe('around a choice', () => {
  it.each(SEEDS)('crate %i: every port of every host, and only lower modes to fall back to', (seed) => {
    const { library, choices } = randomLibrary(seed);
    for (const choice of choices.slice(0, 5)) {
      const rows = onAllHosts(library, choice);
      expect(rows.map((r) => `${r.hostId}~${r.portId}`)).toEqual(optionsAt(library, 'port').map((o) => o.id));
      for (const { otherCable, cableId } of rows)
        if (otherCable) expect(library.stock.get(cableId!)!.owned).toBeGreaterThan(0);
      const whole = assemble(library, choice);
      const base = planOf(library, choice);
      for (const fallback of whole.ok ? fallbacks(whole.input) : []) {
        expect(fallback.mode).not.toBe(base.link.mode);
        expect(fallback.report.link.mode).toBe(fallback.mode);
        if (base.throughput.read)
          expect(fallback.report.throughput.read!.typical).toBeLessThanOrEqual(base.throughput.read.typical * 1.001);
      }
    }
  });
  it('what goes to the page can be sent from a worker, and an incomplete choice gives nothing', () => {
    const { library, choices } = randomLibrary(104);
    const result = whatIf(library, choices[0]!);
    expect(structuredClone(result)).toEqual(result);
    expect(whatIf(library, { ...choices[0]!, driveId: '8'.repeat(26) })).toBeNull();
  });
});

describe('several at once, whatever they are', () => {
  it.each(SEEDS)('crate %i: nobody is faster than alone, and nothing shared carries more than it can', (seed) => {
    const { library, choices } = randomLibrary(seed);
    const random = seeded(seed + 7);
    for (const host of library.host.values()) {
      const ports = host.ports.map((port) => ({ ...port, shares: random() < 0.7 ? 'x' : 'y' }));
      const shared = [{ id: 'x', MBps: 200 + random() * 3000, powerW: 5 + random() * 20 }];
      const busy = { ...host, ports, shared };
      const members = choices.slice(0, 4).flatMap((choice, i) => {
        const portId = ports[i % ports.length]!.id;
        const { jobId: _job, ...parts } = choice;
        const whole = assemble(library, { ...parts, hostId: host.id, portId });
        if (!whole.ok) return [];
        const task =
          random() < 0.4 ? 'write' : random() < 0.5 ? 'read' : random() < 0.5 ? 'idle' : { copyTo: (i + 1) % 4 };
        return [{ name: `m${i}`, input: { ...whole.input, host: busy }, task } as const];
      });
      const result = together(busy, members);
      for (const { alone, together: rate, heldBy } of result.members) {
        if (!alone || !rate) continue;
        expect(rate.typical).toBeLessThanOrEqual(alone.typical * (1 + 1e-9));
        expect(rate.low).toBeLessThanOrEqual(rate.typical * (1 + 1e-9));
        expect(rate.high).toBeGreaterThanOrEqual(rate.typical * (1 - 1e-9));
        if (heldBy.length > 0) expect(rate.typical).toBeLessThan(alone.typical);
      }
      for (const { MBps, read, write } of result.shared) {
        expect(read).toBeLessThanOrEqual(MBps * (1 + 1e-6));
        expect(write).toBeLessThanOrEqual(MBps * (1 + 1e-6));
      }
      for (const { steadyW, peakW, budgetW, enough } of result.power) {
        expect(peakW).toBeGreaterThanOrEqual(steadyW);
        expect(enough).toBe(steadyW > budgetW ? 'no' : peakW > budgetW ? 'peak' : 'yes');
      }
      for (const { message } of result.findings) expect(message).not.toMatch(/NaN|undefined/);
    }
  });
});
