import { loadLibrary } from '$lib/server/planning';
import { forPage } from '$lib/server/page';

export async function load({ parent }) {
  const { crate } = await parent();
  return { library: await forPage((db) => loadLibrary(db, crate.id)) };
}
