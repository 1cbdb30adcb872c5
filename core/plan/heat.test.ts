import { describe, expect, it } from 'vitest';
import { aDrive, aHost, anEnclosure, anInput } from '../../tests/parts';
import { warmBuilds } from '../../tests/warm-builds';
import type { Job } from '../parts/job';
import { plan } from './plan';
import { simulate } from '../simulate/simulate';
import { planReportSchema, type PlanInput } from './report';

const job = (change: Partial<Job> = {}): Job => ({
  name: 'j',
  purposes: [],
  transferGB: 420,
  direction: 'in',
  ambientC: 22,
  ...change
});
const cased = (cooling: object, change: Partial<PlanInput> = {}) =>
  anInput({
    enclosure: anEnclosure({ cooling: { kind: 'passive', areaCm2: 200, massG: 150, ...cooling } }),
    ...change
  });
const thermal = (input: PlanInput) => plan(input, { workings: false }).thermal!;

describe('what the temperatures of a plan are for', () => {
  it('without a job: writing without end, past the cache', () => {
    const { load } = thermal(cased({}));
    expect(load).toEqual({ work: 'post', MBps: 1500, share: 1 });
  });
  it('with a job: its own mean, which files make cooler and reading too', () => {
    const plain = thermal(cased({}, { job: job() }));
    const files = thermal(cased({}, { job: job({ files: 2_000_000 }) }));
    const reading = thermal(cased({}, { job: job({ direction: 'out' }) }));
    expect(files.steadyCaseC.typical).toBeLessThan(plain.steadyCaseC.typical - 3);
    expect(reading.watts).toBeLessThan(plain.watts);
  });
  it('with nothing that connects: at rest, a drive of 1 W and two fifths of a bridge of 1.15 W', () => {
    const input = cased({}, { host: aHost({ modes: ['usb-10g'] }) });
    const report = plan({ ...input, enclosure: { ...input.enclosure, modes: ['tbt3-40g'] } }, { workings: false });
    expect(report.throughput.write).toBeNull();
    expect(report.thermal).toMatchObject({ load: { work: 'idle', MBps: 0 }, throttleAfterS: null, form: 'none' });
    expect(report.thermal!.watts).toBeCloseTo(1 / 0.88 + 0.4 * 1.15, 9);
    expect(report.findings.map((f) => f.code)).not.toContain('case-too-hot-to-hold');
  });
  it('a hard disk: one body, no NAND, no throttle, and a limit of its own', () => {
    const disk = (areaCm2: number) =>
      plan(
        anInput({
          host: aHost({ modes: ['usb-10g'] }),
          enclosure: anEnclosure({
            formFactor: '2.5in',
            protocols: ['sata'],
            modes: ['usb-10g'],
            cooling: { kind: 'passive', areaCm2, material: 'plastic' }
          }),
          drive: { kind: 'drive', name: 'd', media: 'hdd', formFactor: '2.5in', capacityTB: 2 }
        }),
        { workings: false }
      );
    expect(disk(300).thermal).toMatchObject({ steadyNandC: null, startC: null, throttleAfterS: null });
    expect(disk(300).findings.map((f) => f.code)).not.toContain('disk-too-warm');
    expect(disk(60).findings.find((f) => f.code === 'disk-too-warm')?.message).toMatch(/rated to 60/);
  });
  it('a room outside the range of the drive is said, at either end; without a range nothing is', () => {
    const codes = (ambientC: number, operating?: { minC?: number; maxC?: number }) => {
      const input = anInput({ job: job({ ambientC }) });
      return plan({ ...input, drive: { ...input.drive, ...(operating ? { operating } : {}) } }).findings.map(
        (f) => f.code
      );
    };
    expect(codes(-5)).not.toContain('room-outside-drive-range');
    expect(codes(-5, { minC: 0, maxC: 70 })).toContain('room-outside-drive-range');
    expect(codes(0, { minC: 0, maxC: 70 })).not.toContain('room-outside-drive-range');
    expect(codes(39, { maxC: 35 })).toContain('room-outside-drive-range');
  });
});

