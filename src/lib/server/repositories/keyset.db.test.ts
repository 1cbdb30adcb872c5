import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '../../../../tests/fresh-database';
import { demoId } from '../demo/id';
import { resetDemo } from '../demo/seed';
import { buildsAfter } from './builds';
import { eventsAfter } from './events';
import { jobsAfter } from './jobs';
import { partOfList, type Part, type PartOf } from './keyset';
import { createModel, modelsAfter } from './models';
import { quotesAfter } from './quotes';
import { runsAfter } from './runs';
import { unitsAfter } from './units';

const at = '2026-11-23T12:00:00.000Z';
const crateId = demoId('crate');
let db: Knex;
let drop: () => Promise<void>;

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  await resetDemo(db, at);
});
afterAll(() => drop());

type Ask = (part: Part) => Promise<PartOf<unknown>>;
/** Asks on until nothing is left. @param between what happens between two parts */
async function walk(ask: Ask, limit: number, between?: (seen: unknown[]) => Promise<unknown>): Promise<unknown[]> {
  const seen: unknown[] = [];
  let after: string | undefined;
  do {
    const part = await ask({ limit, after });
    expect(part.rows.length).toBeLessThanOrEqual(limit);
    seen.push(...part.rows);
    after = part.next;
    await between?.(seen);
  } while (after !== undefined);
  return seen;
}

const LISTS: Record<string, Ask> = {
  parts: (part) => modelsAfter(db, { crateId, ...part }),
  'parts of one kind': (part) => modelsAfter(db, { crateId, kind: 'drive', ...part }),
  items: (part) => unitsAfter(db, { crateId, ...part }),
  prices: (part) => quotesAfter(db, { crateId, ...part }),
  builds: (part) => buildsAfter(db, { crateId, ...part }),
  results: (part) => runsAfter(db, { crateId, ...part }),
  jobs: (part) => jobsAfter(db, { crateId, ...part }),
  events: (part) => eventsAfter(db, { crateId, ...part })
};

describe.each(Object.entries(LISTS))('%s in parts', (_name, ask) => {
  it('are the whole list, in its order, however long the parts', async () => {
    const whole = await ask({});
    expect(whole.rows.length).toBe(whole.total);
    expect(whole.next).toBeUndefined();
    expect(whole.total).toBeGreaterThan(3);
    for (const limit of [1, 7, whole.total, 1000])
      if (limit > 1 || whole.total < 120) expect(await walk(ask, limit)).toEqual(whole.rows);
  });

  it('refuse a place that is none of theirs', async () => {
    const odd = (value: unknown) => Buffer.from(JSON.stringify(value)).toString('base64url');
    for (const after of ['', 'x', '%', odd('a'), odd({}), odd([]), odd(['a', 'b', 'c', 'd']), odd([null]), odd([[1]])])
      await expect(ask({ limit: 2, after }), after).rejects.toMatchObject({
        code: 'bad-input',
        fields: [{ path: 'after' }]
      });
  });
});

it('rows that come and go between two parts are neither seen twice nor make others missed', async () => {
  const add = (name: string) =>
    createModel(db, {
      crateId,
      spec: { kind: 'cable', name, ends: ['usb-c', 'usb-c'], lengthM: 1, modes: ['usb-5g'] },
      by: 'test',
      at
    });
  const cables = (part: Part) => modelsAfter(db, { crateId, kind: 'cable', ...part });
  for (const name of ['! first', 'zz b', 'zz d', 'zz f']) await add(name);
  const before = (await cables({})).rows.map(({ id }) => id);
  let step = 0;
  const seen = (await walk(cables, 2, async () => {
    step += 1;
    // Behind the place, and before it.
    if (step === 1) await add('! also first');
    if (step === 2) await db('models').where({ crate_id: crateId, name: '! first' }).delete();
  })) as { id: string }[];
  const ids = seen.map(({ id }) => id);
  expect(ids).toEqual(before);
  expect(new Set(ids).size).toBe(ids.length);
});

it('goes on among rows that are alike to the database but not to the eye', async () => {
  await db.schema.createTable('words', (table) => {
    table.string('word', 20);
    table.integer('id');
  });
  // é, E and e are one letter in the order of this database; only the number tells them apart.
  const words = ['e', 'é', 'E', 'e', 'f', 'É'].map((word, id) => ({ word, id }));
  await db('words').insert(words);
  const key = [
    ['word', 'asc'],
    ['id', 'desc']
  ] as const;
  const seen = await walk((part) => partOfList(db('words'), key, part, ({ id }) => id), 2);
  expect(seen).toEqual([5, 3, 2, 1, 0, 4]);
  await db.schema.dropTable('words');
});
