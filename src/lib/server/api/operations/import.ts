import { operation } from '../operation';
import { CRATE, inCrate, task } from './common';
import { planImport, runImport } from '../../transfer/import';
import { importRequestSchema } from '../../transfer/import-request';
import { z } from 'zod';
import { fileColumns } from '#core/tables/kinds-of-table';
import { startTask } from '../../tasks/tasks';

const planned = z.strictObject({
  row: z.number(),
  outcome: z.enum(['new', 'changed', 'same', 'wrong']),
  name: z.string(),
  cells: z.record(z.string(), z.string()),
  errors: z.record(z.string(), z.string())
});

const counts = z.strictObject({ new: z.number(), changed: z.number(), same: z.number(), wrong: z.number() });

const IMPORT_LIMIT = 48_000_000;

/** Rows that a preview shows; wrong ones come first. */
const SHOWN = 200;

/** The operations at `…/import`, by their names in the OpenAPI document. */
export const importOperations = {
  previewImport: operation({
    method: 'post',
    path: `${CRATE}/import/preview`,
    summary: 'What an import would do, row by row, without doing it.',
    params: inCrate,
    bodyLimit: IMPORT_LIMIT,
    body: importRequestSchema,
    response: z.strictObject({
      headings: z.array(z.string()),
      mapping: z.array(z.string().nullable()),
      missing: z.array(z.string()),
      columns: z.array(
        z.strictObject({
          path: z.string(),
          title: z.string(),
          required: z.boolean(),
          choices: z.array(z.string()).optional()
        })
      ),
      counts,
      rows: z.array(planned)
    }),
    handle: async ({ db, params, body }) => {
      const { rows, ...plan } = await planImport(db, params.crateId, body);
      // A row that was mended stays where it stood while it was wrong.
      const mended = new Set(body.mended?.map(({ row }) => row));
      const isFirst = (r: { row: number; outcome: string }) => r.outcome === 'wrong' || mended.has(r.row);
      const wrongFirst = [...rows.filter(isFirst), ...rows.filter((r) => !isFirst(r))];
      return {
        ...plan,
        columns: fileColumns(body.what, body.kind ?? 'drive').map(({ path, title, required, choices }) => ({
          path,
          title,
          required,
          ...(choices ? { choices: [...choices] } : {})
        })),
        rows: wrongFirst.slice(0, SHOWN).map(({ write: _write, ...row }) => row)
      };
    }
  }),

  startImport: operation({
    method: 'post',
    path: `${CRATE}/import`,
    summary: 'Import a file, all of it or nothing; gives the task that does it.',
    params: inCrate,
    bodyLimit: IMPORT_LIMIT,
    body: importRequestSchema,
    response: task,
    status: 202,
    handle: ({ db, params, body, by, at }) =>
      startTask(db, 'Import', (work) => runImport(db, { ...params, request: body, by, at }, work))
  })
};
