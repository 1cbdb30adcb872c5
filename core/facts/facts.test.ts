import { describe, expect, it } from 'vitest';
import type { Band } from '../quantities/band';
import { PCIE_EFFICIENCY, PCIE_LANE_MBPS, PORT_POWER_W, SATA_MBPS } from './buses';
import { FILESYSTEM_IDS, FILESYSTEMS, MBR_MAX_TB, OS_FAMILIES } from './filesystems';
import * as flash from './flash';
import { IMPLIED_MODES, LINK_MODE_IDS, LINK_MODES, PLUG_TOP_MODE, USB4_40G_BY_BRIDGE } from './link-modes';
import { COMPRESSION, STOCK_PADS_MM } from './m2';
import { chosenOption, HOUSE_RULES, type HouseRuleId } from '../house-rules/house-rules';

const inOrder = (band: Band) => band.low <= band.typical && band.typical <= band.high && band.low >= 0;

describe('link modes', () => {
  it.each(LINK_MODE_IDS)(
    '%s: bands in order, below their ceiling, the ceiling below the line rate, with a source',
    (id) => {
      const mode: {
        bulkOnly?: Band;
        read: Band;
        write: Band;
        ceiling: number;
        lineGbps: number;
        source: string;
        passiveLengthM: number;
      } = LINK_MODES[id];
      for (const band of [mode.read, mode.write, mode.bulkOnly ?? mode.read]) {
        expect(inOrder(band)).toBe(true);
        expect(band.high).toBeLessThanOrEqual(mode.ceiling);
      }
      // bytes per second cannot exceed an eighth of the bits, beside the rounding of a name (USB 2.0 is 480 Mb/s = 60 MB/s)
      expect(mode.ceiling).toBeLessThanOrEqual((mode.lineGbps * 1000) / 8);
      expect(mode.source.length).toBeGreaterThan(10);
      expect(mode.passiveLengthM).toBeGreaterThan(0);
    }
  );

  it('stand best first, so that the first common one is the best common one', () => {
    const ranks = LINK_MODE_IDS.map((id) => LINK_MODES[id].rank);
    expect(ranks).toEqual([...ranks].sort((a, b) => b - a));
  });

  it('bulk-only transport never beats UAS', () => {
    for (const id of LINK_MODE_IDS) {
      const { bulkOnly, read } = LINK_MODES[id] as {
        bulkOnly?: { low: number; typical: number; high: number };
        read: { low: number; typical: number; high: number };
      };
      if (bulkOnly)
        expect([bulkOnly.low < read.low, bulkOnly.typical < read.typical, bulkOnly.high < read.high]).toEqual([
          true,
          true,
          true
        ]);
    }
  });

  it('imply only what is no better than themselves, except where one wire carries more than its label', () => {
    for (const [role, table] of Object.entries(IMPLIED_MODES)) {
      for (const [id, implied] of Object.entries(table)) {
        for (const lower of implied) {
          expect(lower, `${role} ${id}`).not.toBe(id);
          if (role !== 'passive-cable')
            expect(LINK_MODES[lower].rank).toBeLessThanOrEqual(LINK_MODES[id as 'usb2'].rank);
        }
      }
    }
  });

  it('USB4 and Thunderbolt ports never imply 2x2', () => {
    for (const id of ['tbt5-80g', 'tbt4-40g', 'usb4-40g', 'tbt3-40g', 'usb4-20g'] as const)
      expect(IMPLIED_MODES.host[id]).not.toContain('usb-20g');
  });

  it('a bridge with PCIe 4 does no worse than one with PCIe 3', () => {
    expect(USB4_40G_BY_BRIDGE[4].band.typical).toBeGreaterThan(USB4_40G_BY_BRIDGE[3].band.typical);
    expect(USB4_40G_BY_BRIDGE[3].ceiling).toBe(3938);
  });

  it('plugs: USB-A stops at 10 Gb/s', () => expect(PLUG_TOP_MODE['usb-a']).toBe('usb-10g'));
});

