import { choiceFromQuery } from '$lib/ui/pair/slots';
import { forPage } from '$lib/server/pages/page';
import { PAIR_SIZES, windowLibrary } from '$lib/server/planning/window';
import { measuredOn } from '$lib/server/repositories/runs';

export async function load({ parent, url }) {
  const { crate, build } = await parent();
  const choices = [build.choice, choiceFromQuery(url.searchParams)];
  return forPage(async (db) => {
    const [windowed, measured] = await Promise.all([
      windowLibrary(db, crate.id, { choices, sizes: PAIR_SIZES }),
      measuredOn(db, crate.id)
    ]);
    return { ...windowed, measured };
  });
}
