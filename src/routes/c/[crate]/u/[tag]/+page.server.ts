import { error } from '@sveltejs/kit';
import { forPage, today } from '$lib/server/pages/page';
import { labelOf } from '$lib/server/pages/labels';
import { listAttachments } from '$lib/server/repositories/attachments';
import { findBuilds } from '$lib/server/repositories/builds';
import { listHistory } from '$lib/server/repositories/events';
import { unitTable } from '$lib/server/repositories/unit-table';

export async function load({ parent, params, url }) {
  const { crate } = await parent();
  return forPage(async (db) => {
    const { rows } = await unitTable(db, { crateId: crate.id, tag: params.tag, size: 1 });
    const [row] = rows;
    if (!row) error(404, `There is no item with the tag ${params.tag} here.`);
    const attachments = await listAttachments(db, { crateId: crate.id, subjectId: row.id });
    const [history, builds] = await Promise.all([
      listHistory(db, { crateId: crate.id, subjectIds: [row.id, ...attachments.map((a) => a.id)] }),
      findBuilds(db, { crateId: crate.id, limit: 100 })
    ]);
    return {
      row,
      history,
      attachments,
      builds,
      label: await labelOf(row, crate.slug, url.origin),
      today: today()
    };
  });
}
