import type { JudgedText } from './text.ts';

/**
 * Twenty texts that the reader is judged on. They were written before there was a reader and are not touched when it is
 * tuned: a text that it reads wrongly stays as it is, and counts.
 */
export const HELD_OUT: readonly JudgedText[] = [
  {
    name: 'front of a drive box',
    kind: 'drive',
    text: `GABBRO X4
2TB
NVMe SSD · M.2 2280 · PCIe® Gen4 x4
up to 7,100 MB/s read
up to 6,400 MB/s write
5-YEAR LIMITED WARRANTY`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      capacityTB: 2,
      readMBps: 7100,
      writeMBps: 6400,
      warrantyYears: 5
    }
  },
  {
    name: 'data sheet table with colons',
    kind: 'drive',
    text: `Product: Basalt S5 960
Form factor: 2.5 inch, 7 mm
Interface: SATA III 6Gb/s
Capacity: 960 GB
NAND: 3D TLC
Sequential read (max): 560 MB/s
Sequential write (max): 530 MB/s
Random read (4K, QD32): 95,000 IOPS
Random write (4K, QD32): 88,000 IOPS
Endurance: 480 TBW
MTBF: 1.8 million hours
Operating temperature: 0 to 70 °C
Warranty: 3 years
Weight: 48 g`,
    stated: {
      media: 'sata-ssd',
      formFactor: '2.5in',
      thicknessMm: 7,
      sataGbps: 6,
      capacityTB: 0.96,
      'flash.cell': 'tlc',
      readMBps: 560,
      writeMBps: 530,
      enduranceTBW: 480,
      'operating.minC': 0,
      'operating.maxC': 70,
      warrantyYears: 3
    }
  },
  {
    name: 'a drive whose headline and table disagree',
    kind: 'drive',
    text: `Diorite P 1TB — PCIe 4.0 NVMe solid state drive for laptops and desktops

The Diorite P brings fast storage to any machine with an M.2 slot (2280, single-sided).

Specifications
- Interface        PCIe Gen 3 x4, NVMe 1.4
- Read             3,500 MB/s
- Write            3,000 MB/s
- Endurance        600 TB written
- DRAM             none (HMB)
- Warranty         60 months`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      sides: 'single',
      capacityTB: 1,
      'pcie.lanes': 4,
      readMBps: 3500,
      writeMBps: 3000,
      enduranceTBW: 600,
      'flash.dram': false,
      warrantyYears: 5
    },
    asked: { 'pcie.generation': [3, 4] }
  },
  {
    name: 'market stall title in capitals',
    kind: 'enclosure',
    text: `NEW!! INGLE M2 USB-C ENCLOSURE 10GBPS FOR NVME M.2 SSD 2230 2242 2260 2280 ALUMINIUM UASP TRIM TOOL-FREE USB 3.2 GEN 2 W/ CABLE`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      modes: ['usb-10g'],
      plug: 'usb-c',
      m2LengthsMm: [30, 42, 60, 80],
      'cooling.material': 'aluminium',
      uas: true,
      trim: true,
      retention: 'tool-less'
    }
  },
  {
    name: 'bits written as bytes',
    kind: 'enclosure',
    text: `Andiron Forty

* USB4 interface, transfer rate up to 40GB/s
* Compatible with M.2 NVMe drives, M key, 2280 only
* Backward compatible with USB 3.2 Gen 2
* Finned aluminium body, fanless
* Supports drives up to 8TB
* In the box: enclosure, 0.5 m USB-C cable, silicone thermal pad 1.0 mm, screwdriver`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      m2LengthsMm: [80],
      m2Keys: ['M'],
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      maxCapacityTB: 8,
      includedCables: [{ ends: ['usb-c', 'usb-c'], lengthM: 0.5 }],
      includedPads: [{ thicknessMm: 1 }]
    },
    asked: { modes: [['usb4-40g', 'usb-10g']] }
  },
  {
    name: 'USB 3.2 and no more',
    kind: 'enclosure',
    text: `Hearthstone 2.5
USB 3.2 external case for 2.5" SATA drives
Takes SSD or HDD from 7 mm to 9.5 mm
Slide lid, no tools needed
Micro-B socket, USB-A cable included (30 cm)
UASP supported
Plastic shell, 68 g`,
    stated: {
      formFactor: '2.5in',
      protocols: ['sata'],
      maxThicknessMm: 9.5,
      retention: 'tool-less',
      plug: 'micro-b',
      includedCables: [{ ends: ['usb-a', 'micro-b'], lengthM: 0.3 }],
      uas: true,
      'cooling.material': 'plastic',
      weightG: 68
    },
    asked: { modes: [['usb-5g'], ['usb-10g']] }
  },
  {
    name: 'two speeds for one case',
    kind: 'enclosure',
    text: `Chimney Duo | M.2 enclosure
Speed: 20Gbps
Port: USB Type-C female
Protocol: NVMe and SATA (auto detect)
Bridge: Lintel L77
Drive length: 2242 / 2280
Key: M-key, B+M key
Q: what speed did you get? A: it is a 10Gbps case, about 1000 MB/s.`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme', 'sata'],
      plug: 'usb-c',
      bridge: 'Lintel L77',
      m2LengthsMm: [42, 80],
      m2Keys: ['M', 'B+M']
    },
    asked: { modes: [['usb-20g'], ['usb-10g']] }
  },
  {
    name: 'prose about a hard disk',
    kind: 'drive',
    text: `The Tufa Deep is a 3.5-inch hard disk drive of 12 TB for servers and large libraries. It spins at 7200 rpm, records
conventionally (CMR), and its interface is SATA at 6 Gbit/s. The maximum sustained transfer rate is given as 245 MB/s at
the outer edge. It draws 5.6 W when idle and 7.9 W while working. The warranty lasts five years, and the maker allows a workload of
550 TB a year.`,
    stated: {
      media: 'hdd',
      formFactor: '3.5in',
      capacityTB: 12,
      'disk.rpm': 7200,
      'disk.recording': 'cmr',
      sataGbps: 6,
      'disk.outerMBps': 245,
      'power.idleW': 5.6,
      'power.activeW': 7.9,
      warrantyYears: 5
    }
  },
  {
    name: 'decimal commas',
    kind: 'drive',
    text: `Marble Q 4 TB
M.2 2280-D2-M
NVMe 1.4, PCIe 4.0 x4
Lesen: bis 5,0 GB/s
Schreiben: bis 4,2 GB/s
QLC, SLC cache 400 GB (dynamic)
TBW: 800 TB
Peak power 6,5 W / Idle 0,6 W`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      m2Key: 'M',
      m2HeightCode: 'D2',
      sides: 'double',
      'pcie.generation': 4,
      'pcie.lanes': 4,
      capacityTB: 4,
      readMBps: 5000,
      writeMBps: 4200,
      'flash.cell': 'qlc',
      'flash.cacheGB': 400,
      'flash.cacheKind': 'dynamic',
      enduranceTBW: 800,
      'power.peakW': 6.5,
      'power.idleW': 0.6
    }
  },
  {
    name: 'one sheet for three capacities',
    kind: 'drive',
    text: `Porphyry V  (500GB / 1TB / 2TB)
PCIe 4.0 x4 NVMe M.2 (2280)
Seq. Read    4700 MB/s
Seq. Write   4100 MB/s
Flash        TLC
Warranty     5 years`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      readMBps: 4700,
      writeMBps: 4100,
      'flash.cell': 'tlc',
      warrantyYears: 5
    },
    asked: { capacityTB: [0.5, 1, 2] }
  },
  {
    name: 'a cable bag',
    kind: 'cable',
    text: `USB-C to USB-C cable
Length: 80 cm
Data: 40Gbps (USB4 certified)
Power: 100W
Passive`,
    stated: { ends: ['usb-c', 'usb-c'], lengthM: 0.8, modes: ['usb4-40g'], active: false, certified: true }
  },
  {
    name: 'a charging cable that says fast',
    kind: 'cable',
    text: `Willow charge cable, USB-A to USB-C, 2 m, fast charging 60 W, data transfer 480 Mbps (USB 2.0), braided`,
    stated: { ends: ['usb-a', 'usb-c'], lengthM: 2, modes: ['usb2'] }
  },
  {
    name: 'a pad sheet',
    kind: 'pad',
    text: `Thermal pad
Size: 100 x 100 x 1.5 mm
Thermal conductivity 6.0 W/m·K
Hardness: Shore 00 45
Quantity: 2 pcs`,
    stated: { widthMm: 100, lengthMm: 100, thicknessMm: 1.5, conductivityWmK: 6, shore00: 45, quantity: 2 }
  },
  {
    name: 'a pad with two thicknesses',
    kind: 'pad',
    text: `Felt Pro silicone thermal pads, 85 mm x 45 mm, thickness 0.5mm, 12.8 W/mK, non-conductive
Please note: picture shows the 1.0mm version.`,
    stated: { widthMm: 85, lengthMm: 45, conductivityWmK: 12.8 },
    asked: { thicknessMm: [0.5, 1] }
  },
  {
    name: 'a Thunderbolt case with a fan',
    kind: 'enclosure',
    text: `Kindling T5 Pro
Thunderbolt 5 (80Gb/s), works with Thunderbolt 4, Thunderbolt 3, USB4
NVMe M.2 2280, M-Key, PCIe 4.0 x4
built-in temperature controlled fan
CNC aluminum housing, 310 g
included: 1x Thunderbolt 5 cable (0.8 m), 2x thermal pads (0.5 mm, 1.5 mm)
Max. capacity: 16 TB
Dimensions: 120 x 60 x 28 mm`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      m2LengthsMm: [80],
      m2Keys: ['M'],
      'downstreamPcie.generation': 4,
      'downstreamPcie.lanes': 4,
      'cooling.kind': 'fan',
      'cooling.material': 'aluminium',
      weightG: 310,
      includedCables: [{ lengthM: 0.8, modes: ['tbt5-80g'] }],
      includedPads: [{ thicknessMm: 0.5 }, { thicknessMm: 1.5 }],
      maxCapacityTB: 16
    },
    // "USB4" is named without a rate.
    asked: { modes: [['tbt5-80g', 'tbt4-40g', 'tbt3-40g', 'usb4-40g']] }
  },
  {
    name: 'a dock for disks with its own supply',
    kind: 'enclosure',
    text: `Mantel 35 — enclosure for one 3.5" SATA hard drive
Connection ........ USB 3.2 Gen 1 (5 Gb/s), USB-B
Drive interface ... SATA 6 Gb/s
Capacity .......... up to 22 TB
Power ............. 12 V / 2 A mains adapter (included)
Cooling ........... 80 mm fan
Case .............. aluminium
Scope of delivery . enclosure, power adapter, USB-A to USB-B cable 1 m, 4 screws`,
    stated: {
      formFactor: '3.5in',
      protocols: ['sata'],
      modes: ['usb-5g'],
      plug: 'usb-b',
      downstreamSataGbps: 6,
      maxCapacityTB: 22,
      externalSupply: true,
      'cooling.kind': 'fan',
      'cooling.material': 'aluminium',
      includedCables: [{ ends: ['usb-a', 'usb-b'], lengthM: 1 }]
    }
  },
  {
    name: 'the label of a small SATA module',
    kind: 'drive',
    text: `SHINGLE MS 256GB
M.2 2242 SATA SSD  B+M KEY
R: 540MB/s  W: 450MB/s
DC +3.3V 2.0A
TBW 140`,
    stated: {
      media: 'sata-ssd',
      formFactor: 'm2',
      m2LengthMm: 42,
      m2Key: 'B+M',
      capacityTB: 0.256,
      readMBps: 540,
      writeMBps: 450,
      enduranceTBW: 140
    }
  },
  {
    name: 'the back of a portable drive',
    kind: 'alternative',
    text: `Pebble Portable SSD 1TB
USB-C 3.2 Gen 2
Read speeds up to 1,050 MB/s
Write speeds up to 1,000 MB/s
Drop proof, 58 g`,
    stated: { sort: 'portable', capacityTB: 1, readMBps: 1050, writeMBps: 1000 }
  },
  {
    name: 'a laptop page',
    kind: 'host',
    text: `Sorrel 14 laptop
Operating system: Windows 11
Ports:
 - 2 x Thunderbolt 4 (USB-C)
 - 1 x USB-A (USB 3.2 Gen 1, 5 Gb/s)
 - HDMI 2.1
Storage: 1 TB SSD`,
    stated: {
      'os.family': 'windows',
      'os.version': '11',
      ports: [
        { plug: 'usb-c', modes: ['tbt4-40g'] },
        { plug: 'usb-c', modes: ['tbt4-40g'] },
        { plug: 'usb-a', modes: ['usb-5g'] }
      ]
    }
  },
  {
    name: 'a fast drive with two warranties',
    kind: 'drive',
    text: `Obsidian Nine 2 TB PCIe 5.0 x4 NVMe SSD
M.2 2280
Sequential performance: 12,400 MB/s (read) / 11,800 MB/s (write)
Dual-sided: no
With heatsink: 9.2 mm
Endurance 1.4 PBW
Warranty: 5 years
*Units sold before 2025 carry a 3-year warranty.`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      capacityTB: 2,
      'pcie.generation': 5,
      'pcie.lanes': 4,
      readMBps: 12400,
      writeMBps: 11800,
      sides: 'single',
      heatsinkMm: 9.2,
      enduranceTBW: 1400
    },
    asked: { warrantyYears: [3, 5] }
  }
];
