import { z } from 'zod';
import type { UnitName } from '../../quantities/read.ts';
import type { Field } from './form.ts';

type Json = {
  type?: string;
  format?: string;
  title?: string;
  description?: string;
  unit?: UnitName;
  group?: string;
  first?: boolean;
  often?: boolean;
  percentTo?: string;
  labels?: Record<string, string>;
  enum?: (string | number)[];
  const?: unknown;
  minimum?: number;
  maximum?: number;
  maxLength?: number;
  properties?: Record<string, Json>;
  required?: string[];
  items?: Json;
  prefixItems?: Json[];
};

const LIST_ITEM: Record<string, string> = {
  ports: 'port',
  shared: 'controller or hub',
  components: 'chip',
  includedPads: 'pad',
  includedCables: 'cable',
  writeHosts: 'system',
  readHosts: 'system',
  morePlugs: 'plug'
};

const optionsOf = (schema: Json, labels: Record<string, string> | undefined) =>
  (schema.enum ?? []).map((value) => ({ value, label: labels?.[String(value)] ?? String(value) }));

/** What every field has, whatever its type. */
type Base = Pick<Field, 'key' | 'title' | 'required' | 'group' | 'first' | 'description'>;

function baseOf(key: string, schema: Json, required: boolean): Base {
  const { title = key, group, first, description } = schema;
  return {
    key,
    title,
    required,
    ...(group ? { group } : {}),
    ...(first ? { first } : {}),
    ...(description ? { description } : {})
  };
}

function arrayField(base: Base, { items = {}, labels }: Json): Field {
  if (items.enum) return { ...base, type: 'choices', options: optionsOf(items, labels ?? items.labels) };
  return {
    ...base,
    type: 'list',
    fields: objectFields(items),
    fixed: constantsOf(items),
    item: LIST_ITEM[base.key] ?? 'row'
  };
}

/** Texts longer than this get a field of several lines. */
const ONE_LINE = 1000;

const textField = (base: Base, { maxLength = 0, format }: Json): Field => ({
  ...base,
  type: 'text',
  maxLength: maxLength || 200,
  ...(format === 'date' ? { day: true } : {}),
  ...(maxLength > ONE_LINE ? { lines: true } : {})
});

const quantityField = (base: Base, { unit, minimum, maximum, type, often, percentTo }: Json): Field => ({
  ...base,
  type: 'quantity',
  unit: unit ?? '',
  min: minimum ?? -Infinity,
  max: maximum ?? Infinity,
  integer: type === 'integer',
  ...(often ? { often } : {}),
  ...(percentTo ? { percentTo } : {})
});

const MAKERS: Partial<Record<string, (base: Base, schema: Json) => Field>> = {
  array: arrayField,
  object: (base, schema) => ({ ...base, type: 'group', fields: objectFields(schema) }),
  boolean: (base) => ({ ...base, type: 'yes-no' }),
  string: textField,
  number: quantityField,
  integer: quantityField
};

/** Makes the field of one property; undefined for a constant, which nobody types. */
function fieldOf(key: string, schema: Json, required: boolean): Field | undefined {
  if (schema.const !== undefined) return undefined;
  const { unit, labels, prefixItems } = schema;
  const base = baseOf(key, schema, required);
  if (schema.enum) return { ...base, type: 'choice', options: optionsOf(schema, labels), ...(unit ? { unit } : {}) };
  if (prefixItems) {
    const ends = prefixItems.map((item, i) => fieldOf(String(i), item, true)).filter((f) => f !== undefined);
    return { ...base, type: 'group', fields: ends };
  }
  return MAKERS[schema.type ?? '']?.(base, schema);
}

/** What every row of a list holds without being asked: the kind of an included part. */
const constantsOf = (schema: Json): Record<string, unknown> =>
  Object.fromEntries(
    Object.entries(schema.properties ?? {})
      .filter(([, value]) => value.const !== undefined)
      .map(([key, value]) => [key, value.const])
  );

function objectFields(schema: Json): Field[] {
  const required = new Set(schema.required);
  return Object.entries(schema.properties ?? {})
    .filter(([key, value]) => key !== 'id' || value.title !== undefined)
    .map(([key, value]) => fieldOf(key, value, required.has(key)))
    .filter((field) => field !== undefined);
}

/**
 * Gives the form of a schema: titles, units, ranges and choices as the schema states them. An `id` is asked for only where it has a title: a port's short name.
 * @example formFields(cableSchema).some(({ key }) => key === 'lengthM') // true
 */
export function formFields(schema: z.ZodType): Field[] {
  return objectFields(z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as Json);
}
