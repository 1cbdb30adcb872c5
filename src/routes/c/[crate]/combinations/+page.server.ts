import { forPage } from '$lib/server/pages/page';
import { listPairs } from '$lib/server/repositories/pairs';

export async function load({ parent }) {
  const { crate } = await parent();
  return forPage(async (db) => ({ pairs: await listPairs(db, { crateId: crate.id }) }));
}
