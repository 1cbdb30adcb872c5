import type { Knex } from 'knex';
import { ulid } from 'ulid';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Drive } from '#core/parts/drive';
import type { Host } from '#core/parts/host';
import { formatRecordSchema, type FormatRecord } from '#core/format/record';
import type { FormatChoices } from '#core/sheets/format-choices';
import { bundleOf, openFrom } from '../../../../tests/archives';
import { freshDatabase } from '../../../../tests/fresh-database';
import { aCable, aDrive, aHost, anEnclosure } from '../../../../tests/parts';
import { problemCode as code } from '../../../../tests/problem-code';
import { runOperations } from '../api/operations/runs';
import { undo } from '../db/undo';
import { createBuild, getBuild, updateBuild } from '../repositories/builds';
import { createCrate } from '../repositories/crates';
import { listEvents } from '../repositories/events';
import { createModel, getModel, updateModel } from '../repositories/models';
import { createObservation, deleteObservation, listObservations } from '../repositories/observations';
import { listRuns } from '../repositories/runs';
import { listSheets } from '../repositories/sheets';
import { addUnits } from '../repositories/units';
import { diskSource, driveItems, eraseChecked, formatOf } from './formatting';
import { buildRows } from '../../../../tests/build-rows';
import { planChoice } from './planning';
import { takeEntries } from './sheet-entries';
import { beginSheet, newestSheet, partsNow, readSheet } from './sheets';

const at = '2026-11-27T12:00:00.000Z';
const one = { by: 'one', at };
let db: Knex;
let drop: () => Promise<void>;
let crateId: string;
let ids: Record<string, string>;
let buildId: string;

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  crateId = (await createCrate(db, { name: 'Formats', at })).id;
}, 60_000);
afterAll(() => drop());

const LISTING = JSON.stringify({
  blockdevices: [
    {
      name: 'nvme0n1',
      size: 1_000_204_886_016,
      type: 'disk',
      tran: 'nvme',
      serial: 'MQ1T-55K20',
      mountpoints: [null],
      children: [{ name: 'nvme0n1p1', size: 1, type: 'part', mountpoints: ['/'] }]
    },
    { name: 'sda', size: 2_000_398_934_016, type: 'disk', tran: 'usb', serial: 'FH24A07733', mountpoints: [null] },
    { name: 'sdb', size: 500_107_862_016, type: 'disk', tran: 'usb', serial: 'LM500-118A7', mountpoints: [null] }
  ]
});
const order = {
  text: LISTING,
  filesystem: 'ext4' as const,
  scheme: 'gpt' as const,
  name: 'SCANS',
  system: 'linux' as const
};

beforeEach(async () => {
  ids = {};
  for (const spec of [
    aHost({}, { os: { family: 'linux', version: '6.1' } }),
    aCable(),
    anEnclosure(),
    aDrive({ capacityTB: 2 })
  ])
    ids[spec.kind] = (await createModel(db, { crateId, spec, ...one })).id;
  const choice = {
    hostId: ids.host!,
    portId: 'p',
    cableId: ids.cable!,
    enclosureId: ids.enclosure!,
    driveId: ids.drive!
  };
  const planned = await planChoice(db, crateId, choice);
  buildId = (
    await createBuild(db, {
      crateId,
      build: { name: 'Scan day', stage: 'assembled' as const, choice, ...planned },
      ...one
    })
  ).id;
});
const build = () => getBuild(db, { id: buildId });
const item = (unit: { serial: string; caseSerial?: string }) =>
  addUnits(db, { crateId, count: 1, unit: { modelId: ids.drive!, state: 'owned', buildId, ...unit }, ...one });

