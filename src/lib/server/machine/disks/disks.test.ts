import { rmSync } from 'node:fs';
import { afterAll, describe, expect, it } from 'vitest';
import { attachedReportSchema, linkRemark } from '#core/format/attached';
import { recordedSystem, type RecordedDisk } from '../../../../../tests/recorded-disks';
import { SCRIPT_STEPS, simulatedDisks, soldBytes } from './simulated';
import type { DiskSource } from './source';
import { systemDisks } from './system';

const AT = '2026-11-27T10:00:00.000Z';
const usb = (speed: string, driver: string): RecordedDisk['chain'] => [
  { folder: 'pci0000:00' },
  { folder: '0000:00:14.0' },
  { folder: 'usb2', files: { speed: '20000' } },
  { folder: '2-1', files: { speed } },
  { folder: '2-1:1.0', driver },
  { folder: 'host0' },
  { folder: 'target0:0:0' },
  { folder: '0:0:0:0', driver: 'sd' }
];
const nvme: RecordedDisk['chain'] = [
  { folder: 'pci0000:00' },
  { folder: '0000:00:1d.0', files: { current_link_speed: '16.0 GT/s PCIe', current_link_width: '8' } },
  { folder: '0000:03:00.0', files: { current_link_speed: '8.0 GT/s PCIe', current_link_width: '4' }, driver: 'nvme' },
  { folder: 'nvme' },
  { folder: 'nvme0' }
];
const CHERT: RecordedDisk = {
  name: 'sda',
  number: '8:0',
  sectors: 3_907_029_168,
  chain: usb('5000', 'uas'),
  model: 'Chert_T4_2TB',
  serial: 'FH24A07733',
  transport: 'usb',
  trim: true,
  partitions: [{ name: 'sda1', number: '8:1', sectors: 3_907_027_120, filesystem: 'exfat' }]
};
const made: string[] = [];
const recorded = (...disks: RecordedDisk[]): DiskSource => {
  const root = recordedSystem(disks);
  made.push(root);
  return systemDisks(root);
};
afterAll(() => made.forEach((root) => rmSync(root, { recursive: true, force: true })));

const SIMULATED = { model: 'Chert T4 2TB', capacityTB: 2, serial: 'FH24A07733', linkGbps: 10 };

describe.each<[string, () => DiskSource]>([
  ['a recorded system', () => recorded(CHERT)],
  ['this machine', () => systemDisks()],
  ['the stand-in', () => simulatedDisks(SIMULATED, 3)],
  ['the stand-in, in the form of Windows', () => simulatedDisks(SIMULATED, 3, 'windows')],
  ['the stand-in, in the form of macOS', () => simulatedDisks(SIMULATED, 3, 'macos')]
])('%s', (_name, source) => {
  it('gives what the contract says, and says what it is', async () => {
    const report = attachedReportSchema.parse(await source().list(AT));
    expect(report.at).toBe(AT);
    // nothing at all is an answer too, with its reason
    if (report.devices.length === 0) expect(report.note).toBeDefined();
  });
  it('tells at once what there is, and ends when nobody listens', async () => {
    const stop = new AbortController();
    const first = await new Promise((resolve) => {
      void source().watch((report) => resolve(report), stop.signal);
    });
    attachedReportSchema.parse(first);
    stop.abort();
  });
});

