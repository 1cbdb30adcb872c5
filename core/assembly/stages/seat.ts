import { DISK_SIZES } from '../../facts/mounting.ts';
import { quantity } from '../../quantities/format.ts';
import { askRetention } from '../asks.ts';
import type { Hands } from '../hands.ts';
import { having, step, type StageDraft, type StageOf, type StepDraft } from '../step.ts';
import { cutPads, padsDrawing, pieceWords } from '../pieces.ts';
import { boardLengthOf, BOTH, putIn } from '../put-in.ts';

/** What holds the free end, made ready at the length of the drive. */
function madeReady(hands: Hands): StepDraft {
  const length = quantity(boardLengthOf(hands), 'mm');
  const at = `at the place for ${length}`;
  switch (hands.retention) {
    case 'screw':
      return step('set-standoff', `Set the post for the screw ${at}.`, BOTH, {
        reason: 'At another place the screw misses the notch in the end of the drive.'
      });
    case 'screw-from-below':
      return step('set-standoff', `Set the nut or post ${at}, and lay the screw from below ready.`, BOTH);
    case 'turning':
      return step('free-retainer', `Turn the retainer ${at} aside, so that its notch is free.`, BOTH);
    case 'rubber':
      return step('free-retainer', `Put the foot of the rubber retainer in ${at}.`, BOTH, {
        caution: 'Press the foot in from above until it is level: pulled from below it tears.'
      });
    case 'tool-less':
      return step('free-retainer', `Open what holds the free end, ${at}.`, BOTH);
    case 'tray':
      return step('pull-tray', 'Pull the tray out and lay it on the cloth, the socket away from you.', BOTH);
    default:
      return step('free-retainer', `Look what holds the free end, and set it ${at}.`, BOTH);
  }
}

function module(hands: Hands): StageDraft {
  const under = hands.pieces.filter(({ side }) => side === 'bottom');
  return {
    id: 'seat',
    title: hands.under ? 'Put the drive in, on trial' : 'Put the drive in',
    asks: askRetention(hands),
    steps: having(
      hands.under && cutPads(hands),
      madeReady(hands),
      hands.under &&
        step(
          'lay-under',
          `Lay ${pieceWords(under)} where the underside of the drive will lie, with both liners on.`,
          ['pads', ...BOTH],
          {
            caution: 'Clear of the post and of the socket.',
            drawing: padsDrawing(hands, 'bottom')
          }
        ),
      ...putIn(hands)
    ),
    check: 'No gold shows, the board lies flat, and its end is held.'
  };
}

/** How a disk is held in its bay. */
function fixed(hands: Hands): StepDraft[] {
  const { retention, bay, input } = hands;
  const size = DISK_SIZES[bay === '3.5in' ? '3.5in' : '2.5in'];
  if (retention === 'screw' || retention === 'screw-from-below')
    return [
      step('start-screws', 'Turn all four screws in by two turns each.', BOTH, {
        reason: 'While all are loose the drive finds its place, and no thread is crossed.',
        caution: `Screws of this kind only: ${size.screw}. A longer one goes through into the drive.`
      }),
      step('fasten-crosswise', 'Tighten them crosswise until they are snug.', BOTH, {
        reason: 'One corner after the other would pull the drive aslant.',
        drawing: {
          kind: 'crosswise',
          lengthMm: size.lengthMm,
          widthMm: size.widthMm,
          screws: [0, 3, 1, 2].flatMap((n) => size.holes[n] ?? []),
          of: input.drive.name
        }
      })
    ];
  if (retention === 'tool-less') return [step('lock-in', 'Close what holds it: latch, frame or rubber.', BOTH)];
  return [
    step(
      'hold-down',
      'Fix the drive as your case does: with its four screws, or with what it has in their place.',
      BOTH
    )
  ];
}

function disk(hands: Hands): StageDraft {
  const { retention, spareMm, bay, input } = hands;
  const size = DISK_SIZES[bay === '3.5in' ? '3.5in' : '2.5in'];
  const tray = retention === 'tray';
  const drawing = {
    kind: 'disk',
    lengthMm: size.lengthMm,
    widthMm: size.widthMm,
    formFactor: bay === '3.5in' ? '3.5in' : '2.5in'
  } as const;
  return {
    id: 'seat',
    title: 'Put the drive in',
    asks: askRetention(hands),
    steps: having(
      spareMm > 0 &&
        step(
          'fit-spacer',
          `Lay the spacer frame in: the drive is about ${quantity(spareMm, 'mm')} thinner than the bay.`,
          BOTH,
          {
            reason: 'Without it the drive hangs on its connector. Where none came with it, a strip of foam does.'
          }
        ),
      bay === '3.5in' &&
        input.drive.formFactor === '2.5in' &&
        step('fit-adapter', 'Put the 2.5-inch drive into its frame for bays of 3.5 inch.', BOTH),
      step('turn-right', 'Turn the drive so that both L shapes lie the same way round.', BOTH),
      tray
        ? step('lay-in-tray', 'Lay the drive into the tray, its connector towards the case.', BOTH, { drawing })
        : step('push-onto-connector', 'Slide the drive onto the connector, level, until it stops.', BOTH, {
            caution: 'Level: aslant it breaks the plastic tongue in the connector.',
            drawing
          }),
      ...(tray ? [] : fixed(hands)),
      step(
        'check-firm',
        `Move the drive gently with two fingers: it does not shift${tray ? ' in the tray' : ''}.`,
        BOTH
      )
    ),
    check: tray ? 'The drive lies flat in the tray.' : 'The drive is all the way on its connector, and held.'
  };
}

/** Brings the drive to its place. */
export const seat: StageOf = (hands) => (hands.bay === 'm2' ? module(hands) : disk(hands));
