import { SCREW_HEAD_LABELS } from '../../parts/enclosure.ts';
import type { DrawingOf } from '../../sheets/drawing.ts';
import { askDirection, askOpening, askScrews } from '../asks.ts';
import type { Hands } from '../hands.ts';
import { having, step, type StageOf, type StepDraft } from '../step.ts';

/** Draws how the case is opened, as a drawing shows it. */
export const lidDrawing = ({ input, opening, retention }: Hands): DrawingOf<'lid'> => ({
  kind: 'lid',
  how: retention === 'tray' && (opening === undefined || opening === 'none') ? 'tray' : (opening ?? 'unknown'),
  marked: input.enclosure.directionMark === true
});

/** Names the screws of the case in words. */
export function screwsOf({ input: { enclosure } }: Hands): string {
  const { screws } = enclosure;
  if (!screws) return 'screws';
  return screws.count === 1
    ? `${SCREW_HEAD_LABELS[screws.head]} screw`
    : `${screws.count} ${SCREW_HEAD_LABELS[screws.head]} screws`;
}

/** Opens the case in the way that it has. */
function opened(hands: Hands): StepDraft[] {
  const of = ['enclosure'] as const;
  switch (hands.opening) {
    case 'screws':
      return [
        step('open-case', `Take out the ${screwsOf(hands)} of the case, and lift the lid off.`, of, {
          caution:
            'Press the driver down while it turns, and take the size that fills the head: a slipped one ruins it.'
        }),
        step('keep-screws', 'Put the screws into a bowl, long and short ones apart.', of)
      ];
    case 'slide':
      return [
        step('open-case', 'Slide the case apart, straight and slowly.', of, {
          caution: 'Inner part and cover may hang together by short wires or a fan: look before you pull on.'
        })
      ];
    case 'clips':
      return [
        step('ease-clips', 'Ease the clips along the seam with a thin plastic tool, one after the other.', of, {
          caution: 'A clip bends a little and then breaks: where one does not give, begin at the next.'
        }),
        step('open-case', 'Lift the lid off.', of)
      ];
    case 'lid':
      return [
        step('open-case', 'Open the lid as far as it goes by itself.', of, {
          caution: 'Hinges and catches of thin metal bend: let the lid lead your hand.'
        })
      ];
    case 'none':
      return [step('set-down', 'Stand the enclosure on firm, level ground, away from the edge of the table.', of)];
    default:
      return [
        step('open-case', 'Open the case as its leaflet shows.', of, {
          caution:
            'Where it does not open easily, look for a hidden screw under a label or a foot, and do not force it.'
        })
      ];
  }
}

function direction(hands: Hands): StepDraft | undefined {
  if (hands.opening === 'none' && hands.retention !== 'tray') return undefined;
  const marked = hands.input.enclosure.directionMark === true;
  return step(
    'mark-direction',
    marked
      ? 'Find the mark that shows which way round it closes.'
      : 'Draw a pencil line over the joint, so that it goes together again the same way round.',
    ['enclosure'],
    {
      reason: 'The wrong way round its pad misses the chips, or something inside is pressed.',
      drawing: lidDrawing(hands)
    }
  );
}

/** What comes off the drive, or stays on it. */
function dressed({ input: { drive }, label }: Hands): StepDraft[] {
  return having(
    drive.formFactor === 'm2' &&
      drive.heatsinkMm !== undefined &&
      drive.heatsinkMm > 0 &&
      step(
        'remove-heatsink',
        'Take the heatsink off the drive: screws or clips first, then turn it off slowly.',
        ['drive'],
        {
          caution:
            'Where it is glued and does not come with gentle warmth, stop: torn-off chips are past repair. It may end the warranty.'
        }
      ),
    label === 'keep' &&
      step('keep-label', 'Leave the label on the drive.', ['drive'], {
        reason:
          drive.label === 'metal'
            ? 'It is of metal, spreads the heat, and carries the warranty.'
            : 'It carries the serial number and often the warranty; a metal one spreads the heat as well.'
      }),
    label === 'remove' &&
      step('remove-label', 'Pull the paper label off, slowly and flat, after it was photographed.', ['drive'], {
        reason: 'So the house rule for paper labels says: they keep heat in.',
        caution: 'It may end the warranty. Do not lever at it with metal.'
      })
  );
}

/** Notches of the drive and keys that the socket may have, and whether they are known. */
function keyDrawing({ input: { drive, enclosure } }: Hands): DrawingOf<'key'> {
  const key = drive.m2Key ?? (drive.media === 'nvme' ? 'M' : 'B+M');
  const keys = enclosure.m2Keys ?? (enclosure.protocols.includes('nvme') ? ['M'] : ['B']);
  const socket = keys.includes('M') ? 'M' : 'B';
  return {
    kind: 'key',
    notches: key === 'B+M' ? ['B', 'M'] : [key],
    keys: [socket],
    assumed: drive.m2Key === undefined || enclosure.m2Keys === undefined
  };
}

function matched(hands: Hands): StepDraft {
  const { bay } = hands;
  if (bay === 'm2')
    return step(
      'match-key',
      'Hold the drive over the socket: its notch lies over the key of the socket.',
      ['drive', 'enclosure'],
      {
        reason: 'Where they do not meet, it is upside down, or of another kind, and never goes in.',
        drawing: keyDrawing(hands)
      }
    );
  return step(
    'match-connector',
    'Hold the drive against the connector of the bay: both L shapes lie the same way round.',
    ['drive', 'enclosure'],
    { reason: 'The other way up it does not go on, and the plastic of the L breaks.' }
  );
}

/** Opens the case, and has the drive held against its place. */
export const open: StageOf = (hands) => ({
  id: 'open',
  title: hands.opening === 'none' ? 'Look at the bay' : 'Open the enclosure',
  asks: [...askOpening(hands), ...askScrews(hands), ...askDirection(hands)],
  steps: having(
    ...opened(hands),
    direction(hands),
    step('unpack-inside', 'Take out whatever is packed inside: bags, films, a dummy, loose screws.', ['enclosure']),
    ...dressed(hands),
    matched(hands)
  ),
  check: `${hands.opening === 'none' ? 'The bay is empty' : 'The case is open, you know which way round it closes'}, and the drive fits ${
    hands.bay === 'm2' ? 'the key of its socket' : 'its connector'
  }.`
});
