import { formFields } from '#core/parts/form/form-fields';
import type { Field } from '#core/parts/form/form';
import { KINDS, type Kind } from '#core/parts/kinds';
import { MODEL_SCHEMAS } from '#core/parts/model';

export function load() {
  return {
    fields: Object.fromEntries(KINDS.map((kind) => [kind, formFields(MODEL_SCHEMAS[kind])])) as Record<Kind, Field[]>
  };
}
