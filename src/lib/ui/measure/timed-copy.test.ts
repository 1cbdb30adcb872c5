import { expect, it } from 'vitest';
import { copyResults } from './timed-copy';

// 40 GB in 40, 50 and 100 s are 1000, 800 and 400 MB/s: the middle is 800. One way back: 40 GB in 20 s are 2000.
it('copies timed by hand come to the middle of each way, and each stays', () => {
  const repeats = [
    ...[40, 100, 50].map((seconds) => ({ what: 'copy-in' as const, GB: 40, seconds, byHand: true })),
    { what: 'copy-out' as const, GB: 40, seconds: 20, byHand: true }
  ];
  expect(copyResults(repeats)).toEqual({ copyInMBps: 800, copyOutMBps: 2000, repeats });
});
it('a way that was not copied is left out', () =>
  expect(Object.keys(copyResults([{ what: 'copy-in', GB: 1, seconds: 10 }]))).toEqual(['copyInMBps', 'repeats']));
