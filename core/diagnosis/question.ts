import type { CauseCode } from './causes.ts';
import type { ProtocolId } from '../results/protocol-ids.ts';
import type { Situation } from './situation.ts';

/** How somebody says what is the matter. */
export const SYMPTOMS = [
  'will-not-go-in',
  'will-not-close',
  'no-power',
  'not-detected',
  'no-capacity',
  'wrong-capacity',
  'disconnects',
  'asks-to-initialise',
  'read-only',
  'slow'
] as const;
export type Symptom = (typeof SYMPTOMS)[number];
/** What a build does that has it, as a sentence goes on after its name. */
export const SYMPTOM_WORDS: Record<Symptom, string> = {
  'will-not-go-in': 'will not go in',
  'will-not-close': 'will not close',
  'no-power': 'has no power',
  'not-detected': 'does not show up',
  'no-capacity': 'shows no capacity',
  'wrong-capacity': 'shows the wrong capacity',
  disconnects: 'disconnects',
  'asks-to-initialise': 'asks to be initialised',
  'read-only': 'is read-only',
  slow: 'is slow'
};

type Text = string | ((at: Situation) => string);

/**
 * One thing to look at or to try, with everything that it can show. `usual` is how often each outcome is seen with a cause that is not
 * named under `given`; every row adds up to 1. The shares are estimates, in tenths, from what practitioners report.
 */
export type Question = {
  code: string;
  text: Text;
  minutes: number;
  /** What it takes beside eyes and hands. */
  tools?: readonly string[];
  /** The way of measuring that it is done with, where it is one. */
  protocol?: ProtocolId;
  /** Whether the case is opened for it. */
  opens?: true;
  outcomes: readonly { outcome: string; text: Text }[];
  usual: readonly number[];
  given: Partial<Record<CauseCode, readonly number[]>>;
  for: readonly Symptom[];
  /** Whether it makes sense for this build. */
  applies?: (at: Situation) => boolean;
  /** The outcome, where the build already says it. */
  known?: (at: Situation) => string | undefined;
};

/** What most looks can show: that it is so, or not; that it helps, or not. */
export const YES_NO = [
  { outcome: 'yes', text: 'Yes' },
  { outcome: 'no', text: 'No' }
] as const;
export const HELPS = [
  { outcome: 'helps', text: 'Yes, then it works' },
  { outcome: 'same', text: 'No, just the same' }
] as const;

/** What one may always answer. */
export const CANNOT_TELL = 'cannot-tell';

/**
 * Writes the words of a question for a build.
 * @example wordsFor('How full is it?', situationOf(anInput())) // 'How full is it?'
 */
export const wordsFor = (text: Text, at: Situation): string => (typeof text === 'string' ? text : text(at));
