import { error } from '@sveltejs/kit';
import { forPage, today } from '$lib/server/page';
import { labelOf } from '$lib/server/labels';
import { listBuilds } from '$lib/server/repositories/builds';
import { listHistory } from '$lib/server/repositories/events';
import { unitTable } from '$lib/server/repositories/unit-table';

export async function load({ parent, params, url }) {
  const { crate } = await parent();
  return forPage(async (db) => {
    const { rows } = await unitTable(db, { crateId: crate.id, tag: params.tag, size: 1 });
    const [row] = rows;
    if (!row) error(404, `There is no unit with the tag ${params.tag} here.`);
    const [history, builds] = await Promise.all([
      listHistory(db, { crateId: crate.id, subjectIds: [row.id] }),
      listBuilds(db, crate.id)
    ]);
    return {
      row,
      history,
      builds: builds.map(({ id, tag, name }) => ({ id, tag, name })),
      label: await labelOf(row, crate.slug, url.origin),
      today: today()
    };
  });
}
