import { z } from 'zod';
import { name, text } from '../parts/form/field.ts';
import { formFields } from '../parts/form/form-fields.ts';
import type { Field } from '../parts/form/form.ts';
import { KINDS, type Kind } from '../parts/kinds.ts';
import { MODEL_SCHEMAS } from '../parts/model.ts';
import { quoteSchema } from '../parts/quote.ts';
import { unitSchema } from '../parts/item.ts';
import type { FileKind } from './file-kind.ts';
import { phrasesOf } from './phrases.ts';
import { columnsOf, type Column } from './table.ts';
import { usualHeadings } from './usual-headings.ts';

const kind = () => z.enum(KINDS).meta({ title: 'Kind' });

/** In files people name a part; ids mean nothing outside the program. */
const unitRow = unitSchema
  .omit({ id: true, modelId: true, buildId: true })
  .extend({ model: name().meta({ title: 'Part' }), kind: kind().optional(), build: text('Build', 20).optional() });
const quoteRow = quoteSchema
  .omit({ partId: true })
  .extend({ part: name().meta({ title: 'Part' }), kind: kind().optional() });

/**
 * Gives the fields of a row of a file.
 * @example fileFields('quotes').some(({ key }) => key === 'vendor') // true
 */
export function fileFields(what: FileKind, of?: Kind): Field[] {
  if (what === 'units') return formFields(unitRow);
  if (what === 'quotes') return formFields(quoteRow);
  return formFields(MODEL_SCHEMAS[of ?? 'drive']);
}

/**
 * Gives the columns that a file can have: one a field, and those that say several fields in one cell.
 * @example fileColumns('models', 'pad').some(({ path }) => path === 'said.size') // true
 */
export function fileColumns(what: FileKind, of?: Kind): Column[] {
  const usual = usualHeadings(what, of);
  return [
    ...columnsOf(fileFields(what, of)).map((column) => {
      const names = usual[column.path];
      return names ? { ...column, usual: names } : column;
    }),
    ...phrasesOf(what, of).map(({ path, title, headings }) => ({ path, title, required: false, usual: headings }))
  ];
}

/**
 * Gives the needed columns that a file does not have, with what a phrase of it says counted.
 * @example missingColumns('models', 'pad', ['name', 'said.size']).map(({ path }) => path) // ['thicknessMm']
 */
export function missingColumns(what: FileKind, of: Kind | undefined, used: readonly (string | null)[]): Column[] {
  const said = phrasesOf(what, of)
    .filter(({ path }) => used.includes(path))
    .flatMap(({ fills }) => fills);
  return fileColumns(what, of).filter(({ path, required }) => required && !used.includes(path) && !said.includes(path));
}

export type UnitRowSpec = z.infer<typeof unitRow>;
export type QuoteRowSpec = z.infer<typeof quoteRow>;
export const rowSchemas = { units: unitRow, quotes: quoteRow };
