import { describe, expect, it } from 'vitest';
import type { FilesystemId } from '../facts/filesystems';
import type { Os } from '../parts/host';
import type { Job } from '../parts/job';
import { adviseFilesystem, type AdviceInput } from './advise';
import { fullAdvice } from './full-advice';

const os = (text: string): Os => {
  const [family = 'macos', version] = text.split(' ');
  return (version ? { family, version } : { family }) as Os;
};

/** A situation in one line: the computer, what else writes and reads, the job, and what must come of it. */
type Row = [
  name: string,
  host: string,
  more: {
    w?: string[];
    r?: string[];
    job?: Partial<Job>;
    hdd?: true;
    tb?: number;
    rules?: AdviceInput['rules'];
  },
  wants: {
    first?: FilesystemId;
    scheme?: 'gpt' | 'mbr';
    none?: true;
    others?: FilesystemId[];
    not?: FilesystemId[];
    code?: string;
    rule?: string;
    says?: RegExp;
    way?: RegExp;
  }
];

const input = ([, host, { w = [], r = [], job, hdd, tb = 2, rules }]: Row): AdviceInput => ({
  host: os(host),
  media: hdd ? 'hdd' : 'nvme',
  capacityTB: tb,
  job: {
    name: 'j',
    purposes: [],
    transferGB: 100,
    direction: 'in',
    ...(w.length > 0 ? { writeHosts: w.map(os) } : {}),
    ...(r.length > 0 ? { readHosts: r.map(os) } : {}),
    ...job
  },
  rules
});

