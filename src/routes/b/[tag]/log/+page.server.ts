import { forPage } from '$lib/server/pages/page';
import { listEvents } from '$lib/server/repositories/events';

export async function load({ parent }) {
  const { build, runs } = await parent();
  return {
    events: await forPage((db) =>
      listEvents(db, {
        crateId: build.crateId,
        subjectIds: [build.id, ...runs.map((run) => run.id)],
        tag: build.tag,
        limit: 500
      })
    )
  };
}
