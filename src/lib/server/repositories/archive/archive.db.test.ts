import { randomBytes } from 'node:crypto';
import { existsSync } from 'node:fs';
import { gunzipSync, gzipSync } from 'node:zlib';
import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  asDocument,
  backupOf,
  bundleOf,
  changed,
  fileOf,
  forged,
  linesOf,
  openFrom,
  packedBundleOf,
  restoreFrom
} from '../../../../../tests/archives';
import { freshDatabase } from '../../../../../tests/fresh-database';
import { planned } from '../../../../../tests/planned-build';
import { aDrive } from '../../../../../tests/parts';
import { writing } from '../../db/writing';
import { demoId } from '../../demo/id';
import { DEMO_INTERNAL, DEMO_RUNS } from '../../demo/runs';
import { seedOnce } from '../../demo/seed';
import { Problem } from '../../problems/problem';
import { noControl } from '../../work/control';
import { createAttachment, deleteAttachment, listAttachments, readAttachment } from '../attachments';
import { createBuild, listBuilds } from '../builds';
import { createCrate, getCrate, listCrates } from '../crates';
import { createModel, listModels } from '../models';
import { createUnit, listUnits } from '../units';
import { checkBackup, restoreBackup } from './backup';
import { checkBundle, openBundle } from './bundle';
import { bundleSchema } from './bundle-schema';
import { forgetUnusedContents } from '../contents';

const at = '2026-11-23T12:00:00.000Z';
const who = { by: 'test', at };
const demo = demoId('crate');
let db: Knex;
let drop: () => Promise<void>;
let backup: Buffer;

const attach = (to: Knex, crateId: string, subjectId: string, content: Buffer, name = 'receipt.txt') =>
  createAttachment(to, { crateId, subjectTable: 'models', subjectId, name, type: 'text/plain', content, ...who });

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  await seedOnce(db, at);
  await attach(db, demo, demoId('Kiln'), Buffer.from('paid'));
  // one that was deleted can be brought back: its content travels too
  const gone = await attach(db, demo, demoId('Kiln'), Buffer.from('taken back'), 'gone.txt');
  await deleteAttachment(db, { crateId: demo, id: gone.id, version: 1, ...who });
  backup = await backupOf(db, at);
}, 60_000);
afterAll(() => drop());

async function inNewDatabase<T>(work: (other: Knex) => Promise<T>): Promise<T> {
  const other = await freshDatabase();
  try {
    return await work(other.db);
  } finally {
    await other.drop();
  }
}
/** The paths that a refusal names, and its sentence. */
const refusal = (work: Promise<unknown>) =>
  work.then(
    () => ({ paths: ['was taken'], message: '' }),
    (error: unknown) => {
      if (!(error instanceof Problem)) throw error;
      return { paths: error.fields.map(({ path }) => path), message: error.message };
    }
  );
const withoutTime = (lines: object[]) => lines.map((line) => ({ ...line, madeAt: '' }));

