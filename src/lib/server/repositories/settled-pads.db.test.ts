import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '../../../../tests/fresh-database';
import { aCable, aDrive, aHost, anEnclosure } from '../../../../tests/parts';
import { problemCode as code } from '../../../../tests/problem-code';
import { operations } from '../api/operations';
import { planRequestSchema } from '../api/plan-request';
import { loadLibrary, outdatedBy } from '../planning/planning';
import { getBuild } from './builds';
import { createCrate } from './crates';
import { createModel, getModel, updateModel } from './models';

const at = '2026-11-23T12:00:00.000Z';
const who = { by: 'test', at };
const request = new Request('http://127.0.0.1/');
let db: Knex;
let drop: () => Promise<void>;
let crateId: string;
let buildId: string;
const ids: Record<string, string> = {};
const chip = {
  role: 'controller' as const,
  side: 'top' as const,
  xMm: 20,
  yMm: 5,
  widthMm: 12,
  lengthMm: 13,
  heightMm: 1.2
};

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  crateId = (await createCrate(db, { name: 'Pads', at })).id;
  const parts = {
    host: aHost(),
    cable: aCable(),
    enclosure: anEnclosure(),
    drive: aDrive({ components: [chip] }),
    other: anEnclosure({ name: 'Other' }),
    thin: { kind: 'pad' as const, name: 'thin', thicknessMm: 1, widthMm: 50, lengthMm: 50 },
    thick: { kind: 'pad' as const, name: 'thick', thicknessMm: 1.5, widthMm: 50, lengthMm: 50 }
  };
  for (const [name, spec] of Object.entries(parts)) ids[name] = (await createModel(db, { crateId, spec, ...who })).id;
  const made = await operations.createBuild.handle({
    db,
    params: { crateId },
    query: undefined,
    body: { name: 'b', stage: 'assembled', choice: choice() },
    request,
    ...who
  });
  buildId = (made as { id: string }).id;
}, 90_000);
afterAll(() => drop());

const choice = (change = {}) => ({
  hostId: ids.host!,
  portId: 'p',
  cableId: ids.cable!,
  enclosureId: ids.enclosure!,
  driveId: ids.drive!,
  ...change
});
const stackOf = (pad: string) => ({ pieces: [{ component: 0, layers: [ids[pad]!] }] });
async function put(next: object): Promise<void> {
  const { version } = await getBuild(db, { crate_id: crateId, id: buildId });
  await operations.updateBuild.handle({
    db,
    params: { crateId, buildId },
    query: undefined,
    body: operations.updateBuild.body!.parse({ version, name: 'b', stage: 'assembled', choice: next }),
    request,
    ...who
  });
}
const build = () => getBuild(db, { crate_id: crateId, id: buildId });

describe('pads that were settled on in a build', () => {
  it('are chosen by the program until somebody does: 1 mm for a gap of 0.8', async () => {
    const { report, choice: kept } = await build();
    expect(report.stack).toMatchObject({ chosen: false, components: [{ pads: [1], verdict: 'good' }] });
    expect(kept).not.toHaveProperty('stack');
  });
  it('are kept with the build, planned with, and part of its snapshot', async () => {
    await put(choice({ stack: stackOf('thick') }));
    const { report, snapshot, choice: kept } = await build();
    expect(kept.stack).toEqual(stackOf('thick'));
    expect(snapshot.stack).toEqual(stackOf('thick'));
    expect(report.stack).toMatchObject({ chosen: true, components: [{ pads: [1.5] }] });
  });
  it('stay where a change leaves them out, as long as drive and enclosure do', async () => {
    await put(choice());
    expect((await build()).choice.stack).toEqual(stackOf('thick'));
    const { cableId: _, ...bare } = choice();
    await put(bare);
    expect((await build()).choice.stack).toEqual(stackOf('thick'));
  });
  it('go where the enclosure changes: they were for another gap', async () => {
    await put(choice({ enclosureId: ids.other! }));
    expect((await build()).choice).not.toHaveProperty('stack');
    await put(choice({ stack: stackOf('thin') }));
    expect((await build()).report.stack.chosen).toBe(true);
  });
  it('null lets the program choose again', async () => {
    await put(choice({ stack: null }));
    expect((await build()).choice).not.toHaveProperty('stack');
    expect((await build()).report.stack.chosen).toBe(false);
  });
  it('a fit of the enclosure makes the plan older than its parts', async () => {
    const { version, spec } = await getModel(db, { crateId, id: ids.enclosure! });
    if (spec.kind !== 'enclosure') throw new Error('no enclosure');
    const measured = { caseFactor: 1.1, readings: 3 };
    await updateModel(db, {
      crateId,
      id: ids.enclosure!,
      version,
      spec: { ...spec, cooling: { ...spec.cooling!, measured } },
      ...who
    });
    const library = await loadLibrary(db, crateId);
    const what = outdatedBy(library, await build()).map((d) => d.what);
    expect(what).toContain('enclosure cooling.measured.caseFactor');
    await put(choice());
    expect((await build()).report.thermal!.fitted).toEqual(measured);
  });
});

describe('chips that cannot be where they are said to be', () => {
  const wrong = aDrive({ components: [chip, { ...chip, role: 'nand', xMm: 75 }] });
  it('are refused where a part is written, with the place', () => {
    const parsed = operations.createModel.body!.safeParse({ spec: wrong });
    expect(parsed.error!.issues[0]).toMatchObject({ path: ['spec', 'components', 1, 'xMm'] });
    expect(parsed.error!.issues[0]!.message).toMatch(/reaches to 88 mm/);
  });
  it('and where a plan is asked for, but a drive of another form or without chips is none of its business', () => {
    const ask = (drive: object) =>
      planRequestSchema.safeParse({ host: aHost(), portId: 'p', enclosure: anEnclosure(), drive }).success;
    expect(ask(wrong)).toBe(false);
    expect(ask(aDrive())).toBe(true);
    expect(ask({ ...wrong, components: [chip] })).toBe(true);
  });
  it('what was stored before such a rule can still be read', async () => {
    const id = (await createModel(db, { crateId, spec: wrong, ...who })).id;
    expect((await getModel(db, { crateId, id })).spec).toMatchObject({ kind: 'drive' });
    expect(await code(getModel(db, { crateId, id: 'X'.repeat(26) }))).toBe('not-found');
  });
});