describe('throttling in a job', () => {
  const hot = cased({ areaCm2: 50, massG: 60 }, { job: job({ transferGB: 1500 }) });
  const report = plan(hot);
  it('is a limit that says when, from where to where, and lengthens the job', () => {
    const finding = report.findings.find((f) => f.code === 'throttles-in-job')!;
    expect(finding).toMatchObject({ severity: 'limit', about: 'job' });
    expect(finding.message).toMatch(
      /After about .* reaches 80.°C and throttles: the rate falls from 3400 to about \d+/
    );
    expect(report.job!.throttleReached).toBe(true);
    const cool = plan(cased({ areaCm2: 900 }, { job: job({ transferGB: 1500 }) }));
    expect(report.job!.seconds.typical).toBeGreaterThan(cool.job!.seconds.typical * 1.2);
    expect(cool.job!.throttleReached).toBe(false);
  });
  it('shows in the ways of the job, which still add up', () => {
    const [way] = report.job!.ways;
    expect(way!.spent.throttled).toBeGreaterThan(0);
    const { bytes, afterCliff, files, throttled } = way!.spent;
    expect(bytes + afterCliff + files + throttled).toBeCloseTo(way!.seconds, 6);
    expect(way!.seconds).toBeCloseTo(report.job!.seconds.typical, 6);
  });
  it('comes earlier in the likely hot case and later in the cool one', () => {
    const { low, typical, high } = report.thermal!.throttleAfterS!;
    expect(low).toBeLessThan(typical);
    expect(typical).toBeLessThan(high);
  });
  it('and a short job in the same case never gets there', () => {
    const short = plan(cased({ areaCm2: 50, massG: 60 }, { job: job({ transferGB: 15 }) }));
    expect(short.job!.throttleReached).toBe(false);
    expect(short.findings.map((f) => f.code)).not.toContain('throttles-in-job');
    // though it would, going on
    expect(short.thermal!.throttleAfterS).not.toBeNull();
  });
  it('is explained: every figure of it has a working', () => {
    const figures = report.workings.map((w) => w.figure);
    for (const figure of ['thermal.case', 'thermal.controller', 'thermal.throttle', 'thermal.battery'])
      expect(figures).toContain(figure);
    expect(report.workings.find((w) => w.figure === 'throughput.sustainedWrite')!.source).toMatch(
      /throttling takes its share/
    );
  });
});

describe('touch, and the school of hot cases', () => {
  it('comfortable, brief, do not hold: as the case shrinks', () => {
    const touches = [900, 190, 60].map((areaCm2) => thermal(cased({ areaCm2 })).touch);
    expect(touches).toEqual(['comfortable', 'brief', 'do-not-hold']);
  });
  it('is a finding from 55 °C of metal on, and from 48 where a hot case counts as a fault', () => {
    const warm = cased({ areaCm2: 180 });
    const at = thermal(warm).steadyCaseC.typical;
    expect(at).toBeGreaterThan(48);
    expect(at).toBeLessThan(55);
    const codes = (houseRules: Record<string, string>) =>
      plan({ ...warm, houseRules }, { workings: false }).findings.map((f) => f.code);
    expect(codes({})).not.toContain('case-too-hot-to-hold');
    expect(codes({ 'hot-case': 'fault' })).toContain('case-too-hot-to-hold');
    const decided = plan({ ...warm, houseRules: { 'hot-case': 'fault' } }).houseRules.find(
      (d) => d.school === 'hot-case'
    );
    expect(decided).toMatchObject({ choice: 'fault', own: true });
  });
  it('a surface that nobody stated warns only where even the likely cool case is too hot', () => {
    const { areaCm2: _, ...unstated } = cased({}).enclosure.cooling!;
    const at = (ambientC: number) =>
      plan(anInput({ enclosure: anEnclosure({ cooling: unstated }), job: job({ ambientC }) }), { workings: false });
    const codes = (ambientC: number) => at(ambientC).findings.map((f) => f.code);
    const doubtful = at(30);
    expect(doubtful.thermal!.steadyCaseC.typical).toBeGreaterThan(55);
    expect(doubtful.thermal!.steadyCaseC.low).toBeLessThan(55);
    expect(codes(30)).not.toContain('case-too-hot-to-hold');
    expect(at(50).thermal!.steadyCaseC.low).toBeGreaterThan(55);
    expect(codes(50)).toContain('case-too-hot-to-hold');
  });
  it('ejected and left in it keeps drawing: 0.4 to 1 of idle for a day', () => {
    const { idleW, ejectedWhPerDay, coolsInS } = thermal(cased({}));
    expect(ejectedWhPerDay.low).toBeCloseTo(idleW * 0.4 * 24, 9);
    expect(ejectedWhPerDay.high).toBeCloseTo(idleW * 24, 9);
    expect(coolsInS).toBeGreaterThan(0);
  });
});

