import { having, step, type StageOf } from '../step.ts';

/** Proves, before a ready-made external is opened, what is proved while it can still be returned. */
export const prove: StageOf = ({ readyMade }) =>
  readyMade
    ? {
        id: 'prove',
        title: 'Prove the drive while it can be returned',
        steps: [
          step('check-health', 'Read the health of the drive (its SMART values) in its ready-made case.', ['drive'], {
            reason: 'Once the case is open, the shop will hardly take it back.'
          }),
          step('scan-surface', 'Read its whole surface once, and wait for the end of it.', ['drive'], {
            reason: 'Weak places show only when everything is read. A disk of 8 TB takes about half a day.'
          }),
          step('save-data', 'Copy what is on it to another place.', ['drive'], {
            caution:
              'The ready-made case may encrypt always, or show sectors of 4096 bytes: outside of it the drive then looks empty.'
          })
        ],
        check: 'Health and surface are without a fault, and nothing on the drive is needed any more.'
      }
    : undefined;

const HOLD = {
  m2: 'Hold the drive by its long edges only: not by the chips, not by the gold edge.',
  disk: 'Hold the drive by its sides, not by the board underneath.',
  hdd: 'Hold the disk by its sides, and lay it down softly: a knock harms it even when it is off.'
} as const;

/** Lays everything on the table, nothing plugged in, hands without a charge. */
export const layOut: StageOf = (hands) => {
  const { units, readyMade, power, bay, input } = hands;
  const supply = power === 'supply' || power === 'esata-supply';
  return {
    id: 'lay-out',
    title: 'Lay out',
    steps: having(
      units > 1 &&
        step('tag-parts', 'Stick one tag on each drive, and the same on the case that it will go into.', ['drive'], {
          reason: 'Drives that look alike cannot be told apart any more once they are inside.'
        }),
      step('count-kit', 'Lay everything on a light cloth and tick it off in the list above.', [], {
        once: true,
        reason: 'What is missing is noticed before the case is open, and a screw that rolls stays on the cloth.'
      }),
      readyMade
        ? step('photograph', 'Photograph the ready-made from all sides, with its label and its seam.', ['drive'], {
            reason: 'It shows later how it was closed, and what it was sold as.'
          })
        : step('photograph', 'Photograph the label of the drive: name, serial number, capacity.', ['drive'], {
            reason: 'Inside the case nobody can read it. Formatting and warranty ask for the serial number.'
          }),
      step(
        'unplug',
        supply
          ? 'Pull every cable out of the enclosure, the one of its supply first.'
          : 'Pull every cable out of the enclosure.',
        ['enclosure'],
        { caution: 'Nothing inside an enclosure is changed while it has power, not even for a moment.' }
      ),
      step('discharge', 'Touch bare metal that is earthed: a radiator, the case of a plugged-in computer.', [], {
        once: true,
        caution: HOLD[bay === 'm2' ? 'm2' : input.drive.media === 'hdd' ? 'hdd' : 'disk']
      })
    ),
    check: 'Everything is on the table, the photograph is sharp, and nothing is plugged in.'
  };
};

/** Takes the drive out of its ready-made case. */
export const takeOut: StageOf = ({ readyMade, bay }) =>
  readyMade
    ? {
        id: 'take-out',
        title: 'Take the drive out of its ready-made case',
        steps: [
          step(
            'ease-clips',
            'Ease the clips along the seam with a thin plastic tool, one after the other.',
            ['drive'],
            {
              at: 'ready-made',
              caution:
                'Opening it may end the warranty; what you are entitled to differs by country. Lever along the clips, never across the drive.'
            }
          ),
          step('look-at-plug', 'Look at the connector of the drive itself.', ['drive'], {
            caution: `Where USB is soldered to its board there is no ${bay === 'm2' ? 'gold edge' : 'SATA'} connector: stop, close it again, and keep it as it is.`
          }),
          step('lift-out', 'Lift the drive out, and pull its adapter off in a straight line.', ['drive'], {
            at: 'ready-made'
          }),
          step('keep-clips', 'Put every clip, screw and rubber damper into one bag, and write on it where they go.', [
            'drive'
          ]),
          step('photograph', 'Photograph the label of the bare drive: name, serial number, capacity.', ['drive'], {
            at: 'bare',
            reason: 'It is often another one than the box says.'
          })
        ],
        check: 'The bare drive lies on the cloth, with a connector that fits the enclosure.'
      }
    : undefined;
