import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { joined } from '#core/build/assemble';
import { rank } from '#core/compare/ranking/rank';
import { fillLargeCrate } from '../../../../bench/pages/large-crate';
import { freshDatabase } from '../../../../tests/fresh-database';
import { resetDemo } from '../demo/seed';
import { choicesByTag, findBuilds, listBrief } from '../repositories/builds';
import { getCrate, type Crate } from '../repositories/crates';
import { jobTable } from '../repositories/jobs';
import { createModel, countModels } from '../repositories/models';
import { pickable } from '../repositories/pickable';
import { runTable } from '../repositories/runs';
import { judgeDue, buildPage, todayPage } from './overview';
import { loadLibrary } from './planning';
import { pricePage } from './prices';
import { combinationsOf, partsOfReport, rankInputFor, scopeOf } from './ranking';
import { foundLibrary, windowLibrary } from './window';

const at = '2026-11-23T12:00:00.000Z';
const today = '2026-11-24';
let db: Knex;
let drop: () => Promise<void>;
let crate: Crate;

/** A crate of a thousand parts, two hundred builds and five hundred results. */
beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  await resetDemo(db, at);
  crate = await getCrate(db, { id: await fillLargeCrate(db, { parts: 1000, builds: 200, runs: 500 }) });
});
afterAll(() => drop());

