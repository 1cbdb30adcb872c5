import { describe, expect, it } from 'vitest';
import { aCable, aHost, anEnclosure, anInput } from '../../tests/parts';
import { plan } from '../plan/plan';
import { simulatePairCheck } from '../simulate/pair-check';
import { compareWithPlan, comparisonSentence } from './compare';
import { blocking, checkPairResults, hardCeiling } from './gates';

const input = anInput({
  host: aHost({ modes: ['usb-10g'] }),
  cable: aCable({ modes: ['usb-10g'], active: true }),
  enclosure: anEnclosure({ modes: ['usb-10g'] })
});
const report = plan(input); // 900 - 1000 - 1070, ceiling 1212
const alarms = (results: Parameters<typeof checkPairResults>[0]) => checkPairResults(results, input, report);

describe('plausibility gates', () => {
  it('lets an ordinary result pass', () => {
    expect(alarms({ readMBps: 1010, writeMBps: 960, random4kReadMBps: 33, random4kWriteMBps: 47 })).toEqual([]);
  });

  it.each([
    // 8 Gb/s typed for 1 GB/s: 8000 / 8
    [8000, 1000, 'bits typed for bytes'],
    // 965000: kB/s for MB/s
    [965_000, 965, 'a thousand too much'],
    // one digit too many
    [10_100, 1010, 'a digit too many']
  ])('%d MB/s is impossible at 10 Gb/s; %d was meant', (typed, meant, because) => {
    const [alarm] = alarms({ writeMBps: typed });
    expect(alarm).toMatchObject({ level: 'impossible', field: 'writeMBps', meant: { value: meant } });
    expect(alarm!.message).toContain(because);
  });

  it('what is impossible stays refused, whatever is accepted', () => {
    const found = alarms({ writeMBps: 8000 });
    expect(blocking(found, [found[0]!.id])).toHaveLength(1);
  });

  it('just under the ceiling but far above the best of the band is questioned: 1200 > 1.1 x 1070 = 1177', () => {
    const found = alarms({ readMBps: 1200 });
    expect(found).toMatchObject([{ level: 'suspicious', id: 'readMBps-above-band' }]);
    expect(blocking(found, ['readMBps-above-band'])).toEqual([]);
    expect(alarms({ readMBps: 1177 })).toEqual([]);
  });

  it('0.95 for 0.95 GB/s is questioned', () => {
    expect(alarms({ writeMBps: 0.95 })).toMatchObject([{ level: 'suspicious', meant: { value: 950 } }]);
  });

  it('a deep-queue random figure is questioned: a read above 120 MB/s', () => {
    expect(alarms({ random4kReadMBps: 900 })).toMatchObject([{ id: 'random4kReadMBps-deep-queue' }]);
  });

  it('a result of a build that cannot work is questioned', () => {
    const broken = anInput({ host: aHost({ modes: ['usb-10g'] }), enclosure: anEnclosure({ modes: ['tbt3-40g'] }) });
    expect(checkPairResults({ writeMBps: 500 }, broken, plan(broken))).toMatchObject([
      { id: 'plan-says-it-fails', level: 'suspicious', field: 'writeMBps' }
    ]);
  });

  it('ceilings: 10 Gb/s 1212, USB4 with PCIe 3 3938, SATA 600', () => {
    expect(hardCeiling(input, report)).toBe(1212);
    const usb4 = anInput({ enclosure: anEnclosure({ downstreamPcie: { generation: 3, lanes: 4 } }) });
    expect(hardCeiling(usb4, plan(usb4))).toBe(3938);
  });
});

describe('measured against predicted', () => {
  it('says where it stands, how far, and against what', () => {
    const rows = compareWithPlan({ readMBps: 450, writeMBps: 1000 }, report);
    expect(rows.map((r) => [r.field, r.place])).toEqual([
      ['readMBps', 'below'],
      ['writeMBps', 'within']
    ]);
    // 450 / 900 = 50 % below the low end
    expect(comparisonSentence(rows[0]!)).toBe(
      'Read: 450 MB/s, 50 % below the low end of the forecast 900 – 1070 MB/s (one result: how far it scatters is not known).'
    );
    expect(comparisonSentence(rows[1]!)).toContain('inside the forecast of');
  });

  it('says of repeats whether they are further off than they scatter', () => {
    const [row] = compareWithPlan({ readMBps: 450 }, report);
    // ln 440, ln 450, ln 460: mean 6.10908, standard deviation 0.022227; t 4.303 / sqrt 3 * 0.022227 = 0.05522: 425.8 to 475.5,
    // beside 900: 52.7 and 47.2 % below
    expect(comparisonSentence(row!, [440, 450, 460])).toContain(
      '3 repeats: 47.2 to 52.7 % at 95 %, more than their error'
    );
    const [near] = compareWithPlan({ readMBps: 890 }, report);
    // 850, 890, 930 scatter by 11 % each way: from below 900 to above it
    expect(comparisonSentence(near!, [850, 890, 930])).toContain('no more than their error');
  });
});

describe('the simulated rig', () => {
  it('draws inside the bands, the same for the same seed', () => {
    for (let seed = 0; seed < 200; seed++) {
      const results = simulatePairCheck(report, seed)!;
      expect(compareWithPlan(results, report).map((r) => r.place)).toEqual(['within', 'within', 'within', 'within']);
    }
    expect(simulatePairCheck(report, 5)).toEqual(simulatePairCheck(report, 5));
    expect(simulatePairCheck(report, 5)).not.toEqual(simulatePairCheck(report, 6));
  });
  it('plays faults with their signature: USB 2.0 is 32 to 43 flat, a wrong write cache a quarter', () => {
    const fallen = simulatePairCheck(report, 1, 'usb2-fallback')!;
    expect(fallen.readMBps).toBeGreaterThanOrEqual(32);
    expect(fallen.readMBps).toBeLessThanOrEqual(43);
    const cached = simulatePairCheck(report, 1, 'write-cache-off')!;
    expect(cached.writeMBps! / cached.readMBps!).toBeLessThan(0.3);
  });
});

describe('what a port is stated to hold back', () => {
  it('caps its own direction: 1500 MB/s of tunnel is 1575 at most either way, 900 MB/s of writing 945', () => {
    const input = anInput({ host: aHost({ tunnelMBps: 1500, writeCapMBps: 900 }) });
    const report = plan(input);
    expect(hardCeiling(input, report, 'read')).toBeCloseTo(1500 * 1.05, 6);
    expect(hardCeiling(input, report, 'write')).toBeCloseTo(900 * 1.05, 6);
  });
});
