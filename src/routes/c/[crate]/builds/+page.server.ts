import { buildRows } from '$lib/server/planning/overview';
import { forPage, today } from '$lib/server/pages/page';

export async function load({ parent }) {
  const { crate } = await parent();
  return { builds: await forPage((db) => buildRows(db, crate.id, today())) };
}
