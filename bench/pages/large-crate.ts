import type { Knex } from 'knex';
import type { Choice } from '#core/build/choice';
import type { Model } from '#core/parts/model';
import { plan } from '#core/plan/plan';
import { seeded } from '#core/quantities/random';
import { changeMany, newId } from '../../src/lib/server/db/change.ts';
import { writing } from '../../src/lib/server/db/writing.ts';
import { DEMO_BUILDS } from '../../src/lib/server/demo/builds.ts';
import { demoId } from '../../src/lib/server/demo/id.ts';
import { DEMO_JOBS, DEMO_MODELS } from '../../src/lib/server/demo/parts.ts';
import { loadLibrary, planInputFor } from '../../src/lib/server/planning/planning.ts';
import { createCrate } from '../../src/lib/server/repositories/crates.ts';
import { jobToRow } from '../../src/lib/server/repositories/jobs.ts';
import { modelToRow } from '../../src/lib/server/repositories/models.ts';
import { quoteToRow } from '../../src/lib/server/repositories/quotes.ts';
import { listRuns } from '../../src/lib/server/repositories/runs.ts';
import { unitToRow } from '../../src/lib/server/repositories/units.ts';

export type Size = { parts: number; builds: number; runs: number };
export const LARGE: Size = { parts: 10_000, builds: 2000, runs: 5000 };

const by = 'bench';
const at = '2026-11-20T08:00:00.000Z';
/** Pads are few however large a crate is: a drawer has so many thicknesses. */
const MOST_PADS = 40;
/** Of all parts. */
const SHARES = { drive: 0.4, enclosure: 0.3, cable: 0.2, host: 0.06, alternative: 0.04 } as const;

/**
 * Fills a crate with variations of the parts, builds and results of the demo: the same seed gives the same crate. Every variant has a
 * name and figures of its own, so that no two are alike.
 */
