/** Ways of measuring, by their names in the API. */
export const PROTOCOL_IDS = [
  'pair-check',
  'loop',
  'soak',
  'copy',
  'sweep',
  'baseline',
  'retest',
  'acceptance',
  'cross-copy',
  'own-program'
] as const;
export type ProtocolId = (typeof PROTOCOL_IDS)[number];
