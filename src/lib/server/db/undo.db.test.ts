import fc from 'fast-check';
import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aDrive } from '../../../../tests/parts';
import { freshDatabase } from '../../../../tests/fresh-database';
import { planned } from '../../../../tests/planned-build';
import { problemCode as code } from '../../../../tests/problem-code';
import { Problem } from '../problems/problem';
import { createAttachment, deleteAttachment, listAttachments } from '../repositories/attachments';
import { createBuild, deleteBuild, getBuild, updateBuild } from '../repositories/builds';
import { createCrate } from '../repositories/crates';
import { createModel, deleteModel, getModel, updateModel } from '../repositories/models';
import { createQuote, deleteQuote, listQuotes } from '../repositories/quotes';
import { createUnit, addUnits, deleteUnit, getUnit, listUnits, updateUnit } from '../repositories/units';
import { undo, type InTheWay } from './undo';

const at = '2026-11-23T12:00:00.000Z';
const later = '2026-11-24T08:00:00.000Z';
const who = { by: 'test', at };
let db: Knex;
let drop: () => Promise<void>;
let crateId: string;

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  crateId = (await createCrate(db, { name: 'Undo', at })).id;
});
afterAll(() => drop());

const part = (name: string) => createModel(db, { crateId, spec: aDrive({ name }), ...who });
const unitOf = (modelId: string, tag: string) => ({ modelId, tag, state: 'owned' as const });
const quoteFor = (partId: string) => ({
  partId,
  vendor: 'Marktgasse Teile',
  date: '2026-11-01',
  currency: 'EUR',
  list: 9
});
const back = (group: string) => undo(db, { crateId, group, by: 'test', at: later });
/** The sentence of a refusal and the names of what stands in the way. */
const refusal = (work: Promise<unknown>) =>
  work.then(
    () => ({ message: 'was done', names: [] as string[] }),
    (error: unknown) => {
      if (!(error instanceof Problem)) throw error;
      return {
        message: error.message,
        names: ((error.details.inTheWay ?? []) as InTheWay[]).map(({ name }) => name)
      };
    }
  );

describe('a deletion taken back', () => {
  it('goes on from the version it had, with its dates: who read it before cannot overwrite what came after', async () => {
    const { id } = await part('Dates');
    await updateModel(db, { crateId, id, version: 1, spec: aDrive({ name: 'Dates 2' }), by: 'b', at: later });
    const { group } = await deleteModel(db, { crateId, id, version: 2, by: 'b', at: later });
    await undo(db, { crateId, group, by: 'b', at: '2026-12-01T00:00:00.000Z' });
    expect(await db('models').where({ id }).first('version', 'created_at', 'updated_at')).toEqual({
      version: 3,
      created_at: at,
      updated_at: later
    });
    expect(await code(updateModel(db, { crateId, id, version: 1, spec: aDrive({ name: 'lost' }), ...who }))).toBe(
      'conflict'
    );
    expect((await getModel(db, { crateId, id })).spec.name).toBe('Dates 2');
  });

  it('that an earlier program wrote, without a version, counts the changes of the row', async () => {
    const { id } = await part('Old');
    await updateModel(db, { crateId, id, version: 1, spec: aDrive({ name: 'Old 2' }), ...who });
    const { group } = await deleteModel(db, { crateId, id, version: 2, ...who });
    const row = (await db('revisions').where({ group_id: group, row_table: 'models' }).first('before')) as {
      before: Record<string, unknown>;
    };
    const { version: _version, updated_at: _at, ...before } = row.before;
    await db('revisions')
      .where({ group_id: group })
      .update({ before: JSON.stringify(before) });
    await back(group);
    // three changes so far (added, edited, deleted), so the next is the fourth
    expect((await getModel(db, { crateId, id })).version).toBe(4);
  });

  it('brings back files with their part, unit and build, and puts units back into the build', async () => {
    const { id } = await part('With files');
    const unit = await createUnit(db, { crateId, unit: unitOf(id, 'F-1'), ...who });
    const build = await createBuild(db, { crateId, build: planned(), ...who });
    await updateUnit(db, {
      crateId,
      id: unit.id,
      version: 1,
      unit: { ...unitOf(id, 'F-1'), buildId: build.id },
      ...who
    });
    const file = (subjectTable: 'units' | 'builds', subjectId: string) =>
      createAttachment(db, {
        crateId,
        subjectTable,
        subjectId,
        name: `${subjectTable}.txt`,
        type: 'text/plain',
        content: Buffer.from(subjectTable),
        ...who
      });
    await file('units', unit.id);
    await file('builds', build.id);
    const names = async () => (await listAttachments(db, { crateId })).map(({ name }) => name).sort();

    const gone = await deleteBuild(db, { crateId, id: build.id, version: 1, ...who });
    expect(await names()).toEqual(['units.txt']);
    const free = await getUnit(db, { crateId, id: unit.id });
    expect(free.unit.buildId).toBeUndefined();
    await back(gone.group);
    expect(await names()).toEqual(['builds.txt', 'units.txt']);
    expect((await getUnit(db, { crateId, id: unit.id })).unit.buildId).toBe(build.id);

    const { version } = await getUnit(db, { crateId, id: unit.id });
    const without = await deleteUnit(db, { crateId, id: unit.id, version, ...who });
    expect(await names()).toEqual(['builds.txt']);
    // the build goes while the unit is away: the unit comes back lying free
    await deleteBuild(db, { crateId, id: build.id, version: 2, ...who });
    await back(without.group);
    expect(await names()).toEqual(['units.txt']);
    expect((await getUnit(db, { crateId, id: unit.id })).unit.buildId).toBeUndefined();
    for (const file of await listAttachments(db, { crateId }))
      await deleteAttachment(db, { crateId, id: file.id, version: file.version, ...who });
  });
});

