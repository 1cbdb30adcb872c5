import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure } from '../../tests/parts';
import type { LinkMode } from '../facts/link-modes';
import { fillDrive } from '../parts/fill/drive';
import type { Drive } from '../parts/drive';
import type { Host } from '../parts/host';
import type { Job } from '../parts/job';
import { plan } from '../plan/plan';
import type { PlanInput } from '../plan/report';
import { simulate } from '../simulate/simulate';
import { diskStart, needGB } from './job-time';

/** An 8 TB disk of 260 MB/s outside and 120 inside: k² = 0.2130, 1 - k² = 0.7870. */
const disk = (change: Partial<Drive> = {}): Drive => ({
  kind: 'drive',
  name: 'disk',
  media: 'hdd',
  formFactor: '3.5in',
  thicknessMm: 26.1,
  capacityTB: 8,
  fillFraction: 0,
  disk: { outerMBps: 260, innerMBps: 120, recording: 'cmr' },
  ...change
});
const built = (
  mode: LinkMode,
  job: Partial<Job>,
  more: { drive?: Partial<Drive>; internalDisk?: Host['internalDisk'] } = {}
): PlanInput => ({
  host: aHost({ modes: [mode] }, more.internalDisk ? { internalDisk: more.internalDisk } : {}),
  portId: 'p',
  cable: aCable(),
  enclosure: anEnclosure({
    formFactor: '3.5in',
    protocols: ['sata'],
    modes: [mode],
    maxThicknessMm: 26.1,
    externalSupply: true,
    downstreamSataGbps: 6
  }),
  drive: disk(more.drive),
  job: { name: 'j', purposes: [], transferGB: 200, direction: 'in', ...job }
});
const time = (input: PlanInput) => plan(input, { workings: false }).job!.seconds;
const played = (input: PlanInput) => simulate({ ...input, seconds: 200_000, everyS: 60 })!.summary.doneS!;

describe('a hard disk behind something slower than itself', () => {
  it.each<[string, PlanInput, number]>([
    // 200 000 MB at 38 MB/s
    ['a USB 2.0 port: 200 GB take 5263 s', built('usb2', {}), 5263.2],
    // slower than 200 MB/s only from (1 - (200/260)²) / 0.787 = 52 % on
    [
      'a host disk that reads 200 MB/s: 1000 s',
      built('usb-10g', {}, { internalDisk: { readMBps: 200, writeMBps: 3000 } }),
      1000
    ],
    // 50 GB at the outer edge: 16 000 000 x (1 - sqrt(1 - 0.787 x 0.00625)) / (260 x 0.787) = 192.5 s; 150 GB at 100
    [
      'a host disk that falls off its cache: 192.5 + 1500 s',
      built(
        'usb-10g',
        { direction: 'out' },
        { internalDisk: { readMBps: 3000, writeMBps: 3000, cacheGB: 50, postCacheWriteMBps: 100 } }
      ),
      1692.5
    ]
  ])('%s, and so in the simulation', (_name, input, seconds) => {
    expect(time(input).typical / seconds).toBeCloseTo(1, 3);
    expect(played(input) / seconds).toBeCloseTo(1, 2);
  });

  it('is written up to its link, and no faster in any zone: 1900 GB behind 200 MB/s', () => {
    // to x = 0.2375 all of it is at 200 MB/s
    const input = built('usb-10g', { transferGB: 1900 }, { internalDisk: { readMBps: 200, writeMBps: 200 } });
    expect(time(input).typical / 9500).toBeCloseTo(1, 4);
  });
});

describe('the band of a disk’s time comes from what is uncertain', () => {
  // 200 / 100: 1 - k² = 0.75, s(x) = sqrt(1 - 0.75 x), 2 C / (200 x 0.75) = 106 667 s
  const known = { outerMBps: 200, innerMBps: 100, recording: 'cmr' as const };
  it('a full pass is 2C / (v_outer + v_inner), within 3 % whatever happens', () => {
    // 16 000 000 / 300 = 53 333 s
    const { low, typical, high } = time(built('usb-10g', { transferGB: 8000 }, { drive: { disk: known } }));
    expect(typical / 53_333.3).toBeCloseTo(1, 4);
    expect(low / (53_333.3 / 1.03)).toBeCloseTo(1, 3);
    expect(high / (53_333.3 / 0.97)).toBeCloseTo(1, 3);
  });
  it('6 of 8 TB on a disk that does not say how full it is: from the outer edge 36 113 s, at the inner end 42 815 s', () => {
    // s(0) - s(0.75) = 0.33856; s(0.25) - s(1) = 0.40139
    const drive = { disk: known, fillFraction: undefined };
    const { low, typical, high } = time(built('usb-10g', { transferGB: 6000 }, { drive }));
    expect(typical / 36_113).toBeCloseTo(1, 3);
    expect(low / (36_113 / 1.03)).toBeCloseTo(1, 3);
    expect(high / (42_815 / 0.97)).toBeCloseTo(1, 3);
  });
  it('an inner edge that nobody stated is 0.42 to 0.55 of the outer one', () => {
    const { low, typical, high } = time(
      built('usb-10g', { transferGB: 8000 }, { drive: { disk: { outerMBps: 200, recording: 'cmr' } } })
    );
    // 16 000 000 / (200 + 96), / (206 + 113.3), / (194 + 81.48)
    expect(typical / 54_054).toBeCloseTo(1, 3);
    expect(low / 50_110).toBeCloseTo(1, 3);
    expect(high / 58_081).toBeCloseTo(1, 3);
  });
  it('begins where the disk is filled to; what is read lies somewhere in what is filled', () => {
    const at = (fillFraction: number | undefined, way: 'in' | 'out', end: 'low' | 'typical' | 'high') =>
      diskStart(fillDrive(disk({ fillFraction })), 2000, way, end);
    expect([at(0.5, 'in', 'low'), at(0.5, 'in', 'typical'), at(0.5, 'in', 'high')]).toEqual([0.5, 0.5, 0.5]);
    // 2 of 4 TB that are on it: begins between 0 and 25 %
    expect([at(0.5, 'out', 'low'), at(0.5, 'out', 'typical'), at(0.5, 'out', 'high')]).toEqual([0.25, 0.125, 0]);
    expect([at(undefined, 'in', 'low'), at(undefined, 'in', 'typical')]).toEqual([0.75, 0]);
  });
});

