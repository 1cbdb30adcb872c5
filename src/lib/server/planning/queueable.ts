import type { Knex } from 'knex';
import { briefOf } from '#core/protocols/brief';
import { coolDown } from '#core/protocols/planner';
import { testedBuild } from '#core/protocols/tested';
import { idsOfTags, listBuilds } from '../repositories/builds';
import { buildNow, loadLibrary } from './planning';

/** What an evening plans with: how long a soak and a speed check of a build take, and how long it cools after it, s. */
export type Queueable = { id: string; tag: string; name: string; soakS: number; checkS: number; coolS: number };

/** Plans what measuring takes of some builds, by their tags; those that do not run yet, and retired ones, are left out. */
export async function queueable(db: Knex, crateId: string, tags: readonly string[]): Promise<Queueable[]> {
  const builds = await listBuilds(db, crateId, await idsOfTags(db, crateId, tags));
  const library = await loadLibrary(
    db,
    crateId,
    builds.map(({ choice }) => choice)
  );
  return builds.flatMap((build) => {
    const { snapshot, report } = buildNow(library, build);
    if (report.throughput.read === null || build.stage === 'retired') return [];
    const tested = testedBuild(snapshot, report);
    const seconds = (id: 'soak' | 'pair-check') => Math.round(briefOf(id, {}, tested).seconds?.typical ?? 0);
    return [
      {
        id: build.id,
        tag: build.tag,
        name: `${build.tag} ${build.name}`,
        soakS: seconds('soak'),
        checkS: seconds('pair-check'),
        coolS: Math.round(coolDown(tested)?.seconds ?? 0)
      }
    ];
  });
}
