import type { Knex } from 'knex';
import type { Choice } from '#core/build/choice';
import { STAGES } from '#core/build/stages';
import { plan } from '#core/plan/plan';
import { simulatePairCheck } from '#core/simulate/pair-check';
import { writing } from '../db/writing';
import { loadLibrary, planInputFor } from '../planning/planning';
import { createBuild } from '../repositories/builds';
import {
  chooseRules,
  createCrate,
  demoCrates,
  getCrate,
  hasCrates,
  removeCrate,
  type Crate
} from '../repositories/crates';
import { createJob } from '../repositories/jobs';
import { createModel, setTarget } from '../repositories/models';
import { createQuote } from '../repositories/quotes';
import { createPair } from '../repositories/pairs';
import { createRate } from '../repositories/rates';
import { createAttachment } from '../repositories/attachments';
import { createObservation } from '../repositories/observations';
import { createRun } from '../repositories/runs';
import { chainOf } from '../planning/measuring';
import { addUnits, createUnit, editUnits } from '../repositories/units';
import { unitTable } from '../repositories/unit-table';
import { DEMO_BUILDS } from './builds';
import { demoId } from './id';
import { FIELD_BAG, seedRuns } from './runs';
import { seedFormats } from './formats';
import { seedSheets } from './sheets';
import { DEMO_JOBS, DEMO_MODELS, DEMO_PAIRS, DEMO_PRICES, DEMO_TARGETS } from './parts';

const BY = 'demo data';
const YEAR_BEGINS = '2026-01-05T08:00:00.000Z';
const DAYS = ['2026-02-10', '2026-06-15', '2026-10-20'];
const VENDORS = ['Marktgasse Teile', 'Nordlicht Depot'];

async function seedParts(db: Knex, crateId: string): Promise<void> {
  const base = { crateId, by: BY, at: YEAR_BEGINS };
  const letters = { drive: 'D', enclosure: 'E', cable: 'C', pad: 'P', host: 'H', alternative: 'X' };
  const counts: Record<string, number> = {};
  for (const spec of DEMO_MODELS) {
    const id = demoId(spec.name);
    await createModel(db, { ...base, spec, id });
    if (spec.kind === 'alternative') continue;
    counts[spec.kind] = (counts[spec.kind] ?? 0) + 1;
    const tag = `${letters[spec.kind]}-${String(counts[spec.kind]).padStart(3, '0')}`;
    const place = {
      host: 'at its desk',
      drive: 'drawer 2',
      enclosure: 'drawer 3',
      cable: 'cable rail',
      pad: 'drawer 1'
    }[spec.kind];
    await createUnit(db, {
      ...base,
      unit: {
        modelId: id,
        tag,
        state: spec.name === 'Marl Q4 4TB' ? 'ordered' : 'owned',
        location: place,
        custodian: 'scanning desk'
      }
    });
  }
  for (const spec of DEMO_JOBS) await createJob(db, { ...base, spec, id: demoId(`job ${spec.name}`) });
  for (const [n, [name, price]] of Object.entries(DEMO_PRICES).entries()) {
    for (const [i, date] of DAYS.entries()) {
      // Prices drift down a little over the year, and the two vendors take turns.
      const list = Math.round(price * (1.08 - 0.04 * i) * 100) / 100;
      const vendor = VENDORS[(n + i) % 2]!;
      await createQuote(db, {
        ...base,
        at: `${date}T09:00:00.000Z`,
        quote: {
          partId: demoId(name),
          vendor,
          date,
          currency: 'EUR',
          list,
          ...(i === 2 && price > 60 ? { discountPercent: 5 } : {}),
          ...(price < 60 ? { shipping: 3.9 } : {})
        }
      });
    }
  }
}

/** What was noted beside parts and prices: pairs, rates, targets, a receipt, and who has taken what. */
async function seedNotes(db: Knex, crateId: string): Promise<void> {
  const base = { crateId, by: 'scanning desk', at: '2026-10-21T09:00:00.000Z' };
  for (const { drive, ...pair } of DEMO_PAIRS)
    await createPair(db, { ...base, pair: { ...pair, driveId: demoId(drive) } });
  for (const [name, amount] of Object.entries(DEMO_TARGETS))
    await setTarget(db, { ...base, id: demoId(name), version: 1, target: { amount, currency: 'EUR' } });
  for (const [date, rate] of [
    ['2026-03-02', 0.94],
    ['2026-10-19', 0.92]
  ] as const)
    await createRate(db, { ...base, rate: { from: 'USD', to: 'EUR', rate, date } });
  // A third vendor far away, in its own currency.
  for (const [name, list] of [
    ['Flue 80', 229],
    ['Osier 0.8 80G', 31],
    ['Skarn T5 2TB', 236]
  ] as const)
    await createQuote(db, {
      ...base,
      quote: {
        partId: demoId(name),
        vendor: 'Tidewrack Supply',
        date: '2026-10-18',
        currency: 'USD',
        list,
        shipping: 12,
        expires: '2026-12-31'
      }
    });
  for (const serial of ['FH24A07733', 'FH24A07741'])
    await addUnits(db, {
      ...base,
      count: 1,
      unit: { modelId: demoId('Chert T4 2TB'), state: 'owned', location: 'drawer 2', resale: 90, serial }
    });
  await addUnits(db, {
    ...base,
    count: 1,
    unit: { modelId: demoId(FIELD_BAG.name), state: 'owned', location: FIELD_BAG.location }
  });
  await chooseRules(db, { ...base, id: crateId, version: 1, rules: { cooling: 'fan' } });
  const receipt = 'Marktgasse Teile\n20 Oct 2026\nTrivet 40, one piece\n79.80 EUR, paid\n(an invented receipt)\n';
  await createAttachment(db, {
    ...base,
    subjectTable: 'models',
    subjectId: demoId('Trivet 40'),
    name: 'receipt Trivet 40.txt',
    type: 'text/plain',
    content: Buffer.from(receipt)
  });
}

