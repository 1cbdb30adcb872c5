import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure, anInput } from '../../tests/parts';
import { LINK_MODE_IDS, PLUGS } from '../facts/link-modes';
import { driveSchema } from '../parts/drive';
import { deliveredPrice, newestQuote } from '../cost/delivered-price';
import { plan } from './plan';
import { planReportSchema, type PlanInput } from './report';

const DRIVE = '01ARZ3NDEKTSV4RRFFQ69G5FA1';
const CASE = '01ARZ3NDEKTSV4RRFFQ69G5FA2';

describe('one whole plan, by hand', () => {
  const report = plan(anInput());
  it('runs at 40 Gb/s with a PCIe 4 bridge: 2800 - 3400 - 3900', () => {
    expect(report.link.mode).toBe('usb4-40g');
    expect(report.throughput.read).toEqual({ low: 2800, typical: 3400, high: 3900 });
    expect(report.verdict).toBe('works');
  });
  it('the slot is 4 x 1969 x 0.84 - 0.875 - 0.91, the drive 7000 x 0.85 - 0.95 - 1', () => {
    const slot = report.link.stages.find((s) => s.stage === 'slot')!.MBps;
    expect([slot.low, slot.typical, slot.high].map((v) => Math.round(v * 100) / 100)).toEqual([
      6615.84, 6891.5, 7167.16
    ]);
    expect(report.link.stages.find((s) => s.stage === 'drive')!.MBps).toEqual({ low: 5950, typical: 6650, high: 7000 });
  });
  it('falls off its cache at 200 GB to 1500 MB/s', () => {
    expect(report.cache.cliffAtGB!.typical).toBe(200);
    expect(report.throughput.sustainedWrite).toEqual({ low: 1275, typical: 1500, high: 1500 * 1.1 });
  });
  it('is a report as the contract describes it, and explains every figure it shows', () => {
    expect(planReportSchema.safeParse(report).error).toBeUndefined();
    const figures = report.workings.map((w) => w.figure);
    for (const key of [
      'link.mode',
      'throughput.read',
      'throughput.write',
      'throughput.sustainedWrite',
      'throughput.random4kRead',
      'cache.cliffAtGB',
      'capacity.usable',
      'filesystem.first',
      'stage.slot'
    ]) {
      expect(figures).toContain(key);
    }
    expect(plan(anInput(), { workings: false }).workings).toEqual([]);
  });
  it('stays cool in a large case: 600 cm² for some 9 W', () => {
    // past the cache at 1500 MB/s: (1.5 + 3 x 1.5) / 0.88 + a bridge at half of its rate 1.1 + 1.1 / 2 = 8.47 W. A box of this surface
    // has 4.013 x (600 / 74.08)^(-1/8) = 3.090 W/(m² K^1.25) and 291.6 cm² on the desk: 5 x 0.02916 = 0.1458 W/K.
    // At 10.79 K: 3.090 x 1.812 + 4 x 0.82 sigma 300.5³ = 5.60 + 5.05; 0.06 x 10.65 + 0.146 = 0.785 W/K; 8.47 / 0.785 = 10.79 K
    expect(report.thermal!.watts).toBeCloseTo(8.468, 2);
    expect(report.thermal!.steadyCaseC.typical).toBeCloseTo(32.79, 1);
    expect(report.thermal).toMatchObject({ touch: 'comfortable', form: 'none', throttleAfterS: null });
  });
  it('a port that is not there is a mistake of the caller', () => {
    expect(() => plan(anInput({ portId: 'x' }))).toThrow(RangeError);
  });
});

