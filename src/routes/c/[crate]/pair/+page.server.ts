import { choiceFromQuery } from '$lib/ui/pair/slots';
import { PAIR_SIZES, windowLibrary } from '$lib/server/planning/window';
import { forPage } from '$lib/server/pages/page';
import { measuredOn } from '$lib/server/repositories/runs';

export async function load({ parent, url }) {
  const { crate } = await parent();
  const choices = [choiceFromQuery(url.searchParams)];
  return forPage(async (db) => {
    const [windowed, measured] = await Promise.all([
      windowLibrary(db, crate.id, { choices, sizes: PAIR_SIZES }),
      measuredOn(db, crate.id)
    ]);
    return { ...windowed, measured };
  });
}
