import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foldTicks } from '../common/fold-ticks';
import { answersFromText, answersToText, minuteWords } from './path';

describe('a path in an address', () => {
  const code = fc.stringMatching(/^[a-z0-9-]{1,20}$/);
  it('comes back as it was', () =>
    fc.assert(
      fc.property(fc.array(fc.record({ test: code, outcome: code }), { maxLength: 6 }), (answers) => {
        expect(answersFromText(answersToText(answers))).toEqual(answers);
      })
    ));
  it('is read up to what is none, and never beyond six', () => {
    expect(answersFromText(null)).toEqual([]);
    expect(answersFromText('a:b.<script>.c:d')).toEqual([{ test: 'a', outcome: 'b' }]);
    expect(answersFromText(Array.from({ length: 9 }, (_, n) => `t${n}:o`).join('.'))).toHaveLength(6);
  });
});

describe('how long a look takes', () => {
  it('is said as people say it', () =>
    expect([0.2, 0.5, 1, 12, 240].map(minuteWords)).toEqual([
      ...['less than a minute', 'less than a minute', 'about 1 minute', 'about 12 minutes', 'about 4 hours']
    ]));
});

describe('ticks in a log', () => {
  const event = (seq: number, kind: string, by = 'one', at = '2026-11-27T10:00') => ({
    seq,
    kind,
    by,
    at,
    message: `m${seq}`
  });
  it('of one hand in a row are one line, and nothing of them is lost', () => {
    const events = [event(6, 'stage'), event(5, 'ticked'), event(4, 'ticked'), event(3, 'ticked'), event(2, 'edited')];
    const lines = foldTicks(events);
    expect(lines.map(({ first, folded }) => [first.seq, folded.map(({ seq }) => seq)])).toEqual([
      [6, []],
      [5, [4, 3]],
      [2, []]
    ]);
  });
  it('that are two, of two hands or of two days stand by themselves', () => {
    expect(foldTicks([event(2, 'ticked'), event(1, 'ticked')])).toHaveLength(2);
    expect(foldTicks([event(3, 'ticked'), event(2, 'ticked', 'two'), event(1, 'ticked')])).toHaveLength(3);
    expect(foldTicks([event(3, 'ticked', 'one', '2026-11-27'), event(2, 'ticked', 'one', '2026-11-26')])).toHaveLength(
      2
    );
  });
});
