import { describe, expect, it } from 'vitest';
import { anInput } from '../../tests/parts';
import { plan } from '../plan/plan';
import type { PlanInput } from '../plan/report';
import { looksLikeKey, type FormatChoices } from '../sheets/format-choices';
import { tickable } from '../sheets/sheet';
import { conditionsFrom, lossOf, recordFrom, recordWords, type OnIt } from './record';
import { choiceProblems, choicesMade, settle } from './settled';
import { formatSheet } from './sheet';

const base = anInput();
const on = (family: PlanInput['host']['os']['family'], version?: string): PlanInput => ({
  ...base,
  host: { ...base.host, os: version ? { family, version } : { family } }
});
const settled = (input: PlanInput, choices: FormatChoices = {}) =>
  settle(input, plan(input), choices, 'Curator’s project drive');
const texts = (input: PlanInput, choices: FormatChoices = {}) =>
  formatSheet(input, { choices }).stages.flatMap(({ steps }) => steps.map(({ code, text }) => `${code}: ${text}`));

describe('what would be lost', () => {
  const copy = { what: 'Scans', where: 'AC-0004', at: '2026-11-20', verified: true };
  const level = (change: Partial<OnIt>) => lossOf({ anything: 'something', copies: [], ...change }).level;
  it.each<[string, OnIt | null, number]>([
    ['nobody has answered', null, 3],
    ['nobody knows', { anything: 'unknown', copies: [] }, 3],
    ['nothing on it', { anything: 'nothing', copies: [] }, 0],
    ['no copy', { anything: 'something', copies: [] }, 3]
  ])('%s', (_name, onIt, wanted) => expect(lossOf(onIt).level).toBe(wanted));
  it('a copy counts once it was opened, and only up to its day', () => {
    expect(level({ copies: [{ ...copy, verified: false }] })).toBe(2);
    expect(level({ copies: [copy] })).toBe(0);
    expect(level({ copies: [copy], since: '2026-11-19' })).toBe(0);
    expect(level({ copies: [copy], since: '2026-11-21' })).toBe(1);
    expect(level({ copies: [{ ...copy, at: '2026-11-22' }, copy], since: '2026-11-21' })).toBe(0);
  });
});

describe('the sheet', () => {
  it('four stages of three to eight steps, each with a check, and no two steps alike', () => {
    for (const family of ['macos', 'windows', 'linux', 'chromeos', 'ipados', 'camera'] as const) {
      const sheet = formatSheet(on(family), { units: 3 });
      expect(sheet.stages).toHaveLength(4);
      for (const { steps, check } of sheet.stages) {
        expect(steps.length).toBeGreaterThanOrEqual(3);
        expect(steps.length).toBeLessThanOrEqual(8);
        expect(check.length).toBeGreaterThan(0);
      }
      const ids = tickable(sheet).map(({ id }) => id);
      expect(new Set(ids).size).toBe(ids.length);
      for (const id of ids) expect(id).toMatch(/^[a-z0-9][a-z0-9.:-]{0,79}$/);
    }
  });
  it('says it in the words of each system, and of its version', () => {
    expect(texts(on('macos', '14')).join('\n')).toContain('View: Show All Devices');
    expect(texts(on('macos', '10.12')).join('\n')).not.toContain('Show All Devices');
    expect(texts(on('windows', '11')).join('\n')).toContain('Disks & volumes');
    expect(texts(on('windows', '10')).join('\n')).not.toContain('Disks & volumes');
    expect(texts(on('windows')).some((text) => text.startsWith('set-policy'))).toBe(true);
    expect(texts(on('linux')).some((text) => text.startsWith('set-policy'))).toBe(false);
    expect(texts(on('linux')).some((text) => text.startsWith('own-it'))).toBe(true);
    expect(texts(on('chromeos')).some((text) => text.startsWith('ask-the-guard'))).toBe(false);
  });
  it('no command of a sheet names a device, and none erases', () => {
    for (const family of ['macos', 'windows', 'linux'] as const)
      for (const { steps } of formatSheet(on(family)).stages)
        for (const { command = '' } of steps)
          expect(command).not.toMatch(/erase|mkfs|wipefs|clear-disk|format-volume|\/dev\/(?!null)/i);
  });
  it('a full format takes the time of writing the whole drive', () => {
    const quick = formatSheet(base).minutes.typical;
    const full = formatSheet(base, { choices: { full: true } }).minutes.typical;
    const rate = plan(base).throughput?.sustainedWrite?.typical ?? NaN;
    expect(full - quick).toBeCloseTo((base.drive.capacityTB * 1e6) / rate / 60, -1);
  });
  it('what is chosen changes only the steps that depend on it', () => {
    const ids = (choices: FormatChoices) =>
      formatSheet(base, { choices }).stages.flatMap(({ steps }) => steps.map(({ id }) => id));
    const [plain, named] = [ids({}), ids({ name: 'OTHER' })];
    expect(
      named
        .filter((id) => !plain.includes(id))
        .every((id) => /choose|name-it|quick|erase|policy|key|own|write-it|look-at-free|make/.test(id))
    ).toBe(true);
    expect(named.filter((id) => plain.includes(id)).length).toBeGreaterThan(8);
  });
});