/** One system, or several that agree. Reasons from the table of filesystems in docs/models.md. */
const PLAIN: Row[] = [
  ['a Mac alone', 'macos 14', {}, { first: 'apfs', scheme: 'gpt', others: ['exfat'] }],
  ['a Mac, a hard disk', 'macos 14', { hdd: true }, { first: 'hfs+', rule: 'mac-disk' }],
  [
    'the same, the crate’s rule for APFS',
    'macos 14',
    { hdd: true, rules: { 'mac-disk': 'apfs' } },
    { first: 'apfs', rule: 'mac-disk' }
  ],
  ['a Mac of 10.12: APFS came with 10.13', 'macos 10.12', {}, { first: 'hfs+', not: ['apfs'] }],
  ['two Macs, one of 10.11', 'macos 14', { w: ['macos 10.11'] }, { first: 'hfs+', not: ['apfs'] }],
  ['two Macs, both new', 'macos 14', { w: ['macos 13'] }, { first: 'apfs' }],
  ['Windows alone', 'windows 11', {}, { first: 'ntfs', rule: 'windows-drive', others: ['exfat'] }],
  [
    'Windows alone, the other option',
    'windows 11',
    { rules: { 'windows-drive': 'exfat' } },
    { first: 'exfat', rule: 'windows-drive' }
  ],
  ['Windows cannot make FAT32 above 32 GiB', 'windows 11', {}, { not: ['fat32'] }],
  [
    'a stick of 32 GB: it can',
    'windows 11',
    { tb: 0.032, job: { transferGB: 10 } },
    { first: 'ntfs', others: ['fat32'] }
  ],
  ['Linux alone', 'linux 6.1', {}, { first: 'ext4' }],
  [
    'Linux, few very large files',
    'linux 6.1',
    { job: { largestFileGB: 80, files: 20, transferGB: 900 } },
    { first: 'xfs', others: ['ext4'] }
  ],
  [
    'Linux, large files among very many',
    'linux 6.1',
    { job: { largestFileGB: 80, files: 500_000, transferGB: 900 } },
    { first: 'ext4' }
  ],
  ['Linux, an archive: checksums', 'linux 6.1', { job: { purposes: ['archive'] } }, { first: 'btrfs' }],
  ['Linux, work on it', 'linux 6.1', { job: { purposes: ['scratch'] } }, { first: 'ext4' }],
  ['a Mac, work on it', 'macos 14', { job: { purposes: ['scratch'] } }, { first: 'apfs' }],
  ['Mac and Windows both write', 'macos 14', { w: ['windows'] }, { first: 'exfat', not: ['ntfs', 'apfs'] }],
  ['Mac and Linux both write', 'macos 14', { w: ['linux 6.1'] }, { first: 'exfat', not: ['hfs+', 'ext4'] }],
  ['Windows writes, a Mac reads', 'windows 11', { r: ['macos 14'] }, { first: 'exfat', others: ['ntfs'] }],
  ['Windows and Linux 6.1', 'windows 11', { w: ['linux 6.1'] }, { first: 'exfat', others: ['ntfs'] }],
  ['Linux 5.10 knows exFAT since 5.7', 'linux 5.10', { w: ['windows'] }, { first: 'exfat' }],
  [
    'Linux 5.4: exFAT by an add-on',
    'linux 5.4',
    { w: ['windows'], job: { largestFileGB: 9 } },
    { first: 'exfat', code: 'os-too-old' }
  ],
  ['all three', 'macos 14', { w: ['windows', 'linux 6.1'] }, { first: 'exfat' }],
  ['a Mac and a tablet of its family', 'macos 14', { w: ['ipados 17'] }, { first: 'apfs' }],
  ['a Mac and a phone of its family', 'macos 14', { r: ['ios 16'] }, { first: 'apfs' }],
  ['a tablet alone', 'ipados 17', {}, { first: 'exfat', others: ['apfs'] }],
  ['a tablet and Windows', 'ipados 17', { r: ['windows'] }, { first: 'exfat', not: ['apfs'] }],
  ['Android 14 and Windows', 'windows 11', { w: ['android 14'] }, { first: 'exfat', not: ['ntfs'] }],
  [
    'Android 11: exFAT not for certain',
    'windows 11',
    { w: ['android 11'], job: { largestFileGB: 9 } },
    { first: 'exfat', code: 'os-too-old' }
  ],
  ['ChromeOS and Windows', 'windows 11', { w: ['chromeos'] }, { first: 'exfat', not: ['ntfs'] }],
  ['ChromeOS only reads what Windows writes', 'windows 11', { r: ['chromeos'] }, { first: 'exfat', others: ['ntfs'] }],
  ['a camera', 'macos 14', { w: ['camera'] }, { first: 'exfat', scheme: 'mbr' }],
  [
    'recording, no camera named: one is meant',
    'linux 6.1',
    { job: { purposes: ['camera'] } },
    { first: 'exfat', scheme: 'mbr', not: ['ext4'] }
  ],
  [
    'recording with a phone of the same family as the Mac',
    'macos 14',
    { w: ['ios 17'], job: { purposes: ['camera'] } },
    { first: 'apfs' }
  ],
  ['a console', 'windows 11', { job: { purposes: ['console'] } }, { first: 'exfat', scheme: 'mbr', not: ['ntfs'] }],
  ['a television, filled on Linux', 'linux 6.1', { job: { purposes: ['tv'] } }, { first: 'exfat', others: ['ntfs'] }],
  [
    'a car, filled on a Mac, small files',
    'macos 14',
    { tb: 0.064, job: { purposes: ['car'], transferGB: 40, largestFileGB: 0.1 } },
    { first: 'fat32', scheme: 'mbr', others: ['exfat'] }
  ],
  [
    'a car, one film above 4 GiB',
    'macos 14',
    { tb: 0.064, job: { purposes: ['car'], transferGB: 40, largestFileGB: 6 } },
    { first: 'exfat', not: ['fat32'] }
  ],
  ['a phone, which kind is not said', 'macos 14', { job: { purposes: ['phone'] } }, { first: 'exfat', not: ['apfs'] }],
  [
    'a tablet, which kind is not said',
    'windows 11',
    { job: { purposes: ['tablet'] } },
    { first: 'exfat', not: ['ntfs'] }
  ],
  [
    'a router at a Windows computer',
    'windows 11',
    { job: { purposes: ['router'] } },
    { first: 'exfat', others: ['ntfs'] }
  ],
  [
    'a Mac’s own backup',
    'macos 14',
    { hdd: true, job: { purposes: ['backup'] } },
    { first: 'apfs', rule: 'mac-backup', not: ['exfat'] }
  ],
  [
    'the same, the other option',
    'macos 14',
    { hdd: true, job: { purposes: ['backup'] }, rules: { 'mac-backup': 'hfs+' } },
    { first: 'hfs+', rule: 'mac-backup' }
  ],
  ['the backup of a Mac before 11', 'macos 10.15', { job: { purposes: ['backup'] } }, { first: 'hfs+' }],
  ['the backup of Windows', 'windows 11', { job: { purposes: ['backup'] } }, { first: 'ntfs', not: ['exfat'] }],
  ['the backup of a Linux: any of its own', 'linux 6.1', { job: { purposes: ['backup'] } }, { first: 'ext4' }],
  [
    'a Mac starts from it',
    'macos 14',
    { hdd: true, job: { purposes: ['boot'] } },
    { first: 'apfs', not: ['hfs+', 'exfat'] }
  ],
  ['a Mac of 10.12 starts from it', 'macos 10.12', { job: { purposes: ['boot'] } }, { first: 'hfs+' }],
  ['a Linux starts from it', 'linux 6.1', { job: { purposes: ['boot'] } }, { first: 'ext4', others: ['xfs', 'btrfs'] }],
  ['a Windows starts from it', 'windows 11', { job: { purposes: ['boot'] } }, { first: 'ntfs' }],
  [
    'encrypted, a Mac alone',
    'macos 14',
    { job: { encrypt: true } },
    { first: 'apfs', says: /system’s own encryption/ }
  ],
  [
    'encrypted, Windows alone',
    'windows 11',
    { job: { encrypt: true } },
    { first: 'ntfs', says: /system’s own encryption/ }
  ],
  [
    'encrypted, Mac and Windows',
    'macos 14',
    { w: ['windows'], job: { encrypt: true } },
    { first: 'exfat', says: /encrypted container/, not: ['fat32'] }
  ],
  [
    'names that differ by case, Linux',
    'linux 6.1',
    { job: { caseNames: true } },
    { first: 'ext4', not: ['exfat', 'ntfs', 'fat32'] }
  ],
  [
    'names that differ by case, a Mac',
    'macos 14',
    { job: { caseNames: true } },
    { first: 'apfs', says: /case-sensitive variant/, not: ['exfat'] }
  ],
  ['the crate’s rule for MBR', 'linux 6.1', { rules: { scheme: 'mbr' } }, { first: 'ext4', scheme: 'mbr' }],
  [
    'taken from the drive only: the computer reads',
    'macos 14',
    { w: ['windows'], job: { direction: 'out' } },
    { first: 'exfat', others: ['ntfs'] }
  ]
];