describe('a drive that is full', () => {
  it('has no fast part at all: 100 GB at 1500 MB/s, not a division by nothing', () => {
    const drive = aDrive({
      fillFraction: 1,
      flash: { cell: 'tlc', cacheGB: 100, cacheKind: 'dynamic', postCacheWriteMBps: 1500, drainMBps: 0 }
    });
    const input: PlanInput = {
      ...built('usb4-40g', { transferGB: 100 }),
      enclosure: anEnclosure(),
      drive
    };
    const report = plan(input, { workings: false });
    expect(report.cache.cliffAtGB!.typical).toBe(0);
    expect(report.job!.seconds.typical).toBeCloseTo(100_000 / 1500 + 0.0004, 3);
    expect(report.job!.ways[0]).toMatchObject({ limitedBy: 'drive-cache' });
    expect(report.findings.map((f) => f.code)).toContain('job-does-not-fit');
  });
  it('is read off without needing any room: the data is what fills it', () => {
    const input: PlanInput = {
      ...built('usb4-40g', { transferGB: 500, direction: 'out' }),
      enclosure: anEnclosure(),
      drive: aDrive({ fillFraction: 0.9 })
    };
    const report = plan(input, { workings: false });
    expect(report.job!.fits).toBe(true);
    expect(report.findings.map((f) => f.code)).not.toContain('job-does-not-fit');
    const job: Job = { name: 'j', purposes: [], transferGB: 500, direction: 'out' };
    expect([needGB(job), needGB({ ...job, direction: 'both' }), needGB({ ...job, capacityTB: 1 })]).toEqual([
      0, 500, 1000
    ]);
  });
});

describe('measured rates', () => {
  const flash = (measured: PlanInput['measured'], job: Partial<Job> = {}): PlanInput => ({
    host: aHost(),
    portId: 'p',
    cable: aCable(),
    enclosure: anEnclosure(),
    drive: aDrive(),
    job: { name: 'j', purposes: [], transferGB: 100, direction: 'in', ...job },
    ...(measured ? { measured } : {})
  });
  it('stand in the place of the forecast where a job is timed, and the report says so', () => {
    const report = plan(flash({ writeMBps: 2000, date: '2026-11-01' }));
    // 100 GB at 2000 MB/s and one file of 0.4 ms; the forecast itself stays
    expect(report.job!.seconds.typical).toBeCloseTo(50.0004, 4);
    expect(report.throughput.write!.typical).toBe(3400);
    expect(report.measured).toEqual({ writeMBps: 2000, date: '2026-11-01' });
    expect(report.workings.find((w) => w.figure === 'job.seconds')!.source).toContain('measured on 1 Nov 2026');
  });
  it('of writing move the place where the cache is full; those of reading leave it', () => {
    // fixed 200 GB without drain: the cliff stays at 200; 300 GB are 200/2 + 100/1.5 s
    expect(plan(flash({ writeMBps: 2000, date: '2026-11-01' }, { transferGB: 300 })).job!.seconds.typical).toBeCloseTo(
      100 + 100_000 / 1500 + 0.0004,
      3
    );
    const read = plan(flash({ readMBps: 2500, date: '2026-11-01' }, { direction: 'out' }));
    expect(read.job!.seconds.typical).toBeCloseTo(40.0004, 4);
  });
  it('of a disk scale its zones: 234 of 260 at the edge is nine tenths everywhere', () => {
    const plain = time(built('usb-10g', { transferGB: 4000 }));
    const slower = time({
      ...built('usb-10g', { transferGB: 4000 }),
      measured: { writeMBps: 234, date: '2026-11-01' }
    });
    expect(slower.typical / plain.typical).toBeCloseTo(1 / 0.9, 3);
  });
});