describe('buses', () => {
  it('PCIe lanes double with each generation from the third on: 8 GT/s x 128/130 / 8 = 984.6 MB/s', () => {
    expect((8000 * 128) / 130 / 8).toBeCloseTo(PCIE_LANE_MBPS[3], 1);
    expect(PCIE_LANE_MBPS[4] / PCIE_LANE_MBPS[3]).toBeCloseTo(2, 2);
    expect(PCIE_LANE_MBPS[5] / PCIE_LANE_MBPS[4]).toBeCloseTo(2, 2);
    expect(PCIE_LANE_MBPS[2]).toBe((5000 * 0.8) / 8);
  });
  it('packets of 128 B with 24 B around them keep 0.842, of 256 B 0.914', () => {
    expect(128 / (128 + 24)).toBeCloseTo(PCIE_EFFICIENCY.low, 2);
    expect(256 / (256 + 24)).toBeCloseTo(PCIE_EFFICIENCY.high, 2);
  });
  it('SATA stays below its coding: 6 Gb/s 8b/10b is 600 MB/s', () => {
    for (const [gbps, band] of Object.entries(SATA_MBPS))
      expect([inOrder(band), band.high < Number(gbps) * 100]).toEqual([true, true]);
  });
  it('ports give more the more they do', () => {
    const { usb2, usb3, twoLane, thunderbolt } = PORT_POWER_W;
    expect([usb2 < usb3, usb3 < twoLane, twoLane < thunderbolt]).toEqual([true, true, true]);
  });
});

describe('flash and disks', () => {
  const bands = [
    ...Object.values(flash.CACHE_SHARE),
    ...Object.values(flash.POST_CACHE),
    ...Object.values(flash.LATENCY),
    ...Object.values(flash.FILE_COST_S),
    flash.DRAIN_SHARE,
    flash.IDLE_DRAIN_SHARE,
    flash.SMR_REWRITE
  ];
  it('every band is in order', () => expect(bands.every(inOrder)).toBe(true));
  it('shares are shares', () => {
    for (const share of [...Object.values(flash.CACHE_SHARE), flash.DRAIN_SHARE])
      expect(share.high).toBeLessThanOrEqual(1);
  });
  it('the more bits a cell holds, the slower it writes', () => {
    expect(flash.POST_CACHE.qlc.typical).toBeLessThan(flash.POST_CACHE['nvme-tlc-small'].typical);
    expect(flash.POST_CACHE['nvme-tlc-small'].typical).toBeLessThan(flash.POST_CACHE['nvme-tlc'].typical);
  });
});

describe('filesystems', () => {
  it.each(FILESYSTEM_IDS)('%s is written by someone, and no system both writes and only reads it', (id) => {
    const { writes, reads, overhead, source } = FILESYSTEMS[id];
    expect(Object.keys(writes).length).toBeGreaterThan(0);
    for (const family of Object.keys(reads)) expect(Object.keys(writes)).not.toContain(family);
    for (const family of [...Object.keys(writes), ...Object.keys(reads)]) expect(OS_FAMILIES).toContain(family);
    expect(inOrder(overhead)).toBe(true);
    expect(source).not.toBe('');
  });
  it('MBR reaches 2^32 sectors of 512 B: 2.199 TB', () => expect(MBR_MAX_TB).toBeCloseTo(2.199, 3));
});

describe('schools', () => {
  it.each(Object.keys(HOUSE_RULES) as HouseRuleId[])(
    '%s has two sides or more, and its default is one of them',
    (id) => {
      const { choices, standard, question } = HOUSE_RULES[id];
      expect(Object.keys(choices).length).toBeGreaterThan(1);
      expect(Object.keys(choices)).toContain(standard);
      expect(question).not.toBe('');
    }
  );
  it('an unknown choice falls back to the default', () => {
    expect(chosenOption('scheme', { scheme: 'nonsense' })).toBe('gpt');
    expect(chosenOption('scheme', { scheme: 'mbr' })).toBe('mbr');
    expect(chosenOption('scheme', undefined)).toBe('gpt');
  });
});

describe('pads', () => {
  it('classes of compression rise, and stock thicknesses too', () => {
    const { marginal, good, high, over } = COMPRESSION;
    expect([marginal, good, high, over]).toEqual([...[marginal, good, high, over]].sort((a, b) => a - b));
    expect([...STOCK_PADS_MM]).toEqual([...STOCK_PADS_MM].sort((a, b) => a - b));
  });
});
