import { forPage } from '$lib/server/pages/page';
import { listSpecs } from '$lib/server/repositories/models';

/** So many computers are named. */
const NAMED = 100;

export async function load({ parent }) {
  const { crate } = await parent();
  return forPage(async (db) => {
    const hosts = await listSpecs(db, { crateId: crate.id, kind: 'host', limit: NAMED });
    return {
      computers: hosts.flatMap((spec) => (spec.kind === 'host' ? [{ name: spec.name, os: spec.os }] : []))
    };
  });
}
