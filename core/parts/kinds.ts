/** The kinds of part and what people call them, without the schemas, so that pages need not load those. */
export const KINDS = ['drive', 'enclosure', 'cable', 'pad', 'host', 'alternative'] as const;
export type Kind = (typeof KINDS)[number];

export const KIND_LABEL: Record<Kind, { one: string; many: string }> = {
  drive: { one: 'drive', many: 'Drives' },
  enclosure: { one: 'enclosure', many: 'Enclosures' },
  cable: { one: 'cable', many: 'Cables' },
  pad: { one: 'pad', many: 'Pads' },
  host: { one: 'computer', many: 'Computers' },
  alternative: { one: 'ready-made drive', many: 'Ready-made drives' }
};

/**
 * Gives a kind with its article, as it stands in a sentence: an enclosure, a drive.
 * @example aKind('enclosure') // 'an enclosure'
 */
export const aKind = (kind: Kind): string =>
  `${/^[aeiou]/.test(KIND_LABEL[kind].one) ? 'an' : 'a'} ${KIND_LABEL[kind].one}`;

/**
 * Tells whether a word is a kind of part.
 * @example isKind('toaster') // false
 */
export const isKind = (value: string): value is Kind => (KINDS as readonly string[]).includes(value);
