import { describe, expect, it } from 'vitest';
import { PLAIN, type Listing } from '../../tests/listings/plain';
import { TRICKY_LINUX } from '../../tests/listings/tricky-linux';
import { TRICKY_OTHERS } from '../../tests/listings/tricky-others';
import { readListing } from '../listing/read';
import { eraseFor } from './unlock';

const NOW = '2026-11-27T10:00:00.000Z';
const quote = (text: string) => `'${text.replaceAll("'", "'\\''")}'`;

const ofSystem = { linux: 'ext4', macos: 'apfs', windows: 'ntfs' } as const;
const tryOut = ({ text }: Listing, device: string, identity: string) => {
  const filesystem = ofSystem[readListing(text).system ?? 'linux'];
  return eraseFor({ text, device, identity, filesystem, scheme: 'gpt', name: 'SCANS' }, NOW, quote);
};

describe.each([...PLAIN, ...TRICKY_LINUX, ...TRICKY_OTHERS])('$name', (listing) => {
  const { text, expect: wanted, system, devices, systemDisks, match, sure, warnings, typed } = listing;
  const report = readListing(text, wanted);

  it('says which devices there are, and which one is meant', () => {
    expect(report.system).toBe(system);
    if (devices) expect(Object.fromEntries(report.devices.map((d) => [d.device, d.bytes]))).toEqual(devices);
    if (systemDisks) expect(report.devices.filter((d) => d.systemDisk).map((d) => d.device)).toEqual(systemDisks);
    expect(report.match.device).toBe(match);
    if (sure !== undefined) expect(report.match.sure).toBe(sure);
    expect(report.warnings.map(({ code }) => code)).toEqual(expect.arrayContaining(warnings ?? []));
  });

  for (const [device, identity, result] of typed ?? [])
    it(`${device}, typed “${identity}”: ${result}`, () => {
      const report = tryOut(listing, device, identity);
      expect(report.unlocked ? 'open' : report.code).toBe(result);
      for (const command of report.commands)
        if (result === 'open') expect(command).not.toContain('DEVICE');
        else expect(command).toContain('DEVICE');
    });
});

it('there are at least sixty of them, two thirds of them tricky', () => {
  const all = PLAIN.length + TRICKY_LINUX.length + TRICKY_OTHERS.length;
  expect(all).toBeGreaterThanOrEqual(60);
  expect(PLAIN.length).toBeLessThanOrEqual(all / 3);
});

describe('what nobody means', () => {
  const deep = 5000;
  it.each<[string, string]>([
    [
      'lists within lists',
      `{"blockdevices":[${'{"name":"sda","children":['.repeat(deep)}{"name":"sdb"}${']}'.repeat(deep)}]}`
    ],
    [
      'thousands of disks',
      JSON.stringify({
        blockdevices: Array.from({ length: 5000 }, (_, i) => ({
          name: `sd${'abcdefghij'[i % 10]}${'x'.repeat(i % 300)}`,
          size: i,
          type: 'disk'
        }))
      })
    ],
    ['thousands of rows', `NAME SIZE TYPE MODEL SERIAL\n${'sda x y z w v u t s\n'.repeat(9000)}`],
    [
      'a report with every thing within the one before',
      `USB:\n${Array.from({ length: 900 }, (_, i) => `${' '.repeat(i)}x${i}:`).join('\n')}\nBSD Name: disk4`
    ]
  ])('%s are read as nothing, and break nothing', (_name, text) => {
    const { devices, warnings } = readListing(text, { capacityTB: 2 });
    expect(devices.length).toBeLessThanOrEqual(1);
    if (devices.length === 0) expect(warnings.map(({ code }) => code)).toContain('unreadable');
  });
});
