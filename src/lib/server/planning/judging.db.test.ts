import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { freshDatabase } from '../../../../tests/fresh-database';
import { aCable, aDrive, aHost, anEnclosure } from '../../../../tests/parts';
import { problemCode as code } from '../../../../tests/problem-code';
import { undo } from '../db/undo';
import { createBuild, getBuild, updateBuild } from '../repositories/builds';
import { createCrate } from '../repositories/crates';
import { createModel } from '../repositories/models';
import { getRun, listRuns, updateRun } from '../repositories/runs';
import { createUnit } from '../repositories/units';
import { WORK } from '../workers/functions';
import { answersByLaterRuns, itemOfRun, judgementOfRun, refuseUnknownTests, triedWords } from './judging';
import { keepRun } from './keep-run';
import { planChoice } from './planning';
import { buildRows } from '../../../../tests/build-rows';

const threads = vi.hoisted(() => ({ asked: 0 }));
// The same function, without a thread of its own.
vi.mock('../workers/run', () => ({
  inWorker: (name: keyof typeof WORK, input: never) => {
    threads.asked += 1;
    return Promise.resolve((WORK[name] as (input: never) => unknown)(input));
  }
}));

const at = '2026-11-23T12:00:00.000Z';
const who = { by: 'test', at };
let db: Knex;
let drop: () => Promise<void>;
let crateId: string;
const ids: Record<string, string> = {};
const WINDOWS = { os: { family: 'windows' as const, version: '11' } };

async function aBuild(name: string, change: Partial<Record<'host' | 'drive' | 'cable', string>> = {}): Promise<string> {
  const choice = {
    hostId: change.host ?? ids.host!,
    portId: 'p',
    cableId: change.cable ?? ids.cable!,
    enclosureId: ids.enclosure!,
    driveId: change.drive ?? ids.drive!
  };
  const planned = await planChoice(db, crateId, choice);
  return (await createBuild(db, { crateId, build: { name, stage: 'benched', choice, ...planned }, ...who })).id;
}

const keep = async (
  buildId: string,
  results: { readMBps: number; writeMBps: number },
  unitIds: string[] = [],
  date = '2026-11-20'
) =>
  (
    await keepRun(db, {
      crateId,
      subject: { buildId },
      run: {
        protocol: 'pair-check',
        date,
        results,
        conditions: unitIds.length > 0 ? { unitIds } : {},
        simulated: false,
        accepted: ['fell-back', 'low']
      },
      ...who
    })
  ).id;
const judge = async (id: string) =>
  (await judgementOfRun(db, { crateId, run: await getRun(db, { crateId, id }), demo: false }))!;

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  crateId = (await createCrate(db, { name: 'Judged', at })).id;
  const model = async (spec: Parameters<typeof createModel>[1]['spec']) =>
    (await createModel(db, { crateId, spec, ...who })).id;
  for (const spec of [aHost({}, WINDOWS), aCable(), anEnclosure({ bridge: 'Test bridge' }), aDrive()])
    ids[spec.kind] = await model(spec);
  ids.linux = await model(aHost({}, { name: 'Other host' }));
  for (const n of [2, 3]) ids[`drive${n}`] = await model(aDrive({ name: `Test drive ${n}` }));
});
afterAll(() => drop());

