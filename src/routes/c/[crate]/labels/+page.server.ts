import { itemPageQuery } from '$lib/server/api/table-query';
import { labelOf } from '$lib/server/pages/labels';
import { forPage, toLastPage } from '$lib/server/pages/page';
import { unitTable } from '$lib/server/repositories/unit-table';

/** Three sheets at once. */
const MOST = 120;

export async function load({ parent, url }) {
  const { crate } = await parent();
  const { ids, model, ...rest } = Object.fromEntries(url.searchParams);
  const asked = itemPageQuery.parse({ ...rest, ...(model ? { modelId: model } : {}) });
  const page = asked.page ?? 1;
  const shown = await forPage(async (db) => {
    const { rows, total } = await unitTable(db, {
      crateId: crate.id,
      ...asked,
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
