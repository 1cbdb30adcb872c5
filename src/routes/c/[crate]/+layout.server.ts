import { forPage } from '$lib/server/page';
import { getCrate } from '$lib/server/repositories/crates';

export async function load({ params, cookies }) {
  const crate = await forPage((db) => getCrate(db, { slug: params.crate }));
  cookies.set('crate', crate.slug, { path: '/', maxAge: 400 * 86_400, sameSite: 'lax', secure: false });
  return { crate };
}
