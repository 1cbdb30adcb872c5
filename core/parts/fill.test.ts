import { describe, expect, it } from 'vitest';
import { aPort } from '../../tests/parts';
import type { Drive } from './drive';
import type { Enclosure } from './enclosure';
import { fillDrive, fillEnclosure, portPower } from './fill';

/** Fills a part and gives it back with what was assumed, as `field: value`. */
function filled<T, F>(
  fill: (part: T, assume: (part: string, field: string, value: unknown, from: string) => void) => F,
  part: T
) {
  const assumed: Record<string, unknown> = {};
  const result = fill(part, (_part, field, value, from) => {
    expect(from, field).not.toBe('');
    assumed[field] = value;
  });
  return { result, assumed };
}
const drive = (change: Partial<Drive>) =>
  filled(fillDrive, { kind: 'drive', name: 'd', media: 'nvme', formFactor: 'm2', capacityTB: 2, ...change } as Drive);
const enclosure = (change: Partial<Enclosure>) =>
  filled(fillEnclosure, {
    kind: 'enclosure',
    name: 'e',
    formFactor: 'm2',
    protocols: ['nvme'],
    modes: ['usb-10g'],
    plug: 'usb-c',
    ...change
  } as Enclosure);

describe('drives', () => {
  it.each([
    // the slowest generation that reaches the read rate
    [3500, 3],
    [5000, 4],
    [7400, 4],
    [12_400, 5]
  ])('%d MB/s read is PCIe %d', (readMBps, generation) => {
    expect(drive({ readMBps }).result.pcie).toEqual({ generation, lanes: 4 });
  });

  it('a B+M module has two lanes', () =>
    expect(drive({ m2Key: 'B+M' }).result.pcie).toEqual({ generation: 3, lanes: 2 }));

  it('a stated rating gives 0.85 - 0.95 - 1, a class rating 0.5 - 0.85 - 1', () => {
    expect(drive({ readMBps: 1000 }).result.read).toEqual({ low: 850, typical: 950, high: 1000 });
    // class PCIe 3: 3000
    expect(drive({}).result.read).toEqual({ low: 1500, typical: 2550, high: 3000 });
  });

  it('an unstated write follows the class: 7000 x 4500 / 5500 = 5727', () => {
    const { result, assumed } = drive({ readMBps: 7000 });
    expect(assumed.writeMBps).toBe(5727);
    expect(result.write.high).toBe(5727);
  });

  it('SATA SSDs: 550 and 520, key B+M, 7 mm in a bay', () => {
    const { result, assumed } = drive({ media: 'sata-ssd', formFactor: '2.5in' });
    expect([assumed.readMBps, assumed.thicknessMm, result.pcie, result.protocol]).toEqual([550, 7, null, 'sata']);
    expect(drive({ media: 'sata-ssd' }).result.m2Key).toBe('B+M');
  });

  it.each([
    [{ flash: { cell: 'qlc' as const } }, 200],
    [{ flash: { cell: 'tlc' as const }, readMBps: 7000 }, 1000],
    [{ flash: { cell: 'tlc' as const }, readMBps: 3000 }, 700], // generation 3
    [{ flash: { cell: 'tlc' as const }, readMBps: 7000, capacityTB: 0.5 }, 700], // small
    [{ media: 'sata-ssd' as const, flash: { cell: 'tlc' as const } }, 400]
  ])('after the cache, by class: %j is typically %d MB/s', (change, typical) => {
    expect(drive(change).result.postCache!.typical).toBe(typical);
  });

  it('SLC has no slower rate behind its cache; a stated rate spreads 0.85 - 1 - 1.1', () => {
    expect(drive({ flash: { cell: 'slc' } }).result.postCache).toBeNull();
    expect(drive({ flash: { cell: 'tlc', postCacheWriteMBps: 1000 } }).result.postCache).toEqual({
      low: 850,
      typical: 1000,
      high: 1100
    });
  });

  it('hard disks: inner edge 0.48 of the outer, 2.5-inch above 2 TB is 15 mm', () => {
    const { result, assumed } = drive({ media: 'hdd', formFactor: '2.5in', capacityTB: 4, disk: { outerMBps: 100 } });
    expect(result.read).toEqual({ low: 48, typical: 74, high: 100 });
    expect(assumed).toMatchObject({ 'disk.innerMBps': 48, thicknessMm: 15, 'disk.rpm': 5400 });
    expect(drive({ media: 'hdd', formFactor: '3.5in' }).assumed).toMatchObject({
      'disk.outerMBps': 230,
      'disk.rpm': 7200,
      thicknessMm: 26.1
    });
  });

  it('from 4 TB on chips on both sides are supposed, and said', () => {
    expect(drive({ capacityTB: 4 })).toMatchObject({ result: { doubleSided: true }, assumed: { sides: 'double' } });
    expect(drive({ capacityTB: 2 })).toMatchObject({ result: { doubleSided: false }, assumed: { sides: 'single' } });
    expect(drive({ capacityTB: 8, sides: 'single' }).result.doubleSided).toBe(false);
  });

  it('what is stated is never assumed', () => {
    const { assumed } = drive({
      readMBps: 7000,
      writeMBps: 6000,
      pcie: { generation: 4, lanes: 4 },
      flash: { cell: 'tlc', dram: true, postCacheWriteMBps: 1000 },
      m2LengthMm: 80,
      m2Key: 'M',
      sides: 'single'
    });
    expect(assumed).toEqual({});
  });
});

