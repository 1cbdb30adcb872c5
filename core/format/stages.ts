import { FILESYSTEMS, OS_LABEL } from '../facts/filesystems.ts';
import type { PlanInput } from '../plan/report.ts';
import { capacity, counted, quantity } from '../quantities/format.ts';
import type { SheetStep } from '../sheets/sheet.ts';
import { VOLUME_USE_LABEL } from '../sheets/format-choices.ts';
import type { LadderReport } from './ladder.ts';
import type { Settled } from './settled.ts';
import { ejectOthers, ejectWay, encryptWay, filesystemWay, quickWay, schemeWay, showDevices } from './ways.ts';

/** What the stages are composed from. */
export type Formatting = { input: PlanInput; settled: Settled; ladder: LadderReport; units: number };

/** A step before it has its id; `of` tells with what it changes. */
export type FormatStep = Omit<SheetStep, 'id'> & { of: readonly ('drive' | 'system' | 'format')[] };
export type FormatStage = { id: string; title: string; steps: FormatStep[]; check: string };

const step = (
  code: string,
  text: string,
  of: FormatStep['of'],
  more: Partial<Omit<SheetStep, 'id' | 'code' | 'text'>> = {}
): FormatStep => ({
  code,
  text,
  of,
  ...more
});
const having = (...steps: readonly (FormatStep | false)[]): FormatStep[] =>
  steps.filter((draft): draft is FormatStep => draft !== false);

/** Composes what is looked at and put away before anything is erased. */
export function stageBefore({ input, settled, units }: Formatting): FormatStage {
  const eject = ejectOthers(settled.system);
  return {
    id: 'before',
    title: 'Before anything is erased',
    steps: having(
      step('look-at-it', 'Look at what is on the drive: open it, with hidden files shown.', ['drive'], {
        reason: 'A drive that was used before holds more than its last user remembers.',
        see: 'on-it'
      }),
      step(
        'check-copies',
        'Open the other copy of what is needed, on another drive, and look into some files.',
        ['drive'],
        {
          caution: 'A copy that nobody opened is a hope. Two volumes on one disk are one copy.',
          see: 'on-it'
        }
      ),
      step('eject-others', eject.text, ['system'], { once: true }),
      step('unplug-others', 'Unplug all of them, sticks and card readers too.', ['system'], {
        once: true,
        reason: 'What is not plugged in cannot be erased by mistake.'
      }),
      units > 1 &&
        step('one-at-a-time', 'Plug in one item at a time, and go through the next stages with it alone.', ['drive'], {
          once: true,
          caution: 'Drives that are alike cannot be told apart in a list.'
        }),
      step('plug-in', `Plug in ${input.drive.name} in ${input.enclosure.name}.`, ['drive'], {
        caution:
          'Where the system asks to format or initialise it at once, say no: nobody knows yet which drive it means.'
      })
    ),
    check: 'Nothing on the drive is needed any more, and it is the only external drive that is plugged in.'
  };
}

const LOOK = {
  nvme: 'the chip’s own name or that of the case',
  'sata-ssd': 'its own name or that of the case',
  hdd: 'its own name or that of the case'
} as const;

/** Finds the device among those that the system lists. */
export function stageFind({ input, settled, ladder }: Formatting): FormatStage {
  const show = showDevices(settled.system);
  const bytes = ladder.steps[0]?.bytes ?? 0;
  const { drive } = input;
  const listed =
    settled.system.family === 'macos' || settled.system.family === 'chromeos'
      ? quantity(bytes / 1e12, 'TB')
      : `${quantity(bytes / 2 ** 40, 'TiB')}, which ${OS_LABEL[settled.system.family]} may write as TB`;
  return {
    id: 'find',
    title: 'Find the drive in the list',
    steps: having(
      step('show-devices', show.text, ['system'], { ...(show.command ? { command: show.command } : {}) }),
      step(
        'compare-size',
        `Find the device of ${capacity(drive.capacityTB)}: the list says about ${listed}.`,
        ['drive', 'system'],
        {
          caution: 'A size alone is no proof: the disk of the computer may have the same.'
        }
      ),
      step('compare-model', `Compare its name: ${LOOK[drive.media]} (${drive.name}, ${input.enclosure.name}).`, [
        'drive'
      ]),
      step('compare-serial', 'Compare its serial number with the photograph of the label.', ['drive'], {
        reason:
          'Some cases show a serial number of their own: write it down here, and on the item “as the case shows it”.',
        ask: 'Serial number, as the system shows it'
      }),
      settled.system.family !== 'chromeos' &&
        step(
          'ask-the-guard',
          'Paste the list into the guard and type the end of the serial number.',
          ['drive', 'system'],
          {
            see: 'guard',
            caution: 'Only then are there commands that name the device. Each of them asks the device once more.'
          }
        )
    ),
    check: 'Exactly one device has this size, this name and this serial number, and no system runs from it.'
  };
}

const FULL_REASON = {
  true: 'A full one finds weak places, and takes as long as writing the whole drive.',
  false: 'Quick is enough for a new drive. Choose full for one that was used or is suspect.'
} as const;

