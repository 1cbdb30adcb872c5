import type { Knex } from 'knex';
import sharp from 'sharp';
import { ulid } from 'ulid';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Entry, EntryInput } from '#core/sheets/progress';
import { freshDatabase } from '../../../../tests/fresh-database';
import { bundleOf, openFrom } from '../../../../tests/archives';
import { aCable, aDrive, aHost, anEnclosure } from '../../../../tests/parts';
import { problemCode as code } from '../../../../tests/problem-code';
import { undo } from '../db/undo';
import { demoId } from '../demo/id';
import { resetDemo, seedOnce } from '../demo/seed';
import { buildRows } from '../../../../tests/build-rows';
import { planChoice } from '../planning/planning';
import { beginSheet, lookedThrough, readSheet, takePhoto } from '../planning/sheets';
import { takeEntries } from '../planning/sheet-entries';
import { listAttachments } from './attachments';
import { createBuild, deleteBuild, getBuild, updateBuild } from './builds';
import { deleteCheck } from './checks';
import { createCrate, getCrate } from './crates';
import { listEvents } from './events';
import { createModel, deleteModel, getModel } from './models';
import { listSheets } from './sheets';
import { addUnits, listUnits } from './units';

const at = '2026-11-27T12:00:00.000Z';
const one = { by: 'one', at };
let db: Knex;
let drop: () => Promise<void>;
let crateId: string;
let ids: Record<string, string>;
let buildId: string;
let sheetId: string;

const read = () => readSheet(db, { crateId, id: sheetId });
const stepOf = async (stepCode: string) =>
  (await read()).sheet.stages.flatMap(({ steps }) => steps).find((step) => step.code === stepCode)!.id;
const take = (entries: (Omit<EntryInput, 'key' | 'at'> & Partial<EntryInput>)[], who = one) =>
  takeEntries(db, { crateId, id: sheetId, entries: entries.map((e) => ({ key: ulid(), at, ...e })), ...who });
const picture = () =>
  sharp({ create: { width: 60, height: 40, channels: 3, background: '#845' } })
    .jpeg()
    .toBuffer();

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  crateId = (await createCrate(db, { name: 'Hands', at })).id;
  ids = {};
  for (const spec of [aHost(), aCable(), anEnclosure(), aDrive()])
    ids[spec.kind] = (await createModel(db, { crateId, spec, ...one })).id;
}, 60_000);
afterAll(() => drop());

/** Every test begins with a build of its own, and its sheet. */
beforeEach(async () => {
  const choice = {
    hostId: ids.host!,
    portId: 'p',
    cableId: ids.cable!,
    enclosureId: ids.enclosure!,
    driveId: ids.drive!
  };
  const planned = await planChoice(db, crateId, choice);
  const build = { name: 'b', stage: 'bought' as const, choice, ...planned };
  buildId = (await createBuild(db, { crateId, build, ...one })).id;
  sheetId = (await beginSheet(db, { crateId, buildId, kind: 'assemble', unitIds: [], ...one })).id;
});