describe('what is stated, measured or decided changes the temperatures', () => {
  const controller = (input: PlanInput) => thermal(input).steadyControllerC;
  it('a paper label that stays on is 4 to 14 K on the controller at some watts; taken off by house rule it is none', () => {
    const paper = cased({}, { drive: aDrive({ label: 'paper' }) });
    const on = controller(paper).typical;
    const off = controller({ ...paper, houseRules: { label: 'remove' } }).typical;
    expect(on - off).toBeGreaterThan(3);
    expect(on - off).toBeLessThan(16);
    expect(controller(cased({})).typical).toBeCloseTo(off, 9);
  });
  it('a better pad, a fan and a cooler room each help', () => {
    const pad = (conductivityWmK: number) => ({
      kind: 'pad' as const,
      name: 'p',
      thicknessMm: 0.7,
      widthMm: 50,
      lengthMm: 50,
      conductivityWmK
    });
    expect(controller(cased({}, { pads: [pad(8)] })).typical).toBeLessThan(
      controller(cased({}, { pads: [pad(1.5)] })).typical - 1
    );
    expect(controller(cased({ kind: 'fan' })).typical).toBeLessThan(controller(cased({})).typical - 5);
    const rooms = [10, 35].map((ambientC) => controller(cased({}, { job: job({ ambientC }) })).typical);
    expect(rooms[1]! - rooms[0]!).toBeGreaterThan(18);
    expect(rooms[1]! - rooms[0]!).toBeLessThan(26);
  });
  it('a fit takes the surface out of what is uncertain, is named, and moves the case by its factor', () => {
    const measured = { caseFactor: 1.2, chipFactor: 0.9, readings: 5 };
    const before = thermal(cased({ kind: 'fan' }, { job: job() }));
    const after = thermal(cased({ kind: 'fan', measured }, { job: job() }));
    // under a fan the rise is proportional: 1.2 times as much
    expect((after.steadyCaseC.typical - 22) / (before.steadyCaseC.typical - 22)).toBeCloseTo(1.2, 6);
    expect(after.fitted).toEqual(measured);
    const what = after.influences.map((i) => i.what);
    expect(what).not.toContain('the surface of the case');
    expect(what).not.toContain('what the pads really conduct');
    const width = (t: typeof after) => (t.steadyCaseC.high - t.steadyCaseC.low) / (t.steadyCaseC.typical - 22);
    expect(width(after)).toBeLessThan(width(before));
    const { workings } = plan(cased({ kind: 'fan', measured }));
    expect(workings.find((w) => w.figure === 'thermal.case')!.source).toMatch(/fitted to 5 readings.*× 1.2.*× 0.9/);
  });
  it('pads that were settled on count, down to none', () => {
    const stack = { pieces: [1, 3, 4].map((component) => ({ component, layers: [] })) };
    expect(controller(cased({}, { stack })).typical).toBeGreaterThan(controller(cased({})).typical + 15);
  });
});

