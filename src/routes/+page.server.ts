import { forPage } from '$lib/server/pages/page';
import { listCrates } from '$lib/server/repositories/crates';

/** The crates that a door opens to: the one that was looked at last, and the person's own. */
export async function load({ cookies, url }) {
  const crates = await forPage(listCrates);
  const own = crates.filter(({ demo }) => !demo);
  return {
    last: crates.find(({ slug }) => slug === cookies.get('crate')),
    own,
    demo: crates.find(({ demo }) => demo),
    starting: url.searchParams.has('own')
  };
}