describe('ticks', () => {
  it('are kept with time and hand; another hand that ticks the same is one with the first', async () => {
    const stepId = await stepOf('discharge');
    const first = await take([{ stepId, done: true }]);
    const second = await take([{ stepId, done: true }], { by: 'two', at });
    expect([first.accepted.length, second.already.length]).toEqual([1, 1]);
    const { entries, progress } = await read();
    expect(entries).toMatchObject([{ stepId, done: true, by: 'one', at }]);
    expect(progress.done).toBe(1);
  });
  it('of the same key are one, whether sent again, in one request, or after they were undone', async () => {
    const stepId = await stepOf('discharge');
    const entry = { key: ulid(), stepId, done: true };
    const { group } = await take([entry, entry]);
    expect(await take([entry])).toMatchObject({ accepted: [], already: [entry.key] });
    await undo(db, { crateId, group: group!, ...one });
    expect((await read()).entries).toEqual([]);
    expect(await take([entry])).toMatchObject({ accepted: [], already: [entry.key] });
    expect((await read()).entries).toEqual([]);
  });
  it('and untick that did not see each other are both shown, until somebody decides', async () => {
    const stepId = await stepOf('discharge');
    const tick = ulid();
    await take([{ key: tick, stepId, done: true }]);
    const blind = await take([{ stepId, done: false, seen: null }], { by: 'two', at });
    expect(blind.conflicts).toMatchObject([{ theirs: { key: tick, by: 'one' } }]);
    const { entries, progress } = await read();
    expect(entries.map(({ by }) => by)).toEqual(['one', 'two']);
    expect(progress.done).toBe(0);
    await take([{ stepId, done: true, seen: entries[1]!.key }], { by: 'three', at });
    expect((await read()).progress.done).toBe(1);
  });
  it('of two browsers at once are all there, once each', async () => {
    const { sheet } = await read();
    const steps = sheet.stages.flatMap((stage) => stage.steps).slice(0, 12);
    const hand = (by: string) => steps.map(({ id }) => take([{ stepId: id, done: true }], { by, at }));
    const taken = await Promise.all([...hand('one'), ...hand('two')]);
    expect(taken.flatMap(({ accepted }) => accepted)).toHaveLength(12);
    expect(taken.flatMap(({ already }) => already)).toHaveLength(12);
    expect((await read()).entries).toHaveLength(12);
  }, 90_000);
  it('of a step that was never there are not taken; of one that is gone they stand in the log', async () => {
    // Names that every object of the language has are steps of no sheet either.
    for (const stepId of ['no-such-step', 'constructor', 'tostring', 'valueof'])
      expect(await take([{ stepId, done: true }])).toMatchObject({ unknown: [expect.any(String)], kept: [] });
    const stepId = await stepOf('insert-slanted');
    await take([{ stepId, done: true }]);
    const other = (await createModel(db, { crateId, spec: aDrive({ name: 'Other', heatsinkMm: 1 }), ...one })).id;
    const build = await getBuild(db, { crate_id: crateId, id: buildId });
    const choice = { ...build.choice, driveId: other };
    const planned = await planChoice(db, crateId, choice, build);
    await updateBuild(db, {
      crateId,
      id: buildId,
      version: build.version,
      build: { ...build, choice, ...planned },
      ...one
    });

    const { changes, stored, progress } = await read();
    expect(changes.gone.find(({ id }) => id === stepId)).toMatchObject({ done: true });
    expect(changes.added.some(({ text }) => /heatsink/.test(text))).toBe(true);
    expect(progress.done).toBe(0);
    const late = await take([{ stepId, done: false }]);
    expect([late.unknown.length, late.kept.length]).toEqual([1, 1]);
    const log = await listEvents(db, { crateId, subjectIds: [buildId], tag: build.tag });
    expect(log[0]?.message).toMatch(/no longer on the sheet/);
    expect(log.some(({ message }) => message.includes('ticked “Put the gold edge'))).toBe(true);
    await lookedThrough(db, { crateId, id: sheetId, version: stored.version, ...one });
    expect((await read()).changes).toEqual({ added: [], gone: [] });
  });
  it('with a clock that goes ahead do not win: they are as old as their arrival', async () => {
    await take([{ stepId: await stepOf('discharge'), done: true, at: '2031-01-01T00:00:00.000Z' }]);
    expect((await read()).entries[0]?.at).toBe(at);
  });
  it('are refused where they name an item of another sheet, or a key of another one', async () => {
    const stepId = await stepOf('discharge');
    expect(await code(take([{ stepId, done: true, unitId: ulid() }]))).toBe('bad-input');
    const key = ulid();
    await take([{ key, stepId, done: true }]);
    const other = await beginSheet(db, { crateId, buildId, kind: 'assemble', unitIds: [], ...one });
    const again = takeEntries(db, { crateId, id: other.id, entries: [{ key, stepId, done: true, at }], ...one });
    expect(await code(again)).toBe('bad-input');
  });
});

describe('notes', () => {
  it('are kept at their step, and can be taken away and brought back', async () => {
    const stepId = await stepOf('keep-spares');
    const key = ulid();
    await take([{ key, stepId, note: 'tin on the shelf' }]);
    expect((await read()).entries).toMatchObject([{ note: 'tin on the shelf', done: null }]);
    const { group } = await deleteCheck(db, { crateId, sheetId, key, ...one });
    expect((await read()).entries).toEqual([]);
    await undo(db, { crateId, group, ...one });
    expect((await read()).entries).toMatchObject([{ key, note: 'tin on the shelf' }]);
  });
  it('beside a tick that somebody made before are not lost with it', async () => {
    const stepId = await stepOf('discharge');
    await take([{ stepId, done: true }]);
    await take([{ stepId, done: true, note: 'radiator' }], { by: 'two', at });
    expect((await read()).entries.map(({ note }: Entry) => note)).toEqual([null, 'radiator']);
  });
});

