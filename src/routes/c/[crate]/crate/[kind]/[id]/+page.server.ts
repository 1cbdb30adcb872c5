import { error } from '@sveltejs/kit';
import { formFields } from '#core/parts/form-fields';
import { MODEL_SCHEMAS } from '#core/parts/model';
import { forPage } from '$lib/server/page';
import { getModel } from '$lib/server/repositories/models';
import { listQuotes } from '$lib/server/repositories/quotes';
import { listUnits } from '$lib/server/repositories/units';

export async function load({ parent, params }) {
  const { crate, kind } = await parent();
  return forPage(async (db) => {
    const model = await getModel(db, { crateId: crate.id, id: params.id });
    if (model.spec.kind !== kind) error(404, `This part is no ${kind}.`);
    const [units, quotes] = await Promise.all([
      listUnits(db, { crateId: crate.id, modelId: params.id }),
      listQuotes(db, { crateId: crate.id, partIds: [params.id] })
    ]);
    return { model, units, quotes, fields: formFields(MODEL_SCHEMAS[kind]) };
  });
}
