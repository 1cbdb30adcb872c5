import { LINK_MODES } from '../../facts/link-modes.ts';
import { buildHas } from '../causes.ts';
import { HELPS, YES_NO, type Question } from '../question.ts';
import type { Situation } from '../situation.ts';

/** Measured rates by what they look like, MB/s; the ends are those of the signatures, with some room beside. */
const NEAR_USB2 = 48;
const NEAR_5G = { low: 380, high: 480 };
const NEAR_10G = { low: 850, high: 1100 };

/** Sorts a rate by what it looks like; a hard disk runs at a few hundred by itself. */
function classOf(rate: number | undefined, at: Situation): string | undefined {
  if (rate === undefined) return undefined;
  if (rate <= NEAR_USB2) return 'usb2';
  const forecast = at.report.throughput.read;
  if (forecast && rate >= forecast.low) return 'as-forecast';
  if (rate >= NEAR_5G.low && rate <= NEAR_5G.high) return '5g';
  if (rate >= NEAR_10G.low && rate <= NEAR_10G.high) return '10g';
  return 'other';
}

/** What is asked of a build that is slow, or goes away while it works. */
export const WORK_QUESTIONS: readonly Question[] = [
  {
    code: 'reads-at',
    text: 'At which rate does it read a large file, in MB/s?',
    minutes: 2,
    outcomes: [
      { outcome: 'usb2', text: '30 to 45' },
      { outcome: '5g', text: '400 to 465' },
      { outcome: '10g', text: '900 to 1070' },
      { outcome: 'as-forecast', text: 'As the forecast says' },
      { outcome: 'other', text: 'Something else' }
    ],
    usual: [0.02, 0.04, 0.04, 0.6, 0.3],
    given: {
      'usb2-fallback': [0.95, 0.01, 0.01, 0.01, 0.02],
      '5g-port-or-cable': [0.01, 0.93, 0.01, 0.01, 0.04],
      '10g-fallback': [0.01, 0.02, 0.92, 0.01, 0.04],
      'bulk-only': [0.01, 0.35, 0.1, 0.04, 0.5],
      'write-cache-off': [0.01, 0.02, 0.02, 0.9, 0.05],
      'slc-cliff': [0.01, 0.02, 0.02, 0.9, 0.05],
      'smr-rewrite': [0.05, 0.02, 0.02, 0.71, 0.2],
      'two-lane-limit': [0.01, 0.02, 0.07, 0.1, 0.8],
      'weak-surface': [0.1, 0.02, 0.02, 0.16, 0.7]
    },
    for: ['slow'],
    known: (at) => classOf(at.results?.readMBps, at)
  },
  {
    code: 'listed-speed',
    text: 'Which speed does the system show for the connection?',
    minutes: 1,
    outcomes: [
      { outcome: 'usb2', text: '480 Mb/s, USB 2.0' },
      { outcome: '5g', text: '5 Gb/s' },
      { outcome: '10g', text: '10 Gb/s' },
      { outcome: 'planned', text: ({ mode }) => (mode ? `As planned: ${LINK_MODES[mode].label}` : 'As planned') }
    ],
    usual: [0.02, 0.03, 0.03, 0.92],
    given: {
      'usb2-fallback': [0.97, 0.01, 0.01, 0.01],
      '5g-port-or-cable': [0.02, 0.96, 0.01, 0.01],
      '10g-fallback': [0.01, 0.02, 0.96, 0.01]
    },
    for: ['slow'],
    applies: ({ mode, hands }) => mode !== null && mode !== 'usb2' && hands.port?.plug !== 'esata'
  },
  {
    code: 'how-it-falls',
    text: 'How is it slow?',
    minutes: 0.5,
    outcomes: [
      { outcome: 'at-once', text: 'From the first second, evenly' },
      { outcome: 'after-some', text: 'Fast at first, then down in one step' },
      { outcome: 'up-and-down', text: 'Up and down, or slower as it gets hot' },
      { outcome: 'places', text: 'It stops now and then, for seconds' }
    ],
    usual: [0.7, 0.1, 0.1, 0.1],
    given: {
      'slc-cliff': [0.08, 0.88, 0.03, 0.01],
      'host-disk-cliff': [0.2, 0.7, 0.08, 0.02],
      'thermal-throttle': [0.02, 0.2, 0.76, 0.02],
      'pad-no-contact': [0.05, 0.25, 0.68, 0.02],
      'background-load': [0.1, 0.05, 0.5, 0.35],
      'weak-surface': [0.03, 0.02, 0.1, 0.85],
      'unstable-link': [0.1, 0.02, 0.18, 0.7],
      'smr-rewrite': [0.1, 0.5, 0.2, 0.2],
      'drive-nearly-full': [0.3, 0.6, 0.05, 0.05]
    },
    for: ['slow']
  },
  {
    code: 'read-or-write',
    text: 'Is it slow in reading too, or in writing only?',
    minutes: 0.5,
    outcomes: [
      { outcome: 'both', text: 'Reading and writing' },
      { outcome: 'write', text: 'Writing only' },
      { outcome: 'small', text: 'Small files only' }
    ],
    usual: [0.8, 0.1, 0.1],
    given: {
      'write-cache-off': [0.02, 0.88, 0.1],
      'slc-cliff': [0.03, 0.96, 0.01],
      'smr-rewrite': [0.05, 0.9, 0.05],
      'host-write-ceiling': [0.03, 0.95, 0.02],
      'drive-nearly-full': [0.1, 0.85, 0.05],
      'bulk-only': [0.3, 0.05, 0.65],
      'encryption-cost': [0.3, 0.1, 0.6],
      'host-disk-cliff': [0.2, 0.7, 0.1]
    },
    for: ['slow'],
    known: readOrWrite
  },
  {
    code: 'policy',
    text: 'Look at its properties in the Device Manager. Which policy is set for it?',
    minutes: 1.5,
    outcomes: [
      { outcome: 'quick', text: 'Quick removal' },
      { outcome: 'better', text: 'Better performance' }
    ],
    usual: [0.5, 0.5],
    given: { 'write-cache-off': [0.98, 0.02] },
    for: ['slow'],
    applies: buildHas.windows,
    known: ({ hands }) =>
      hands.input.writeCache === undefined ? undefined : hands.input.writeCache === 'performance' ? 'better' : 'quick'
  },
  {
    code: 'how-full',
    text: 'How full is it?',
    minutes: 0.5,
    outcomes: [
      { outcome: 'full', text: 'More than nine tenths' },
      { outcome: 'room', text: 'Less' }
    ],
    usual: [0.12, 0.88],
    given: { 'drive-nearly-full': [0.95, 0.05] },
    for: ['slow'],
    known: ({ hands: { input } }) =>
      input.drive.fillFraction === undefined ? undefined : input.drive.fillFraction > 0.9 ? 'full' : 'room'
  },
  {
    code: 'case-warm',
    text: 'When it has become slow: how does the case feel?',
    minutes: 0.5,
    outcomes: [
      { outcome: 'hot', text: 'Hot, I take my hand away' },
      { outcome: 'warm', text: 'Warm' },
      { outcome: 'cool', text: 'Cool, though it has worked for minutes' }
    ],
    usual: [0.1, 0.6, 0.3],
    given: { 'thermal-throttle': [0.8, 0.17, 0.03], 'pad-no-contact': [0.05, 0.35, 0.6] },
    for: ['slow', 'disconnects'],
    applies: buildHas.flash
  },
  {
    code: 'other-source',
    text: 'Copy from and to another disk of the computer, or run the speed check. Is it still slow?',
    minutes: 3,
    outcomes: YES_NO,
    usual: [0.95, 0.05],
    given: { 'host-disk-cliff': [0.06, 0.94], 'background-load': [0.6, 0.4] },
    for: ['slow']
  },
  {
    code: 'rest',
    text: 'Let it rest for ten minutes with the power on, then try again. Is it fast again at first?',
    minutes: 12,
    outcomes: YES_NO,
    usual: [0.1, 0.9],
    given: {
      'slc-cliff': [0.9, 0.1],
      'thermal-throttle': [0.95, 0.05],
      'pad-no-contact': [0.9, 0.1],
      'smr-rewrite': [0.3, 0.7],
      'background-load': [0.4, 0.6],
      'drive-nearly-full': [0.35, 0.65]
    },
    for: ['slow']
  },
  {
    code: 'encrypted-volume',
    text: 'Is the volume encrypted by the system or by a program?',
    minutes: 0.5,
    outcomes: YES_NO,
    usual: [0.15, 0.85],
    given: { 'encryption-cost': [0.97, 0.03] },
    for: ['slow'],
    known: ({ hands: { input } }) => (input.job?.encrypt === undefined ? undefined : input.job.encrypt ? 'yes' : 'no')
  },
  {
    code: 'width-shown',
    text: 'Which width does the system show for the link to the drive (“lspci -vv”, or a program that reads it)?',
    minutes: 4,
    outcomes: [
      { outcome: 'two', text: 'Two lanes, x2' },
      { outcome: 'four', text: 'Four lanes, x4' }
    ],
    usual: [0.04, 0.96],
    given: { 'two-lane-limit': [0.95, 0.05] },
    for: ['slow'],
    applies: ({ hands, mode }) => hands.input.drive.media === 'nvme' && mode !== null && /^(?:usb4|tbt)/.test(mode)
  },
  {
    code: 'rest-hour',
    text: 'Leave it switched on for an hour without using it, then write again. Is it faster?',
    minutes: 65,
    outcomes: YES_NO,
    usual: [0.06, 0.94],
    given: { 'smr-rewrite': [0.85, 0.15], 'background-load': [0.5, 0.5] },
    for: ['slow'],
    applies: buildHas.disk
  },
  {
    code: 'newer-firmware',
    text: 'Look at the maker’s page of the enclosure. Is there newer firmware, with lost connections among what it mends?',
    minutes: 15,
    outcomes: YES_NO,
    usual: [0.12, 0.88],
    given: { 'bridge-firmware': [0.75, 0.25] },
    for: ['disconnects']
  },
  {
    code: 'when-lost',
    text: 'When does it go away?',
    minutes: 0.5,
    outcomes: [
      { outcome: 'load', text: 'As soon as much is written' },
      { outcome: 'minutes', text: 'After minutes of work, when it is hot' },
      { outcome: 'rest', text: 'When nothing happens, or after sleep' },
      { outcome: 'touched', text: 'When cable or case is touched' }
    ],
    usual: [0.25, 0.25, 0.25, 0.25],
    given: {
      'no-power': [0.85, 0.1, 0.03, 0.02],
      'unstable-link': [0.3, 0.08, 0.1, 0.52],
      'thermal-throttle': [0.1, 0.87, 0.02, 0.01],
      'power-saving': [0.02, 0.02, 0.95, 0.01],
      'not-seated': [0.2, 0.15, 0.1, 0.55],
      'lid-or-pad': [0.2, 0.4, 0.1, 0.3],
      'bridge-firmware': [0.5, 0.2, 0.28, 0.02]
    },
    for: ['disconnects']
  },
  {
    code: 'own-supply',
    text: 'Plug it into a port that gives more power, or a hub with a supply of its own. Does that change it?',
    minutes: 2,
    tools: ['a hub with a supply'],
    outcomes: HELPS,
    usual: [0.05, 0.95],
    given: { 'no-power': [0.92, 0.08], 'unstable-link': [0.15, 0.85] },
    for: ['disconnects', 'not-detected', 'no-power'],
    applies: ({ hands }) => hands.power === 'port'
  },
  {
    code: 'no-sleep',
    text: 'Switch off the sleep of disks and USB ports in the power settings, and wait for half an hour. Does it stay?',
    minutes: 30,
    outcomes: HELPS,
    usual: [0.07, 0.93],
    given: { 'power-saving': [0.93, 0.07], 'bridge-firmware': [0.25, 0.75] },
    for: ['disconnects']
  },
  {
    code: 'lower-speed',
    text: 'Run it at a lower speed: through a slower port or cable. Does it stay?',
    minutes: 15,
    tools: ['a slower port or cable'],
    outcomes: HELPS,
    usual: [0.15, 0.85],
    given: { 'unstable-link': [0.85, 0.15], 'bridge-firmware': [0.5, 0.5], 'no-power': [0.5, 0.5] },
    for: ['disconnects'],
    applies: ({ mode }) => mode !== null && mode !== 'usb2' && mode !== 'usb-5g'
  }
];

/** Reads off a result which way is too slow, where both were measured. */
function readOrWrite({ results, report }: Situation): string | undefined {
  const { read, write } = report.throughput;
  if (results?.readMBps === undefined || results.writeMBps === undefined || !read || !write) return undefined;
  const [slowRead, slowWrite] = [results.readMBps < read.low, results.writeMBps < write.low];
  if (slowRead) return 'both';
  return slowWrite ? 'write' : undefined;
}