describe('what cannot be taken back says why, and names what is in the way', () => {
  it('adding a part that has units and quotes by now', async () => {
    const { id, group } = await part('Felt 1');
    await createUnit(db, { crateId, unit: unitOf(id, 'D-901'), ...who });
    await createQuote(db, { crateId, quote: quoteFor(id), ...who });
    expect(await refusal(back(group))).toEqual({
      message: 'The part Felt 1 cannot be undone: 1 item (D-901) and 1 price hang on it by now. Remove them first.',
      names: ['D-901', 'price']
    });
  });

  it('an import of 300 parts, one of which has a unit', async () => {
    const { changeMany, newId } = await import('./change');
    const { modelToRow } = await import('../repositories/models');
    const ids = Array.from({ length: 300 }, () => newId());
    const group = newId();
    const inserts = ids.map((id, i) => ({
      table: 'models' as const,
      id,
      row: modelToRow(aDrive({ name: `Many ${i}` }))
    }));
    await db.transaction((trx) =>
      changeMany(trx, { crateId, ...who, group, event: { kind: 'imported', message: 'x' }, inserts })
    );
    const unit = await createUnit(db, { crateId, unit: unitOf(ids[7]!, 'D-902'), ...who });
    expect((await refusal(back(group))).names).toEqual(['D-902']);
    await deleteUnit(db, { crateId, id: unit.id, version: 1, ...who });
    await back(group);
    expect(await code(getModel(db, { crateId, id: ids[7]! }))).toBe('not-found');
  });

  it('deleting a quote or a unit whose part was deleted after it', async () => {
    const { id } = await part('Gone with it');
    const quote = await createQuote(db, { crateId, quote: quoteFor(id), ...who });
    const deleted = await deleteQuote(db, { crateId, id: quote.id, version: 1, ...who });
    const whole = await deleteModel(db, { crateId, id, version: 1, ...who });
    expect(await refusal(back(deleted.group))).toEqual({
      message: 'The part Gone with it, to which this price belongs, was deleted since; undo that first.',
      names: ['Gone with it']
    });
    await back(whole.group);
    await back(deleted.group);
    expect(await listQuotes(db, { crateId, partIds: [id] })).toHaveLength(1);
  });

  it('a tag that another unit has by now', async () => {
    const { id } = await part('Tagged');
    const one = await createUnit(db, { crateId, unit: unitOf(id, 'mine'), ...who });
    const renamed = await updateUnit(db, { crateId, id: one.id, version: 1, unit: unitOf(id, 'ours'), ...who });
    await createUnit(db, { crateId, unit: unitOf(id, 'mine'), ...who });
    const expected = {
      message: 'Another item has the tag mine by now; give that one another tag first.',
      names: ['mine']
    };
    expect(await refusal(back(renamed.group))).toEqual(expected);
  });

  it('what was changed again since', async () => {
    const { id } = await part('Twice');
    const first = await updateModel(db, { crateId, id, version: 1, spec: aDrive({ name: 'Twice a' }), ...who });
    await updateModel(db, { crateId, id, version: 2, spec: aDrive({ name: 'Twice b' }), ...who });
    expect(await refusal(back(first.group))).toEqual({
      message: 'The part Twice a was changed again since; undo the later change first.',
      names: ['Twice a']
    });
  });
});

