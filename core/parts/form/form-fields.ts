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

function fieldOf(key: string, schema: Json, required: boolean): Field | undefined {
  if (schema.const !== undefined) return undefined;
  const { title = key, group, first, description, unit, labels } = schema;
  const base = {
    key,
    title,
    required,
    ...(group ? { group } : {}),
    ...(first ? { first } : {}),
    ...(description ? { description } : {})
  };
  if (schema.enum) return { ...base, type: 'choice', options: optionsOf(schema, labels), ...(unit ? { unit } : {}) };
  if (schema.prefixItems) {
    const ends = schema.prefixItems.map((item, i) => fieldOf(String(i), item, true)).filter((f) => f !== undefined);
    return { ...base, type: 'group', fields: ends };
  }
  switch (schema.type) {
    case 'array':
      if (schema.items?.enum)
        return { ...base, type: 'choices', options: optionsOf(schema.items, labels ?? schema.items.labels) };
      return {
        ...base,
        type: 'list',
        fields: objectFields(schema.items ?? {}),
        fixed: constantsOf(schema.items ?? {}),
        item: LIST_ITEM[key] ?? 'row'
      };
    case 'object':
      return { ...base, type: 'group', fields: objectFields(schema) };
    case 'boolean':
      return { ...base, type: 'yes-no' };
    case 'string':
      return {
        ...base,
        type: 'text',
        maxLength: schema.maxLength ?? 200,
        ...(schema.format === 'date' ? { day: true } : {}),
        ...((schema.maxLength ?? 0) > 1000 ? { lines: true } : {})
      };
    case 'number':
    case 'integer':
      return {
        ...base,
        type: 'quantity',
        unit: unit ?? '',
        min: schema.minimum ?? -Infinity,
        max: schema.maximum ?? Infinity,
        integer: schema.type === 'integer'
      };
    default:
      return undefined;
  }
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

/** The form of a schema: titles, units, ranges and choices as the schema states them. An `id` is asked for only where it has a title: a port's short name. */
export function formFields(schema: z.ZodType): Field[] {
  return objectFields(z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as Json);
}
