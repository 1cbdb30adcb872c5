import { error } from '@sveltejs/kit';
import { formFields } from '#core/parts/form/form-fields';
import { MODEL_SCHEMAS } from '#core/parts/model';
import { filtersIn, modelTableQuery } from '$lib/server/api/table-query';
import { forPage, toLastPage } from '$lib/server/pages/page';
import { filterPath, modelTable, FILTERS } from '$lib/server/repositories/model-table';
import { countModels } from '$lib/server/repositories/models';

const SIZE = 25;

export async function load({ parent, url, cookies }) {
  const { crate, kind } = await parent();
  const query = modelTableQuery.safeParse({ ...Object.fromEntries(url.searchParams), kind });
  if (!query.success) error(400, 'This address asks for something that the table does not have.');
  const { find = '', sort = 'name', down = false, page = 1, having, size = SIZE } = query.data;
  const filters = filtersIn(query.data);
  const shown = await forPage(async (db) => {
    const [table, counts] = await Promise.all([
      modelTable(db, { crateId: crate.id, kind, find, sort, down, page, size, having, filters }),
      countModels(db, crate.id)
    ]);
    return {
      ...table,
      counts,
      query: { find, sort, down, page, size, having: having ?? '', filters },
      filters: Object.keys(FILTERS[kind]).map((name) => ({ name, path: filterPath(name) })),
      fields: formFields(MODEL_SCHEMAS[kind]),
      hidden: (cookies.get(`columns-${kind}`) ?? '').split(',').filter(Boolean)
    };
  });
  toLastPage(url, { total: shown.total, page, size });
  return shown;
}
