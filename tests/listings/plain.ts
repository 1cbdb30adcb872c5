import type { Expected, ListedSystem, ListingWarning } from '../../core/listing/device';

/** A listing of our own making, what is looked for in it, and what must come of it. */
export type Listing = {
  name: string;
  text: string;
  expect?: Expected;
  system: ListedSystem | null;
  /** Whole devices with their exact bytes, or null where they are rounded. */
  devices?: Record<string, number | null>;
  systemDisks?: string[];
  match: string | null;
  sure?: boolean;
  warnings?: ListingWarning['code'][];
  /** What is typed for which device, and whether it unlocks, or why not. */
  typed?: [device: string, identity: string, result: 'open' | 'identity' | 'alike' | 'system-disk' | 'unsure'][];
};

export const CHERT: Expected = { capacityTB: 2, bytes: 2000398934016, model: 'Chert T4 2TB', serial: 'FH24A07733' };

/** As they come out of a terminal, whole and with a serial. */
export const PLAIN: Listing[] = [
  {
    name: 'Linux, the columns that are asked for',
    text: `NAME                 SIZE TYPE TRAN   RM MODEL        SERIAL      MOUNTPOINTS
sda         500107862016 disk sata    0 Loam S6 500  LM500-118A7
├─sda1         536870912 part         0                          /boot/efi
└─sda2      499570991104 part         0                          /
sdb        2000398934016 disk usb     0 Chert T4 2TB FH24A07733
└─sdb1     2000397795328 part         0                          /media/desk/OLD`,
    expect: CHERT,
    system: 'linux',
    devices: { '/dev/sda': 500107862016, '/dev/sdb': 2000398934016 },
    systemDisks: ['/dev/sda'],
    match: '/dev/sdb',
    sure: true,
    warnings: ['system-disk', 'in-use'],
    typed: [
      ['/dev/sdb', '7733', 'open'],
      ['sdb', 'fh24a07733', 'open'],
      ['/dev/sdb', '733', 'identity'],
      ['/dev/sdb', '18A7', 'identity'],
      ['/dev/sda', '18A7', 'system-disk'],
      ['/dev/sdb1', '7733', 'unsure'],
      ['/dev/sdc', '7733', 'unsure']
    ]
  },
  {
    name: 'Linux, as the tool lists by itself: no serial, sizes in TiB that it calls T',
    text: `NAME        MAJ:MIN RM   SIZE RO TYPE MOUNTPOINTS
sda           8:0    0   1.8T  0 disk
nvme0n1     259:0    0 931.5G  0 disk
├─nvme0n1p1 259:1    0   512M  0 part /boot/efi
└─nvme0n1p2 259:2    0   931G  0 part /`,
    // 1.8 T are 1.8 x 1024^4 = 1979.1 GB, 1 % below 2000
    expect: { capacityTB: 2 },
    system: 'linux',
    devices: { '/dev/sda': null, '/dev/nvme0n1': null },
    systemDisks: ['/dev/nvme0n1'],
    match: '/dev/sda',
    sure: false,
    typed: [
      ['/dev/sda', '2000398934016', 'identity'],
      ['/dev/sda', '1.8T', 'identity']
    ]
  },
  {
    name: 'Linux, JSON',
    text: JSON.stringify({
      blockdevices: [
        {
          name: 'nvme0n1',
          size: 1000204886016,
          type: 'disk',
          tran: 'nvme',
          rm: false,
          model: 'Marl Q4 1TB',
          serial: 'MQ1T-55K20',
          mountpoints: [null],
          children: [{ name: 'nvme0n1p1', size: 1000203837440, type: 'part', mountpoints: ['/'] }]
        },
        {
          name: 'sda',
          size: 2000398934016,
          type: 'disk',
          tran: 'usb',
          rm: false,
          model: 'Chert T4 2TB',
          serial: 'FH24A07733',
          mountpoints: [null]
        }
      ]
    }),
    expect: CHERT,
    system: 'linux',
    devices: { '/dev/nvme0n1': 1000204886016, '/dev/sda': 2000398934016 },
    systemDisks: ['/dev/nvme0n1'],
    match: '/dev/sda',
    sure: true,
    typed: [
      ['/dev/sda', '07733', 'open'],
      ['/dev/nvme0n1', '5K20', 'system-disk']
    ]
  },
  {
    name: 'Linux, pairs',
    text: `NAME="sda" SIZE="1000204886016" TYPE="disk" TRAN="sata" MODEL="Loam S6 1TB" SERIAL="LM1T-900C4" MOUNTPOINTS="" PKNAME=""
NAME="sda1" SIZE="1000203837440" TYPE="part" TRAN="" MODEL="" SERIAL="" MOUNTPOINTS="/" PKNAME="sda"
NAME="sdc" SIZE="2000398934016" TYPE="disk" TRAN="usb" MODEL="Chert\\x20T4\\x202TB" SERIAL="FH24A07733" MOUNTPOINTS="" PKNAME=""`,
    expect: CHERT,
    system: 'linux',
    devices: { '/dev/sda': 1000204886016, '/dev/sdc': 2000398934016 },
    systemDisks: ['/dev/sda'],
    match: '/dev/sdc',
    sure: true,
    typed: [['/dev/sdc', '7733', 'open']]
  },
  {
    name: 'macOS, list, root and buses in one paste',
    text: `/dev/disk0 (internal, physical):
   #:                       TYPE NAME                    SIZE       IDENTIFIER
   0:      GUID_partition_scheme                        *500.3 GB   disk0
   1:             Apple_APFS_ISC Container disk2         524.3 MB   disk0s1
   2:                 Apple_APFS Container disk3         494.4 GB   disk0s2

/dev/disk3 (synthesized):
   #:                       TYPE NAME                    SIZE       IDENTIFIER
   0:      APFS Container Scheme -                      +494.4 GB   disk3
                                 Physical Store disk0s2
   1:                APFS Volume Macintosh HD            9.6 GB     disk3s1
   2:              APFS Snapshot com.apple.os.update-... 9.6 GB     disk3s1s1
   3:                APFS Volume Preboot                 6.1 GB     disk3s2

/dev/disk4 (external, physical):
   #:                       TYPE NAME                    SIZE       IDENTIFIER
   0:      GUID_partition_scheme                        *2.0 TB     disk4
   1:                        EFI EFI                     209.7 MB   disk4s1
   2:       Microsoft Basic Data OLD                     2.0 TB     disk4s2

   Device Identifier:         disk3s1s1
   Device Node:               /dev/disk3s1s1
   Whole:                     No
   Part of Whole:             disk3
   Mount Point:               /
   APFS Physical Store:       disk0s2

USB:

    USB 3.1 Bus:

        Trivet 40:

          Product ID: 0x0500
          Serial Number: FH24A07733
          Speed: Up to 10 Gb/s
          Media:
            Chert T4 2TB:
              Capacity: 2 TB (2,000,398,934,016 bytes)
              Removable Media: No
              BSD Name: disk4
              Volumes:
                OLD:
                  Capacity: 2 TB (2,000,188,137,472 bytes)
                  BSD Name: disk4s2
                  Mount Point: /Volumes/OLD`,
    expect: CHERT,
    system: 'macos',
    devices: { '/dev/disk0': null, '/dev/disk4': 2000398934016 },
    systemDisks: ['/dev/disk0'],
    match: '/dev/disk4',
    sure: true,
    warnings: ['system-disk', 'in-use'],
    typed: [
      ['/dev/disk4', '7733', 'open'],
      ['disk4', '7733', 'open'],
      ['/dev/disk0', '7733', 'system-disk'],
      ['/dev/disk4s2', '7733', 'unsure'],
      ['/dev/disk3', '7733', 'unsure']
    ]
  },
  {
    name: 'macOS, the report about USB as JSON',
    text: JSON.stringify({
      SPUSBDataType: [
        {
          _name: 'USB31Bus',
          _items: [
            {
              _name: 'Trivet 40',
              serial_num: 'FH24A07733',
              Media: [
                {
                  _name: 'Chert T4 2TB',
                  bsd_name: 'disk6',
                  size: '2 TB',
                  size_in_bytes: 2000398934016,
                  removable_media: 'no',
                  volumes: [
                    { _name: 'OLD', bsd_name: 'disk6s2', mount_point: '/Volumes/OLD', size_in_bytes: 2000188137472 }
                  ]
                }
              ]
            }
          ]
        }
      ]
    }),
    expect: CHERT,
    system: 'macos',
    devices: { '/dev/disk6': 2000398934016 },
    match: '/dev/disk6',
    sure: true,
    typed: [['/dev/disk6', '07733', 'open']]
  },
  {
    name: 'Windows, JSON of the shell',
    text: JSON.stringify([
      {
        Number: 0,
        FriendlyName: 'Marl Q4 1TB',
        SerialNumber: 'MQ1T-55K20.',
        Size: 1000204886016,
        BusType: 17,
        PartitionStyle: 2,
        IsBoot: true,
        IsSystem: true
      },
      {
        Number: 2,
        FriendlyName: 'Chert T4 2TB',
        SerialNumber: 'FH24A07733',
        Size: 2000398934016,
        BusType: 'USB',
        PartitionStyle: 'GPT',
        IsBoot: false,
        IsSystem: false
      }
    ]),
    expect: CHERT,
    system: 'windows',
    devices: { 'Disk 0': 1000204886016, 'Disk 2': 2000398934016 },
    systemDisks: ['Disk 0'],
    match: 'Disk 2',
    sure: true,
    typed: [
      ['2', '7733', 'open'],
      ['Disk 2', '7733', 'open'],
      ['\\\\.\\PHYSICALDRIVE2', '7733', 'open'],
      ['Disk 0', '5K20', 'system-disk'],
      ['Disk 1', '7733', 'unsure']
    ]
  },
  {
    name: 'Windows, a list of properties',
    text: `Number             : 0
FriendlyName       : Marl Q4 1TB
SerialNumber       : MQ1T-55K20
Size               : 1000204886016
BusType            : NVMe
PartitionStyle     : GPT
IsBoot             : True
IsSystem           : True

Number             : 1
FriendlyName       : Chert T4 2TB
SerialNumber       : FH24A07733
Size               : 2000398934016
BusType            : USB
PartitionStyle     : RAW
IsBoot             : False
IsSystem           : False`,
    expect: CHERT,
    system: 'windows',
    devices: { 'Disk 0': 1000204886016, 'Disk 1': 2000398934016 },
    systemDisks: ['Disk 0'],
    match: 'Disk 1',
    sure: true,
    typed: [['Disk 1', '7733', 'open']]
  },
  {
    name: 'Windows, the table of the shell: it does not say where the system runs',
    text: `Number Friendly Name Serial Number                    HealthStatus         OperationalStatus      Total Size Partition
                                                                                                             Style
------ ------------- -------------                    ------------         -----------------      ---------- ----------
0      Marl Q4 1TB   MQ1T-55K20                       Healthy              Online                  931.51 GB GPT
1      Chert T4 2TB  FH24A07733                       Healthy              Online                    1.82 TB RAW
2      Loam S6 1TB   LM1T-900C4                       Healthy              Online                  931.51 GB MBR`,
    expect: CHERT,
    system: 'windows',
    devices: { 'Disk 0': null, 'Disk 1': null, 'Disk 2': null },
    match: 'Disk 1',
    sure: true,
    typed: [
      // without partitions it can hold no system
      ['Disk 1', '7733', 'open'],
      ['Disk 2', '00C4', 'unsure'],
      ['Disk 0', '5K20', 'unsure']
    ]
  },
  {
    name: 'Windows, the older table, in the order of the alphabet',
    text: `Index  InterfaceType  Model         SerialNumber  Size
0      SCSI           Marl Q4 1TB   MQ1T-55K20    1000202273280
1      USB            Chert T4 2TB  FH24A07733    2000396321280`,
    expect: { capacityTB: 2, serial: 'FH24A07733' },
    system: 'windows',
    devices: { 'Disk 0': 1000202273280, 'Disk 1': 2000396321280 },
    match: 'Disk 1',
    sure: true,
    typed: [
      ['Disk 1', '7733', 'open'],
      ['Disk 0', '5K20', 'unsure']
    ]
  },
  {
    name: 'Windows, a table with the columns that are asked for',
    text: `PS C:\\Users\\desk> Get-Disk | Select-Object Number,FriendlyName,SerialNumber,Size,BusType,IsBoot | Format-Table

Number FriendlyName SerialNumber          Size BusType IsBoot
------ ------------ ------------          ---- ------- ------
     0 Marl Q4 1TB  MQ1T-55K20   1000204886016 NVMe      True
     3 Chert T4 2TB FH24A07733   2000398934016 USB      False

PS C:\\Users\\desk>`,
    expect: CHERT,
    system: 'windows',
    devices: { 'Disk 0': 1000204886016, 'Disk 3': 2000398934016 },
    systemDisks: ['Disk 0'],
    match: 'Disk 3',
    sure: true,
    typed: [['Disk 3', '7733', 'open']]
  },
  {
    name: 'Windows, values parted by commas',
    text: `Node,Index,InterfaceType,Model,SerialNumber,Size
DRIFT,0,SCSI,Marl Q4 1TB,MQ1T-55K20,1000202273280
DRIFT,1,USB,Chert T4 2TB,FH24A07733,2000396321280`,
    expect: { capacityTB: 2, serial: 'FH24A07733' },
    system: 'windows',
    devices: { 'Disk 0': 1000202273280, 'Disk 1': 2000396321280 },
    match: 'Disk 1',
    sure: true,
    typed: [['Disk 1', 'A07733', 'open']]
  }
];