describe('tags', () => {
  it('are given once: neither deleting nor a tag by hand brings a number back', async () => {
    const { id: crate } = await createCrate(db, { name: 'Tags', at });
    const model = await createModel(db, { crateId: crate, spec: aDrive({ name: 'T' }), ...who });
    const add = async () =>
      (await addUnits(db, { crateId: crate, count: 1, unit: { modelId: model.id, state: 'owned' }, ...who })).tags[0];
    expect(await add()).toBe('D-001');
    const [unit] = await listUnits(db, { crateId: crate });
    const deleted = await deleteUnit(db, { crateId: crate, id: unit!.id, version: 1, ...who });
    expect(await add()).toBe('D-002');
    await undo(db, { crateId: crate, group: deleted.group, ...who });
    expect((await listUnits(db, { crateId: crate })).map((u) => u.unit.tag)).toEqual(['D-001', 'D-002']);
    await createUnit(db, { crateId: crate, unit: { modelId: model.id, tag: 'D-050', state: 'owned' }, ...who });
    expect(await add()).toBe('D-051');
  });
});

describe('a build whose job or part was deleted', () => {
  it('keeps its own copy and can be written as it was read', async () => {
    const build = await createBuild(db, { crateId, build: planned('Kept'), ...who });
    const read = await getBuild(db, { crate_id: crateId, id: build.id });
    await updateBuild(db, { crateId, id: build.id, version: 1, build: { ...read, name: 'Renamed' }, ...who });
    expect((await getBuild(db, { crate_id: crateId, id: build.id })).name).toBe('Renamed');
  });
});

/** The same store in memory, by the rules that are promised and nothing else. */
type Data = { name: string; modelId?: string };
type Version = Data & { version: number };
type Rev = { id: string; before: Version | null; after: Data | null };
class Model {
  rows = new Map<string, Version>();
  groups: { revs: Rev[]; undone: boolean }[] = [];
  /** The group in which a row was last changed. */
  last = new Map<string, number>();

  private log(revs: Rev[]): number {
    const group = this.groups.push({ revs, undone: false }) - 1;
    for (const { id } of revs) this.last.set(id, group);
    return group;
  }
  private unitsOf = (modelId: string) => [...this.rows].filter(([, row]) => row.modelId === modelId).map(([id]) => id);
  private taken = (tag: string, id: string) =>
    [...this.rows].some(([other, row]) => row.modelId !== undefined && row.name === tag && other !== id);

