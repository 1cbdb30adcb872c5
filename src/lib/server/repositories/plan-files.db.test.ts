import type { Knex } from 'knex';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { freshDatabase } from '../../../../tests/fresh-database';
import { anInput } from '../../../../tests/parts';
import { undo } from '../db/undo';
import { createCrate } from './crates';
import { listSpecs } from './models';
import { openPlan } from './plan-files';

let db: Knex;
let drop: () => Promise<void>;
const who = { by: 'test', at: '2026-11-27T12:00:00.000Z' };
beforeAll(async () => void ({ db, drop } = await freshDatabase()));
afterAll(() => drop());

it('takes the parts of a plan in as one change, doubles none, and takes all back as one', async () => {
  const { id: crateId } = await createCrate(db, { name: 'Another', at: who.at });
  const input = anInput({ job: { name: 'Reels', purposes: ['scratch'], transferGB: 100, direction: 'in' } });
  const opened = await openPlan(db, { crateId, input, name: 'Carrier', ...who });
  // computer, cable, enclosure, drive and the job
  expect(opened.added).toBe(5);
  expect((await listSpecs(db, { crateId })).map(({ name }) => name).sort()).toEqual([
    'Test 40',
    'Test C-C',
    'Test T4 2TB',
    'Test host'
  ]);
  const again = await openPlan(db, { crateId, input, name: 'Carrier', ...who });
  expect(again).toEqual({ choice: opened.choice, added: 0, group: null });
  const other = await openPlan(db, {
    crateId,
    input: { ...input, drive: { ...input.drive, capacityTB: 4 } },
    name: 'B',
    ...who
  });
  expect(other.added).toBe(1);
  await undo(db, { crateId, group: opened.group!, ...who });
  expect((await listSpecs(db, { crateId })).map(({ kind }) => kind)).toEqual(['drive']);
});
