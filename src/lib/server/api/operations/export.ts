import { operation } from '../operation';
import { CRATE, inCrate, here } from './common';
import { z } from 'zod';
import { FILES } from '#core/tables/file-kind';
import { KINDS } from '#core/parts/kinds';
import { download } from '../download';
import { exportFile } from '../../transfer/export';

/** The operations at `…/export`, by their names in the OpenAPI document. */
export const exportOperations = {
  exportTable: operation({
    method: 'get',
    path: `${CRATE}/export`,
    summary: 'Parts of a kind, items or prices as CSV or JSON.',
    params: inCrate,
    query: z.object({
      what: z.enum(FILES),
      kind: z.enum(KINDS).optional(),
      format: z.enum(['csv', 'json']).default('csv'),
      rows: z.enum(['all', 'none']).default('all').describe('none: the headings alone, to be filled in')
    }),
    produces: 'text/csv',
    response: z.unknown(),
    handle: async ({ db, params, query }) => {
      const crate = await here(db, params.crateId);
      const type = query.format === 'csv' ? 'text/csv; charset=utf-8' : 'application/json';
      const what = query.what === 'models' ? `${query.kind ?? 'drive'}s` : query.what;
      const empty = query.rows === 'none';
      const text = await exportFile(db, { ...params, ...query, empty });
      return download(text, type, `${empty ? 'empty' : crate.slug}-${what}.${query.format}`);
    }
  })
};
