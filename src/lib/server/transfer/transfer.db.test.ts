import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '../../../../tests/fresh-database';
import { aDrive } from '../../../../tests/parts';
import { problemCode as code } from '../../../../tests/problem-code';
import { undo } from '../db/undo';
import { demoId } from '../demo/id';
import { seedOnce } from '../demo/seed';
import { exportFile } from './export';
import { planImport, runImport } from './import';
import type { ImportRequest } from './import-request';
import { startTask, cancelTask, taskState, watchTask } from '../tasks/tasks';
import { noControl, type TaskControl } from '../work/control';
import { createAttachment, deleteAttachment, listAttachments, readAttachment } from '../repositories/attachments';
import { createCrate } from '../repositories/crates';
import { modelTable } from '../repositories/model-table';
import { createModel, deleteModel, deleteModels, editModels, getModel, setTarget } from '../repositories/models';
import { listHistory } from '../repositories/events';
import { createPair, listPairs } from '../repositories/pairs';
import { search } from '../repositories/search';
import { unitTable } from '../repositories/unit-table';
import { addUnits, deleteUnits, editUnits, getUnit } from '../repositories/units';

const at = '2026-11-24T12:00:00.000Z';
const who = { by: 'test', at };
let db: Knex;
let drop: () => Promise<void>;
let crateId: string;

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  await seedOnce(db, at);
  crateId = (await createCrate(db, { name: 'Exchange', at })).id;
});
afterAll(() => drop());

const csv = (text: string, more: Partial<ImportRequest> = {}): ImportRequest => ({
  what: 'models',
  kind: 'drive',
  format: 'csv',
  text,
  ...more
});
const run = (request: ImportRequest) => runImport(db, { crateId, request, ...who }, noControl);

