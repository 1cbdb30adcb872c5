import { untyped } from '../../../../tests/untyped';
import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aDrive } from '../../../../tests/parts';
import { freshDatabase } from '../../../../tests/fresh-database';
import { problemCode as code } from '../../../../tests/problem-code';
import { createCrate } from '../repositories/crates';
import { createModel, deleteModel, getModel, listModels, updateModel } from '../repositories/models';
import { createQuote, listQuotes } from '../repositories/quotes';
import { createUnit } from '../repositories/units';
import { change } from './change';
import { undo } from './undo';

const at = '2026-11-23T12:00:00.000Z';
const who = { by: 'test', at };
let db: Knex;
let drop: () => Promise<void>;
let crateId: string;

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  crateId = (await createCrate(db, { name: 'Test crate', at })).id;
});
afterAll(() => drop());

const rows = async (table: string) => Number((await db(table).count({ n: '*' }))[0]!.n);

describe('change()', () => {
  it('writes row, revision and event together', async () => {
    const before = [await rows('models'), await rows('revisions'), await rows('events')];
    const { id, version } = await createModel(db, { crateId, spec: aDrive({ name: 'Écht 石 🪨' }), ...who });
    expect(version).toBe(1);
    expect([await rows('models'), await rows('revisions'), await rows('events')]).toEqual(before.map((n) => n + 1));
    // what went in comes out: numbers as numbers, text in any script
    expect((await getModel(db, { crateId, id })).spec).toEqual({ ...aDrive({ name: 'Écht 石 🪨' }), id });
  });

  it('leaves nothing behind when the last write of it fails', async () => {
    const before = [await rows('models'), await rows('revisions'), await rows('events')];
    const bad = change(db, {
      action: 'insert',
      table: 'models',
      crateId,
      id: '01ARZ3NDEKTSV4RRFFQ69G5FAV',
      ...who,
      row: { kind: 'drive', name: 'x', spec: {} },
      event: { kind: untyped<string>(null), message: 'no kind: the event is refused' }
    });
    await expect(bad).rejects.toThrow();
    expect([await rows('models'), await rows('revisions'), await rows('events')]).toEqual(before);
  });

  it('refuses the second of two writers, with what the first one wrote', async () => {
    const { id } = await createModel(db, { crateId, spec: aDrive(), ...who });
    await updateModel(db, { crateId, id, version: 1, spec: aDrive({ name: 'first' }), ...who });
    const second = updateModel(db, { crateId, id, version: 1, spec: aDrive({ name: 'second' }), ...who });
    await expect(second).rejects.toMatchObject({
      code: 'conflict',
      details: { current: { name: 'first', version: 2 } }
    });
    expect((await getModel(db, { crateId, id })).spec.name).toBe('first');
  });

  it('of ten at once exactly one wins', async () => {
    const { id } = await createModel(db, { crateId, spec: aDrive(), ...who });
    const all = await Promise.all(
      Array.from({ length: 10 }, (_, i) =>
        code(updateModel(db, { crateId, id, version: 1, spec: aDrive({ name: `n${i}` }), ...who }))
      )
    );
    expect(all.sort()).toEqual([...Array(9).fill('conflict'), 'done']);
  });

  it('keeps crates apart', async () => {
    const other = await createCrate(db, { name: 'Other', at });
    const { id } = await createModel(db, { crateId, spec: aDrive(), ...who });
    expect(await code(getModel(db, { crateId: other.id, id }))).toBe('not-found');
    expect(await code(updateModel(db, { crateId: other.id, id, version: 1, spec: aDrive(), ...who }))).toBe(
      'not-found'
    );
  });
});

describe('undo()', () => {
  it('takes back an edit, and the taking back can be taken back', async () => {
    const { id } = await createModel(db, { crateId, spec: aDrive({ name: 'old', capacityTB: 1 }), ...who });
    const edit = await updateModel(db, {
      crateId,
      id,
      version: 1,
      spec: aDrive({ name: 'new', capacityTB: 2 }),
      ...who
    });
    const back = await undo(db, { crateId, group: edit.group, ...who });
    expect((await getModel(db, { crateId, id })).spec).toMatchObject({ name: 'old', capacityTB: 1 });
    await undo(db, { crateId, group: back.group, ...who });
    expect((await getModel(db, { crateId, id })).spec).toMatchObject({ name: 'new', capacityTB: 2 });
  });

  it('takes back adding and deleting; a deleted part comes back with its quotes', async () => {
    const added = await createModel(db, { crateId, spec: aDrive({ name: 'quoted' }), ...who });
    const quote = { partId: added.id, vendor: 'Marktgasse Teile', date: '2026-05-01', currency: 'EUR', list: 99.5 };
    await createQuote(db, { crateId, quote, ...who });
    const deleted = await deleteModel(db, { crateId, id: added.id, version: 1, ...who });
    expect(await code(getModel(db, { crateId, id: added.id }))).toBe('not-found');
    await undo(db, { crateId, group: deleted.group, ...who });
    expect((await getModel(db, { crateId, id: added.id })).spec.name).toBe('quoted');
    expect((await listQuotes(db, { crateId, partIds: [added.id] })).map((q) => q.quote)).toEqual([quote]);

    const lone = await createModel(db, { crateId, spec: aDrive({ name: 'lone' }), ...who });
    await undo(db, { crateId, group: lone.group, ...who });
    expect((await listModels(db, { crateId })).some((m) => m.id === lone.id)).toBe(false);
  });

  it('refuses what was changed again since, twice the same, and what is not there', async () => {
    const { id } = await createModel(db, { crateId, spec: aDrive(), ...who });
    const first = await updateModel(db, { crateId, id, version: 1, spec: aDrive({ name: 'a' }), ...who });
    const second = await updateModel(db, { crateId, id, version: 2, spec: aDrive({ name: 'b' }), ...who });
    expect(await code(undo(db, { crateId, group: first.group, ...who }))).toBe('conflict');
    await undo(db, { crateId, group: second.group, ...who });
    expect(await code(undo(db, { crateId, group: second.group, ...who }))).toBe('conflict');
    expect(await code(undo(db, { crateId, group: '01ARZ3NDEKTSV4RRFFQ69G5FAV', ...who }))).toBe('not-found');
  });

  it('a part with units is not deleted from under them', async () => {
    const { id } = await createModel(db, { crateId, spec: aDrive(), ...who });
    await createUnit(db, { crateId, unit: { modelId: id, tag: 'D-900', state: 'owned' }, ...who });
    expect(await code(deleteModel(db, { crateId, id, version: 1, ...who }))).toBe('in-use');
    expect(await code(createUnit(db, { crateId, unit: { modelId: id, tag: 'D-900', state: 'owned' }, ...who }))).toBe(
      'bad-input'
    );
  });
});
