import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { HOUSE_RULE_IDS, HOUSE_RULES } from '#core/house-rules/house-rules';
import { seeded } from '#core/quantities/random';
import { STAGES } from '#core/build/stages';
import { buildRows } from '../../../../tests/build-rows';
import { freshDatabase } from '../../../../tests/fresh-database';
import { undo } from '../db/undo';
import { resetDemo } from '../demo/seed';
import { createBuild, getBuild, listBuilds, updateBuild } from '../repositories/builds';
import { chooseRules, getCrate, type Crate } from '../repositories/crates';
import { listJobs, updateJob } from '../repositories/jobs';
import { beginJudging, countDue, countTones, forgetJudgements, listJudged, lookAt } from '../repositories/judgements';
import { createModel, deleteModel, listModels, updateModel } from '../repositories/models';
import { createPair, deletePair, listPairs } from '../repositories/pairs';
import { createQuote } from '../repositories/quotes';
import { createRate } from '../repositories/rates';
import { deleteRun, listRuns } from '../repositories/runs';
import { listUnits, updateUnit } from '../repositories/units';
import { keepRun } from './keep-run';
import { buildPage, judgeDue, todayPage } from './overview';
import { buildNow, loadLibrary } from './planning';

const at = '2026-11-23T12:00:00.000Z';
const today = '2026-11-24';
const who = { by: 'test', at };
let db: Knex;
let drop: () => Promise<void>;
let crate: Crate;

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  crate = await resetDemo(db, at);
});
afterAll(() => drop());

const random = seeded(20261128);
const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
const crateId = () => crate.id;
const used = async () => {
  const { choice } = any((await listBuilds(db, crateId())).filter(({ stage }) => stage !== 'retired'));
  return choice;
};
const modelOf = async (id: string) => (await listModels(db, { crateId: crateId(), ids: [id] }))[0]!;

/** Each changes one thing of the crate at random, in the way in which a page does. */
const CHANGES: Record<string, () => Promise<unknown>> = {
  'a house rule': async () => {
    const school = any(HOUSE_RULE_IDS);
    const { version } = await getCrate(db, { id: crateId() });
    const choice = any(Object.keys(HOUSE_RULES[school].choices));
    await chooseRules(db, { id: crateId(), version, rules: { [school]: choice }, ...who });
  },
  'the rate of a drive': async () => {
    const { id, version, spec } = await modelOf((await used()).driveId);
    if (spec.kind !== 'drive') throw new Error('no drive');
    const writeMBps = Math.round(200 + random() * 5000);
    await updateModel(db, {
      crateId: crateId(),
      id,
      version,
      spec: { ...spec, readMBps: writeMBps, writeMBps },
      ...who
    });
  },
  'the name of a case': async () => {
    const { id, version, spec } = await modelOf((await used()).enclosureId);
    await updateModel(db, { crateId: crateId(), id, version, spec: { ...spec, name: `Case ${random()}` }, ...who });
  },
  'the modes of a cable': async () => {
    const { cableId } = await used();
    if (!cableId) return;
    const { id, version, spec } = await modelOf(cableId);
    if (spec.kind !== 'cable') throw new Error('no cable');
    const modes = any([['usb2'], ['usb-5g'], ['usb-10g']] as const);
    await updateModel(db, { crateId: crateId(), id, version, spec: { ...spec, modes: [...modes] }, ...who });
  },
  'a pad': async () => {
    const { id, version, spec } = any(await listModels(db, { crateId: crateId(), kind: 'pad' }));
    if (spec.kind !== 'pad') throw new Error('no pad');
    const thicknessMm = any([0.5, 1, 1.5, 2]);
    await updateModel(db, { crateId: crateId(), id, version, spec: { ...spec, thicknessMm }, ...who });
  },
  'a price of a part': async () => {
    const { driveId, enclosureId } = await used();
    const quote = { partId: any([driveId, enclosureId]), vendor: 'Quay', currency: any(['EUR', 'USD']), date: today };
    await createQuote(db, {
      crateId: crateId(),
      quote: { ...quote, list: Math.round(random() * 30000) / 100 },
      ...who
    });
  },
  'an exchange rate': async () => {
    await createRate(db, {
      crateId: crateId(),
      rate: { from: 'USD', to: 'EUR', rate: 0.5 + random(), date: today },
      ...who
    });
  },
  'a known combination': async () => {
    const pairs = await listPairs(db, { crateId: crateId() });
    const { driveId, enclosureId } = await used();
    const { spec } = await modelOf(enclosureId);
    if (spec.kind !== 'enclosure' || !spec.bridge) return;
    const old = pairs.find(({ pair }) => pair.driveId === driveId && pair.bridge === spec.bridge);
    if (old) return deletePair(db, { crateId: crateId(), id: old.id, version: old.version, ...who });
    await createPair(db, {
      crateId: crateId(),
      pair: { driveId, bridge: spec.bridge, verdict: 'bad', reason: 'as tried', date: today },
      ...who
    });
  },
  'a result': async () => {
    const build = any(await listBuilds(db, crateId()));
    const MBps = Math.round(30 + random() * 400);
    await keepRun(db, {
      crateId: crateId(),
      subject: { buildId: build.id },
      run: {
        protocol: 'pair-check',
        date: today,
        results: { readMBps: MBps, writeMBps: MBps },
        conditions: {},
        simulated: true,
        accepted: ['slow']
      },
      ...who
    }).catch(() => {});
  },
  'a result that is gone': async () => {
    const run = any((await listRuns(db, { crateId: crateId() })).filter(({ buildId }) => buildId !== null));
    await deleteRun(db, { crateId: crateId(), id: run.id, version: run.version, ...who });
  },
  'an item': async () => {
    const { id, version, unit } = any(await listUnits(db, { crateId: crateId() }));
    const { buildId: _out, ...rest } = unit;
    const state = unit.state === 'owned' ? 'ordered' : 'owned';
    await updateUnit(db, { crateId: crateId(), id, version, unit: { ...rest, state }, ...who });
  },
  'a job': async () => {
    const { id, version, spec } = any(await listJobs(db, crateId()));
    const transferGB = Math.round(1 + random() * 2000);
    await updateJob(db, { crateId: crateId(), id, version, spec: { ...spec, transferGB }, ...who });
  },
  'a build': async () => {
    const { id, version, choice, snapshot, report, name } = any(await listBuilds(db, crateId()));
    const build = { name: `${name}.`.slice(0, 100), stage: any(STAGES), choice, snapshot, report };
    await updateBuild(db, { crateId: crateId(), id, version, build, ...who });
  },
  'a new build, and what was undone of it': async () => {
    const { choice, snapshot, report } = any(await listBuilds(db, crateId()));
    const made = await createBuild(db, {
      crateId: crateId(),
      build: { name: 'Another', stage: 'planned', choice, snapshot, report },
      ...who
    });
    if (random() < 0.5) await undo(db, { crateId: crateId(), group: made.group, ...who });
  }
};