describe('a backup', () => {
  it('brings everything back into an empty database: undo history, files and deleted files too', async () => {
    await inNewDatabase(async (other) => {
      await restoreFrom(other, backup, at);
      expect(withoutTime(linesOf(await backupOf(other, at)))).toEqual(withoutTime(linesOf(backup)));
      const [file] = (await listAttachments(other, { crateId: demo })).filter(({ name }) => name === 'receipt.txt');
      expect((await readAttachment(other, { crateId: demo, id: file!.id })).content.toString()).toBe('paid');
    });
  }, 30_000);

  it('of an earlier version, one document, opens too, and is mended: doubled ticks, what dangles, tags', async () => {
    const older = asDocument(
      changed(
        changed(backup, 'units', (rows) =>
          rows.map((row, i) => (i === 0 ? { ...row, build_id: '01ARZ3NDEKTSV4RRFFQ69G5FAV' } : row))
        ),
        'models',
        (rows) =>
          rows.map((row) =>
            row.kind === 'enclosure'
              ? {
                  ...row,
                  spec: {
                    ...(row.spec as object),
                    modes: [
                      ...(row.spec as { modes: string[] }).modes,
                      ...(row.spec as { modes: string[] }).modes
                    ].slice(0, 6)
                  }
                }
              : row
          )
      )
    );
    await inNewDatabase(async (other) => {
      await restoreFrom(other, older, at);
      const models = await listModels(other, { crateId: demo, kind: 'enclosure' });
      for (const { spec } of models)
        if (spec.kind === 'enclosure') expect(new Set(spec.modes).size).toBe(spec.modes.length);
      expect(
        (await listUnits(other, { crateId: demo })).some(({ unit }) => unit.buildId === '01ARZ3NDEKTSV4RRFFQ69G5FAV')
      ).toBe(false);
      expect(await other('counters').where('name', 'like', `${demo} %`)).not.toEqual([]);
    });
  }, 30_000);

  it('replaces what is there, which is in the safety copy to the last write', async () => {
    await inNewDatabase(async (other) => {
      const { id: crateId } = await createCrate(other, { name: 'Before', at });
      const model = await createModel(other, { crateId, spec: aDrive({ name: 'Kept' }), ...who });
      await attach(other, crateId, model.id, Buffer.from('kept too'));
      const { safetyCopy } = await restoreFrom(other, backup, at);
      expect((await listCrates(other)).map(({ name }) => name)).toEqual(['Fernhollow Herbarium']);
      await restoreFrom(other, safetyCopy, at);
      expect((await listModels(other, { crateId })).map(({ spec }) => spec.name)).toEqual(['Kept']);
      const [file] = await listAttachments(other, { crateId });
      expect((await readAttachment(other, { crateId, id: file!.id })).content.toString()).toBe('kept too');
    });
  }, 60_000);

  it('while four people write: every write that was acknowledged is in the new state or in the safety copy', async () => {
    await inNewDatabase(async (other) => {
      const { id: crateId } = await createCrate(other, { name: 'Busy', at });
      const acknowledged: string[] = [];
      let busy = 0;
      let over = false;
      const writer = async (n: number) => {
        for (let i = 0; !over; i++) {
          const name = `w${n}-${i}`;
          try {
            await createModel(other, { crateId, spec: aDrive({ name }), ...who });
            acknowledged.push(name);
          } catch (error) {
            // busy while it is replaced; gone with its crate afterwards
            expect(error).toBeInstanceOf(Problem);
            expect(['busy', 'not-found']).toContain((error as Problem).code);
            if ((error as Problem).code === 'busy') busy += 1;
            await new Promise((done) => setTimeout(done, 2));
          }
        }
      };
      const writers = [1, 2, 3, 4].map(writer);
      await new Promise((done) => setTimeout(done, 200));
      const { safetyCopy } = await restoreFrom(other, backup, at);
      over = true;
      await Promise.all(writers);
      const kept = new Set(
        linesOf(safetyCopy).flatMap(({ table, row }) => (table === 'models' ? [(row as { name: string }).name] : []))
      );
      expect(acknowledged.length).toBeGreaterThan(10);
      expect(acknowledged.filter((name) => !kept.has(name))).toEqual([]);
      expect(busy).toBeGreaterThan(0);
    });
  }, 60_000);

  it('of an earlier version with characters that it let in is whole by its digest, and opens without them', async () => {
    const named = changed(backup, 'jobs', (rows) =>
      rows.map((row, i) =>
        i === 0 ? { ...row, name: 'Odd\u001bjob', spec: { ...(row.spec as object), name: 'Odd\u001bjob' } } : row
      )
    );
    await inNewDatabase(async (other) => {
      for (const content of [asDocument(named), named]) {
        await restoreFrom(other, content, at);
        expect(await other('jobs').where({ name: 'Odd\ufffdjob' })).toHaveLength(1);
      }
    });
  }, 60_000);

  it('cancelled while contents are put in place leaves no half of a safety copy', async () => {
    await inNewDatabase(async (other) => {
      const path = fileOf(backup);
      const safetyCopy = fileOf('');
      const report = async (step: string) => {
        if (step.startsWith('Putting')) throw new Error('stopped');
      };
      const args = { path, checked: await checkBackup(path), safetyCopy, at };
      await expect(restoreBackup(other, args, { ...noControl, report })).rejects.toThrow('stopped');
      await expect.poll(() => existsSync(`${safetyCopy}.part`)).toBe(false);
    });
  });

  it('that fails in the middle of the replacing leaves the old state', async () => {
    await inNewDatabase(async (other) => {
      const { id: crateId } = await createCrate(other, { name: 'Stays', at });
      const path = fileOf(backup);
      const checked = await checkBackup(path);
      const report = async (step: string) => {
        if (step === 'Writing runs') throw new Error('the power went');
      };
      const failing = restoreBackup(other, { path, checked, safetyCopy: fileOf(''), at }, { ...noControl, report });
      await expect(failing).rejects.toThrow('the power went');
      expect((await listCrates(other)).map(({ id }) => id)).toEqual([crateId]);
      // six files, and the series of every run of the demo that has one
      const contents = 6 + DEMO_RUNS.length + DEMO_INTERNAL.length;
      // its contents went in before and are named by nothing: they go a day later
      expect(await other('files')).toHaveLength(contents);
      expect(await forgetUnusedContents(other)).toBe(0);
      expect(await forgetUnusedContents(other, Date.now() + 86_500_000)).toBe(contents);
      // and writing goes on
      await createModel(other, { crateId, spec: aDrive(), ...who });
    });
  }, 30_000);

  it.each([
    ['nonsense', () => Buffer.from('nonsense'), 'no backup'],
    ['nothing', () => Buffer.alloc(0), 'no backup'],
    ['an empty object', () => gzipSync('{}'), 'no backup'],
    ['one that was cut off', () => backup.subarray(0, backup.length - 40), 'damaged'],
    [
      'one cut off at a line',
      () => gzipSync(`${gunzipSync(backup).toString().split('\n').slice(0, 40).join('\n')}\n`),
      'damaged'
    ],
    [
      'one with a changed letter',
      () => gzipSync(gunzipSync(backup).toString().replace('Fernhollow', 'Gernhollow')),
      'damaged'
    ],
    [
      'one with more after its end',
      () => gzipSync(Buffer.concat([gunzipSync(backup), Buffer.from('{"table":"models"}\n')])),
      'damaged'
    ],
    [
      'one of a newer program',
      () =>
        forged(
          linesOf(backup).map((l, i) =>
            i === 0 ? { ...l, migrations: [...(l.migrations as string[]), '999-later'] } : l
          )
        ),
      'newer'
    ],
    ['a bomb of brackets', () => gzipSync('[1],'.repeat(20_000_000)), ''],
    ['a bomb of blanks', () => gzipSync(Buffer.alloc(300_000_000, 32)), ''],
    [
      'a bomb in one document',
      () => gzipSync(`{"format":"ash-crate-backup","formatVersion":1,"tables":[${'[1],'.repeat(10_000_000)}1]}`),
      ''
    ],
    [
      'a deep one',
      () => gzipSync(`{"format":"ash-crate-backup","formatVersion":1,"tables":${'['.repeat(300_000)}`),
      'no backup'
    ]
  ])(
    '%s is refused before anything is touched',
    async (_, make, words) => {
      const { paths, message } = await refusal(checkBackup(fileOf(make())));
      expect(paths).toHaveLength(1);
      expect(message).toContain(words);
    },
    30_000
  );

  it.each([
    ['no counters', () => forged(linesOf(backup).filter(({ table }) => table !== 'counters')), ['counters']],
    ['only its head', () => forged([linesOf(backup)[0]!]), ['crates']],
    ['a table that is not one', () => forged([...linesOf(backup), { table: 'mysql', row: {} }]), ['mysql']],
    [
      'a part without a specification',
      () => changed(backup, 'models', (rows) => [{ ...rows[0], spec: { kind: 'drive' } }, ...rows.slice(1)]),
      ['models.0.spec']
    ],
    ['two of one id', () => changed(backup, 'jobs', (rows) => [...rows, rows[0]!]), ['jobs']],
    [
      'a unit of no part',
      () =>
        changed(backup, 'units', (rows) =>
          rows.map((row, i) => (i === 2 ? { ...row, model_id: '01ARZ3NDEKTSV4RRFFQ69G5FAV' } : row))
        ),
      ['units.2.model_id']
    ],
    [
      'a result of nothing',
      () => changed(backup, 'runs', (rows) => rows.map((row) => ({ ...row, results: {} }))),
      ['runs.0.results']
    ],
    [
      'a file of something that every object has',
      () => changed(backup, 'attachments', (rows) => rows.map((row) => ({ ...row, subject_table: 'constructor' }))),
      ['attachments.0.subject_table']
    ],
    ['a file without its content', () => changed(backup, 'files', () => []), ['attachments.0.sha256']],
    [
      'a content that is another',
      () => changed(backup, 'files', (rows) => rows.map((row) => ({ ...row, content: { base64: 'AAAA' } }))),
      ['files.0.content']
    ],
    [
      'an address that leads away',
      () => changed(backup, 'crates', (rows) => rows.map((row) => ({ ...row, slug: '../x' }))),
      ['crates.0.slug']
    ],
    [
      'details that are a content',
      () => changed(backup, 'quotes', (rows) => rows.map((row) => ({ ...row, details: { base64: 'AAAA' } }))),
      ['quotes.0.details']
    ],
    [
      'a column nobody knows',
      () => changed(backup, 'rates', (rows) => rows.map((row) => ({ ...row, extra: 1 }))),
      ['rates.0']
    ]
  ])('with a right digest and %s is refused with the path', async (_, make, paths) => {
    const found = await refusal(checkBackup(fileOf(make())));
    for (const path of paths)
      expect(
        found.paths.some((p) => p.startsWith(path)),
        found.paths.join()
      ).toBe(true);
  });
});

