import { forPage } from '$lib/server/pages/page';
import { KEPT_DAYS, listCrates, listDeletedCrates } from '$lib/server/repositories/crates';

export async function load() {
  return forPage(async (db) => ({
    crates: await listCrates(db),
    deleted: await listDeletedCrates(db),
    keptDays: KEPT_DAYS
  }));
}
