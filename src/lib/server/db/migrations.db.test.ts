import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aCable, aDrive, anEnclosure } from '../../../../tests/parts';
import { freshDatabase } from '../../../../tests/fresh-database';
import { getCrate, listCrates } from '../repositories/crates';
import { listAttachments, readAttachment } from '../repositories/attachments';
import { listModels } from '../repositories/models';
import { addUnits, listUnits } from '../repositories/units';
import { newId } from './change';
import { migrate } from './migrations';

const at = '2026-10-01T08:00:00.000Z';
const who = { by: 'test', at };
const [crateId, drive, enclosure, cable, unit, gone, file] = Array.from({ length: 7 }, () => newId()) as [
  string,
  string,
  string,
  string,
  string,
  string,
  string
];
const sha256 = createHash('sha256').update('paid').digest('hex');
let db: Knex;
let drop: () => Promise<void>;

/** A database as the version before wrote it: with what that version let in. */
beforeAll(async () => {
  ({ db, drop } = await freshDatabase('019-observations'));
  const dates = { created_at: at, updated_at: at };
  const own = { crate_id: crateId, version: 1, ...dates };
  await db('crates').insert({
    id: crateId,
    slug: 'old',
    name: 'Old',
    demo: false,
    house_rules: '{}',
    version: 1,
    ...dates
  });
  const model = (id: string, spec: { kind: string; name: string }) =>
    db('models').insert({ id, kind: spec.kind, name: spec.name, spec: JSON.stringify(spec), ...own });
  await model(drive, aDrive({ name: 'Felt 1' }));
  const doubled = { ...anEnclosure({ name: 'Doubled' }), modes: ['usb-10g', 'usb-10g'] };
  await model(enclosure, doubled);
  await model(cable, aCable({ name: 'Two ends', ends: ['usb-c', 'usb-c'] }));
  const unitRow = { model_id: drive, state: 'owned', details: '{}', ...own };
  await db('units').insert([
    { id: unit, tag: 'D-003', ...unitRow },
    { id: newId(), tag: '.', ...unitRow }
  ]);
  // one that was deleted before numbers were counted
  await db('revisions').insert({
    id: newId(),
    crate_id: crateId,
    group_id: newId(),
    at,
    by: 'x',
    row_table: 'units',
    row_id: gone,
    before: JSON.stringify({ id: gone, tag: 'D-007' }),
    after: null,
    undone: false
  });
  await db('files').insert({ crate_id: crateId, sha256, content: Buffer.from('paid') });
  await db('attachments').insert({
    id: file,
    subject_table: 'models',
    subject_id: drive,
    name: 'receipt.txt',
    type: 'text/plain',
    size: 4,
    sha256,
    ...own
  });
  await migrate(db);
});
afterAll(() => drop());

describe('a database of the version before', () => {
  it('is brought up to date and reads as it did', async () => {
    expect((await listCrates(db)).map(({ name }) => name)).toEqual(['Old']);
    expect((await getCrate(db, { slug: 'old' })).version).toBe(1);
    expect((await readAttachment(db, { crateId, id: file })).content.toString()).toBe('paid');
    expect(await listAttachments(db, { crateId })).toHaveLength(1);
  });
  it('is mended: ticks once, both ends of a cable, a tag that can be reached', async () => {
    const specs = (await listModels(db, { crateId })).map(({ spec }) => spec);
    expect(specs.find((spec) => spec.name === 'Doubled')).toMatchObject({ modes: ['usb-10g'] });
    expect(specs.find((spec) => spec.name === 'Two ends')).toMatchObject({ ends: ['usb-c', 'usb-c'] });
    expect((await listUnits(db, { crateId })).map(({ unit: { tag } }) => tag).sort()).toEqual(['D-003', 'dot 1']);
  });
  it('gives no number twice, not even that of a unit that was deleted long ago', async () => {
    const { tags } = await addUnits(db, { crateId, count: 1, unit: { modelId: drive, state: 'owned' }, ...who });
    expect(tags).toEqual(['D-008']);
  });
  it('is left alone when it is up to date', async () => {
    const before = await db('models').orderBy('id');
    await migrate(db);
    expect(await db('models').orderBy('id')).toEqual(before);
  });
});