describe('when it cannot work', () => {
  it('figures are null, stages empty, the job left out, and the rest still comes', () => {
    const job = { name: 'j', purposes: [], transferGB: 10, direction: 'in' as const };
    const report = plan(
      anInput({ host: aHost({ modes: ['usb-10g'] }), enclosure: anEnclosure({ modes: ['tbt3-40g'] }), job })
    );
    expect(report.verdict).toBe('fails');
    expect(report.link).toEqual({ mode: null, stages: [], bottleneck: null, alsoLimits: [], writeBottleneck: null });
    expect(Object.values(report.throughput)).toEqual([null, null, null, null, null]);
    expect(report.job).toBeUndefined();
    expect(report.filesystem.first.filesystem).toBe('ext4');
  });
  it('the same for a drive that does not fit, though the link would run', () => {
    const report = plan(anInput({ drive: aDrive({ m2LengthMm: 110 }) }));
    expect(report.link.mode).toBe('usb4-40g');
    expect(report.throughput.read).toBeNull();
  });
  it('a filesystem without a common ground is a fail that leaves the speed standing', () => {
    const report = plan(
      anInput({
        host: aHost({}, { os: { family: 'windows' } }),
        drive: aDrive({ capacityTB: 4 }),
        houseRules: { scheme: 'mbr' }
      })
    );
    expect(report.verdict).toBe('fails');
    expect(report.throughput.read).not.toBeNull();
  });
});

describe('the job', () => {
  const job = (change = {}) => ({ name: 'j', purposes: [], transferGB: 420, direction: 'in' as const, ...change });
  it('420 GB with a cliff at 200 GB: 200/3.4 + 220/1.5 = 205.5 s, and a file', () => {
    const report = plan(anInput({ job: job() }));
    expect(report.job!.seconds.typical).toBeCloseTo(200_000 / 3400 + 220_000 / 1500 + 0.0004, 6);
    expect(report.job).toMatchObject({ cliffReached: true, fits: true, throttleReached: false });
    expect(report.findings.map((f) => f.code)).toContain('cache-cliff-in-job');
  });
  it('the host’s own disk is the other end: reading at 500 it takes 840 s, and the cliff never comes', () => {
    const slow = aHost({}, { internalDisk: { readMBps: 500, writeMBps: 400, cacheGB: 50, postCacheWriteMBps: 200 } });
    const into = plan(anInput({ host: slow, job: job() }));
    expect(into.job!.seconds.typical).toBeCloseTo(840, 0);
    expect(into.job!.cliffReached).toBe(false);
    // copied out: 50 GB at 400, then 370 GB at 200 = 125 + 1850 s; that is the host's cliff, not the drive's
    const out = plan(anInput({ host: slow, job: job({ direction: 'out' }) }));
    expect(out.job!.seconds.typical).toBeCloseTo(1975, 0);
    expect(out.findings.map((f) => f.code)).not.toContain('cache-cliff-in-job');
  });
  it('both ways is the sum of the two', () => {
    const [into, out, both] = (['in', 'out', 'both'] as const).map(
      (direction) => plan(anInput({ job: job({ direction }) })).job!.seconds.typical
    );
    expect(both).toBeCloseTo(into! + out!, 9);
  });
  it('what does not fit fails; what is already on the drive counts', () => {
    expect(plan(anInput({ job: job({ transferGB: 2100 }) })).findings.map((f) => f.code)).toContain('job-does-not-fit');
    expect(plan(anInput({ job: job({ transferGB: 1500 }), drive: aDrive({ fillFraction: 0.5 }) })).job!.fits).toBe(
      false
    );
  });
  it('200 TBW at 1000 GB a day in small files: 200 000 / (1000 x 365 x 2) = 0.27 years', () => {
    const report = plan(
      anInput({
        drive: aDrive({ enduranceTBW: 200, warrantyYears: 5 }),
        job: job({ transferGB: 1000, perDay: 1, files: 20_000_000 })
      })
    );
    expect(report.findings.find((f) => f.code === 'endurance-short')?.message).toContain('0.27\u202fyears');
  });
});

