import { z } from 'zod';

/** Takes what stands around a schema away: optional, default, a refinement, a transformation. */
function bare(schema: unknown): z.core.$ZodTypeDef & Record<string, unknown> {
  let def = (schema as z.core.$ZodType)._zod.def as z.core.$ZodTypeDef & Record<string, unknown>;
  for (let depth = 0; depth < 20; depth++) {
    const inner = def.innerType ?? def.in;
    if (!inner) break;
    def = (inner as z.core.$ZodType)._zod.def as typeof def;
  }
  return def;
}

/** The schemas that a step of a path leads to. */
function below(schema: unknown, key: string): unknown[] {
  const def = bare(schema);
  if (def.type === 'object') return [(def.shape as Record<string, unknown>)[key]].filter(Boolean);
  if (def.type === 'array') return [def.element];
  if (def.type === 'tuple') return [(def.items as unknown[])[Number(key)]].filter(Boolean);
  if (def.type === 'record') return [def.valueType];
  if (def.type === 'union') return (def.options as unknown[]).flatMap((option) => below(option, key));
  return [];
}

const titleOf = (schema: unknown): string | undefined => {
  for (let at = schema as z.core.$ZodType | undefined, depth = 0; at && depth < 20; depth++) {
    const title = z.globalRegistry.get(at)?.title;
    if (title) return title;
    at = (at._zod.def as { innerType?: z.core.$ZodType }).innerType;
  }
  return undefined;
};

/** Name of a key without its unit, apart: `dueBack` and `m2LengthsMm` are “due back” and “m2 lengths”. */
const apart = (key: string): string =>
  key
    .replace(/(?:MBps|Gbps|Mm|TB|GB|TBW)$/, '')
    .replace(/([a-z\d])([A-Z])/g, '$1 $2')
    .toLowerCase();

/**
 * Gives what a person calls a field, by its path: the title that its form shows, else the words of its name.
 * @param schema of the whole input, where there is one
 * @example labelAt(undefined, 'spec.dueBack') // 'Due back'
 */
export function labelAt(schema: unknown, path: string): string {
  const keys = path.split('.').filter((key) => key !== '');
  let at: unknown[] = schema ? [schema] : [];
  let title: string | undefined;
  for (const key of keys) {
    at = at.flatMap((one) => below(one, key));
    title = at.map(titleOf).find(Boolean) ?? (/^\d+$/.test(key) ? title : undefined);
  }
  const last = keys.filter((key) => !/^\d+$/.test(key)).at(-1);
  if (title) return title;
  const words = last === undefined ? 'The input' : apart(last);
  return `${words.charAt(0).toUpperCase()}${words.slice(1)}`;
}

const amount = (n: unknown) => String(n);

/** Says that something is too much or too little: of characters, of entries, of a number. */
function limitIn(origin: string, limit: number | bigint, which: 'most' | 'least'): string {
  const n = amount(limit);
  if (origin === 'string')
    return which === 'least' && n === '1' ? 'must not be empty' : `must have at ${which} ${n} characters`;
  if (origin === 'array' || origin === 'set') return `must have at ${which} ${n} ${n === '1' ? 'entry' : 'entries'}`;
  return `must be at ${which} ${n}`;
}

/** Says in words what is wrong with a value; what a schema says itself is said as it is. */
export function plainIssue(issue: z.core.$ZodIssue): string {
  switch (issue.code) {
    case 'too_big':
      return limitIn(issue.origin, issue.maximum, 'most');
    case 'too_small':
      return limitIn(issue.origin, issue.minimum, 'least');
    case 'invalid_value':
      return `must be one of ${issue.values.map(amount).join(', ')}`;
    case 'unrecognized_keys':
      return `holds what does not belong there: ${issue.keys.map((key) => `“${key.slice(0, 60)}”`).join(', ')}`;
    case 'invalid_type':
      // the value itself is not kept in an issue, only its type in words
      return /received undefined$/.test(issue.message)
        ? 'is missing'
        : `must be ${WORD[issue.expected] ?? `a ${issue.expected}`}`;
    default:
      return issue.message;
  }
}

const WORD: Readonly<Record<string, string>> = {
  array: 'a list',
  object: 'a group of fields',
  record: 'a group of fields',
  string: 'a text',
  boolean: 'yes or no',
  int: 'a whole number',
  number: 'a number'
};
