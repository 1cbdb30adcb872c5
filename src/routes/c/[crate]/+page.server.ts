import { buildRows } from '$lib/server/planning/overview';
import { forPage, today } from '$lib/server/pages/page';
import { countModels } from '$lib/server/repositories/models';

export async function load({ parent }) {
  const { crate } = await parent();
  return forPage(async (db) => {
    const [builds, counts] = await Promise.all([buildRows(db, crate.id, today()), countModels(db, crate.id)]);
    return { builds, counts };
  });
}
