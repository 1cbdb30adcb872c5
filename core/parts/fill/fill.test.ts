import { describe, expect, it } from 'vitest';
import { aPort } from '../../../tests/parts';
import type { Drive } from '../drive';
import type { Enclosure } from '../enclosure';
import type { LinkMode } from '../../facts/link-modes';
import { fillDrive, sidesAssumed } from './drive';
import { fillEnclosure } from './enclosure';
import { portPower } from './port';

const drive = (change: Partial<Drive>) =>
  fillDrive({ kind: 'drive', name: 'd', media: 'nvme', formFactor: 'm2', capacityTB: 2, ...change });
const enclosure = (change: Partial<Enclosure>) =>
  fillEnclosure({
    kind: 'enclosure',
    name: 'e',
    formFactor: 'm2',
    protocols: ['nvme'],
    modes: ['usb-10g'],
    plug: 'usb-c',
    ...change
  });

describe('drives', () => {
  it.each([
    // the slowest generation that reaches the read rate
    [3500, 3],
    [5000, 4],
    [7400, 4],
    [12_400, 5]
  ])('%d MB/s read is PCIe %d', (readMBps, generation) => {
    expect(drive({ readMBps }).pcie).toEqual({ generation, lanes: 4 });
  });

  it('a B+M module has two lanes', () => expect(drive({ m2Key: 'B+M' }).pcie).toEqual({ generation: 3, lanes: 2 }));

  it('a stated rating gives 0.85 - 0.95 - 1, a class rating 0.5 - 0.95 - 1', () => {
    expect(drive({ readMBps: 1000 }).read).toEqual({ low: 850, typical: 950, high: 1000 });
    // class PCIe 3: 3000
    expect(drive({}).read).toEqual({ low: 1500, typical: 2850, high: 3000 });
  });

  it('an unstated write follows the class: 7000 x 4500 / 5500 = 5727', () => {
    const { write, ratedWrite } = drive({ readMBps: 7000 });
    expect([ratedWrite, write.high]).toEqual([5727, 5727]);
  });

  it('SATA SSDs: 550 and 520, key B+M, 7 mm in a bay', () => {
    const { rated, ratedWrite, thicknessMm, pcie, protocol } = drive({ media: 'sata-ssd', formFactor: '2.5in' });
    expect([rated, ratedWrite, thicknessMm, pcie, protocol]).toEqual([550, 520, 7, null, 'sata']);
    expect(drive({ media: 'sata-ssd' }).m2Key).toBe('B+M');
  });

  it.each([
    [{ flash: { cell: 'qlc' as const } }, 200],
    [{ flash: { cell: 'tlc' as const }, readMBps: 7000 }, 1000],
    [{ flash: { cell: 'tlc' as const }, readMBps: 3000 }, 700], // generation 3
    [{ flash: { cell: 'tlc' as const }, readMBps: 7000, capacityTB: 0.5 }, 700], // small
    [{ media: 'sata-ssd' as const, flash: { cell: 'tlc' as const } }, 400]
  ])('after the cache, by class: %j is typically %d MB/s', (change, typical) => {
    expect(drive(change).postCache!.typical).toBe(typical);
  });

  it('SLC has no slower rate behind its cache; a stated rate spreads 0.85 - 1 - 1.1', () => {
    expect(drive({ flash: { cell: 'slc' } }).postCache).toBeNull();
    expect(drive({ flash: { cell: 'tlc', postCacheWriteMBps: 1000 } }).postCache).toEqual({
      low: 850,
      typical: 1000,
      high: 1100
    });
  });

  it('hard disks: inner edge 0.48 of the outer, 2.5-inch above 2 TB is 15 mm', () => {
    const small = drive({ media: 'hdd', formFactor: '2.5in', capacityTB: 4, disk: { outerMBps: 100 } });
    expect(small).toMatchObject({ read: { low: 48, typical: 74, high: 100 }, thicknessMm: 15, rpm: 5400 });
    const large = drive({ media: 'hdd', formFactor: '3.5in' });
    expect(large).toMatchObject({ read: { high: 230 }, thicknessMm: 26.1, rpm: 7200 });
  });
  it('a disk that is rated to write slower than it reads does so: 120 of 250, at both edges', () => {
    // 250 x 0.48 = 120 at the inner edge; 120 / 250 = 0.48 of each for writing
    const { read, write } = drive({ media: 'hdd', formFactor: '3.5in', readMBps: 250, writeMBps: 120 });
    expect(read).toEqual({ low: 120, typical: 185, high: 250 });
    expect(write.high).toBeCloseTo(120, 9);
    expect(write.low).toBeCloseTo(57.6, 9);
    // Of a disk that states its write alone that is the rate of both.
    const alone = drive({ media: 'hdd', formFactor: '3.5in', writeMBps: 120 });
    expect([alone.read.high, alone.write.high]).toEqual([120, 120]);
  });
  it('SATA TLC without DRAM: 50 - 100 - 150 MB/s after its cache', () =>
    expect(drive({ media: 'sata-ssd', flash: { dram: false } }).postCache).toEqual({
      low: 50,
      typical: 100,
      high: 150
    }));

  it.each<[string, Partial<Drive>, boolean, boolean]>([
    // stated, else by its chips, its height code, its capacity; the last column: whether it is only supposed
    ['4 TB', { capacityTB: 4 }, true, true],
    ['2 TB', { capacityTB: 2 }, false, true],
    ['8 TB, stated', { capacityTB: 8, sides: 'single' }, false, false],
    ['2 TB with D5', { m2HeightCode: 'D5' }, true, false],
    ['4 TB with S3', { capacityTB: 4, m2HeightCode: 'S3' }, false, false],
    [
      '2 TB with a chip below',
      { components: [{ role: 'nand', side: 'bottom', xMm: 40, yMm: 4, widthMm: 14, lengthMm: 14, heightMm: 1.2 }] },
      true,
      false
    ],
    [
      '4 TB with chips above alone',
      {
        capacityTB: 4,
        components: [{ role: 'nand', side: 'top', xMm: 40, yMm: 4, widthMm: 14, lengthMm: 14, heightMm: 1.2 }]
      },
      false,
      false
    ],
    ['a 2.5-inch drive', { formFactor: '2.5in', media: 'sata-ssd', capacityTB: 8 }, false, false]
  ])('chips on both sides: %s', (_name, change, double, supposed) => {
    const filled = drive(change);
    expect([filled.doubleSided, sidesAssumed(filled.drive)]).toEqual([double, supposed]);
  });
});

