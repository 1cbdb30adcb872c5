import type { createBuild } from '../src/lib/server/repositories/builds';
import { plan } from '../core/plan/plan';
import { anInput } from './parts';

/** A build to store: the ids of its choice name parts that need not be in any crate. */
export function planned(name = 'Bench build'): Parameters<typeof createBuild>[1]['build'] {
  const snapshot = anInput();
  const part = (n: number) => `01ARZ3NDEKTSV4RRFFQ69G5F${String(n).padStart(2, '0')}`;
  return {
    name,
    stage: 'planned',
    choice: { hostId: part(1), portId: snapshot.portId, enclosureId: part(2), driveId: part(3) },
    snapshot,
    report: plan(snapshot, { workings: false })
  };
}
