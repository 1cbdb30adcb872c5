import { z } from 'zod';
import { id, text } from '../parts/form/field.ts';
import { duration } from '../quantities/format.ts';
import type { Band } from '../quantities/band.ts';

export const MEANS = ['quick', 'full', 'own-erase', 'encrypt-then-erase', 'destroy'] as const;
export type Means = (typeof MEANS)[number];
export const MEANS_LABEL: Record<Means, string> = {
  quick: 'Quick format',
  full: 'Written over once, whole',
  'own-erase': 'The drive’s own secure erase',
  'encrypt-then-erase': 'Encrypt all of it, then throw the key away',
  destroy: 'Destroyed by a recycler'
};

export const RECIPIENTS = ['self', 'known', 'stranger', 'recycler'] as const;
export type Recipient = (typeof RECIPIENTS)[number];
export const RECIPIENT_LABEL: Record<Recipient, string> = {
  self: 'it stays here',
  known: 'somebody in the house gets it',
  stranger: 'it is sold or given away',
  recycler: 'it goes to recycling'
};

/** What a certificate says was done to a drive. */
export const erasedSchema = z.strictObject({
  means: z.enum(MEANS),
  recipient: z.enum(RECIPIENTS),
  serial: text('Serial number', 80),
  unitId: id().optional(),
  who: text('By whom', 80),
  tool: text('With what', 120).optional(),
  looked: z.enum(['not', 'samples', 'whole']).meta({ title: 'Read back' }),
  note: z.string().max(500).optional()
});
export type Erased = z.infer<typeof erasedSchema>;
export const LOOKED_LABEL = { not: 'not read back', samples: 'read back in places', whole: 'read back whole' } as const;

export type MeansAdvice = {
  means: Means;
  fits: 'first' | 'enough' | 'more' | 'too-little' | 'cannot';
  because: string;
  how: string;
  /** How long it takes, s; null where nobody can say. */
  seconds: Band | null;
  leaves: string;
};

export type SanitiseQuestion = {
  media: 'nvme' | 'sata-ssd' | 'hdd';
  recipient: Recipient;
  capacityTB: number;
  /** MB/s over the whole drive. */
  writeMBps: Band | null;
  /** Whether it can still be written to. */
  works: boolean;
};

const HOW: Record<Means, string> = {
  quick: 'Format it as on the sheet, with quick.',
  full: 'Format it as on the sheet, with full.',
  'own-erase':
    'By the maker’s tool, or the system’s own: a sanitize or secure-erase command. Many bridges do not pass it on: put the drive straight into a computer for it.',
  'encrypt-then-erase':
    'Format it encrypted with a long password that nobody keeps, fill it once, then format it again.',
  destroy:
    'Hand it to a recycler that takes data media and confirms it in writing. Old drives are e-waste: never in the bin.'
};

const LEAVES: Record<Means, string> = {
  quick: 'Everything that was on it can be read with common tools.',
  full: 'Cells and sectors that the drive has replaced keep what was in them; on flash its spare cells do too.',
  'own-erase': 'It trusts the drive to do what it says. Read some of it back.',
  'encrypt-then-erase': 'What was on it before it was encrypted may lie in spare cells: fill it once after encrypting.',
  destroy: 'It trusts the recycler.'
};

/** What a means leaves on this kind of drive. */
const leavesOf = (means: Means, media: SanitiseQuestion['media']): string =>
  means === 'full'
    ? media === 'hdd'
      ? 'Sectors that the disk has replaced keep what was in them: few, if its health is good.'
      : 'Spare cells, and such as were replaced, keep what was in them.'
    : LEAVES[means];

/** From which recipient on a means is too little. */
const ENOUGH_FOR: Record<Means, (question: SanitiseQuestion) => boolean> = {
  quick: ({ recipient }) => recipient === 'self',
  full: ({ recipient, media }) => recipient === 'self' || recipient === 'known' || media === 'hdd',
  'own-erase': () => true,
  'encrypt-then-erase': () => true,
  destroy: () => true
};

