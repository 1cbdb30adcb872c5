import { formFields } from '#core/parts/form/form-fields';
import { MODEL_SCHEMAS } from '#core/parts/model';
import { filtersIn, partPageQuery } from '$lib/server/api/table-query';
import { forPage, toLastPage } from '$lib/server/pages/page';
import { filterPath, modelTable, FILTERS } from '$lib/server/repositories/model-table';
import { countModels } from '$lib/server/repositories/models';

const SIZE = 25;

export async function load({ parent, url, cookies }) {
  const { crate, kind } = await parent();
  const asked = partPageQuery(kind).parse(Object.fromEntries(url.searchParams));
  const { find = '', sort = 'name', down = false, page = 1, having, size = SIZE } = asked;
  const filters = Object.fromEntries(
    Object.entries(filtersIn(asked)).filter(([name]) => Object.hasOwn(FILTERS[kind], name))
  );
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
