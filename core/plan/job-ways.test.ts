import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anInput } from '../../tests/parts';
import type { Job } from '../parts/job';
import type { Host } from '../parts/host';
import { plan } from './plan';

const job = (change: Partial<Job> = {}): Job => ({
  name: 'Copy',
  purposes: [],
  transferGB: 100,
  direction: 'in',
  ...change
});
const ways = (internalDisk: Host['internalDisk'], work: Job, more: object = {}) =>
  plan(anInput({ host: aHost({}, { internalDisk }), job: work, ...more }), { workings: false }).job!.ways;

describe('which end limits a job', () => {
  it('the link, where both disks are faster: 100 GB at 3400 MB/s', () => {
    const [way] = ways(undefined, job());
    expect(way!.limitedBy).toBe('link');
    expect(way!.spent.bytes).toBeCloseTo(100_000 / 3400, 6);
    expect(way!.spent.files).toBeCloseTo(0.0004, 6);
    expect(way!.MBps).toBeCloseTo(100_000 / (100_000 / 3400 + 0.0004), 3);
  });
  it('the host’s own disk, where it reads at 500 MB/s', () => {
    const [way] = ways({ readMBps: 500, writeMBps: 500 }, job());
    expect(way!.limitedBy).toBe('host-disk');
    expect(way!.seconds).toBeCloseTo(200, 2);
  });
  it('the drive, where it is the slowest stage', () => {
    const drive = aDrive({ writeMBps: 1000, flash: { cell: 'slc', dram: true } });
    // 0.95 x 1000
    expect(ways(undefined, job(), { drive })[0]).toMatchObject({ limitedBy: 'drive' });
  });
  it('the drive’s cache: 200 GB fast, 800 GB at 1500', () => {
    // 200 000 / 3400 = 58.8 s, then 800 000 / 1500 = 533 s
    const [way] = ways(undefined, job({ transferGB: 1000 }));
    expect(way!.limitedBy).toBe('drive-cache');
    expect(way!.spent.afterCliff).toBeCloseTo(533.33, 1);
  });
  it('the host’s cache on the way back is not the enclosure’s fault', () => {
    // read 3400; the host takes 50 GB fast and then 500 MB/s: 50 000 / 500 = 100 s against 15
    const [way] = ways(
      { readMBps: 7000, writeMBps: 5000, cacheGB: 50, postCacheWriteMBps: 500 },
      job({ direction: 'out' })
    );
    expect(way!.limitedBy).toBe('host-disk-cache');
  });
  it('many small files: 1 000 000 over a tunnel take 400 s, their 10 GB three', () => {
    const [way] = ways(undefined, job({ transferGB: 10, files: 1_000_000 }));
    expect(way!.limitedBy).toBe('files');
    expect(way!.spent.files).toBeCloseTo(400, 6);
  });
  it('both ways are told one by one and add up to the job', () => {
    const report = plan(anInput({ cable: aCable(), job: job({ direction: 'both' }) }), { workings: false });
    expect(report.job!.ways.map((way) => way.direction)).toEqual(['in', 'out']);
    // 100 GB each way at 3400 MB/s, and 0.4 ms for its one file each way
    for (const way of report.job!.ways) expect(way.seconds).toBeCloseTo(100_000 / 3400 + 0.0004, 6);
    expect(report.job!.seconds.typical).toBeCloseTo(2 * (100_000 / 3400 + 0.0004), 6);
  });
});

describe('advertised against reachable', () => {
  it('the share of the rating that the link can carry: 3400 of 7000 and of 6000', () => {
    const { reachable } = plan(anInput(), { workings: false });
    expect(reachable!.readPercent).toBeCloseTo((100 * 3400) / 7000, 9);
    expect(reachable!.writePercent).toBeCloseTo((100 * 3400) / 6000, 9);
  });
  it('all of it where the link is the faster one; nothing to say of a rating that nobody stated', () => {
    const drive = aDrive({ readMBps: 550, writeMBps: undefined });
    expect(plan(anInput({ drive }), { workings: false }).reachable).toEqual({ readPercent: 100, writePercent: null });
  });
});
