import { describe, expect, it } from 'vitest';
import { aDrive, anEnclosure, anInput } from '../../tests/parts';
import { warmBuilds } from '../../tests/warm-builds';
import { fillDrive } from '../parts/fill/drive';
import { fillEnclosure } from '../parts/fill/enclosure';
import { planPads } from '../pads/plan-pads';
import { heatOut, settledTemperatures } from '../thermal/model/network';
import { powerAt } from '../thermal/model/power';
import { thermalModel } from '../thermal/forecast/thermal-model';
import { flashCacheOf } from '../throughput/flash-cache';
import { diskFlow, flashWrite, plainFlow } from './flow';
import { runTransient, type Leg } from './transient';
import { simulate } from './simulate';

const build = (cooling: object, drive: object = {}) => {
  const filled = fillDrive(aDrive(drive));
  const enclosure = fillEnclosure(anEnclosure({ cooling: { kind: 'passive', ...cooling } }));
  const stack = planPads({ drive: filled.drive, doubleSided: false, enclosure: enclosure.enclosure });
  return thermalModel({ drive: filled, enclosure, stack }, 'usb4-40g', undefined, { ambientC: 22 });
};
const endless = (rate: number): Leg[] => [{ flow: plainFlow(rate, 'write'), perMB: 0, volumeGB: Infinity }];

describe('heat in = heat stored + heat out', () => {
  it.each([
    ['smooth', 300, 2000],
    ['throttling', 70, 3400],
    ['on a plateau', 45, 3400]
  ])('%s, to 0.1 %%: what left is summed up from the case alone', (_, areaCm2, rate) => {
    const { typical, limits } = build({ areaCm2, massG: 100 });
    const run = runTransient(typical, limits, endless(rate), { seconds: 3600, everyS: 0.25 });
    const { network } = typical;
    const { t, caseC } = run.samples;
    let left = 0;
    for (let i = 1; i < t.length; i++) {
      const out = (at: number) => heatOut(network.surface, caseC[at]! - network.ambientC, network.ambientC);
      left += ((out(i) + out(i - 1)) / 2) * (t[i]! - t[i - 1]!);
    }
    expect(Math.abs(run.heatJ - run.storedJ - left) / run.heatJ).toBeLessThan(0.001);
  });
});

describe('steps', () => {
  it('where smooth, halving the step changes temperatures by less than 0.1 K', () => {
    const { typical, limits } = build({ areaCm2: 250, massG: 80 });
    const at = (stepS: number) =>
      runTransient(typical, limits, endless(2500), { seconds: 3000, everyS: 10, stepS }).samples;
    const [coarse, fine] = [at(10), at(5)];
    for (const key of ['controllerC', 'nandC', 'caseC'] as const)
      coarse[key].forEach((value, i) => expect(Math.abs(value - fine[key][i]!)).toBeLessThan(0.1));
    // and that is no wonder: it is the same down to a thousandth
    expect(Math.max(...coarse.caseC.map((value, i) => Math.abs(value - fine.caseC[i]!)))).toBeLessThan(0.01);
  });
  it('with throttling, peaks agree to 0.2 K, the period to 1 % and bytes to 0.5 % whatever the step', () => {
    // A large case without pads: the controller alone goes up and down, quickly.
    const filled = fillDrive(aDrive());
    const enclosure = fillEnclosure(anEnclosure({ cooling: { kind: 'passive', areaCm2: 400, massG: 80 } }));
    const stack = planPads({ drive: filled.drive, doubleSided: false, enclosure: enclosure.enclosure });
    const { typical, limits } = thermalModel({ drive: filled, enclosure, stack }, 'usb4-40g', undefined, {
      ambientC: 22,
      bare: true
    });
    const at = (stepS: number) => {
      const run = runTransient(typical, limits, endless(1800), { seconds: 3600, everyS: 5, stepS });
      const starts = run.events.filter((e) => e.kind === 'throttle').map((e) => e.t);
      return { run, period: (starts.at(-1)! - starts[1]!) / (starts.length - 2), count: starts.length };
    };
    const [coarse, fine] = [at(5), at(0.25)];
    expect(coarse.count).toBeGreaterThan(20);
    expect(Math.abs(coarse.run.peak.controllerC - fine.run.peak.controllerC)).toBeLessThan(0.2);
    expect(Math.abs(coarse.period / fine.period - 1)).toBeLessThan(0.01);
    expect(Math.abs(coarse.run.movedGB / fine.run.movedGB - 1)).toBeLessThan(0.005);
    // located inside the step: never a hair above where it throttles
    expect(coarse.run.peak.controllerC).toBeLessThan(limits!.startC + 0.01);
  });
  it('the end is the settled network', () => {
    const { typical, limits } = build({ areaCm2: 250, massG: 60 });
    const run = runTransient(typical, limits, endless(1500), { seconds: 20_000, everyS: 20 });
    const by = settledTemperatures(typical.network, powerAt(typical, 'write', 1500));
    expect(run.samples.caseC.at(-1)).toBeCloseTo(by.caseC, 2);
    expect(run.samples.controllerC.at(-1)).toBeCloseTo(by.controllerC, 2);
    expect(run.samples.nandC.at(-1)).toBeCloseTo(by.nandC, 2);
  });
});

