import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plan } from '#core/plan/plan';
import type { PlanReport } from '#core/plan/report';
import { rank } from '#core/compare/ranking/rank';
import { together } from '#core/compare/together/together';
import { outcomeOf, whatIf } from '#core/compare/swaps/what-if';
import { freshDatabase } from '../../../../tests/fresh-database';
import { aCable, aDrive, aHost, aPort, anEnclosure } from '../../../../tests/parts';
import { resolvePlanRequest } from '../api/plan-request';
import { jobOnBuilds } from './jobs-on-builds';
import { buildRows } from '../../../../tests/build-rows';
import { buildNow, loadLibrary, planChoice, planInputFor } from './planning';
import { rankInputFor } from './ranking';
import { shoppingFor } from './shopping';
import { createBuild, getBuild, type StoredBuild } from '../repositories/builds';
import { createCrate, getCrate, type Crate } from '../repositories/crates';
import { createJob } from '../repositories/jobs';
import { createModel, updateModel, getModel } from '../repositories/models';
import { createQuote } from '../repositories/quotes';
import { createRate } from '../repositories/rates';
import { createRun } from '../repositories/runs';

/*
 * One stored build, planned on every way there is. It has what makes ways disagree: prices in a second currency, pads of the crate, a
 * house rule, a case with a cable in its box, a job, a result, and a crate in which other parts and builds stand around it.
 */
const at = '2026-11-23T12:00:00.000Z';
const who = { by: 'test', at };
let db: Knex;
let drop: () => Promise<void>;
let crate: Crate;
const ids: Record<string, string> = {};

const model = async (key: string, spec: Parameters<typeof createModel>[1]['spec']) =>
  (ids[key] = (await createModel(db, { crateId: crate.id, spec, ...who })).id);
const quote = (key: string, amount: number, currency: string) =>
  createQuote(db, {
    crateId: crate.id,
    quote: { partId: ids[key]!, vendor: 'Quay', list: amount, currency, date: '2026-11-20' },
    ...who
  });
const choice = () => ({
  hostId: ids.host!,
  portId: 'p',
  cableId: ids.cable!,
  enclosureId: ids.enclosure!,
  driveId: ids.drive!,
  jobId: ids.job!
});
const stored = async (name: string, chosen: Parameters<typeof planChoice>[2]): Promise<StoredBuild> => {
  const { tag } = await createBuild(db, {
    crateId: crate.id,
    build: { name, stage: 'planned', choice: chosen, ...(await planChoice(db, crate.id, chosen)) },
    ...who
  });
  return getBuild(db, { tag });
};

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  const { id } = await createCrate(db, { name: 'One plan', at });
  crate = await getCrate(db, { id });
  await model('host', { ...aHost(), ports: [aPort(), aPort({ id: 'other', modes: ['usb-10g'], powerW: 4.5 })] });
  await model('cable', aCable());
  await model('slow', aCable({ name: 'Test 10G', modes: ['usb-10g'] }));
  await model(
    'enclosure',
    anEnclosure({
      includedCables: [{ kind: 'cable', name: 'Box C-C', ends: ['usb-c', 'usb-c'], lengthM: 0.5, modes: ['usb-10g'] }]
    })
  );
  await model('drive', aDrive());
  await model('spare', aDrive({ name: 'Test spare', capacityTB: 1 }));
  await model('pad', {
    kind: 'pad',
    name: 'Test pad',
    thicknessMm: 1,
    widthMm: 40,
    lengthMm: 20,
    conductivityWmK: 6,
    shore00: 30
  });
  await createRate(db, { crateId: id, rate: { from: 'USD', to: 'EUR', rate: 0.9, date: '2026-11-01' }, ...who });
  await quote('cable', 20, 'EUR');
  await quote('enclosure', 100, 'USD');
  await quote('drive', 150, 'EUR');
  await quote('spare', 70, 'EUR');
  ids.job = (
    await createJob(db, {
      crateId: id,
      spec: { name: 'Take', purposes: ['scratch'], transferGB: 300, files: 200, direction: 'in', perDay: 1 },
      ...who
    })
  ).id;
});
afterAll(() => drop());

/** What a reader sees of a plan and would compare from page to page. */
const seen = (report: PlanReport) => ({
  ...outcomeOf(report),
  findings: report.findings.map(({ code }) => code),
  heat: report.thermal,
  power: report.power,
  pads: report.stack.components.map(({ pads }) => pads),
  measured: report.measured
});

async function everyWay(build: StoredBuild) {
  const whole = await loadLibrary(db, crate.id);
  const narrow = await loadLibrary(db, crate.id, [build.choice]);
  const { hostId, portId, cableId, enclosureId, driveId, jobId } = build.choice;
  const page = buildNow(narrow, build).report;
  const request = {
    crateId: crate.id,
    host: { id: hostId },
    portId,
    ...(cableId ? { cable: { id: cableId } } : {}),
    enclosure: { id: enclosureId },
    drive: { id: driveId },
    ...(jobId ? { job: { id: jobId } } : {})
  };
  const api = plan(await resolvePlanRequest(db, request), { workings: false });
  const pair = buildNow(whole, build).report;
  const several = together(whole.host.get(hostId)!, [
    { name: 'one', input: planInputFor(narrow, build.choice), task: 'write' }
  ]).members[0]!.report;
  const around = whatIf(whole, build.choice)!;
  const here = around.hosts.find((row) => row.choice.portId === portId && row.choice.cableId === cableId)!;
  const onJob = (await jobOnBuilds(db, crate.id, whole.job.get(ids.job!)!)).find(({ tag }) => tag === build.tag)!;
  const row = (await buildRows(db, crate.id, '2026-11-24')).find(({ tag }) => tag === build.tag)!;
  const ranked = rank(
    await rankInputFor(db, crate.id, { jobId: ids.job!, cableIds: cableId ? [cableId] : [] })
  ).rows.find(
    (r) => r.portId === portId && r.cableId === cableId && r.enclosureId === enclosureId && r.driveId === driveId
  )!;
  const shopping = await shoppingFor(db, { crate, build, today: '2026-11-24' });
  return { page, api, pair, several, here, onJob, row, ranked, shopping };
}