describe('a recorded Linux', () => {
  it('3 907 029 168 sectors of 512 B, 5000 Mb/s over UAS, TRIM, exFAT on its first partition', async () => {
    const { devices, source } = await recorded(CHERT).list(AT);
    expect(source).toBe('system');
    expect(devices).toEqual([
      expect.objectContaining({
        device: '/dev/sda',
        bytes: 2_000_398_934_016,
        serial: 'FH24A07733',
        linkGbps: 5,
        transport: 'uas',
        bus: 'usb',
        external: true,
        trim: true,
        sectorBytes: 512,
        filesystem: 'exfat',
        partitioned: true
      })
    ]);
  });
  it('bulk-only, no TRIM, no serial', async () => {
    const { serial: _serial, ...without } = CHERT;
    const [disk] = (await recorded({ ...without, chain: usb('480', 'usb-storage'), trim: false }).list(AT)).devices;
    expect(disk).toMatchObject({ linkGbps: 0.48, transport: 'usb-storage', trim: false });
    expect(disk?.serial).toBeUndefined();
  });
  it('NVMe: the nearest link counts, 8 GT/s x 4 lanes = 32', async () => {
    const [disk] = (
      await recorded({ ...CHERT, name: 'nvme0n1', number: '259:0', chain: nvme, partitions: [] }).list(AT)
    ).devices;
    expect(disk).toMatchObject({ device: '/dev/nvme0n1', linkGbps: 32, lanes: 4, transport: 'nvme' });
  });
  it('loops and mapped devices are no disks', async () => {
    const odd = (name: string, number: string): RecordedDisk => ({
      name,
      number,
      sectors: 2048,
      chain: [{ folder: 'virtual' }]
    });
    const { devices } = await recorded(CHERT, odd('loop0', '7:0'), odd('dm-0', '253:0'), odd('zram0', '252:0')).list(
      AT
    );
    expect(devices.map(({ device }) => device)).toEqual(['/dev/sda']);
  });
  it('a disk that goes away while it is read is no crash, and the others are there', async () => {
    const gone: RecordedDisk = {
      ...CHERT,
      name: 'sdb',
      number: '8:16',
      partitions: [],
      without: ['size', 'dev', 'queue/logical_block_size']
    };
    const { devices } = await recorded(CHERT, gone).list(AT);
    expect(devices.map(({ device }) => device)).toContain('/dev/sda');
  });
  it('an empty system, and a folder that is none', async () => {
    for (const source of [recorded(), systemDisks('/no/such/folder')]) {
      const { devices, note } = await source.list(AT);
      expect(devices).toEqual([]);
      expect(note).toMatch(/disk/);
    }
  });
});

describe('the stand-in', () => {
  it('2 TB are sold as 97 696 368 + 1 953 504 x 1950 = 3 907 029 168 sectors', () => {
    expect(soldBytes(2)).toBe(3_907_029_168 * 512);
    expect(soldBytes(1)).toBe(1_000_204_886_016);
  });
  it('goes through its script: a slow port, the right one, a look-alike, names that move', async () => {
    const steps = await Promise.all(
      Array.from({ length: SCRIPT_STEPS }, (_, n) => simulatedDisks(SIMULATED, n).list(AT))
    );
    expect(steps.every(({ source, event }) => source === 'simulated' && event !== undefined)).toBe(true);
    const where = (n: number) => steps[n]?.devices.find(({ serial }) => serial === 'FH24A07733')?.device;
    expect([where(0), where(2), where(4)]).toEqual([undefined, '/dev/sda', '/dev/sdb']);
    expect(steps[1]?.devices.at(-1)?.linkGbps).toBe(5);
    expect(new Set(steps[3]?.devices.slice(1).map(({ bytes }) => bytes)).size).toBe(1);
    expect(steps.every(({ devices }) => devices.filter(({ systemDisk }) => systemDisk).length === 1)).toBe(true);
  });
});

describe('beside the plan', () => {
  it.each<[string, Parameters<typeof linkRemark>, string]>([
    ['10 as planned', ['usb-10g', { linkGbps: 10, transport: 'uas' }], 'as-planned'],
    ['5 instead of 10', ['usb-10g', { linkGbps: 5, transport: 'uas' }], 'slower'],
    ['bulk-only', ['usb-10g', { linkGbps: 10, transport: 'usb-storage' }], 'slower'],
    ['a tunnel shows the PCIe of the bridge', ['usb4-40g', { linkGbps: 32, transport: 'nvme' }], 'as-planned'],
    ['USB behind a port for tunnels: it fell back', ['usb4-40g', { linkGbps: 10, transport: 'uas' }], 'slower'],
    ['nothing said', ['usb-10g', {}], 'unknown'],
    ['no connection planned', [null, { linkGbps: 5 }], 'unknown']
  ])('%s', (_name, of, tone) => expect(linkRemark(...of).tone).toBe(tone));
});
