import type { Field } from '#core/parts/form/form';

/** The field at a path such as `flash.cell`. */
export function fieldAt(fields: readonly Field[], path: string): Field | undefined {
  const [key, ...rest] = path.split('.');
  const field = fields.find((f) => f.key === key);
  return rest.length > 0 && field?.type === 'group' ? fieldAt(field.fields, rest.join('.')) : field;
}

/** What a filter by this field offers. */
export function choicesOf(
  fields: readonly Field[],
  path: string
): { title: string; options: { value: string; label: string }[] } {
  const field = fieldAt(fields, path);
  const source = field?.type === 'group' ? field.fields[0] : field;
  const options =
    source && 'options' in source ? source.options.map(({ value, label }) => ({ value: String(value), label })) : [];
  return { title: field?.title ?? path, options };
}

/** Fields that can be set on many parts at once: single values, by their path, with the groups' titles before them. */
export function editablePaths(
  fields: readonly Field[],
  prefix = '',
  heading = ''
): { path: string; title: string; field: Field }[] {
  return fields.flatMap((field) => {
    const path = `${prefix}${field.key}`;
    const title = heading ? `${heading}: ${field.title}` : field.title;
    if (field.type === 'group') return editablePaths(field.fields, `${path}.`, field.title);
    return field.type === 'list' || path === 'name' ? [] : [{ path, title, field }];
  });
}