describe('the flow', () => {
  const cache = (change = {}) =>
    flashCacheOf(
      fillDrive(aDrive({ flash: { cell: 'tlc', cacheGB: 200, postCacheWriteMBps: 1500, ...change } })),
      2000
    )!;
  it('a fixed cache of 200 GB that drains 150 MB/s while 3000 come in is full after 200 / (1 - 0.05) = 210.5 GB', () => {
    const flow = flashWrite(cache({ cacheKind: 'fixed', drainMBps: 150 }), 2000, 3000);
    const until = flow.untilChange(3000);
    expect(until).toBeCloseTo(210_526.3 / 3000, 3);
    expect(flow.advance(3000, until)).toBe('cliff');
    expect([flow.rate(), flow.work()]).toEqual([1500, 'post']);
  });
  it('throttled to half it drains longer: 200 / (1 - 0.1) = 222.2 GB', () => {
    const flow = flashWrite(cache({ cacheKind: 'fixed', drainMBps: 150 }), 2000, 3000);
    expect(flow.untilChange(1500) * 1.5).toBeCloseTo(222.2, 1);
  });
  it('at rest it empties at 0.6 of its native rate and is fast again', () => {
    const flow = flashWrite(cache({ cacheKind: 'fixed', drainMBps: 0 }), 2000, 3000);
    flow.advance(3000, flow.untilChange(3000));
    // 200 GB at 900 MB/s
    expect(flow.untilChange(0)).toBeCloseTo(222.2, 1);
    expect(flow.advance(0, flow.untilChange(0))).toBe('recovered');
    expect(flow.rate()).toBe(3000);
  });
  it('behind a link below the native rate there is no cliff', () => {
    const flow = flashWrite(cache(), 2000, 1000);
    expect([flow.rate(), flow.untilChange(1000), flow.work()]).toEqual([1000, Infinity, 'write']);
  });
  it('a shingled disk that rewrites collapses after its 25 GB to 20 MB/s; on its first pass it does not', () => {
    const side = {
      capacityGB: 1000,
      outer: 140,
      inner: 70,
      from: 0.2,
      cap: Infinity,
      hostCliffGB: null,
      hostAfter: Infinity,
      shingled: true
    };
    const again = diskFlow({ ...side, rewriting: true }, 'write');
    const until = again.untilChange(100);
    expect(until).toBeCloseTo(250, 6);
    expect(again.advance(100, until)).toBe('smr-collapse');
    expect(again.rate()).toBe(20);
    const first = diskFlow({ ...side, rewriting: false }, 'write');
    first.advance(100, 1000);
    expect(first.rate()).toBeGreaterThan(70);
  });
});

