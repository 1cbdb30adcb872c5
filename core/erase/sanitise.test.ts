import { describe, expect, it } from 'vitest';
import type { Drive } from '../parts/drive';
import { oldDrive } from './old-drive';
import { doesNotProve, MEANS, RECIPIENTS, sanitise, type SanitiseQuestion } from './sanitise';

const of = (change: Partial<SanitiseQuestion> = {}): SanitiseQuestion => ({
  media: 'nvme',
  recipient: 'stranger',
  capacityTB: 2,
  writeMBps: { low: 500, typical: 1000, high: 2000 },
  works: true,
  ...change
});
const fits = (question: SanitiseQuestion) =>
  Object.fromEntries(sanitise(question).map(({ means, fits }) => [means, fits]));

describe('by what it is and who gets it', () => {
  it.each<[string, Partial<SanitiseQuestion>, string]>([
    ['it stays: quick is enough', { recipient: 'self' }, 'quick'],
    ['flash to a stranger: only the drive reaches its spare cells', {}, 'own-erase'],
    ['flash in the house', { recipient: 'known' }, 'encrypt-then-erase'],
    ['a disk to a stranger: one pass', { media: 'hdd' }, 'full'],
    ['dead: nothing can be written', { works: false }, 'destroy']
  ])('%s', (_name, change, first) => expect(sanitise(of(change))[0]?.means).toBe(first));
  it('flash written over is too little for a stranger, and quick is so for anybody else', () => {
    expect(fits(of()).full).toBe('too-little');
    expect(fits(of({ media: 'hdd' })).full).toBe('first');
    for (const recipient of RECIPIENTS)
      if (recipient !== 'self') expect(fits(of({ recipient })).quick).toBe('too-little');
  });
  it('2 TB at 1000 MB/s: 2 x 10^6 / 1000 = 2000 s; at 500 twice that', () => {
    const full = sanitise(of()).find(({ means }) => means === 'full');
    expect(full?.seconds).toEqual({ low: 1000, typical: 2000, high: 4000 });
  });
  it('every means has its way and what it leaves, and a certificate says what it does not prove', () => {
    expect(
      sanitise(of())
        .map(({ means }) => means)
        .sort()
    ).toEqual([...MEANS].sort());
    for (const means of MEANS) expect(doesNotProve({ means, looked: 'not' })).toHaveLength(3);
    expect(doesNotProve({ means: 'full', looked: 'whole' })).toHaveLength(2);
  });
});

const drive = (change: Partial<Drive>): Drive => ({
  kind: 'drive',
  name: 'Old',
  media: 'hdd',
  formFactor: '2.5in',
  capacityTB: 1,
  ...change
});
const use = (d: Drive, health: Parameters<typeof oldDrive>[1], wanted: string) =>
  oldDrive(d, health, []).uses.find((found) => found.use === wanted)?.fits;

describe('what an old drive can still be', () => {
  it('one that waits to replace sectors gets nothing more', () => {
    const { state, uses } = oldDrive(drive({}), { pending: 1 }, []);
    expect(state).toBe('failing');
    expect(uses.every(({ fits }) => fits === 'no')).toBe(true);
  });
  it('a sound disk keeps an archive, and is slow to work on', () => {
    expect(use(drive({}), { reallocated: 0 }, 'archive')).toBe('well');
    expect(use(drive({}), { reallocated: 0 }, 'scratch')).toBe('no');
  });
  it('worn flash keeps none, and is still good for what can be made again', () => {
    expect(use(drive({ media: 'nvme', formFactor: 'm2' }), { wornPercent: 85 }, 'archive')).toBe('no');
    expect(use(drive({ media: 'nvme', formFactor: 'm2' }), { wornPercent: 85 }, 'scratch')).toBe('well');
  });
  it('nobody has read its health: unknown, and a backup only perhaps', () => {
    expect(oldDrive(drive({}), {}, []).state).toBe('unknown');
    expect(use(drive({}), {}, 'backup')).toBe('perhaps');
  });
  it('jobs: by room and by what it writes after the cache', () => {
    const job = { name: 'Scan day', purposes: [], transferGB: 420, direction: 'in' as const };
    const fit = (change: object, write?: number) => oldDrive(drive({}), {}, [{ ...job, ...change }], write).jobs[0];
    expect(fit({})?.fits).toBe(true);
    expect(fit({ capacityTB: 6 })?.because).toContain('6\u202fTB');
    expect(fit({ minSustainedWriteMBps: 300 }, 85)?.fits).toBe(false);
    expect(fit({ minSustainedWriteMBps: 300 }, 400)?.fits).toBe(true);
    expect(fit({ minSustainedWriteMBps: 300 })?.because).toContain('nobody has measured');
  });
});
