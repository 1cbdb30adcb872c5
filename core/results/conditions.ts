import { z } from 'zod';
import { FILESYSTEM_IDS } from '../facts/filesystems.ts';
import { id, text } from '../parts/form/field.ts';

/** Where bytes come from or go to. The rates of all but the drive itself limit a copy too. */
export const COPY_ENDS = ['drive', 'internal', 'other-external', 'network', 'memory'] as const;
export type CopyEnd = (typeof COPY_ENDS)[number];
export const COPY_END_LABEL: Record<CopyEnd, string> = {
  drive: 'this drive',
  internal: 'the computer’s internal disk',
  'other-external': 'another external drive',
  network: 'the network',
  memory: 'made up by the tool, in memory'
};

const known = {
  filesystem: z.enum(FILESYSTEM_IDS).optional(),
  writeCache: z.enum(['performance', 'quick-removal', 'system-default']).optional(),
  fillPercent: z.number().min(0).max(100).optional(),
  ambientC: z.number().min(-30).max(60).optional(),
  startC: z.number().min(-30).max(110).optional(),
  power: z.enum(['mains', 'battery']).optional(),
  encrypted: z.boolean().optional(),
  indexing: z.boolean().optional(),
  testGB: z.number().min(0.001).max(100_000).optional(),
  repeats: z.number().int().min(1).max(1000).optional(),
  tool: text('Tool', 80).optional(),
  toolVersion: text('Version of the tool', 40).optional(),
  osVersion: text('Version of the system', 40).optional(),
  driveFirmware: text('Firmware of the drive', 40).optional(),
  bridgeFirmware: text('Firmware of the bridge', 40).optional(),
  fan: z.boolean().optional(),
  allocationUnit: text('Allocation unit', 20).optional(),
  memoryGB: z.number().min(0.1).max(16_384).optional(),
  source: z.enum(COPY_ENDS).optional(),
  target: z.enum(COPY_ENDS).optional(),
  files: z.number().int().min(1).max(1e9).optional(),
  flushed: z
    .boolean()
    .optional()
    .describe('the watch was stopped when the drive could be ejected, not when the copy said “done”')
};

/** Conditions that a person can say “I do not know” to. */
export const CONDITION_IDS = Object.keys(known) as ConditionId[];
export type ConditionId = keyof typeof known;

/** Everything that two runs must share before they may be compared. */
export const conditionsSchema = z.strictObject({
  ...known,
  unitIds: z.array(id()).max(10).optional().describe('the very items that were measured'),
  notKnown: z
    .array(z.enum(CONDITION_IDS as [ConditionId, ...ConditionId[]]))
    .max(CONDITION_IDS.length)
    .optional()
    .describe('asked, and answered with “I do not know”'),
  notes: z.string().max(2000).optional()
});
export type Conditions = z.infer<typeof conditionsSchema>;

/** What is another one on another day, and so is asked anew each time. */
const DAY_TO_DAY: ReadonlySet<string> = new Set([
  'ambientC',
  'startC',
  'indexing',
  'flushed',
  'testGB',
  'repeats',
  'files',
  'source',
  'target'
]);

/**
 * Tells whether a condition changes from day to day.
 * @example dayToDay('ambientC') // true
 */
export const dayToDay = (id: string): boolean => DAY_TO_DAY.has(id);

/** How a condition is asked for. */
export type ConditionField = {
  id: ConditionId;
  label: string;
  /** What a person types, or what is chosen from. */
  as:
    | { kind: 'text'; max: number }
    | { kind: 'number'; unit: 'GB' | '°C' | '%' | ''; min: number; max: number }
    | { kind: 'choice'; options: readonly { value: string; text: string }[] }
    | { kind: 'yes'; yes: string; no: string };
  why: string;
};

const POWER = [
  { value: 'mains', text: 'mains' },
  { value: 'battery', text: 'battery' }
];
const CACHE = [
  { value: 'performance', text: 'better performance' },
  { value: 'quick-removal', text: 'quick removal' },
  { value: 'system-default', text: 'as the system has it' }
];
const ENDS = COPY_ENDS.map((value) => ({ value, text: COPY_END_LABEL[value] }));