/** Where one thing that is wanted stands against another. */
const CONFLICTING: Row[] = [
  [
    'a Mac’s own backup that Windows is to read',
    'macos 14',
    { r: ['windows'], job: { purposes: ['backup'] } },
    { first: 'apfs', none: true, code: 'filesystem-excludes-host', way: /^Two volumes on the drive: APFS .* exFAT/ }
  ],
  [
    'a Mac’s own backup that Linux is to write to',
    'macos 14',
    { w: ['linux 6.1'], job: { purposes: ['backup'] } },
    { first: 'apfs', none: true, way: /network/ }
  ],
  [
    'the backup of Windows, a Mac is to write to it',
    'windows 11',
    { w: ['macos 14'], job: { purposes: ['backup'] } },
    { first: 'ntfs', none: true, code: 'filesystem-excludes-host' }
  ],
  [
    'the backup of Windows, a Mac only reads: NTFS it reads',
    'windows 11',
    { r: ['macos 14'], job: { purposes: ['backup'] } },
    { first: 'ntfs' }
  ],
  [
    'a Mac starts from it, Windows reads',
    'macos 14',
    { r: ['windows'], job: { purposes: ['boot', 'exchange'] } },
    { first: 'apfs', none: true, way: /Extra software on Windows that opens APFS/ }
  ],
  [
    'a Linux starts from it, a Mac reads',
    'linux 6.1',
    { r: ['macos 14'], job: { purposes: ['boot'] } },
    { first: 'ext4', none: true }
  ],
  [
    'a Windows starts from it, a tablet reads',
    'windows 11',
    { r: ['ipados 17'], job: { purposes: ['boot'] } },
    { first: 'ntfs', none: true, way: /Two volumes/ }
  ],
  [
    'start from it and back up: starting comes first',
    'macos 14',
    { hdd: true, job: { purposes: ['backup', 'boot'] } },
    { first: 'apfs', not: ['hfs+'] }
  ],
  [
    'names that differ by case, Mac and Windows',
    'macos 14',
    { w: ['windows'], job: { caseNames: true } },
    { none: true, code: 'filesystem-no-common', way: /archive or in a container/ }
  ],
  [
    'names that differ by case, Linux writes, Windows reads',
    'linux 6.1',
    { r: ['windows'], job: { caseNames: true } },
    { none: true, code: 'filesystem-no-common' }
  ],
  [
    'a large file, Windows and a Mac of 10.6.3: exFAT came with 10.6.5',
    'windows 11',
    { w: ['macos 10.6.3'], job: { largestFileGB: 9 } },
    {
      none: true,
      first: 'exfat',
      not: ['fat32', 'ntfs'],
      way: /With macOS 10\.6\.5 or newer instead of 10\.6\.3, exFAT does/
    }
  ],
  [
    'a small file, the same two: FAT32 made on the Mac',
    'macos 10.6.3',
    { w: ['windows'], job: { largestFileGB: 1 } },
    { first: 'fat32' }
  ],
  [
    'a large file, the same two, made on the Mac',
    'macos 10.6.3',
    { w: ['windows'], job: { largestFileGB: 9 } },
    { none: true, code: 'file-above-limit', not: ['fat32'] }
  ],
  [
    'a tablet of version 12 takes no drive at all',
    'macos 14',
    { w: ['ipados 12'] },
    { none: true, code: 'filesystem-no-common' }
  ],
  ['a phone of version 12 is to read', 'windows 11', { r: ['ios 12'] }, { none: true }],
  [
    'encrypted, and a camera writes',
    'macos 14',
    { w: ['camera'], job: { encrypt: true } },
    { first: 'exfat', none: true, way: /encrypt what is copied off it/ }
  ],
  ['encrypted, and a television plays', 'windows 11', { job: { encrypt: true, purposes: ['tv'] } }, { none: true }],
  [
    'carried, not said whether encrypted: advised',
    'macos 14',
    { job: { carried: true } },
    { first: 'apfs', says: /advisable for a carried drive/ }
  ],
  [
    'carried, the crate leaves drives open',
    'macos 14',
    { job: { carried: true }, rules: { encrypt: 'no' } },
    { says: /not encrypted/ }
  ],
  [
    'a camera and 4 TB: MBR ends at 2.2',
    'macos 14',
    { w: ['camera'], tb: 4 },
    { first: 'exfat', scheme: 'gpt', code: 'mbr-above-2tib' }
  ],
  [
    'a camera, and the crate’s rule for GPT',
    'macos 14',
    { w: ['camera'], rules: { scheme: 'gpt' } },
    { scheme: 'gpt' }
  ],
  ['MBR by rule on 4 TB', 'linux 6.1', { tb: 4, rules: { scheme: 'mbr' } }, { scheme: 'mbr', code: 'mbr-above-2tib' }],
  [
    'an archive that several systems read: no checksums there',
    'linux 6.1',
    { r: ['macos 14', 'windows'], job: { purposes: ['archive'] } },
    { first: 'exfat', not: ['btrfs'] }
  ],
  [
    'an old kernel and NTFS: passed over without a word',
    'windows 11',
    { r: ['linux 5.10'] },
    { first: 'exfat', others: ['ntfs'] }
  ],
  [
    'a hard disk for Mac and Windows: the rule for Macs has no say',
    'macos 14',
    { hdd: true, w: ['windows'], rules: { 'mac-disk': 'apfs' } },
    { first: 'exfat' }
  ],
  [
    'a car that is to play a film above 4 GiB and a camera',
    'macos 14',
    { w: ['camera'], job: { purposes: ['car'], largestFileGB: 8 } },
    { first: 'exfat', not: ['fat32'] }
  ],
  [
    'a router and a Mac that writes directly',
    'macos 14',
    { job: { purposes: ['router'] } },
    { first: 'exfat', not: ['apfs', 'ntfs', 'ext4'] }
  ],
  [
    'a console’s store that a Mac is to back up to',
    'macos 14',
    { job: { purposes: ['backup', 'console'] } },
    { first: 'apfs', none: true, code: 'filesystem-excludes-host' }
  ],
  [
    'a car, filled on Windows, which makes no FAT32 above 32 GiB',
    'windows 11',
    { tb: 0.064, job: { purposes: ['car'], transferGB: 40, largestFileGB: 0.1 } },
    { first: 'exfat', not: ['fat32', 'ntfs'] }
  ],
  [
    'a drive for every device there is, one file above 4 GiB',
    'linux 6.1',
    { w: ['macos 14', 'windows', 'android 14', 'camera'], r: ['tv', 'car'], job: { largestFileGB: 5 } },
    { first: 'exfat', scheme: 'mbr', not: ['fat32', 'ntfs'] }
  ],
  [
    'a Windows starts from it, and names differ by case',
    'windows 11',
    { job: { purposes: ['boot'], caseNames: true } },
    { first: 'ntfs', none: true, code: 'filesystem-no-common' }
  ]
];