describe('enclosures', () => {
  it.each<[Enclosure['modes'], { generation: number; lanes: number }]>([
    [['usb-10g'], { generation: 3, lanes: 2 }],
    [['usb-20g'], { generation: 3, lanes: 4 }],
    [['usb4-40g'], { generation: 4, lanes: 4 }],
    [['tbt3-40g'], { generation: 3, lanes: 4 }],
    [['tbt5-80g', 'usb-10g'], { generation: 4, lanes: 4 }]
  ])('%j: PCIe %j behind the bridge', (modes, pcie) => expect(enclosure({ modes }).result.pcie).toEqual(pcie));

  it('knows whether the generation was stated', () => {
    expect(enclosure({}).result.generationKnown).toBe(false);
    expect(enclosure({ downstreamPcie: { generation: 3, lanes: 2 } }).result.generationKnown).toBe(true);
  });

  it('takes UAS for granted only where the transport matters, and says so', () => {
    expect(enclosure({}).assumed.uas).toBe(true);
    expect(enclosure({ modes: ['tbt3-40g'] }).assumed.uas).toBeUndefined();
    expect(enclosure({ uas: false }).result.uas).toBe(false);
  });

  it('bays: 9.5 mm and 26.1 mm', () => {
    expect(enclosure({ formFactor: '2.5in', protocols: ['sata'] }).assumed).toMatchObject({
      maxThicknessMm: 9.5,
      downstreamSataGbps: 6
    });
    expect(enclosure({ formFactor: '3.5in', protocols: ['sata'] }).result.maxThicknessMm).toBe(26.1);
  });
});

describe('what a port gives', () => {
  it.each([
    [{ modes: ['usb2' as const] }, 2.5],
    [{ modes: ['usb-10g' as const] }, 4.5],
    [{ modes: ['usb-20g' as const] }, 7.5],
    [{ modes: ['usb4-40g' as const] }, 7.5],
    [{ modes: ['tbt4-40g' as const] }, 15],
    [{ modes: ['esata-6g' as const], plug: 'esata' as const }, 0]
  ])('%j: %d W when nothing is stated', (change, watts) => {
    const { result, assumed } = filled(portPower, aPort({ powerW: undefined, ...change }));
    expect(result).toEqual({ watts, stated: false });
    expect(assumed.powerW).toBe(watts);
  });
  it('a stated figure holds', () =>
    expect(filled(portPower, aPort({ powerW: 12 }))).toEqual({ result: { watts: 12, stated: true }, assumed: {} }));
});