/** Every condition in the order in which it is asked, without those that other forms have better fields for. */
export const CONDITION_FIELDS: readonly ConditionField[] = [
  {
    id: 'source',
    label: 'From',
    as: { kind: 'choice', options: ENDS },
    why: 'The slower of two disks sets the time of a copy.'
  },
  { id: 'target', label: 'To', as: { kind: 'choice', options: ENDS }, why: 'A copy to the drive is its write.' },
  { id: 'tool', label: 'Tool', as: { kind: 'text', max: 80 }, why: 'Tools differ in block size and queue.' },
  {
    id: 'toolVersion',
    label: 'Version of the tool',
    as: { kind: 'text', max: 40 },
    why: 'Versions of one tool differ too.'
  },
  {
    id: 'osVersion',
    label: 'Version of the system',
    as: { kind: 'text', max: 40 },
    why: 'Drivers come with the system.'
  },
  {
    id: 'driveFirmware',
    label: 'Firmware of the drive',
    as: { kind: 'text', max: 40 },
    why: 'It decides on cache and heat.'
  },
  {
    id: 'bridgeFirmware',
    label: 'Firmware of the bridge',
    as: { kind: 'text', max: 40 },
    why: 'It decides on UAS, TRIM and the negotiated speed.'
  },
  {
    id: 'writeCache',
    label: 'Write cache',
    as: { kind: 'choice', options: CACHE },
    why: 'Without it writes fall to a half or a sixth.'
  },
  { id: 'allocationUnit', label: 'Allocation unit', as: { kind: 'text', max: 20 }, why: 'It matters for small files.' },
  {
    id: 'fillPercent',
    label: 'How full the drive is',
    as: { kind: 'number', unit: '%', min: 0, max: 100 },
    why: 'A full drive has a smaller cache.'
  },
  {
    id: 'memoryGB',
    label: 'Memory of the computer',
    as: { kind: 'number', unit: 'GB', min: 0.1, max: 16_384 },
    why: 'A test smaller than twice the memory measures the memory.'
  },
  {
    id: 'power',
    label: 'Power',
    as: { kind: 'choice', options: POWER },
    why: 'On battery a computer saves, the ports too.'
  },
  {
    id: 'ambientC',
    label: 'Room',
    as: { kind: 'number', unit: '°C', min: -30, max: 60 },
    why: 'Heat is counted from the room up.'
  },
  {
    id: 'startC',
    label: 'Drive at the start',
    as: { kind: 'number', unit: '°C', min: -30, max: 110 },
    why: 'A warm drive slows down sooner.'
  },
  {
    id: 'fan',
    label: 'Fan',
    as: { kind: 'yes', yes: 'on', no: 'none, or off' },
    why: 'It doubles what the case gives off.'
  },
  {
    id: 'encrypted',
    label: 'Encrypted',
    as: { kind: 'yes', yes: 'yes', no: 'no' },
    why: 'By the processor it costs 5 to 20 %, small blocks more.'
  },
  {
    id: 'indexing',
    label: 'Indexing or a virus scanner',
    as: { kind: 'yes', yes: 'running', no: 'paused' },
    why: 'It reads what is being written.'
  },
  {
    id: 'files',
    label: 'Number of files',
    as: { kind: 'number', unit: '', min: 1, max: 1e9 },
    why: 'Each file costs time beside its bytes.'
  },
  {
    id: 'flushed',
    label: 'Stopped when',
    as: { kind: 'yes', yes: 'the drive could be ejected', no: 'the copy said “done”' },
    why: 'The last bytes may still be in memory.'
  }
];

/**
 * Finds what a protocol asks for and nobody has answered, not even with “I do not know”.
 * @example missingConditions({ power: 'mains' }, ['power', 'ambientC']) // ['ambientC']
 */
export const missingConditions = (conditions: Conditions, needed: readonly ConditionId[]): ConditionId[] =>
  needed.filter((id) => conditions[id] === undefined && !conditions.notKnown?.includes(id));

/** Which rate of the drive a copy measured. */
export type CopyWay = { measured: 'write' | 'read' | 'neither'; says: string };

/**
 * Works out from where to where bytes went, and so which rate was measured: a copy TO the drive is its write.
 * @example wayOfCopy('internal', 'drive').measured // 'write'
 */
export function wayOfCopy(source: CopyEnd, target: CopyEnd): CopyWay {
  const other = source === 'drive' ? target : source;
  const limits =
    other === 'memory'
      ? 'Nothing else takes part.'
      : `${COPY_END_LABEL[other].replace(/^t/, 'T')} takes part too, and may be the slower one.`;
  if (source === target)
    return {
      measured: 'neither',
      says:
        source === 'drive'
          ? 'Read and write share the drive, so this is the rate of neither: copy from or to another disk.'
          : 'This drive took no part in it.'
    };
  if (target === 'drive') return { measured: 'write', says: `A copy to the drive measures its write. ${limits}` };
  if (source === 'drive') return { measured: 'read', says: `A copy from the drive measures its read. ${limits}` };
  return { measured: 'neither', says: 'This drive took no part in it.' };
}
