/* eslint-disable @typescript-eslint/no-non-null-assertion -- an order begins with one screw, and takes one more each round */
import { capacity } from '../../quantities/format.ts';
import { DISK_SIZES } from '../../facts/mounting.ts';
import type { DrawingOf } from '../../sheets/drawing.ts';
import type { Hands } from '../hands.ts';
import { having, step, type StageOf, type StepDraft } from '../step.ts';
import { lidDrawing, screwsOf } from './open.ts';

const CASE = ['enclosure'] as const;
const ALL = ['drive', 'enclosure', 'pads'] as const;

/** Half of a lid beside the board, and how far its screws are from its edge, mm: nobody states how large a case is. */
const LID_EDGE_MM = 8;
const SCREW_EDGE_MM = 4;

/**
 * Places the screws of a lid where they usually are, in the order in which they are tightened: corners across, then what lies between.
 * @example lidScrews({ lengthMm: 96, widthMm: 38 }, 2).length // 2
 */
export function lidScrews({ lengthMm, widthMm }: { lengthMm: number; widthMm: number }, count: number) {
  const [x0, x1, y0, y1] = [SCREW_EDGE_MM, lengthMm - SCREW_EDGE_MM, SCREW_EDGE_MM, widthMm - SCREW_EDGE_MM];
  if (count === 1) return [{ xMm: x1, yMm: widthMm / 2 }];
  if (count === 2) return [x0, x1].map((xMm) => ({ xMm, yMm: widthMm / 2 }));
  const columns = Math.ceil(count / 2);
  const x = (n: number) => x0 + ((x1 - x0) * n) / (columns - 1);
  const all = Array.from({ length: count }, (_, n) => ({ xMm: x(n % columns), yMm: n < columns ? y0 : y1 }));
  // Each time the one that is farthest from the one before it, of those that are left.
  const order = [all.shift()!];
  while (all.length > 0) {
    const { xMm, yMm } = order.at(-1)!;
    const far = all.map((at) => Math.hypot(at.xMm - xMm, at.yMm - yMm));
    order.push(all.splice(far.indexOf(Math.max(...far)), 1)[0]!);
  }
  return order;
}

function lidScrewDrawing({ bay, board, input: { enclosure } }: Hands): DrawingOf<'crosswise'> | undefined {
  const count = enclosure.screws?.count;
  if (count === undefined) return undefined;
  const inside = bay === 'm2' ? { lengthMm: board?.lengthMm ?? 80, widthMm: 22 } : DISK_SIZES[bay];
  const size = { lengthMm: inside.lengthMm + 2 * LID_EDGE_MM, widthMm: inside.widthMm + 2 * LID_EDGE_MM };
  return { kind: 'crosswise', ...size, screws: lidScrews(size, count), of: `the lid of ${enclosure.name}` };
}

/** How the case is closed, by how it was opened. */
function closed(hands: Hands): StepDraft[] {
  const { opening, retention, input } = hands;
  const marked = input.enclosure.directionMark === true ? 'the mark where it was' : 'the pencil lines meeting';
  const drawing = lidDrawing(hands);
  const even = 'It lies even all round before anything is fastened. Never force it: open it again and look.';
  const tray =
    retention === 'tray' &&
    step('slide-in-tray', `Slide the tray in, ${marked}, until it stops.`, ALL, {
      caution: 'Without force: where it catches, pull it out and look which way round it is.',
      drawing: { ...drawing, how: 'tray' }
    });
  switch (opening) {
    case 'none':
      return having(tray);
    case 'screws':
      return having(
        tray,
        step('close-lid', `Lay the lid on, ${marked}.`, ALL, { caution: even, drawing }),
        step(
          'fasten-lid',
          (input.enclosure.screws?.count ?? 2) === 1
            ? `Turn the ${screwsOf(hands)} in until it is snug.`
            : `Turn the ${screwsOf(hands)} in, crosswise, until they are snug.`,
          CASE,
          {
            reason: 'One side first would press the board aslant.',
            ...(lidScrewDrawing(hands) ? { drawing: lidScrewDrawing(hands) } : {})
          }
        )
      );
    case 'slide':
      return having(tray, step('close-lid', `Slide the case together, ${marked}.`, ALL, { caution: even, drawing }));
    case 'clips':
      return having(
        tray,
        step('close-lid', `Lay the lid on, ${marked}.`, ALL, { caution: even, drawing }),
        step('press-clips', 'Press along the seam until every clip has clicked.', CASE)
      );
    case 'lid':
      return having(tray, step('close-lid', 'Close the lid until it catches.', ALL, { caution: even, drawing }));
    default:
      return having(tray, step('close-lid', `Close the case, ${marked}.`, ALL, { caution: even, drawing }));
  }
}

/** Closes the case, and sees that everything that was left over has its place. */
export const close: StageOf = (hands) => {
  const { input, opening } = hands;
  return {
    id: 'close',
    title: opening === 'none' ? 'Finish and label' : 'Close and label',
    steps: having(
      step('look-over', 'Look once more: no screw, no liner, no tool is left inside.', CASE),
      ...closed(hands),
      step('keep-spares', 'Put the spare screws and pads away.', CASE, {
        reason: 'The case will be opened again some day.',
        ask: 'Where did the spare screws go?'
      }),
      step('label-case', `Stick the tag on the case, and write ${capacity(input.drive.capacityTB)} on it.`, ALL, {
        reason: 'Closed cases look alike.'
      })
    ),
    check:
      opening === 'none'
        ? 'The drive sits firmly, and its tag can be read.'
        : 'It is closed evenly, nothing rattles, and its tag can be read.'
  };
};
