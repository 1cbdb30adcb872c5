import type { Knex } from 'knex';
import type { BuildRow } from '../src/lib/server/planning/judged-row';
import { buildPage } from '../src/lib/server/planning/overview';

/** What the list of builds shows of a small crate, all on one page. */
export async function buildRows(db: Knex, crateId: string, today: string): Promise<BuildRow[]> {
  const { builds, due } = await buildPage(db, { crateId, today, size: 200 });
  if (due > 0) throw new Error(`${due} builds are still being judged.`);
  return builds.flatMap(({ row, ...build }) => (row ? [{ ...row, ...build }] : []));
}