/** Which means comes first, for whom and on what. */
function firstOf({ media, recipient, works }: SanitiseQuestion): Means {
  if (!works) return 'destroy';
  if (recipient === 'self') return 'quick';
  if (media === 'hdd') return 'full';
  return recipient === 'known' ? 'encrypt-then-erase' : 'own-erase';
}

function secondsOf(means: Means, { media, capacityTB, writeMBps }: SanitiseQuestion): Band | null {
  const pass = (rate: number, times = 1) => ((capacityTB * 1e6) / rate) * times;
  if (means === 'quick') return { low: 5, typical: 20, high: 120 };
  if (means === 'destroy') return null;
  if (means === 'own-erase' && media !== 'hdd') return { low: 5, typical: 120, high: 3600 };
  if (!writeMBps) return null;
  return { low: pass(writeMBps.high), typical: pass(writeMBps.typical), high: pass(writeMBps.low) };
}

const REASON: Record<Means, (question: SanitiseQuestion) => string> = {
  quick: ({ recipient }) =>
    recipient === 'self'
      ? 'It stays with you: a fresh start is all that is needed.'
      : 'It only empties the list of contents.',
  full: ({ media }) =>
    media === 'hdd'
      ? 'On a turning disk one pass over everything is enough, and shows weak places as well.'
      : 'Writing over flash does not reach its spare cells.',
  'own-erase': ({ media }) =>
    media === 'hdd'
      ? 'It reaches replaced sectors too, and takes as long as writing it whole.'
      : 'Only the drive itself reaches its spare cells.',
  'encrypt-then-erase': () =>
    'Without the key nobody reads what is left, wherever it lies; needs no tool of the maker.',
  destroy: ({ works }) =>
    works
      ? 'Only where nothing may be left to chance, or where rules ask for it.'
      : 'What cannot be written to cannot be erased.'
};

/**
 * Weighs the means to erase a drive, by what it is and by who gets it; the first stands first.
 * @param question capacity in TB (10^12 bytes), rates in MB/s
 * @example sanitise({ media: 'hdd', recipient: 'stranger', capacityTB: 8, writeMBps: null, works: true })[0]?.means // 'full'
 */
export function sanitise(question: SanitiseQuestion): MeansAdvice[] {
  const first = firstOf(question);
  const rank = { first: 0, enough: 1, more: 2, 'too-little': 3, cannot: 4 };
  const enough = (means: Means): MeansAdvice['fits'] =>
    !ENOUGH_FOR[means](question) ? 'too-little' : means === 'destroy' ? 'more' : 'enough';
  return MEANS.map((means): MeansAdvice => {
    const cannot = !question.works && means !== 'destroy';
    return {
      means,
      fits: cannot ? 'cannot' : means === first ? 'first' : enough(means),
      because: REASON[means](question),
      how: HOW[means],
      seconds: cannot ? null : secondsOf(means, question),
      leaves: leavesOf(means, question.media)
    };
  }).sort((a, b) => rank[a.fits] - rank[b.fits]);
}

/**
 * Says how long a means takes, in words.
 * @example timeWords({ low: 5, typical: 20, high: 120 }) // 'about 20\u202fs'
 */
export const timeWords = (seconds: Band | null): string =>
  seconds ? `about ${duration(seconds.typical)}` : 'nobody can say how long';

/**
 * Lists what a certificate does not prove.
 * @example doesNotProve({ means: 'quick', looked: 'not' }).length // 3
 */
export const doesNotProve = ({ means, looked }: Pick<Erased, 'means' | 'looked'>): string[] => [
  LEAVES[means],
  ...(looked === 'whole'
    ? []
    : [
        looked === 'samples'
          ? 'Only samples were read back: the rest was taken on trust.'
          : 'Nothing was read back afterwards.'
      ]),
  'It is a record of what somebody did, not a test by a laboratory. Where law or contract ask for more, follow them.'
];