describe('answers', () => {
  const asks = async () => (await read()).sheet.stages.flatMap((stage) => stage.asks.map(({ question }) => question));
  const answer = { question: 'retention', value: 'turning' } as const;

  it('are kept in the part, change the sheet, and are undone with it', async () => {
    expect(await asks()).toContain('retention');
    const before = await getBuild(db, { crate_id: crateId, id: buildId });
    const { group, accepted } = await take([{ stepId: 'ask:retention', answer }]);
    expect(accepted).toHaveLength(1);
    expect((await getModel(db, { crateId, id: ids.enclosure! })).spec).toMatchObject({ retention: 'turning' });
    expect(await asks()).not.toContain('retention');
    expect((await read()).changes).toEqual({ added: [], gone: [] });
    // The step that it opens can be ticked in the same request, as a queue of a browser sends it.
    expect(await stepOf('seat-in-retainer')).toBeTruthy();
    // And the plan is not called outdated by what only the hands go by.
    const row = (await buildRows(db, crateId, '2026-11-27')).find(({ tag }) => tag === before.tag);
    expect(row).toMatchObject({ outdated: false });
    await undo(db, { crateId, group: group!, ...one });
    expect((await getModel(db, { crateId, id: ids.enclosure! })).spec).not.toHaveProperty('retention');
    expect(await asks()).toContain('retention');
  });
  it('are taken in order with the ticks that follow from them', async () => {
    const probe = await take([{ stepId: 'ask:retention', answer }]);
    const stepId = await stepOf('seat-in-retainer');
    await undo(db, { crateId, group: probe.group!, ...one });
    const taken = await take([
      { stepId: 'ask:retention', answer },
      { stepId, done: true }
    ]);
    expect(taken.accepted).toHaveLength(2);
    // Each is a change of its own: undo takes the last one back, and leaves the other.
    await undo(db, { crateId, group: taken.group!, ...one });
    expect((await read()).entries.filter(({ done }) => done)).toEqual([]);
    expect(await asks()).not.toContain('retention');
    const [log] = await db('revisions').where({ row_table: 'models', row_id: ids.enclosure! }).orderBy('id', 'desc');
    await undo(db, { crateId, group: log.group_id, ...one });
  });
  it('of a part that was deleted stay on the sheet', async () => {
    const spec = anEnclosure({ name: 'Goes away' });
    const enclosureId = (await createModel(db, { crateId, spec, ...one })).id;
    const build = await getBuild(db, { crate_id: crateId, id: buildId });
    const choice = { ...build.choice, enclosureId };
    const planned = await planChoice(db, crateId, choice, build);
    await updateBuild(db, {
      crateId,
      id: buildId,
      version: build.version,
      build: { ...build, choice, ...planned },
      ...one
    });
    await deleteModel(db, { crateId, id: enclosureId, version: 1, ...one });
    await take([{ stepId: 'ask:retention', answer }]);
    expect(await asks()).not.toContain('retention');
    expect(await stepOf('seat-in-retainer')).toBeTruthy();
  });
});

describe('a sheet for several items', () => {
  it('has a tick for each, and takes items of its drive only', async () => {
    await addUnits(db, { crateId, count: 3, unit: { modelId: ids.drive!, state: 'owned' }, ...one });
    const units = (await listUnits(db, { crateId, modelId: ids.drive! })).map(({ id }) => id).slice(-3);
    expect(await code(beginSheet(db, { crateId, buildId, kind: 'assemble', unitIds: [ids.drive!], ...one }))).toBe(
      'bad-input'
    );
    sheetId = (await beginSheet(db, { crateId, buildId, kind: 'assemble', unitIds: units, ...one })).id;
    const stepId = await stepOf('tag-parts');
    expect(await code(take([{ stepId, done: true }]))).toBe('bad-input');
    await take(units.slice(0, 2).map((unitId) => ({ stepId, unitId, done: true })));
    // What is done once is one tick, whichever item it was sent for.
    await take([{ stepId: await stepOf('discharge'), unitId: units[0]!, done: true }]);
    const { progress } = await read();
    expect(progress.stages[0]).toMatchObject({ done: 3, complete: false });
  });
});

describe('photographs', () => {
  const send = async (change: Partial<Parameters<typeof takePhoto>[1]> = {}) =>
    takePhoto(db, {
      crateId,
      id: sheetId,
      key: ulid(),
      stepId: await stepOf('photograph'),
      name: 'label.jpg',
      content: await picture(),
      ...one,
      ...change
    });

  it('are kept at their step, once for one key, and undone', async () => {
    const key = ulid();
    const first = await send({ key });
    expect(await send({ key })).toMatchObject({ id: key, group: first.group });
    const [photo, ...more] = await listAttachments(db, { crateId, subjectId: sheetId });
    expect(more).toEqual([]);
    expect(photo).toMatchObject({ id: key, type: 'image/jpeg', stepId: await stepOf('photograph') });
    await undo(db, { crateId, group: first.group, ...one });
    expect(await listAttachments(db, { crateId, subjectId: sheetId })).toEqual([]);
  });
  it('with anything beside the picture are refused, and nothing is kept', async () => {
    const exif = await sharp(await picture())
      .withExif({ IFD0: { Artist: 'somebody' } })
      .jpeg()
      .toBuffer();
    expect(await code(send({ content: exif }))).toBe('bad-input');
    expect(await code(send({ content: Buffer.from('no picture') }))).toBe('bad-input');
    expect(await code(send({ stepId: 'no-such-step' }))).toBe('bad-input');
    expect(await listAttachments(db, { crateId, subjectId: sheetId })).toEqual([]);
  });
});

