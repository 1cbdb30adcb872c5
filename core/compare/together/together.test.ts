import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { aCable, aDrive, anEnclosure, aPort } from '../../../tests/parts';
import type { Host } from '../../parts/host';
import type { PlanInput } from '../../plan/report';
import { together, type Member, type MemberTask } from './together';
import { fairShares } from './fair-shares';

describe('fair shares', () => {
  it('two that want 1000 each of 1200 get 600; one that wants 200 leaves the rest', () => {
    expect(fairShares([1000, 1000], [{ capacity: 1200, flows: [0, 1] }]).rates).toEqual([600, 600]);
    expect(fairShares([200, 1000], [{ capacity: 1000, flows: [0, 1] }]).rates).toEqual([200, 800]);
  });
  it('a flow through two narrow places: the narrower one holds it, the other flow takes what it leaves', () => {
    // resource 0 (600) carries flows 0 and 1, resource 1 (200) carries flow 0: 200 and 400
    const { rates, heldBy } = fairShares(
      [1000, 1000],
      [
        { capacity: 600, flows: [0, 1] },
        { capacity: 200, flows: [0] }
      ]
    );
    expect(rates).toEqual([200, 400]);
    expect(heldBy).toEqual([1, 0]);
  });
  it('no flow, no demand, nothing shared', () => {
    expect(fairShares([], []).rates).toEqual([]);
    expect(fairShares([0, 5], [{ capacity: 3, flows: [0] }]).rates).toEqual([0, 5]);
  });
  it('never more than is wanted or than there is, and nobody could have more for nothing', () => {
    const setup = fc.record({
      demands: fc.array(fc.double({ min: 1, max: 5000, noNaN: true }), { minLength: 1, maxLength: 6 }),
      resources: fc.array(
        fc.record({ capacity: fc.double({ min: 1, max: 8000, noNaN: true }), mask: fc.integer({ min: 0, max: 63 }) }),
        { maxLength: 5 }
      )
    });
    fc.assert(
      fc.property(setup, ({ demands, resources: given }) => {
        const resources = given.map(({ capacity, mask }) => ({
          capacity,
          flows: demands.map((_, i) => i).filter((i) => mask & (1 << i))
        }));
        const { rates, heldBy } = fairShares(demands, resources);
        rates.forEach((r, i) => {
          expect(r).toBeLessThanOrEqual(demands[i]! * (1 + 1e-9));
          const full = resources.some(
            ({ capacity, flows }) =>
              flows.includes(i) && flows.reduce((sum, f) => sum + rates[f]!, 0) >= capacity * (1 - 1e-6)
          );
          expect(full || r >= demands[i]! * (1 - 1e-9)).toBe(true);
          if (heldBy[i] !== undefined) expect(resources[heldBy[i]]!.flows).toContain(i);
        });
        for (const { capacity, flows } of resources)
          expect(flows.reduce((sum, f) => sum + rates[f]!, 0)).toBeLessThanOrEqual(capacity * (1 + 1e-6));
      }),
      { seed: 7, numRuns: 300 }
    );
  });
});

const HOST = (change: Partial<Host> = {}): Host => ({
  kind: 'host',
  name: 'Kiln',
  os: { family: 'linux', version: '6.1' },
  ports: [
    aPort({ id: 'c1', label: 'rear 1', modes: ['usb-10g'], powerW: 7.5, shares: 'rear' }),
    aPort({ id: 'c2', label: 'rear 2', modes: ['usb-10g'], powerW: 7.5, shares: 'rear' }),
    aPort({ id: 'f', label: 'front', modes: ['usb-10g'], powerW: 7.5 })
  ],
  shared: [{ id: 'rear', label: 'the rear controller', MBps: 1100 }],
  ...change
});
const at = (host: Host, portId: string): PlanInput => ({
  host,
  portId,
  cable: aCable({ modes: ['usb-10g'], active: true }),
  enclosure: anEnclosure({ modes: ['usb-10g'] }),
  drive: aDrive()
});
const member = (host: Host, portId: string, task: MemberTask = 'write'): Member => ({
  name: portId,
  input: at(host, portId),
  task
});
const typical = (host: Host, members: Member[]) =>
  together(host, members).members.map((m) => m.together?.typical ?? null);