async function allAgree(build: StoredBuild) {
  const ways = await everyWay(build);
  const expected = seen(ways.page);
  for (const other of [ways.api, ways.pair, ways.several]) expect(seen(other)).toEqual(expected);
  const { verdict, cost, seconds, read, write, sustained, runsAs } = expected;
  expect(ways.here).toMatchObject({ verdict, cost, seconds, read, write, sustained, runsAs });
  expect(ways.onJob).toMatchObject({ verdict, cost, seconds, read, write, sustained, runsAs });
  expect(ways.row).toMatchObject({ verdict, write, perTB: { amount: cost!.perTB, currency: 'EUR' } });
  expect(ways.ranked).toMatchObject({ verdict, sustainedWrite: sustained, read });
  expect(ways.ranked.seconds).toBeCloseTo(seconds!, 6);
  expect(ways.ranked.cost).toBeCloseTo(cost!.total, 2);
  // a time that rests on a result says so on every way
  expect([ways.onJob.measured, ways.ranked.measured ?? null]).toEqual([expected.measured, expected.measured]);
  return ways;
}

describe('one build on every way', () => {
  it('page, pair, API, ranking, what-if, several at once, jobs and shopping list agree', async () => {
    const build = await stored('chosen cable', choice());
    const { page, shopping } = await allAgree(build);
    // 20 EUR + 100 USD x 0.9 + 150 EUR
    expect(page.cost).toMatchObject({ total: 260, currency: 'EUR' });
    expect(shopping.lines.map(({ name }) => name)).toEqual(
      expect.arrayContaining(['Test C-C', 'Test 40', 'Test T4 2TB'])
    );
    // all but the pads, which nobody quoted
    expect(shopping.separate.total).toBe(260);
  });
  it('without a chosen cable it is the one in the box, and nobody pays for it', async () => {
    const { cableId: _, ...bare } = choice();
    const build = await stored('cable in the box', bare);
    const { page, shopping } = await allAgree(build);
    expect(page.cost).toMatchObject({ total: 240 });
    // a full-featured passive cable marked 10 Gb/s carries USB4 at 20 Gb/s: likely, and the plan says that it is no more
    expect(page.link.mode).toBe('usb4-20g');
    expect(page.findings.map(({ code }) => code)).toContain('cable-rate-likely');
    expect(shopping.lines.find(({ role }) => role === 'cable')).toMatchObject({ state: 'in-the-box' });
  });
  it('a sound result stands in the place of the forecast everywhere, and one that shows a fault does not', async () => {
    const build = await stored('measured', { ...choice(), driveId: ids.spare! });
    const forecast = (await everyWay(build)).page;
    const { hostId, portId, cableId, enclosureId, driveId } = build.choice;
    const measure = (writeMBps: number, date: string) =>
      createRun(db, {
        crateId: crate.id,
        subject: { build_id: build.id },
        of: build.tag,
        run: {
          date,
          simulated: false,
          results: { readMBps: forecast.throughput.read!.typical, writeMBps },
          conditions: {},
          chain: {
            host: 'h',
            port: 'p',
            enclosure: 'e',
            drive: 'd',
            os: 'Linux',
            mode: null,
            ids: { hostId, portId, cableId: cableId!, enclosureId, driveId }
          },
          accepted: []
        },
        ...who
      });
    const rate = Math.round(forecast.throughput.write!.typical * 0.9);
    await measure(rate, '2026-11-21');
    const { page } = await allAgree(build);
    expect(page.measured).toMatchObject({ writeMBps: rate, date: '2026-11-21' });
    expect(page.job!.seconds.typical).toBeGreaterThan(forecast.job!.seconds.typical);
    // a tenth of the forecast is a fault, however new it is
    await measure(Math.round(rate / 10), '2026-11-22');
    const after = await allAgree(build);
    expect(after.page.job!.seconds).toEqual(page.job!.seconds);
  });
  it('a part that changed changes all of them at once, and the lists say that it was planned otherwise', async () => {
    const build = await stored('changed later', { ...choice(), cableId: ids.slow! });
    const before = (await everyWay(build)).row;
    expect(before.outdated).toBe(false);
    const { version, spec } = await getModel(db, { crateId: crate.id, id: ids.slow! });
    await updateModel(db, {
      crateId: crate.id,
      id: ids.slow!,
      version,
      spec: { ...spec, modes: ['usb2'] } as typeof spec,
      ...who
    });
    const { page, row } = await allAgree(build);
    expect(page.link.mode).toBe('usb2');
    expect(row.outdated).toBe(true);
    expect(build.report.link.mode).toBe('usb4-20g');
  });
});
