import { error } from '@sveltejs/kit';
import { unitTableQuery } from '$lib/server/api/table-query';
import { labelOf } from '$lib/server/pages/labels';
import { forPage, toLastPage } from '$lib/server/pages/page';
import { unitTable } from '$lib/server/repositories/unit-table';

/** Three sheets at once. */
const MOST = 120;

export async function load({ parent, url }) {
  const { crate } = await parent();
  const { ids, model, ...rest } = Object.fromEntries(url.searchParams);
  const parsed = unitTableQuery.safeParse({ ...rest, ...(model ? { modelId: model } : {}) });
  if (!parsed.success) error(400, 'This address asks for items in a way that is not known.');
  const page = parsed.data.page ?? 1;
  const shown = await forPage(async (db) => {
    const { rows, total } = await unitTable(db, {
      crateId: crate.id,
      ...parsed.data,
      page,
      size: MOST,
      ...(ids ? { ids: ids.split(',').slice(0, MOST) } : {})
    });
    return {
      labels: await Promise.all(rows.map((row) => labelOf(row, crate.slug, url.origin))),
      total,
      page,
      size: MOST
    };
  });
  toLastPage(url, shown);
  return shown;
}