/** What is out of the crate: one drive, and it is late. */
async function seedLending(db: Knex, crateId: string): Promise<void> {
  const carried = await unitTable(db, { crateId, tag: 'D-002' });
  const items = carried.rows.map(({ id, version }) => ({ id, version }));
  await editUnits(db, {
    crateId,
    by: 'scanning desk',
    at: '2026-11-16T07:30:00.000Z',
    items,
    set: { custodian: 'field crew', dueBack: '2026-11-20' },
    event: { kind: 'checked out', message: (tags) => `field crew took ${tags}, due back 20 Nov 2026.` }
  });
}

async function seedBuilds(db: Knex, crateId: string): Promise<void> {
  const choices = DEMO_BUILDS.map((build): Choice => ({
    hostId: demoId(build.host),
    portId: build.port,
    ...(build.cable ? { cableId: demoId(build.cable) } : {}),
    enclosureId: demoId(build.enclosure),
    driveId: demoId(build.drive),
    ...(build.job ? { jobId: demoId(`job ${build.job}`) } : {}),
    ...(build.pads
      ? { stack: { pieces: build.pads.map(({ component, pad }) => ({ component, layers: [demoId(pad)] })) } }
      : {})
  }));
  const library = await loadLibrary(db, crateId, choices);
  for (const [i, demo] of DEMO_BUILDS.entries()) {
    const choice = choices[i]!;
    const snapshot = planInputFor(library, choice);
    const report = plan(snapshot, { workings: false });
    const id = demoId(`build ${demo.name}`);
    const { tag } = await createBuild(db, {
      crateId,
      id,
      tag: `AC-${String(i + 1).padStart(4, '0')}`,
      build: { name: demo.name, stage: demo.stage, choice, snapshot, report },
      by: BY,
      at: `${demo.planned}T10:00:00.000Z`
    });
    // What is put together holds its parts: the first free unit of each.
    if (STAGES.indexOf(demo.stage) >= STAGES.indexOf('assembled') && demo.stage !== 'retired')
      for (const modelId of [choice.enclosureId, choice.driveId]) {
        const { rows } = await unitTable(db, { crateId, modelId, state: 'owned' });
        const free = rows.find((row) => !row.build);
        if (!free) continue;
        await editUnits(db, {
          crateId,
          items: [{ id: free.id, version: free.version }],
          set: { buildId: id },
          event: { kind: 'assembled', message: (tags) => `${tags} went into ${tag}.` },
          by: BY,
          at: `${demo.planned}T11:00:00.000Z`
        });
      }
    for (const { date, seed, fault } of demo.runs ?? []) {
      const results = simulatePairCheck(report, seed, fault);
      if (!results) continue;
      const chain = chainOf(choice, snapshot, report);
      const conditions = {
        filesystem: report.filesystem.first.filesystem,
        ambientC: 21,
        power: 'mains' as const,
        testGB: 5,
        repeats: 5,
        ...(fault ? { notes: `simulated fault: ${fault}` } : {})
      };
      await createRun(db, {
        crateId,
        subject: { build_id: id },
        of: tag,
        run: { date, results, conditions, chain, simulated: true, accepted: [] },
        by: BY,
        at: `${date}T15:00:00.000Z`
      });
    }
    for (const observation of demo.seen ?? [])
      await createObservation(db, {
        crateId,
        buildId: id,
        tag,
        observation,
        by: BY,
        at: `${observation.date}T16:00:00.000Z`
      });
  }
}

async function seedDemo(db: Knex, at: string): Promise<Crate> {
  const crate = await createCrate(db, {
    name: 'Fernhollow Herbarium',
    slug: 'fernhollow',
    id: demoId('crate'),
    at,
    demo: true
  });
  await seedParts(db, crate.id);
  await seedNotes(db, crate.id);
  await seedBuilds(db, crate.id);
  await seedRuns(db, crate.id);
  await seedSheets(db, crate.id);
  await seedFormats(db, crate.id);
  await seedLending(db, crate.id);
  return getCrate(db, { id: crate.id });
}

/** The demo crate, made once, on a database that has no crate yet. One transaction: all of it or nothing. */
export async function seedOnce(db: Knex, at: string): Promise<void> {
  if (await hasCrates(db)) return;
  await writing(db, null, (trx) => seedDemo(trx, at));
}

/** The demo crate as it ships, whatever was done to it; other crates are left alone. */
export async function resetDemo(db: Knex, at: string): Promise<Crate> {
  return writing(db, null, async (trx) => {
    // Also one that was deleted: it holds the ids that the demo keeps.
    for (const id of await demoCrates(trx)) await removeCrate(trx, id);
    return seedDemo(trx, at);
  });
}
