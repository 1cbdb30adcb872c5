import { choiceFromQuery } from '$lib/ui/pair/slots';
import { columnKeys } from '$lib/ui/compare/laid';
import { forPage } from '$lib/server/pages/page';
import { loadLibrary } from '$lib/server/planning/planning';
import { choicesByTag, findBuilds } from '$lib/server/repositories/builds';

/** More builds than this are looked for by their names. */
const PICKED_FROM = 200;

export async function load({ parent, url }) {
  const { crate } = await parent();
  const keys = columnKeys(url.searchParams);
  return forPage(async (db) => {
    const laid = await choicesByTag(db, crate.id, keys);
    const choices = keys.map(
      (key) => laid.find(({ tag }) => tag === key)?.choice ?? choiceFromQuery(new URLSearchParams(key))
    );
    const [library, others] = await Promise.all([
      loadLibrary(db, crate.id, choices),
      findBuilds(db, { crateId: crate.id, limit: PICKED_FROM })
    ]);
    return { library, laid, others };
  });
}
