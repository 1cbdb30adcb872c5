import { fitLogs } from '#core/temperature-logs/compare';
import { forPage } from '$lib/server/pages/page';
import { windowLibrary } from '$lib/server/planning/window';
import { getModel } from '$lib/server/repositories/models';
import { listObservations, logsOfEnclosure } from '$lib/server/repositories/observations';
import { Problem } from '$lib/server/problems/problem';

/** So many other cases can be laid beside its own. */
const CASES = 60;

export async function load({ parent }) {
  const { build } = await parent();
  const { crateId, choice } = build;
  return forPage(async (db) => {
    /** A part may have left the crate since; then it cannot be changed, and everything else still works. */
    const versionOf = async (id: string) => {
      try {
        return (await getModel(db, { crateId, id })).version;
      } catch (error) {
        if (error instanceof Problem && error.code === 'not-found') return null;
        throw error;
      }
    };
    const [{ library }, observations, logs, drive, enclosure] = await Promise.all([
      windowLibrary(db, crateId, { choices: [choice], sizes: { enclosure: CASES } }),
      listObservations(db, { crateId, buildId: build.id }),
      logsOfEnclosure(db, { crateId, enclosureId: choice.enclosureId }),
      versionOf(choice.driveId),
      versionOf(choice.enclosureId)
    ]);
    return {
      library,
      observations,
      versions: { drive, enclosure },
      logs: { count: logs.length, tags: [...new Set(logs.map(({ tag }) => tag))] },
      fit: fitLogs(logs)
    };
  });
}
