import { forPage } from '$lib/server/pages/page';
import { loadLibrary } from '$lib/server/planning/planning';
import { listBuilds } from '$lib/server/repositories/builds';

export async function load({ parent }) {
  const { crate } = await parent();
  const [library, builds] = await forPage((db) => Promise.all([loadLibrary(db, crate.id), listBuilds(db, crate.id)]));
  return { library, builds: builds.map(({ tag, name, choice }) => ({ tag, name, choice })) };
}
