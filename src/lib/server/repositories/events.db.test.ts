import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aDrive } from '../../../../tests/parts';
import { freshDatabase } from '../../../../tests/fresh-database';
import { undo } from '../db/undo';
import { createCrate } from './crates';
import { listEvents, listHistory } from './events';
import { createModel } from './models';

let db: Knex;
let drop: () => Promise<void>;
let crateId: string;
beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  crateId = (await createCrate(db, { name: 'Late notes', at: '2026-11-01T08:00:00.000Z' })).id;
});
afterAll(() => drop());
const add = (name: string, at: string) => createModel(db, { crateId, spec: aDrive({ name }), by: 'test', at });

describe('the history of a crate', () => {
  it('stands in the order of what happened, not of when it was entered; of one moment, the last entered first', async () => {
    await add('Third', '2026-11-23T08:00:00.000Z');
    await add('First', '2026-11-21T08:00:00.000Z');
    await add('Second', '2026-11-22T08:00:00.000Z');
    await add('Second too', '2026-11-22T08:00:00.000Z');
    const added = (await listEvents(db, { crateId })).flatMap(({ kind, message }) =>
      kind === 'added' ? [message] : []
    );
    expect(added.map((message) => /^Added the drive (.*)\.$/.exec(message)?.[1])).toEqual([
      'Third',
      'Second too',
      'Second',
      'First'
    ]);
  });

  it('offers to undo what can be, and says what was undone', async () => {
    const { group } = await add('Came and went', '2026-11-24T08:00:00.000Z');
    const told = async () =>
      (await listHistory(db, { crateId })).find(({ message }) => message === 'Added the drive Came and went.')!;
    expect(await told()).toMatchObject({ undone: false, group });
    await undo(db, { crateId, group, by: 'test', at: '2026-11-24T09:00:00.000Z' });
    const after = await told();
    expect(after.undone).toBe(true);
    expect(after).not.toHaveProperty('group');
  });
});
