import type { Drive } from '../parts/drive.ts';
import type { Job } from '../parts/job.ts';
import { capacity, quantity } from '../quantities/format.ts';

/** What is known of how well a drive is; what is absent nobody has read. */
export type DriveHealth = {
  /** Sectors or blocks that it replaced, and such as wait to be. */
  reallocated?: number | undefined;
  pending?: number | undefined;
  /** Per cent of its rated life that are used. */
  wornPercent?: number | undefined;
  hours?: number | undefined;
};

export const OLD_USES = ['backup', 'archive', 'scratch', 'boot-stick', 'camera', 'console', 'exchange'] as const;
export type OldUse = (typeof OLD_USES)[number];
export const OLD_USE_LABEL: Record<OldUse, string> = {
  backup: 'second backup target',
  archive: 'archive copy',
  scratch: 'room for work that can be made again',
  'boot-stick': 'stick to start and mend computers from',
  camera: 'store for a camera',
  console: 'store for a game console',
  exchange: 'carrying files about'
};

export type OldUseAdvice = { use: OldUse; fits: 'well' | 'perhaps' | 'no'; because: string };
export type JobFit = { name: string; fits: boolean; because: string };
export type OldDriveAdvice = {
  state: 'sound' | 'worn' | 'failing' | 'unknown';
  says: string;
  uses: OldUseAdvice[];
  jobs: JobFit[];
};

/** Estimates of practice: from here on a drive is worn, or on its way out. */
const WORN = { percent: 80, hours: 40_000, reallocated: 1 };
const FAILING = { percent: 100, reallocated: 50, pending: 1 };

// eslint-disable-next-line complexity -- one line for each reading
function stateOf({ reallocated, pending, wornPercent, hours }: DriveHealth): Pick<OldDriveAdvice, 'state' | 'says'> {
  if ([reallocated, pending, wornPercent, hours].every((value) => value === undefined))
    return {
      state: 'unknown',
      says: 'Nobody has read its health: read it first. Until then it gets nothing that has no other copy.'
    };
  if (
    (pending ?? 0) >= FAILING.pending ||
    (reallocated ?? 0) >= FAILING.reallocated ||
    (wornPercent ?? 0) >= FAILING.percent
  )
    return { state: 'failing', says: 'It is on its way out: copy what is on it, and give it nothing more.' };
  if ((reallocated ?? 0) >= WORN.reallocated || (wornPercent ?? 0) >= WORN.percent || (hours ?? 0) >= WORN.hours)
    return { state: 'worn', says: 'It has aged: good for a further copy, not for the only one.' };
  return { state: 'sound', says: 'Its health readings are without a fault.' };
}

const fast = ({ media }: Drive): boolean => media !== 'hdd';
const advice = (use: OldUse, fits: OldUseAdvice['fits'], because: string): OldUseAdvice => ({ use, fits, because });

/** What each use asks of a drive. */
const USES: Record<OldUse, (drive: Drive, state: OldDriveAdvice['state']) => OldUseAdvice> = {
  backup: (drive, state) =>
    drive.capacityTB < 0.25
      ? advice('backup', 'no', `${capacity(drive.capacityTB)} hold no backup of a computer`)
      : advice(
          'backup',
          state === 'sound' ? 'well' : 'perhaps',
          'it is written seldom, and another copy stands beside it'
        ),
  archive: (drive, state) =>
    drive.media === 'hdd'
      ? advice('archive', state === 'sound' ? 'well' : 'perhaps', 'a disk keeps without power; read it once a year')
      : advice(
          'archive',
          state === 'worn' ? 'no' : 'perhaps',
          'flash without power loses charge with the years, sooner when it is worn'
        ),
  scratch: (drive, state) =>
    fast(drive)
      ? advice('scratch', state === 'failing' ? 'no' : 'well', 'what is on it can be made again')
      : advice('scratch', 'no', 'a turning disk is slow to work on'),
  'boot-stick': (drive) =>
    fast(drive) && drive.capacityTB <= 1
      ? advice('boot-stick', 'well', 'fast and small, and rarely needed')
      : advice(
          'boot-stick',
          fast(drive) ? 'perhaps' : 'no',
          fast(drive) ? 'it is larger than that asks for' : 'a turning disk starts systems slowly'
        ),
  camera: (drive, state) =>
    !fast(drive) || drive.flash?.cell === 'qlc' || state === 'worn'
      ? advice('camera', 'no', 'a recording cannot be made again, and wants a steady write')
      : advice(
          'camera',
          state === 'sound' ? 'perhaps' : 'no',
          'where its write after the cache keeps up, and it is well'
        ),
  console: (drive) =>
    advice('console', fast(drive) ? 'well' : 'perhaps', 'games can be fetched again; a console formats it itself'),
  exchange: (drive, state) =>
    advice(
      'exchange',
      state === 'failing' ? 'no' : drive.formFactor === '3.5in' ? 'perhaps' : 'well',
      drive.formFactor === '3.5in' ? 'it wants a supply of its own' : 'what is carried is a copy'
    )
};

/** Whether a job of the crate could be done with it. */
function jobFit(job: Job, drive: Drive, writeMBps: number | undefined): JobFit {
  const need = job.capacityTB ?? job.transferGB / 1000;
  if (need > drive.capacityTB)
    return {
      name: job.name,
      fits: false,
      because: `it needs ${capacity(need)}, this one has ${capacity(drive.capacityTB)}`
    };
  const wants = job.minSustainedWriteMBps;
  if (wants !== undefined && (writeMBps ?? 0) < wants)
    return {
      name: job.name,
      fits: false,
      because: `it needs ${quantity(wants, 'MB/s')} after the cache${writeMBps === undefined ? ', and nobody has measured this one' : `, this one writes ${quantity(writeMBps, 'MB/s')}`}`
    };
  return { name: job.name, fits: true, because: `${capacity(need)} of ${capacity(drive.capacityTB)}` };
}

/**
 * Says what an old drive can still be: from its health, its kind, its size, and the jobs of the crate.
 * @param writeMBps what it writes after the cache, MB/s, measured or stated
 * @example oldDrive(aDrive(), {}, []).state // 'unknown'
 */
export function oldDrive(drive: Drive, health: DriveHealth, jobs: readonly Job[], writeMBps?: number): OldDriveAdvice {
  const { state, says } = stateOf(health);
  const rank = { well: 0, perhaps: 1, no: 2 };
  const uses = OLD_USES.map((use) => {
    const found = USES[use](drive, state);
    return state === 'failing' ? { ...found, fits: 'no' as const, because: 'it is on its way out' } : found;
  }).sort((a, b) => rank[a.fits] - rank[b.fits]);
  return { state, says, uses, jobs: jobs.map((job) => jobFit(job, drive, writeMBps)) };
}
