import { z } from 'zod';
import { id, text } from '#core/parts/form/field';
import { KINDS, type Kind } from '#core/parts/kinds';
import { UNIT_STATES } from '#core/parts/item';
import { PROTOCOL_IDS } from '#core/results/protocol-ids';
import { RUN_SORTS } from '../repositories/runs';
import { FILTERS, HAVING, sortsOf } from '../repositories/model-table';
import { BUILD_SORTS, TONES } from '../repositories/judgements';
import { UNIT_SORTS } from '../repositories/unit-table';

const yes = z.enum(['yes', 'no']).transform((word) => word === 'yes');
const pageQuery = {
  find: z.string().max(200).optional(),
  down: yes.optional(),
  page: z.coerce.number().int().min(1).max(100_000).optional(),
  size: z.coerce.number().int().min(1).max(200).optional()
};
const filterNames = [...new Set(Object.values(FILTERS).flatMap((filters) => Object.keys(filters)))];

/** What an address asks that makes no sense is left out: an odd one shows the list as it begins. */
const lenient = <S extends Record<string, z.ZodType>>(shape: S) =>
  z.object(
    Object.fromEntries(Object.entries(shape).map(([name, field]) => [name, field.catch(undefined)])) as {
      [K in keyof S]: z.ZodCatch<S[K]>;
    }
  );

/** What the address of a table of parts holds: the page and the API read the same. */
const modelFields = {
  ...pageQuery,
  sort: z.string().max(40).optional(),
  having: z.enum(HAVING).optional(),
  ...Object.fromEntries(filterNames.map((name) => [name, z.string().max(40).optional()]))
};
export const modelTableQuery = z.object({ kind: z.enum(KINDS), ...modelFields });
/** What the address of a page of parts holds; a column that this kind does not have is left out. */
export const partPageQuery = (kind: Kind) =>
  lenient({
    ...modelFields,
    sort: z
      .string()
      .refine((sort) => sortsOf(kind).includes(sort))
      .optional()
  });
/** The filters among the rest of a query. */
export const filtersIn = (query: Record<string, unknown>): Record<string, string> =>
  Object.fromEntries(
    filterNames.flatMap((name) => (typeof query[name] === 'string' && query[name] !== '' ? [[name, query[name]]] : []))
  );

/** What the address of the list of builds holds. */
export const buildTableQuery = lenient({
  ...pageQuery,
  sort: z.enum(BUILD_SORTS).optional(),
  next: z.enum(TONES).optional()
});

/** What the address of the table of prices holds. */
export const priceTableQuery = lenient({
  ...pageQuery,
  sort: z.enum(['name', 'price', 'age', 'target']).optional()
});

/** What the address of a list holds that is only looked through: jobs, the history, a log. */
export const plainTableQuery = lenient(pageQuery);

/** What the address of the table of results holds. */
export const runTableQuery = lenient({
  ...pageQuery,
  protocol: z.enum(PROTOCOL_IDS).optional(),
  sort: z.enum(RUN_SORTS).optional(),
  desk: z.string().max(400).optional()
});

const unitFields = {
  ...pageQuery,
  sort: z.enum(UNIT_SORTS).optional(),
  state: z.enum(UNIT_STATES).optional(),
  kind: z.enum(KINDS).optional(),
  out: yes.optional(),
  modelId: id().optional(),
  buildId: id().optional(),
  tag: text('Tag', 20).optional()
};
/** What the API takes for the table of items, and what the address of a page holds. */
export const unitTableQuery = z.object(unitFields);
export const itemPageQuery = lenient(unitFields);