describe('a crate of a thousand parts', () => {
  it('gives a window of what can be picked: what is owned first, then what has a price', async () => {
    const counts = await countModels(db, crate.id);
    const few = await pickable(db, { crateId: crate.id, kind: 'drive', limit: 80 });
    const all = await pickable(db, { crateId: crate.id, kind: 'drive', limit: 5000 });
    expect([few.total, all.ids.length]).toEqual([counts.drive, counts.drive]);
    // A large crate is asked in steps, a small one at once: both come to the same order.
    expect(few.ids).toEqual(all.ids.slice(0, 80));
    const ownedIds = new Set(await db('units').where({ crate_id: crate.id, state: 'owned' }).pluck('model_id'));
    const pricedIds = new Set(await db('quotes').where({ crate_id: crate.id }).pluck('part_id'));
    const rank = (id: string) => (ownedIds.has(id) ? 0 : pricedIds.has(id) ? 1 : 2);
    expect(all.ids.map(rank)).toEqual(all.ids.map(rank).sort());
  });

  it('finds the rest by words, with % and _ as they are', async () => {
    const by = { by: 'test', at };
    const spec = { kind: 'cable', ends: ['usb-c', 'usb-c'], lengthM: 1, modes: ['usb-5g'] } as const;
    await createModel(db, {
      crateId: crate.id,
      spec: { ...spec, ends: [...spec.ends], modes: [...spec.modes], name: '100%_sure' },
      ...by
    });
    const find = async (words: string) =>
      [...(await foundLibrary(db, crate.id, { kind: 'cable', find: words, limit: 20 })).library.cable.values()].map(
        ({ name }) => name
      );
    expect(await find('%')).toEqual(['100%_sure']);
    expect(await find('SURE 100')).toEqual(['100%_sure']);
    expect(await find('nothing of that name')).toEqual([]);
  });

  it('plans a build from a window as from the whole, and keeps its parts when what was found is joined', async () => {
    const [build] = await listBrief(db, crate.id);
    const { library, totals } = await windowLibrary(db, crate.id, {
      choices: [build!.choice],
      sizes: { drive: 5, cable: 5 }
    });
    expect(library.drive.size).toBeLessThanOrEqual(6);
    expect(totals.drive).toBeGreaterThan(300);
    const found = await foundLibrary(db, crate.id, { kind: 'drive', find: '7', limit: 9 });
    const more = joined(library, found.library);
    expect(more.drive.size).toBeGreaterThan(library.drive.size);
    expect(more.enclosure.get(build!.choice.enclosureId)).toEqual(library.enclosure.get(build!.choice.enclosureId));
    const whole = await loadLibrary(db, crate.id);
    const pricesOf = (quotes: typeof whole.quotes) =>
      quotes.filter(({ partId }) => partId === build!.choice.driveId).map(({ list }) => list);
    expect(pricesOf(more.quotes)).toEqual(pricesOf(whole.quotes));
    expect(more.stock.get(build!.choice.driveId)).toEqual(whole.stock.get(build!.choice.driveId));
  });

  it('is judged in the background in batches; until then every build is “being judged”', async () => {
    const before = await buildPage(db, { crateId: crate.id, today });
    expect(before).toMatchObject({ all: 200, due: 200, total: 200 });
    expect(before.builds.every(({ row }) => row === null)).toBe(true);
    let left = 200;
    for (let step = 0; left > 0; step++) {
      ({ left } = await judgeDue(db, crate.id, today));
      expect(left).toBe(Math.max(0, 200 - 50 * (step + 1)));
    }
    const after = await buildPage(db, { crateId: crate.id, today, sort: 'verdict', page: 3 });
    expect(after).toMatchObject({ due: 0, total: 200 });
    expect(after.builds).toHaveLength(25);
    const { builds, counts } = await todayPage(db, { crateId: crate.id, today });
    expect(counts.urgent + counts.do + counts.waits).toBe(200);
    const shown = (tone: string) => builds.filter(({ row }) => row?.next.tone === tone).length;
    expect(shown('urgent')).toBe(Math.min(40, counts.urgent));
    expect(shown('do') + shown('waits')).toBe(Math.min(20, counts.do + counts.waits));
  });

  it('ranks what is owned and what has a price first, and everything where it is asked for', async () => {
    const jobId = (await jobTable(db, { crateId: crate.id, find: '', page: 1, size: 1 })).rows[0]!.id;
    const counts = await countModels(db, crate.id);
    const { choice, scope } = await scopeOf(db, crate.id, { jobId });
    expect(scope.drive).toEqual({ taken: 80, leftOut: counts.drive! - 80 });
    const input = await rankInputFor(db, crate.id, choice);
    expect(input.drives.length).toBeLessThanOrEqual(80);
    const owned = new Set(await db('units').where({ crate_id: crate.id, state: 'owned' }).pluck('model_id'));
    expect(choice.driveIds!.every((id) => owned.has(id))).toBe(true);
    // Prices of what is bought complete come along, though no part of the ranking has them.
    const others = new Set((input.alternatives ?? []).map(({ id }) => id));
    expect(input.quotes?.some(({ partId }) => others.has(partId))).toBe(true);
    const whole = await scopeOf(db, crate.id, { jobId, everything: true });
    expect(whole.scope.drive).toEqual({ taken: counts.drive, leftOut: 0 });
    const few = await scopeOf(db, crate.id, { jobId, driveIds: choice.driveIds!.slice(0, 2), hostIds: choice.hostIds });
    expect(few.scope.drive).toEqual({ taken: 2, leftOut: 0 });
    const small = await rankInputFor(db, crate.id, few.choice);
    const report = rank({ ...small, enclosures: small.enclosures.slice(0, 5), limit: 5 });
    const named = partsOfReport(small, report);
    for (const row of report.rows) expect(named.drive.map(({ id }) => id)).toContain(row.driveId);
    expect(combinationsOf(small)).toBe(
      small.hosts.reduce((sum, { ports }) => sum + ports.length, 0) * small.cables.length * small.enclosures.length * 2
    );
  });

  it('counts parts that differ in nothing but their names as one', async () => {
    const by = { by: 'test', at };
    const spec = { kind: 'cable', ends: ['usb-a', 'usb-c'], lengthM: 0.77, modes: ['usb-5g'] } as const;
    const ids = [];
    for (const name of ['Twin one', 'Twin two', 'Twin three'])
      ids.push(
        (
          await createModel(db, {
            crateId: crate.id,
            spec: { ...spec, ends: [...spec.ends], modes: [...spec.modes], name },
            ...by
          })
        ).id
      );
    const jobId = (await jobTable(db, { crateId: crate.id, find: '', page: 1, size: 1 })).rows[0]!.id;
    const { choice } = await scopeOf(db, crate.id, { jobId, cableIds: ids });
    expect((await rankInputFor(db, crate.id, choice)).cables).toHaveLength(1);
  });

  it('lists results, jobs, builds and prices a page at a time, with the count of all', async () => {
    const asked = { crateId: crate.id, find: '', sort: 'date' as const, size: 50 };
    const [first, second] = [await runTable(db, { ...asked, page: 1 }), await runTable(db, { ...asked, page: 2 })];
    expect([first.total, first.rows.length]).toEqual([500, 50]);
    expect(new Set([...first.rows, ...second.rows].map(({ id }) => id)).size).toBe(100);
    const dates = [...first.rows, ...second.rows].map(({ date }) => date);
    expect(dates).toEqual([...dates].sort().reverse());
    const tag = first.rows.find((row) => row.tag)!.tag!;
    expect((await runTable(db, { ...asked, find: tag, page: 1 })).rows.every((row) => row.tag === tag)).toBe(true);
    expect((await runTable(db, { ...asked, find: 'speed check', page: 1 })).total).toBeGreaterThan(0);
    expect((await runTable(db, { ...asked, find: '%', page: 1 })).total).toBe(0);

    const jobs = await jobTable(db, { crateId: crate.id, find: '', page: 1, size: 5 });
    expect([jobs.rows.length, jobs.total]).toEqual([5, jobs.all]);
    const named = await findBuilds(db, { crateId: crate.id, find: tag, limit: 10 });
    expect(named.builds.map((build) => build.tag)).toEqual([tag]);
    expect((await choicesByTag(db, crate.id, [tag]))[0]?.tag).toBe(tag);

    // The short way by name comes to the same as the long way over everything.
    const price = { sort: 'name' as const, down: false, page: 2, size: 30, today };
    const short = await pricePage(db, crate, { ...price, find: '' });
    const long = await pricePage(db, crate, { ...price, find: '', sort: 'price', page: 1, size: 5000 });
    const byName = [...long.rows].sort((a, b) => a.part.name.localeCompare(b.part.name));
    expect(short.total).toBe(long.total);
    expect(new Set(short.rows.map(({ part }) => part.id)).size).toBe(30);
    for (const row of short.rows) expect(byName.find(({ part }) => part.id === row.part.id)?.home).toBe(row.home);
  });
});
