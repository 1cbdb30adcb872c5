/** The figures of a speed check, apart from their schema so that pages need not load that. */
export const RESULT_FIELDS = [
  'readMBps',
  'writeMBps',
  'random4kReadMBps',
  'random4kWriteMBps',
  'sustainedWriteMBps'
] as const;
export type ResultField = (typeof RESULT_FIELDS)[number];
