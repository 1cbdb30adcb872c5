import { forPage } from '$lib/server/page';
import { shoppingFor } from '$lib/server/shopping';

export async function load({ parent }) {
  const { build, crate, today } = await parent();
  return { list: await forPage((db) => shoppingFor(db, { crate, build, today })) };
}
