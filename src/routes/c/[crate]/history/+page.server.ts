import { forPage } from '$lib/server/pages/page';
import { listHistory } from '$lib/server/repositories/events';

export async function load({ parent, cookies }) {
  const { crate } = await parent();
  return forPage(async (db) => ({
    history: await listHistory(db, { crateId: crate.id, limit: 300 }),
    writer: cookies.get('writer') ?? ''
  }));
}
