import type { OsFamily } from '../facts/filesystems.ts';
import type { PlanInput, PlanReport } from '../plan/report.ts';
import { figure, quantity } from '../quantities/format.ts';
import { handsOf } from './hands.ts';

/** The order in which a build is plugged and unplugged, as a card. */
export type Leads = { plug: string[]; unplug: string[]; notes: string[] };

const EJECT: Partial<Record<OsFamily, string>> = {
  macos: 'Eject it in the Finder, and wait until it is gone from there.',
  windows: 'Use “Safely remove” in the notification area, and wait for its answer.',
  linux: 'Unmount it and power it off in the file manager, or with “udisksctl power-off”.',
  chromeos: 'Eject it in the Files app.',
  ipados: 'Wait until nothing is copied any more: this system has no eject.',
  ios: 'Wait until nothing is copied any more: this system has no eject.',
  android: 'Eject it in the notification or in the storage settings.',
  console: 'Use “stop using extended storage” or its like in the menu, or shut the console down.',
  camera: 'Stop recording, and wait until the camera says that nothing is written.',
  tv: 'Remove it in the menu of the TV, or switch the TV off first.'
};

/**
 * Says how a drive is ejected on a system.
 * @example ejectWords('chromeos') // 'Eject it in the Files app.'
 */
export const ejectWords = (family: OsFamily): string => EJECT[family] ?? 'Eject it as this system does.';

/** What it draws while it is ejected and still plugged in. */
function restWords({ thermal, power }: PlanReport, powered: boolean): string[] {
  const restW = power?.idleW ?? thermal?.idleW ?? 0;
  if (restW <= 0) return [];
  const day = thermal?.ejectedWhPerDay;
  const perDay = day ? ` (${figure(day.low)} to ${quantity(day.high, 'Wh')} a day)` : '';
  const off = powered ? 'switch its supply off' : 'pull the plug';
  return [
    `Ejected and still plugged in it goes on drawing about ${quantity(restW, 'W')}${perDay}: ${off} where it is not used, and on battery always.`
  ];
}

/** How hot the case is to the hand, where that matters. */
function heatWords({ thermal }: PlanReport): string[] {
  if (!thermal || thermal.touch === 'comfortable') return [];
  const minutes = thermal.coolsInS ? `, about ${Math.max(1, Math.round(thermal.coolsInS / 60))} minutes` : '';
  const hand = thermal.touch === 'brief' ? 'touch it only briefly' : 'do not hold it';
  const hot = quantity(thermal.steadyCaseC.typical, '°C');
  return [`At work the case gets to about ${hot}: ${hand} before it has cooled${minutes}.`];
}

/** What is true of the build between plugging and unplugging. */
const notesOf = ({ drive }: PlanInput, report: PlanReport, powered: boolean): string[] => [
  ...restWords(report, powered),
  ...(drive.media === 'hdd' ? ['A disk goes on turning for some seconds: do not lift it before it is still.'] : []),
  ...heatWords(report),
  'Inside the case nothing may be changed while anything is plugged in.'
];

/**
 * Says in which order a build is plugged in and unplugged, and what holds in between.
 * @example leadsOf(anInput(), plan(anInput())).unplug.length // 4
 */
export function leadsOf(input: PlanInput, report: PlanReport): Leads {
  const { power, port } = handsOf(input, 1, false);
  const where = `${port?.label ?? 'the port'} of ${input.host.name}`;
  const still =
    input.drive.media === 'hdd' ? 'Wait until the disk is still.' : 'Wait until its light is off, or ten seconds.';
  const before = ['Close whatever uses it.', ejectWords(input.host.os.family), still];
  const supplied = power === 'supply' || power === 'esata-supply';
  const notes = notesOf(input, report, supplied);
  if (power === 'esata-supply' || power === 'esata-usb') {
    const source = supplied ? 'the supply' : 'the USB cable that gives it power';
    return {
      plug: [
        `Data first: the eSATA cable into the enclosure and into ${where}.`,
        `Then power: ${source}.`,
        'Wait until it has started and shows up.'
      ],
      unplug: [...before, `Power first: pull ${source}.`, 'Then data: pull the eSATA cable.'],
      notes
    };
  }
  return {
    plug: [
      ...(supplied ? ['Power first: the supply into the enclosure, then into the mains.'] : []),
      ...(input.enclosure.captiveCable ? [] : ['The cable into the enclosure.']),
      `The cable into ${where}.`,
      'Wait until it shows up.'
    ],
    unplug: [...before, `Pull the cable at ${input.host.name}.`, ...(supplied ? ['Then switch the supply off.'] : [])],
    notes
  };
}
