import { OPENING_LABELS, OPENINGS, RETENTION_LABELS, SCREW_HEAD_LABELS, type Retention } from '../parts/enclosure.ts';
import type { Ask } from '../sheets/sheet.ts';
import type { Hands } from './hands.ts';

/** How a drive of each kind can be held. */
const HOLDS: Record<Hands['bay'], readonly Retention[]> = {
  m2: ['screw', 'screw-from-below', 'turning', 'rubber', 'tool-less', 'tray'],
  '2.5in': ['tool-less', 'screw', 'tray'],
  '3.5in': ['tool-less', 'screw', 'tray']
};
const HOLD_WORDS: Partial<Record<Hands['bay'], Partial<Record<Retention, string>>>> = {
  m2: { 'tool-less': 'without tools, in another way' },
  '2.5in': { screw: 'four screws', 'tool-less': 'without tools' },
  '3.5in': { screw: 'four screws', 'tool-less': 'without tools' }
};

/** Asks how the drive is held, where the enclosure does not say. */
export const askRetention = ({ retention, bay, input }: Hands): Ask[] =>
  retention !== undefined
    ? []
    : [
        {
          question: 'retention',
          text: `How is the drive held in ${input.enclosure.name}? What does yours have?`,
          options: HOLDS[bay].map((value) => ({ value, label: HOLD_WORDS[bay]?.[value] ?? RETENTION_LABELS[value] }))
        }
      ];

/** Asks how the case is opened, where the enclosure does not say. */
export const askOpening = ({ opening, input }: Hands): Ask[] =>
  opening !== undefined
    ? []
    : [
        {
          question: 'opening',
          text: `How is ${input.enclosure.name} opened? What does yours have?`,
          options: OPENINGS.map((value) => ({ value, label: OPENING_LABELS[value] }))
        }
      ];

/** Asks for the screws of a case that is opened by some. */
export const askScrews = ({ opening, input: { enclosure } }: Hands): Ask[] =>
  opening !== 'screws' || enclosure.screws !== undefined
    ? []
    : [
        {
          question: 'screws',
          text: `Which screws hold ${enclosure.name} together? What does yours have?`,
          options: Object.entries(SCREW_HEAD_LABELS).map(([value, label]) => ({ value, label }))
        }
      ];

/** Asks for a mark on lid or tray, where it matters and the enclosure does not say. */
export const askDirection = ({ opening, retention, input: { enclosure } }: Hands): Ask[] =>
  enclosure.directionMark !== undefined || (opening === 'none' && retention !== 'tray') || opening === 'lid'
    ? []
    : [
        {
          question: 'directionMark',
          text: `Is there a mark on ${enclosure.name} that shows which way round it closes? What does yours have?`,
          options: [
            { value: 'true', label: 'yes' },
            { value: 'false', label: 'no' }
          ]
        }
      ];
