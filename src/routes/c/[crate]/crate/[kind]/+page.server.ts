import { countModels, listModels } from '$lib/server/repositories/models';
import { forPage } from '$lib/server/page';

export async function load({ parent }) {
  const { crate, kind } = await parent();
  return forPage(async (db) => {
    const [models, counts] = await Promise.all([
      listModels(db, { crateId: crate.id, kind }),
      countModels(db, crate.id)
    ]);
    return { models, counts };
  });
}
