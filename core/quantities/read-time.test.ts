import { expect, it } from 'vitest';
import { looksLikeTime, readTime } from './read-time';

// 3 x 60 + 42 = 222; 3600 + 2 x 60 + 3 = 3723; 1.5 h = 5400 s
it.each([
  ['3:42', 222],
  ['0:42.5', 42.5],
  ['0:42,5', 42.5],
  ['1:02:03', 3723],
  ['90:00', 5400],
  ['95 s', 95],
  ['95', 95],
  ['3 min', 180],
  ['1.5 h', 5400]
])('%s', (text, seconds) => expect(readTime(text)).toMatchObject({ ok: true, value: seconds }));
it.each(['0:00', 'x', '3:75', '1:2:3:4', '-5 s', '', '12 GB'])('“%s” is no time', (text) =>
  expect(readTime(text).ok).toBe(false)
);
it.each([
  ['3:42', true],
  ['95 s', true],
  ['950 MB/s', false],
  ['950', false],
  ['1.2 GB/s', false],
  ['3 min', true]
])('%s is meant as a time: %s', (text, wanted) => expect(looksLikeTime(text)).toBe(wanted));
