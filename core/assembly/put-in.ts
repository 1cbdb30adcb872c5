import { M2_INSERTION } from '../facts/mounting.ts';
import { USUAL_LENGTH_MM } from '../facts/m2.ts';
import type { Hands } from './hands.ts';
import { step, type StepDraft } from './step.ts';

/** What is done to drive and enclosure. */
export const BOTH = ['drive', 'enclosure'] as const;

/** Gives the length of the board, mm; the usual one where none is stated. */
export const boardLengthOf = ({ input: { drive } }: Hands): number => drive.m2LengthMm ?? USUAL_LENGTH_MM;

const IN_THE_NOTCH =
  'IN the notch of the retainer, not under it: under it the gold lies aslant, and the drive drops out now and then.';

/** What holds the free end down; `again` once the drive was taken out after the dry fit. */
function held(hands: Hands, again: boolean): StepDraft {
  const { retention } = hands;
  const at = again ? { at: 'again' } : {};
  const snug = { ...at, caution: 'Snug, not tight: a screw that is forced bends the board.' };
  switch (retention) {
    case 'screw':
      return step('fasten-screw', 'Turn the screw in until it is snug.', BOTH, {
        ...snug,
        drawing: { kind: 'retainer', how: 'screw' }
      });
    case 'screw-from-below':
      return step(
        'fasten-screw',
        'Keep the end down with a finger, turn the case over, and turn the screw in from below until it is snug.',
        BOTH,
        {
          ...snug,
          drawing: { kind: 'retainer', how: 'screw-from-below' }
        }
      );
    case 'turning':
      return step(
        'seat-in-retainer',
        'Let the half-round end of the board slip into the notch of the retainer, and turn it shut.',
        BOTH,
        {
          ...at,
          caution: IN_THE_NOTCH,
          drawing: { kind: 'retainer', how: 'turning' }
        }
      );
    case 'rubber':
      return step(
        'seat-in-retainer',
        'Push the head of the rubber into the half-round end of the board until its notch holds it.',
        BOTH,
        {
          ...at,
          caution: IN_THE_NOTCH,
          drawing: { kind: 'retainer', how: 'rubber' }
        }
      );
    case 'tool-less':
      return step(
        'seat-in-retainer',
        'Let the half-round end of the board slip into the notch of the retainer until it holds.',
        BOTH,
        {
          ...at,
          caution: IN_THE_NOTCH,
          drawing: { kind: 'retainer', how: 'tool-less' }
        }
      );
    case 'tray':
      return step('fix-on-tray', 'Fix the free end as the tray does: by its post, its catch or its screw.', BOTH, at);
    default:
      return step('hold-down', 'Fix the free end as your case does: with its screw, or by its catch.', BOTH, {
        ...at,
        caution: 'Nothing is forced: where it does not lie flat by itself, the drive is not all the way in.'
      });
  }
}

const inserted = (hands: Hands, again: boolean): StepDraft =>
  step(
    'insert-slanted',
    `Put the gold edge into the socket aslant, at about ${M2_INSERTION.angleDeg.typical}°, label up.`,
    BOTH,
    {
      ...(again ? { at: 'again' } : {}),
      reason: 'Flat it catches on the contacts; steeper it bends them.',
      caution: 'It goes in without force. Where it does not: take it out, look at notch and key, begin again.',
      drawing: {
        kind: 'insertion',
        lengthMm: boardLengthOf(hands),
        seatMm: M2_INSERTION.seatMm,
        angleDeg: M2_INSERTION.angleDeg
      }
    }
  );

/** Lists the steps by which a module is put in and held. */
export const putIn = (hands: Hands, again = false): StepDraft[] => [
  inserted(hands, again),
  step(
    'check-edge',
    'Push it in until no gold shows any more, left and right alike.',
    BOTH,
    again ? { at: 'again' } : {}
  ),
  step(
    'press-down',
    'Press the free end down with one finger until the board lies flat.',
    BOTH,
    again ? { at: 'again' } : {}
  ),
  held(hands, again)
];
