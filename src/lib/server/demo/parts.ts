import type { Job } from '#core/parts/job';
import type { KnownPair } from '#core/parts/known-pair';
import type { Model } from '#core/parts/model';

/**
 * The Fernhollow Herbarium, where pressed plants are scanned at very high resolution. An invented place with invented parts:
 * hosts after things around it, drives after rocks and soils, enclosures after fireplaces, cables after what grows at the water.
 */
const cm = (
  areaCm2: number,
  massG: number,
  kind: 'passive' | 'fan' = 'passive',
  material: 'aluminium' | 'plastic' = 'aluminium'
) => ({ kind, areaCm2, massG, material });

const chips = (controllerMm: number, nandMm: number, double = false) => [
  {
    role: 'controller' as const,
    side: 'top' as const,
    xMm: 18,
    yMm: 5,
    widthMm: 12,
    lengthMm: 13,
    heightMm: controllerMm
  },
  { role: 'nand' as const, side: 'top' as const, xMm: 50, yMm: 4, widthMm: 14, lengthMm: 18, heightMm: nandMm },
  ...(double
    ? [{ role: 'nand' as const, side: 'bottom' as const, xMm: 50, yMm: 4, widthMm: 14, lengthMm: 18, heightMm: 1.1 }]
    : [])
];

