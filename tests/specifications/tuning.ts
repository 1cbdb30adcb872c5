import type { JudgedText } from './text.ts';

/** Texts to tune the reader on. What is found wrong in use belongs here, as a case that stays. */
export const TUNING: readonly JudgedText[] = [
  {
    name: 'a plain box',
    kind: 'drive',
    text: `Schist T3 1TB
M.2 NVMe SSD 2280
PCIe 3.0 x4
Read 3400 MB/s
Write 2900 MB/s
TBW 600 TB
3 year warranty`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      'pcie.generation': 3,
      'pcie.lanes': 4,
      capacityTB: 1,
      readMBps: 3400,
      writeMBps: 2900,
      enduranceTBW: 600,
      warrantyYears: 3
    }
  },
  {
    name: 'read and write in one line',
    kind: 'drive',
    text: `Onyx R5 4TB NVMe
Interface PCIe Gen5 x4
Sequential read/write: 14,000 / 12,000 MB/s
Random 4K read/write: 2,000K / 1,900K IOPS
DRAM 4 GB LPDDR4
3D TLC NAND, M.2 2280 double-sided
3,000 TBW, 5 years limited warranty`,
    stated: {
      media: 'nvme',
      'pcie.generation': 5,
      'pcie.lanes': 4,
      readMBps: 14000,
      writeMBps: 12000,
      'flash.dram': true,
      'flash.cell': 'tlc',
      formFactor: 'm2',
      m2LengthMm: 80,
      sides: 'double',
      capacityTB: 4,
      enduranceTBW: 3000,
      warrantyYears: 5
    }
  },
  {
    name: 'two capacities in two places',
    kind: 'drive',
    text: `Slate S 500 GB SATA SSD 2.5"
Capacity: 1 TB
Interface: SATA 6 Gb/s
Max sequential read: 550 MB/s
Max sequential write: 520 MB/s
Height: 7 mm`,
    stated: {
      media: 'sata-ssd',
      formFactor: '2.5in',
      sataGbps: 6,
      readMBps: 550,
      writeMBps: 520,
      thicknessMm: 7
    },
    asked: { capacityTB: [0.5, 1] }
  },
  {
    name: 'a laptop disk',
    kind: 'drive',
    text: `Pumice 2.5-inch HDD, 2TB, 5400 RPM, SATA 6Gb/s, 128MB cache, SMR, 7mm, 2-year limited warranty`,
    stated: {
      media: 'hdd',
      formFactor: '2.5in',
      capacityTB: 2,
      'disk.rpm': 5400,
      sataGbps: 6,
      'disk.recording': 'smr',
      thicknessMm: 7,
      warrantyYears: 2
    }
  },
  {
    name: 'rates that could be bits',
    kind: 'drive',
    text: `Karst 1 TB NVMe M.2 2230
PCIe 4.0 x4
Read speed 5000 Mb/s
Write speed 4000 MB/s
QLC
Endurance 300 TBW`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 30,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      capacityTB: 1,
      writeMBps: 4000,
      'flash.cell': 'qlc',
      enduranceTBW: 300
    },
    asked: { readMBps: [5000, 625] }
  },
  {
    name: 'an enclosure card',
    kind: 'enclosure',
    text: `Fender 10
M.2 NVMe enclosure, USB 3.2 Gen 2 (10 Gb/s)
Connector: USB-C
Bridge chip: Mullion M10
SSD size: 2280, 2260, 2242, 2230
SSD key: M-key, B+M-key
UASP: yes / TRIM: yes
Aluminium + silicone sleeve
Package: enclosure, USB-C to USB-C cable 30 cm, USB-C to USB-A cable 30 cm, 2 thermal pads`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      modes: ['usb-10g'],
      plug: 'usb-c',
      bridge: 'Mullion M10',
      m2LengthsMm: [30, 42, 60, 80],
      m2Keys: ['M', 'B+M'],
      uas: true,
      trim: true,
      'cooling.material': 'aluminium',
      includedCables: [
        { ends: ['usb-c', 'usb-c'], lengthM: 0.3 },
        { ends: ['usb-c', 'usb-a'], lengthM: 0.3 }
      ]
    }
  },
  {
    name: 'USB4 with a Gen code',
    kind: 'enclosure',
    text: `Bellpull 40 SSD case
USB4 Gen 3x2, 40Gbps
For M.2 2280 PCIe NVMe (M key). SATA M.2 is not supported.
Active fan, 6000 rpm
Material: aluminum alloy
Up to 8 TB
Thermal pads: 1 x 1.0 mm, 1 x 0.5 mm
Weight 145g`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      modes: ['usb4-40g'],
      m2LengthsMm: [80],
      m2Keys: ['M'],
      'cooling.kind': 'fan',
      'cooling.material': 'aluminium',
      maxCapacityTB: 8,
      includedPads: [{ thicknessMm: 1 }, { thicknessMm: 0.5 }],
      weightG: 145
    }
  },
  {
    name: 'USB 3.1 and no more',
    kind: 'enclosure',
    text: `Spark M.2 SATA enclosure
USB 3.1 Type-C
supports 2230/2242/2260/2280 NGFF SATA SSD, B key and B+M key
not compatible with NVMe
ABS plastic, screw fixing`,
    stated: {
      formFactor: 'm2',
      protocols: ['sata'],
      plug: 'usb-c',
      m2LengthsMm: [30, 42, 60, 80],
      m2Keys: ['B', 'B+M'],
      'cooling.material': 'plastic',
      retention: 'screw'
    },
    asked: { modes: [['usb-5g'], ['usb-10g']] }
  },
  {
    name: 'ten in the title, twenty in the table',
    kind: 'enclosure',
    text: `Ember Case USB-C 10Gbps NVMe
Interface: USB 3.2 Gen 2x2
Size: 2280
Cooling: passive, aluminium
Tool-free`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      plug: 'usb-c',
      m2LengthsMm: [80],
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      retention: 'tool-less'
    },
    asked: { modes: [['usb-10g'], ['usb-20g']] }
  },
  {
    name: 'ten gigabytes',
    kind: 'enclosure',
    text: `Poker 10 enclosure for M.2 NVMe SSD
Up to 10GB/s over USB-C
2242 and 2280, tool-less
passive cooling`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      plug: 'usb-c',
      m2LengthsMm: [42, 80],
      retention: 'tool-less',
      'cooling.kind': 'passive'
    },
    asked: { modes: [['usb-10g']] }
  },
  {
    name: 'a 2.5-inch case with an old plug',
    kind: 'enclosure',
    text: `Damper 25: USB 3.0 enclosure for 2.5 inch SATA drives (7/9.5 mm), Micro-B port, UASP, tool free, 2.5" SSD and HDD up to 6TB, plastic`,
    stated: {
      formFactor: '2.5in',
      protocols: ['sata'],
      modes: ['usb-5g'],
      maxThicknessMm: 9.5,
      plug: 'micro-b',
      uas: true,
      retention: 'tool-less',
      maxCapacityTB: 6,
      'cooling.material': 'plastic'
    }
  },
  {
    name: 'a dock with eSATA',
    kind: 'enclosure',
    text: `Lintel Dock
3.5" SATA HDD docking station
Ports: USB 3.2 Gen 2 Type-C 10Gbps
12V/3A power supply included
Supports HDDs up to 24TB
SATA III 6Gb/s
with fan`,
    stated: {
      formFactor: '3.5in',
      protocols: ['sata'],
      modes: ['usb-10g'],
      plug: 'usb-c',
      externalSupply: true,
      maxCapacityTB: 24,
      downstreamSataGbps: 6,
      'cooling.kind': 'fan'
    }
  },
  {
    name: 'a Thunderbolt 3 case',
    kind: 'enclosure',
    text: `Tinder T3. Thunderbolt 3 only, 40 Gb/s. NVMe M.2 2280, M-key. Does not work on USB ports. Captive cable. Passive aluminium case, 210 g.`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      modes: ['tbt3-40g'],
      m2LengthsMm: [80],
      m2Keys: ['M'],
      captiveCable: true,
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      weightG: 210
    }
  },
  {
    name: 'a cable with Gen 2x2',
    kind: 'cable',
    text: `Reedmace cable USB-C male to USB-C male 1m USB 3.2 Gen 2x2 20Gbps 100W 4K`,
    stated: { ends: ['usb-c', 'usb-c'], lengthM: 1, modes: ['usb-20g'] }
  },
  {
    name: 'a cable with two rates',
    kind: 'cable',
    text: `USB A to C data cable
3 ft
5Gbps
Description: super fast 10 Gbps transfer for SSD`,
    stated: { ends: ['usb-a', 'usb-c'], lengthM: 0.9144 },
    asked: { modes: [['usb-5g'], ['usb-10g']] }
  },
  {
    name: 'a pad pack',
    kind: 'pad',
    text: `Silicone thermal pad, pack of 4
Dimensions: 80 x 40 mm
Thickness: 1 mm
k = 3.2 W/mK
Shore 00: 50`,
    stated: { widthMm: 80, lengthMm: 40, thicknessMm: 1, conductivityWmK: 3.2, shore00: 50, quantity: 4 }
  },
  {
    name: 'a tall drive with a heatsink',
    kind: 'drive',
    text: `Flint HS 2TB PCIe 4.0x4 NVMe M.2 2280 with heatsink
Seq Read up to 7300MB/s
Seq Write up to 6.9 GB/s
Sustained write after cache: 1,600 MB/s
SLC cache: 220 GB dynamic
Heatsink height: 11.3 mm
Idle power 35 mW, max 8.2W`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      capacityTB: 2,
      readMBps: 7300,
      writeMBps: 6900,
      'flash.postCacheWriteMBps': 1600,
      'flash.cacheGB': 220,
      'flash.cacheKind': 'dynamic',
      heatsinkMm: 11.3,
      'power.idleW': 0.035,
      'power.peakW': 8.2
    }
  },
  {
    name: 'a stick',
    kind: 'alternative',
    text: `Twig flash stick 256 GB, USB 3.2 Gen 1, read up to 400 MB/s, write up to 200 MB/s`,
    stated: { sort: 'flash-stick', capacityTB: 0.256, readMBps: 400, writeMBps: 200 }
  },
  {
    name: 'a desktop',
    kind: 'host',
    text: `Bramble desktop PC
OS: Linux, kernel 6.8
Front: 1x USB-C 10Gbps, 2x USB-A 5Gbps
Rear: 1x USB4 40Gbps (USB-C), 4x USB 2.0 (USB-A)`,
    stated: {
      'os.family': 'linux',
      'os.version': '6.8',
      ports: [
        { plug: 'usb-c', modes: ['usb-10g'] },
        { plug: 'usb-a', modes: ['usb-5g'] },
        { plug: 'usb-a', modes: ['usb-5g'] },
        { plug: 'usb-c', modes: ['usb4-40g'] },
        { plug: 'usb-a', modes: ['usb2'] },
        { plug: 'usb-a', modes: ['usb2'] },
        { plug: 'usb-a', modes: ['usb2'] },
        { plug: 'usb-a', modes: ['usb2'] }
      ]
    }
  },
  {
    name: 'a drive that says SATA and NVMe',
    kind: 'drive',
    text: `Breccia M2 512GB
M.2 2280 SATA SSD
Type: NVMe
Read 540 MB/s
Write 480 MB/s
Key: B+M`,
    stated: { formFactor: 'm2', m2LengthMm: 80, capacityTB: 0.512, readMBps: 540, writeMBps: 480, m2Key: 'B+M' },
    asked: { media: ['nvme', 'sata-ssd'] }
  },
  {
    name: 'dotted leaders for a disk',
    kind: 'drive',
    text: `Shingle Bay 16TB
Type ................ 3.5-inch internal hard drive
Interface ........... SATA 6.0 Gb/s
Rotational speed .... 7200 RPM
Recording ........... CMR
Max. data rate ...... 260 MB/s
Power (idle) ........ 4.9 W
Power (operating) ... 6.8 W
Limited warranty .... 5 years
Load cycles ......... 600,000`,
    stated: {
      media: 'hdd',
      formFactor: '3.5in',
      capacityTB: 16,
      sataGbps: 6,
      'disk.rpm': 7200,
      'disk.recording': 'cmr',
      'disk.outerMBps': 260,
      'power.idleW': 4.9,
      'power.activeW': 6.8,
      warrantyYears: 5
    }
  },
  {
    name: 'prose about a case, wrapped',
    kind: 'enclosure',
    text: `The Hearth Slim is an external enclosure for one M.2 SSD of the NVMe kind. It connects through a USB-C socket with
USB 3.2 Gen 2, that is 10 Gbit/s, and accepts modules of 42, 60 or 80 mm length (2242, 2260, 2280) with an M key. The
body is made of aluminium without a fan, weighs 92 grams and closes without tools. A USB-C cable of 25 cm comes with
it.`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      plug: 'usb-c',
      modes: ['usb-10g'],
      m2LengthsMm: [42, 60, 80],
      m2Keys: ['M'],
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      weightG: 92,
      includedCables: [{ lengthM: 0.25 }]
    }
  },
  {
    name: 'capitals on a sticker',
    kind: 'drive',
    text: `TRAVERTINE N3
CAPACITY 500GB
NVME M.2 2280 PCIE GEN3X4
READ UP TO 2,400MB/S
WRITE UP TO 1,750MB/S
TLC NAND
TBW: 300
WARRANTY 3 YEARS`,
    stated: {
      capacityTB: 0.5,
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      'pcie.generation': 3,
      'pcie.lanes': 4,
      readMBps: 2400,
      writeMBps: 1750,
      'flash.cell': 'tlc',
      enduranceTBW: 300,
      warrantyYears: 3
    }
  },
  {
    name: 'a page of pairs in columns',
    kind: 'drive',
    text: `Feldspar Pro 8 TB
Formfaktor    M.2 2280
Bus    PCIe 4.0 x4 (NVMe)
Lesen    7000 MB/s
Schreiben    6600 MB/s
Garantie    5 Jahre
TBW    4800 TB
Speicher    QLC`,
    stated: {
      capacityTB: 8,
      formFactor: 'm2',
      m2LengthMm: 80,
      media: 'nvme',
      'pcie.generation': 4,
      'pcie.lanes': 4,
      readMBps: 7000,
      writeMBps: 6600,
      warrantyYears: 5,
      enduranceTBW: 4800,
      'flash.cell': 'qlc'
    }
  },
  {
    name: 'USB4 with its fallbacks',
    kind: 'enclosure',
    text: `Stovepipe U4 NVMe SSD enclosure
USB4 40Gbps, compatible with Thunderbolt 3 and Thunderbolt 4, falls back to USB 3.2 Gen 2
M.2 2230 / 2280, M key
With fan, aluminium alloy, 260 g
Max. 8 TB
In the box: USB4 cable 0.3 m, thermal pad 1.5 mm`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      modes: ['usb4-40g', 'tbt3-40g', 'tbt4-40g', 'usb-10g'],
      m2LengthsMm: [30, 80],
      m2Keys: ['M'],
      'cooling.kind': 'fan',
      'cooling.material': 'aluminium',
      weightG: 260,
      maxCapacityTB: 8,
      includedCables: [{ lengthM: 0.3 }],
      includedPads: [{ thicknessMm: 1.5 }]
    }
  },
  {
    name: 'USB4 and nothing else',
    kind: 'enclosure',
    text: `Gridiron USB4 case for M.2 NVMe 2280
Type-C port
fanless aluminium
UASP and TRIM support
no tools required`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      m2LengthsMm: [80],
      plug: 'usb-c',
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      uas: true,
      trim: true,
      retention: 'tool-less'
    },
    asked: { modes: [['usb4-40g'], ['usb4-20g']] }
  },
  {
    name: 'two endurances',
    kind: 'drive',
    text: `Hornfels 2TB M.2 2280 NVMe SSD, PCIe 4.0 x4
Endurance: 1200 TBW
Read: 7,300 MB/s, Write: 6,800 MB/s
Guarantee: 5 years or 1,000 TBW, whichever comes first`,
    stated: {
      capacityTB: 2,
      formFactor: 'm2',
      m2LengthMm: 80,
      media: 'nvme',
      'pcie.generation': 4,
      'pcie.lanes': 4,
      readMBps: 7300,
      writeMBps: 6800,
      warrantyYears: 5
    },
    asked: { enduranceTBW: [1000, 1200] }
  },
  {
    name: 'a family of drives, one column each',
    kind: 'drive',
    text: `Amphibolite A2 SSD family
Capacity          250GB   500GB   1TB
Interface         SATA III 6 Gb/s
Form factor       2.5", 7mm
Seq. read         up to 560 MB/s
Seq. write        up to 510 MB/s
Flash             TLC
Warranty          3 years`,
    stated: {
      media: 'sata-ssd',
      sataGbps: 6,
      formFactor: '2.5in',
      thicknessMm: 7,
      readMBps: 560,
      writeMBps: 510,
      'flash.cell': 'tlc',
      warrantyYears: 3
    },
    asked: { capacityTB: [0.25, 0.5, 1] }
  },
  {
    name: 'a Thunderbolt cable',
    kind: 'cable',
    text: `Osprey active Thunderbolt 4 cable, 2 m, 40Gb/s, USB-C to USB-C, 100 W, certified`,
    stated: { ends: ['usb-c', 'usb-c'], lengthM: 2, modes: ['tbt4-40g'], active: true, certified: true }
  },
  {
    name: 'a cable for an old case',
    kind: 'cable',
    text: `USB 3.0 cable, USB-A to Micro-B, 0.5m, black`,
    stated: { ends: ['usb-a', 'micro-b'], lengthM: 0.5, modes: ['usb-5g'] }
  },
  {
    name: 'a pad in prose',
    kind: 'pad',
    text: `Soft thermal pads for SSDs: 70 x 20 x 0,5 mm, conductivity 3,5 W/mK, 3 pieces, Shore 00 30`,
    stated: { widthMm: 70, lengthMm: 20, thicknessMm: 0.5, conductivityWmK: 3.5, quantity: 3, shore00: 30 }
  },
  {
    name: 'a workstation',
    kind: 'host',
    text: `Quince studio workstation
macOS 15
Back: 4 x Thunderbolt 5 (USB-C), 2 x USB-A 10Gb/s
Front: 2 x USB-C (10Gb/s)
HDMI, Ethernet`,
    stated: {
      'os.family': 'macos',
      'os.version': '15',
      ports: [
        { plug: 'usb-c', modes: ['tbt5-80g'] },
        { plug: 'usb-c', modes: ['tbt5-80g'] },
        { plug: 'usb-c', modes: ['tbt5-80g'] },
        { plug: 'usb-c', modes: ['tbt5-80g'] },
        { plug: 'usb-a', modes: ['usb-10g'] },
        { plug: 'usb-a', modes: ['usb-10g'] },
        { plug: 'usb-c', modes: ['usb-10g'] },
        { plug: 'usb-c', modes: ['usb-10g'] }
      ]
    }
  },
  {
    name: 'an enterprise sheet in two units',
    kind: 'drive',
    text: `Kimberlite E, 3.84 TB
Host interface: PCI Express 4.0, 4 lanes, NVMe
Physical: M.2 22110, double sided, heatsink none
Performance: 6.5 GB/s sequential read; 3.4 GB/s sequential write
Rated writes: 7 PBW
Power: 8.25 W max, 2.1 W idle
Warranty: 60 months`,
    stated: {
      capacityTB: 3.84,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 110,
      sides: 'double',
      readMBps: 6500,
      writeMBps: 3400,
      enduranceTBW: 7000,
      'power.peakW': 8.25,
      'power.idleW': 2.1,
      warrantyYears: 5
    }
  },
  {
    name: 'a card',
    kind: 'alternative',
    text: `Lichen memory card 128GB
Write 90MB/s - Read 170MB/s
U3 V30`,
    stated: { sort: 'memory-card', capacityTB: 0.128, readMBps: 170, writeMBps: 90 }
  },
  {
    name: 'a dock with a USB-B socket',
    kind: 'enclosure',
    text: `Inglenook Dock 3.5
For 3.5" SATA disks (up to 20 TB)
Host port: USB 3.2 Gen 2, Type-C or USB-B? The socket is USB-B.
AC adapter 12V 2A included
Supplied cable: USB-B to USB-A, 1.2 m
Plastic case with fan, 640 g`,
    stated: {
      formFactor: '3.5in',
      protocols: ['sata'],
      modes: ['usb-10g'],
      externalSupply: true,
      maxCapacityTB: 20,
      includedCables: [{ ends: ['usb-b', 'usb-a'], lengthM: 1.2 }],
      'cooling.kind': 'fan',
      'cooling.material': 'plastic',
      weightG: 640
    },
    asked: { plug: ['usb-b', 'usb-c'] }
  },
  {
    name: 'prose about a small disk',
    kind: 'drive',
    text: `Loess is a slim 2.5-inch hard disk. Its capacity is 4 TB; the platters turn at 5400 rpm and are shingled (SMR). It speaks
SATA at up to 6 Gbit/s and moves at most 140 MB/s. Working, it takes 1.9 W, idle 0.7 W. It is 15 mm high. The guarantee runs for
two years.`,
    stated: {
      media: 'hdd',
      formFactor: '2.5in',
      capacityTB: 4,
      'disk.rpm': 5400,
      'disk.recording': 'smr',
      sataGbps: 6,
      'disk.outerMBps': 140,
      'power.activeW': 1.9,
      'power.idleW': 0.7,
      thicknessMm: 15,
      warrantyYears: 2
    }
  },
  {
    name: 'a sticker with R and W',
    kind: 'drive',
    text: `MICA 1.0TB
PCIe 3.0 x4 NVMe  M.2 2242  M KEY
R:2500 MB/s W:1800 MB/s
3.3V 2.5A   TBW 200`,
    stated: {
      capacityTB: 1,
      'pcie.generation': 3,
      'pcie.lanes': 4,
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 42,
      m2Key: 'M',
      readMBps: 2500,
      writeMBps: 1800,
      enduranceTBW: 200
    }
  },
  {
    name: 'stars and a rate in bytes',
    kind: 'enclosure',
    text: `Soot Forty
* Thunderbolt 4 interface, up to 40GB/s
* for M.2 2280 NVMe drives with M key
* finned aluminium, fanless, 180 g
* up to 4TB
* contents: enclosure, 0.7 m cable (USB-C to USB-C), thermal pad 0.5 mm`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      m2LengthsMm: [80],
      m2Keys: ['M'],
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      weightG: 180,
      maxCapacityTB: 4,
      includedCables: [{ ends: ['usb-c', 'usb-c'], lengthM: 0.7 }],
      includedPads: [{ thicknessMm: 0.5 }]
    },
    asked: { modes: [['tbt4-40g']] }
  },
  {
    name: 'a title and nothing else',
    kind: 'enclosure',
    text: `TOPHEARTH 2.5 INCH SATA SSD HDD ENCLOSURE USB 3.0 5GBPS UASP TOOL FREE PLASTIC 9.5MM 7MM USB-C`,
    stated: {
      formFactor: '2.5in',
      protocols: ['sata'],
      modes: ['usb-5g'],
      uas: true,
      retention: 'tool-less',
      'cooling.material': 'plastic',
      maxThicknessMm: 9.5,
      plug: 'usb-c'
    }
  },
  {
    name: 'a cable card with labels',
    kind: 'cable',
    text: `Type: USB-C / USB-C
Length: 1.5 m
Speed: USB 3.2 Gen 2x2, 20 Gb/s
Power delivery: 240 W
Construction: passive, e-marked`,
    stated: { ends: ['usb-c', 'usb-c'], lengthM: 1.5, modes: ['usb-20g'], active: false }
  },
  {
    name: 'a charging lead',
    kind: 'cable',
    text: `Vine charging cable USB-C to USB-C 1.8m 100W, USB 2.0 data only`,
    stated: { ends: ['usb-c', 'usb-c'], lengthM: 1.8, modes: ['usb2'] }
  },
  {
    name: 'a pad with labels',
    kind: 'pad',
    text: `Product: heat pad
Dimensions: 50 x 50 x 2.0 mm
Thermal conductivity: 12 W/m·K
Hardness: 55 Shore 00
Contents: 4 pieces`,
    stated: { widthMm: 50, lengthMm: 50, thicknessMm: 2, conductivityWmK: 12, shore00: 55, quantity: 4 }
  },
  {
    name: 'a portable drive',
    kind: 'alternative',
    text: `Cobble 2TB portable SSD
USB 3.2 Gen 2x2 (20 Gb/s)
up to 2,000 MB/s read and 1,900 MB/s write
5 year warranty`,
    stated: { sort: 'portable', capacityTB: 2, readMBps: 2000, writeMBps: 1900 }
  },
  {
    name: 'a tablet',
    kind: 'host',
    text: `Fern tablet
System: iPadOS 17.2
Connectors
 • 1 x USB-C (USB4 40Gbps)
 • headphone jack`,
    stated: { 'os.family': 'ipados', 'os.version': '17.2', ports: [{ plug: 'usb-c', modes: ['usb4-40g'] }] }
  },
  {
    name: 'questions and answers under a drive',
    kind: 'drive',
    text: `Tuff P2 2TB gaming SSD, PCIe Gen4 x4, NVMe, M.2 2280
Speeds: read 5,200 MB/s, write 4,700 MB/s
Q: Is it double-sided? A: No, it is single sided.
Q: DRAM? A: No DRAM, it uses host memory (HMB).
Q: How long is the warranty? A: 5 years.`,
    stated: {
      capacityTB: 2,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      readMBps: 5200,
      writeMBps: 4700,
      'flash.dram': false,
      warrantyYears: 5
    },
    asked: { sides: ['single', 'double'] }
  },
  {
    name: 'a case with its key list and a chip',
    kind: 'enclosure',
    text: `Clinker Duo, USB-C SSD enclosure
Data rate: 10 Gbps (USB 3.2 Gen 2)
Drive: M.2 NVMe or M.2 SATA, lengths 2230 / 2242 / 2260 / 2280
Keys: M, B+M
Chipset: Corbel C2
Shell: aluminium
Cooling: passive`,
    stated: {
      plug: 'usb-c',
      modes: ['usb-10g'],
      formFactor: 'm2',
      protocols: ['nvme', 'sata'],
      m2LengthsMm: [30, 42, 60, 80],
      m2Keys: ['M', 'B+M'],
      bridge: 'Corbel C2',
      'cooling.material': 'aluminium',
      'cooling.kind': 'passive'
    }
  },
  {
    name: 'a pad whose title and note differ',
    kind: 'pad',
    text: `Thermal pad 60 mm x 60 mm, 2.0 mm thick, 5 W/mK
The photo is of the 1.5 mm pad.`,
    stated: { widthMm: 60, lengthMm: 60, conductivityWmK: 5 },
    asked: { thicknessMm: [2, 1.5] }
  },
  {
    name: 'a drive with two warranties',
    kind: 'drive',
    text: `Jasper 1TB SATA SSD 2.5 inch, 6 Gb/s
Read 550 MB/s, write 500 MB/s
3 years warranty
(Early batches: warranty of 2 years.)`,
    stated: { capacityTB: 1, media: 'sata-ssd', formFactor: '2.5in', sataGbps: 6, readMBps: 550, writeMBps: 500 },
    asked: { warrantyYears: [2, 3] }
  },
  {
    name: 'a drive with two read rates',
    kind: 'drive',
    text: `Agate 2TB NVMe PCIe 4.0 x4 M.2 2280
up to 7,000 MB/s read
Measured on our bench: read 6,550 MB/s
write up to 6,000 MB/s`,
    stated: {
      capacityTB: 2,
      media: 'nvme',
      'pcie.generation': 4,
      'pcie.lanes': 4,
      formFactor: 'm2',
      m2LengthMm: 80,
      writeMBps: 6000
    },
    asked: { readMBps: [7000, 6550] }
  },
  {
    name: 'a Thunderbolt 4 case that mentions USB4',
    kind: 'enclosure',
    text: `Smoulder TB
Thunderbolt 4 (40Gb/s); also runs on USB4 and Thunderbolt 3 hosts
For M.2 NVMe, 2280
Aluminium, passive`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      modes: ['tbt4-40g', 'usb4-40g', 'tbt3-40g'],
      m2LengthsMm: [80],
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium'
    }
  },
  {
    name: 'a case with two limits',
    kind: 'enclosure',
    text: `Cresset C10 enclosure for M.2 NVMe SSD
USB 3.2 Gen 2, USB-C
Supports up to 4TB
FAQ: drives of up to 8TB have been tried and work`,
    stated: { formFactor: 'm2', protocols: ['nvme'], modes: ['usb-10g'], plug: 'usb-c' },
    asked: { maxCapacityTB: [4, 8] }
  },
  {
    name: 'a cable sold in two lengths',
    kind: 'cable',
    text: `Iris cable USB-C to USB-C, USB4 40Gbps
available: 0.5 m / 1 m`,
    stated: { ends: ['usb-c', 'usb-c'], modes: ['usb4-40g'] },
    asked: { lengthM: [0.5, 1] }
  },
  {
    name: 'a module with two keys',
    kind: 'drive',
    text: `Opal M2 256GB NVMe M.2 2242 PCIe 3.0 x2
M key
(rev. B: B+M key)
Read 1,600 MB/s Write 900 MB/s`,
    stated: {
      capacityTB: 0.256,
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 42,
      'pcie.generation': 3,
      'pcie.lanes': 2,
      readMBps: 1600,
      writeMBps: 900
    },
    asked: { m2Key: ['M', 'B+M'] }
  },
  {
    name: 'a case that may take SATA',
    kind: 'enclosure',
    text: `Gridle enclosure, USB-C 10Gbps
NVMe and SATA M.2 drives
Note: this version takes NVMe only.
2280, aluminium, fan`,
    stated: {
      plug: 'usb-c',
      modes: ['usb-10g'],
      formFactor: 'm2',
      m2LengthsMm: [80],
      'cooling.material': 'aluminium',
      'cooling.kind': 'fan'
    },
    asked: { protocols: [['nvme'], ['nvme', 'sata']] }
  },
  {
    name: 'a case with and without a fan',
    kind: 'enclosure',
    text: `Brand-new Sconce U4 enclosure
USB4 40 Gb/s, M.2 2280 NVMe, M key
Fanless and silent
Includes: fan module, aluminium body`,
    stated: {
      modes: ['usb4-40g'],
      formFactor: 'm2',
      protocols: ['nvme'],
      m2LengthsMm: [80],
      m2Keys: ['M'],
      'cooling.material': 'aluminium'
    },
    asked: { 'cooling.kind': ['passive', 'fan'] }
  },
  {
    name: 'a seller who answers below',
    kind: 'enclosure',
    text: `Cinder Twin M.2 case, USB-C, 10Gbps
NVMe + SATA, 2230-2280
key M and key B+M
Review: really a 5Gbps case in my hands`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme', 'sata'],
      plug: 'usb-c',
      m2Keys: ['M', 'B+M'],
      m2LengthsMm: [30, 42, 60, 80]
    },
    asked: { modes: [['usb-10g'], ['usb-5g']] }
  },
  {
    name: 'a Thunderbolt 5 case and all it works with',
    kind: 'enclosure',
    text: `Blaze T5
Thunderbolt 5, 80Gb/s. Compatible with USB4 hosts, Thunderbolt 4 and Thunderbolt 3.
NVMe M.2 2280, fan, aluminium`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      m2LengthsMm: [80],
      'cooling.kind': 'fan',
      'cooling.material': 'aluminium'
    },
    asked: { modes: [['tbt5-80g', 'tbt4-40g', 'tbt3-40g', 'usb4-40g']] }
  },
  {
    name: 'a drive that is two generations',
    kind: 'drive',
    text: `Sardonyx 2TB | Gen5 speed, PCIe 4.0 x4 interface | M.2 2280 NVMe
Read 7,200 MB/s | Write 6,500 MB/s | TLC | 1,200 TBW`,
    stated: {
      capacityTB: 2,
      'pcie.lanes': 4,
      formFactor: 'm2',
      m2LengthMm: 80,
      media: 'nvme',
      readMBps: 7200,
      writeMBps: 6500,
      'flash.cell': 'tlc',
      enduranceTBW: 1200
    },
    asked: { 'pcie.generation': [4, 5] }
  },
  {
    name: 'three sizes on one sheet',
    kind: 'drive',
    text: `Rhyolite 1 TB / 2 TB / 4 TB NVMe SSD
M.2 2280, PCIe Gen 4 x4
sequential read 7000 MB/s, sequential write 6300 MB/s
TLC flash, 5-year warranty`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      readMBps: 7000,
      writeMBps: 6300,
      'flash.cell': 'tlc',
      warrantyYears: 5
    },
    asked: { capacityTB: [1, 2, 4] }
  },
  {
    name: 'a case for disks with USB 3.2 and no more',
    kind: 'enclosure',
    text: `Wick 25 USB 3.2 case for 2.5" SATA SSD or HDD, up to 9.5 mm
USB-C socket, cable USB-C to USB-A 50 cm
plastic, tool-free`,
    stated: {
      formFactor: '2.5in',
      protocols: ['sata'],
      maxThicknessMm: 9.5,
      plug: 'usb-c',
      includedCables: [{ ends: ['usb-c', 'usb-a'], lengthM: 0.5 }],
      'cooling.material': 'plastic',
      retention: 'tool-less'
    },
    asked: { modes: [['usb-5g'], ['usb-10g']] }
  }
];
