import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure, anInput } from '../../tests/parts';
import { randomCrate } from '../../tests/random-crate';
import { warmBuilds } from '../../tests/warm-builds';
import type { LinkMode } from '../facts/link-modes';
import { seeded } from '../quantities/random';
import type { Band } from '../quantities/band';
import { plan } from './plan';
import type { PlanInput, PlanReport } from './report';

const SIZES = { hosts: 4, portsEach: 3, cables: 6, enclosures: 12, drives: 14 };

/** Builds over parts of every kind, those of a random crate and those that are made to warm. */
function* builds(seed: number, count: number): Generator<PlanInput> {
  const crate = randomCrate(seed, SIZES);
  const random = seeded(seed + 5000);
  const some = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  for (let i = 0; i < count; i++) {
    const host = some(crate.hosts);
    yield {
      host,
      portId: some(host.ports).id,
      ...(crate.cables.length > 0 && random() < 0.7 ? { cable: some(crate.cables) } : {}),
      enclosure: some(crate.enclosures),
      drive: some(crate.drives),
      ...(crate.pads ? { pads: crate.pads } : {}),
      ...(random() < 0.8 ? { job: crate.job } : {}),
      quotes: crate.quotes ?? [],
      ...(crate.houseRules ? { houseRules: crate.houseRules } : {})
    };
  }
  yield* warmBuilds(seed, Math.ceil(count / 3));
}

/** Every band of a plan that works, by name. */
function bandsOf({ throughput, cache, job, thermal, power }: PlanReport): Map<string, Band> {
  const named: Record<string, Band | null | undefined> = {
    ...throughput,
    cliff: cache.cliffAtGB,
    recover: cache.recoverS,
    job: job?.seconds,
    case: thermal?.steadyCaseC,
    controller: thermal?.steadyControllerC,
    nand: thermal?.steadyNandC,
    steadyW: power?.steadyW,
    peakW: power?.peakW
  };
  return new Map(Object.entries(named).flatMap(([name, band]) => (band ? [[name, band] as const] : [])));
}
const close = (a: number, b: number) => Math.abs(a - b) <= 1e-6 * Math.max(1, Math.abs(a), Math.abs(b));

describe('lists turned round give the same plan', () => {
  const turned = <T>(list: readonly T[] | undefined) => list && [...list].reverse();
  const given = <T extends object>(object: T): T =>
    Object.fromEntries(Object.entries(object).filter(([, value]) => value !== undefined)) as T;
  it.each([1, 2, 3, 4, 5, 6])('crate %i', (seed) => {
    for (const input of builds(seed, 40)) {
      const { host, cable, enclosure, drive, job } = input;
      const other: PlanInput = given({
        ...input,
        host: { ...host, ports: turned(host.ports.map((port) => ({ ...port, modes: turned(port.modes)! })))! },
        cable: cable && { ...cable, modes: turned(cable.modes)!, ends: [cable.ends[1], cable.ends[0]] as const },
        enclosure: given({
          ...enclosure,
          modes: turned(enclosure.modes)!,
          protocols: turned(enclosure.protocols)!,
          m2LengthsMm: turned(enclosure.m2LengthsMm),
          m2Keys: turned(enclosure.m2Keys)
        }),
        drive,
        pads: turned(input.pads),
        quotes: turned(input.quotes),
        job: job && given({ ...job, purposes: turned(job.purposes)!, readHosts: turned(job.readHosts) })
      }) as PlanInput;
      const [a, b] = [plan(input, { workings: false }), plan(other, { workings: false })];
      const codes = (r: PlanReport) => r.findings.map((f) => `${f.severity} ${f.code}`).sort();
      expect(codes(b)).toEqual(codes(a));
      expect(b.throughput).toEqual(a.throughput);
      expect(b.job?.seconds).toEqual(a.job?.seconds);
      expect(b.thermal).toEqual(a.thermal);
      expect(b.power).toEqual(a.power);
      expect(b.cost).toEqual(a.cost);
      expect(b.filesystem.first.filesystem).toBe(a.filesystem.first.filesystem);
    }
  });
});

type Assumed = PlanReport['assumed'][number];

