import { ARCHIVES, onUpload } from '../on-upload';
import { operation } from '../operation';
import { WRAPPED_LIMIT, CONFIRM } from '../../repositories/archive/lines';
import { z } from 'zod';
import { task } from './common';
import { refuse } from '../../problems/problem';
import { safetyCopyPath } from '../../transfer/safety-copy';

/** The operations at `…/restore`, by their names in the OpenAPI document. */
export const restoreOperations = {
  restore: operation({
    method: 'post',
    path: '/api/restore',
    summary:
      'Put a backup in the place of everything; a copy of what is there to the last write is kept in the data folder first. As application/gzip of any size, with ?confirm=replace everything; or as JSON.',
    bodyLimit: WRAPPED_LIMIT,
    streams: ARCHIVES,
    query: z.object({ confirm: z.string().max(40).optional() }),
    body: z.strictObject({ content: z.base64(), confirm: z.literal(CONFIRM) }),
    response: task,
    status: 202,
    handle: async ({ db, query, upload: kept, at }) => {
      const upload = kept!;
      const wrapped = upload.type === 'application/json';
      if (!wrapped && query.confirm !== CONFIRM) {
        await upload.drop();
        refuse([{ path: 'confirm', message: `must be “${CONFIRM}”` }]);
      }
      const safetyCopy = await safetyCopyPath(at);
      return onUpload(db, 'Restore', upload, (taskId) => ({
        do: 'restore',
        path: upload.path,
        wrapped,
        safetyCopy,
        at,
        taskId
      }));
    }
  })
};
