import { forPage } from '$lib/server/pages/page';
import { getCrate } from '$lib/server/repositories/crates';

export async function load({ params }) {
  return { crate: await forPage((db) => getCrate(db, { slug: params.crate })) };
}