describe('what it costs', () => {
  it('(100 x 0.9 - 5 + 10) x 1.2 = 114', () => {
    expect(deliveredPrice({ list: 100, discountPercent: 10, coupon: 5, shipping: 10, taxPercent: 20 })).toBeCloseTo(
      114,
      9
    );
    expect(deliveredPrice({ list: 10, coupon: 50 })).toBe(0);
  });
  const quote = (partId: string, list: number, date = '2026-05-01', currency = 'EUR') => ({
    partId,
    vendor: 'v',
    date,
    currency,
    list
  });
  it('counts the pads that the stack takes, not those that lie about or come in the box', () => {
    const PAD = '01ARZ3NDEKTSV4RRFFQ69G5FA3';
    const OTHER = '01ARZ3NDEKTSV4RRFFQ69G5FA4';
    const chip = {
      role: 'controller' as const,
      side: 'top' as const,
      xMm: 1,
      yMm: 1,
      widthMm: 9,
      lengthMm: 9,
      heightMm: 1.2
    };
    const pad = (id: string, thicknessMm: number) => ({
      kind: 'pad' as const,
      id,
      name: 'p',
      thicknessMm,
      widthMm: 50,
      lengthMm: 50
    });
    const given = anInput({
      drive: aDrive({ id: DRIVE, components: [chip] }), // 2.0 - 1.2 = 0.8 mm: the 1 mm pad
      enclosure: anEnclosure({ id: CASE }),
      pads: [pad(OTHER, 2), pad(PAD, 1)],
      quotes: [quote(DRIVE, 160), quote(CASE, 80), quote(PAD, 4), quote(OTHER, 50)]
    });
    expect(plan(given).cost!.total).toBe(244);
    const boxed = { ...given, enclosure: { ...given.enclosure, includedPads: [{ ...pad(OTHER, 1), id: undefined }] } };
    expect(plan(boxed).cost!.total).toBe(240);
  });
  it('says that an unstated system version is taken as current', () => {
    const fields = (os: { family: 'linux' | 'windows'; version?: string }) =>
      plan(anInput({ host: aHost({}, { os }) })).assumed.flatMap((a) => (a.part === 'host' ? [a.field] : []));
    expect(fields({ family: 'linux' })).toEqual(['os.version']);
    expect(fields({ family: 'linux', version: '6.1' })).toEqual([]);
    expect(fields({ family: 'windows' })).toEqual([]);
  });
  it('takes the newest price of each part, on one day the cheaper', () => {
    expect(
      newestQuote([quote(DRIVE, 90), quote(DRIVE, 120, '2026-06-01'), quote(DRIVE, 110, '2026-06-01')], DRIVE)?.list
    ).toBe(110);
  });
  it('per TB and per usable TiB: 160 + 80 over 2 TB, and over (1.81899 TiB less 6.6 % for ext4) 1.69894', () => {
    const parts = { drive: aDrive({ id: DRIVE }), enclosure: anEnclosure({ id: CASE }) };
    const { cost } = plan(anInput({ ...parts, quotes: [quote(DRIVE, 160), quote(CASE, 80, '2026-04-01')] }));
    expect(cost).toMatchObject({
      total: 240,
      currency: 'EUR',
      perTB: 120,
      oldestQuote: '2026-04-01',
      withoutQuote: ['cable']
    });
    expect(cost!.perTiBUsable).toBeCloseTo(240 / 1.69894, 2);
    expect(plan(anInput({ ...parts, quotes: [quote(DRIVE, 160)] })).cost).toBeNull();
    expect(
      plan(anInput({ ...parts, quotes: [quote(DRIVE, 160), quote(CASE, 80, '2026-04-01', 'CHF')] })).cost
    ).toBeNull();
  });
});

describe('a part of which almost nothing is known', () => {
  it('is planned from class templates, each value named, with a wider band', () => {
    const bare = {
      kind: 'drive' as const,
      name: 'bare',
      media: 'nvme' as const,
      formFactor: 'm2' as const,
      capacityTB: 1
    };
    const report = plan(anInput({ drive: bare }));
    const fields = report.assumed.map((a) => `${a.part}.${a.field}`);
    expect(fields).toEqual(
      expect.arrayContaining([
        'drive.pcie',
        'drive.readMBps',
        'drive.writeMBps',
        'drive.flash.cell',
        'drive.m2LengthMm',
        'drive.m2Key',
        'drive.sides'
      ])
    );
    // of a drive that states nothing, 15 W of the port may be short at its peak: 7 / 0.88 + 3 W at most, and it is not
    expect(report.verdict).toBe('works');
    // class PCIe 3: 3000 x 0.5 - 0.95 - 1; the link's low 2800 is above it
    expect(report.throughput.read).toEqual({ low: 1500, typical: 2850, high: 3000 });
  });
});

