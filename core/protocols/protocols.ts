import type { ConditionId } from '../results/conditions.ts';
import type { ProtocolId } from '../results/protocol-ids.ts';
import type { Settings } from '../results/settings.ts';

/** On what a run hangs. */
export type SubjectKind = 'build' | 'host' | 'model';

export type Protocol = {
  id: ProtocolId;
  label: string;
  /** The question that it answers. */
  answers: string;
  /** What a hand does, or the rig, in a sentence. */
  does: string;
  subjects: readonly SubjectKind[];
  media: 'any' | 'hdd' | 'flash';
  /** What must be answered, or said not to be known, before its result is kept. */
  needs: readonly ConditionId[];
  /** What can be set, with what it is unless somebody sets it. */
  usual: Settings;
  /** Words for the settings that this protocol has. */
  asks: Partial<Record<keyof Settings, string>>;
  /** Whether copies are timed, so that the stopwatch belongs to it. */
  byHand: boolean;
};

const CHAIN: readonly ConditionId[] = ['power', 'osVersion'];

/**
 * Ways of measuring, in the order in which somebody wants them. Sizes and times follow what each has to show: a speed check needs seconds,
 * heat needs a quarter of an hour (the case's time constant is 10 to 15 minutes), a cache needs more than it holds.
 */
export const PROTOCOLS: readonly Protocol[] = [
  {
    id: 'pair-check',
    label: 'Speed check',
    answers: 'Is the connection as fast as forecast?',
    does: 'Writes a file and reads it back, a few times; then single 4 KiB blocks at random.',
    subjects: ['build', 'model'],
    media: 'any',
    needs: [...CHAIN, 'tool'],
    usual: { GB: 5, rounds: 5 },
    asks: { GB: 'Size of the file', rounds: 'Times' },
    byHand: false
  },
  {
    id: 'loop',
    label: 'Loop',
    answers: 'Does the first round tell the truth, or only the settled ones?',
    does: 'Writes one bounded file and reads it back, again and again.',
    subjects: ['build', 'model'],
    media: 'any',
    needs: [...CHAIN, 'tool', 'ambientC'],
    usual: { GB: 16, rounds: 12 },
    asks: { GB: 'Size of the file', rounds: 'Rounds' },
    byHand: false
  },
  {
    id: 'soak',
    label: 'Soak',
    answers: 'How much goes in before it slows down, how slow is it then, and how warm does it get?',
    does: 'Writes on and on over one bounded stretch, a sample a second, with temperatures.',
    subjects: ['build', 'model'],
    media: 'any',
    needs: [...CHAIN, 'tool', 'ambientC', 'fillPercent', 'fan'],
    usual: { seconds: 900 },
    asks: { seconds: 'Length', GB: 'Over a file of' },
    byHand: false
  },
  {
    id: 'copy',
    label: 'Copy there and back',
    answers: 'How long does my own folder take, onto the drive and off it?',
    does: 'Copies a real folder to the drive and back to another place, a few times, each copy timed.',
    subjects: ['build', 'model'],
    media: 'any',
    needs: ['source', 'target', 'files', 'memoryGB', 'power'],
    usual: { GB: 40, files: 400, rounds: 3, restS: 120 },
    asks: { GB: 'Size of the folder', files: 'Files in it', rounds: 'Times', restS: 'Rest in between' },
    byHand: true
  },
  {
    id: 'sweep',
    label: 'Surface sweep',
    answers: 'Is every place of the disk as fast as its neighbours?',
    does: 'Reads the whole surface from the outer edge inwards; then, on an empty disk, large files, mixed files, and a fifth of them rewritten.',
    subjects: ['build', 'model'],
    media: 'hdd',
    needs: [...CHAIN, 'tool', 'fillPercent'],
    usual: { fillPercent: 0 },
    asks: { fillPercent: 'How full it is' },
    byHand: false
  },
  {
    id: 'baseline',
    label: 'Internal disk',
    answers: 'Is the computer’s own disk the slower end of a copy?',
    does: 'Writes a file on the internal disk and reads it back, a few times, larger than its cache.',
    subjects: ['host', 'build'],
    media: 'any',
    needs: ['tool', 'power', 'memoryGB'],
    usual: { GB: 64, rounds: 3 },
    asks: { GB: 'Size of the file', rounds: 'Times' },
    byHand: false
  },
  {
    id: 'retest',
    label: 'Again, fuller or older',
    answers: 'Has it become slower since it was new, or since it was empty?',
    does: 'The speed check and a short soak, at 25, 50, 75 and 90 % full or once a year; everything else as the first time.',
    subjects: ['build', 'model'],
    media: 'any',
    needs: [...CHAIN, 'tool', 'fillPercent', 'ambientC'],
    usual: { GB: 5, rounds: 3, seconds: 300, fillPercent: 50 },
    asks: { fillPercent: 'How full it is', GB: 'Size of the file', rounds: 'Times', seconds: 'Then write for' },
    byHand: false
  },
  {
    id: 'acceptance',
    label: 'New or used drive',
    answers: 'Is it what was paid for, and is every byte of it there, while it can still be returned?',
    does: 'Reads the health figures, then writes the whole drive once and reads all of it back.',
    subjects: ['build', 'model'],
    media: 'any',
    needs: ['tool', 'driveFirmware', 'fillPercent'],
    usual: {},
    asks: {},
    byHand: false
  },
  {
    id: 'cross-copy',
    label: 'Between two externals',
    answers: 'Is it the case or the computer’s own disk that is slow?',
    does: 'Copies a folder from another external drive to this one and back: the internal disk takes no part.',
    subjects: ['build'],
    media: 'any',
    needs: ['files', 'memoryGB', 'power'],
    usual: { GB: 40, files: 400, rounds: 3, restS: 120 },
    asks: {
      otherBuildId: 'The other external',
      GB: 'Size of the folder',
      files: 'Files in it',
      rounds: 'Times',
      restS: 'Rest in between'
    },
    byHand: true
  },
  {
    id: 'own-program',
    label: 'My own program',
    answers: 'Does my work get faster on it, or is the program itself the limit?',
    does: 'The same piece of work, such as an export of the same timeline, on the internal disk and on the drive, timed.',
    subjects: ['build', 'model'],
    media: 'any',
    needs: ['tool', 'toolVersion', 'power'],
    usual: { taskS: 240, GB: 40, rounds: 3 },
    asks: { taskS: 'It takes on the internal disk', GB: 'It reads and writes', rounds: 'Times' },
    byHand: true
  }
];

/**
 * Finds a protocol by its name.
 * @example protocolOf('soak').label // 'Soak'
 */
export function protocolOf(id: ProtocolId): Protocol {
  const found = PROTOCOLS.find((protocol) => protocol.id === id);
  if (!found) throw new RangeError(`no protocol ${id}`);
  return found;
}

/**
 * Lists the protocols for a kind of subject and, where it is known, of medium.
 * @example protocolsFor('host').map(({ id }) => id) // ['baseline']
 */
export const protocolsFor = (subject: SubjectKind, media?: 'nvme' | 'sata-ssd' | 'hdd'): Protocol[] =>
  PROTOCOLS.filter(
    (protocol) =>
      protocol.subjects.includes(subject) &&
      (protocol.media === 'any' || media === undefined || (protocol.media === 'hdd') === (media === 'hdd'))
  );
