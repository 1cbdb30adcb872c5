import { redirect } from '@sveltejs/kit';
import { forPage } from '$lib/server/pages/page';
import { listCrates } from '$lib/server/repositories/crates';

/** To the crate that was used last, else the person's own first one, else the demo. */
export async function load({ cookies }) {
  const crates = await forPage(listCrates);
  const last = crates.find((crate) => crate.slug === cookies.get('crate'));
  const target = last ?? crates[0];
  redirect(303, target ? `/c/${target.slug}` : '/crates');
}
