import { operation } from '../operation';
import { z } from 'zod';
import { download } from '../download';
import { streamArchive } from '../../workers/archive';

/** The operations at `…/backup`, by their names in the OpenAPI document. */
export const backupOperations = {
  downloadBackup: operation({
    method: 'get',
    path: '/api/backup',
    summary: 'Everything in the database as one file, made while it is sent.',
    produces: 'application/gzip',
    response: z.unknown(),
    handle: async ({ at }) =>
      download(
        await streamArchive({ do: 'backup', at }),
        'application/gzip',
        `ash-crate-${at.slice(0, 19).replace(/[:T]/g, '-')}.jsonl.gz`
      )
  })
};
