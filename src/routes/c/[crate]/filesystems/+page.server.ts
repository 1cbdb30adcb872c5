import { forPage } from '$lib/server/pages/page';
import { listModels } from '$lib/server/repositories/models';

export async function load({ parent }) {
  const { crate } = await parent();
  return forPage(async (db) => {
    const hosts = await listModels(db, { crateId: crate.id, kind: 'host' });
    return {
      computers: hosts.flatMap(({ spec }) => (spec.kind === 'host' ? [{ name: spec.name, os: spec.os }] : []))
    };
  });
}