describe('importing a table', () => {
  const HEAD = 'Name,Media,Form factor,"Capacity, TB",readMBps,unused\r\n';
  it('matches columns by path and by title, reads units as people type them, and says what it leaves out', async () => {
    const plan = await planImport(db, crateId, csv(`${HEAD}Karst,NVMe SSD,M.2,2000 GB,"7,0 GB/s",x\r\n`));
    expect(plan.mapping).toEqual(['name', 'media', 'formFactor', 'capacityTB', 'readMBps', null]);
    expect(plan.rows[0]!.write!.row.spec).toMatchObject({ media: 'nvme', capacityTB: 2, readMBps: 7000 });
    expect(plan.missing).toEqual([]);
  });
  it('names each wrong cell beside its row, and imports nothing while there is one', async () => {
    const text = `${HEAD}Good,nvme,m2,1,3000,\r\nBad,nvme,m2,-1,3000,\r\nWorse,tape,m2,1,"40 years",\r\ngood,nvme,m2,1,3000,\r\n`;
    const plan = await planImport(db, crateId, csv(text));
    expect(plan.rows.map((r) => r.outcome)).toEqual(['new', 'wrong', 'wrong', 'wrong']);
    expect(plan.rows[1]!.errors.capacityTB).toContain('less than 0.001 TB');
    expect(Object.keys(plan.rows[2]!.errors).sort()).toEqual(['media', 'readMBps']);
    expect(plan.rows[3]!.errors['']).toContain('same thing as row 1');
    expect(await code(run(csv(text)))).toBe('bad-input');
    expect((await modelTable(db, { crateId, kind: 'drive' })).total).toBe(0);
    expect((await run(csv(text, { skipWrong: true }))).counts).toEqual({ new: 1, changed: 0, same: 0, wrong: 3 });
  });
  it('the same file twice makes no doubles; a changed row changes the part; undo takes the group back', async () => {
    const first = `${HEAD}Twice,nvme,m2,1,3000,\r\n`;
    expect((await run(csv(first))).counts.new).toBe(1);
    expect((await run(csv(first))).counts).toEqual({ new: 0, changed: 0, same: 1, wrong: 0 });
    const { group, counts } = await run(csv(first.replace('3000', '3500')));
    expect(counts.changed).toBe(1);
    await undo(db, { crateId, group, ...who });
    const { rows } = await modelTable(db, { crateId, kind: 'drive', find: 'twice' });
    expect(rows[0]!.spec).toMatchObject({ readMBps: 3000 });
  });
  it('a quotation mark without end, an empty file and what is no list are refused', async () => {
    expect(await code(planImport(db, crateId, csv('name\n"open')))).toBe('bad-input');
    expect(await code(planImport(db, crateId, csv('')))).toBe('bad-input');
    expect(await code(planImport(db, crateId, csv('{"a":1}', { format: 'json' })))).toBe('bad-input');
  });
  it('a row with a cell too many is wrong, for everything behind the extra separator stands in the wrong column', async () => {
    const plan = await planImport(
      db,
      crateId,
      csv(`${HEAD}Kiln, dark,nvme,m2,1,3000,red\r\nPlain,nvme,m2,1,3000,\r\n`)
    );
    expect(plan.rows.map((r) => r.outcome)).toEqual(['wrong', 'new']);
    expect(plan.rows[0]!.errors['']).toContain('more cells');
  });
  it('takes the unit of a heading for the bare numbers below it', async () => {
    const text = 'Name,Media,Form factor,Capacity (GB)\r\nA,nvme,m2,2000\r\nB,nvme,m2,4 TB\r\n';
    const plan = await planImport(db, crateId, csv(text));
    expect(plan.rows.map((r) => r.write!.row.spec)).toMatchObject([{ capacityTB: 2 }, { capacityTB: 4 }]);
  });
  it('cells that were put right are read instead of what the file says, and only in their row', async () => {
    const text = `${HEAD}Slate,tape,m2,1,3000,\r\nShale,nvme,m2,1,fast,\r\n`;
    const mended = [
      { row: 1, path: 'media', cell: 'NVMe SSD' },
      { row: 2, path: 'readMBps', cell: '3,5 GB/s' }
    ];
    const plan = await planImport(db, crateId, csv(text, { mended }));
    expect(plan.rows.map((r) => r.outcome)).toEqual(['new', 'new']);
    expect(plan.rows[1]!.write!.row.spec).toMatchObject({ name: 'Shale', readMBps: 3500 });
    const json = JSON.stringify([{ kind: 'drive', name: 'Schist', media: 'tape', formFactor: 'm2', capacityTB: 1 }]);
    const right = [{ row: 1, path: 'media', cell: 'nvme' }];
    expect((await planImport(db, crateId, csv(json, { format: 'json', mended: right }))).counts.new).toBe(1);
    const strange = [{ row: 1, path: '__proto__.polluted', cell: '1' }];
    expect(await code(planImport(db, crateId, csv(text, { mended: strange })))).toBe('bad-input');
  });
  it('an undone import is one line of the history, and so is doing it again', async () => {
    const { group } = await run(csv(`${HEAD}One of two,nvme,m2,1,,\r\nTwo of two,nvme,m2,1,,\r\n`));
    const later = (seconds: number) => ({ by: 'test', at: new Date(Date.parse(at) + seconds * 1000).toISOString() });
    const back = await undo(db, { crateId, group, ...later(60) });
    const newest = async () => (await listHistory(db, { crateId, limit: 3 })).map(({ message }) => message);
    expect((await newest())[0]).toBe('Undid a change: Imported parts: 2 new, 0 changed.');
    expect((await newest())[1]).not.toContain('Undid');
    await undo(db, { crateId, group: back.group, ...later(120) });
    expect((await newest())[0]).toBe('Did it again: Imported parts: 2 new, 0 changed.');
    expect((await modelTable(db, { crateId, kind: 'drive', find: 'of two' })).total).toBe(2);
  });
  it('an empty table holds the headings alone, and nothing of the crate', async () => {
    const text = await exportFile(db, {
      crateId: demoId('crate'),
      what: 'models',
      kind: 'cable',
      format: 'csv',
      empty: true
    });
    expect(text.trim().split('\r\n')).toHaveLength(1);
    expect(text).toContain('Length (m)');
    const plan = await planImport(db, crateId, csv(text, { kind: 'cable' }));
    expect([plan.rows, plan.mapping.includes(null)]).toEqual([[], false]);
  });
  it.each([
    ['a field that is none', ['nonsense']],
    ['one field for two columns', ['name', 'name']],
    ['a column that the file has not', [null, null, null, null, null, null, 'name']]
  ])('a matching with %s is refused', async (_, mapping) => {
    expect(await code(planImport(db, crateId, csv(`${HEAD}A,nvme,m2,1,1,\r\n`, { mapping })))).toBe('bad-input');
  });
  it('a part of another kind is wrong in a file of drives', async () => {
    const text = JSON.stringify([{ kind: 'cable', name: 'A', media: 'nvme', formFactor: 'm2', capacityTB: 1 }]);
    const plan = await planImport(db, crateId, csv(text, { format: 'json' }));
    expect(Object.keys(plan.rows[0]!.errors)).toEqual(['kind']);
  });
  it('10 000 parts: progress is told, cancelling leaves nothing, finishing leaves all, and one undo takes them back', async () => {
    const rows = Array.from({ length: 10_000 }, (_, i) => `Mass ${i},nvme,m2,1,3000,`).join('\r\n');
    const count = async () => (await modelTable(db, { crateId, kind: 'drive', find: 'mass' })).total;
    let id = '';
    const started = await startTask(db, 'Import', async (work) => {
      const stopping: TaskControl = {
        ...work,
        report: async (step, n, total) => {
          if (step.startsWith('Writing') && n >= 5000) void cancelTask(db, id);
          await work.report(step, n, total);
        }
      };
      return runImport(db, { crateId, request: csv(HEAD + rows), ...who }, stopping);
    });
    id = started.id;
    await new Promise<void>((done) => void watchTask(db, id, (state) => state.state !== 'running' && done()));
    expect((await taskState(db, id)).state).toBe('cancelled');
    expect(await count()).toBe(0);
    const steps: number[] = [];
    const { group } = await runImport(
      db,
      { crateId, request: csv(HEAD + rows), ...who },
      { ...noControl, report: async (_s, n) => void steps.push(n) }
    );
    expect(steps.length).toBeGreaterThan(50);
    expect(await count()).toBe(10_000);
    await undo(db, { crateId, group, ...who });
    expect(await count()).toBe(0);
  }, 120_000);
});

