import type { Job } from '#core/parts/job';
import type { PlanInput } from '#core/plan/report';
import { aCable, aDrive, aHost, anEnclosure, anInput } from '../../tests/parts.ts';

const windows = { family: 'windows', version: '11' } as const;
const mac = { family: 'macos', version: '15' } as const;
const disk = (change: object) =>
  aDrive({
    media: 'hdd',
    flash: undefined,
    pcie: undefined,
    m2LengthMm: undefined,
    m2Key: undefined,
    sides: undefined,
    ...change
  });
const encrypted: Job = {
  name: 'j',
  purposes: ['exchange'],
  transferGB: 40,
  files: 400,
  direction: 'in',
  encrypt: true
} as Job;

/** A case for 2.5 or 3.5 inches. */
const sataCase = (formFactor: '2.5in' | '3.5in', mode: 'usb-5g' | 'usb-10g') =>
  anEnclosure({
    formFactor,
    protocols: ['sata'],
    m2LengthsMm: undefined,
    m2Keys: undefined,
    modes: [mode],
    downstreamPcie: undefined
  });
/** After its cache it is slower than a 10 Gb/s link. */
const slowAfter = aDrive({
  readMBps: 3500,
  writeMBps: 3000,
  flash: { cell: 'tlc', dram: true, cacheGB: 200, cacheKind: 'fixed', postCacheWriteMBps: 600, drainMBps: 0 }
});

/** Builds that cases and made-up faults are set on: of every link, medium and system that a cause asks for. */
export const BUILDS = {
  /** 40 Gb/s, NVMe, Linux. */
  u4: anInput({ host: aHost({}, { internalDisk: { readMBps: 6000, writeMBps: 5000 } }) }),
  u4win: anInput({ host: aHost({}, { os: windows, internalDisk: { readMBps: 6000, writeMBps: 5000 } }) }),
  /** 40 Gb/s on a Mac whose cache policy is not in question. */
  t3mac: anInput({
    host: aHost({ modes: ['tbt3-40g', 'usb-10g'] }, { os: mac, internalDisk: { readMBps: 3000, writeMBps: 2500 } }),
    cable: aCable({ modes: ['tbt3-40g', 'usb-10g'] })
  }),
  /** 10 Gb/s, NVMe, Windows. */
  u10: anInput({
    host: aHost({ modes: ['usb-10g'] }, { os: windows, internalDisk: { readMBps: 3000, writeMBps: 2500 } }),
    cable: aCable({ modes: ['usb-10g'] }),
    enclosure: anEnclosure({ modes: ['usb-10g'], downstreamPcie: { generation: 3, lanes: 2 } }),
    drive: slowAfter
  }),
  /** 20 Gb/s, NVMe, Linux. */
  u20: anInput({
    host: aHost({ modes: ['usb-20g'] }),
    cable: aCable({ modes: ['usb-20g'] }),
    enclosure: anEnclosure({ modes: ['usb-20g'], downstreamPcie: { generation: 3, lanes: 4 } })
  }),
  /** SATA SSD at 10 Gb/s, Windows. */
  sata: anInput({
    host: aHost({ modes: ['usb-10g'] }, { os: windows }),
    cable: aCable({ modes: ['usb-10g'] }),
    enclosure: sataCase('2.5in', 'usb-10g'),
    drive: aDrive({
      media: 'sata-ssd',
      formFactor: '2.5in',
      pcie: undefined,
      m2LengthMm: undefined,
      m2Key: undefined,
      sides: undefined,
      readMBps: 550,
      writeMBps: 520,
      flash: { cell: 'tlc', dram: true, cacheGB: 40, cacheKind: 'fixed', postCacheWriteMBps: 420, drainMBps: 0 }
    })
  }),
  /** QLC NVMe at 10 Gb/s, Mac. */
  qlc: anInput({
    host: aHost({ modes: ['usb-10g'] }, { os: mac, internalDisk: { readMBps: 3000, writeMBps: 2500 } }),
    cable: aCable({ modes: ['usb-10g'] }),
    enclosure: anEnclosure({ modes: ['usb-10g'], downstreamPcie: { generation: 3, lanes: 2 } }),
    drive: aDrive({
      readMBps: 3500,
      writeMBps: 3000,
      flash: { cell: 'qlc', dram: false, cacheGB: 120, cacheKind: 'fixed', postCacheWriteMBps: 160, drainMBps: 0 }
    })
  }),
  /** 3.5-inch disk at 5 Gb/s, Linux. */
  hdd: anInput({
    host: aHost({ modes: ['usb-5g'] }),
    cable: aCable({ modes: ['usb-5g'] }),
    enclosure: sataCase('3.5in', 'usb-5g'),
    drive: disk({
      formFactor: '3.5in',
      capacityTB: 8,
      readMBps: 250,
      writeMBps: 240,
      disk: { rpm: 7200, recording: 'cmr' }
    })
  }),
  /** 2.5-inch shingled disk at 5 Gb/s, Windows. */
  smr: anInput({
    host: aHost({ modes: ['usb-5g'] }, { os: windows }),
    cable: aCable({ modes: ['usb-5g'] }),
    enclosure: sataCase('2.5in', 'usb-5g'),
    drive: disk({
      formFactor: '2.5in',
      capacityTB: 4,
      readMBps: 140,
      writeMBps: 130,
      disk: { rpm: 5400, recording: 'smr' }
    })
  }),
  /** 10 Gb/s, NVMe, Linux, encrypted by the system. */
  enc: anInput({
    host: aHost({ modes: ['usb-10g'] }, { internalDisk: { readMBps: 3000, writeMBps: 2500 } }),
    cable: aCable({ modes: ['usb-10g'] }),
    enclosure: anEnclosure({ modes: ['usb-10g'], downstreamPcie: { generation: 3, lanes: 2 } }),
    drive: slowAfter,
    job: encrypted
  })
} satisfies Record<string, PlanInput>;
export type BuildId = keyof typeof BUILDS;
