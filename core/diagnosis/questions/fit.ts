import { buildHas } from '../causes.ts';
import { YES_NO, type Question } from '../question.ts';

const NOT_TOGETHER = ['m2-key-mismatch', 'm2-length-unsupported', 'form-factor-mismatch', 'bay-too-thin'];

/** What is asked of a drive that will not go in, or a case that will not close. */
export const FIT_QUESTIONS: readonly Question[] = [
  {
    code: 'notch-over-key',
    text: ({ hands }) =>
      hands.bay === 'm2'
        ? 'Hold the drive over its socket, label up. Does its notch lie over the key of the socket?'
        : 'Hold the drive against its connector. Do both L shapes lie the same way round?',
    minutes: 0.5,
    outcomes: [
      { outcome: 'yes', text: 'Yes' },
      { outcome: 'turned', text: 'Only when I turn the drive over' },
      { outcome: 'never', text: 'Neither way' }
    ],
    usual: [0.9, 0.05, 0.05],
    given: { 'upside-down': [0.03, 0.94, 0.03], 'wrong-part': [0.15, 0.05, 0.8] },
    for: ['will-not-go-in'],
    known: ({ findings }) => (NOT_TOGETHER.some((code) => findings.has(code)) ? 'never' : undefined)
  },
  {
    code: 'anything-inside',
    text: 'Is anything in the socket or the bay: a film, a dummy, a wire, a post at another length?',
    minutes: 0.5,
    outcomes: YES_NO,
    usual: [0.05, 0.95],
    given: { 'in-the-way': [0.9, 0.1], 'heatsink-on': [0.3, 0.7] },
    for: ['will-not-go-in', 'will-not-close']
  },
  {
    code: 'how-held',
    text: 'At which angle did you put it in?',
    minutes: 0.5,
    outcomes: [
      { outcome: 'aslant', text: 'Aslant, 15 to 30°' },
      { outcome: 'flat', text: 'Flat, or nearly' },
      { outcome: 'steep', text: 'Steeper' }
    ],
    usual: [0.6, 0.25, 0.15],
    given: { 'not-seated': [0.15, 0.6, 0.25], 'wrong-part': [0.8, 0.1, 0.1], 'upside-down': [0.7, 0.2, 0.1] },
    for: ['will-not-go-in'],
    applies: buildHas.m2
  },
  {
    code: 'level',
    text: 'Look from the side. Does the drive lie level with its connector while you slide it on?',
    minutes: 0.5,
    outcomes: YES_NO,
    usual: [0.8, 0.2],
    given: { 'not-seated': [0.15, 0.85] },
    for: ['will-not-go-in'],
    applies: (at) => !buildHas.m2(at)
  },
  {
    code: 'size-of-place',
    text: ({ hands }) =>
      hands.bay === 'm2'
        ? 'Lay the drive on its place without pushing. Does its end reach the post, neither short nor beyond?'
        : 'Lay the drive beside its bay. Is the bay as long and as high as the drive?',
    minutes: 1,
    outcomes: YES_NO,
    usual: [0.9, 0.1],
    given: { 'wrong-part': [0.2, 0.8], 'in-the-way': [0.5, 0.5] },
    for: ['will-not-go-in'],
    known: ({ findings }) => (NOT_TOGETHER.some((code) => findings.has(code)) ? 'no' : undefined)
  },
  {
    code: 'board-flat',
    text: ({ hands }) =>
      hands.bay === 'm2'
        ? 'With the case open: is no gold to be seen, and does the board lie flat by itself?'
        : 'With the case open: is the drive all the way on its connector, and level?',
    minutes: 0.5,
    outcomes: YES_NO,
    usual: [0.9, 0.1],
    given: { 'not-seated': [0.1, 0.9], 'in-the-way': [0.7, 0.3] },
    for: ['will-not-close', 'no-capacity']
  },
  {
    code: 'heatsink-there',
    text: 'Is the heatsink still on the drive?',
    minutes: 0.2,
    outcomes: YES_NO,
    usual: [0.05, 0.95],
    given: { 'heatsink-on': [0.97, 0.03] },
    for: ['will-not-close', 'will-not-go-in'],
    applies: ({ hands }) => hands.bay === 'm2' && (hands.input.drive.heatsinkMm ?? 0) > 0
  },
  {
    code: 'lid-turned-round',
    text: 'Turn the lid or the tray round once and lay it on without force. Does it close then?',
    minutes: 0.5,
    outcomes: YES_NO,
    usual: [0.03, 0.97],
    given: { 'lid-turned': [0.95, 0.05] },
    for: ['will-not-close'],
    applies: ({ hands }) => hands.opening !== 'none' || hands.retention === 'tray'
  },
  {
    code: 'without-pads',
    text: 'Take the pads out and close it, with nothing plugged in. Does it close by itself?',
    minutes: 3,
    opens: true,
    outcomes: YES_NO,
    usual: [0.05, 0.95],
    given: { 'lid-or-pad': [0.95, 0.05] },
    for: ['will-not-close'],
    applies: buildHas.pads
  },
  {
    code: 'empty-closes',
    text: 'Take the drive out and close the empty case. Does it close?',
    minutes: 4,
    opens: true,
    outcomes: YES_NO,
    usual: [0.9, 0.1],
    given: { 'lid-turned': [0.1, 0.9], 'in-the-way': [0.3, 0.7], 'bridge-faulty': [0.1, 0.9] },
    for: ['will-not-close']
  }
];
