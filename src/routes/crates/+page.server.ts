import { forPage } from '$lib/server/page';
import { listCrates } from '$lib/server/repositories/crates';

export async function load() {
  return { crates: await forPage(listCrates) };
}
