import { buildHas } from '../causes.ts';
import { YES_NO, type Question } from '../question.ts';

/** What is done, or measured again, to tell causes of a result apart. Shares are estimates, as in the other tables. */
export const MEASURED_QUESTIONS: readonly Question[] = [
  {
    code: 'fan',
    protocol: 'soak',
    text: 'Blow a fan on the case and measure the same again. Does it stay fast, or fast for longer?',
    minutes: 12,
    tools: ['a fan'],
    outcomes: YES_NO,
    usual: [0.04, 0.96],
    given: { 'thermal-throttle': [0.93, 0.07], 'pad-no-contact': [0.25, 0.75], 'background-load': [0.1, 0.9] },
    for: [],
    applies: buildHas.flash
  },
  {
    code: 'imprint',
    text: 'Unplug everything, open the case and look at the pads. Does each chip show an imprint in its pad?',
    minutes: 10,
    opens: true,
    outcomes: [
      { outcome: 'yes', text: 'Yes, on every one' },
      { outcome: 'no', text: 'No, one does not touch' }
    ],
    usual: [0.96, 0.04],
    given: { 'pad-no-contact': [0.06, 0.94] },
    for: [],
    applies: (at) => buildHas.m2(at) && buildHas.flash(at)
  },
  {
    code: 'same-again',
    protocol: 'soak',
    text: 'Delete the test file, let it rest for ten minutes with the power on, and write the same again. Does it fall after about as much (within 15 %)?',
    minutes: 20,
    outcomes: [
      { outcome: 'same', text: 'Yes, after about as much' },
      { outcome: 'earlier', text: 'Much earlier, or at once' },
      { outcome: 'none', text: 'It does not fall any more' }
    ],
    usual: [0.15, 0.15, 0.7],
    given: {
      'slc-cliff': [0.85, 0.13, 0.02],
      'drive-nearly-full': [0.3, 0.67, 0.03],
      'host-disk-cliff': [0.55, 0.25, 0.2],
      'thermal-throttle': [0.3, 0.5, 0.2],
      'pad-no-contact': [0.55, 0.4, 0.05],
      'smr-rewrite': [0.2, 0.7, 0.1]
    },
    for: []
  },
  {
    code: 'made-up-source',
    protocol: 'pair-check',
    text: 'Run the speed check, which takes its data from memory. Is it as fast as forecast?',
    minutes: 3,
    outcomes: YES_NO,
    usual: [0.06, 0.94],
    given: {
      healthy: [0.97, 0.03],
      'host-disk-cliff': [0.95, 0.05],
      'slc-cliff': [0.75, 0.25],
      'thermal-throttle': [0.6, 0.4],
      'background-load': [0.35, 0.65],
      'weak-surface': [0.3, 0.7],
      'smr-rewrite': [0.3, 0.7],
      'unstable-link': [0.25, 0.75],
      'pad-no-contact': [0.45, 0.55]
    },
    for: []
  },
  {
    code: 'other-host',
    text: 'Measure it on a second computer once, with the same cable. Is it as fast as it should be there?',
    minutes: 8,
    tools: ['a second computer'],
    outcomes: YES_NO,
    usual: [0.05, 0.95],
    given: {
      healthy: [0.9, 0.1],
      'host-write-ceiling': [0.95, 0.05],
      'write-cache-off': [0.7, 0.3],
      'background-load': [0.9, 0.1],
      'host-disk-cliff': [0.85, 0.15],
      '5g-port-or-cable': [0.5, 0.5],
      '10g-fallback': [0.3, 0.7],
      'usb2-fallback': [0.15, 0.85],
      'bulk-only': [0.4, 0.6],
      'encryption-cost': [0.3, 0.7],
      'unstable-link': [0.3, 0.7],
      'no-power': [0.4, 0.6]
    },
    for: []
  },
  {
    code: 'second-sweep',
    protocol: 'sweep',
    text: 'Read the whole surface a second time. Are the same places slow?',
    minutes: 240,
    outcomes: [
      { outcome: 'same', text: 'Yes, the same places' },
      { outcome: 'others', text: 'Other places, or none' }
    ],
    usual: [0.02, 0.98],
    given: { 'weak-surface': [0.93, 0.07], 'drive-faulty': [0.6, 0.4] },
    for: [],
    applies: buildHas.disk
  },
  {
    code: 'health-figures',
    text: 'Read the health figures of the drive. Are there pending or moved sectors, or read errors?',
    minutes: 3,
    outcomes: YES_NO,
    usual: [0.03, 0.97],
    given: { 'weak-surface': [0.8, 0.2], 'drive-faulty': [0.7, 0.3] },
    for: []
  },
  {
    code: 'free-space',
    protocol: 'retest',
    text: 'Free a fifth of it, let it rest for half an hour with the power on, and measure again. Is it faster?',
    minutes: 40,
    outcomes: YES_NO,
    usual: [0.05, 0.95],
    given: {
      'drive-nearly-full': [0.88, 0.12],
      'slc-cliff': [0.4, 0.6],
      'smr-rewrite': [0.3, 0.7],
      'thermal-throttle': [0.3, 0.7]
    },
    for: []
  },
  {
    code: 'paused',
    protocol: 'soak',
    text: 'Pause index, backup, virus scanner and synchronising folders, and measure again. Is it even and fast now?',
    minutes: 6,
    outcomes: YES_NO,
    usual: [0.04, 0.96],
    given: { 'background-load': [0.9, 0.1] },
    for: []
  },
  {
    code: 'scratch-volume',
    protocol: 'pair-check',
    text: 'Measure once on a volume without encryption. Is it as fast as forecast?',
    minutes: 8,
    outcomes: YES_NO,
    usual: [0.04, 0.96],
    given: { 'encryption-cost': [0.94, 0.06], healthy: [0.95, 0.05] },
    for: [],
    applies: ({ hands: { input } }) => input.job?.encrypt !== false
  },
  {
    code: 'driver-shown',
    text: 'Which driver does the system show for it: UAS, or plain mass storage?',
    minutes: 2,
    outcomes: [
      { outcome: 'bulk', text: 'Plain mass storage (usb-storage, USBSTOR)' },
      { outcome: 'uas', text: 'UAS (uas, UASPStor)' }
    ],
    usual: [0.06, 0.94],
    given: { 'bulk-only': [0.96, 0.04] },
    for: [],
    applies: ({ mode }) => mode !== null && /^usb-(?:5|10|20)g$/.test(mode)
  },
  {
    code: 'log-read',
    text: 'Look into the system’s log at the time of the run. Are there resets, or errors on the line?',
    minutes: 3,
    outcomes: YES_NO,
    usual: [0.05, 0.95],
    given: {
      'unstable-link': [0.85, 0.15],
      'bridge-firmware': [0.8, 0.2],
      'no-power': [0.6, 0.4],
      'not-seated': [0.5, 0.5]
    },
    for: []
  }
];