describe('commands that erase', () => {
  const erase = (more: object = {}) =>
    eraseChecked(db, { ...order, device: 'sda', identity: '7733', buildId, ...more }, at);
  it('name the device of the build, once its serial is typed', async () => {
    const { unlocked, commands } = await erase();
    expect(unlocked).toBe(true);
    expect(commands.every((command) => command.includes('/dev/sda') && command.includes("'FH24A07733'"))).toBe(true);
  });
  it('never a disk of another size than the build’s: 500 GB for 2 TB', async () => {
    const { unlocked, code: why, commands } = await erase({ device: 'sdb', identity: '18A7' });
    expect([unlocked, why]).toEqual([false, 'unsure']);
    expect(commands.join()).not.toContain('sdb');
    // without a build nobody knows what is meant, and the serial alone decides
    expect((await erase({ device: 'sdb', identity: '18A7', buildId: undefined })).unlocked).toBe(true);
  });
  it('an item with another serial is another drive; as the case shows it, it is this one', async () => {
    await item({ serial: 'CH-99120' });
    expect((await erase()).why).toContain('as the case shows it');
    const [known] = await driveItems(db, await build());
    expect(known?.serial).toBe('CH-99120');
    await item({ serial: 'CH-77', caseSerial: 'FH24A07733' });
    expect((await erase()).unlocked).toBe(true);
  });
  it('a build that was changed since locks', async () => {
    const { version, name, choice, stage, snapshot, report } = await build();
    expect((await erase({ buildVersion: version })).unlocked).toBe(true);
    await updateBuild(db, {
      crateId,
      id: buildId,
      version,
      build: { name: `${name} 2`, choice, stage, snapshot, report },
      ...one
    });
    const { unlocked, code: why, commands } = await erase({ buildVersion: version });
    expect([unlocked, why]).toEqual([false, 'old']);
    expect(commands.every((command) => command.includes('DEVICE'))).toBe(true);
  });
  it('a build whose drive is another by now: its size no longer fits', async () => {
    const { version, spec } = await getModel(db, { crateId, id: ids.drive! });
    await updateModel(db, {
      crateId,
      id: ids.drive!,
      version,
      spec: aDrive({ ...(spec as Drive), capacityTB: 8 }),
      ...one
    });
    expect((await erase()).unlocked).toBe(false);
  });
  it('a listing of eleven minutes ago is old; of nine it is not', async () => {
    expect((await erase({ at: '2026-11-27T11:49:00.000Z' })).code).toBe('old');
    expect((await erase({ at: '2026-11-27T11:51:00.000Z' })).unlocked).toBe(true);
  });
  it('a filesystem that the system does not make is refused at its field; no such build is none', async () => {
    expect(await code(erase({ filesystem: 'apfs' }))).toBe('bad-input');
    expect(await code(erase({ buildId: ulid() }))).toBe('not-found');
  });
  it('a listing of another system than the sheet’s unlocks nothing', async () => {
    expect(await erase({ system: 'windows', filesystem: 'ntfs' })).toMatchObject({ unlocked: false, code: 'unsure' });
  });
});

describe('the format sheet', () => {
  const begin = (unitIds: string[] = []) => beginSheet(db, { crateId, buildId, kind: 'format', unitIds, ...one });
  const choose = async (sheetId: string, value: FormatChoices) =>
    takeEntries(db, {
      crateId,
      id: sheetId,
      entries: [{ key: ulid(), stepId: 'ask:format', answer: { question: 'format', value }, at }],
      ...one
    });

  it('stands beside the run sheet of the same build; each is the newest of its kind', async () => {
    await beginSheet(db, { crateId, buildId, kind: 'assemble', unitIds: [], ...one });
    const { id } = await begin();
    const stored = await build();
    const parts = await partsNow(db, stored);
    expect((await newestSheet(db, 'format', stored, parts))?.stored.id).toBe(id);
    expect((await newestSheet(db, 'assemble', stored, parts))?.stored.kind).toBe('assemble');
    expect((await listSheets(db, { crateId, buildId, kind: 'format' })).map((sheet) => sheet.id)).toEqual([id]);
  });
  it('is made by what was chosen, and the choice is undone as everything else', async () => {
    const { id } = await begin();
    const { group } = await choose(id, { filesystem: 'xfs', name: 'DEEP' });
    const titles = async () => (await readSheet(db, { crateId, id })).sheet.stages.map(({ title }) => title).join();
    expect(await titles()).toContain('make it XFS');
    await undo(db, { crateId, group: group!, ...one });
    expect(await titles()).toContain('make it ext4');
  });
  it('refuses at its field what cannot be, and keeps nothing of it', async () => {
    const { id } = await begin();
    expect(await code(choose(id, { name: 'A;reboot' }))).toBe('bad-input');
    expect(await code(choose(id, { filesystem: 'apfs' }))).toBe('bad-input');
    expect(await code(choose(id, { encryption: 'system', keyPlace: '123456-234567-345678-456789' }))).toBe('bad-input');
    expect((await readSheet(db, { crateId, id })).entries).toEqual([]);
    const { id: assemble } = await beginSheet(db, { crateId, buildId, kind: 'assemble', unitIds: [], ...one });
    expect(await code(choose(assemble, { name: 'A' }))).toBe('bad-input');
  });
  it('a note on the step of the key is refused where it looks like the key', async () => {
    const { id } = await begin();
    await choose(id, { encryption: 'system' });
    const { sheet } = await readSheet(db, { crateId, id });
    const stepId = sheet.stages.flatMap(({ steps }) => steps).find((step) => step.code === 'keep-key')!.id;
    const note = (text: string) =>
      takeEntries(db, { crateId, id, entries: [{ key: ulid(), stepId, note: text, at }], ...one });
    expect(await code(note('123456-234567-345678-456789'))).toBe('bad-input');
    expect((await note('in the safe, envelope 4')).accepted).toHaveLength(1);
  });
  it('is the next step of a build that is put together, stage by stage', async () => {
    const next = async () => (await buildRows(db, crateId, '2026-11-27')).find((row) => row.id === buildId)?.next;
    expect(await next()).toMatchObject({
      station: 'format',
      text: expect.stringContaining('Format it as ext4') as string
    });
    await begin();
    expect(await next()).toMatchObject({
      station: 'format',
      text: expect.stringMatching(/^Stage 1 of 4: before anything/) as string
    });
  });
});