export const DEMO_MODELS: readonly Model[] = [
  {
    kind: 'host',
    name: 'Kiln',
    os: { family: 'linux', version: '6.1' },
    ports: [
      { id: 'u4', label: 'front USB4', plug: 'usb-c', modes: ['usb4-40g'], powerW: 15 },
      { id: 'c1', label: 'rear USB-C 1', plug: 'usb-c', modes: ['usb-10g'], powerW: 7.5, shares: 'rear' },
      { id: 'c2', label: 'rear USB-C 2', plug: 'usb-c', modes: ['usb-10g'], powerW: 7.5, shares: 'rear' },
      ...[1, 2, 3, 4].map((n) => ({
        id: `a${n}`,
        label: `USB-A ${n}`,
        plug: 'usb-a' as const,
        modes: ['usb-5g' as const],
        powerW: 4.5,
        shares: 'hub'
      }))
    ],
    shared: [
      { id: 'rear', label: 'the rear controller', MBps: 1100 },
      { id: 'hub', label: 'the hub of the USB-A ports', MBps: 450, powerW: 10 }
    ],
    internalDisk: { readMBps: 6800, writeMBps: 5200, cacheGB: 180, postCacheWriteMBps: 1600, freeGB: 900 }
  },
  {
    kind: 'host',
    name: 'Moss',
    os: { family: 'macos', version: '14.5' },
    ports: [1, 2, 3].map((n) => ({
      id: `t${n}`,
      label: `Thunderbolt 4, ${['left front', 'left rear', 'right'][n - 1]}`,
      plug: 'usb-c' as const,
      modes: ['tbt4-40g' as const],
      powerW: 15
    })),
    internalDisk: { readMBps: 5200, writeMBps: 4600, freeGB: 310 }
  },
  {
    kind: 'host',
    name: 'Drift',
    os: { family: 'windows', version: '11' },
    ports: [
      { id: 'c1', label: 'USB-C', plug: 'usb-c', modes: ['usb-10g'], powerW: 7.5 },
      { id: 'a1', label: 'USB-A', plug: 'usb-a', modes: ['usb-5g'], powerW: 4.5 }
    ],
    internalDisk: { readMBps: 3100, writeMBps: 2400, cacheGB: 60, postCacheWriteMBps: 700, freeGB: 120 }
  },
  {
    kind: 'host',
    name: 'Lantern',
    os: { family: 'macos', version: '15.1' },
    ports: [1, 2, 3].map((n) => ({
      id: `t${n}`,
      label: `Thunderbolt 5, rear ${n}`,
      plug: 'usb-c' as const,
      modes: ['tbt5-80g' as const],
      powerW: 15
    })),
    internalDisk: { readMBps: 7300, writeMBps: 6900, freeGB: 1500 }
  },
  {
    kind: 'host',
    name: 'Vasculum',
    os: { family: 'ipados', version: '17' },
    ports: [{ id: 'c1', label: 'USB-C', plug: 'usb-c', modes: ['usb-10g'], powerW: 4.5 }]
  },
  {
    kind: 'host',
    name: 'Hedgerow',
    os: { family: 'windows', version: '10' },
    ports: [
      { id: 'a1', label: 'USB-A, rear', plug: 'usb-a', modes: ['usb-5g'], powerW: 4.5 },
      { id: 'e1', label: 'eSATA, rear', plug: 'esata', modes: ['esata-3g'] }
    ],
    internalDisk: { readMBps: 520, writeMBps: 480 }
  },
  {
    kind: 'host',
    name: 'Field camera',
    os: { family: 'camera' },
    ports: [{ id: 'c1', label: 'USB-C', plug: 'usb-c', modes: ['usb-5g'], powerW: 4.5 }]
  },

  {
    kind: 'drive',
    name: 'Marl Q4 4TB',
    media: 'nvme',
    formFactor: 'm2',
    m2LengthMm: 80,
    m2Key: 'M',
    capacityTB: 4,
    pcie: { generation: 4, lanes: 4 },
    readMBps: 5000,
    writeMBps: 4200,
    flash: { cell: 'qlc', dram: false, cacheGB: 900, cacheKind: 'dynamic', postCacheWriteMBps: 240 },
    sides: 'single',
    label: 'paper',
    enduranceTBW: 900,
    warrantyYears: 5
  },
  {
    kind: 'drive',
    name: 'Chert T4 2TB',
    media: 'nvme',
    formFactor: 'm2',
    m2LengthMm: 80,
    m2Key: 'M',
    capacityTB: 2,
    pcie: { generation: 4, lanes: 4 },
    readMBps: 7000,
    writeMBps: 6500,
    flash: { cell: 'tlc', dram: true, cacheGB: 210, cacheKind: 'dynamic', postCacheWriteMBps: 1500 },
    sides: 'single',
    components: chips(1.2, 1.2),
    label: 'metal',
    enduranceTBW: 1200,
    warrantyYears: 5
  },
  {
    kind: 'drive',
    name: 'Chert T4 4TB',
    media: 'nvme',
    formFactor: 'm2',
    m2LengthMm: 80,
    m2Key: 'M',
    capacityTB: 4,
    pcie: { generation: 4, lanes: 4 },
    readMBps: 7000,
    writeMBps: 6600,
    flash: { cell: 'tlc', dram: true, cacheGB: 420, cacheKind: 'dynamic', postCacheWriteMBps: 1900 },
    sides: 'double',
    components: chips(1.2, 1.2, true),
    label: 'metal',
    enduranceTBW: 2400,
    warrantyYears: 5
  },
  {
    kind: 'drive',
    name: 'Loam S6 1TB',
    media: 'sata-ssd',
    formFactor: '2.5in',
    thicknessMm: 7,
    capacityTB: 1,
    sataGbps: 6,
    readMBps: 560,
    writeMBps: 530,
    flash: { cell: 'tlc', dram: true, cacheGB: 40, cacheKind: 'dynamic', postCacheWriteMBps: 430 },
    enduranceTBW: 600,
    warrantyYears: 5,
    fillFraction: 0.55
  },
  {
    kind: 'drive',
    name: 'Silt M2S 500GB',
    media: 'sata-ssd',
    formFactor: 'm2',
    m2LengthMm: 80,
    m2Key: 'B+M',
    capacityTB: 0.5,
    sataGbps: 6,
    readMBps: 540,
    writeMBps: 500,
    flash: { cell: 'tlc', dram: false },
    sides: 'single',
    enduranceTBW: 200,
    warrantyYears: 3
  },
  {
    kind: 'drive',
    name: 'Skarn T5 2TB',
    media: 'nvme',
    formFactor: 'm2',
    m2LengthMm: 80,
    m2Key: 'M',
    capacityTB: 2,
    pcie: { generation: 5, lanes: 4 },
    readMBps: 12400,
    writeMBps: 11800,
    flash: { cell: 'tlc', dram: true, cacheGB: 240, cacheKind: 'dynamic', postCacheWriteMBps: 2300 },
    sides: 'single',
    components: chips(1.3, 1.2),
    power: { idleW: 1.9, peakW: 11.5 },
    enduranceTBW: 1400,
    warrantyYears: 5
  },
  {
    kind: 'drive',
    name: 'Gneiss H 8TB',
    media: 'hdd',
    formFactor: '3.5in',
    thicknessMm: 26.1,
    capacityTB: 8,
    sataGbps: 6,
    disk: { rpm: 7200, recording: 'cmr', outerMBps: 246, innerMBps: 118 },
    warrantyYears: 5,
    fillFraction: 0.4
  },
  {
    kind: 'drive',
    name: 'Shale H 4TB',
    media: 'hdd',
    formFactor: '2.5in',
    thicknessMm: 15,
    capacityTB: 4,
    sataGbps: 6,
    disk: { rpm: 5400, recording: 'smr', outerMBps: 138, innerMBps: 64 },
    warrantyYears: 2
  },

  {
    kind: 'enclosure',
    name: 'Grate 10',
    formFactor: 'm2',
    protocols: ['nvme'],
    m2LengthsMm: [42, 60, 80],
    m2Keys: ['M', 'B+M'],
    bridge: 'G10 board',
    modes: ['usb-10g'],
    plug: 'usb-c',
    downstreamPcie: { generation: 3, lanes: 2 },
    uas: true,
    trim: true,
    cooling: cm(95, 60),
    clearanceTopMm: 2.2,
    takesDoubleSided: false,
    retention: 'tray',
    opening: 'none',
    directionMark: true,
    bridgePowerW: 1.1
  },
  {
    kind: 'enclosure',
    name: 'Scuttle 20',
    formFactor: 'm2',
    protocols: ['nvme'],
    m2LengthsMm: [80],
    m2Keys: ['M'],
    bridge: 'S22 board',
    modes: ['usb-20g'],
    plug: 'usb-c',
    downstreamPcie: { generation: 3, lanes: 4 },
    uas: true,
    trim: true,
    cooling: cm(130, 110),
    clearanceTopMm: 2.4,
    takesDoubleSided: true,
    clearanceBottomMm: 1.5,
    retention: 'screw-from-below',
    opening: 'slide',
    directionMark: false,
    bridgePowerW: 1.3
  },
  {
    kind: 'enclosure',
    name: 'Trivet 40',
    formFactor: 'm2',
    protocols: ['nvme'],
    m2LengthsMm: [80],
    m2Keys: ['M'],
    bridge: 'T40 board',
    modes: ['usb4-40g', 'tbt3-40g', 'usb-10g'],
    plug: 'usb-c',
    downstreamPcie: { generation: 4, lanes: 4 },
    uas: true,
    trim: true,
    cooling: cm(210, 190),
    clearanceTopMm: 2.0,
    takesDoubleSided: false,
    retention: 'screw',
    opening: 'screws',
    screws: { head: 'cross', count: 4 },
    directionMark: false,
    bridgePowerW: 2.2,
    includedPads: [
      { kind: 'pad', name: 'pad in the box', thicknessMm: 1, widthMm: 20, lengthMm: 70, conductivityWmK: 4 }
    ]
  },
  {
    kind: 'enclosure',
    name: 'Bellows 40',
    formFactor: 'm2',
    protocols: ['nvme'],
    m2LengthsMm: [60, 80, 110],
    m2Keys: ['M'],
    bridge: 'T40 board',
    modes: ['usb4-40g', 'tbt3-40g', 'usb-10g'],
    plug: 'usb-c',
    downstreamPcie: { generation: 4, lanes: 4 },
    uas: true,
    trim: true,
    cooling: cm(160, 150, 'fan'),
    clearanceTopMm: 2.7,
    clearanceBottomMm: 1.8,
    takesDoubleSided: true,
    retention: 'turning',
    opening: 'screws',
    screws: { head: 'star', count: 4 },
    directionMark: true,
    bridgePowerW: 2.2
  },
  {
    kind: 'enclosure',
    name: 'Flue 80',
    formFactor: 'm2',
    protocols: ['nvme'],
    m2LengthsMm: [80],
    m2Keys: ['M'],
    bridge: 'F80 board',
    modes: ['tbt5-80g', 'usb4-40g', 'usb-10g'],
    plug: 'usb-c',
    downstreamPcie: { generation: 4, lanes: 4 },
    uas: true,
    trim: true,
    cooling: cm(240, 260, 'fan'),
    externalSupply: true,
    clearanceTopMm: 2.7,
    clearanceBottomMm: 1.8,
    takesDoubleSided: true,
    retention: 'screw',
    bridgePowerW: 3
  },
  {
    kind: 'enclosure',
    name: 'Cinderbox T3',
    formFactor: 'm2',
    protocols: ['nvme'],
    m2LengthsMm: [80],
    m2Keys: ['M'],
    bridge: 'C3 board',
    modes: ['tbt3-40g'],
    plug: 'usb-c',
    downstreamPcie: { generation: 3, lanes: 4 },
    cooling: cm(170, 180),
    clearanceTopMm: 2.1,
    takesDoubleSided: true,
    retention: 'screw',
    opening: 'clips',
    bridgePowerW: 2.6
  },
  {
    kind: 'enclosure',
    name: 'Brazier S',
    formFactor: '2.5in',
    protocols: ['sata'],
    maxThicknessMm: 9.5,
    bridge: 'B5 board',
    modes: ['usb-5g'],
    plug: 'usb-c',
    downstreamSataGbps: 6,
    uas: true,
    trim: false,
    cooling: cm(120, 55, 'passive', 'plastic'),
    retention: 'tool-less',
    opening: 'slide',
    directionMark: true
  },
  {
    kind: 'enclosure',
    name: 'Firedog Dock',
    formFactor: '3.5in',
    protocols: ['sata'],
    maxThicknessMm: 27,
    maxCapacityTB: 16,
    bridge: 'D10 board',
    modes: ['usb-10g'],
    plug: 'usb-b',
    downstreamSataGbps: 6,
    uas: true,
    externalSupply: true,
    retention: 'tool-less',
    opening: 'none'
  },
  {
    kind: 'enclosure',
    name: 'Hob Dual',
    formFactor: 'm2',
    protocols: ['nvme', 'sata'],
    m2LengthsMm: [42, 60, 80],
    m2Keys: ['M', 'B+M'],
    bridge: 'H10 board',
    modes: ['usb-10g'],
    plug: 'usb-c',
    downstreamPcie: { generation: 3, lanes: 2 },
    downstreamSataGbps: 6,
    uas: true,
    trim: true,
    cooling: cm(90, 55),
    clearanceTopMm: 2.2,
    takesDoubleSided: false,
    retention: 'rubber',
    opening: 'slide',
    directionMark: true,
    bridgePowerW: 1.2
  },
  {
    kind: 'enclosure',
    name: 'Ingle P',
    formFactor: 'm2',
    protocols: ['nvme'],
    m2LengthsMm: [80],
    m2Keys: ['M'],
    bridge: 'G10 board',
    modes: ['usb-10g'],
    plug: 'usb-c',
    downstreamPcie: { generation: 3, lanes: 2 },
    uas: true,
    trim: true,
    cooling: cm(120, 45, 'passive', 'plastic'),
    clearanceTopMm: 2.0,
    takesDoubleSided: false,
    retention: 'tool-less',
    bridgePowerW: 1.1,
    includedPads: [
      { kind: 'pad', name: 'thin pad in the box', thicknessMm: 0.5, widthMm: 15, lengthMm: 60, conductivityWmK: 2 }
    ]
  },
  {
    kind: 'enclosure',
    name: 'Bracken E',
    formFactor: '2.5in',
    protocols: ['sata'],
    maxThicknessMm: 15,
    maxCapacityTB: 2,
    bridge: 'E5 board',
    modes: ['esata-3g', 'usb-5g'],
    plug: 'esata',
    morePlugs: ['micro-b'],
    downstreamSataGbps: 3,
    uas: false,
    trim: false,
    externalSupply: false,
    retention: 'screw',
    opening: 'screws',
    screws: { head: 'cross', count: 2 }
  },

  {
    kind: 'cable',
    name: 'Osier 0.8 80G',
    ends: ['usb-c', 'usb-c'],
    lengthM: 0.8,
    modes: ['tbt5-80g'],
    certified: true
  },
  {
    kind: 'cable',
    name: 'Withy 0.8 40G',
    ends: ['usb-c', 'usb-c'],
    lengthM: 0.8,
    modes: ['usb4-40g'],
    certified: true
  },
  { kind: 'cable', name: 'Withy 2.0 20G', ends: ['usb-c', 'usb-c'], lengthM: 2, modes: ['usb4-20g'] },
  {
    kind: 'cable',
    name: 'Rush C-C 10G',
    ends: ['usb-c', 'usb-c'],
    lengthM: 0.5,
    modes: ['usb-10g'],
    certified: true
  },
  { kind: 'cable', name: 'Rush A-C 5G', ends: ['usb-a', 'usb-c'], lengthM: 1, modes: ['usb-5g'] },
  { kind: 'cable', name: 'Rush A-B 5G', ends: ['usb-a', 'usb-b'], lengthM: 1.5, modes: ['usb-5g'] },
  { kind: 'cable', name: 'Sedge charge-only', ends: ['usb-c', 'usb-c'], lengthM: 2, modes: ['usb2'] },
  { kind: 'cable', name: 'Reed eSATA', ends: ['esata', 'esata'], lengthM: 1, modes: ['esata-6g'] },

  {
    kind: 'pad',
    name: 'Felt 0.5',
    thicknessMm: 0.5,
    widthMm: 100,
    lengthMm: 100,
    conductivityWmK: 3,
    shore00: 40,
    quantity: 2
  },
  {
    kind: 'pad',
    name: 'Felt 1.0',
    thicknessMm: 1,
    widthMm: 100,
    lengthMm: 100,
    conductivityWmK: 3,
    shore00: 40,
    quantity: 3
  },
  {
    kind: 'pad',
    name: 'Felt 1.5',
    thicknessMm: 1.5,
    widthMm: 100,
    lengthMm: 100,
    conductivityWmK: 3,
    shore00: 40,
    quantity: 1
  },
  {
    kind: 'pad',
    name: 'Felt 2.0',
    thicknessMm: 2,
    widthMm: 100,
    lengthMm: 100,
    conductivityWmK: 3,
    shore00: 40,
    quantity: 1
  },
  {
    kind: 'pad',
    name: 'Felt HC 1.0',
    thicknessMm: 1,
    widthMm: 50,
    lengthMm: 50,
    conductivityWmK: 8,
    shore00: 55,
    quantity: 1
  },

  {
    kind: 'alternative',
    name: 'Moss with the larger disk',
    sort: 'internal-upgrade',
    capacityTB: 2,
    baseCapacityTB: 0.5,
    readMBps: 5200,
    writeMBps: 4600
  },
  { kind: 'alternative', name: 'Pebble portable 2TB', sort: 'portable', capacityTB: 2, readMBps: 1000, writeMBps: 950 },
  { kind: 'alternative', name: 'Basalt desk disk 8TB', sort: 'other', capacityTB: 8, readMBps: 215, writeMBps: 210 },
  { kind: 'alternative', name: 'Flint stick 1TB', sort: 'flash-stick', capacityTB: 1, readMBps: 400, writeMBps: 180 },
  {
    kind: 'alternative',
    name: 'Mica card 512GB',
    sort: 'memory-card',
    capacityTB: 0.512,
    readMBps: 190,
    writeMBps: 130
  }
];