/** The input with one assumed value stated in its field; null where it is no value of a field. */
function stating(input: PlanInput, { part, field, value }: Assumed): PlanInput | null {
  let put: unknown = value;
  if (field === 'downstreamPcie' || field === 'pcie') {
    const match = /^PCIe (\d) x(\d)$/.exec(String(value));
    if (!match) return null;
    put = { generation: Number(match[1]), lanes: Number(match[2]) };
  } else if (field === 'm2LengthsMm') put = String(value).split(', ').map(Number);
  else if (field === 'm2Keys') put = String(value).split(', ');
  else if (
    ['components', 'os.version', 'internalDisk', 'flash.dram'].includes(field) ||
    part === 'cable' ||
    part === 'pad' ||
    (part === 'job' && !input.job)
  )
    return null;
  const into = (object: object, path: string[]): object => {
    const [key, ...rest] = path as [string, ...string[]];
    const own = object as Record<string, unknown>;
    const below = key === 'cooling' && own[key] === undefined ? { kind: 'passive' } : (own[key] ?? {});
    return { ...own, [key]: rest.length === 0 ? put : into(below as object, rest) };
  };
  const path = field.split('.');
  if (part === 'port')
    return {
      ...input,
      host: {
        ...input.host,
        ports: input.host.ports.map((port) => (port.id === input.portId ? (into(port, path) as typeof port) : port))
      }
    };
  return { ...input, [part]: into(input[part as 'drive']!, path) } as PlanInput;
}

describe('stating what was assumed', () => {
  it.each([11, 12, 13, 14])('changes no typical figure and makes no band wider, crate %i', (seed) => {
    let stated = 0;
    const compare = (before: PlanReport, after: PlanReport, what: string, throttles: boolean) => {
      const [a, b] = [bandsOf(before), bandsOf(after)];
      expect([...b.keys()], what).toEqual([...a.keys()]);
      for (const [name, band] of a) {
        const now = b.get(name)!;
        expect(close(now.typical, band.typical), `${what}: ${name} ${band.typical} is now ${now.typical}`).toBe(true);
        const width = (x: Band) => x.high - x.low;
        // Where the likely hot case throttles, it moves the other things further once one of them is known: a tenth is no difference.
        expect(width(now), `${what}: ${name} is wider`).toBeLessThanOrEqual(
          width(band) * (throttles ? 1.1 : 1.001) + 1e-6
        );
      }
    };
    for (const input of builds(seed, 25)) {
      const before = plan(input, { workings: false });
      if (before.throughput.read === null) continue;
      const { job: _job, ...endless } = input;
      const throttles = [before, plan(endless, { workings: false })].some(
        ({ thermal }) => thermal!.startC !== null && thermal!.steadyControllerC.high > thermal!.startC - 15
      );
      let all = input;
      for (const value of before.assumed) {
        const next = stating(input, value);
        if (!next) continue;
        stated += 1;
        const after = plan(next, { workings: false });
        if (after.throughput.read === null) continue; // a check may become a fail
        compare(before, after, `${value.part} ${value.field} ${String(value.value)}`, throttles);
        expect(after.assumed.some((a) => a.part === value.part && a.field === value.field)).toBe(false);
        all = stating(all, value)!;
      }
      const after = plan(all, { workings: false });
      if (after.throughput.read !== null) compare(before, after, 'all of it', throttles);
    }
    expect(stated).toBeGreaterThan(100);
  });
  it('no fail rests on it: what fails goes on failing with everything stated', () => {
    let failed = 0;
    for (const input of builds(21, 120)) {
      const before = plan(input, { workings: false });
      const fails = before.findings.filter((f) => f.severity === 'fail').map((f) => f.code);
      failed += fails.length;
      const all = before.assumed.reduce((made, value) => stating(made, value) ?? made, input);
      const after = plan(all, { workings: false }).findings.filter((f) => f.severity === 'fail');
      for (const code of fails) expect(after.map((f) => f.code)).toContain(code);
    }
    expect(failed).toBeGreaterThan(40);
  });
});

describe('with heat left out', () => {
  /** Nothing throttles: a drive that stands 120 °C, in the cold, under a fan. */
  const cool = (input: PlanInput): PlanInput => ({
    ...input,
    drive: { ...input.drive, ...(input.drive.media === 'hdd' ? {} : { throttle: { startC: 120, criticalC: 130 } }) },
    enclosure: { ...input.enclosure, cooling: { kind: 'fan', areaCm2: 600, massG: 300 } },
    job: { ...input.job!, ambientC: -20 }
  });
  const seconds = (input: PlanInput) => plan(input, { workings: false }).job?.seconds.typical;
  const LADDERS: LinkMode[][] = [
    ['usb2', 'usb-5g', 'usb-10g', 'usb-20g'],
    ['usb4-20g', 'tbt3-40g', 'usb4-40g', 'tbt5-80g']
  ];
  it.each([31, 32, 33])('a faster link of the same kind never makes a job slower, seed %i', (seed) => {
    let compared = 0;
    for (const input of warmBuilds(seed, 50))
      for (const ladder of LADDERS)
        for (const os of ['windows', 'linux'] as const) {
          let slower = Infinity;
          for (const mode of ladder) {
            const port = { ...input.host.ports[0]!, modes: [mode], powerW: 100 };
            const time = seconds(
              cool({
                ...input,
                host: { ...input.host, os: { family: os }, ports: [port] },
                cable: aCable({ modes: ['tbt5-80g'] }),
                enclosure: { ...input.enclosure, modes: [mode], downstreamPcie: { generation: 4, lanes: 4 } }
              })
            );
            if (time === undefined) continue;
            compared += 1;
            expect(time, `${mode} on ${os}`).toBeLessThanOrEqual(slower * (1 + 1e-9));
            slower = time;
          }
        }
    expect(compared).toBeGreaterThan(200);
  });
  it('nor does a larger cache', () => {
    for (const input of warmBuilds(41, 60)) {
      if (input.drive.media === 'hdd') continue;
      let slower = Infinity;
      for (const cacheGB of [5, 40, 160, 600]) {
        const flash = { ...input.drive.flash, cacheGB, cacheKind: 'fixed' as const };
        const time = seconds(cool({ ...input, drive: { ...input.drive, flash } }));
        if (time === undefined) continue;
        expect(time).toBeLessThanOrEqual(slower * (1 + 1e-9));
        slower = time;
      }
    }
  });
});

