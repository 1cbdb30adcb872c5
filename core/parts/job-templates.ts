import type { Job } from './job.ts';

/** A job to begin from: round figures of the kind of work, to be changed to one's own. */
export type JobTemplate = { id: string; title: string; about: string; job: Job };

export const JOB_TEMPLATES: readonly JobTemplate[] = [
  {
    id: 'offload',
    title: 'A day’s work onto a carried drive',
    about: 'Large files in one go, once a day, read on another system',
    job: {
      name: 'Daily offload',
      purposes: ['exchange'],
      transferGB: 300,
      files: 3000,
      largestFileGB: 10,
      direction: 'in',
      perDay: 1,
      carried: true
    }
  },
  {
    id: 'project',
    title: 'A project that lives on the drive',
    about: 'Many files, opened and saved all day',
    job: {
      name: 'Project drive',
      purposes: ['scratch'],
      transferGB: 40,
      files: 60_000,
      largestFileGB: 4,
      direction: 'both',
      perDay: 2
    }
  },
  {
    id: 'backup',
    title: 'Backup of a computer',
    about: 'All of it once, then what has changed',
    job: {
      name: 'Backup',
      purposes: ['backup'],
      transferGB: 60,
      files: 80_000,
      direction: 'in',
      perDay: 1,
      capacityTB: 1,
      encrypt: true
    }
  },
  {
    id: 'archive',
    title: 'Archive that is written once',
    about: 'Much, slowly, and read years later',
    job: { name: 'Archive', purposes: ['archive'], transferGB: 3000, files: 30_000, direction: 'in', capacityTB: 4 }
  },
  {
    id: 'spare',
    title: 'Bootable spare of a system disk',
    about: 'A copy that starts in place of the disk inside',
    job: {
      name: 'Bootable spare',
      purposes: ['boot', 'backup'],
      transferGB: 400,
      files: 700_000,
      largestFileGB: 20,
      direction: 'in',
      perDay: 0.14
    }
  },
  {
    id: 'cards',
    title: 'Pictures from a camera',
    about: 'Cards and devices that know simple filesystems only',
    job: {
      name: 'Camera pictures',
      purposes: ['camera', 'exchange'],
      transferGB: 64,
      files: 2500,
      largestFileGB: 0.06,
      direction: 'in',
      perDay: 0.5,
      carried: true,
      writeHosts: [{ family: 'camera' }]
    }
  }
];