const all = [...PLAIN, ...CONFLICTING];

describe.each(all)('%s', (...row) => {
  const of = input(row);
  const advised = adviseFilesystem(of);
  const full = fullAdvice(of, advised);
  const wants = row[3];
  it('is advised as worked out by hand', () => {
    if (wants.first) expect(full.first.filesystem).toBe(wants.first);
    if (wants.scheme) expect(full.first.scheme).toBe(wants.scheme);
    expect(full.none).toBe(wants.none);
    if (wants.none) expect(full.ways?.length).toBeGreaterThan(0);
    for (const id of wants.others ?? []) expect(full.others.map(({ filesystem }) => filesystem)).toContain(id);
    for (const id of wants.not ?? []) expect(full.rejected.map(({ filesystem }) => filesystem)).toContain(id);
    if (wants.code) expect(advised.findings.map(({ code }) => code)).toContain(wants.code);
    if (wants.rule) expect(full.first.rule).toBe(wants.rule);
    if (wants.says) expect(full.first.because.join('; ')).toMatch(wants.says);
    if (wants.way) expect(full.ways?.join('\n')).toMatch(new RegExp(wants.way.source, 'm'));
    for (const other of full.others) expect(other.loses).toMatch(/^You lose .+\.$/);
  });
});

it('there are at least eighty, a third of them conflicting', () => {
  expect(all.length).toBeGreaterThanOrEqual(80);
  expect(CONFLICTING.length * 3).toBeGreaterThanOrEqual(all.length);
});
