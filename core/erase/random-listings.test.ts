import { describe, expect, it } from 'vitest';
import { randomListing, type RandomDisk } from '../../tests/listings/random';
import { plainSerial } from '../listing/identity';
import { readListing } from '../listing/read';
import { eraseFor } from './unlock';

const NOW = '2026-11-27T10:00:00.000Z';
const quote = (text: string) => `'${text.replaceAll("'", "'\\''")}'`;
const ofSystem = { linux: 'ext4', macos: 'exfat', windows: 'ntfs' } as const;
const LISTINGS = Array.from({ length: 2000 }, (_, i) => randomListing(i + 1));

/** Which disks of the listing a command names: as a whole word, for `sda` is part of `sdab`. */
const namedIn = (command: string, disks: readonly RandomDisk[]): RandomDisk[] =>
  disks.filter(({ name }) =>
    name.startsWith('Disk ')
      ? new RegExp(`-Number ${name.slice(5)}\\b`).test(command)
      : new RegExp(`(?<![\\w])${name}(?![\\w])|(?<![\\w])${name}(?=p?\\d|\\?)`).test(
          command.replace(/'(?:[^']|'\\'')*'/g, "''")
        )
  );

/** Everything that a hand may type: the own serial, that of every other disk, sizes, fillers, nothing. */
const typedFor = (disk: RandomDisk, disks: readonly RandomDisk[]): Set<string> =>
  new Set([
    ...disks.flatMap(({ serial }) => (serial === null ? [] : [serial.slice(-4)])),
    disk.serial?.slice(-6) ?? '',
    String(disk.bytes),
    'DEVICE'
  ]);

describe('two thousand invented listings', { timeout: 60_000 }, () => {
  it('no command names a disk other than the one whose identity was typed, and never one that a system runs from', () => {
    const wrong: string[] = [];
    let opened = 0;
    for (const [seed, { system, text, disks }] of LISTINGS.entries())
      for (const disk of disks)
        for (const identity of typedFor(disk, disks)) {
          const report = eraseFor(
            { text, device: disk.name, identity, filesystem: ofSystem[system], scheme: 'gpt', name: 'SCANS' },
            NOW,
            quote
          );
          const named = new Set(report.commands.flatMap((command) => namedIn(command, disks)));
          if (!report.unlocked) {
            if (named.size > 0)
              wrong.push(`${seed + 1}: locked, and names ${[...named].map(({ name }) => name).join(' ')}`);
            continue;
          }
          opened += 1;
          const own =
            disk.serial !== null &&
            plainSerial(disk.serial).endsWith(plainSerial(identity)) &&
            plainSerial(identity).length >= 4;
          const bytes = identity === String(disk.bytes);
          // What was cut off, or stands on another bus, is in no listing that a program could see.
          const shown = disks.filter((other) => {
            if (other === disk) return false;
            if (bytes) return text.includes(other.name);
            return other.serial === disk.serial
              ? text.split(other.serial ?? '?').length > 2
              : text.includes(other.serial ?? '?');
          });
          const twin = shown.some(({ bytes: size, serial }) =>
            bytes
              ? size === disk.bytes && readListing(text).devices.length === disks.length
              : serial !== null && plainSerial(serial).endsWith(plainSerial(identity))
          );
          // That a system runs from an external disk is known only where the listing says where it runs; the command itself asks.
          if (disk.system && (!disk.usb || readListing(text).showsSystem))
            wrong.push(`${seed + 1}: the system disk ${disk.name}`);
          if ([...named].some((other) => other !== disk) || named.size === 0)
            wrong.push(`${seed + 1}: names another than ${disk.name}`);
          if (!own && !bytes) wrong.push(`${seed + 1}: ${disk.name} by “${identity}”`);
          if (twin) wrong.push(`${seed + 1}: ${disk.name} by “${identity}”, which another has too`);
        }
    expect(wrong.slice(0, 20)).toEqual([]);
    expect(opened).toBeGreaterThan(1000);
  });

  it('of plain listings with a serial, at least 95 % unlock, the match is right in 98 %, and wrong in none', () => {
    const plain = LISTINGS.filter((listing) => listing.plain && listing.target.serial !== null);
    let open = 0;
    let right = 0;
    const wrong: string[] = [];
    for (const { system, text, target } of plain) {
      const report = eraseFor(
        {
          text,
          device: target.name,
          identity: (target.serial ?? '').slice(-6),
          filesystem: ofSystem[system],
          scheme: 'gpt',
          name: 'SCANS'
        },
        NOW,
        quote
      );
      if (report.unlocked) open += 1;
      const { match } = readListing(text, {
        capacityTB: target.bytes / 1e12,
        model: target.model,
        serial: target.serial ?? ''
      });
      if (match.device?.replace('/dev/', '') === target.name) right += 1;
      else if (match.device !== null) wrong.push(`${match.device} for ${target.name}`);
    }
    expect(plain.length).toBeGreaterThan(700);
    expect(wrong).toEqual([]);
    expect(open / plain.length).toBeGreaterThanOrEqual(0.95);
    expect(right / plain.length).toBeGreaterThanOrEqual(0.98);
  });

  it('a match is wrong in none of the damaged ones either, where the drive shows a serial of its own', () => {
    const wrong: string[] = [];
    for (const [seed, { text, target, disks }] of LISTINGS.entries()) {
      if (target.serial === null || disks.some((disk) => disk !== target && disk.serial === target.serial)) continue;
      const { match } = readListing(text, { capacityTB: target.bytes / 1e12, serial: target.serial });
      if (match.sure && match.device?.replace('/dev/', '') !== target.name)
        wrong.push(`${seed + 1}: ${match.device} for ${target.name}`);
    }
    expect(wrong).toEqual([]);
  });
});
