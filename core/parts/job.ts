import { z } from 'zod';
import { choice, id, measure, name, yesNo } from './form/field.ts';
import { osSchema } from './host.ts';

export const PURPOSES = [
  'scratch',
  'exchange',
  'backup',
  'boot',
  'archive',
  'camera',
  'console',
  'tv',
  'car',
  'phone',
  'tablet',
  'router'
] as const;

/** What a job is for, in plain words. */
export const PURPOSE_LABEL: Record<(typeof PURPOSES)[number], string> = {
  scratch: 'work on it',
  exchange: 'carry data between computers',
  backup: 'back up a computer',
  boot: 'start a computer from it',
  archive: 'keep data for years',
  camera: 'record from a camera',
  console: 'store for a game console',
  tv: 'play on a TV',
  car: 'play in a car',
  phone: 'use with a phone',
  tablet: 'use with a tablet',
  router: 'plug into a router'
};

export const jobSchema = z.strictObject({
  id: id().optional(),
  name: name(),
  purposes: z.array(z.enum(PURPOSES)).max(12).meta({ title: 'What it is for', first: true, labels: PURPOSE_LABEL }),
  transferGB: measure('Copied in one go', 'GB', 0.001, 200_000, { first: true }),
  files: z.number().int().min(1).max(1e9).meta({ title: 'Files in it', first: true }).optional(),
  largestFileGB: measure('Largest file', 'GB', 0.000001, 200_000, { first: true }).optional(),
  direction: choice('Direction', ['in', 'out', 'both'], {
    first: true,
    labels: { in: 'onto the drive', out: 'from the drive', both: 'both ways' }
  }),
  perDay: z
    .number()
    .min(0)
    .max(10_000)
    .meta({ title: 'How often', description: 'such as 2 a day, 1 a week, 3 a month', often: true, first: true })
    .optional(),
  writeHosts: z.array(osSchema).max(12).meta({ title: 'Written on' }).optional(),
  readHosts: z.array(osSchema).max(12).meta({ title: 'Read on' }).optional(),
  ambientC: measure('Room temperature', '°C', -30, 60).optional(),
  carried: yesNo('Carried around').optional(),
  encrypt: yesNo('Encrypted').optional(),
  caseNames: yesNo('Files told apart by capital letters only', {
    description: 'such as Plan.txt and plan.txt in one folder'
  }).optional(),
  minSustainedWriteMBps: measure('Write needed after the cache', 'MB/s', 1, 20_000).optional(),
  capacityTB: measure('Space needed', 'TB', 0.001, 200).optional()
});

export type Job = z.infer<typeof jobSchema>;

/**
 * Tells what cannot be true of a job as a whole: by the path of the field that is wrong.
 * @example jobProblems({ name: 'j', purposes: [], transferGB: 1, direction: 'in' }) // []
 */
export function jobProblems(job: Job): { path: string; message: string }[] {
  const { largestFileGB, transferGB, files } = job;
  if (largestFileGB === undefined) return [];
  if (largestFileGB > transferGB) return [{ path: 'largestFileGB', message: 'is larger than the whole transfer' }];
  // 100 files of 4.35 GB are 434.99999999999994 GB in floating point.
  return files !== undefined && largestFileGB * files < transferGB * (1 - 1e-9)
    ? [{ path: 'largestFileGB', message: `times ${files} files is less than the transfer` }]
    : [];
}
