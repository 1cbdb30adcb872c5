import { loadLibrary } from '$lib/server/planning/planning';
import { forPage } from '$lib/server/pages/page';
import { measuredOn } from '$lib/server/repositories/runs';

export async function load({ parent }) {
  const { crate } = await parent();
  return forPage(async (db) => {
    const [library, measured] = await Promise.all([loadLibrary(db, crate.id), measuredOn(db, crate.id)]);
    return { library, measured };
  });
}