const MAC = { family: 'macos' as const };
const WINDOWS = { family: 'windows' as const };
const LINUX = { family: 'linux' as const, version: '6.1' };

export const DEMO_JOBS: readonly Job[] = [
  {
    name: 'Scan day',
    purposes: ['exchange'],
    transferGB: 420,
    files: 4600,
    largestFileGB: 9,
    direction: 'in',
    perDay: 1,
    writeHosts: [LINUX],
    readHosts: [MAC, WINDOWS],
    carried: true,
    minSustainedWriteMBps: 800
  },
  {
    name: 'Field mirror',
    purposes: ['exchange', 'backup'],
    transferGB: 60,
    files: 180_000,
    largestFileGB: 0.4,
    direction: 'both',
    perDay: 1,
    writeHosts: [WINDOWS, MAC],
    readHosts: [WINDOWS, MAC],
    carried: true
  },
  {
    name: 'Specimen archive',
    purposes: ['archive'],
    transferGB: 4000,
    files: 42_000,
    largestFileGB: 9,
    direction: 'in',
    writeHosts: [WINDOWS],
    readHosts: [WINDOWS]
  },
  {
    name: 'Bootable spare',
    purposes: ['boot', 'backup'],
    transferGB: 690,
    files: 900_000,
    largestFileGB: 24,
    direction: 'in',
    writeHosts: [MAC],
    readHosts: [MAC]
  },
  {
    name: 'Label photos',
    purposes: ['exchange', 'camera'],
    transferGB: 64,
    files: 3200,
    largestFileGB: 0.05,
    direction: 'in',
    perDay: 0.2,
    writeHosts: [{ family: 'ipados' }, { family: 'camera' }],
    readHosts: [MAC, WINDOWS]
  }
];

