import { runTableQuery } from '$lib/server/api/table-query';
import { database } from '$lib/server/db';
import { forPage, today, toLastPage } from '$lib/server/pages/page';
import { queueable } from '$lib/server/planning/overview';
import { judgeInBackground } from '$lib/server/tasks/judge-crate';
import { findBuilds } from '$lib/server/repositories/builds';
import { listNames } from '$lib/server/repositories/models';
import { runTable } from '$lib/server/repositories/runs';

const SIZE = 50;
/** So many builds are offered for an evening; others are looked for. */
const ON_THE_DESK = 30;
/** So many computers and ready-made things are offered to be measured. */
const OFFERED = 60;

export async function load({ parent, url }) {
  const { crate } = await parent();
  const {
    protocol,
    find = '',
    sort = 'date',
    page = 1,
    size = SIZE,
    desk = ''
  } = runTableQuery.parse(Object.fromEntries(url.searchParams));
  const asked = desk.split(',').filter(Boolean);
  const shown = await forPage(async (db) => {
    const [table, others, hosts, readyMade] = await Promise.all([
      runTable(db, { crateId: crate.id, protocol, find, sort, page, size }),
      findBuilds(db, { crateId: crate.id, limit: ON_THE_DESK, inUse: true }),
      listNames(db, { crateId: crate.id, kind: 'host', limit: OFFERED }),
      listNames(db, { crateId: crate.id, kind: 'alternative', limit: OFFERED })
    ]);
    const { builds, due } = await queueable(db, {
      crateId: crate.id,
      today: today(),
      tags: asked,
      others: ON_THE_DESK
    });
    return { ...table, others, hosts, readyMade, queueable: builds, due };
  });
  judgeInBackground(database(), crate.id, shown.due);
  toLastPage(url, { total: shown.total, page, size });
  return { ...shown, desk: asked, query: { protocol, find, sort, page, size } };
}
