import { buildHas } from '../causes.ts';
import { HELPS, YES_NO, type Question } from '../question.ts';

const SUPPLIED = ['supply', 'esata-supply'];
const isSupplied = ({ hands }: Parameters<typeof buildHas.m2>[0]) => SUPPLIED.includes(hands.power);

/** What is asked of a build that has no power, does not show up, or goes away again. */
export const CONTACT_QUESTIONS: readonly Question[] = [
  {
    code: 'light',
    text: 'Does a light come on, or does anything turn or hum?',
    minutes: 0.2,
    outcomes: [
      { outcome: 'yes', text: 'Yes' },
      { outcome: 'no', text: 'No' },
      { outcome: 'none', text: 'It has no light' }
    ],
    usual: [0.6, 0.15, 0.25],
    given: {
      'no-power': [0.15, 0.65, 0.2],
      'not-detected-link': [0.35, 0.4, 0.25],
      'bridge-faulty': [0.25, 0.5, 0.25],
      'not-initialised': [0.78, 0.01, 0.21]
    },
    for: ['not-detected', 'no-capacity']
  },
  {
    code: 'supply-light',
    text: 'Is the supply plugged in, the switch on, and the light of the supply lit?',
    minutes: 0.3,
    outcomes: YES_NO,
    usual: [0.95, 0.05],
    given: { 'no-power': [0.15, 0.85] },
    for: ['no-power', 'not-detected', 'disconnects'],
    applies: isSupplied
  },
  {
    code: 'disk-turns',
    text: 'Hold a hand on the case. Does the disk turn?',
    minutes: 0.3,
    outcomes: YES_NO,
    usual: [0.8, 0.2],
    given: { 'supply-pin-3': [0.02, 0.98], 'no-power': [0.1, 0.9], 'drive-faulty': [0.4, 0.6] },
    for: ['no-power', 'not-detected', 'no-capacity'],
    applies: buildHas.disk
  },
  {
    code: 'disk-list',
    text: ({ hands }) => `${diskListOf(hands.input.host.os.family)} Is a disk there that was not there before?`,
    minutes: 1,
    outcomes: [
      { outcome: 'right', text: 'Yes, of about the right size' },
      { outcome: 'zero', text: 'Yes, with no size or “no medium”' },
      { outcome: 'nothing', text: 'No, nothing new' }
    ],
    usual: [0.03, 0.12, 0.85],
    given: {
      'not-initialised': [0.95, 0.02, 0.03],
      'read-only-format': [0.94, 0.02, 0.04],
      encrypted: [0.94, 0.02, 0.04],
      'not-seated': [0.01, 0.45, 0.54],
      'not-detected-drive': [0.02, 0.5, 0.48],
      'drive-faulty': [0.05, 0.5, 0.45],
      'lid-or-pad': [0.02, 0.35, 0.63],
      'not-detected-link': [0.01, 0.01, 0.98],
      'no-power': [0.02, 0.08, 0.9]
    },
    for: ['not-detected']
  },
  {
    code: 'allowed',
    text: 'Was the screen unlocked, and did you allow the accessory when the system asked?',
    minutes: 1,
    outcomes: YES_NO,
    usual: [0.9, 0.1],
    given: { 'not-allowed': [0.05, 0.95] },
    for: ['not-detected'],
    applies: ({ hands, mode }) =>
      ['macos', 'ipados', 'ios'].includes(hands.input.host.os.family) || (mode !== null && /^(?:tbt|usb4)/.test(mode))
  },
  {
    code: 'straight-in',
    text: 'Plug it straight into the computer, without the hub or adapter. Does that change it?',
    minutes: 1,
    outcomes: HELPS,
    usual: [0.04, 0.96],
    given: {
      'no-power': [0.7, 0.3],
      'not-detected-link': [0.55, 0.45],
      'unstable-link': [0.55, 0.45],
      '5g-port-or-cable': [0.6, 0.4],
      '10g-fallback': [0.55, 0.45]
    },
    for: ['no-power', 'not-detected', 'disconnects', 'slow'],
    applies: ({ hands }) => hands.port?.via !== undefined
  },
  {
    code: 'other-cable-and-port',
    text: ({ hands }) =>
      hands.input.enclosure.captiveCable === true
        ? 'Plug it into another port, on the other side of the computer if there is one. Does it work then?'
        : 'Take another cable that is known to carry data, and another port. Does it work then?',
    minutes: 2,
    tools: ['a second cable'],
    outcomes: HELPS,
    usual: [0.03, 0.97],
    given: {
      'not-detected-link': [0.9, 0.1],
      'no-power': [0.5, 0.5],
      'unstable-link': [0.85, 0.15],
      'not-allowed': [0.1, 0.9]
    },
    for: ['no-power', 'not-detected', 'disconnects']
  },
  {
    code: 'other-port',
    text: 'Plug it into another port, on the other side of the computer if there is one. Is it fast then?',
    minutes: 1,
    outcomes: HELPS,
    usual: [0.03, 0.97],
    given: { '5g-port-or-cable': [0.5, 0.5], 'unstable-link': [0.4, 0.6], 'host-write-ceiling': [0.15, 0.85] },
    for: ['slow']
  },
  {
    code: 'other-cable',
    text: 'Take another cable that is marked for the speed. Is it fast then?',
    minutes: 2,
    tools: ['a second cable'],
    outcomes: HELPS,
    usual: [0.03, 0.97],
    given: {
      'unstable-link': [0.65, 0.35],
      'usb2-fallback': [0.85, 0.15],
      '5g-port-or-cable': [0.45, 0.55],
      '10g-fallback': [0.75, 0.25]
    },
    for: ['slow'],
    applies: ({ hands }) => hands.input.enclosure.captiveCable !== true
  },
  {
    code: 'other-computer',
    text: 'Try it on a second computer. Does it work there?',
    minutes: 5,
    tools: ['a second computer'],
    outcomes: HELPS,
    usual: [0.08, 0.92],
    given: {
      'not-allowed': [0.85, 0.15],
      'host-write-ceiling': [0.95, 0.05],
      'read-only-format': [0.7, 0.3],
      'power-saving': [0.7, 0.3],
      'write-protected': [0.5, 0.5],
      'not-detected-link': [0.35, 0.65],
      encrypted: [0.3, 0.7],
      'no-power': [0.35, 0.65],
      'background-load': [0.8, 0.2],
      'host-disk-cliff': [0.85, 0.15]
    },
    for: ['not-detected', 'disconnects', 'asks-to-initialise', 'read-only', 'slow']
  },
  {
    code: 'empty-enclosure',
    text: 'Take the drive out and plug the empty enclosure in. Does it give a sign of life: a light, or an entry in the list of USB devices?',
    minutes: 6,
    opens: true,
    outcomes: YES_NO,
    usual: [0.9, 0.1],
    given: {
      'bridge-faulty': [0.08, 0.92],
      'not-detected-link': [0.25, 0.75],
      'no-power': [0.5, 0.5],
      'drive-faulty': [0.93, 0.07]
    },
    for: ['no-power', 'not-detected']
  },
  {
    code: 'without-pads-on',
    text: 'Unplug it, take the pads out, close it and plug it in for one minute only. Does it work then?',
    minutes: 8,
    opens: true,
    outcomes: HELPS,
    usual: [0.04, 0.96],
    given: { 'lid-or-pad': [0.92, 0.08], 'not-seated': [0.2, 0.8] },
    for: ['not-detected', 'no-capacity', 'disconnects'],
    applies: buildHas.pads
  },
  {
    code: 'reseat',
    text: 'Unplug everything, take the drive out and put it in again, all the way. Does that change it?',
    minutes: 9,
    opens: true,
    outcomes: HELPS,
    usual: [0.05, 0.95],
    given: {
      'not-seated': [0.92, 0.08],
      'unstable-link': [0.15, 0.85],
      'lid-or-pad': [0.2, 0.8]
    },
    for: ['not-detected', 'no-capacity', 'disconnects', 'no-power']
  },
  {
    code: 'other-drive',
    text: 'Put another drive into this enclosure. Does that one work?',
    minutes: 12,
    tools: ['a second drive'],
    opens: true,
    outcomes: YES_NO,
    usual: [0.5, 0.5],
    given: {
      'bridge-faulty': [0.03, 0.97],
      'drive-faulty': [0.95, 0.05],
      'not-detected-drive': [0.9, 0.1],
      'lid-or-pad': [0.4, 0.6],
      'not-seated': [0.85, 0.15],
      'supply-pin-3': [0.85, 0.15],
      'not-detected-link': [0.03, 0.97],
      'no-power': [0.25, 0.75]
    },
    for: ['not-detected', 'no-capacity', 'no-power']
  },
  {
    code: 'other-enclosure',
    text: 'Put this drive into another enclosure, or into a computer. Does it work there?',
    minutes: 13,
    tools: ['a second enclosure'],
    opens: true,
    outcomes: YES_NO,
    usual: [0.85, 0.15],
    given: {
      'drive-faulty': [0.04, 0.96],
      'supply-pin-3': [0.6, 0.4],
      'false-capacity': [0.05, 0.95],
      'worn-out': [0.03, 0.97],
      'old-partition': [0.05, 0.95]
    },
    for: ['not-detected', 'no-capacity', 'wrong-capacity', 'no-power', 'read-only']
  }
];

const LISTS: Record<string, string> = {
  macos: 'Open the Disk Utility and let it show all devices, not only volumes.',
  windows: 'Open the Disk Management, and look at the lower half: disks, not letters.',
  linux: 'Look at the output of “lsblk”, which lists devices without a filesystem too.',
  chromeos: 'Open the Files app, and the page about the system under USB.'
};
function diskListOf(family: string): string {
  return LISTS[family] ?? 'Plug it into a computer, and look at its list of disks, not only of volumes.';
}