describe('simulate', () => {
  const job = { name: 'j', purposes: [], transferGB: 420, direction: 'in' as const };
  it('plays the job: 200 GB at 3400, 220 at 1500, then idle; the means over the samples are the volume', () => {
    const run = simulate({ ...anInput({ job }), seconds: 400 })!;
    expect(run.summary.doneS).toBeCloseTo(205.5, 1);
    expect(run.events.map((e) => e.kind)).toEqual(['cliff', 'done']);
    expect(run.events[0]!.t).toBeCloseTo(200_000 / 3400, 1);
    const moved = run.samples.MBps.reduce(
      (sum, rate, i) => sum + rate * (run.samples.t[i]! - (run.samples.t[i - 1] ?? 0)),
      0
    );
    expect(moved / 1000).toBeCloseTo(420, 3);
    expect(run.samples.writtenGB.at(-1)).toBeCloseTo(420, 6);
    expect(run.samples.MBps.at(-1)).toBe(0);
  });
  it('is the same for the same seed, and noise does not touch what was written', () => {
    const at = (seed?: number) => simulate({ ...anInput(), seconds: 120, ...(seed === undefined ? {} : { seed }) })!;
    expect(at(7)).toEqual(at(7));
    expect(at(7).samples.MBps).not.toEqual(at(8).samples.MBps);
    expect(at(7).samples.writtenGB).toEqual(at().samples.writtenGB);
  });
  it('a warmer room, no pads, no fan, plastic: each is hotter than without', () => {
    const input = anInput({
      enclosure: anEnclosure({ cooling: { kind: 'fan', areaCm2: 200, massG: 120, material: 'aluminium' } })
    });
    const peak = (change: object) =>
      simulate({ ...input, seconds: 1800, writeGB: 3000, ...change })!.summary.peakControllerC;
    const plain = peak({});
    expect(peak({ ambientC: 35 })).toBeGreaterThan(plain + 5);
    expect(peak({ fan: false })).toBeGreaterThan(plain + 5);
    expect(peak({ bare: true })).toBeGreaterThan(plain + 5);
    expect(peak({ material: 'plastic' })).toBeGreaterThan(plain + 2);
    expect(peak({ start: 'ambient' })).toBeLessThanOrEqual(plain);
  });
  it.each([
    ['usb2-fallback', 38],
    ['5g-port-or-cable', 435],
    ['10g-fallback', 1000],
    ['write-cache-off', 850],
    ['host-write-ceiling', 1700]
  ] as const)('fault %s: writes begin at %d MB/s', (fault, rate) =>
    expect(simulate({ ...anInput(), seconds: 30, fault })!.samples.MBps[5]).toBeCloseTo(rate, 6)
  );
  it('fault: a pad without contact throttles within minutes, covered slots later, a nearly full drive falls off earlier', () => {
    const enclosure = anEnclosure({ cooling: { kind: 'passive', areaCm2: 210, massG: 190 } });
    const first = (fault: 'pad-no-contact' | 'thermal-throttle' | 'healthy' | 'drive-nearly-full', kind: string) =>
      simulate({ ...anInput({ enclosure }), seconds: 3600, fault })!.events.find((e) => e.kind === kind)?.t ?? Infinity;
    expect(first('pad-no-contact', 'throttle')).toBeLessThan(240);
    expect(first('healthy', 'throttle')).toBe(Infinity);
    expect(first('thermal-throttle', 'throttle')).toBeGreaterThan(first('pad-no-contact', 'throttle'));
    const dynamic = anInput({
      drive: aDrive({ flash: { cell: 'tlc', cacheKind: 'dynamic', cacheGB: 200, postCacheWriteMBps: 1500 } })
    });
    const cliff = (fault: 'healthy' | 'drive-nearly-full') =>
      simulate({ ...dynamic, seconds: 600, fault })!.events.find((e) => e.kind === 'cliff')!.t;
    expect(cliff('drive-nearly-full')).toBeLessThan(cliff('healthy'));
  });
  it('what does not connect is nothing to play', () =>
    expect(simulate({ ...anInput({ enclosure: anEnclosure({ m2LengthsMm: [42] }) }), seconds: 60 })).toBeNull());
  it('whatever the build, there is a number at every sample and time goes forward', () => {
    for (const input of warmBuilds(77, 60)) {
      const { samples, events } = simulate({ ...input, seconds: 900, everyS: 1 })!;
      for (const column of Object.values(samples)) expect(column.every((value) => Number.isFinite(value))).toBe(true);
      expect(samples.t.every((t, i) => i === 0 || t > samples.t[i - 1]!)).toBe(true);
      expect(events.map((e) => e.t)).toEqual(events.map((e) => e.t).sort((a, b) => a - b));
      expect(samples.t.length).toBe(901);
    }
  });
});
