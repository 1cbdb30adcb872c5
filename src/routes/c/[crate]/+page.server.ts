import { database } from '$lib/server/db';
import { forPage, today } from '$lib/server/pages/page';
import { todayPage } from '$lib/server/planning/overview';
import { countModels } from '$lib/server/repositories/models';
import { judgeInBackground } from '$lib/server/tasks/judge-crate';

export async function load({ parent }) {
  const { crate } = await parent();
  const [shown, parts] = await forPage((db) =>
    Promise.all([todayPage(db, { crateId: crate.id, today: today() }), countModels(db, crate.id)])
  );
  judgeInBackground(database(), crate.id, shown.due);
  return { ...shown, parts };
}