describe('whatever the build', () => {
  it.each([21, 22])(
    'seed %i: the report fits its schema, temperatures are in order, nothing is below the room',
    (seed) => {
      for (const input of warmBuilds(seed, 60)) {
        const report = plan(input);
        expect(planReportSchema.safeParse(report).error?.issues).toBeUndefined();
        const { steadyCaseC, steadyControllerC, steadyNandC, idleCaseC, ambientC, watts, idleW } = report.thermal!;
        expect(steadyCaseC.typical).toBeGreaterThan(ambientC);
        expect(idleCaseC).toBeGreaterThan(ambientC);
        expect(steadyControllerC.typical).toBeGreaterThan(steadyCaseC.typical - 1e-6);
        if (steadyNandC) expect(steadyNandC.typical).toBeGreaterThan(steadyCaseC.typical - 1e-6);
        expect(watts).toBeGreaterThanOrEqual(idleW - 1e-9);
        expect(JSON.stringify(report)).not.toMatch(/NaN|Infinity/);
      }
    }
  );
  it('more heat is never cooler: a hotter room, a smaller case, a faster rate', () => {
    for (const input of warmBuilds(23, 40)) {
      const base = thermal(input).steadyCaseC.typical;
      const { cooling } = input.enclosure;
      if (cooling?.areaCm2 !== undefined) {
        const smaller = { ...input.enclosure, cooling: { ...cooling, areaCm2: cooling.areaCm2 * 0.8 } };
        expect(thermal({ ...input, enclosure: smaller }).steadyCaseC.typical).toBeGreaterThan(base - 0.05);
      }
      const warmer = { ...input.job!, ambientC: input.job!.ambientC! + 5 };
      expect(thermal({ ...input, job: warmer }).steadyCaseC.typical).toBeGreaterThan(base - 0.05);
    }
  });
  it('a plan of an earlier engine, without any of this, can still be read', () => {
    const report = plan(anInput(), { workings: false });
    const old = JSON.parse(JSON.stringify(report));
    old.thermal = null;
    old.engine = '2';
    delete old.stack.bowMm;
    delete old.stack.from;
    delete old.stack.chosen;
    for (const row of old.stack.components) {
      delete row.component;
      delete row.padNames;
      delete row.pressureMPa;
      delete row.forceN;
    }
    const read = planReportSchema.parse(old);
    expect(read.thermal).toBeNull();
    expect(read.stack).toMatchObject({ bowMm: null, from: null, chosen: false });
  });
});

describe('a job’s own duty', () => {
  // tau of this case: (150 g x 0.9 J/gK + 7) J/K over what it gives off
  const at = (change: Partial<Job>) => thermal(cased({}, { job: job(change) }));
  it('over and over where it says nothing; once a day the case goes 1 - exp(-t/tau) of its way', () => {
    const endless = at({});
    const daily = at({ perDay: 1 });
    expect(endless.load.share).toBe(1);
    const seconds = plan(cased({}, { job: job({ perDay: 1 }) })).job!.seconds.typical;
    expect(daily.load.share).toBeCloseTo(1 - Math.exp(-seconds / daily.timeConstantS), 6);
    const way = (t: typeof daily) => t.steadyCaseC.typical - daily.idleCaseC;
    // heat given off is not quite proportional to the rise
    expect(way(daily) / way(endless)).toBeCloseTo(daily.load.share, 1);
  });
  it('the chips stand over the case as in endless work', () => {
    const [endless, daily] = [at({}), at({ perDay: 1 })];
    const over = (t: typeof daily) => t.steadyControllerC.typical - t.steadyCaseC.typical;
    expect(over(daily)).toBeCloseTo(over(endless), 6);
  });
  it('a job that fills the day is a job without end', () => {
    expect(at({ perDay: 1, transferGB: 200_000 }).load.share).toBeCloseTo(1, 6);
    expect(at({ perDay: 400 }).load.share).toBeGreaterThan(at({ perDay: 1 }).load.share);
  });
  it('agrees with what the simulation shows at the end of one job, within 1 K', () => {
    const input = cased({}, { job: job({ perDay: 1 }) });
    const played = simulate({ ...input, seconds: 3600 })!;
    expect(Math.abs(played.summary.peakCaseC - thermal(input).steadyCaseC.typical)).toBeLessThan(1);
  });
});