  add(id: string, data: Data): string {
    if (data.modelId !== undefined && !this.rows.has(data.modelId)) return 'not-found';
    if (data.modelId !== undefined && this.taken(data.name, id)) return 'bad-input';
    this.rows.set(id, { ...data, version: 1 });
    this.log([{ id, before: null, after: data }]);
    return 'done';
  }
  edit(id: string, version: number, name: string): string {
    const row = this.rows.get(id);
    if (!row) return 'not-found';
    if (row.modelId !== undefined && this.taken(name, id)) return 'bad-input';
    if (row.version !== version) return 'conflict';
    const after = { ...row, name };
    this.rows.set(id, { ...after, version: version + 1 });
    this.log([{ id, before: row, after }]);
    return 'done';
  }
  delete(id: string, version: number): string {
    const row = this.rows.get(id);
    if (!row) return 'not-found';
    if (row.modelId === undefined && this.unitsOf(id).length > 0) return 'in-use';
    if (row.version !== version) return 'conflict';
    this.rows.delete(id);
    this.log([{ id, before: row, after: null }]);
    return 'done';
  }
  undo(group: number): string {
    const { revs, undone } = this.groups[group]!;
    if (undone) return 'conflict';
    const [rev] = revs as [Rev];
    if (this.last.get(rev.id) !== group) return 'conflict';
    const { id, before } = rev;
    if (before === null) {
      if (this.unitsOf(id).length > 0) return 'conflict';
      const row = this.rows.get(id)!;
      this.rows.delete(id);
      this.log([{ id, before: row, after: null }]);
    } else {
      if (before.modelId !== undefined && !this.rows.has(before.modelId)) return 'conflict';
      if (before.modelId !== undefined && this.taken(before.name, id)) return 'conflict';
      const now = this.rows.get(id);
      this.rows.set(id, { ...before, version: (now ?? before).version + 1 });
      this.log([{ id, before: now ?? null, after: before }]);
    }
    this.groups[group]!.undone = true;
    return 'done';
  }
}

const index = fc.nat({ max: 5 });
const operation = fc.oneof(
  { weight: 3, arbitrary: fc.record({ do: fc.constant('add part' as const), name: fc.nat({ max: 9 }) }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constant('add unit' as const), part: index, tag: fc.nat({ max: 3 }) }) },
  { weight: 4, arbitrary: fc.record({ do: fc.constant('edit' as const), row: index, name: fc.nat({ max: 3 }) }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constant('delete' as const), row: index }) },
  { weight: 6, arbitrary: fc.record({ do: fc.constant('undo' as const), back: fc.nat({ max: 7 }) }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constant('look' as const) }) }
);

