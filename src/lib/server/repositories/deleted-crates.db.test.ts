import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aDrive } from '../../../../tests/parts';
import { freshDatabase } from '../../../../tests/fresh-database';
import { planned } from '../../../../tests/planned-build';
import { problemCode as code } from '../../../../tests/problem-code';
import { undo } from '../db/undo';
import { demoId } from '../demo/id';
import { resetDemo, seedOnce } from '../demo/seed';
import { createBuild, getBuild } from './builds';
import {
  bringBackCrate,
  createCrate,
  deleteCrate,
  getCrate,
  listCrates,
  listDeletedCrates,
  purgeCrate,
  purgeDeleted
} from './crates';
import { createModel, getModel } from './models';

const at = '2026-11-20T12:00:00.000Z';
const who = { by: 'test', at };
let db: Knex;
let drop: () => Promise<void>;
beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
});
afterAll(() => drop());

async function aCrate(name: string) {
  const crate = await createCrate(db, { name, at });
  const model = await createModel(db, { crateId: crate.id, spec: aDrive(), ...who });
  const build = await createBuild(db, { crateId: crate.id, build: planned(), ...who });
  return { crate, model, build };
}

describe('a deleted crate', () => {
  it('is hidden at once, pages and builds too, is not written to, and undo brings all of it back', async () => {
    const { crate, model, build } = await aCrate('Hidden');
    const { group } = await deleteCrate(db, { id: crate.id, version: 1, ...who });
    expect((await listCrates(db)).map(({ id }) => id)).not.toContain(crate.id);
    expect(await code(getCrate(db, { slug: crate.slug }))).toBe('not-found');
    expect(await code(getBuild(db, { tag: build.tag }))).toBe('not-found');
    expect(await code(createModel(db, { crateId: crate.id, spec: aDrive(), ...who }))).toBe('not-found');
    expect(await listDeletedCrates(db)).toEqual([
      // seven days after 20 November
      { id: crate.id, name: 'Hidden', version: 2, deletedAt: at, purgedAt: '2026-11-27T12:00:00.000Z' }
    ]);
    await undo(db, { crateId: crate.id, group, ...who });
    expect((await getCrate(db, { slug: crate.slug })).version).toBe(3);
    expect((await getBuild(db, { tag: build.tag })).id).toBe(build.id);
    expect((await getModel(db, { crateId: crate.id, id: model.id })).version).toBe(1);
  });

  it('can be brought back from the list too, once, and by its version', async () => {
    const { crate } = await aCrate('Listed');
    expect(await code(bringBackCrate(db, { id: crate.id, version: 1, ...who }))).toBe('not-found');
    await deleteCrate(db, { id: crate.id, version: 1, ...who });
    expect(await code(bringBackCrate(db, { id: crate.id, version: 1, ...who }))).toBe('conflict');
    await bringBackCrate(db, { id: crate.id, version: 2, ...who });
    expect((await getCrate(db, { id: crate.id })).name).toBe('Listed');
  });

  it('is purged when its week is over and not before, with everything that was in it', async () => {
    const { crate } = await aCrate('Purged');
    await deleteCrate(db, { id: crate.id, version: 1, ...who });
    await purgeDeleted(db, '2026-11-27T11:59:59.999Z');
    expect(await listDeletedCrates(db)).toHaveLength(1);
    expect(await purgeDeleted(db, '2026-11-27T12:00:00.000Z')).toBe(1);
    for (const table of ['models', 'builds', 'revisions', 'events'])
      expect(await db(table).where({ crate_id: crate.id }), table).toEqual([]);
  });

  it('is removed for good only after it was deleted', async () => {
    const { crate } = await aCrate('For good');
    expect(await code(purgeCrate(db, crate.id))).toBe('not-found');
    expect((await getCrate(db, { id: crate.id })).name).toBe('For good');
  });

  it('the demo too: it does not come back by itself, and a reset of another demo is not in its way', async () => {
    await db('crates').delete();
    await seedOnce(db, at);
    await deleteCrate(db, {
      id: demoId('crate'),
      version: (await getCrate(db, { slug: 'fernhollow' })).version,
      ...who
    });
    await seedOnce(db, at);
    expect(await listCrates(db)).toEqual([]);
    expect((await resetDemo(db, at)).id).toBe(demoId('crate'));
    expect(await listDeletedCrates(db)).toEqual([]);
  }, 90_000);
});