/** Invented list prices in EUR; two vendors, several days of the year. */
export const DEMO_PRICES: Readonly<Record<string, number>> = {
  'Marl Q4 4TB': 219,
  'Chert T4 2TB': 139,
  'Chert T4 4TB': 269,
  'Loam S6 1TB': 64,
  'Silt M2S 500GB': 38,
  'Skarn T5 2TB': 229,
  'Gneiss H 8TB': 178,
  'Shale H 4TB': 99,
  'Grate 10': 22,
  'Scuttle 20': 48,
  'Trivet 40': 84,
  'Bellows 40': 96,
  'Flue 80': 219,
  'Cinderbox T3': 69,
  'Brazier S': 11,
  'Firedog Dock': 39,
  'Hob Dual': 27,
  'Bracken E': 19,
  'Osier 0.8 80G': 34,
  'Withy 0.8 40G': 24,
  'Withy 2.0 20G': 19,
  'Rush C-C 10G': 9,
  'Rush A-C 5G': 6,
  'Reed eSATA': 7,
  'Moss with the larger disk': 460,
  'Pebble portable 2TB': 189,
  'Basalt desk disk 8TB': 169,
  'Flint stick 1TB': 84,
  'Mica card 512GB': 58
};

/** What was found out about drives behind bridges. */
export const DEMO_PAIRS: readonly (Omit<KnownPair, 'driveId' | 'drive'> & { drive: string })[] = [
  {
    drive: 'Skarn T5 2TB',
    bridge: 'S22 board',
    verdict: 'bad',
    reason: 'drops out after about 200 GB written in one go',
    source: 'own soak in May, twice',
    date: '2026-05-19'
  },
  {
    drive: 'Chert T4 2TB',
    bridge: 'T40 board',
    verdict: 'good',
    reason: 'scan days since February without an error',
    source: 'scanning desk',
    date: '2026-10-02'
  }
];

/** Prices at which the desk would buy, landed, in EUR. */
export const DEMO_TARGETS: Readonly<Record<string, number>> = {
  'Marl Q4 4TB': 200,
  'Flue 80': 205,
  'Gneiss H 8TB': 175
};
