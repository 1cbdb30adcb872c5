import { expect, it } from 'vitest';
import { handRepeats, timedByHand } from './hand-times';

const write = { work: 'write' as const, GB: 10, round: 1, label: 'Write' };
// 10 GB at 500 MB/s take 20 s; 10 GB in 25 s are 400 MB/s; 900 s at 300 MB/s are 270 GB
it.each([
  ['a rate', write, { text: '500', MBps: 500 }, [{ work: 'write', round: 1, GB: 10, seconds: 20, byHand: false }]],
  ['a time', write, { text: '25 s', seconds: 25 }, [{ work: 'write', round: 1, GB: 10, seconds: 25, byHand: true }]],
  [
    'a rate over a set time',
    { work: 'write' as const, seconds: 900, label: 'Soak' },
    { text: '300', MBps: 300 },
    [{ work: 'write', GB: 270, seconds: 900, byHand: false }]
  ],
  [
    'a time without a size says nothing',
    { work: 'write' as const, seconds: 900, label: 'Soak' },
    { text: '9:00', seconds: 540 },
    []
  ],
  ['what cannot be read', write, { text: 'x', error: 'no' }, []],
  ['nothing', write, { text: '' }, []],
  ['a rest', { work: 'rest' as const, seconds: 60, label: 'Rest' }, { text: '5', MBps: 5 }, []]
])('%s', (_what, phase, time, wanted) => expect(timedByHand([phase], [time])).toEqual(wanted));
it('only what was timed by hand is judged as a copy', () =>
  expect(
    handRepeats(
      [
        { what: 'write', MBps: 500 },
        { what: 'write', seconds: 25 }
      ],
      timedByHand(
        [write, write],
        [
          { text: '500', MBps: 500 },
          { text: '25 s', seconds: 25 }
        ]
      )
    ).map(({ byHand }) => byHand)
  ).toEqual([undefined, true]));