describe('two people who add, edit, delete and take back', () => {
  it('leave in the database what the rules say, whatever the order', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.constantFrom('Nina', 'Otto'), operation), { minLength: 10, maxLength: 40 }),
        async (steps) => {
          const { id: crate } = await createCrate(db, { name: 'Two people', at });
          const model = new Model();
          const groups: string[] = [];
          const ids: string[] = [];
          // what each of them last saw of a row: its version
          const seen = { Nina: new Map<string, number>(), Otto: new Map<string, number>() };
          for (const [by, step] of steps) {
            const whoNow = { crateId: crate, by, at };
            const run = async (expected: string, work: () => Promise<{ group: string; id?: string }>) => {
              let group: string | undefined;
              const outcome = await code(
                work().then((changed) => {
                  group = changed.group;
                })
              );
              expect(outcome, JSON.stringify(step)).toBe(expected);
              if (group) groups.push(group);
            };
            const id = ids[(step.do === 'edit' || step.do === 'delete' ? step.row : 0) % Math.max(1, ids.length)] ?? '';
            const version = seen[by as 'Nina'].get(id) ?? 1;
            const isUnit = (rowId: string) =>
              model.groups.some(({ revs }) => revs.some((r) => r.id === rowId && (r.after ?? r.before)?.modelId));
            const { newId } = await import('./change');
            if (step.do === 'look')
              seen[by as 'Nina'] = new Map([...model.rows].map(([key, row]) => [key, row.version]));
            else if (step.do === 'add part') {
              const fresh = newId();
              ids.push(fresh);
              const name = `P${step.name}`;
              await run(model.add(fresh, { name }), () =>
                createModel(db, { ...whoNow, id: fresh, spec: aDrive({ name }) })
              );
            } else if (step.do === 'add unit') {
              const parts = ids.filter((key) => !isUnit(key));
              const modelId = parts[step.part % Math.max(1, parts.length)];
              if (!modelId) continue;
              const tag = `T${step.tag}`;
              // its id is made by the store: found by its tag afterwards
              let fresh = '';
              const outcome = model.add('?', { name: tag, modelId });
              await run(outcome, async () => {
                const made = await createUnit(db, { ...whoNow, unit: unitOf(modelId, tag) });
                fresh = made.id;
                return made;
              });
              if (outcome !== 'done') continue;
              ids.push(fresh);
              model.rows.set(fresh, model.rows.get('?')!);
              model.rows.delete('?');
              model.groups.at(-1)!.revs[0]!.id = fresh;
              model.last.set(fresh, model.last.get('?')!);
            } else if (step.do === 'edit' && id) {
              if (isUnit(id)) {
                const row = model.rows.get(id);
                const modelId =
                  row?.modelId ?? model.groups.flatMap((g) => g.revs).find((r) => r.id === id)!.after!.modelId!;
                // a unit of a part that is gone has nothing to be a unit of
                const expected = model.rows.has(modelId) ? model.edit(id, version, `T${step.name}`) : 'not-found';
                await run(expected, () =>
                  updateUnit(db, { ...whoNow, id, version, unit: unitOf(modelId, `T${step.name}`) })
                );
              } else
                await run(model.edit(id, version, `P${step.name}`), () =>
                  updateModel(db, { ...whoNow, id, version, spec: aDrive({ name: `P${step.name}` }) })
                );
            } else if (step.do === 'delete' && id) {
              const expected = model.delete(id, version);
              await run(expected, () =>
                isUnit(id) ? deleteUnit(db, { ...whoNow, id, version }) : deleteModel(db, { ...whoNow, id, version })
              );
            } else if (step.do === 'undo' && groups.length > 0) {
              const group = Math.max(0, groups.length - 1 - step.back);
              await run(model.undo(group), () => undo(db, { ...whoNow, group: groups[group]! }));
            }
          }
          const stored = [
            ...(await db('models').where({ crate_id: crate }).select('id', 'version', 'name')),
            ...(await db('units')
              .where({ crate_id: crate })
              .select('id', 'version', 'tag as name', 'model_id as modelId'))
          ].sort((a, b) => (a.id < b.id ? -1 : 1));
          const wanted = [...model.rows]
            .map(([id, { version, name, modelId }]) => ({ id, version, name, ...(modelId ? { modelId } : {}) }))
            .sort((a, b) => (a.id < b.id ? -1 : 1));
          expect(stored).toEqual(wanted);
        }
      ),
      { numRuns: 40 }
    );
  }, 120_000);
});

describe('what earlier versions let in', () => {
  it('is mended where it stands: doubled ticks, control characters, tags of dots; two ends of a cable stay two', async () => {
    const { mendDoubledChoices, mendOddText } = await import('./mend');
    const { aCable, anEnclosure } = await import('../../../../tests/parts');
    const enclosure = await createModel(db, { crateId, spec: anEnclosure({ name: 'Doubled' }), ...who });
    const cable = await createModel(db, { crateId, spec: aCable({ name: 'Two ends' }), ...who });
    const unit = await createUnit(db, { crateId, unit: unitOf(enclosure.id, 'mended'), ...who });
    const untouched = await db('models').where({ id: cable.id }).first();
    const stored = (await db('models').where({ id: enclosure.id }).first('spec')) as { spec: Record<string, unknown> };
    const spec = { ...stored.spec, modes: ['usb-10g', 'usb-5g', 'usb-10g', 'usb-5g'], bridge: 'Tern\u000012' };
    await db('models')
      .where({ id: enclosure.id })
      .update({ name: 'Dou\u001bbled', spec: JSON.stringify(spec) });
    await db('units').where({ id: unit.id }).update({ tag: '..' });
    await mendDoubledChoices(db);
    await mendOddText(db);
    const mended = (await db('models').where({ id: enclosure.id }).first()) as {
      name: string;
      spec: Record<string, unknown>;
      version: number;
    };
    expect([mended.name, mended.spec.modes, mended.spec.bridge, mended.version]).toEqual([
      'Dou\ufffdbled',
      ['usb-10g', 'usb-5g'],
      'Tern\ufffd12',
      1
    ]);
    expect(await db('units').where({ id: unit.id }).first('tag')).toEqual({ tag: 'dot 2' });
    expect(await db('models').where({ id: cable.id }).first()).toEqual(untouched);
  });
});
