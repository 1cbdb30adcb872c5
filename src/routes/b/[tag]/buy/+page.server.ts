import { forPage } from '$lib/server/pages/page';
import { shoppingFor } from '$lib/server/planning/shopping';

export async function load({ parent }) {
  const { build, crate, today } = await parent();
  return { list: await forPage((db) => shoppingFor(db, { crate, build, today })) };
}