describe('table files of the demo crate come back as they went', () => {
  const demo = demoId('crate');
  it.each([
    ['models', 'host'],
    ['models', 'enclosure'],
    ['models', 'drive'],
    ['models', 'cable'],
    ['models', 'pad'],
    ['units', undefined],
    ['quotes', undefined]
  ] as const)('%s %s, as CSV and as JSON', async (what, kind) => {
    for (const format of ['csv', 'json'] as const) {
      const text = await exportFile(db, { crateId: demo, what, kind, format });
      const { counts } = await planImport(db, demo, { what, kind, format, text });
      expect(counts).toMatchObject({ new: 0, changed: 0, wrong: 0 });
      expect(counts.same).toBeGreaterThan(3);
    }
  });
  it('cells that a spreadsheet would run are neutralised, and read back as they were', async () => {
    const name = '=HYPERLINK("http://evil")';
    await createModel(db, { crateId, spec: aDrive({ name }), ...who });
    const text = await exportFile(db, { crateId, what: 'models', kind: 'drive', format: 'csv' });
    expect(text).toContain(`'=HYPERLINK`);
    expect(text).not.toMatch(/(^|[,\n"])=HYPERLINK/m);
    const { rows } = await planImport(db, crateId, csv(text));
    expect(rows.find((row) => row.name === name)?.outcome).toBe('same');
  });
});

describe('the table of a kind', () => {
  const demo = demoId('crate');
  it('sorts by numbers and by modes, pages, and finds by tag and place', async () => {
    const names = async (query: object) =>
      (await modelTable(db, { crateId: demo, kind: 'drive', ...query })).rows.map((r) => r.spec.name);
    expect((await names({ sort: 'capacity', down: true }))[0]).toBe('Gneiss H 8TB');
    expect(await names({ sort: 'capacity', size: 2, page: 2 })).toHaveLength(2);
    expect(await names({ find: 'D-001' })).toHaveLength(1);
    expect(await names({ filters: { media: 'hdd' } })).toEqual(['Gneiss H 8TB', 'Shale H 4TB']);
    expect(
      (await modelTable(db, { crateId: demo, kind: 'enclosure', sort: 'modes', down: true })).rows[0]!.spec.name
    ).toBe('Flue 80');
    expect(
      (await modelTable(db, { crateId: demo, kind: 'cable', filters: { modes: 'usb2' } })).rows.length
    ).toBeGreaterThan(0);
  });
  it('refuses columns and filters that are not there, and takes hostile words as words', async () => {
    expect(await code(modelTable(db, { crateId: demo, kind: 'pad', sort: 'constructor' }))).toBe('bad-input');
    expect(await code(modelTable(db, { crateId: demo, kind: 'pad', filters: { 'a");drop': 'x' } }))).toBe('bad-input');
    expect((await modelTable(db, { crateId: demo, kind: 'drive', find: `%' or 1=1 --` })).total).toBe(0);
  });
});

describe('many at once', () => {
  it('units get the next tags, go out and come back, retire out of their build', async () => {
    const { id: modelId } = await createModel(db, { crateId, spec: aDrive({ name: 'Many' }), ...who });
    const { tags } = await addUnits(db, {
      crateId,
      count: 3,
      unit: { modelId, state: 'owned', location: 'shelf' },
      ...who
    });
    expect(tags).toEqual(['D-001', 'D-002', 'D-003']);
    const { rows } = await unitTable(db, { crateId, modelId });
    const items = rows.map(({ id, version }) => ({ id, version }));
    const { group } = await editUnits(db, {
      crateId,
      items,
      set: { custodian: 'field crew', dueBack: '2026-12-01' },
      ...who
    });
    expect((await unitTable(db, { crateId, out: true })).total).toBe(3);
    expect(await code(editUnits(db, { crateId, items, set: { location: 'x' }, ...who }))).toBe('conflict');
    await undo(db, { crateId, group, ...who });
    expect((await getUnit(db, { crateId, tag: 'D-001' })).unit.custodian).toBeUndefined();
    const now = (await unitTable(db, { crateId, modelId })).rows.map(({ id, version }) => ({ id, version }));
    await editUnits(db, { crateId, items: now.slice(0, 1), set: { state: 'retired' }, ...who });
    expect(await code(deleteModel(db, { crateId, id: modelId, version: 1, ...who }))).toBe('in-use');
    const last = (await unitTable(db, { crateId, modelId })).rows.map(({ id, version }) => ({ id, version }));
    await deleteUnits(db, { crateId, items: last, ...who });
    await deleteModels(db, { crateId, items: [{ id: modelId, version: 1 }], ...who });
    expect(await code(getModel(db, { crateId, id: modelId }))).toBe('not-found');
  });
  it('an edit that one part cannot take changes none', async () => {
    const a = await createModel(db, { crateId, spec: aDrive({ name: 'A' }), ...who });
    const b = await createModel(db, { crateId, spec: aDrive({ name: 'B' }), ...who });
    const items = [a, b].map(({ id }) => ({ id, version: 1 }));
    await editModels(db, { crateId, items, set: { warrantyYears: 3, 'flash.cell': 'qlc', sides: null }, ...who });
    const { spec } = await getModel(db, { crateId, id: b.id });
    expect(spec).toMatchObject({ warrantyYears: 3, flash: { cell: 'qlc', dram: true } });
    expect(spec).not.toHaveProperty('sides');
    expect(await code(editModels(db, { crateId, items, set: { kind: 'cable' }, ...who }))).toBe('bad-input');
    const again = items.map((item) => ({ ...item, version: 2 }));
    expect(await code(editModels(db, { crateId, items: again, set: { capacityTB: -1 }, ...who }))).toBe('bad-input');
    expect((await getModel(db, { crateId, id: a.id })).version).toBe(2);
  });
});

describe('what hangs on a part', () => {
  it('pairs, files and the target price go with it and come back with it', async () => {
    const { id } = await createModel(db, { crateId, spec: aDrive({ name: 'Hung' }), ...who });
    await setTarget(db, { crateId, id, version: 1, target: { amount: 99, currency: 'EUR' }, ...who });
    await createPair(db, { crateId, pair: { driveId: id, bridge: 'B1', verdict: 'bad', reason: 'resets' }, ...who });
    const content = Buffer.from([0, 1, 2, 255]);
    await createAttachment(db, {
      crateId,
      subjectTable: 'models',
      subjectId: id,
      name: 'a.bin',
      type: 'application/octet-stream',
      content,
      ...who
    });
    const { group } = await deleteModel(db, { crateId, id, version: 2, ...who });
    expect(await listPairs(db, { crateId, driveIds: [id] })).toEqual([]);
    await undo(db, { crateId, group, ...who });
    expect((await getModel(db, { crateId, id })).target).toEqual({ amount: 99, currency: 'EUR' });
    expect((await listPairs(db, { crateId, driveIds: [id] }))[0]!.pair).toMatchObject({ drive: 'Hung', bridge: 'B1' });
    const [file] = await listAttachments(db, { crateId, subjectId: id });
    expect((await readAttachment(db, { crateId, id: file!.id })).content.equals(content)).toBe(true);
    const gone = await deleteAttachment(db, { crateId, id: file!.id, version: file!.version, ...who });
    await undo(db, { crateId, group: gone.group, ...who });
    expect((await readAttachment(db, { crateId, id: file!.id })).content.equals(content)).toBe(true);
  });
});

describe('searching', () => {
  it('finds parts, units, builds and vendors; an exact tag comes first', async () => {
    const demo = demoId('crate');
    expect((await search(db, { crateId: demo, words: 'D-002' }))[0]).toMatchObject({ sort: 'unit', path: '/u/D-002' });
    const sorts = new Set((await search(db, { crateId: demo, words: 'trivet' })).map((hit) => hit.sort));
    expect([...sorts]).toEqual(expect.arrayContaining(['unit', 'part']));
    expect((await search(db, { crateId: demo, words: 'nordlicht' })).some((hit) => hit.sort === 'quote')).toBe(true);
    expect(await search(db, { crateId: demo, words: '   ' })).toEqual([]);
  });
});