describe('enclosures', () => {
  it.each<[Enclosure['modes'], { generation: number; lanes: number }]>([
    [['usb-10g'], { generation: 3, lanes: 2 }],
    [['usb-20g'], { generation: 3, lanes: 4 }],
    [['usb4-40g'], { generation: 4, lanes: 4 }],
    [['tbt3-40g'], { generation: 3, lanes: 4 }],
    [['tbt5-80g', 'usb-10g'], { generation: 4, lanes: 4 }]
  ])('%j: PCIe %j behind the bridge', (modes, pcie) => expect(enclosure({ modes }).pcie).toEqual(pcie));

  it('knows whether the generation was stated', () => {
    expect(enclosure({}).generationKnown).toBe(false);
    expect(enclosure({ downstreamPcie: { generation: 3, lanes: 2 } }).generationKnown).toBe(true);
  });

  it('takes UAS for granted unless it is denied', () => {
    expect([enclosure({}).uas, enclosure({ uas: false }).uas]).toEqual([true, false]);
  });

  it('bays: 9.5 mm and 26.1 mm', () => {
    expect(enclosure({ formFactor: '2.5in', protocols: ['sata'] })).toMatchObject({ maxThicknessMm: 9.5, sataGbps: 6 });
    expect(enclosure({ formFactor: '3.5in', protocols: ['sata'] }).maxThicknessMm).toBe(26.1);
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
  ])('%j: %d W when nothing is stated', (change, watts) =>
    expect(portPower(aPort({ powerW: undefined, ...change }))).toEqual({ watts, stated: false })
  );
  it('gives what the best-fed of its modes gives, whatever the order of the list', () => {
    const modes = [
      ['usb4-40g', 'tbt4-40g'],
      ['usb-5g', 'esata-6g'],
      ['usb2', 'usb-20g']
    ] as const;
    const given = (list: readonly LinkMode[]) => portPower(aPort({ powerW: undefined, modes: [...list] })).watts;
    for (const list of modes) expect(given([...list].reverse())).toBe(given(list));
    expect(modes.map(given)).toEqual([15, 4.5, 7.5]);
  });
  it('behind a hub without a supply a port has 4.5 W at most, unless it states more', () => {
    const hub = { modes: ['tbt4-40g' as const], via: 'bus-powered-hub' as const };
    expect(portPower(aPort({ powerW: undefined, ...hub })).watts).toBe(4.5);
    expect(portPower(aPort({ powerW: 7.5, ...hub }))).toEqual({ watts: 7.5, stated: true });
  });
  it('a stated figure holds', () => expect(portPower(aPort({ powerW: 12 }))).toEqual({ watts: 12, stated: true }));
});