export async function fillLargeCrate(db: Knex, size: Size, seed = 1): Promise<string> {
  const random = seeded(seed);
  const some = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const name = `Large ${size.parts} ${seed}`;
  const known = (await db('crates').where({ name }).whereNull('deleted_at').first('id')) as { id: string } | undefined;
  if (known) return known.id;
  const demoRuns = await listRuns(db, { crateId: demoId('crate') });
  return writing(db, null, async (trx) => {
    const { id: crateId } = await createCrate(trx, { name, at });
    const base = { crateId, by, at };
    const many = async (
      table: 'models' | 'units' | 'quotes' | 'jobs' | 'builds' | 'runs',
      inserts: { id: string; row: Record<string, unknown> }[]
    ) =>
      changeMany(trx, {
        ...base,
        group: newId(),
        event: { kind: 'added', message: `${inserts.length} rows of ${table}.` },
        inserts: inserts.map((insert) => ({ table, ...insert }))
      });

    const variants = new Map<string, { id: string; spec: Model }[]>();
    const of = (baseName: string) => variants.get(baseName) ?? [];
    for (const [kind, share] of Object.entries({ ...SHARES, pad: MOST_PADS / size.parts })) {
      const bases = DEMO_MODELS.filter((model) => model.kind === kind);
      const count = Math.max(bases.length, Math.round(size.parts * share));
      for (let i = 0; i < count; i++) {
        const one = bases[i % bases.length] as Model;
        const spec = { ...one, name: `${one.name} ${Math.floor(i / bases.length) + 1}` };
        if (spec.kind === 'drive' && spec.writeMBps)
          spec.writeMBps = Math.round(spec.writeMBps * (0.8 + random() * 0.4));
        if (spec.kind === 'cable' && spec.lengthM)
          spec.lengthM = Math.round(spec.lengthM * (50 + random() * 100)) / 100;
        variants.set(one.name, [...of(one.name), { id: newId(), spec }]);
      }
    }
    const models = [...variants.values()].flat();
    await many(
      'models',
      models.map(({ id, spec }) => ({ id, row: modelToRow(spec) }))
    );
    const owned = models.filter(({ spec }) => spec.kind !== 'alternative' && random() < 0.3);
    await many(
      'units',
      owned.map(({ id, spec }, i) => ({
        id: newId(),
        row: unitToRow({ tag: `${spec.kind.slice(0, 1).toUpperCase()}-${i + 1}`, modelId: id, state: 'owned' })
      }))
    );
    await many(
      'quotes',
      models.flatMap(({ id, spec }) =>
        spec.kind === 'host' || random() < 0.2
          ? []
          : [1, 2].map((month) => ({
              id: newId(),
              row: quoteToRow({
                partId: id,
                vendor: some(['Quay', 'Depot', 'Arcade']),
                list: Math.round(500 + random() * 30_000) / 100,
                currency: 'EUR',
                date: `2026-0${month}-11`
              })
            }))
      )
    );
    const jobs = Array.from({ length: Math.max(DEMO_JOBS.length, size.parts / 100) }, (_, i) => {
      const job = DEMO_JOBS[i % DEMO_JOBS.length]!;
      return { id: newId(), spec: { ...job, name: `${job.name} ${i + 1}` } };
    });
    await many(
      'jobs',
      jobs.map(({ id, spec }) => ({ id, row: jobToRow(spec) }))
    );

    const library = await loadLibrary(trx, crateId);
    const [{ last }] = (await trx('builds').select(
      trx.raw('coalesce(max(cast(substr(tag, 4) as unsigned)), 0) as last')
    )) as [{ last: number }];
    const builds: { id: string; tag: string; of: string; choice: Choice; row: Record<string, unknown> }[] = [];
    for (let i = 0; builds.length < size.builds; i++) {
      const demo = DEMO_BUILDS[i % DEMO_BUILDS.length]!;
      const pick = (part: string) => some(of(part)).id;
      const choice: Choice = {
        hostId: pick(demo.host),
        portId: demo.port,
        ...(demo.cable ? { cableId: pick(demo.cable) } : {}),
        enclosureId: pick(demo.enclosure),
        driveId: pick(demo.drive),
        jobId: some(jobs).id
      };
      const snapshot = planInputFor(library, choice);
      const report = plan(snapshot, { workings: false });
      const tag = `AC-${String(Number(last) + builds.length + 1).padStart(4, '0')}`;
      const row = {
        tag,
        name: `${demo.name} ${i + 1}`,
        stage: demo.stage,
        choice,
        snapshot,
        report,
        engine: report.engine
      };
      builds.push({ id: newId(), tag, of: demo.name, choice, row });
    }
    await trx('counters')
      .where({ name: 'build tags' })
      .update({ value: Number(last) + builds.length });
    for (let i = 0; i < builds.length; i += 100)
      await many(
        'builds',
        builds.slice(i, i + 100).map(({ id, row }) => ({ id, row }))
      );
    const sources = demoRuns.filter(({ buildId, series }) => buildId !== null && series === null);
    await many(
      'runs',
      Array.from({ length: size.runs }, () => {
        const [build, run] = [some(builds), some(sources)];
        const day = String(1 + Math.floor(random() * 28)).padStart(2, '0');
        return {
          id: newId(),
          row: {
            build_id: build.id,
            protocol: run.protocol,
            date: `2026-${String(1 + Math.floor(random() * 10)).padStart(2, '0')}-${day}`,
            simulated: false,
            results: run.results,
            conditions: run.conditions,
            chain: { ...run.chain, ids: { ...run.chain.ids, ...idsOf(build.choice) } },
            accepted: run.accepted,
            settings: null
          }
        };
      })
    );
    return crateId;
  });
}

const idsOf = ({ hostId, portId, cableId, enclosureId, driveId }: Choice) => ({
  hostId,
  portId,
  cableId,
  enclosureId,
  driveId
});
