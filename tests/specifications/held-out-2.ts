import type { JudgedText } from './text.ts';

/**
 * Sixty more texts in four languages that the reader is judged on. They were written from how boxes, data sheets and offers are
 * worded, without a look at the reader, before it was extended, and were read once; see docs/models.md for what came out. A text
 * that is read wrongly stays as it is, and counts.
 */
export const HELD_OUT_2: readonly JudgedText[] = [
  {
    name: 'en: drive, front and back',
    kind: 'drive',
    text: `Scarp N7
4TB M.2 2280 NVMe SSD
PCIe 4.0 x4 interface
Sequential Read: up to 7,300MB/s
Sequential Write: up to 6,800MB/s
3D TLC NAND with DRAM cache
TBW: 2400TB
Operating temperature: 0°C - 70°C
5-year limited warranty`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      capacityTB: 4,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      readMBps: 7300,
      writeMBps: 6800,
      'flash.cell': 'tlc',
      'flash.dram': true,
      enduranceTBW: 2400,
      'operating.minC': 0,
      'operating.maxC': 70,
      warrantyYears: 5
    }
  },
  {
    name: 'en: drive, table with pipes',
    kind: 'drive',
    text: `| Model | Cuesta 3 |
| Capacity | 500 GB |
| Form Factor | M.2 2280 |
| Interface | PCIe Gen3 x4, NVMe 1.3 |
| Max. sequential read | 2,100 MB/s |
| Max. sequential write | 1,600 MB/s |
| NAND | QLC |
| DRAM | No (HMB) |
| Endurance (TBW) | 120 TBW |
| Idle power | 40 mW |
| Warranty | 3 years |`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      capacityTB: 0.5,
      'pcie.generation': 3,
      'pcie.lanes': 4,
      readMBps: 2100,
      writeMBps: 1600,
      'flash.cell': 'qlc',
      'flash.dram': false,
      enduranceTBW: 120,
      'power.idleW': 0.04,
      warrantyYears: 3
    }
  },
  {
    name: 'en: SATA drive, one line',
    kind: 'drive',
    text: `Fell 870 2.5" SATA III SSD 1TB, 7mm, read 560 MB/s, write 530 MB/s, TLC, 600 TBW, 5 yr warranty, 0 to 70 C operating`,
    stated: {
      media: 'sata-ssd',
      formFactor: '2.5in',
      sataGbps: 6,
      capacityTB: 1,
      thicknessMm: 7,
      readMBps: 560,
      writeMBps: 530,
      'flash.cell': 'tlc',
      enduranceTBW: 600,
      warrantyYears: 5,
      'operating.minC': 0,
      'operating.maxC': 70
    }
  },
  {
    name: 'en: hard disk, 2.5-inch',
    kind: 'drive',
    text: `Moraine 2T Mobile Hard Disk Drive
2.5-inch, 7 mm z-height
2 TB
SATA 6 Gb/s
5400 RPM
Recording technology: SMR
Sustained data rate OD: 140 MB/s
Power: idle 1.1 W, read/write 1.7 W
Operating temperature 0-60 °C
2-year warranty`,
    stated: {
      media: 'hdd',
      formFactor: '2.5in',
      thicknessMm: 7,
      capacityTB: 2,
      sataGbps: 6,
      'disk.rpm': 5400,
      'disk.recording': 'smr',
      'disk.outerMBps': 140,
      'power.idleW': 1.1,
      'power.activeW': 1.7,
      'operating.minC': 0,
      'operating.maxC': 60,
      warrantyYears: 2
    }
  },
  {
    name: 'en: drive with heatsink',
    kind: 'drive',
    text: `Tor Extreme 2TB with heatsink
PCIe 5.0 x4, NVMe 2.0, M.2 2280
Reads up to 14,500 MB/s, writes up to 12,700 MB/s
Heatsink height 11.3 mm
Double-sided
1,400 TBW endurance
Max power 11.5 W
Thermal throttling starts at 84 °C
Five-year warranty`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      capacityTB: 2,
      'pcie.generation': 5,
      'pcie.lanes': 4,
      readMBps: 14500,
      writeMBps: 12700,
      heatsinkMm: 11.3,
      sides: 'double',
      enduranceTBW: 1400,
      'power.peakW': 11.5,
      'throttle.startC': 84,
      warrantyYears: 5
    }
  },
  {
    name: 'en: module label, short one',
    kind: 'drive',
    text: `DALE-HOLLOW 512GB
NVMe M.2 2230 S3 M-KEY
PCIe Gen4x4
R/W 5000/3800 MB/s
HMB, no DRAM`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 30,
      m2Key: 'M',
      sides: 'single',
      m2HeightCode: 'S3',
      capacityTB: 0.512,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      readMBps: 5000,
      writeMBps: 3800,
      'flash.dram': false
    }
  },
  {
    name: 'en: forum post about a drive',
    kind: 'drive',
    text: `Selling my Corrie 1TB NVMe (M.2 2280, single sided). It's a gen 3 x4 drive, does about 3400 MB/s read and 3000 MB/s write.
TLC with a DRAM cache. Pseudo-SLC cache is about 110 GB when empty, after that it writes at 900 MB/s. Rated for 600 TBW.`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      sides: 'single',
      capacityTB: 1,
      'pcie.generation': 3,
      'pcie.lanes': 4,
      readMBps: 3400,
      writeMBps: 3000,
      'flash.cell': 'tlc',
      'flash.dram': true,
      'flash.cacheGB': 110,
      'flash.postCacheWriteMBps': 900,
      enduranceTBW: 600
    }
  },
  {
    name: 'en: big disk',
    kind: 'drive',
    text: `Gritstone Archive 20TB 3.5" HDD
Interface: SATA 6Gb/s
Spindle speed: 7200rpm
CMR
Max. sustained transfer rate: 285MB/s
Average operating power 6.9W, idle 5.4W
Warranty 5 years
Weight 690 g`,
    stated: {
      media: 'hdd',
      formFactor: '3.5in',
      capacityTB: 20,
      sataGbps: 6,
      'disk.rpm': 7200,
      'disk.recording': 'cmr',
      'disk.outerMBps': 285,
      'power.activeW': 6.9,
      'power.idleW': 5.4,
      warrantyYears: 5
    }
  },
  {
    name: 'en: enclosure with a speed in its name, no fan',
    kind: 'enclosure',
    text: `Rill M2 Case 10G
USB 3.2 Gen 2 (10 Gbps)
USB-C port
For M.2 NVMe SSDs: 2230 / 2242 / 2260 / 2280
M-Key and B+M-Key
No fan, passive cooling
Aluminium alloy
UASP and TRIM supported
Up to 8TB
Tool-free
Thermal pad 0.5 mm included
USB-C to USB-C cable (0.3 m) included`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      modes: ['usb-10g'],
      plug: 'usb-c',
      m2LengthsMm: [30, 42, 60, 80],
      m2Keys: ['M', 'B+M'],
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      uas: true,
      trim: true,
      maxCapacityTB: 8,
      retention: 'tool-less',
      includedPads: [{ thicknessMm: 0.5 }],
      includedCables: [{ ends: ['usb-c', 'usb-c'], lengthM: 0.3 }]
    }
  },
  {
    name: 'en: enclosure 40G with questions',
    kind: 'enclosure',
    text: `Fjord 40G SSD Enclosure
USB4 40Gbps
Bridge chip: Corbel C240
M.2 2280 NVMe, M key only
PCIe 4.0 x4 to the SSD
Built-in fan: no
Material: aluminum, 165 g
Takes single and double sided SSDs
Max 8 TB`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      modes: ['usb4-40g'],
      bridge: 'Corbel C240',
      m2LengthsMm: [80],
      m2Keys: ['M'],
      'downstreamPcie.generation': 4,
      'downstreamPcie.lanes': 4,
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      weightG: 165,
      takesDoubleSided: true,
      maxCapacityTB: 8
    }
  },
  {
    name: 'en: 2.5-inch case, plain',
    kind: 'enclosure',
    text: `Larch drive case for 2.5 inch SATA SSD/HDD
5Gbps USB 3.0, Micro-B port
Fits drives 7mm and 9.5mm thick
Tool-free snap lid
ABS plastic
SATA III 6Gbps inside
UASP
USB-A to Micro-B cable 50cm in the box
Weight: 82g`,
    stated: {
      formFactor: '2.5in',
      protocols: ['sata'],
      modes: ['usb-5g'],
      plug: 'micro-b',
      maxThicknessMm: 9.5,
      retention: 'tool-less',
      'cooling.material': 'plastic',
      downstreamSataGbps: 6,
      uas: true,
      includedCables: [{ ends: ['usb-a', 'micro-b'], lengthM: 0.5 }],
      weightG: 82
    }
  },
  {
    name: 'en: dual protocol case with screws',
    kind: 'enclosure',
    text: `Weir Combo
Works with NVMe and SATA M.2 SSDs
USB-C, USB 3.2 Gen 2, 10Gbps
Sizes 2242, 2260, 2280
Fixed with a screw (screwdriver included)
TRIM: yes
Fanless aluminium body
Ships with a USB-C to USB-C cable, 20 cm, and two thermal pads (1 mm and 2 mm)
Max. drive capacity 4 TB`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme', 'sata'],
      plug: 'usb-c',
      modes: ['usb-10g'],
      m2LengthsMm: [42, 60, 80],
      retention: 'screw',
      trim: true,
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      includedCables: [{ ends: ['usb-c', 'usb-c'], lengthM: 0.2 }],
      includedPads: [{ thicknessMm: 1 }, { thicknessMm: 2 }],
      maxCapacityTB: 4
    }
  },
  {
    name: 'en: tray dock',
    kind: 'enclosure',
    text: `Byre 1-bay enclosure
3.5-inch SATA drives up to 20TB
USB 3.2 Gen 2 10Gb/s, USB-C
Slide-in tray
60 mm fan
12V/3A power adapter included
Aluminium housing
Weight 900 g
Includes USB-C to USB-C cable 1 m`,
    stated: {
      formFactor: '3.5in',
      protocols: ['sata'],
      maxCapacityTB: 20,
      modes: ['usb-10g'],
      plug: 'usb-c',
      retention: 'tray',
      'cooling.kind': 'fan',
      externalSupply: true,
      'cooling.material': 'aluminium',
      weightG: 900,
      includedCables: [{ ends: ['usb-c', 'usb-c'], lengthM: 1 }]
    }
  },
  {
    name: 'en: enclosure without a fan, in prose',
    kind: 'enclosure',
    text: `The Gully 20 is an enclosure for M.2 NVMe drives (2280). It connects over USB-C at 20Gbps (USB 3.2 Gen 2x2), passes TRIM and
supports UASP. There is no fan inside; its finned aluminium shell keeps the drive cool and weighs 120 grams. A 1.5 mm thermal
pad and a 50 cm USB-C to USB-C cable come with it.`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      m2LengthsMm: [80],
      plug: 'usb-c',
      modes: ['usb-20g'],
      trim: true,
      uas: true,
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      weightG: 120,
      includedPads: [{ thicknessMm: 1.5 }],
      includedCables: [{ ends: ['usb-c', 'usb-c'], lengthM: 0.5 }]
    }
  },
  {
    name: 'en: a pad whose size nobody says',
    kind: 'enclosure',
    text: `Strath Mini
M.2 2230/2242 NVMe enclosure
USB 3.2 Gen 2, 10Gbps, Type-C
Aluminium, 38 g
Fan: none
Thermal pad included
Keys: M
Up to 2TB`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      m2LengthsMm: [30, 42],
      modes: ['usb-10g'],
      plug: 'usb-c',
      'cooling.material': 'aluminium',
      weightG: 38,
      'cooling.kind': 'passive',
      m2Keys: ['M'],
      maxCapacityTB: 2
    },
    asked: { includedPads: [[{ thicknessMm: 0.5 }], [{ thicknessMm: 1 }]] }
  },
  {
    name: 'en: cable, certified',
    kind: 'cable',
    text: `USB-C to USB-C 40Gbps cable
USB4 Gen 3, certified
1 m / 3.3 ft
Passive
Power delivery up to 240W`,
    stated: { ends: ['usb-c', 'usb-c'], modes: ['usb4-40g'], certified: true, lengthM: 1, active: false }
  },
  {
    name: 'en: cable, active',
    kind: 'cable',
    text: `Thunderbolt 4 active cable, 2m, USB-C to USB-C, 100W charging`,
    stated: { ends: ['usb-c', 'usb-c'], modes: ['tbt4-40g'], lengthM: 2, active: true }
  },
  {
    name: 'en: old cable',
    kind: 'cable',
    text: `Replacement cable USB-A to Micro-B, USB 3.0 5Gbps, 45cm, black`,
    stated: { ends: ['usb-a', 'micro-b'], modes: ['usb-5g'], lengthM: 0.45 }
  },
  {
    name: 'en: pad set',
    kind: 'pad',
    text: `Silicone thermal pad
Dimensions 120 x 20 x 1.0 mm
Thermal conductivity: 8.5 W/mK
Hardness 50 Shore 00
4 pieces per pack`,
    stated: { widthMm: 120, lengthMm: 20, thicknessMm: 1, conductivityWmK: 8.5, shore00: 50, quantity: 4 }
  },
  {
    name: 'en: pad, one line',
    kind: 'pad',
    text: `Thermal pad 80x40mm, 2mm thick, 6 W/m-K, pack of 2`,
    stated: { widthMm: 80, lengthMm: 40, thicknessMm: 2, conductivityWmK: 6, quantity: 2 }
  },
  {
    name: 'en: stick',
    kind: 'alternative',
    text: `Kernel USB flash drive 512GB
USB 3.2 Gen 2 Type-C
Up to 1000MB/s read, 800MB/s write
Metal body`,
    stated: { sort: 'flash-stick', capacityTB: 0.512, readMBps: 1000, writeMBps: 800 }
  },
  {
    name: 'en: computer',
    kind: 'host',
    text: `Fennel mini desktop computer
macOS 15
Front: 2 x USB-C (10Gb/s)
Back: 3 x Thunderbolt 4
SSD: 512 GB`,
    stated: {
      'os.family': 'macos',
      'os.version': '15',
      ports: [
        { plug: 'usb-c', modes: ['usb-10g'] },
        { plug: 'usb-c', modes: ['usb-10g'] },
        { plug: 'usb-c', modes: ['tbt4-40g'] },
        { plug: 'usb-c', modes: ['tbt4-40g'] },
        { plug: 'usb-c', modes: ['tbt4-40g'] }
      ]
    }
  },
  {
    name: 'en: two capacities against each other',
    kind: 'drive',
    text: `Cairn Q8 8TB QLC SSD
M.2 2280 NVMe PCIe 4.0 x4
Read 7000 MB/s, Write 6000 MB/s
DRAM: 8 GB
Capacity: 4 TB
TBW 1800
Warranty: 60 months`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      'flash.cell': 'qlc',
      'pcie.generation': 4,
      'pcie.lanes': 4,
      readMBps: 7000,
      writeMBps: 6000,
      'flash.dram': true,
      enduranceTBW: 1800,
      warrantyYears: 5
    },
    asked: { capacityTB: [4, 8] }
  },
  {
    name: 'en: data sheet with ranges and a storage temperature',
    kind: 'drive',
    text: `Drumlin Pro data sheet
Capacity: 960GB
Form factor: M.2 22110
Interface: PCIe 4.0 x4 NVMe
Sequential read: 6,500 MB/s
Sequential write: 2,000 MB/s
Power consumption (active): 8.2 W
Power consumption (idle): 2.4 W
Operating temperature: 0 °C to 70 °C
Storage temperature: -40 °C to 85 °C
Endurance: 1,750 TBW
Warranty: 5 years`,
    stated: {
      media: 'nvme',
      capacityTB: 0.96,
      formFactor: 'm2',
      m2LengthMm: 110,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      readMBps: 6500,
      writeMBps: 2000,
      'power.activeW': 8.2,
      'power.idleW': 2.4,
      'operating.minC': 0,
      'operating.maxC': 70,
      enduranceTBW: 1750,
      warrantyYears: 5
    }
  },
  // German
  {
    name: 'de: Laufwerk, Tabelle',
    kind: 'drive',
    text: `Schiefer N4 2 TB
Bauform: M.2 2280
Schnittstelle: PCIe 4.0 x4 (NVMe 1.4)
Lesegeschwindigkeit: bis zu 5.000 MB/s
Schreibgeschwindigkeit: bis zu 4.500 MB/s
Speicherzellen: TLC
DRAM-Cache: nein (HMB)
Lebensdauer: 1.200 TBW
Betriebstemperatur: 0 bis 70 °C
Garantie: 5 Jahre`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      capacityTB: 2,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      readMBps: 5000,
      writeMBps: 4500,
      'flash.cell': 'tlc',
      'flash.dram': false,
      enduranceTBW: 1200,
      'operating.minC': 0,
      'operating.maxC': 70,
      warrantyYears: 5
    }
  },
  {
    name: 'de: SATA-SSD',
    kind: 'drive',
    text: `Kiesel S 480 GB SSD
2,5 Zoll, 7 mm
SATA III mit 6 Gbit/s
Lesen: bis zu 550 MB/s
Schreiben: bis zu 500 MB/s
QLC-Speicher
160 TBW
3 Jahre Garantie`,
    stated: {
      media: 'sata-ssd',
      formFactor: '2.5in',
      thicknessMm: 7,
      sataGbps: 6,
      capacityTB: 0.48,
      readMBps: 550,
      writeMBps: 500,
      'flash.cell': 'qlc',
      enduranceTBW: 160,
      warrantyYears: 3
    }
  },
  {
    name: 'de: Festplatte',
    kind: 'drive',
    text: `Findling 8 TB Festplatte
3,5 Zoll
SATA 6 Gb/s
Drehzahl: 5.400 U/min
Aufzeichnung: CMR
Datenrate max.: 215 MB/s
Leistungsaufnahme: 5,3 W (Betrieb), 3,4 W (Leerlauf)
Garantie: 3 Jahre`,
    stated: {
      media: 'hdd',
      formFactor: '3.5in',
      capacityTB: 8,
      sataGbps: 6,
      'disk.rpm': 5400,
      'disk.recording': 'cmr',
      'disk.outerMBps': 215,
      'power.activeW': 5.3,
      'power.idleW': 3.4,
      warrantyYears: 3
    }
  },
  {
    name: 'de: Gehäuse ohne Lüfter',
    kind: 'enclosure',
    text: `Bachlauf M.2-Gehäuse 10G
Für M.2-NVMe-SSDs in 2230, 2242, 2260 und 2280
USB-C-Anschluss, USB 3.2 Gen 2 mit 10 Gbit/s
Ohne Lüfter, Aluminiumgehäuse
Werkzeuglos
UASP- und TRIM-Unterstützung
Bis 4 TB
Gewicht: 95 g
Lieferumfang: Gehäuse, USB-C-auf-USB-C-Kabel (30 cm), Wärmeleitpad (1,0 mm)`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      m2LengthsMm: [30, 42, 60, 80],
      plug: 'usb-c',
      modes: ['usb-10g'],
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      retention: 'tool-less',
      uas: true,
      trim: true,
      maxCapacityTB: 4,
      weightG: 95,
      includedCables: [{ ends: ['usb-c', 'usb-c'], lengthM: 0.3 }],
      includedPads: [{ thicknessMm: 1 }]
    }
  },
  {
    name: 'de: Gehäuse mit Lüfter',
    kind: 'enclosure',
    text: `Sturzbach 40
Externes SSD-Gehäuse, USB4 mit 40 Gbit/s
Für NVMe-SSDs M.2 2280, M-Key
Eingebauter Lüfter
Aluminium, 240 g
Maximale Kapazität: 8 TB
Im Lieferumfang: USB4-Kabel 0,8 m, Wärmeleitpad 1,5 mm, Schraubendreher`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      modes: ['usb4-40g'],
      m2LengthsMm: [80],
      m2Keys: ['M'],
      'cooling.kind': 'fan',
      'cooling.material': 'aluminium',
      weightG: 240,
      maxCapacityTB: 8,
      includedCables: [{ lengthM: 0.8 }],
      includedPads: [{ thicknessMm: 1.5 }]
    }
  },
  {
    name: 'de: 2,5-Zoll-Gehäuse',
    kind: 'enclosure',
    text: `Birke 2,5-Zoll-Gehäuse für SATA-SSD und -Festplatte
USB 3.0 (5 Gbit/s), Micro-B-Buchse
Für Laufwerke bis 9,5 mm Bauhöhe
Kunststoff
Werkzeuglose Montage
UASP
Kabel USB-A auf Micro-B, 40 cm, liegt bei
Gewicht 70 g`,
    stated: {
      formFactor: '2.5in',
      protocols: ['sata'],
      modes: ['usb-5g'],
      plug: 'micro-b',
      maxThicknessMm: 9.5,
      'cooling.material': 'plastic',
      retention: 'tool-less',
      uas: true,
      includedCables: [{ ends: ['usb-a', 'micro-b'], lengthM: 0.4 }],
      weightG: 70
    }
  },
  {
    name: 'de: Gehäuse für große Platten',
    kind: 'enclosure',
    text: `Scheune 35
Festplattengehäuse für eine 3,5-Zoll-SATA-Festplatte bis 18 TB
USB 3.2 Gen 1 (5 Gbit/s), USB-B-Buchse
Netzteil 12 V / 2 A im Lieferumfang
Kein Lüfter
Aluminium
Gewicht: 650 g
USB-A-auf-USB-B-Kabel, 1 m`,
    stated: {
      formFactor: '3.5in',
      protocols: ['sata'],
      maxCapacityTB: 18,
      modes: ['usb-5g'],
      plug: 'usb-b',
      externalSupply: true,
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      weightG: 650,
      includedCables: [{ ends: ['usb-a', 'usb-b'], lengthM: 1 }]
    }
  },
  {
    name: 'de: Kabel',
    kind: 'cable',
    text: `USB-C-Kabel, USB-C auf USB-C
Länge: 0,8 m
Datenrate: 40 Gbit/s (USB4)
Passiv
Ladeleistung 240 W`,
    stated: { ends: ['usb-c', 'usb-c'], lengthM: 0.8, modes: ['usb4-40g'], active: false }
  },
  {
    name: 'de: Kabel mit zwei Steckern',
    kind: 'cable',
    text: `Anschlusskabel USB-A auf USB-C, 10 Gbit/s (USB 3.2 Gen 2), 1,0 m lang`,
    stated: { ends: ['usb-a', 'usb-c'], lengthM: 1, modes: ['usb-10g'] }
  },
  {
    name: 'de: Wärmeleitpad',
    kind: 'pad',
    text: `Wärmeleitpad
Maße: 100 x 50 x 1,5 mm
Wärmeleitfähigkeit: 7,5 W/mK
Härte: Shore 00 40
2 Stück`,
    stated: { widthMm: 100, lengthMm: 50, thicknessMm: 1.5, conductivityWmK: 7.5, shore00: 40, quantity: 2 }
  },
  {
    name: 'de: Rechner',
    kind: 'host',
    text: `Kamille 13 Notebook
Betriebssystem: Windows 11
Anschlüsse:
- 2 x Thunderbolt 4
- 1 x USB-A (USB 3.2 Gen 1, 5 Gbit/s)
- HDMI`,
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
    name: 'de: Laufwerk, Fließtext',
    kind: 'drive',
    text: `Die Granit X5 mit 1 TB ist eine NVMe-SSD im Format M.2 2280 (einseitig bestückt). Über PCIe 5.0 x4 liest sie mit bis zu
10.000 MB/s und schreibt mit bis zu 9.000 MB/s. Sie hat TLC-Speicher, einen eigenen DRAM-Cache und ist für 700 TBW ausgelegt. Die
Garantie beträgt fünf Jahre.`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      sides: 'single',
      capacityTB: 1,
      'pcie.generation': 5,
      'pcie.lanes': 4,
      readMBps: 10000,
      writeMBps: 9000,
      'flash.cell': 'tlc',
      'flash.dram': true,
      enduranceTBW: 700,
      warrantyYears: 5
    }
  },
  {
    name: 'de: Gehäuse im Fließtext',
    kind: 'enclosure',
    text: `Das Rinnsal 20 nimmt M.2-SSDs mit NVMe oder SATA auf (2242 bis 2280) und wird über USB-C mit 20 Gbit/s (USB 3.2 Gen 2x2)
angeschlossen. Der Aluminiumkörper kühlt passiv und wiegt 130 g. TRIM und UASP werden unterstützt. Ein USB-C-auf-USB-C-Kabel von
0,5 m Länge liegt bei.`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme', 'sata'],
      m2LengthsMm: [42, 60, 80],
      plug: 'usb-c',
      modes: ['usb-20g'],
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      weightG: 130,
      trim: true,
      uas: true,
      includedCables: [{ ends: ['usb-c', 'usb-c'], lengthM: 0.5 }]
    }
  },
  {
    name: 'de: doppelseitiges Laufwerk mit Kühlkörper',
    kind: 'drive',
    text: `Basaltkamm 4 TB mit Kühlkörper
M.2 2280, doppelseitig bestückt
PCIe 4.0 x4, NVMe
Lesen bis 7.400 MB/s / Schreiben bis 6.600 MB/s
Kühlkörperhöhe: 8,2 mm
3.000 TBW
Maximale Leistungsaufnahme: 9,5 W
Betriebstemperatur 0 °C – 70 °C
Garantie 5 Jahre`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      sides: 'double',
      capacityTB: 4,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      readMBps: 7400,
      writeMBps: 6600,
      heatsinkMm: 8.2,
      enduranceTBW: 3000,
      'power.peakW': 9.5,
      'operating.minC': 0,
      'operating.maxC': 70,
      warrantyYears: 5
    }
  },
  // French
  {
    name: 'fr: disque NVMe',
    kind: 'drive',
    text: `Ardoise N5 1 To
SSD NVMe, format M.2 2280
Interface : PCIe 4.0 x4
Vitesse de lecture : jusqu’à 7 000 Mo/s
Vitesse d’écriture : jusqu’à 5 500 Mo/s
Mémoire TLC
Cache DRAM : oui
Endurance : 600 TBW
Température de fonctionnement : 0 à 70 °C
Garantie 5 ans`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      capacityTB: 1,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      readMBps: 7000,
      writeMBps: 5500,
      'flash.cell': 'tlc',
      'flash.dram': true,
      enduranceTBW: 600,
      'operating.minC': 0,
      'operating.maxC': 70,
      warrantyYears: 5
    }
  },
  {
    name: 'fr: SSD SATA',
    kind: 'drive',
    text: `Galet S 500 Go
SSD 2,5 pouces SATA III (6 Gb/s), épaisseur 7 mm
Lecture : 550 Mo/s
Écriture : 480 Mo/s
QLC
120 TBW
Garantie : 3 ans`,
    stated: {
      media: 'sata-ssd',
      formFactor: '2.5in',
      thicknessMm: 7,
      sataGbps: 6,
      capacityTB: 0.5,
      readMBps: 550,
      writeMBps: 480,
      'flash.cell': 'qlc',
      enduranceTBW: 120,
      warrantyYears: 3
    }
  },
  {
    name: 'fr: disque dur',
    kind: 'drive',
    text: `Meulière 6 To
Disque dur 3,5 pouces
SATA 6 Gb/s
Vitesse de rotation : 5400 tr/min
Technologie d’enregistrement : SMR
Débit maximal : 185 Mo/s
Consommation : 4,8 W en activité, 3,2 W au repos
Garantie 2 ans`,
    stated: {
      media: 'hdd',
      formFactor: '3.5in',
      capacityTB: 6,
      sataGbps: 6,
      'disk.rpm': 5400,
      'disk.recording': 'smr',
      'disk.outerMBps': 185,
      'power.activeW': 4.8,
      'power.idleW': 3.2,
      warrantyYears: 2
    }
  },
  {
    name: 'fr: boîtier sans ventilateur',
    kind: 'enclosure',
    text: `Ruisseau 10G
Boîtier pour SSD M.2 NVMe (2230, 2242, 2260, 2280)
USB-C, USB 3.2 Gen 2, 10 Gbit/s
Sans ventilateur, aluminium
Montage sans outil
Compatible UASP et TRIM
Jusqu’à 4 To
Poids : 88 g
Câble USB-C vers USB-C de 30 cm et pad thermique de 1 mm fournis`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      m2LengthsMm: [30, 42, 60, 80],
      plug: 'usb-c',
      modes: ['usb-10g'],
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      retention: 'tool-less',
      uas: true,
      trim: true,
      maxCapacityTB: 4,
      weightG: 88,
      includedCables: [{ ends: ['usb-c', 'usb-c'], lengthM: 0.3 }],
      includedPads: [{ thicknessMm: 1 }]
    }
  },
  {
    name: 'fr: boîtier avec ventilateur',
    kind: 'enclosure',
    text: `Torrent 40
Boîtier USB4 40 Gbit/s pour SSD NVMe M.2 2280 (clé M)
Ventilateur intégré
Aluminium, 230 g
Capacité maximale : 8 To
Contenu : boîtier, câble USB4 de 0,5 m, pad thermique de 1,5 mm, tournevis`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      modes: ['usb4-40g'],
      m2LengthsMm: [80],
      m2Keys: ['M'],
      'cooling.kind': 'fan',
      'cooling.material': 'aluminium',
      weightG: 230,
      maxCapacityTB: 8,
      includedCables: [{ lengthM: 0.5 }],
      includedPads: [{ thicknessMm: 1.5 }]
    }
  },
  {
    name: 'fr: boîtier 2,5 pouces',
    kind: 'enclosure',
    text: `Noisetier
Boîtier 2,5 pouces pour disque dur ou SSD SATA
USB 3.0 (5 Gbit/s), prise Micro-B
Épaisseur maximale : 9,5 mm
Plastique
Sans outil
UASP
Câble USB-A vers Micro-B de 50 cm inclus
Poids 65 g`,
    stated: {
      formFactor: '2.5in',
      protocols: ['sata'],
      modes: ['usb-5g'],
      plug: 'micro-b',
      maxThicknessMm: 9.5,
      'cooling.material': 'plastic',
      retention: 'tool-less',
      uas: true,
      includedCables: [{ ends: ['usb-a', 'micro-b'], lengthM: 0.5 }],
      weightG: 65
    }
  },
  {
    name: 'fr: câble',
    kind: 'cable',
    text: `Câble USB-C vers USB-C
Longueur : 1 m
Débit : 20 Gbit/s (USB4 20 Gb/s)
Passif
Certifié`,
    stated: { ends: ['usb-c', 'usb-c'], lengthM: 1, modes: ['usb4-20g'], active: false, certified: true }
  },
  {
    name: 'fr: pad thermique',
    kind: 'pad',
    text: `Pad thermique
Dimensions : 100 x 100 x 1 mm
Conductivité thermique : 6 W/mK
Dureté : Shore 00 45
Lot de 2 pièces`,
    stated: { widthMm: 100, lengthMm: 100, thicknessMm: 1, conductivityWmK: 6, shore00: 45, quantity: 2 }
  },
  {
    name: 'fr: disque, phrase',
    kind: 'drive',
    text: `Le Calcaire 2 To est un SSD NVMe au format M.2 2280 simple face. En PCIe 3.0 x4, il lit jusqu’à 3 500 Mo/s et écrit jusqu’à
3 200 Mo/s. Mémoire QLC sans DRAM, 480 TBW, garantie 5 ans.`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      sides: 'single',
      capacityTB: 2,
      'pcie.generation': 3,
      'pcie.lanes': 4,
      readMBps: 3500,
      writeMBps: 3200,
      'flash.cell': 'qlc',
      'flash.dram': false,
      enduranceTBW: 480,
      warrantyYears: 5
    }
  },
  // Spanish
  {
    name: 'es: unidad NVMe',
    kind: 'drive',
    text: `Pizarra N6 2 TB
SSD NVMe, formato M.2 2280
Interfaz: PCIe 4.0 x4
Velocidad de lectura: hasta 7.100 MB/s
Velocidad de escritura: hasta 6.300 MB/s
Memoria TLC
Caché DRAM: sí
Resistencia: 1.200 TBW
Temperatura de funcionamiento: 0 a 70 °C
Garantía de 5 años`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      capacityTB: 2,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      readMBps: 7100,
      writeMBps: 6300,
      'flash.cell': 'tlc',
      'flash.dram': true,
      enduranceTBW: 1200,
      'operating.minC': 0,
      'operating.maxC': 70,
      warrantyYears: 5
    }
  },
  {
    name: 'es: SSD SATA',
    kind: 'drive',
    text: `Canto S 240 GB
SSD de 2,5 pulgadas, SATA III 6 Gb/s
Grosor: 7 mm
Lectura: 540 MB/s
Escritura: 450 MB/s
80 TBW
Garantía: 3 años`,
    stated: {
      media: 'sata-ssd',
      formFactor: '2.5in',
      sataGbps: 6,
      thicknessMm: 7,
      capacityTB: 0.24,
      readMBps: 540,
      writeMBps: 450,
      enduranceTBW: 80,
      warrantyYears: 3
    }
  },
  {
    name: 'es: disco duro',
    kind: 'drive',
    text: `Sillar 4 TB
Disco duro de 3,5 pulgadas
SATA 6 Gb/s
Velocidad de giro: 7200 rpm
Grabación CMR
Velocidad de transferencia: hasta 230 MB/s
Consumo: 7,1 W en funcionamiento, 5,0 W en reposo
Garantía de 5 años`,
    stated: {
      media: 'hdd',
      formFactor: '3.5in',
      capacityTB: 4,
      sataGbps: 6,
      'disk.rpm': 7200,
      'disk.recording': 'cmr',
      'disk.outerMBps': 230,
      'power.activeW': 7.1,
      'power.idleW': 5,
      warrantyYears: 5
    }
  },
  {
    name: 'es: caja sin ventilador',
    kind: 'enclosure',
    text: `Arroyo 10G
Caja para SSD M.2 NVMe (2230, 2242, 2260 y 2280)
USB-C, USB 3.2 Gen 2 de 10 Gbps
Sin ventilador, aluminio
Montaje sin herramientas
Compatible con UASP y TRIM
Hasta 4 TB
Peso: 92 g
Incluye cable USB-C a USB-C de 30 cm y almohadilla térmica de 1 mm`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      m2LengthsMm: [30, 42, 60, 80],
      plug: 'usb-c',
      modes: ['usb-10g'],
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      retention: 'tool-less',
      uas: true,
      trim: true,
      maxCapacityTB: 4,
      weightG: 92,
      includedCables: [{ ends: ['usb-c', 'usb-c'], lengthM: 0.3 }],
      includedPads: [{ thicknessMm: 1 }]
    }
  },
  {
    name: 'es: caja con ventilador',
    kind: 'enclosure',
    text: `Cascada 40
Carcasa USB4 de 40 Gbps para SSD NVMe M.2 2280 (clave M)
Ventilador integrado
Aluminio, 235 g
Capacidad máxima: 8 TB
Contenido: caja, cable USB4 de 0,8 m, almohadilla térmica de 1,5 mm`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      modes: ['usb4-40g'],
      m2LengthsMm: [80],
      m2Keys: ['M'],
      'cooling.kind': 'fan',
      'cooling.material': 'aluminium',
      weightG: 235,
      maxCapacityTB: 8,
      includedCables: [{ lengthM: 0.8 }],
      includedPads: [{ thicknessMm: 1.5 }]
    }
  },
  {
    name: 'es: caja de 2,5 pulgadas',
    kind: 'enclosure',
    text: `Avellano
Caja de 2,5 pulgadas para disco duro o SSD SATA
USB 3.0 (5 Gbps), conector Micro-B
Grosor máximo: 9,5 mm
Plástico
Sin herramientas
UASP
Cable USB-A a Micro-B de 50 cm incluido
Peso 72 g`,
    stated: {
      formFactor: '2.5in',
      protocols: ['sata'],
      modes: ['usb-5g'],
      plug: 'micro-b',
      maxThicknessMm: 9.5,
      'cooling.material': 'plastic',
      retention: 'tool-less',
      uas: true,
      includedCables: [{ ends: ['usb-a', 'micro-b'], lengthM: 0.5 }],
      weightG: 72
    }
  },
  {
    name: 'es: cable',
    kind: 'cable',
    text: `Cable USB-C a USB-C
Longitud: 2 m
Velocidad: 10 Gbps (USB 3.2 Gen 2)
Pasivo`,
    stated: { ends: ['usb-c', 'usb-c'], lengthM: 2, modes: ['usb-10g'], active: false }
  },
  {
    name: 'es: almohadilla',
    kind: 'pad',
    text: `Almohadilla térmica
Medidas: 100 x 50 x 2 mm
Conductividad térmica: 8 W/mK
Dureza: Shore 00 50
2 unidades`,
    stated: { widthMm: 100, lengthMm: 50, thicknessMm: 2, conductivityWmK: 8, shore00: 50, quantity: 2 }
  },
  {
    name: 'es: unidad en una frase',
    kind: 'drive',
    text: `El Mármol 1 TB es un SSD NVMe M.2 2280 de una cara. Con PCIe 4.0 x4 lee hasta a 5.000 MB/s y escribe hasta a 4.200 MB/s.
Memoria QLC sin DRAM, 300 TBW, garantía de 3 años.`,
    stated: {
      media: 'nvme',
      formFactor: 'm2',
      m2LengthMm: 80,
      sides: 'single',
      capacityTB: 1,
      'pcie.generation': 4,
      'pcie.lanes': 4,
      readMBps: 5000,
      writeMBps: 4200,
      'flash.cell': 'qlc',
      'flash.dram': false,
      enduranceTBW: 300,
      warrantyYears: 3
    }
  },
  // English again: what trips readers
  {
    name: 'en: name with a rate and a weight below',
    kind: 'enclosure',
    text: `Beck 20G Pro M.2 NVMe enclosure
20Gbps USB 3.2 Gen 2x2 Type-C
2280 only
Weight 20 g (bumper), enclosure 110 g
Aluminium
Fanless design
UASP: yes, TRIM: yes`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      modes: ['usb-20g'],
      plug: 'usb-c',
      m2LengthsMm: [80],
      'cooling.material': 'aluminium',
      'cooling.kind': 'passive',
      uas: true,
      trim: true
    },
    asked: { weightG: [20, 110] }
  },
  {
    name: 'en: 5G in the name is a rate, not grams',
    kind: 'enclosure',
    text: `Osier Case 5G
2.5" SATA enclosure
USB-C, 5Gbps
Without fan
Plastic
UASP: no
For 7 mm drives
Weighs 54 grams`,
    stated: {
      formFactor: '2.5in',
      protocols: ['sata'],
      plug: 'usb-c',
      modes: ['usb-5g'],
      'cooling.kind': 'passive',
      'cooling.material': 'plastic',
      uas: false,
      maxThicknessMm: 7,
      weightG: 54
    }
  },
  {
    name: 'en: wide temperature drive',
    kind: 'drive',
    text: `Scree Industrial SSD 256GB
M.2 2242 SATA, B+M key, single-sided
SLC NAND
Read 520 MB/s, write 480 MB/s
Wide temperature: -40 to +85 °C operating
Endurance 3,000 TBW
Active 2.1 W, idle 0.5 W`,
    stated: {
      media: 'sata-ssd',
      formFactor: 'm2',
      m2LengthMm: 42,
      m2Key: 'B+M',
      sides: 'single',
      capacityTB: 0.256,
      'flash.cell': 'slc',
      readMBps: 520,
      writeMBps: 480,
      'operating.minC': -40,
      'operating.maxC': 85,
      enduranceTBW: 3000,
      'power.activeW': 2.1,
      'power.idleW': 0.5
    }
  },
  {
    name: 'en: fan not included',
    kind: 'enclosure',
    text: `Thwaite USB4 enclosure
40 Gb/s USB4, USB-C
For NVMe M.2 2280, M key
Cooling: heat sink, fan not included
Aluminium, 205 g
Max. 8 TB
Toolless
Cable: USB-C to USB-C 0.5 m, 40 Gb/s`,
    stated: {
      formFactor: 'm2',
      protocols: ['nvme'],
      modes: ['usb4-40g'],
      plug: 'usb-c',
      m2LengthsMm: [80],
      m2Keys: ['M'],
      'cooling.kind': 'passive',
      'cooling.material': 'aluminium',
      weightG: 205,
      maxCapacityTB: 8,
      retention: 'tool-less',
      includedCables: [{ ends: ['usb-c', 'usb-c'], lengthM: 0.5 }]
    }
  }
];