describe('a bundle', () => {
  const strip = (bundle: unknown) => JSON.parse(JSON.stringify({ ...(bundle as object), exportedAt: '' })) as unknown;
  it('is a document by its schema, and opens in an empty database as exactly the same crate, as lines too', async () => {
    const bundle = await bundleOf(db, demo, at);
    expect(bundleSchema.safeParse(bundle).error?.issues[0]).toBeUndefined();
    for (const content of [bundle, await packedBundleOf(db, demo, at)])
      await inNewDatabase(async (other) => {
        const { crate, renamed } = await openFrom(other, content, at);
        expect(renamed).toBe(false);
        expect(strip(await bundleOf(other, crate.id, at))).toEqual(strip(bundle));
      });
  }, 60_000);

  it('beside the crate it came from it gets new ids and tags, and everything still refers to its own', async () => {
    const bundle = await bundleOf(db, demo, at);
    const { crate, renamed } = await openFrom(db, bundle, at);
    expect(renamed).toBe(true);
    const copy = await bundleOf(db, crate.id, at);
    expect(copy.models).toHaveLength(bundle.models!.length);
    const ids = new Set(copy.models!.map((m) => m.id));
    type Build = { tag: string; choice: { driveId: string }; snapshot: { drive: { id: string } } };
    const builds = copy.builds as Build[];
    expect(builds.every((b) => ids.has(b.choice.driveId) && ids.has(b.snapshot.drive.id))).toBe(true);
    expect(builds.some((b) => bundle.builds!.some((a) => a.tag === b.tag))).toBe(false);
    // tags of units go on after those that came along
    const [host] = await listModels(db, { crateId: crate.id, kind: 'host' });
    expect(host).toBeDefined();
  }, 30_000);

  it('with an address that is taken, in any case and of any length, gets one of its own', async () => {
    const bundle = await bundleOf(db, demo, at);
    const slug = 'x'.repeat(60);
    const slugs = new Set<string>();
    for (let i = 0; i < 3; i++)
      slugs.add((await openFrom(db, { ...bundle, crate: { ...bundle.crate, slug } }, at)).crate.slug);
    expect(slugs.size).toBe(3);
    for (const one of slugs) expect((await getCrate(db, { slug: one })).slug).toBe(one);
  }, 60_000);

  it('a tag far beyond those in use does not make the next builds go on from it', async () => {
    await inNewDatabase(async (other) => {
      const bundle = await bundleOf(db, demo, at);
      const far = { ...bundle, builds: bundle.builds!.map((b, i) => (i === 0 ? { ...b, tag: 'AC-999999999' } : b)) };
      const { crate } = await openFrom(other, far, at);
      // fifteen keep theirs, AC-0002 to AC-0016; the far one comes after them
      expect(
        (await listBuilds(other, crate.id))
          .map(({ tag }) => tag)
          .sort()
          .at(-1)
      ).toBe('AC-0017');
      expect((await createBuild(other, { crateId: crate.id, build: planned(), ...who })).tag).toBe('AC-0018');
    });
  }, 30_000);

  const first = (table: string, change: object) => (bundle: Record<string, unknown>) => ({
    ...bundle,
    [table]: (bundle[table] as object[]).map((row, i) => (i === 0 ? { ...row, ...change } : row))
  });
  const OTHER = '01ARZ3NDEKTSV4RRFFQ69G5FAV';
  it.each([
    ['details of a unit that no page reads', first('units', { details: { x: 1 } }), 'units.0'],
    ['a quote without a price', first('quotes', { details: {} }), 'quotes.0'],
    ['a result of nothing', first('runs', { results: {} }), 'runs.0.results'],
    ['a pair of nothing', first('pairs', { details: {} }), 'pairs.0'],
    ['a rate of nothing', first('rates', { details: {} }), 'rates.0'],
    ['a file of something unknown', first('attachments', { subjectTable: 'x' }), 'attachments.0.subjectTable'],
    ['a file of another crate', first('attachments', { subjectId: OTHER }), 'attachments.0.subjectId'],
    ['an observation of another crate', first('observations', { buildId: OTHER }), 'observations.0.buildId'],
    ['a unit in a build of another crate', first('units', { buildId: OTHER }), 'units.0.buildId'],
    ['a unit without a tag', first('units', { tag: '' }), 'units.0.tag'],
    ['a unit whose page cannot be reached', first('units', { tag: '..' }), 'units.0.tag'],
    [
      'two units of one tag',
      (b: Record<string, unknown>) => first('units', { tag: (b.units as { tag: string }[])[1]!.tag })(b),
      'units'
    ],
    [
      'no address',
      (b: Record<string, unknown>) => ({ ...b, crate: { ...(b.crate as object), slug: '' } }),
      'crate.slug'
    ],
    [
      'an address that leads away',
      (b: Record<string, unknown>) => ({ ...b, crate: { ...(b.crate as object), slug: '../x' } }),
      'crate.slug'
    ],
    ['a build tag that is none', first('builds', { tag: 'AC-1' }), 'builds.0.tag'],
    ['no parts', ({ models: _models, ...rest }: Record<string, unknown>) => rest, 'models'],
    [
      'parts that something refers to left out',
      (b: Record<string, unknown>) => ({ ...b, models: (b.models as object[]).slice(1) }),
      'units'
    ],
    ['a key nobody knows', (b: Record<string, unknown>) => ({ ...b, extra: [] }), 'extra'],
    ['a damaged file', first('attachments', { content: 'AAAA' }), 'attachments.0.content']
  ])('with %s is refused with the path, and nothing of it stays', async (_, change, path) => {
    const before = (await db('crates')).length;
    const bundle = (change as (b: object) => object)(await bundleOf(db, demo, at));
    const found = await refusal(openFrom(db, bundle, at));
    expect(
      found.paths.some((p) => p.startsWith(path)),
      found.paths.join()
    ).toBe(true);
    expect((await db('crates')).length).toBe(before);
  });

  it('opens however it is written: over many lines, its keys in any order', async () => {
    const { format, formatVersion, ...rest } = (await bundleOf(db, demo, at)) as Record<string, unknown>;
    const pretty = JSON.stringify({ ...rest, formatVersion, format }, null, 2);
    expect(pretty.startsWith('{\n')).toBe(true);
    const { crate } = await openFrom(db, pretty, at);
    expect((await listModels(db, { crateId: crate.id })).length).toBe((rest.models as object[]).length);
  });

  it('that meets a deadlock is told so and leaves nothing: its file is read once and cannot be gone on with', async () => {
    const before = (await db('crates')).length;
    const path = fileOf(JSON.stringify(await bundleOf(db, demo, at)));
    let asked = 0;
    const report = async (step: string) => {
      if (step !== 'Writing units') return;
      asked += 1;
      throw Object.assign(new Error('deadlock'), { code: 'ER_LOCK_DEADLOCK' });
    };
    const opening = openBundle(db, { path, checked: await checkBundle(path), at }, { ...noControl, report });
    await expect(opening).rejects.toMatchObject({ code: 'busy' });
    expect([asked, (await db('crates')).length]).toEqual([1, before]);
  });

  it('odd characters that an earlier version let in are taken out, and do not stop it', async () => {
    const text = JSON.stringify(await bundleOf(db, demo, at)).replace('scanning desk', 'scanning\\u0000\\ud800desk');
    const { crate } = await openFrom(db, text, at);
    expect(crate.name).toBe('Fernhollow Herbarium');
  });
});

describe('size', () => {
  it('files of 200 MB go through a backup, a restore and a bundle a piece at a time', async () => {
    await inNewDatabase(async (other) => {
      const { id: crateId } = await createCrate(other, { name: 'Large', at });
      const { id } = await createModel(other, { crateId, spec: aDrive(), ...who });
      await createUnit(other, { crateId, unit: { modelId: id, tag: 'D-1', state: 'owned' }, ...who });
      for (let i = 0; i < 25; i++) await attach(other, crateId, id, randomBytes(8_000_000), `${i}.bin`);
      const copy = await backupOf(other, at);
      expect(copy.length).toBeGreaterThan(190e6);
      await writing(other, null, (trx) => trx('attachments').delete());
      await restoreFrom(other, copy, at);
      expect(await listAttachments(other, { crateId })).toHaveLength(25);
      expect((await checkBundle(fileOf(await packedBundleOf(other, crateId, at)))).rows).toBeGreaterThan(25);
    });
  }, 120_000);
});
