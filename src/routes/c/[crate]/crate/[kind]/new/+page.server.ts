import { formFields } from '#core/parts/form/form-fields';
import { MODEL_SCHEMAS } from '#core/parts/model';

export async function load({ parent }) {
  const { kind } = await parent();
  return { fields: formFields(MODEL_SCHEMAS[kind]) };
}