describe('several builds on one host at once', () => {
  it('two on one controller of 1100 MB/s get 550 each, one on a port of its own keeps its 1000', () => {
    const host = HOST();
    const result = together(host, [member(host, 'c1'), member(host, 'c2'), member(host, 'f')]);
    expect(result.members.map((m) => m.alone!.typical)).toEqual([1000, 1000, 1000]);
    expect(result.members.map((m) => m.together!.typical)).toEqual([550, 550, 1000]);
    expect(result.members.map((m) => m.heldBy)).toEqual([['the rear controller'], ['the rear controller'], []]);
    expect(result.shared).toEqual([
      {
        id: 'rear',
        label: 'the rear controller',
        MBps: 1100,
        assumed: false,
        members: [0, 1],
        read: 0,
        write: 1100,
        full: true
      }
    ]);
    expect(result.findings.map((f) => [f.severity, f.message])).toEqual([
      ['limit', 'The rear controller is full at 1100\u202fMB/s: c1 and c2 slow each other down.']
    ]);
  });
  it('who shares gets less where the other is quick: 1100 less its 340, 380 or 400', () => {
    const host = HOST();
    const members = [member(host, 'c1'), member(host, 'c2')];
    // 400 MB/s rated: 340 - 380 - 400
    members[1]!.input.drive = aDrive({ writeMBps: 400, flash: { cell: 'slc' } });
    const [first] = together(host, members).members;
    expect(first!.alone).toEqual({ low: 900, typical: 1000, high: 1070 });
    expect(first!.together!.low).toBeCloseTo(700, 6);
    expect(first!.together!.typical).toBeCloseTo(720, 6);
    expect(first!.together!.high).toBeCloseTo(760, 6);
  });
  it('reading and writing at once do not meet: a link has two directions', () => {
    const host = HOST();
    expect(typical(host, [member(host, 'c1', 'read'), member(host, 'c2', 'write')])).toEqual([1000, 1000]);
  });
  it('a copy from one to the other runs at the slower of the two and leaves the host’s disk out', () => {
    const host = HOST({ internalDisk: { readMBps: 100, writeMBps: 100 } });
    const members = [member(host, 'c1', { copyTo: 1 }), member(host, 'f', 'idle')];
    members[1]!.input.drive = aDrive({ writeMBps: 400, flash: { cell: 'slc' } });
    // 400 x 0.95
    const result = together(host, members);
    expect(result.members[0]!.together!.typical).toBeCloseTo(380, 9);
    expect(result.members[1]!.together).toBeNull();
  });
  it('one drive that is copied from and written to: each direction has its own flow', () => {
    const host = HOST();
    // c1 gives 1000 to f; f also takes 1000 from the host: its write of 1000 is shared by two
    expect(typical(host, [member(host, 'c1', { copyTo: 1 }), member(host, 'f', 'write')])).toEqual([500, 500]);
  });
  it('the host’s own disk feeds only so much: 900 MB/s over three', () => {
    const host = HOST({ internalDisk: { readMBps: 900, writeMBps: 900 } });
    const result = together(host, [member(host, 'c1'), member(host, 'c2'), member(host, 'f')]);
    expect(result.members.map((m) => m.together!.typical)).toEqual([300, 300, 300]);
    expect(result.findings.some((f) => f.message.includes('own disk'))).toBe(true);
  });
  it('a controller of which nothing is stated carries what its best port carries, and says so', () => {
    const host = HOST({ shared: undefined });
    const result = together(host, [member(host, 'c1'), member(host, 'c2')]);
    expect(result.shared[0]).toMatchObject({ MBps: 1000, assumed: true });
    expect(result.findings[0]!.message).toContain('(assumed');
  });
  it('power of a hub: each writes at 550 MB/s and wants (1 + 1.5 x 0.55)/0.88 + 1.15 (0.4 + 0.6 x 0.55) = 2.91 W', () => {
    const budget = (powerW: number) => {
      const host = HOST({ shared: [{ id: 'rear', label: 'the hub', MBps: 1100, powerW }] });
      return together(host, [member(host, 'c1'), member(host, 'c2')]);
    };
    const [load] = budget(8).power;
    expect(load!.steadyW).toBeCloseTo(2 * ((1 + 1.5 * 0.55) / 0.88 + 1.15 * (0.4 + 0.6 * 0.55)), 9);
    // PCIe 4 drives peak at 7 W each, with converter and bridge at 7 / 0.88 + 1.15 = 9.1 W
    expect(load!.peakW).toBeCloseTo(2 * (7 / 0.88 + 1.15), 9);
    expect(load!.enough).toBe('peak');
    expect(budget(5).power[0]!.enough).toBe('no');
    // what they draw is estimated: it is to be looked at, and no verdict
    expect(budget(5).findings.map((f) => f.severity)).toEqual(['limit', 'check']);
    expect(budget(19).power[0]!.enough).toBe('yes');
    // one whose cable does not go in is not plugged in: the other alone peaks at half of it
    const host = HOST({ shared: [{ id: 'rear', label: 'the hub', MBps: 1100, powerW: 5 }] });
    const unplugged = member(host, 'c2');
    unplugged.input.cable = aCable({ ends: ['usb-a', 'micro-b'] });
    const { power, findings } = together(host, [member(host, 'c1'), unplugged]);
    expect(power[0]!.peakW).toBeCloseTo(7 / 0.88 + 1.15, 9);
    expect(findings.find(({ severity }) => severity === 'check')!.message).not.toContain(' and ');
  });
  it('two on one port, a build that does not work there, a copy to itself', () => {
    const host = HOST();
    const broken = member(host, 'f');
    broken.input.drive = aDrive({ m2LengthMm: 110 });
    const result = together(host, [member(host, 'c1', { copyTo: 0 }), member(host, 'c1'), broken]);
    expect(result.findings.filter((f) => f.severity === 'fail')).toHaveLength(2);
    expect(result.members.map((m) => m.together?.typical ?? null)).toEqual([null, 1000, null]);
  });
});