describe('judgements that are kept', () => {
  it('are those of the right day: a check that comes due is the next step from then on', async () => {
    // A demo build in service says from which day it is to be checked again; on that day, and with no other change, it asks for it.
    const waiting = (await buildRows(db, crateId(), today)).find(({ next }) => next.until !== undefined);
    expect(waiting).toBeDefined();
    const later = (await buildRows(db, crateId(), waiting!.next.until!)).find(({ id }) => id === waiting!.id);
    expect(later?.next).toMatchObject({ tone: 'do', station: 'measure' });
    await forgetJudgements(db, crateId());
  });

  it('are what a fresh plan says, whatever is changed', { timeout: 240_000 }, async () => {
    const changed = new Map<string, number>();
    let before = await buildRows(db, crateId(), today);
    for (let round = 0; round < 6; round++)
      for (const [what, act] of Object.entries(CHANGES)) {
        await act();
        const kept = await buildRows(db, crateId(), today);
        await forgetJudgements(db, crateId());
        const fresh = await buildRows(db, crateId(), today);
        expect(kept, what).toEqual(fresh);
        if (JSON.stringify(kept) !== JSON.stringify(before)) changed.set(what, (changed.get(what) ?? 0) + 1);
        before = fresh;
      }
    // Every kind of change has changed some list: none was compared for nothing.
    expect([...changed.keys()].sort()).toEqual(Object.keys(CHANGES).sort());
    // And by another way than that of the lists.
    const library = await loadLibrary(db, crateId());
    for (const build of await listBuilds(db, crateId())) {
      const { report, differences } = buildNow(library, build);
      const row = before.find(({ id }) => id === build.id);
      expect(row).toMatchObject({ verdict: report.verdict, outdated: differences.length > 0 });
      expect(row?.write).toEqual(report.throughput.write);
      expect(row?.perTB?.amount).toBe(report.cost?.perTB);
    }
  });

  it('write nothing but themselves, and are made anew where somebody emptied them', async () => {
    const count = async () =>
      Promise.all(
        ['builds', 'revisions', 'events'].map(async (table) => (await db(table).count({ n: '*' }).first())?.n)
      );
    const builds = await db('builds').select('id', 'version', 'updated_at');
    const before = await count();
    const rows = await buildRows(db, crateId(), today);
    await db('judgements').delete();
    expect(await buildRows(db, crateId(), today)).toEqual(rows);
    expect(await count()).toEqual(before);
    expect(await db('builds').select('id', 'version', 'updated_at')).toEqual(builds);
  });

  it('show “being judged” and count nowhere, from the change until they are judged again', async () => {
    await buildRows(db, crateId(), today);
    const [one] = await listBuilds(db, crateId());
    const { id, version, spec } = await modelOf(one!.choice.driveId);
    const group = (
      await updateModel(db, { crateId: crateId(), id, version, spec: { ...spec, name: 'Renamed' }, ...who })
    ).group;
    const { rows } = await listJudged(db, { crateId: crateId(), size: 200 });
    const due = rows.filter(({ row }) => row === null);
    const withDrive = (await listBuilds(db, crateId())).filter(({ choice }) => choice.driveId === id);
    expect(due.map((row) => row.id).sort()).toEqual(withDrive.map((build) => build.id).sort());
    const tones = await countTones(db, crateId());
    expect(tones.urgent + tones.do + tones.waits).toBe(rows.length - due.length);
    expect((await countDue(db, crateId())).due).toBe(due.length);
    await undo(db, { crateId: crateId(), group, ...who });
  });

  it('are not kept where something changed while they were made, and then made again', async () => {
    await buildRows(db, crateId(), today);
    const [one] = await listBuilds(db, crateId());
    const edit = async (name: string) => {
      const { id, version, spec } = await modelOf(one!.choice.driveId);
      await updateModel(db, { crateId: crateId(), id, version, spec: { ...spec, name }, ...who });
    };
    await edit('First name');
    // Edited again and again while everything is judged, from another connection.
    const judging = (async () => {
      for (let left = 1; left > 0;) ({ left } = await judgeDue(db, crateId(), today));
    })();
    for (let i = 0; i < 10; i++) await edit(`Name ${i}`);
    await judging;
    const rows = await buildRows(db, crateId(), today);
    expect(rows.find(({ id }) => id === one!.id)?.parts.drive).toBe('Name 9');
    await forgetJudgements(db, crateId());
    expect(rows).toEqual(await buildRows(db, crateId(), today));
  });

  it('see a change that was not committed yet when they were begun', async () => {
    await buildRows(db, crateId(), today);
    const [one] = await listBuilds(db, crateId());
    const before = await db('judgements').where({ build_id: one!.id }).first('due');
    const { id, version, spec } = await modelOf(one!.choice.driveId);
    const trx = await db.transaction();
    await trx('crates').where({ id: crateId() }).forUpdate().first('id');
    await updateModel(trx, { crateId: crateId(), id, version, spec: { ...spec, name: 'Held' }, ...who });
    const begun = beginJudging(db, crateId(), [one!.id]);
    await new Promise((done) => setTimeout(done, 100));
    await trx.commit();
    expect((await begun)[0]?.due).toBe((before as { due: number }).due + 1);
    const row = (await buildRows(db, crateId(), today)).find(({ id: own }) => own === one!.id);
    expect(row?.parts.drive).toBe('Held');
  });

  it('are toggled ten times in a second and end where the last one left them', async () => {
    const rows = await buildRows(db, crateId(), today);
    const [school] = HOUSE_RULE_IDS;
    const [first, second] = Object.keys(HOUSE_RULES[school!].choices);
    for (let i = 0; i < 10; i++) {
      const { version } = await getCrate(db, { id: crateId() });
      await chooseRules(db, { id: crateId(), version, rules: { [school!]: i % 2 ? second! : first! }, ...who });
      void buildPage(db, { crateId: crateId(), today }).catch(() => {});
    }
    const kept = await buildRows(db, crateId(), today);
    await forgetJudgements(db, crateId());
    expect(kept).toEqual(await buildRows(db, crateId(), today));
    expect(kept).toHaveLength(rows.length);
  });
});

