import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import type { Choice } from '#core/build/build';
import { OS_LABEL } from '#core/facts/filesystems';
import { plan, portOf } from '#core/plan/plan';
import { simulatePairCheck } from '#core/simulate/pair-check';
import { loadLibrary, planInputFor } from '../planning';
import { createBuild } from '../repositories/builds';
import { createCrate, listCrates, removeCrate, type Crate } from '../repositories/crates';
import { createJob } from '../repositories/jobs';
import { createModel } from '../repositories/models';
import { createQuote } from '../repositories/quotes';
import { createRun } from '../repositories/runs';
import { createUnit } from '../repositories/units';
import { DEMO_BUILDS } from './builds';
import { DEMO_JOBS, DEMO_MODELS, DEMO_PRICES } from './parts';

const BY = 'demo data';
const YEAR_BEGINS = '2026-01-05T08:00:00.000Z';
const ALPHABET = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';

/** The same id for the same thing at every reset, so that links into the demo stay good. */
export function demoId(name: string): string {
  const digest = createHash('sha256').update(`fernhollow/${name}`).digest();
  return '0' + Array.from({ length: 25 }, (_, i) => ALPHABET[digest[i]! % 32]).join('');
}

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

async function seedBuilds(db: Knex, crateId: string): Promise<void> {
  const choices = DEMO_BUILDS.map((build): Choice => ({
    hostId: demoId(build.host),
    portId: build.port,
    ...(build.cable ? { cableId: demoId(build.cable) } : {}),
    enclosureId: demoId(build.enclosure),
    driveId: demoId(build.drive),
    ...(build.job ? { jobId: demoId(`job ${build.job}`) } : {})
  }));
  const library = await loadLibrary(db, crateId, choices);
  for (const [i, demo] of DEMO_BUILDS.entries()) {
    const choice = choices[i]!;
    const snapshot = planInputFor(library, choice);
    const report = plan(snapshot, { workings: false });
    const id = demoId(`build ${demo.name}`);
    const tag = `AC-${String(i + 1).padStart(4, '0')}`;
    await createBuild(db, {
      crateId,
      id,
      tag,
      build: { name: demo.name, stage: demo.stage, choice, snapshot, report },
      by: BY,
      at: `${demo.planned}T10:00:00.000Z`
    });
    for (const { date, seed, fault } of demo.runs ?? []) {
      const results = simulatePairCheck(report, seed, fault);
      if (!results) continue;
      const { host, cable, enclosure, drive } = snapshot;
      const chain = {
        host: host.name,
        port: portOf(host, choice.portId)!.label,
        ...(cable ? { cable: cable.name } : {}),
        enclosure: enclosure.name,
        drive: drive.name,
        os: [OS_LABEL[host.os.family], host.os.version].filter(Boolean).join(' '),
        mode: report.link.mode,
        ids: { ...choice }
      };
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
        buildId: id,
        tag,
        run: { date, results, conditions, chain, simulated: true, accepted: [] },
        by: BY,
        at: `${date}T15:00:00.000Z`
      });
    }
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
  await seedBuilds(db, crate.id);
  return crate;
}

/** The demo crate, made once, on a database that has no crate yet. One transaction: all of it or nothing. */
export async function seedOnce(db: Knex, at: string): Promise<void> {
  if ((await listCrates(db)).length > 0) return;
  await db.transaction((trx) => seedDemo(trx, at));
}

/** The demo crate as it ships, whatever was done to it; other crates are left alone. */
export async function resetDemo(db: Knex, at: string): Promise<Crate> {
  return db.transaction(async (trx) => {
    for (const crate of await listCrates(trx)) if (crate.demo) await removeCrate(trx, crate.id);
    return seedDemo(trx, at);
  });
}
