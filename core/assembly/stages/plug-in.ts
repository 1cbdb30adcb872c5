import { LINK_MODES, type LinkMode } from '../../facts/link-modes.ts';
import type { OsFamily } from '../../facts/filesystems.ts';
import { capacity } from '../../quantities/format.ts';
import { ejectWords } from '../leads.ts';
import type { Hands } from '../hands.ts';
import { having, step, type StageDraft, type StepDraft } from '../step.ts';

/** Where a system tells how fast a drive is connected. */
const WHERE: Partial<Record<OsFamily, string>> = {
  macos: 'System Information, under USB or Thunderbolt',
  windows: 'the settings, under USB or USB4, at the device',
  linux: 'the list of “lsusb -t” or “boltctl”',
  chromeos: 'the page about the system, under USB'
};

const OF = ['drive', 'enclosure', 'cable', 'port'] as const;
const SUPPLY =
  'Never open a supply. Follow your local rules for mains devices, and leave a faulty one to a qualified person.';

function plugged({ power, port, input }: Hands): StepDraft[] {
  const where = `${port?.label ?? 'the port'} of ${input.host.name}`;
  switch (power) {
    case 'esata-supply':
      return [
        step('plug-data-first', `Plug the eSATA cable into the enclosure and into ${where}.`, OF, {
          reason: 'Data before power: so the computer finds the drive as it spins up.'
        }),
        step('connect-supply', 'Then plug the supply into the enclosure, and into the mains.', OF, { caution: SUPPLY })
      ];
    case 'esata-usb':
      return [
        step('plug-data-first', `Plug the eSATA cable into the enclosure and into ${where}.`, OF, {
          reason: 'Plain eSATA carries no power; data before power, so that the computer finds the drive as it starts.'
        }),
        step('plug-power', 'Then plug the USB cable that gives it power into a USB port.', OF, {
          caution: 'Into a port of the computer, not into a hub without a supply of its own.'
        })
      ];
    case 'supply':
      return [
        step(
          'connect-supply',
          'Plug the supply into the enclosure, and into the mains; wait until it has started.',
          OF,
          {
            caution: SUPPLY
          }
        ),
        step('plug-in', `Plug the cable into the enclosure, then into ${where}.`, OF)
      ];
    default:
      return [
        step('plug-in', `Plug the cable into the enclosure, then into ${where}.`, OF, {
          reason: 'Straight into the port, without a hub or an adapter: so the first try proves the chain itself.'
        })
      ];
  }
}

/** Connects it for the first time. @param mode how it should run; null where nothing runs */
export function plugIn(hands: Hands, mode: LinkMode | null): StageDraft {
  const { input } = hands;
  const { family } = input.host.os;
  const size = capacity(input.drive.capacityTB);
  const shown = mode === null ? 'with the right speed' : `as ${LINK_MODES[mode].label}`;
  return {
    id: 'plug-in',
    title: 'Connect it for the first time',
    steps: having(
      ...plugged(hands),
      step('look-for-it', `Wait for half a minute, and look for a disk of about ${size}.`, OF, {
        reason: 'Makers count in steps of 1000: some systems show a smaller number for the same size.',
        caution:
          'A new drive is offered to be initialised or erased. Answer no here: the Format step does it, on the right disk.'
      }),
      step(
        'check-connection',
        WHERE[family]
          ? `Look whether it runs ${shown}: ${WHERE[family]}.`
          : `Look whether it runs ${shown}, where this system tells it.`,
        OF,
        { reason: 'A worn plug or a charging cable makes it fall back to USB 2.0, and everything still seems to work.' }
      ),
      step('eject', ejectWords(family), OF)
    ),
    check: `It showed up with about ${size}${mode === null ? '' : `, ran ${shown}`}, and was ejected.`
  };
}
