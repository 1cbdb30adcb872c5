import { shownInBinary, soldAs } from '../causes.ts';
import { YES_NO, type Question } from '../question.ts';

/** What is asked of a drive that shows the wrong size, wants to be initialised, or cannot be written. */
export const VOLUME_QUESTIONS: readonly Question[] = [
  {
    code: 'shown-size',
    text: 'Which size does the system show for the device, not for a volume on it?',
    minutes: 0.5,
    outcomes: [
      { outcome: 'binary', text: (at) => `About ${shownInBinary(at)}` },
      { outcome: 'as-sold', text: (at) => `About ${soldAs(at)}` },
      { outcome: 'limit', text: 'About 2 TB, or the rest above 2 TB, and the drive is larger' },
      { outcome: 'less', text: 'Something else, much less' }
    ],
    usual: [0.3, 0.3, 0.1, 0.3],
    given: {
      healthy: [0.94, 0.04, 0.01, 0.01],
      'old-partition': [0.35, 0.6, 0.02, 0.03],
      'wrong-capacity': [0.02, 0.03, 0.75, 0.2],
      'false-capacity': [0.25, 0.25, 0.02, 0.48],
      'sectors-4096': [0.2, 0.2, 0.1, 0.5]
    },
    for: ['wrong-capacity']
  },
  {
    code: 'device-or-volume',
    text: 'Is the device as large as it should be, and only the volume on it smaller?',
    minutes: 1,
    outcomes: YES_NO,
    usual: [0.1, 0.9],
    given: { 'old-partition': [0.95, 0.05], healthy: [0.3, 0.7], 'sectors-4096': [0.3, 0.7] },
    for: ['wrong-capacity']
  },
  {
    code: 'new-drive',
    text: 'Has anything ever been stored on this drive?',
    minutes: 0.2,
    outcomes: [
      { outcome: 'never', text: 'No, it is new' },
      { outcome: 'yes', text: 'Yes, and it is needed' },
      { outcome: 'not-needed', text: 'Yes, but nobody needs it' }
    ],
    usual: [0.08, 0.6, 0.32],
    given: { 'not-initialised': [0.85, 0.03, 0.12] },
    for: ['asks-to-initialise', 'wrong-capacity'],
    known: ({ hands }) => (hands.readyMade ? 'yes' : undefined)
  },
  {
    code: 'from-case',
    text: 'Was it formatted in another enclosure, a dock or a ready-made external?',
    minutes: 0.5,
    outcomes: YES_NO,
    usual: [0.25, 0.75],
    given: { 'sectors-4096': [0.97, 0.03], encrypted: [0.5, 0.5], 'not-initialised': [0.04, 0.96] },
    for: ['asks-to-initialise', 'wrong-capacity'],
    known: ({ hands }) => (hands.readyMade ? 'yes' : undefined)
  },
  {
    code: 'seen-before',
    text: 'Has this drive ever shown up with files on it?',
    minutes: 1,
    outcomes: [
      { outcome: 'never', text: 'No, it is new or was erased' },
      { outcome: 'here', text: 'Yes, on this computer' },
      { outcome: 'elsewhere', text: 'Yes, but only on other ones' }
    ],
    usual: [0.5, 0.35, 0.15],
    given: {
      'not-initialised': [0.96, 0.02, 0.02],
      'read-only-format': [0.04, 0.16, 0.8],
      encrypted: [0.05, 0.3, 0.65]
    },
    for: ['not-detected'],
    known: ({ hands }) => (hands.readyMade ? 'elsewhere' : undefined)
  },
  {
    code: 'other-system',
    text: 'Was it formatted on another kind of system than this one?',
    minutes: 0.5,
    outcomes: YES_NO,
    usual: [0.2, 0.8],
    given: { 'read-only-format': [0.93, 0.07], 'not-initialised': [0.03, 0.97], 'not-ejected': [0.2, 0.8] },
    for: ['asks-to-initialise', 'read-only']
  },
  {
    code: 'was-encrypted',
    text: 'Was it encrypted, or does its old case encrypt by itself?',
    minutes: 1,
    outcomes: YES_NO,
    usual: [0.06, 0.94],
    given: { encrypted: [0.95, 0.05], 'not-initialised': [0.02, 0.98] },
    for: ['asks-to-initialise', 'not-detected']
  },
  {
    code: 'was-ejected',
    text: 'Was it ejected the last time before it was unplugged, or the computer switched off?',
    minutes: 0.2,
    outcomes: YES_NO,
    usual: [0.8, 0.2],
    given: { 'not-ejected': [0.08, 0.92] },
    for: ['read-only', 'asks-to-initialise']
  },
  {
    code: 'whole-or-some',
    text: 'Can nothing be written at all, or only in some folders?',
    minutes: 1,
    outcomes: [
      { outcome: 'nothing', text: 'Nothing at all' },
      { outcome: 'some', text: 'Only in some folders, or only as administrator' }
    ],
    usual: [0.95, 0.05],
    given: { 'write-protected': [0.35, 0.65] },
    for: ['read-only']
  },
  {
    code: 'switch-of-case',
    text: 'Does the case have a switch that forbids writing, and is it on?',
    minutes: 0.2,
    outcomes: YES_NO,
    usual: [0.02, 0.98],
    given: { 'write-protected': [0.4, 0.6] },
    for: ['read-only']
  },
  {
    code: 'health-read',
    text: 'Read the health of the drive (its SMART values). Does it say that it failed, or that its life is used up?',
    minutes: 3,
    tools: ['a program that reads SMART values'],
    outcomes: YES_NO,
    usual: [0.05, 0.95],
    given: {
      'worn-out': [0.93, 0.07],
      'drive-faulty': [0.6, 0.4],
      'weak-surface': [0.7, 0.3]
    },
    for: ['read-only', 'no-capacity', 'slow', 'asks-to-initialise']
  },
  {
    code: 'fill-and-read',
    text: 'Fill it to the brim with test files and read all of them back. Is everything as it was written?',
    minutes: 240,
    outcomes: YES_NO,
    usual: [0.97, 0.03],
    given: { 'false-capacity': [0.02, 0.98], 'wrong-capacity': [0.1, 0.9] },
    for: ['wrong-capacity']
  }
];
