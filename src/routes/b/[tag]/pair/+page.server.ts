import { forPage } from '$lib/server/pages/page';
import { measuredOn } from '$lib/server/repositories/runs';

export async function load({ parent }) {
  const { crate } = await parent();
  return { measured: await forPage((db) => measuredOn(db, crate.id)) };
}
