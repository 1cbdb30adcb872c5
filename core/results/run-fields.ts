/** The four figures of a pair check, apart from their schema so that pages need not load that. */
export const RESULT_FIELDS = ['readMBps', 'writeMBps', 'random4kReadMBps', 'random4kWriteMBps'] as const;
export type ResultField = (typeof RESULT_FIELDS)[number];
