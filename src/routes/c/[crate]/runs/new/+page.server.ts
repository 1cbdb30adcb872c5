import { error } from '@sveltejs/kit';
import { prefill } from '#core/protocols/prefill';
import { testedHost, testedModel } from '#core/protocols/tested';
import { forPage, today } from '$lib/server/pages/page';
import { getModel } from '$lib/server/repositories/models';
import { listRuns } from '$lib/server/repositories/runs';

export async function load({ parent, url }) {
  const { crate } = await parent();
  const [hostId, modelId] = [url.searchParams.get('host'), url.searchParams.get('model')];
  const id = hostId ?? modelId ?? '';
  return forPage(async (db) => {
    const { spec } = await getModel(db, { crateId: crate.id, id });
    if (hostId ? spec.kind !== 'host' : spec.kind !== 'alternative')
      error(404, 'There is nothing of that kind to measure.');
    const [last] = await listRuns(db, { crateId: crate.id, ...(hostId ? { hostId } : { modelId: id }), limit: 1 });
    const known = prefill(null, null, last?.conditions ?? null);
    return {
      id,
      protocol: url.searchParams.get('protocol'),
      subject: spec.kind === 'host' ? testedHost(spec) : spec.kind === 'alternative' ? testedModel(spec) : null,
      kind: spec.kind,
      name: spec.kind === 'host' ? `Internal disk of ${spec.name}` : spec.name,
      known: spec.kind === 'host' && spec.memoryGB !== undefined ? { ...known, memoryGB: spec.memoryGB } : known,
      day: today()
    };
  });
}
