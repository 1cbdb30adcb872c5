import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure, aPort } from '../../../tests/parts';
import { randomCrate } from '../../../tests/random-crate';
import { negotiate } from '../../chain/negotiate';
import { LinkFinder, type LinkClass } from './link-classes';
import { prepare } from './prepare';
import type { RankInput } from './request';
import { walk } from './walk';

const id = (n: number) => String(n).padStart(26, '0');
const input = (change: Partial<RankInput> = {}): RankInput => ({
  hosts: [{ ...aHost(), id: id(1) }],
  cables: [],
  enclosures: [{ ...anEnclosure(), id: id(2) }],
  drives: [{ ...aDrive(), id: id(3) }],
  job: { name: 'j', purposes: [], transferGB: 1, direction: 'in' },
  ...change
});
const cable = (n: number, change: Parameters<typeof aCable>[0] = {}) => ({ ...aCable(change), id: id(n) });
const linksOf = (given: RankInput) => {
  const set = prepare(given);
  return { set, links: new LinkFinder(set).of(set.enclosures[0]!) };
};

describe('links that are the same to every drive', () => {
  it('cables of one kind are one class, the cheapest first', () => {
    const cables = [cable(10), cable(11), cable(12)];
    const quotes = [
      [10, 30],
      [11, 10],
      [12, 20]
    ].map(([n, list]) => ({ partId: id(n!), vendor: 'V', date: '2026-05-01', currency: 'EUR', list: list! }));
    const { links } = linksOf(input({ cables, quotes }));
    expect(links.open).toHaveLength(1);
    expect(links.open[0]!.members.map((m) => m.cable)).toEqual([1, 2, 0]);
    expect(links.rates).toHaveLength(1);
  });
  it('of equal price the one with the lower id comes first', () => {
    const { links } = linksOf(input({ cables: [cable(12), cable(10), cable(11)] }));
    expect(links.open[0]!.members.map((m) => m.cable)).toEqual([1, 2, 0]);
  });
  it('a slower cable is a class of its own, with a rate of its own', () => {
    const { links } = linksOf(input({ cables: [cable(10), cable(11, { modes: ['usb-10g'], active: true })] }));
    expect(links.open).toHaveLength(2);
    expect(links.rates.map((r) => r.read.typical).sort((a, b) => a - b)).toEqual([1000, 3400]);
  });
  it('what does not plug in fails as one class, under the rule for plugs', () => {
    const cables = [cable(10, { ends: ['usb-a', 'usb-c'] }), cable(11, { ends: ['esata', 'esata'] }), cable(12)];
    const { links } = linksOf(input({ cables }));
    expect(links.failing.map((f) => [f.code, f.combinations, f.classes.length])).toEqual([['plug-mismatch', 2, 1]]);
    expect(links.open[0]!.members).toHaveLength(1);
    expect(links.combinations).toBe(3);
  });
  it('two ports that give the same are one cell of one host, and two of two', () => {
    const ports = [aPort({ id: 'a' }), aPort({ id: 'b' })];
    const one = linksOf(input({ hosts: [{ ...aHost({}, { ports }), id: id(1) }], cables: [cable(10)] }));
    expect(one.links.open).toHaveLength(1);
    expect(one.links.open[0]!.members).toHaveLength(2);
    const hosts = ports.map((port, i) => ({ ...aHost({}, { ports: [port] }), id: id(i + 1) }));
    expect(linksOf(input({ hosts, cables: [cable(10)] })).links.open).toHaveLength(2);
  });
  it('a captive cable stands alone, whatever cables there are', () => {
    const captive = { ...anEnclosure({ captiveCable: true }), id: id(2) };
    const { links } = linksOf(input({ enclosures: [captive], cables: [cable(10), cable(11)] }));
    expect(links.combinations).toBe(1);
    expect(links.open[0]!.members.map((m) => m.cable)).toEqual([-1]);
  });
  it('enclosures with the same face share what was found', () => {
    const twins = [2, 4].map((n) => ({ ...anEnclosure({ name: `E${n}` }), id: id(n) }));
    const set = prepare(input({ enclosures: twins, cables: [cable(10)] }));
    const finder = new LinkFinder(set);
    expect(finder.of(set.enclosures[0]!)).toBe(finder.of(set.enclosures[1]!));
    const other = prepare(input({ enclosures: [twins[0]!, { ...twins[1]!, uas: false }], cables: [cable(10)] }));
    const otherFinder = new LinkFinder(other);
    expect(otherFinder.of(other.enclosures[0]!)).not.toBe(otherFinder.of(other.enclosures[1]!));
  });
});

const SIZES = { hosts: 3, portsEach: 3, cables: 6, enclosures: 6, drives: 5 };

describe('over random crates', () => {
  it.each([1, 2, 3, 4, 5, 6, 7, 8])(
    'crate %i: every port and cable is in exactly one class, with its own mode',
    (seed) => {
      const set = prepare(randomCrate(seed, SIZES));
      const finder = new LinkFinder(set);
      for (const enclosure of set.enclosures) {
        const { open, failing, combinations } = finder.of(enclosure);
        const classes = new Set<LinkClass>([
          ...open.flatMap(({ members }) => members.map(({ link }) => link)),
          ...failing.flatMap((f) => f.classes)
        ]);
        const seen = new Set<string>();
        for (const { port, cables, negotiation } of classes)
          for (const at of cables) {
            const key = `${port} ${at}`;
            expect(seen.has(key)).toBe(false);
            seen.add(key);
            const own = negotiate(set.ports[port]!.port, set.withIds.cables[at], enclosure.enclosure);
            expect(own.plugsMeet).toBe(negotiation.plugsMeet);
            if (own.plugsMeet) expect(own.mode).toBe(negotiation.mode);
          }
        expect(seen.size).toBe(combinations);
        const counted =
          open.reduce((sum, { members }) => sum + members.length, 0) +
          failing.reduce((sum, f) => sum + f.combinations, 0);
        expect(counted).toBe(combinations);
      }
    }
  );
  it.each([1, 2, 3, 4])('crate %i: a walk meets every combination once, and a second walk meets the same', (seed) => {
    const set = prepare(randomCrate(seed, SIZES));
    const run = () => {
      let accepted = 0;
      let rejected = 0;
      const shares = [
        ...walk(set, new LinkFinder(set), {
          accept: ({ cell }) => void (accepted += cell.members.length),
          reject: (_code, count, _pair, links) => {
            rejected += count;
            expect(links().length).toBeGreaterThan(0);
          }
        })
      ];
      expect(shares.at(-1)).toBe(1);
      return [accepted, rejected];
    };
    const first = run();
    const all = set.enclosures.reduce((sum, enclosure) => sum + new LinkFinder(set).of(enclosure).combinations, 0);
    expect(first[0]! + first[1]!).toBe(all * set.drives.length);
    expect(run()).toEqual(first);
  });
});