describe('a run of a build', () => {
  it('is judged, answered step by step, and its answers are kept with it, undone with it, and said in words', async () => {
    const build = await aBuild('Slow writes');
    const id = await keep(build, { readMBps: 3300, writeMBps: 830 });
    const before = await judge(id);
    expect(before.judgement.diagnosis.causes[0]?.cause).toBe('write-cache-off');
    const found = { tried: [{ test: 'policy', outcome: 'quick' }] };
    await refuseUnknownTests(db, { crateId, id }, found);
    const { group } = await updateRun(db, { crateId, id, version: 1, found, ...who });
    const after = await judge(id);
    expect(after.judgement.diagnosis.causes[0]!.confidence).toBeGreaterThan(
      before.judgement.diagnosis.causes[0]!.confidence
    );
    const { snapshot } = await getBuild(db, { crate_id: crateId, id: build });
    expect(triedWords(await getRun(db, { crateId, id }), snapshot)[0]?.text).toContain('Quick removal');
    await undo(db, { crateId, group, ...who });
    expect((await getRun(db, { crateId, id })).found).toBeNull();
  });

  it('of two who answer at once the second gets a conflict, and the first stays', async () => {
    const id = await keep(await aBuild('Two hands'), { readMBps: 3300, writeMBps: 830 });
    const answer = (outcome: string) =>
      updateRun(db, { crateId, id, version: 1, found: { tried: [{ test: 'policy', outcome }] }, ...who });
    const both = await Promise.allSettled([answer('quick'), answer('better')]);
    expect(both.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    const lost = both.find((one): one is PromiseRejectedResult => one.status === 'rejected');
    expect(await code(Promise.reject(lost!.reason as Error))).toBe('conflict');
    expect((await getRun(db, { crateId, id })).found?.tried).toHaveLength(1);
  });

  it('whose build was edited between two tests drops answers to what is not asked any more, and breaks nothing', async () => {
    const build = await aBuild('Moved');
    const id = await keep(build, { readMBps: 3300, writeMBps: 830 });
    await updateRun(db, { crateId, id, version: 1, found: { tried: [{ test: 'policy', outcome: 'quick' }] }, ...who });
    // It moves to a computer with another system: nobody asks for its policy there.
    const stored = await getBuild(db, { crate_id: crateId, id: build });
    const choice = { ...stored.choice, hostId: ids.linux! };
    const planned = await planChoice(db, crateId, choice);
    await updateBuild(db, {
      crateId,
      id: build,
      version: stored.version,
      build: { ...stored, choice, ...planned },
      ...who
    });
    const { judgement } = await judge(id);
    expect(judgement.diagnosis.causes.map(({ cause }) => cause)).not.toContain('write-cache-off');
    const now = await getBuild(db, { crate_id: crateId, id: build });
    expect(triedWords(await getRun(db, { crateId, id }), now.snapshot)).toHaveLength(1);
    expect(await code(refuseUnknownTests(db, { crateId, id }, { tried: [{ test: 'policy', outcome: 'quick' }] }))).toBe(
      'bad-input'
    );
  });

  it('refuses a test that nobody asks, with its path', async () => {
    const id = await keep(await aBuild('Wrong test'), { readMBps: 3300, writeMBps: 830 });
    await expect(
      refuseUnknownTests(db, { crateId, id }, { tried: [{ test: 'nonsense', outcome: 'yes' }] })
    ).rejects.toMatchObject({
      code: 'bad-input',
      fields: [{ path: 'found.tried.0.test' }]
    });
  });

  it('with a long series is read in a thread of its own, once', async () => {
    const build = await aBuild('Long');
    const t = Array.from({ length: 50_000 }, (_, i) => i + 1);
    const made = await keepRun(db, {
      crateId,
      subject: { buildId: build },
      run: {
        protocol: 'soak',
        date: '2026-11-20',
        series: { t, MBps: t.map((s) => (s <= 60 ? 3300 : 1490)), controllerC: t.map(() => 50) },
        conditions: {},
        simulated: false,
        accepted: []
      },
      ...who
    });
    threads.asked = 0;
    expect((await judge(made.id)).judgement.sentence.text).toMatch(
      /^Writes fell to 1490 MB\/s after 198\D+GB: the fast cache was full/
    );
    expect(threads.asked).toBe(1);
    await judge(made.id);
    expect(threads.asked).toBe(1);
  });
});

describe('a test that is a way of measuring', () => {
  it('is answered by a later run of the same build, and by no earlier one and none of another', async () => {
    const build = await aBuild('Asked');
    const slow = { readMBps: 3300, writeMBps: 830 };
    await keep(build, { readMBps: 3300, writeMBps: 3250 }, [], '2026-11-10');
    const id = await keep(build, slow, [], '2026-11-12');
    await keep(await aBuild('Another'), { readMBps: 3300, writeMBps: 3250 }, [], '2026-11-14');
    const ask = async () => {
      const run = await getRun(db, { crateId, id });
      const { snapshot } = await getBuild(db, { crate_id: crateId, id: build });
      const same = await listRuns(db, { crateId, buildId: build });
      const next = {
        test: 'made-up-source',
        text: '',
        minutes: 3,
        tools: [],
        protocol: 'pair-check' as const,
        because: '',
        outcomes: []
      };
      return answersByLaterRuns(db, { crateId, run, input: { ...snapshot, writeCache: 'performance' }, next, same });
    };
    expect(await ask()).toEqual([]);
    const later = await keep(build, { readMBps: 3310, writeMBps: 3240 }, [], '2026-11-13');
    expect(await ask()).toEqual([
      { runId: later, protocol: 'pair-check', date: '2026-11-13', simulated: false, outcome: 'yes' }
    ]);
  });
});

describe('across builds', () => {
  it('an item of a cable that was slow in three builds is suspect, by its name, and is the item to note it on', async () => {
    const unit = async (tag: string) =>
      (await createUnit(db, { crateId, unit: { modelId: ids.cable!, tag, state: 'owned' }, ...who })).id;
    const [worn, good] = [await unit('C-901'), await unit('C-902')];
    let last = '';
    for (const drive of ['drive', 'drive2', 'drive3']) {
      const build = await aBuild(`Of ${drive}`, { drive: ids[drive]!, host: ids.linux! });
      await keep(build, { readMBps: 3300, writeMBps: 3250 }, [good], '2026-11-18');
      last = await keep(build, { readMBps: 39, writeMBps: 37 }, [worn], '2026-11-19');
    }
    const { judgement, names } = await judge(last);
    const [suspect] = judgement.diagnosis.suspects;
    expect(suspect).toMatchObject({ part: 'cable', id: worn, slow: 3, sound: 0 });
    expect(names[worn]).toBe('Test C-C (C-901)');
    const run = await getRun(db, { crateId, id: last });
    expect((await itemOfRun(db, { crateId, run }, 'cable'))?.unit.tag).toBe('C-901');
  });

  it('Today says what the newest result asks for', async () => {
    const rows = await buildRows(db, crateId, '2026-11-23');
    const row = rows.find(({ name }) => name === 'Of drive3');
    expect(row?.next.tone).toBe('urgent');
    expect(row?.next.text).toContain('the connection fell back to USB 2.0');
  });
});
