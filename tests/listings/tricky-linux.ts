import { CHERT, type Listing } from './plain';

const HEAD = 'NAME                 SIZE TYPE TRAN RM MODEL        SERIAL      MOUNTPOINTS';
const ROOT = `sda         500107862016 disk sata  0 Loam S6 500  LM500-118A7
└─sda1      500106813440 part       0                          /`;

/** What a Linux shows on a bad day. */
export const TRICKY_LINUX: Listing[] = [
  {
    name: 'two alike in everything but their serial',
    text: `${HEAD}
${ROOT}
sdb        2000398934016 disk usb   0 Chert T4 2TB FH24A07733
sdc        2000398934016 disk usb   0 Chert T4 2TB FH24A07734`,
    expect: CHERT,
    system: 'linux',
    match: '/dev/sdb',
    sure: true,
    warnings: ['look-alike'],
    typed: [
      ['/dev/sdb', '7733', 'open'],
      ['/dev/sdb', '7734', 'identity'],
      ['/dev/sdc', '7734', 'open'],
      ['/dev/sdc', '2000398934016', 'identity']
    ]
  },
  {
    name: 'two of one serial',
    text: `${HEAD}
${ROOT}
sdb        2000398934016 disk usb   0 Chert T4 2TB FH24A07733
sdc        4000787030016 disk usb   0 Chert T4 4TB FH24A07733`,
    expect: CHERT,
    system: 'linux',
    match: null,
    warnings: ['look-alike'],
    typed: [
      ['/dev/sdb', '7733', 'alike'],
      ['/dev/sdc', 'FH24A07733', 'alike']
    ]
  },
  {
    name: 'a serial that ends like that of another: more has to be typed',
    text: `${HEAD}
${ROOT}
sdb        2000398934016 disk usb   0 Chert T4 2TB FH24A07733
sdc        1000204886016 disk usb   0 Loam S6 1TB  LM1TB07733`,
    expect: CHERT,
    system: 'linux',
    match: '/dev/sdb',
    typed: [
      ['/dev/sdb', '7733', 'alike'],
      ['/dev/sdb', 'A07733', 'open'],
      ['/dev/sdc', '7733', 'alike'],
      ['/dev/sdc', 'B07733', 'open']
    ]
  },
  {
    name: 'two without a serial and of one size',
    text: `${HEAD}
${ROOT}
sdb        2000398934016 disk usb   0
sdc        2000398934016 disk usb   0`,
    expect: CHERT,
    system: 'linux',
    match: null,
    warnings: ['look-alike'],
    typed: [
      ['/dev/sdb', '2000398934016', 'alike'],
      ['/dev/sdc', '', 'alike']
    ]
  },
  {
    name: 'one without a serial: its exact bytes say which it is',
    text: `${HEAD}
${ROOT}
sdb        2000398934016 disk usb   0`,
    expect: CHERT,
    system: 'linux',
    match: '/dev/sdb',
    sure: false,
    typed: [
      ['/dev/sdb', '2000398934016', 'open'],
      ['/dev/sdb', '2 000 398 934 016 bytes', 'open'],
      ['/dev/sdb', '2000398934015', 'identity'],
      ['/dev/sdb', '2', 'identity']
    ]
  },
  {
    name: 'bytes are no identity where a serial is shown',
    text: `${HEAD}
${ROOT}
sdb        2000398934016 disk usb   0 Chert T4 2TB FH24A07733`,
    expect: CHERT,
    system: 'linux',
    match: '/dev/sdb',
    typed: [['/dev/sdb', '2000398934016', 'identity']]
  },
  {
    name: 'a filler for a serial, and one that counts up',
    text: `${HEAD}
${ROOT}
sdb        2000398934016 disk usb   0 Trivet 40    0123456789A
sdc        1000204886016 disk usb   0 Grate 10     000000000000`,
    expect: CHERT,
    system: 'linux',
    match: null,
    typed: [
      ['/dev/sdb', '789A', 'identity'],
      ['/dev/sdb', '2000398934016', 'open'],
      ['/dev/sdc', '0000', 'identity']
    ]
  },
  {
    name: 'a serial of one character, and one that is the placeholder',
    text: `${HEAD}
${ROOT}
sdb        2000398934016 disk usb   0 Trivet 40    7
sdc        1000204886016 disk usb   0 Grate 10     DEVICE`,
    expect: { capacityTB: 2, serial: '7' },
    system: 'linux',
    match: '/dev/sdb',
    sure: false,
    typed: [
      ['/dev/sdb', '7', 'identity'],
      ['/dev/sdc', 'DEVICE', 'identity'],
      ['/dev/sdc', 'VICE', 'identity'],
      ['DEVICE', 'DEVICE', 'unsure']
    ]
  },
  {
    name: 'the system on an external disk',
    text: `NAME            SIZE TYPE TRAN RM MODEL        SERIAL     MOUNTPOINTS
sda    2000398934016 disk usb   0 Chert T4 2TB FH24A07733
├─sda1     536870912 part       0                         /boot/efi
└─sda2 1999861013504 part       0                         /
sdb    1000204886016 disk usb   0 Loam S6 1TB  LM1T-900C4`,
    expect: CHERT,
    system: 'linux',
    systemDisks: ['/dev/sda'],
    match: null,
    typed: [
      ['/dev/sda', '7733', 'system-disk'],
      ['/dev/sda', 'FH24A07733', 'system-disk'],
      ['/dev/sdb', '00C4', 'open']
    ]
  },
  {
    name: 'the system in an encrypted volume group',
    text: `NAME                  SIZE TYPE  MODEL       SERIAL     MOUNTPOINTS
nvme0n1      1000204886016 disk  Marl Q4 1TB MQ1T-55K20
├─nvme0n1p1      536870912 part                         /boot/efi
└─nvme0n1p2   999666221056 part
  └─luks-9f   999649443840 crypt
    ├─vg-swap   8589934592 lvm                          [SWAP]
    └─vg-root 991059509248 lvm                          /
sda          2000398934016 disk  Chert T4 2T FH24A07733`,
    expect: CHERT,
    system: 'linux',
    systemDisks: ['/dev/nvme0n1'],
    match: '/dev/sda',
    typed: [
      ['/dev/sda', '7733', 'open'],
      ['/dev/nvme0n1', '5K20', 'system-disk']
    ]
  },
  {
    name: 'a disk of a volume group of its own',
    text: `NAME             SIZE TYPE MODEL        SERIAL      MOUNTPOINTS
sda      500107862016 disk Loam S6 500  LM500-118A7
└─sda1   500106813440 part                          /
sdb     2000398934016 disk Chert T4 2TB FH24A07733
└─sdb1  2000397795328 part
  └─vg0 2000393601024 lvm                           /srv/scans`,
    expect: CHERT,
    system: 'linux',
    match: '/dev/sdb',
    typed: [['/dev/sdb', '7733', 'unsure']]
  },
  {
    name: 'the same disk mounted in two places, one under the other',
    text: `NAME            SIZE TYPE MODEL        SERIAL      MOUNTPOINTS
sda     500107862016 disk Loam S6 500  LM500-118A7
└─sda1  500106813440 part                          /home
                                                   /
sdb    2000398934016 disk Chert T4 2TB FH24A07733`,
    expect: CHERT,
    system: 'linux',
    systemDisks: ['/dev/sda'],
    match: '/dev/sdb',
    typed: [['/dev/sdb', '7733', 'open']]
  },
  {
    name: 'branches in plain characters, other columns in another order',
    text: `SERIAL      NAME             SIZE MOUNTPOINT      TYPE
LM500-118A7 sda      500107862016                 disk
            |-sda1      536870912 /boot           part
            \`-sda2   499569942528 /               part
FH24A07733  sdb     2000398934016                 disk
            \`-sdb1  2000397795328 /media/x/OLD 2  part`,
    expect: CHERT,
    system: 'linux',
    devices: { '/dev/sda': 500107862016, '/dev/sdb': 2000398934016 },
    systemDisks: ['/dev/sda'],
    match: '/dev/sdb',
    sure: true,
    typed: [['/dev/sdb', '7733', 'open']]
  },
  {
    name: 'the tree on its head: what is mounted stands above its disk',
    text: `NAME            SIZE TYPE MODEL        SERIAL      MOUNTPOINTS
sda1    500106813440 part                          /
└─sda   500107862016 disk Loam S6 500  LM500-118A7
sdb1   2000397795328 part
└─sdb  2000398934016 disk Chert T4 2TB FH24A07733`,
    expect: CHERT,
    system: 'linux',
    systemDisks: ['/dev/sda'],
    match: '/dev/sdb',
    typed: [
      ['/dev/sda', '18A7', 'system-disk'],
      ['/dev/sdb', '7733', 'open']
    ]
  },
  {
    name: 'a flat list with parents named',
    text: `NAME  PKNAME          SIZE TYPE MODEL        SERIAL      MOUNTPOINT
sda           500107862016 disk Loam S6 500  LM500-118A7
sda1  sda     500106813440 part                          /
sdb          2000398934016 disk Chert T4 2TB FH24A07733
sdb1  sdb    2000397795328 part                          /mnt/old`,
    expect: CHERT,
    system: 'linux',
    systemDisks: ['/dev/sda'],
    match: '/dev/sdb',
    warnings: ['in-use'],
    typed: [['/dev/sdb', '7733', 'open']]
  },
  {
    name: 'a decimal comma and rounded sizes',
    text: `NAME     SIZE TYPE TRAN MODEL        SERIAL      MOUNTPOINTS
sda    465,8G disk sata Loam S6 500  LM500-118A7
└─sda1 465,8G part                               /
sdb      1,8T disk usb  Chert T4 2TB FH24A07733`,
    expect: CHERT,
    system: 'linux',
    devices: { '/dev/sda': null, '/dev/sdb': null },
    match: '/dev/sdb',
    sure: true,
    typed: [['/dev/sdb', '7733', 'open']]
  },
  {
    name: 'lines broken by a terminal of 80 columns',
    text: `NAME                 SIZE TYPE TRAN   RM MODEL                    SERIAL      MO
UNTPOINTS
sda         500107862016 disk sata    0 Loam S6 500              LM500-118A7
└─sda1      500106813440 part         0                                      /
sdb        2000398934016 disk usb     0 Chert T4 2TB             FH24A07733
└─sdb1     2000397795328 part         0                                      /me
dia/desk/OLD`,
    expect: CHERT,
    system: 'linux',
    systemDisks: ['/dev/sda'],
    match: '/dev/sdb',
    typed: [['/dev/sdb', '7733', 'open']]
  },
  {
    name: 'pairs broken by a terminal of 80 columns: where the system runs stands on the next line',
    text: `NAME="sda" SIZE="2000398934016" TYPE="disk" TRAN="usb" MODEL="Chert T4 2TB" SERI
AL="FH24A07733" MOUNTPOINTS="" PKNAME=""
NAME="sda1" SIZE="2000397795328" TYPE="part" TRAN="" MODEL="" SERIAL="" MOUNTPOI
NTS="/" PKNAME="sda"
NAME="sdb" SIZE="1000204886016" TYPE="disk" TRAN="usb" MODEL="Loam S6 1TB" SERIA
L="LM1T-900C4" MOUNTPOINTS="" PKNAME=""`,
    expect: CHERT,
    system: 'linux',
    devices: { '/dev/sda': 2000398934016, '/dev/sdb': 1000204886016 },
    systemDisks: ['/dev/sda'],
    match: null,
    typed: [
      ['/dev/sda', '7733', 'system-disk'],
      ['/dev/sdb', '00C4', 'open']
    ]
  },
  {
    name: 'pairs of which some lines lost their end',
    text: `NAME="sda" SIZE="2000398934016" TYPE="disk" TRAN="usb" SERIAL="FH24A07733" MOUNTPOINTS=""
NAME="sda1" SIZE="2000397795328" TYPE="part" TRAN="" SERIAL=""
NAME="sdb" SIZE="1000204886016" TYPE="disk" TRAN="usb" SERIAL="LM1T-900C4" MOUNTPOINTS=""`,
    expect: CHERT,
    system: 'linux',
    match: null,
    warnings: ['unreadable'],
    typed: [['/dev/sda', '7733', 'unsure']]
  },
  {
    name: 'JSON broken by a terminal within its words',
    text: `{"blockdevices":[{"name":"sda","size":500107862016,"type":"disk","tran":"sata","ser
ial":"LM500-118A7","mountpoints":[null],"children":[{"name":"sda1","size":1,"type":
"part","mountpoints":["/"]}]},{"name":"sdb","size":2000398934016,"type":"disk","tra
n":"usb","serial":"FH24A07733","mountpoints":[null]}]}`,
    expect: CHERT,
    system: 'linux',
    systemDisks: ['/dev/sda'],
    match: '/dev/sdb',
    sure: true,
    typed: [['/dev/sdb', '7733', 'open']]
  },
  {
    name: 'cut in the middle of its last line',
    text: `${HEAD}
${ROOT}
sdb        2000398934016 disk usb   0 Chert T4 2TB FH24A07733
sdc        40007870300`,
    expect: CHERT,
    system: 'linux',
    match: '/dev/sdb',
    warnings: ['cut-off'],
    // the last one that is whole may have gone on
    typed: [['/dev/sdb', '7733', 'unsure']]
  },
  {
    name: 'cut where a branch goes on',
    text: `${HEAD}
${ROOT}
sdb        2000398934016 disk usb   0 Chert T4 2TB FH24A07733
├─sdb1         536870912 part       0`,
    expect: CHERT,
    system: 'linux',
    match: '/dev/sdb',
    warnings: ['cut-off'],
    typed: [['/dev/sdb', '7733', 'unsure']]
  },
  {
    name: 'JSON cut before its end',
    text: '{"blockdevices": [{"name":"sda","size":500107862016,"type":"disk","tran":"sata","serial":"LM500-118A7","mountpoints":[null],"children":[{"name":"sda1","size":500106813440,"type":"part","mountpoints":["/"]}]},{"name":"sdb","size":2000398934016,"type":"disk","tran":"usb","serial":"FH24A07733","mountpoints":[null],"children":[{"name":"sdb1","size":1,"type":"part","mountpo',
    expect: CHERT,
    system: 'linux',
    match: null,
    warnings: ['cut-off'],
    typed: [['/dev/sdb', '7733', 'unsure']]
  },
  {
    name: 'no column of places: only what is external can be meant',
    text: `NAME            SIZE TYPE TRAN MODEL        SERIAL
sda     500107862016 disk sata Loam S6 500  LM500-118A7
└─sda1  500106813440 part
sdb    2000398934016 disk usb  Chert T4 2TB FH24A07733
└─sdb1 2000397795328 part`,
    expect: CHERT,
    system: 'linux',
    match: '/dev/sdb',
    typed: [
      ['/dev/sdb', '7733', 'open'],
      ['/dev/sda', '18A7', 'unsure']
    ]
  },
  {
    name: 'started from a stick: the root is nowhere in the list',
    text: `NAME            SIZE TYPE TRAN RM MODEL        SERIAL      MOUNTPOINTS
loop0     2147483648 loop       0                          /run/live/rootfs
sda     500107862016 disk sata  0 Loam S6 500  LM500-118A7
└─sda1  500106813440 part       0
sdb      32015679488 disk usb   1 Silt Stick   SK32-4471B
└─sdb1   32014630912 part       1                          /run/live/medium
sdc    2000398934016 disk usb   0 Chert T4 2TB FH24A07733`,
    expect: CHERT,
    system: 'linux',
    systemDisks: ['/dev/sdb'],
    match: '/dev/sdc',
    typed: [
      ['/dev/sdc', '7733', 'open'],
      ['/dev/sda', '18A7', 'unsure'],
      ['/dev/sdb', '471B', 'system-disk']
    ]
  },
  {
    name: 'partition tables, in German: no serial, no place',
    text: `Festplatte /dev/sda: 465,76 GiB, 500107862016 Bytes, 976773168 Sektoren
Festplattenmodell: Loam S6 500
Einheiten: Sektoren von 1 * 512 = 512 Bytes
Festplattenbezeichnungstyp: gpt
Gerät        Anfang      Ende   Sektoren  Größe Typ
/dev/sda1      2048 976771071  976769024 465,8G Linux

Festplatte /dev/sdb: 1,82 TiB, 2000398934016 Bytes, 3907029168 Sektoren
Festplattenmodell: Chert T4 2TB
Einheiten: Sektoren von 1 * 512 = 512 Bytes

Festplatte /dev/sdc: 931,51 GiB, 1000204886016 Bytes, 1953525168 Sektoren
Festplattenmodell: Loam S6 1TB`,
    expect: { capacityTB: 2, bytes: 2000398934016, model: 'Chert T4 2TB' },
    system: 'linux',
    devices: { '/dev/sda': 500107862016, '/dev/sdb': 2000398934016, '/dev/sdc': 1000204886016 },
    match: '/dev/sdb',
    sure: false,
    typed: [
      // nothing on it, and the next one follows
      ['/dev/sdb', '2000398934016', 'open'],
      ['/dev/sda', '500107862016', 'unsure'],
      // the last one may have been cut
      ['/dev/sdc', '1000204886016', 'unsure']
    ]
  },
  {
    name: 'a capacity that the bridge cuts off',
    text: `${HEAD}
${ROOT}
sdb        2199023255040 disk usb   0 Chert T4 4TB FH24A07733`,
    // a bridge of 2^32 sectors of 512 B ends at 2199 GB; the drive has 4 TB
    expect: { capacityTB: 4, serial: 'FH24A07733' },
    system: 'linux',
    match: '/dev/sdb',
    sure: true,
    warnings: ['size-differs']
  },
  {
    name: 'colours, odd blanks and a prompt',
    text: `\u001b[1mdesk@kiln\u001b[0m:~$ lsblk -o NAME,SIZE,TYPE,SERIAL,MOUNTPOINTS -b\r\nNAME\u00a0           SIZE TYPE SERIAL      MOUNTPOINTS\r\nsda     500107862016 disk LM500-118A7\u00a0\r\n└─sda1  500106813440 part             /\r\nsdb    2000398934016 disk FH24A07733\r\n`,
    expect: CHERT,
    system: 'linux',
    match: '/dev/sdb',
    sure: true,
    typed: [['/dev/sdb', '7733', 'open']]
  },
  {
    name: 'blanks run together, as a chat sends them on',
    text: `NAME SIZE TYPE TRAN MODEL SERIAL MOUNTPOINTS
sda 500107862016 disk sata Loam S6 500 LM500-118A7
└─sda1 500106813440 part /
sdb 2000398934016 disk usb Chert T4 2TB FH24A07733`,
    expect: CHERT,
    system: 'linux',
    match: null,
    warnings: ['unreadable'],
    typed: [
      ['/dev/sdb', '7733', 'unsure'],
      ['/dev/sda', '18A7', 'unsure']
    ]
  },
  {
    name: 'volumes instead of devices',
    text: `Filesystem      Size  Used Avail Use% Mounted on
/dev/sda2       456G  211G  222G  49% /
/dev/sdb1       1.8T  1.1T  752G  60% /media/desk/OLD`,
    expect: CHERT,
    system: null,
    match: null,
    warnings: ['unreadable'],
    typed: [['/dev/sdb', '7733', 'unsure']]
  },
  {
    name: 'a serial full of characters that shells take for theirs',
    text: JSON.stringify({
      blockdevices: [
        {
          name: 'sda',
          size: 500107862016,
          type: 'disk',
          serial: 'LM500-118A7',
          mountpoints: [null],
          children: [{ name: 'sda1', size: 1, type: 'part', mountpoints: ['/'] }]
        },
        {
          name: 'sdb',
          size: 2000398934016,
          type: 'disk',
          tran: 'usb',
          serial: "A1'; rm -rf $HOME #7733",
          mountpoints: [null]
        },
        {
          name: 'sdc;reboot',
          size: 1000204886016,
          type: 'disk',
          tran: 'usb',
          serial: 'LM1T-900C4',
          mountpoints: [null]
        }
      ]
    }),
    system: 'linux',
    match: null,
    typed: [
      ['/dev/sdb', '7733', 'open'],
      ['/dev/sdc;reboot', '00C4', 'unsure']
    ]
  },
  {
    name: 'the build’s drive is not there, another of its size is',
    text: `${HEAD}
${ROOT}
sdb        2000398934016 disk usb   0 Chert T4 2TB FH24A09912`,
    expect: CHERT,
    system: 'linux',
    match: null
  }
];
