import { describe, expect, it } from 'vitest';
import { anEnclosure, anInput } from '../../tests/parts';
import { plan } from '../plan/plan';
import type { Conditions } from '../results/conditions';
import type { Repeat } from '../results/run';
import { checkRun } from './gates';

// A chain of 10 Gb/s: 900 to 1070 MB/s are forecast, and 1212 are the payload of the link.
const input = anInput({ enclosure: anEnclosure({ modes: ['usb-10g'] }) });
const build = { input, report: plan(input) };
type Given = Parameters<typeof checkRun>[0];
const alarms = (given: Partial<Given>) =>
  checkRun({ protocol: 'soak', conditions: {}, ...given }, build).map(
    ({ id, level, path }) => `${level} ${id} at ${path}`
  );

describe('figures of any protocol', () => {
  it.each<[string, Partial<Given>, string[]]>([
    ['a soak inside its forecast', { results: { writeMBps: 1000 } }, []],
    [
      'a soak above the link',
      { results: { writeMBps: 1300 } },
      ['impossible writeMBps-above-ceiling at results.writeMBps']
    ],
    [
      'a write after the cache above the link',
      { results: { sustainedWriteMBps: 1300 } },
      ['impossible sustainedWriteMBps-above-ceiling at results.sustainedWriteMBps']
    ],
    [
      'a write after the cache that keeps up with the chain is no wonder',
      { results: { sustainedWriteMBps: 1050 } },
      []
    ],
    [
      'a copy above the link',
      { protocol: 'copy', results: { copyInMBps: 1250 } },
      ['impossible copyInMBps-above-ceiling at results.copyInMBps']
    ],
    [
      'a copy back above the link',
      { protocol: 'copy', results: { copyOutMBps: 1250 } },
      ['impossible copyOutMBps-above-ceiling at results.copyOutMBps']
    ],
    ['the internal disk has nothing to do with the link', { protocol: 'baseline', results: { writeMBps: 6000 } }, []]
  ])('%s', (_what, given, wanted) => expect(alarms(given)).toEqual(wanted));
});

describe('repeats', () => {
  const repeat = (change: Partial<Repeat>): Partial<Given> => ({
    protocol: 'copy',
    results: { repeats: [{ what: 'copy-in', GB: 100, seconds: 110, ...change }] }
  });
  it.each<[string, Partial<Given>, string[]]>([
    // 100 GB in 110 s are 909 MB/s; in 80 s 1250
    ['a copy that can be', repeat({}), []],
    ['one that cannot', repeat({ seconds: 80 }), ['impossible copy-above-ceiling at results.repeats.0.GB']],
    ['a step that a tool timed may be short', repeat({ what: 'write', GB: 5, seconds: 5 }), []],
    [
      'by hand that is asked',
      repeat({ what: 'write', GB: 5, seconds: 5, byHand: true }),
      ['suspicious copy-too-short at results.repeats.0.seconds']
    ],
    [
      'a tool above the link is refused too',
      repeat({ what: 'read', GB: 5, seconds: 2 }),
      ['impossible copy-above-ceiling at results.repeats.0.seconds']
    ],
    ['a piece of work is no copy', repeat({ what: 'task', seconds: 1 }), []],
    ['without a time nothing can be said', { results: { repeats: [{ what: 'copy-in', GB: 100 }] } }, []]
  ])('%s', (_what, given, wanted) =>
    // where several slips explain it, which one is offered does not matter here
    expect(alarms(given).map((alarm) => alarm.replace(/repeats\.0\.\w+/, 'repeats.0'))).toEqual(
      wanted.map((alarm) => alarm.replace(/repeats\.0\.\w+/, 'repeats.0'))
    )
  );
  it('an alarm is told once, however many repeats raise it', () =>
    expect(
      alarms({
        protocol: 'copy',
        results: { repeats: [1, 2, 3].map(() => ({ what: 'copy-in' as const, GB: 100, seconds: 50 })) }
      })
    ).toHaveLength(1));

  const ways = (conditions: Conditions, what: Repeat['what']) =>
    checkRun({ protocol: 'copy', conditions, results: { repeats: [{ what, GB: 30, seconds: 60 }] } }, build).map(
      ({ id }) => id
    );
  // 30 GB are less than twice 32 GB of memory: a write may still be there, a read may come from there
  it('the way back is a read, although the conditions name the way there', () => {
    const there: Conditions = { source: 'internal', target: 'drive', memoryGB: 32 };
    expect(ways(there, 'copy-in')).toEqual(['copy-in-memory']);
    expect(ways(there, 'copy-out')).toEqual(['copy-from-memory']);
    expect(ways({ ...there, flushed: true }, 'copy-in')).toEqual([]);
    expect(ways({ source: 'drive', target: 'internal', memoryGB: 32 }, 'copy-in')).toEqual(['copy-in-memory']);
  });
  it('something ready-made has no ceiling that anybody knows', () =>
    expect(
      checkRun(
        { protocol: 'copy', conditions: {}, results: { repeats: [{ what: 'copy-in', GB: 100, seconds: 11 }] } },
        null
      )
    ).toEqual([]));
});

describe('a series', () => {
  const series = (rates: number[]) => ({ series: { t: rates.map((_, i) => i + 1), MBps: rates } });
  const hundred = (high: number) => Array.from({ length: 200 }, (_, i) => (i < high ? 2000 : 1000));
  it.each<[string, Partial<Given>, string[]]>([
    ['inside', series(hundred(0)), []],
    // 1212 x 1.1 = 1333: a second that took a bit of the next
    ['a little above for a second', series([1300, 1000]), []],
    [
      'far above for one sample of 200, half a percent',
      series(hundred(1)),
      ['suspicious series-peaks-above-ceiling at series.MBps']
    ],
    [
      'far above for three, one and a half percent',
      series(hundred(3)),
      ['impossible series-above-ceiling at series.MBps']
    ],
    ['of the internal disk', { protocol: 'baseline', ...series(hundred(200)) }, []]
  ])('%s', (_what, given, wanted) => expect(alarms(given)).toEqual(wanted));
});
