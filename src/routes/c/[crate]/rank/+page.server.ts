import { forPage, today } from '$lib/server/pages/page';
import { RANKED_AT_FIRST } from '$lib/server/planning/ranking';
import { listJobs } from '$lib/server/repositories/jobs';
import { listNames } from '$lib/server/repositories/models';
import { pickable } from '$lib/server/repositories/pickable';

const KINDS = ['host', 'cable', 'enclosure', 'drive'] as const;
/** So many parts of a kind can be picked from. */
const OFFERED = 100;
/** So many jobs are offered. */
const JOBS = 200;

export async function load({ parent, url }) {
  const { crate } = await parent();
  const asked = KINDS.flatMap((kind) => (url.searchParams.get(`${kind}s`) ?? '').split('.').filter(Boolean));
  return forPage(async (db) => {
    const [offered, jobs] = await Promise.all([
      Promise.all(
        KINDS.map(async (kind) => ({ kind, ...(await pickable(db, { crateId: crate.id, kind, limit: OFFERED })) }))
      ),
      listJobs(db, crate.id)
    ]);
    const known = new Set(offered.flatMap(({ ids }) => ids));
    const others = [...new Set(asked)].filter((id) => !known.has(id)).slice(0, OFFERED * KINDS.length);
    const named = others.length > 0 ? await listNames(db, { crateId: crate.id, ids: others }) : [];
    const of = (kind: (typeof KINDS)[number]) =>
      [
        ...offered.flatMap((one) => (one.kind === kind ? one.parts : [])),
        ...named.flatMap((part) => (part.kind === kind ? [{ id: part.id, name: part.name }] : []))
      ].sort((a, b) => (a.name < b.name ? -1 : 1));
    return {
      // Names to pick from: the ranking itself is computed elsewhere, and says what its rows are called.
      parts: { host: of('host'), cable: of('cable'), enclosure: of('enclosure'), drive: of('drive') },
      totals: Object.fromEntries(offered.map(({ kind, total }) => [kind, total])) as Record<
        (typeof KINDS)[number],
        number
      >,
      atFirst: RANKED_AT_FIRST,
      jobs: jobs.slice(0, JOBS).map(({ spec }) => spec),
      today: today()
    };
  });
}
