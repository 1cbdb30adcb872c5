import { describe, expect, it } from 'vitest';
import { aDrive, aHost, anEnclosure, anInput } from '../../tests/parts';
import type { Job } from '../parts/job';
import { simulate, simulateInputSchema, simulateReportSchema } from './simulate';

const job = (change: Partial<Job> = {}): Job => ({
  name: 'j',
  purposes: [],
  transferGB: 100,
  direction: 'in',
  ...change
});
const kinds = (input: Parameters<typeof simulate>[0]) => simulate(input)!.events.map((e) => e.kind);

describe('both ends of a copy', () => {
  const host = aHost({}, { internalDisk: { readMBps: 1000, writeMBps: 2000, cacheGB: 40, postCacheWriteMBps: 500 } });
  it('onto the drive no faster than the host’s disk reads: 100 GB at 1000 MB/s', () =>
    expect(simulate({ ...anInput({ host, job: job() }), seconds: 200 })!.summary.doneS).toBeCloseTo(100, 1));
  it('from the drive onto a disk that falls off its own cache: 40 GB at 2000, 60 at 500', () => {
    const input = { ...anInput({ host, job: job({ direction: 'out' }) }), seconds: 300 };
    expect(kinds(input)).toEqual(['host-cliff', 'done']);
    expect(simulate(input)!.summary.doneS).toBeCloseTo(20 + 120, 1);
    expect(simulate(input)!.samples.writtenGB.at(-1)).toBe(0);
  });
  it('both ways: there, a turn, and back', () => {
    const run = simulate({ ...anInput({ host, job: job({ direction: 'both' }) }), seconds: 400 })!;
    expect(run.events.map((e) => e.kind)).toEqual(['turn', 'host-cliff', 'done']);
    expect(run.summary.doneS).toBeCloseTo(100 + 140, 1);
    expect(run.summary.movedGB).toBeCloseTo(200, 6);
  });
  it('a write of so many GB is no copy: the host’s disk has no part in it', () =>
    expect(simulate({ ...anInput({ host, job: job() }), seconds: 100, writeGB: 100 })!.summary.doneS).toBeCloseTo(
      100_000 / 3400,
      1
    ));
});

describe('a hard disk', () => {
  const disk = (change: object = {}) =>
    anInput({
      host: aHost({ modes: ['usb-10g'] }),
      enclosure: anEnclosure({ formFactor: '3.5in', protocols: ['sata'], modes: ['usb-10g'], externalSupply: true }),
      drive: {
        kind: 'drive',
        name: 'd',
        media: 'hdd',
        formFactor: '3.5in',
        capacityTB: 1,
        disk: { outerMBps: 200, innerMBps: 100, recording: 'smr' },
        ...change
      }
    });
  it('slows down inwards: a whole pass of 1 TB takes 2 C / (200 + 100) = 6667 s', () => {
    const run = simulate({ ...disk(), seconds: 8000, writeGB: 1000, everyS: 10 })!;
    expect(run.summary.doneS! / 6666.7).toBeCloseTo(1, 2);
    expect(run.samples.MBps[1]).toBeCloseTo(200, 0);
    expect(run.samples.nandC).toEqual([]);
  });
  it('shingled, written over: 25 GB, then 20 MB/s; on a first pass not', () => {
    const again = simulate({ ...disk({ fillFraction: 0.5 }), seconds: 1800, writeGB: 200, rewrite: true })!;
    expect(again.events[0]!.kind).toBe('smr-collapse');
    expect(again.samples.MBps.at(-1)).toBeCloseTo(20, 6);
    expect(kinds({ ...disk(), seconds: 1800, writeGB: 100 })).not.toContain('smr-collapse');
  });
});

describe('what is asked for', () => {
  it('is checked: no time, a fill beyond the drive, a fault that moves nothing', () => {
    const ask = (change: object) => simulateInputSchema.safeParse({ ...anInput(), seconds: 60, ...change }).success;
    expect(ask({})).toBe(true);
    for (const wrong of [
      { seconds: 0 },
      { fillFraction: 1 },
      { fault: 'not-detected-drive' },
      { seed: 0.5 },
      { hours: 1 }
    ])
      expect(ask(wrong)).toBe(false);
  });
  it('comes back as the schema says, with what was assumed', () => {
    const run = simulate({ ...anInput({ drive: aDrive({ flash: { cell: 'tlc' } }) }), seconds: 120, seed: 3 })!;
    expect(simulateReportSchema.safeParse(run).error?.issues).toBeUndefined();
    expect(run.assumed.map((a) => a.field)).toEqual(expect.arrayContaining(['components', 'ambientC']));
  });
  it('begins at rest or in the room, and a fuller drive falls off its cache earlier', () => {
    const dynamic = anInput({
      drive: aDrive({ flash: { cell: 'tlc', cacheKind: 'dynamic', cacheGB: 400, postCacheWriteMBps: 1500 } })
    });
    const first = (change: object) => simulate({ ...dynamic, seconds: 600, ...change })!;
    expect(first({ start: 'ambient', ambientC: 30 }).samples.caseC[0]).toBeCloseTo(30, 9);
    expect(first({ start: 'idle', ambientC: 30 }).samples.caseC[0]).toBeGreaterThan(31);
    const cliff = (fillFraction: number) => first({ fillFraction }).events.find((e) => e.kind === 'cliff')!.t;
    expect(cliff(0.8)).toBeLessThan(cliff(0.1) * 0.7);
  });
});
