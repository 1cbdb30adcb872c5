import { listed } from '../../quantities/format.ts';
import type { Hands, PadPiece } from '../hands.ts';
import { having, step, type StageOf, type StepDraft } from '../step.ts';
import { cutPads, padsDrawing, pieceWords } from '../pieces.ts';
import { putIn } from '../put-in.ts';

const top = ({ pieces }: Hands) => pieces.filter(({ side }) => side === 'top');
const bottom = ({ pieces }: Hands) => pieces.filter(({ side }) => side === 'bottom');

const foundPad = (): StepDraft =>
  step(
    'find-pad',
    'Take the pad out of the box of the enclosure, and leave both its liners on.',
    ['pads', 'drive', 'enclosure'],
    {
      reason: 'The enclosure states no room over the board, so nobody can say how thick a pad it takes.',
      caution: 'It covers the chips only: not the gold edge, not the notch in the end.'
    }
  );

function onTrial(hands: Hands): string {
  if (hands.pads === 'box') return 'Lay the pad over the chips.';
  if (hands.under) return 'Lay what is for the upper side over its chips, with both liners on.';
  return top(hands).length === 1
    ? 'Lay it over its chip, with both liners on.'
    : 'Lay them over their chips, with both liners on.';
}

/** Closes it once with every liner on, and has it looked at. */
export const dryFit: StageOf = (hands) => {
  const { pads, retention, opening } = hands;
  if (pads === 'none') return undefined;
  const of = ['pads', 'drive', 'enclosure'] as const;
  const over = top(hands);
  return {
    id: 'dry-fit',
    title: 'Pads and dry fit',
    steps: having(
      !hands.under && (pads === 'planned' ? cutPads(hands) : foundPad()),
      (pads === 'box' || over.length > 0) &&
        step('lay-on-trial', onTrial(hands), of, { drawing: padsDrawing(hands, 'top') }),
      step(
        'dry-fit',
        retention === 'tray'
          ? 'Slide the tray in without force, and wait for a minute.'
          : opening === 'none'
            ? 'Close the cover without force, and wait for a minute.'
            : 'Close the case without force, no screw in it, and wait for a minute.',
        of,
        { caution: 'Where it has to be pressed shut, stop: a pad is too thick, and the board bends.' }
      ),
      step('open-again', retention === 'tray' ? 'Pull the tray out again.' : 'Open it again, straight up.', of),
      step('check-imprint', 'Look at both faces of every pad: they show an even imprint.', of, {
        reason: 'No imprint is no contact, and air conducts heat a hundred times worse than a pad.',
        ask: 'What the imprints show'
      })
    ),
    check: 'Every pad shows an even imprint on both faces, and the board stayed flat.'
  };
};

/** Sticks pieces on: one step each while they are few, else one for all. */
function placed(pieces: readonly PadPiece[], hands: Hands, side: 'top' | 'bottom'): StepDraft[] {
  const drawing = padsDrawing(hands, side);
  const of = ['pads', 'drive'] as const;
  const caution = 'From one end to the other, so that no air stays under it.';
  if (pieces.length === 0)
    return [step('place-pad', 'Lay the pad onto the chips.', of, { at: side, caution, drawing })];
  if (pieces.length > 3)
    return [
      step('place-pad', `Lay every piece onto its chips: ${pieceWords(pieces)}.`, of, { at: side, caution, drawing })
    ];
  return pieces.map((piece, n) =>
    step('place-pad', `Lay ${pieceWords([piece])} onto its chips.`, of, {
      at: `${side}-${n + 1}`,
      ...(n === 0 ? { caution } : {}),
      drawing
    })
  );
}

const layered = (pieces: readonly PadPiece[], side: string): StepDraft | undefined => {
  const twice = pieces.filter(({ layersMm }) => layersMm.length > 1);
  return twice.length === 0
    ? undefined
    : step(
        'stack-layer',
        `Peel the liners between, and lay the second layer on ${twice.length === 1 ? 'the piece' : 'the pieces'} for the ${listed(twice.map(({ label }) => label))}.`,
        ['pads', 'drive'],
        {
          at: side,
          reason: 'A liner left between two layers keeps the heat in.'
        }
      );
};

/** Pieces under the drive: it comes out again for them. */
export const padsUnder: StageOf = (hands) =>
  hands.under
    ? {
        id: 'pads-under',
        title: 'Pads under the drive',
        steps: having(
          step(
            'take-out-again',
            'Free the drive, let it rise, and pull it out aslant, as it went in.',
            ['pads', 'drive', 'enclosure'],
            {
              reason: 'Now the imprints of the underside show as well.'
            }
          ),
          step('peel-liner', 'Peel one liner off each piece for the underside.', ['pads', 'drive'], { at: 'bottom' }),
          ...placed(bottom(hands), hands, 'bottom'),
          layered(bottom(hands), 'bottom'),
          step('peel-last-liner', 'Peel the outer liners off the underside.', ['pads', 'drive'], { at: 'bottom' })
        ),
        check: 'Every piece of the underside sticks on its chips, and no liner is left on it.'
      }
    : undefined;

/** Puts the drive in for good. */
export const putBack: StageOf = (hands) =>
  hands.under
    ? {
        id: 'put-back',
        title: 'Put the drive in for good',
        steps: putIn(hands, true),
        check: 'No gold shows, the board lies flat on its pads, and its end is held.'
      }
    : undefined;

/** How many liners lie on the table in the end: two of each layer. */
const liners = ({ pieces }: Hands): number => 2 * pieces.reduce((sum, { layersMm }) => sum + layersMm.length, 0);

/** Pieces over the drive, and the last liners. */
export const padsOver: StageOf = (hands) => {
  if (hands.pads === 'none' || (hands.pads === 'planned' && top(hands).length === 0)) return undefined;
  return {
    id: 'pads-over',
    title: 'Pads over the drive',
    steps: having(
      step('peel-liner', 'Peel the liner off the face that goes onto the chips.', ['pads', 'drive'], { at: 'top' }),
      ...placed(top(hands), hands, 'top'),
      layered(top(hands), 'top'),
      step('peel-last-liner', 'Peel the outer liners, just before the case is closed.', ['pads', 'drive'], {
        at: 'top',
        reason: 'A liner left on keeps the heat in, and nothing shows it from outside.'
      })
    ),
    check:
      hands.pads === 'planned'
        ? `${liners(hands)} liners lie on the table: two of each ${hands.pieces.some(({ layersMm }) => layersMm.length > 1) ? 'layer' : 'piece'}. None is left in the case.`
        : 'Both liners of every pad lie on the table. None is left in the case.'
  };
};
