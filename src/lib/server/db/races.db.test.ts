import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { aDrive } from '../../../../tests/parts';
import { freshDatabase } from '../../../../tests/fresh-database';
import { problemCode as code } from '../../../../tests/problem-code';
import { runImport } from '../transfer/import';
import { noControl as work } from '../work/control';
import { connect } from './connection';
import { undo } from './undo';
import { createBuild, deleteBuild, listBuilds } from '../repositories/builds';
import { createCrate, listCrates } from '../repositories/crates';
import { createModel, deleteModel, getModel, listModels, updateModel } from '../repositories/models';
import { createQuote, listQuotes } from '../repositories/quotes';
import { createRun, listRuns } from '../repositories/runs';
import { addUnits, createUnit, listUnits } from '../repositories/units';
import { planned } from '../../../../tests/planned-build';

const at = '2026-11-23T12:00:00.000Z';
const who = { by: 'test', at };
let db: Knex;
let url: string;
let drop: () => Promise<void>;
let crateId: string;

beforeAll(async () => {
  ({ db, url, drop } = await freshDatabase());
});
afterAll(() => drop());

/** A crate of its own for each race, with one part in it. */
async function begin(): Promise<{ id: string; version: number }> {
  crateId = (await createCrate(db, { name: 'Race', at })).id;
  return createModel(db, { crateId, spec: aDrive({ name: 'Felt 1' }), ...who });
}
/** The outcomes of work that is begun at one moment, counted. */
async function atOnce(...all: (() => Promise<unknown>)[]): Promise<Record<string, number>> {
  const outcomes = await Promise.all(all.map((one) => code(one())));
  return Object.groupBy
    ? Object.fromEntries(Object.entries(Object.groupBy(outcomes, (o) => o)).map(([k, v]) => [k, v!.length]))
    : outcomes.reduce<Record<string, number>>((sum, o) => ({ ...sum, [o]: (sum[o] ?? 0) + 1 }), {});
}
const times = <T>(n: number, one: (i: number) => () => Promise<T>) => Array.from({ length: n }, (_, i) => one(i));
const ROUNDS = 4;