describe('what is settled', () => {
  it('a name that the filesystem holds is suggested: 11 characters on exFAT', () => {
    expect(settled(base, { filesystem: 'exfat' }).name).toBe('CURATORS-PR');
    expect(settled(base, { filesystem: 'apfs' }).name).toBe('Curators-project-drive');
    expect(settle(base, plan(base), { filesystem: 'fat32' }, 'Ω').name).toBe('DRIVE');
  });
  it.each<[string, FormatChoices, string]>([
    ['a name with a blank', { name: 'MY DRIVE' }, 'name'],
    ['a name that is too long for exFAT', { filesystem: 'exfat', name: 'ABCDEFGHIJKL' }, 'name'],
    ['marks of the shell', { name: 'A;reboot' }, 'name'],
    ['the key instead of its place', { keyPlace: '123456-234567-345678-456789-567890' }, 'keyPlace'],
    ['ext4 on Windows', { system: { family: 'windows' }, filesystem: 'ext4' }, 'filesystem'],
    ['APFS in an MBR', { system: { family: 'macos' }, filesystem: 'apfs', scheme: 'mbr' }, 'scheme']
  ])('%s is refused at its field', (_name, choices, path) =>
    expect(choiceProblems(choices, settled(base, choices)).map((problem) => problem.path)).toContain(path)
  );
  it('places are no keys', () => {
    for (const place of [
      'in the safe of the herbarium',
      'password manager, entry AC-0003',
      'envelope 4 at the curator’s'
    ])
      expect(looksLikeKey(place)).toBe(false);
    for (const key of ['A1B2-C3D4-E5F6-G7H8-J9K0-L1M2', '123456 234567 345678 456789', 'xK9!aaaa7777bbbb8888cccc'])
      expect(looksLikeKey(key)).toBe(true);
  });
  it('the later answer stands over the earlier, field by field', () =>
    expect(
      choicesMade([
        { answer: { question: 'format', value: { name: 'A', full: true } } },
        { answer: null },
        { answer: { question: 'format', value: { name: 'B' } } }
      ])
    ).toEqual({ name: 'B', full: true }));
});

describe('the record', () => {
  it('holds what was settled, and gives later results their conditions', () => {
    const record = recordFrom(
      settled(on('windows', '11'), {
        filesystem: 'ntfs',
        name: 'SCANS',
        policy: 'performance',
        encryption: 'system',
        keyPlace: 'in the safe'
      })
    );
    expect(recordWords(record)).toBe('NTFS, GPT, named SCANS, encrypted by the system, write cache on');
    expect(conditionsFrom(record)).toEqual({ filesystem: 'ntfs', encrypted: true, writeCache: 'performance' });
    expect(record.keyPlace).toBe('in the safe');
  });
  it('keeps no place of a key where nothing is encrypted', () =>
    expect(recordFrom(settled(base, { encryption: 'none', keyPlace: 'in the safe' })).keyPlace).toBeUndefined());
});
