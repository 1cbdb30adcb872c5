import { formFields } from '#core/parts/form/form-fields';
import { MODEL_SCHEMAS } from '#core/parts/model';
import { forPage } from '$lib/server/pages/page';
import { countBuilds } from '$lib/server/repositories/builds';
import { countModels } from '$lib/server/repositories/models';

export async function load({ parent }) {
  const { crate, kind } = await parent();
  const [counts, builds] = await forPage((db) => Promise.all([countModels(db, crate.id), countBuilds(db, crate.id)]));
  return { fields: formFields(MODEL_SCHEMAS[kind]), counts, builds };
}