describe.each(Array.from({ length: ROUNDS }, (_, i) => i + 1))(
  'races, round %d: one wins, the others are told why',
  () => {
    it('units with one tag', async () => {
      const { id } = await begin();
      const unit = { modelId: id, tag: 'D-100', state: 'owned' as const };
      expect(await atOnce(...times(6, () => () => createUnit(db, { crateId, unit, ...who })))).toEqual({
        done: 1,
        'bad-input': 5
      });
    });

    it('crates with one name: every one gets an address of its own', async () => {
      const name = `Twin ${Math.trunc(performance.now() * 1000)}`;
      expect(await atOnce(...times(6, () => () => createCrate(db, { name, at })))).toEqual({ done: 6 });
      const slugs = (await listCrates(db)).filter((crate) => crate.name === name).map(({ slug }) => slug);
      expect(new Set(slugs).size).toBe(6);
    });

    it('several units at once in a crate that has none: no tag twice', async () => {
      const { id } = await begin();
      const add = () => addUnits(db, { crateId, count: 3, unit: { modelId: id, state: 'owned' }, ...who });
      expect(await atOnce(...times(6, () => add))).toEqual({ done: 6 });
      const tags = (await listUnits(db, { crateId })).map(({ unit }) => unit.tag);
      expect(tags).toEqual(Array.from({ length: 18 }, (_, i) => `D-${String(i + 1).padStart(3, '0')}`));
    });

    it('an undo against an edit: one of the two', async () => {
      const { id } = await begin();
      const { group } = await updateModel(db, { crateId, id, version: 1, spec: aDrive({ name: 'b' }), ...who });
      const outcome = await atOnce(
        () => undo(db, { crateId, group, ...who }),
        () => updateModel(db, { crateId, id, version: 2, spec: aDrive({ name: 'c' }), ...who })
      );
      expect(outcome).toEqual({ done: 1, conflict: 1 });
      const { version, spec } = await getModel(db, { crateId, id });
      expect(version).toBe(3);
      expect(['Felt 1', 'c']).toContain(spec.name);
    });

    it('the same undo six times is done once', async () => {
      const { id } = await begin();
      const { group } = await updateModel(db, { crateId, id, version: 1, spec: aDrive({ name: 'b' }), ...who });
      expect(await atOnce(...times(6, () => () => undo(db, { crateId, group, ...who })))).toEqual({
        done: 1,
        conflict: 5
      });
    });

    it('deleting a part against new units of it', async () => {
      const { id } = await begin();
      const outcome = await atOnce(
        () => deleteModel(db, { crateId, id, version: 1, ...who }),
        ...times(
          3,
          (i) => () => createUnit(db, { crateId, unit: { modelId: id, tag: `D-20${i}`, state: 'owned' }, ...who })
        )
      );
      // either it goes first and there is nothing to add a unit to, or it stays because it has units
      expect([
        { done: 1, 'not-found': 3 },
        { done: 3, 'in-use': 1 }
      ]).toContainEqual(outcome);
    });

    it('deleting a part against new quotes for it: they go with it, or come too late', async () => {
      const { id } = await begin();
      const quote = { partId: id, vendor: 'Marktgasse Teile', date: '2026-11-01', currency: 'EUR', list: 9 };
      const outcome = await atOnce(...times(3, () => () => createQuote(db, { crateId, quote, ...who })), () =>
        deleteModel(db, { crateId, id, version: 1, ...who })
      );
      expect(Object.keys(outcome).filter((o) => o !== 'done' && o !== 'not-found')).toEqual([]);
      expect(await listQuotes(db, { crateId })).toEqual([]);
    });

    it('deleting a build against results of it', async () => {
      await begin();
      const build = await createBuild(db, { crateId, build: planned(), ...who });
      const run = {
        date: '2026-11-01',
        results: { writeMBps: 430 },
        conditions: {},
        chain: { host: 'h', port: 'p', enclosure: 'e', drive: 'd', os: 'Linux', mode: 'usb-10g' as const, ids: {} },
        simulated: false,
        accepted: []
      };
      const outcome = await atOnce(
        ...times(
          3,
          () => () => createRun(db, { crateId, subject: { build_id: build.id }, of: build.tag, run, ...who })
        ),
        () => deleteBuild(db, { crateId, id: build.id, version: 1, ...who })
      );
      expect(outcome.done).toBeGreaterThan(0);
      expect(Object.keys(outcome).filter((o) => o !== 'done' && o !== 'not-found' && o !== 'conflict')).toEqual([]);
      expect([await listBuilds(db, crateId), await listRuns(db, { crateId })]).toEqual([[], []]);
    });

    it('one file of parts imported four times at once makes its rows once', async () => {
      await begin();
      const text = JSON.stringify(Array.from({ length: 20 }, (_, i) => aDrive({ name: `Row ${i}` })));
      const request = { what: 'models' as const, kind: 'drive' as const, format: 'json' as const, text };
      expect(await atOnce(...times(4, () => () => runImport(db, { crateId, request, ...who }, work)))).toEqual({
        done: 4
      });
      expect(await listModels(db, { crateId })).toHaveLength(21);
    });

    it('one file of units imported four times at once makes its rows once', async () => {
      await begin();
      const text = `Model,Tag,State\n${Array.from({ length: 20 }, (_, i) => `Felt 1,D-${i + 1},owned`).join('\n')}`;
      const request = { what: 'units' as const, format: 'csv' as const, text };
      expect(await atOnce(...times(4, () => () => runImport(db, { crateId, request, ...who }, work)))).toEqual({
        done: 4
      });
      expect(await listUnits(db, { crateId })).toHaveLength(20);
    });

    it('eight edits of one version', async () => {
      const { id } = await begin();
      const edit = (i: number) => () =>
        updateModel(db, { crateId, id, version: 1, spec: aDrive({ name: `n${i}` }), ...who });
      expect(await atOnce(...times(8, edit))).toEqual({ done: 1, conflict: 7 });
    });

    it('builds saved at once get tags of their own', async () => {
      await begin();
      expect(await atOnce(...times(8, () => () => createBuild(db, { crateId, build: planned(), ...who })))).toEqual({
        done: 8
      });
      expect(new Set((await listBuilds(db, crateId)).map(({ tag }) => tag)).size).toBe(8);
    });

    it('two processes on one database: tags, edits and undos as in one', async () => {
      const { id } = await begin();
      const { group } = await updateModel(db, { crateId, id, version: 1, spec: aDrive({ name: 'b' }), ...who });
      vi.resetModules();
      // a second copy of the program: its own queues, its own pool
      const [units, other] = [await import('../repositories/units'), await import('./undo')];
      const second = connect(url);
      try {
        const outcome = await atOnce(
          ...times(4, () => () => addUnits(db, { crateId, count: 2, unit: { modelId: id, state: 'owned' }, ...who })),
          ...times(
            4,
            () => () => units.addUnits(second, { crateId, count: 2, unit: { modelId: id, state: 'owned' }, ...who })
          ),
          () => undo(db, { crateId, group, ...who }),
          () => other.undo(second, { crateId, group, ...who })
        );
        expect(outcome.done).toBe(9);
        expect(new Set((await listUnits(db, { crateId })).map(({ unit }) => unit.tag)).size).toBe(16);
        expect((await getModel(db, { crateId, id })).version).toBe(3);
      } finally {
        await second.destroy();
      }
    });
  }
);