/** Volumes beyond one, each in a step of its own words. */
function volumeSteps({ settled: { volumes, shared } }: Formatting): FormatStep[] {
  if (volumes.length < 2) return [];
  const list = volumes
    .map(
      ({ name, filesystem, use, GB }) =>
        `“${name}”, ${FILESYSTEMS[filesystem].label}, ${GB === undefined ? 'the rest' : quantity(GB, 'GB')}, to ${VOLUME_USE_LABEL[use]}`
    )
    .join('; ');
  return [
    step(
      'make-volumes',
      `${shared ? 'Add volumes to the container' : 'Make the partitions in this order'}: ${list}.`,
      ['format'],
      {
        reason: shared
          ? 'They share its room.'
          : 'What lies last can be made larger later, where there is room behind it.',
        ...(volumes.some(({ use }) => use === 'backup') ? { caution: 'Two volumes on one disk are one copy.' } : {})
      }
    )
  ];
}

/** Erases and makes anew. */
export function stageMake(formatting: Formatting): FormatStage {
  const { input, settled } = formatting;
  const { family } = settled.system;
  const quick = quickWay(settled, input.drive.media);
  const guarded = family !== 'chromeos';
  return {
    id: 'make',
    title: `Erase it and make it ${FILESYSTEMS[settled.filesystem].label}`,
    steps: having(
      step('choose-scheme', schemeWay(settled).text, ['format', 'system'], {
        caution:
          'This erases everything on the device. Where the list offers no scheme, a volume is selected and not the device: go back.'
      }),
      step('choose-filesystem', filesystemWay(settled).text, ['format', 'system']),
      step('name-it', `Name it ${settled.name}.`, ['format'], {
        reason: 'Letters A to Z, digits, _ and - are shown alike by every system.'
      }),
      step('quick-or-full', quick.text, ['format', 'system'], { reason: FULL_REASON[`${settled.full}`] }),
      ...volumeSteps(formatting),
      step(
        'erase',
        guarded
          ? 'Read the name of the device once more, and begin; or use the commands of the guard.'
          : 'Read the name of the drive once more, and begin.',
        ['format', 'system'],
        {
          ...(guarded ? { see: 'guard' as const } : {})
        }
      ),
      settled.encryption !== 'none' && step('encrypt', encryptWay(settled).text, ['format', 'system'])
    ),
    check: `A volume ${settled.name} is there, empty, with nothing else on the drive that you did not make.`
  };
}

/** Sets what belongs to it, and proves it. */
export function stageProve({ input, settled, ladder }: Formatting): FormatStage {
  const { family } = settled.system;
  const { low, high } = ladder.freeBytes;
  const tb = (bytes: number) => (bytes / 1e12).toFixed(bytes < 1e12 ? 3 : 2);
  const owner = family === 'linux' && ['ext4', 'xfs', 'btrfs'].includes(settled.filesystem);
  return {
    id: 'prove',
    title: 'Set it up and prove it',
    steps: having(
      family === 'windows' &&
        step(
          'set-policy',
          settled.policy === 'performance'
            ? 'In the Device Manager, open Disk drives: the drive: Policies. Choose Better performance, and turn on write caching.'
            : 'In the Device Manager, open Disk drives: the drive: Policies. Leave it at Quick removal.',
          ['format'],
          settled.policy === 'performance'
            ? {
                caution:
                  'From now on it must be ejected before it is unplugged, each time: what is not written yet is lost otherwise.'
              }
            : {
                reason:
                  'Safe to pull, and slow to write: through a fast connection a half to a sixth of what the drive can do.'
              }
        ),
      settled.encryption !== 'none' &&
        step(
          'keep-key',
          'Put the recovery key where you will stageFind it without this drive, and write down the place, never the key.',
          ['format'],
          {
            see: 'plan',
            caution: 'Without password and key nobody opens the drive again, you included.'
          }
        ),
      owner &&
        step('own-it', 'Make yourself the owner of its top folder.', ['format', 'system'], {
          command: 'sudo chown "$USER": /path/to/the/volume',
          reason:
            'A new filesystem belongs to the administrator; on another computer the owner is whoever has the same number.'
        }),
      step(
        'look-at-free',
        `Look at what is free: between ${tb(low)} and ${tb(high)} TB (10¹² bytes).`,
        ['format', 'drive'],
        {
          see: 'ladder',
          reason: 'Less or more names its cause there: another scheme, something left on it, a bridge that is too old.'
        }
      ),
      step('write-and-read', 'Copy a large file onto it, and compare it with the first by its checksum.', ['drive'], {
        reason: 'A drive that takes files and gives others back is found on the first evening, not in a year.'
      }),
      step('eject-and-plug', ejectWay(settled.system).text, ['system'], {
        reason: input.job?.carried
          ? 'It has to show up on the other computers as well: try it there now.'
          : 'It has to come up by itself.'
      }),
      step('write-it-down', 'Keep what was made in the record of the build.', ['format'], { see: 'record' })
    ),
    check: 'It comes up under its name, the free room is as expected, and the file came back as it was.'
  };
}

/**
 * Says for how many items a sheet is, and for what.
 * @example forWhat('Chert T4 2TB', 1) // 'Chert T4 2TB'
 */
export const forWhat = (drive: string, units: number): string =>
  units > 1 ? `${counted(units, 'item')} of ${drive}` : drive;