describe('at equal rate, without throttling, settled', () => {
  const thermal = (input: PlanInput) => plan(input, { workings: false }).thermal!;
  const hotter = (a: PlanReport['thermal'], b: PlanReport['thermal']) =>
    Math.max(
      b!.steadyCaseC.typical - a!.steadyCaseC.typical,
      b!.steadyControllerC.typical - a!.steadyControllerC.typical,
      (b!.steadyNandC?.typical ?? 0) - (a!.steadyNandC?.typical ?? 0)
    );
  const better: [string, (input: PlanInput) => PlanInput][] = [
    [
      'a better pad',
      (input) => ({
        ...input,
        pads: input.pads?.map((pad) => ({ ...pad, conductivityWmK: pad.conductivityWmK! * 1.5 }))
      })
    ],
    [
      'a fan',
      (input) => ({ ...input, enclosure: { ...input.enclosure, cooling: { ...input.enclosure.cooling, kind: 'fan' } } })
    ],
    ['a cooler room', (input) => ({ ...input, job: { ...input.job!, ambientC: input.job!.ambientC! - 6 } })]
  ];
  it.each(better)(
    '%s makes no chip and no face hotter; and where it throttles the job is not slower',
    (_name, change) => {
      let [quiet, throttling] = [0, 0];
      for (const input of warmBuilds(51, 160)) {
        const [before, after] = [input, change(input)];
        const [a, b] = [thermal(before), thermal(after)];
        if (a.form === 'none' && b.form === 'none') {
          quiet += 1;
          expect(hotter(a, b), JSON.stringify(input.enclosure.cooling)).toBeLessThan(1e-6);
        } else {
          throttling += 1;
          const [x, y] = [plan(before, { workings: false }).job!, plan(after, { workings: false }).job!];
          // The saw-tooth is followed in steps: half a percent is no difference.
          expect(y.seconds.typical).toBeLessThanOrEqual(x.seconds.typical * 1.005);
        }
      }
      expect(quiet).toBeGreaterThan(40);
      expect(throttling).toBeGreaterThan(10);
    }
  );
});

describe('real builds in a room of 23 °C, as they were measured', () => {
  const at = (mode: LinkMode, areaCm2: number, massG: number, job?: PlanInput['job']) =>
    plan(
      anInput({
        host: aHost({ modes: [mode] }),
        cable: aCable({ modes: ['tbt5-80g'] }),
        enclosure: anEnclosure({
          modes: [mode],
          downstreamPcie: undefined,
          clearanceTopMm: undefined,
          cooling: { kind: 'passive', areaCm2, massG }
        }),
        drive: aDrive({ readMBps: 7000, writeMBps: 6500 }),
        job: { name: 'j', purposes: [], transferGB: 20_000, direction: 'in', ambientC: 23, ...job }
      }),
      { workings: false }
    ).thermal!;
  const within = (value: number, low: number, high: number) =>
    expect(value >= low && value <= high, `${value}`).toBe(true);
  it('10 Gb/s at rest 33 to 39, 40 Gb/s at rest 35 to 42', () => {
    within(at('usb-10g', 110, 85).idleCaseC, 32.5, 39);
    within(at('usb4-40g', 146, 100).idleCaseC, 35, 42);
  });
  it('40 Gb/s of 146 cm² writing on and on 45 to 60', () =>
    within(at('usb4-40g', 146, 100).steadyCaseC.typical, 45, 60));
  it('a small 10 Gb/s case after 322 GB: 47, inside the band and near its middle', () => {
    const job = { name: 'j', purposes: [], transferGB: 322, direction: 'in' as const, ambientC: 23, perDay: 1 };
    const { low, typical, high } = at('usb-10g', 70, 60, job).steadyCaseC;
    within(47, low, high);
    within(typical, 44, 50);
  });
});
