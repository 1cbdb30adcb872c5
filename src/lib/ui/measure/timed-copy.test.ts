import { describe, expect, it } from 'vitest';
import { typedFrom } from './timed-copy';

describe('a copy timed by hand, as a result', () => {
  it('is its rate in the way it went, with what was copied and how well it is known', () => {
    // 420 GB in 213 s are 420 000 / 213 = 1971.8 MB/s
    const typed = typedFrom({ way: 'write', GB: 420, seconds: 213, MBps: 420_000 / 213, errorS: 0.28 });
    expect(typed).toEqual({
      writeMBps: '1972',
      testGB: '420',
      repeats: '1',
      notes: 'Timed by hand: 420 GB in 3:33\u202fmin, ±0.28 s.'
    });
    expect(typedFrom({ way: 'read', GB: 1, seconds: 2, MBps: 500, errorS: 0.28 })).toMatchObject({ readMBps: '500' });
  });
});
