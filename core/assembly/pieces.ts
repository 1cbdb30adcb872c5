import { M2_WIDTH_MM, USUAL_LENGTH_MM } from '../facts/m2.ts';
import { figure, listed, quantity } from '../quantities/format.ts';
import type { DrawingOf } from '../sheets/drawing.ts';
import type { Hands, PadPiece } from './hands.ts';
import { step, type StepDraft } from './step.ts';

export const CHIP_WORD = { controller: 'controller', nand: 'NAND', dram: 'DRAM', power: 'power chip' } as const;

/** Pieces in words: what they are for, how thick and how large. */
export const pieceWords = (pieces: readonly PadPiece[]): string =>
  listed(
    pieces.map(
      ({ letter, label, layersMm, lengthMm, widthMm }) =>
        `piece ${letter} for the ${label.replace(', underside', ' of the underside')} (${layersMm.map((mm) => quantity(mm, 'mm')).join(' on ')}, ${figure(lengthMm)} × ${quantity(widthMm, 'mm')})`
    )
  );

/** Draws the board with the pieces of one side at their places. */
export function padsDrawing({ board, pieces }: Hands, side: 'top' | 'bottom'): DrawingOf<'pads'> {
  return {
    kind: 'pads',
    lengthMm: board?.lengthMm ?? USUAL_LENGTH_MM,
    widthMm: board?.widthMm ?? M2_WIDTH_MM,
    side,
    assumed: board?.from !== 'stated',
    chips: (board?.chips ?? [])
      .filter((chip) => chip.side === side)
      .map(({ role, xMm, yMm, lengthMm, widthMm }) => ({ role: CHIP_WORD[role], xMm, yMm, lengthMm, widthMm })),
    pieces: pieces
      .filter((piece) => piece.side === side)
      .map(({ letter, label, xMm, yMm, lengthMm, widthMm, layersMm }) => ({
        letter,
        label,
        xMm,
        yMm,
        lengthMm,
        widthMm,
        layersMm
      }))
  };
}

/** What nothing at hand closes, as a caution. */
function missingWords({ missing }: Hands): string | undefined {
  if (missing.length === 0) return undefined;
  const over = [...new Map(missing.map((gap) => [`${gap.chip.side} ${gap.chip.role}`, gap])).values()];
  const what = over.map(({ chip, buyMm }) => {
    const where = `${CHIP_WORD[chip.role]}${chip.side === 'bottom' ? ' of the underside' : ''}`;
    return buyMm.length > 0
      ? `over the ${where} (${buyMm.map((mm) => quantity(mm, 'mm')).join(' on ')} is needed)`
      : `over the ${where}`;
  });
  return `Nothing at hand closes the gap ${listed(what)}. Get the right pad first, or that chip stays without.`;
}

/** Cuts the pieces of the cut plan. */
export function cutPads(hands: Hands): StepDraft {
  const missing = missingWords(hands);
  return step('cut-pads', `Cut ${pieceWords(hands.pieces)}, with both liners on.`, ['pads', 'drive', 'enclosure'], {
    reason: 'The cut plan prints them at true size.',
    ...(missing ? { caution: missing } : {})
  });
}
