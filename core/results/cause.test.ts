import { describe, expect, it } from 'vitest';
import { aCable, aDrive, anEnclosure, anInput, aHost } from '../../tests/parts.ts';
import { plan } from '../plan/plan.ts';
import { causeOf } from './cause.ts';

const input = anInput();
const report = plan(input);
const plain = (text = '') => text.replaceAll('\u202f', ' ');

describe('what a result that is too low points to', () => {
  it.each([
    // USB 2.0 gives 32 to 43 MB/s, 5 Gb/s 400 to 465, 10 Gb/s 900 to 1070; 8 % beside a band still belongs to it
    [{ readMBps: 40, writeMBps: 38 }, 'USB 2.0', 'another cable'],
    [{ readMBps: 438, writeMBps: 430 }, 'USB 5 Gb/s', 'another port'],
    [{ writeMBps: 30 }, 'USB 2.0', 'another cable'],
    [{ readMBps: 1020, writeMBps: 990 }, 'USB 10 Gb/s', 'another cable'],
    // reading names the mode; that writing is slower still has a second reason
    [{ readMBps: 440, writeMBps: 120 }, 'USB 5 Gb/s', 'another port']
  ])('%j: %s', (results, mode, first) => {
    const cause = causeOf(results, input, report)!;
    expect(cause.code).toBe('fell-back');
    expect(cause.text).toContain(`in ${mode} (`);
    expect(cause.tries[0]).toContain(first);
    expect(cause.tries.length).toBeGreaterThan(2);
  });

  it('says the rate and the range of the mode', () => {
    expect(plain(causeOf({ readMBps: 438, writeMBps: 430 }, input, report)?.text)).toMatch(
      /^4\d\d MB\/s is what this chain does in USB 5 Gb\/s \(400 to 465 MB\/s\): it most likely fell back to that\./
    );
  });

  it('names none that is not near, that is no fall-back of this chain, or where nothing is too low', () => {
    expect(causeOf({ readMBps: 700, writeMBps: 650 }, input, report)).toBeUndefined();
    expect(causeOf({ readMBps: 15, writeMBps: 12 }, input, report)).toBeUndefined();
    const { read, write } = report.throughput;
    expect(causeOf({ readMBps: read!.typical, writeMBps: write!.typical }, input, report)).toBeUndefined();
    expect(causeOf({}, input, report)).toBeUndefined();
    // a chain that runs in USB 2.0 anyway has nothing below it
    const slow = anInput({
      host: aHost({ modes: ['usb2'] }),
      enclosure: anEnclosure({ modes: ['usb-10g'] }),
      cable: aCable({ modes: ['usb2'] })
    });
    expect(causeOf({ readMBps: 20, writeMBps: 20 }, slow, plan(slow))).toBeUndefined();
  });

  it('nothing is faster than the chain that it ran on', () => {
    // 700 read cannot have passed 5 Gb/s, whatever the write says
    expect(causeOf({ readMBps: 700, writeMBps: 430 }, input, report)).toBeUndefined();
  });

  it('a write like that after the cache, while reading is as forecast, is the cache', () => {
    const qlc = anInput({
      drive: aDrive({ flash: { cell: 'tlc', dram: true, cacheGB: 20, postCacheWriteMBps: 900, drainMBps: 0 } })
    });
    const plan20 = plan(qlc);
    const typical = plan20.throughput.sustainedWrite!.typical;
    const results = { readMBps: plan20.throughput.read!.typical, writeMBps: typical };
    expect(causeOf(results, qlc, plan20)?.code).toBe('cache-full');
    // without a read nobody knows that the link is sound
    expect(causeOf({ writeMBps: typical }, qlc, plan20)?.code).not.toBe('cache-full');
  });
});