const RECORD: FormatRecord = {
  system: { family: 'windows', version: '11' },
  filesystem: 'ntfs',
  scheme: 'gpt',
  label: 'SCANS',
  full: false,
  encryption: 'system',
  keyPlace: 'in the safe',
  policy: 'performance',
  freeBytes: 1_999_000_000_000
};

describe('what was made', () => {
  const keep = (seen: FormatRecord) =>
    createObservation(db, {
      crateId,
      buildId,
      tag: 'T',
      observation: { kind: 'formatted', date: '2026-11-27', seen },
      ...one
    });
  it('holds the place of a key, and never what looks like the key', () => {
    expect(formatRecordSchema.safeParse(RECORD).success).toBe(true);
    expect(formatRecordSchema.safeParse({ ...RECORD, keyPlace: '123456-234567-345678-456789' }).success).toBe(false);
  });
  it('stays with the build, in words in its log, and is undone', async () => {
    const { group } = await keep(RECORD);
    expect(await formatOf(db, { crateId, buildId })).toMatchObject({
      label: 'SCANS',
      keyPlace: 'in the safe',
      date: '2026-11-27'
    });
    const [event] = await listEvents(db, { crateId, limit: 1 });
    expect(event?.message).toBe('Formatted T: NTFS, GPT, named SCANS, encrypted by the system, write cache on.');
    await undo(db, { crateId, group, ...one });
    expect(await formatOf(db, { crateId, buildId })).toBeUndefined();
  });
  it('is a condition of every later result, where the result does not say otherwise', async () => {
    await keep(RECORD);
    const run = (conditions: object) =>
      runOperations.createRun.handle({
        db,
        params: { crateId, buildId },
        body: {
          protocol: 'pair-check',
          date: '2026-11-27',
          results: { readMBps: 700 },
          conditions,
          simulated: false,
          accepted: ['suspicious:readMBps']
        },
        query: undefined,
        request: new Request('http://localhost/'),
        ...one
      });
    await run({ fillPercent: 10 });
    await run({ encrypted: false, filesystem: 'exfat' });
    const conditions = (await listRuns(db, { crateId, buildId })).map((found) => found.conditions);
    expect(conditions).toContainEqual({
      fillPercent: 10,
      filesystem: 'ntfs',
      encrypted: true,
      writeCache: 'performance'
    });
    expect(conditions).toContainEqual({ filesystem: 'exfat', encrypted: false, writeCache: 'performance' });
  });
  it('what is on it, and a certificate, stay too, and go with a bundle to another crate', async () => {
    await keep(RECORD);
    const copy = { what: 'Scans', where: 'AC-4', at: '2026-11-20', verified: true };
    await createObservation(db, {
      crateId,
      buildId,
      tag: 'T',
      observation: { kind: 'on-it', date: '2026-11-27', seen: { anything: 'something', copies: [copy] } },
      ...one
    });
    const erased = {
      means: 'full',
      recipient: 'stranger',
      serial: 'FH24A07733',
      who: 'curator',
      looked: 'samples'
    } as const;
    const { id, version } = await createObservation(db, {
      crateId,
      buildId,
      tag: 'T',
      observation: { kind: 'erased', date: '2026-11-27', seen: erased },
      ...one
    });
    await beginSheet(db, { crateId, buildId, kind: 'format', unitIds: [], ...one });
    const bundle = await bundleOf(db, crateId, at);
    const { crate: other } = await openFrom(db, bundle, at);
    const kinds = (await db('observations').where({ crate_id: other.id }).select('kind')).map(
      ({ kind }: { kind: string }) => kind
    );
    expect(kinds).toEqual(expect.arrayContaining(['formatted', 'on-it', 'erased']));
    expect(
      (await db('sheets').where({ crate_id: other.id }).select('kind')).map(({ kind }: { kind: string }) => kind)
    ).toContain('format');
    await deleteObservation(db, { crateId, buildId, id, version, ...one });
    expect((await listObservations(db, { crateId, buildId })).map(({ kind }) => kind).sort()).toEqual([
      'formatted',
      'on-it'
    ]);
  });
});

describe('where attached disks are read from', () => {
  it('a computer that is this machine is read, any other is the stand-in, and says so', async () => {
    expect((await (await diskSource(db, { buildId })).list(at)).source).toBe('simulated');
    const { version, spec } = await getModel(db, { crateId, id: ids.host! });
    await updateModel(db, { crateId, id: ids.host!, version, spec: { ...(spec as Host), runsHere: true }, ...one });
    expect((await (await diskSource(db, { buildId })).list(at)).source).toBe('system');
  });
});
