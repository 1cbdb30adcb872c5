import { describe, expect, it } from 'vitest';
import { readPastedLog } from './log';

const minutes = (text: string) => readPastedLog(text).points.map((point) => Math.round(point.minutes * 1000) / 1000);

describe('times of a pasted log', () => {
  it('half past twelve and the minutes after it: 0, 1 and 2 minutes, and not 2 seconds', () =>
    expect(minutes('12:30 45.1\n12:31 46\n12:32 47')).toEqual([0, 1, 2]));
  it('a clock goes over midnight: 23:59, 00:01 are two minutes', () =>
    expect(minutes('23:59 45\n00:01 46\n00:03 47')).toEqual([0, 2, 4]));
  it('with seconds, over midnight: 23:59:30 to 00:00:30 is one minute', () =>
    expect(minutes('23:59:30 45\n00:00:30 46\n00:01:30 47')).toEqual([0, 1, 2]));
  it('a clock just after one o’clock, read every minute', () =>
    expect(minutes('1:00 40\n1:01 41\n1:02 42')).toEqual([0, 1, 2]));
  it('a stopwatch: 0:30 is half a minute, 1:30 one and a half', () =>
    expect(minutes('0:00 40\n0:30 41\n1:30 42')).toEqual([0, 0.5, 1.5]));
  it('plain numbers are minutes; with s they are seconds', () => {
    expect(minutes('0 40\n1.5 41')).toEqual([0, 1.5]);
    expect(minutes('0 s; 40\n90 s; 41')).toEqual([0, 1.5]);
  });
});