describe('properties of every plan', () => {
  const modes = fc.uniqueArray(fc.constantFrom(...LINK_MODE_IDS), { minLength: 1, maxLength: 4 });
  const maybe = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined });
  const rate = fc.double({ min: 1, max: 20_000, noNaN: true });
  const rate15 = fc.double({ min: 1, max: 15_000, noNaN: true });
  const drive = fc.record({
    media: fc.constantFrom('nvme' as const, 'sata-ssd' as const, 'hdd' as const),
    formFactor: fc.constantFrom('m2' as const, '2.5in' as const, '3.5in' as const),
    capacityTB: fc.double({ min: 0.001, max: 200, noNaN: true }),
    readMBps: maybe(rate),
    writeMBps: maybe(rate),
    fillFraction: maybe(fc.double({ min: 0, max: 1, noNaN: true })),
    flash: maybe(
      fc.record({
        cell: maybe(fc.constantFrom('tlc' as const, 'qlc' as const, 'mlc' as const, 'slc' as const)),
        cacheGB: maybe(fc.double({ min: 0.1, max: 10_000, noNaN: true })),
        postCacheWriteMBps: maybe(rate15),
        drainMBps: maybe(rate15)
      })
    )
  });
  const input = fc.record({
    port: modes,
    cable: modes,
    bridge: modes,
    drive,
    plugs: fc.tuple(fc.constantFrom('usb-c' as const, 'usb-a' as const, 'esata' as const), fc.constantFrom(...PLUGS)),
    transferGB: fc.double({ min: 0.001, max: 50_000, noNaN: true }),
    files: fc.integer({ min: 1, max: 1e7 }),
    captive: fc.boolean()
  });

  it('bands are in order, nothing is NaN, the worst finding is the verdict, and the report fits its schema', () => {
    fc.assert(
      fc.property(input, (x) => {
        const given: PlanInput = anInput({
          host: aHost({ modes: x.port, plug: x.plugs[0] }),
          cable: aCable({ modes: x.cable, ends: x.plugs }),
          enclosure: anEnclosure({
            modes: x.bridge,
            plug: x.plugs[1],
            protocols: ['nvme', 'sata'],
            formFactor: x.drive.formFactor,
            captiveCable: x.captive
          }),
          drive: { kind: 'drive', name: 'd', ...x.drive },
          job: { name: 'j', purposes: [], transferGB: x.transferGB, files: x.files, direction: 'both' }
        });
        expect(driveSchema.safeParse(given.drive).success).toBe(true);
        const report = plan(given);
        expect(planReportSchema.safeParse(report).error?.issues).toBeUndefined();
        const bands = [
          ...Object.values(report.throughput),
          report.cache.cliffAtGB,
          report.cache.recoverS,
          report.job?.seconds ?? null
        ];
        for (const band of bands) {
          if (!band) continue;
          expect(band.low).toBeLessThanOrEqual(band.typical + 1e-9);
          expect(band.typical).toBeLessThanOrEqual(band.high + 1e-9);
          expect(band.low).toBeGreaterThanOrEqual(0);
        }
        expect(JSON.stringify(report)).not.toMatch(/NaN|Infinity|undefined/);
        const verdictOf = { note: 'works', limit: 'limited', check: 'check', fail: 'fails' } as const;
        expect(report.verdict).toBe(report.findings[0] ? verdictOf[report.findings[0].severity] : 'works');
      }),
      { seed: 20261123, numRuns: 400 }
    );
  });
});
