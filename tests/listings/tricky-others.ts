import { CHERT, type Listing } from './plain';

const INTERNAL = `/dev/disk0 (internal, physical):
   #:                       TYPE NAME                    SIZE       IDENTIFIER
   0:      GUID_partition_scheme                        *500.3 GB   disk0
   1:                 Apple_APFS Container disk3         494.4 GB   disk0s2
`;

/** What macOS and Windows show on a bad day. */
export const TRICKY_OTHERS: Listing[] = [
  {
    name: 'macOS, the plain list: no serial, no exact bytes, no root',
    text: `${INTERNAL}
/dev/disk4 (external, physical):
   #:                       TYPE NAME                    SIZE       IDENTIFIER
   0:      GUID_partition_scheme                        *2.0 TB     disk4
   1:       Microsoft Basic Data OLD                     2.0 TB     disk4s2`,
    expect: CHERT,
    system: 'macos',
    devices: { '/dev/disk0': null, '/dev/disk4': null },
    match: '/dev/disk4',
    sure: false,
    typed: [
      ['/dev/disk4', '2000398934016', 'identity'],
      ['/dev/disk0', '500', 'unsure']
    ]
  },
  {
    name: 'macOS, started from an external disk',
    text: `${INTERNAL}
/dev/disk4 (external, physical):
   #:                       TYPE NAME                    SIZE       IDENTIFIER
   0:      GUID_partition_scheme                        *2.0 TB     disk4
   1:                        EFI EFI                     209.7 MB   disk4s1
   2:                 Apple_APFS Container disk5         2.0 TB     disk4s2

/dev/disk5 (synthesized):
   #:                       TYPE NAME                    SIZE       IDENTIFIER
   0:      APFS Container Scheme -                      +2.0 TB     disk5
                                 Physical Store disk4s2
   1:                APFS Volume Spare                   9.6 GB     disk5s1
   2:              APFS Snapshot com.apple.os.update-... 9.6 GB     disk5s1s1

USB:
    Trivet 40:
      Serial Number: FH24A07733
      Media:
        Chert T4 2TB:
          Capacity: 2 TB (2,000,398,934,016 bytes)
          BSD Name: disk4`,
    expect: CHERT,
    system: 'macos',
    systemDisks: ['/dev/disk4'],
    match: null,
    typed: [['/dev/disk4', '7733', 'system-disk']]
  },
  {
    name: 'macOS, a spare system on an external disk while the inner one runs',
    text: `/dev/disk4 (external, physical):
   0:      GUID_partition_scheme                        *2.0 TB     disk4
   1:                 Apple_APFS Container disk5         2.0 TB     disk4s2
/dev/disk5 (synthesized):
   0:      APFS Container Scheme -                      +2.0 TB     disk5
                                 Physical Store disk4s2
   1:                APFS Volume Preboot                 1.6 GB     disk5s1

   Device Identifier:         disk0
   Device Node:               /dev/disk0
   Whole:                     Yes
   Part of Whole:             disk0
   Device / Media Name:       Marl Q4
   Disk Size:                 500.3 GB (500277792768 Bytes) (exactly 977105064 512-Byte-Units)
   Device Location:           Internal
   Protocol:                  Apple Fabric

   Device Identifier:         disk3s1s1
   Part of Whole:             disk3
   Whole:                     No
   Mount Point:               /
   APFS Physical Store:       disk0s2

USB:
    Trivet 40:
      Serial Number: FH24A07733
      Media:
        Chert T4 2TB:
          Capacity: 2 TB (2,000,398,934,016 bytes)
          BSD Name: disk4`,
    expect: CHERT,
    system: 'macos',
    systemDisks: ['/dev/disk0'],
    match: '/dev/disk4',
    sure: true,
    typed: [['/dev/disk4', '7733', 'open']]
  },
  {
    name: 'macOS in German: the buses in other words, points between thousands',
    text: `USB:

    USB 3.1 Bus:

        Trivet 40:

          Produkt-ID: 0x0500
          Seriennummer: FH24A07733
          Medien:
            Chert T4 2TB:
              Kapazität: 2 TB (2.000.398.934.016 Byte)
              BSD-Name: disk7`,
    expect: CHERT,
    system: 'macos',
    devices: { '/dev/disk7': 2000398934016 },
    match: '/dev/disk7',
    sure: true,
    typed: [['/dev/disk7', '7733', 'open']]
  },
  {
    name: 'macOS, a hub with a serial of its own above a drive without one',
    text: `USB:
    Desk hub:
      Serial Number: HUB-88812
      Speed: Up to 10 Gb/s
        Grate 10:
          Product ID: 0x0501
          Media:
            Marl Q4 4TB:
              Capacity: 4 TB (4,000,787,030,016 bytes)
              BSD Name: disk5`,
    expect: { capacityTB: 4, serial: 'MQ4T-10077' },
    system: 'macos',
    devices: { '/dev/disk5': 4000787030016 },
    match: '/dev/disk5',
    sure: false,
    typed: [
      ['/dev/disk5', '8812', 'identity'],
      ['/dev/disk5', '4000787030016', 'open']
    ]
  },
  {
    name: 'macOS, two drives in one case with one serial',
    text: `USB:
    Hob Dual:
      Serial Number: HD-770012
      Media:
        Chert T4 2TB:
          Capacity: 2 TB (2,000,398,934,016 bytes)
          BSD Name: disk4
        Marl Q4 4TB:
          Capacity: 4 TB (4,000,787,030,016 bytes)
          BSD Name: disk5`,
    expect: CHERT,
    system: 'macos',
    match: null,
    typed: [
      ['/dev/disk4', '0012', 'alike'],
      ['/dev/disk5', '0012', 'alike']
    ]
  },
  {
    name: 'macOS, a device asked by itself: exact bytes, no serial',
    text: `   Device Identifier:         disk4
   Device Node:               /dev/disk4
   Whole:                     Yes
   Part of Whole:             disk4
   Device / Media Name:       Chert T4 2TB

   Volume Name:               Not applicable (no file system)
   Mounted:                   Not applicable (no file system)
   Protocol:                  USB
   Disk Size:                 2.0 TB (2000398934016 Bytes) (exactly 3907029168 512-Byte-Units)
   Device Location:           External
   Removable Media:           Fixed`,
    expect: CHERT,
    system: 'macos',
    devices: { '/dev/disk4': 2000398934016 },
    match: '/dev/disk4',
    sure: false,
    typed: [['/dev/disk4', '2000398934016', 'open']]
  },
  {
    name: 'Windows in German: the plain list of the partitioning tool',
    text: `DISKPART> list disk

  Datenträger ###  Status         Größe    Frei     Dyn  GPT
  ---------------  -------------  -------  -------  ---  ---
  Datenträger 0    Online          931 GB      0 B        *
  Datenträger 1    Online         1863 GB  1863 GB`,
    // 1863 GB are 1863 x 1024^3 = 2000.4 x 10^9
    expect: CHERT,
    system: 'windows',
    devices: { 'Disk 0': null, 'Disk 1': null },
    match: 'Disk 1',
    sure: false,
    typed: [['Disk 1', '1863', 'unsure']]
  },
  {
    name: 'Windows in French: octets',
    text: `  N° disque  Statut         Taille   Libre    Dyn  GPT
  ---------  -------------  -------  -------  ---  ---
  Disque 0    En ligne       931 G octets      0 octets        *
  Disque 1    En ligne      1863 G octets   1024 K octets`,
    expect: CHERT,
    system: 'windows',
    devices: { 'Disk 0': null, 'Disk 1': null },
    match: 'Disk 1',
    sure: false,
    typed: [['Disk 1', '1863', 'unsure']]
  },
  {
    name: 'Windows, a serial that the window cut',
    text: `Number Friendly Name   Serial Number    Total Size Partition Style
------ -------------   -------------    ---------- ---------------
0      Marl Q4 1TB     MQ1T-55K20        931.51 GB GPT
1      Chert T4 2TB    FH24A0...           1.82 TB RAW`,
    expect: CHERT,
    system: 'windows',
    match: 'Disk 1',
    sure: false,
    warnings: ['cut-off'],
    typed: [
      ['Disk 1', '4A0...', 'identity'],
      ['Disk 1', '24A0', 'identity']
    ]
  },
  {
    name: 'Windows, one disk alone as JSON is no list',
    text: JSON.stringify({
      Number: 1,
      FriendlyName: 'Chert T4 2TB',
      SerialNumber: '  FH24A07733',
      Size: 2000398934016,
      BusType: 'USB',
      PartitionStyle: 'MBR'
    }),
    expect: CHERT,
    system: 'windows',
    devices: { 'Disk 1': 2000398934016 },
    match: 'Disk 1',
    sure: true,
    typed: [['Disk 1', '7733', 'open']]
  },
  {
    name: 'Windows, started from USB',
    text: JSON.stringify([
      {
        Number: 0,
        FriendlyName: 'Marl Q4 1TB',
        SerialNumber: 'MQ1T-55K20',
        Size: 1000204886016,
        BusType: 'NVMe',
        IsBoot: false,
        IsSystem: false,
        PartitionStyle: 'GPT'
      },
      {
        Number: 1,
        FriendlyName: 'Chert T4 2TB',
        SerialNumber: 'FH24A07733',
        Size: 2000398934016,
        BusType: 'USB',
        IsBoot: true,
        IsSystem: true,
        PartitionStyle: 'GPT'
      }
    ]),
    expect: CHERT,
    system: 'windows',
    systemDisks: ['Disk 1'],
    match: null,
    typed: [['Disk 1', '7733', 'system-disk']]
  },
  {
    name: 'Windows, a bus that gives every drive the same serial',
    text: JSON.stringify([
      { Number: 0, SerialNumber: 'MQ1T-55K20', Size: 1000204886016, BusType: 'NVMe', IsBoot: true, IsSystem: true },
      { Number: 1, SerialNumber: '152D00539000', Size: 2000398934016, BusType: 'USB', IsBoot: false },
      { Number: 2, SerialNumber: '152D00539000', Size: 2000398934016, BusType: 'USB', IsBoot: false }
    ]),
    expect: { capacityTB: 2, caseSerial: '152D00539000' },
    system: 'windows',
    match: null,
    warnings: ['look-alike'],
    typed: [
      ['Disk 1', '9000', 'alike'],
      ['Disk 2', '9000', 'alike']
    ]
  },
  {
    name: 'Windows, the serial of the case, known as the case shows it',
    text: JSON.stringify([
      { Number: 0, SerialNumber: 'MQ1T-55K20', Size: 1000204886016, BusType: 'NVMe', IsBoot: true, IsSystem: true },
      { Number: 1, SerialNumber: '152D0578E21C', Size: 2000398934016, BusType: 'USB', IsBoot: false, IsSystem: false }
    ]),
    expect: { ...CHERT, caseSerial: '152D0578E21C' },
    system: 'windows',
    match: 'Disk 1',
    sure: true,
    typed: [['Disk 1', 'E21C', 'open']]
  },
  {
    name: 'Windows, a list in which one number stands twice',
    text: JSON.stringify([
      { Number: 1, SerialNumber: 'MQ1T-55K20', Size: 1000204886016, BusType: 'USB' },
      { Number: 1, SerialNumber: 'FH24A07733', Size: 2000398934016, BusType: 'USB' }
    ]),
    expect: CHERT,
    system: 'windows',
    match: 'Disk 1',
    warnings: ['unreadable'],
    typed: [['Disk 1', '7733', 'unsure']]
  },
  {
    name: 'Windows, a list of letters of volumes',
    text: `DriveLetter FriendlyName FileSystemType DriveType HealthStatus SizeRemaining      Size
----------- ------------ -------------- --------- ------------ -------------      ----
C                        NTFS           Fixed     Healthy          411.12 GB 930.53 GB
E           OLD          exFAT          Removable Healthy            1.01 TB   1.82 TB`,
    expect: CHERT,
    system: 'windows',
    match: null,
    warnings: ['unreadable'],
    typed: [['E', '7733', 'unsure']]
  },
  {
    name: 'nothing at all',
    text: '',
    expect: CHERT,
    system: null,
    match: null,
    warnings: ['unreadable'],
    typed: [['/dev/sda', '7733', 'unsure']]
  },
  {
    name: 'a letter instead of a listing',
    text: 'Dear desk, the drive is the one with the green tag: NAME it as you like, SIZE about two terabytes.',
    expect: CHERT,
    system: null,
    match: null,
    typed: [['/dev/sda', '7733', 'unsure']]
  },
  {
    name: 'JSON of something else',
    text: '{"models":[{"name":"sda","serial":"FH24A07733"}]}',
    expect: CHERT,
    system: null,
    match: null,
    typed: [['/dev/sda', '7733', 'unsure']]
  },
  {
    name: 'brackets without an end',
    text: '[[[[{{{{"blockdevices":',
    expect: CHERT,
    system: null,
    match: null,
    typed: [['sda', '7733', 'unsure']]
  }
];