describe('the list of builds', () => {
  const tags = async (query: Parameters<typeof buildPage>[1] extends infer Q ? Partial<Q> : never) =>
    (await buildPage(db, { crateId: crateId(), today, size: 200, ...query })).builds.map(({ tag }) => tag);

  it('is in pages, sorted by each column both ways, with the count of all', async () => {
    const all = await tags({});
    expect(all).toEqual([...all].sort());
    const second = await buildPage(db, { crateId: crateId(), today, size: 5, page: 2 });
    expect(second.builds.map(({ tag }) => tag)).toEqual(all.slice(5, 10));
    expect(second.total).toBe(all.length);
    for (const sort of ['tag', 'stage', 'verdict'] as const)
      expect(await tags({ sort, down: true })).toEqual((await tags({ sort })).reverse());
  });

  it('puts what is not known last, whichever way it is sorted', async () => {
    const rows = new Map((await buildRows(db, crateId(), today)).map((row) => [row.tag, row]));
    const figures = {
      price: (tag: string) => rows.get(tag)?.perTB?.amount,
      write: (tag: string) => rows.get(tag)?.write?.typical,
      measured: (tag: string) => rows.get(tag)?.latest?.comparisons.find(({ field }) => field === 'writeMBps')?.measured
    };
    for (const [sort, of] of Object.entries(figures) as [keyof typeof figures, (tag: string) => number | undefined][])
      for (const down of [false, true]) {
        const shown = (await tags({ sort, down })).map(of);
        const known = shown.filter((figure) => figure !== undefined);
        expect(known.length, sort).toBeGreaterThan(1);
        expect(shown.slice(0, known.length), `${sort}, down: ${down}`).toEqual(
          [...known].sort((a, b) => (down ? b - a : a - b))
        );
      }
    // Some builds have no price and no result, or nothing would have been tested.
    expect(Object.values(figures).some((of) => [...rows.keys()].some((tag) => of(tag) === undefined))).toBe(true);
  });

  it('takes % and _ as they are, and finds words in names, stages and parts', async () => {
    expect(await tags({ find: '%' })).toEqual([]);
    expect(await tags({ find: '_' })).toEqual([]);
    const [row] = await buildRows(db, crateId(), today);
    expect(await tags({ find: row!.parts.drive })).toContain(row!.tag);
    expect(await tags({ find: `${row!.tag} ${row!.parts.enclosure}` })).toEqual([row!.tag]);
  });

  it('is Today by what the next step is about, and the counts are those of the rows', async () => {
    const { builds, counts, all } = await todayPage(db, { crateId: crateId(), today });
    const rows = await buildRows(db, crateId(), today);
    for (const tone of ['urgent', 'do', 'waits'] as const) {
      expect(counts[tone]).toBe(rows.filter(({ next }) => next.tone === tone).length);
      expect(await tags({ next: tone })).toEqual(rows.filter(({ next }) => next.tone === tone).map(({ tag }) => tag));
    }
    expect(all).toBe(rows.length);
    expect(builds[0]?.row?.next.tone).toBe('urgent');
  });

  it('finds its order in an index, whichever column it is sorted by', async () => {
    for (const column of ['tag', 'stage', 'verdict', 'write_MBps', 'measured_MBps', 'per_TB', 'tone']) {
      const order = column === 'tag' ? 'tag' : `${column}, tag`;
      const [[plan]] = (await db.raw(
        `explain select build_id from judgements where crate_id = ? order by ${order} limit 25`,
        [crateId()]
      )) as [{ key: string; Extra: string }[]];
      expect(plan?.key, column).toContain(`${column.toLowerCase()}`);
      expect(plan?.Extra, column).not.toContain('filesort');
    }
  });

  it('judges those that somebody looks at first', async () => {
    await forgetJudgements(db, crateId());
    await buildPage(db, { crateId: crateId(), today });
    await db('judgements').update({ verdict: 9, tone: 9, due: db.raw('due + 1') });
    const last = (await listBuilds(db, crateId())).at(-1)!;
    await lookAt(db, [last.id], Date.now());
    expect(
      await db('judgements').where({ verdict: 9 }).orderBy('looked_at', 'desc').orderBy('tag').pluck('build_id')
    ).toHaveProperty('0', last.id);
  });

  it('is gone with what it is about', async () => {
    const spare = await createModel(db, {
      crateId: crateId(),
      spec: { kind: 'cable', name: 'Spare', ends: ['usb-c', 'usb-c'], lengthM: 1, modes: ['usb-5g'] },
      ...who
    });
    const { choice, snapshot, report } = (await listBuilds(db, crateId()))[0]!;
    const made = await createBuild(db, {
      crateId: crateId(),
      build: { name: 'With a spare', stage: 'planned', choice: { ...choice, cableId: spare.id }, snapshot, report },
      ...who
    });
    await buildRows(db, crateId(), today);
    await deleteModel(db, { crateId: crateId(), id: spare.id, version: 1, ...who });
    const row = (await buildRows(db, crateId(), today)).find(({ id }) => id === made.id);
    expect(row?.outdated).toBe(true);
    expect((await getBuild(db, { id: made.id })).version).toBe(1);
  });
});