describe('a build that is deleted in the middle of a sheet', () => {
  it('takes it along with ticks and photographs, and brings all of it back', async () => {
    await take([{ stepId: await stepOf('discharge'), done: true }]);
    const stepId = await stepOf('photograph');
    const content = await picture();
    await takePhoto(db, { crateId, id: sheetId, key: ulid(), stepId, name: 'a.jpg', content, ...one });
    const { version } = await getBuild(db, { crate_id: crateId, id: buildId });
    const { group } = await deleteBuild(db, { crateId, id: buildId, version, ...one });
    // What a browser still had in its queue finds no sheet: it is told so, and keeps it.
    expect(await code(take([{ stepId: 'discharge', done: true }]))).toBe('not-found');
    expect(await listAttachments(db, { crateId, subjectId: sheetId })).toEqual([]);
    await undo(db, { crateId, group, ...one });
    expect((await read()).progress.done).toBe(1);
    expect(await listAttachments(db, { crateId, subjectId: sheetId })).toHaveLength(1);
    // A key that was sent before is known after all of this.
    expect((await read()).entries).toHaveLength(1);
  });
});

describe('sheets in a bundle', () => {
  it('come through whole: ticks, answers, photographs, and their order', async () => {
    const stepId = await stepOf('discharge');
    await take([
      { stepId, done: true },
      { stepId, note: 'a note' }
    ]);
    await takePhoto(db, {
      crateId,
      id: sheetId,
      key: ulid(),
      stepId: await stepOf('photograph'),
      name: 'a.jpg',
      content: await picture(),
      ...one
    });
    const bundle = await bundleOf(db, crateId, at);
    const { crate: opened } = await openFrom(db, bundle, at);
    const { tag: _tag, ...build } = await getBuild(db, { crate_id: crateId, id: buildId });
    const theirs = (await listSheets(db, { crateId: opened.id })).length;
    expect(theirs).toBe((await listSheets(db, { crateId })).length);
    expect(bundle.checks!.length).toBeGreaterThan(1);
    const again = await bundleOf(db, opened.id, at);
    const shape = (of: typeof bundle) =>
      of.checks!.map(({ stepId, done, note, seq }) => [stepId, done, note, seq]).sort();
    expect(shape(again)).toEqual(shape(bundle));
    expect(again.attachments!.filter(({ subjectTable }) => subjectTable === 'sheets')).toHaveLength(
      bundle.attachments!.filter(({ subjectTable }) => subjectTable === 'sheets').length
    );
    expect(build.name).toBe('b');
  }, 60_000);
  it('with a photograph that holds more than the picture are not opened', async () => {
    const key = ulid();
    await takePhoto(db, {
      crateId,
      id: sheetId,
      key,
      stepId: await stepOf('photograph'),
      name: 'a.jpg',
      content: await picture(),
      ...one
    });
    const bundle = await bundleOf(db, crateId, at);
    const { createHash } = await import('node:crypto');
    const odd = await sharp(await picture())
      .withExif({ IFD0: { Artist: 'somebody' } })
      .jpeg()
      .toBuffer();
    const row = bundle.attachments!.find(({ id }) => id === key)!;
    row.content = odd.toString('base64');
    row.sha256 = createHash('sha256').update(odd).digest('hex');
    row.size = odd.length;
    const [before] = await db('crates').count({ n: '*' });
    expect(await code(openFrom(db, bundle, at))).toBe('bad-input');
    expect(await db('crates').count({ n: '*' })).toEqual([before]);
  }, 60_000);
});

describe('the sheets of the demo', () => {
  it('stand where the demo says, come back at every reset, and tell Today their stage', async () => {
    await seedOnce(db, at);
    await resetDemo(db, at);
    const demo = await getCrate(db, { slug: 'fernhollow' });
    const half = await readSheet(db, { crateId: demo.id, id: demoId('sheet of Bootable spare') });
    expect(half.progress.current).toBe(2);
    const three = await readSheet(db, { crateId: demo.id, id: demoId('sheet of Loan set') });
    expect(three.stored.unitIds).toHaveLength(3);
    expect(three.progress.current).toBe(1);
    expect(half.changes).toEqual({ added: [], gone: [] });
    const rows = await buildRows(db, demo.id, '2026-11-27');
    expect(rows.find(({ name }) => name === 'Bootable spare')?.next).toMatchObject({
      station: 'assemble',
      text: 'Stage 3 of 7: put the drive in.'
    });
  }, 60_000);
});
