import { z } from 'zod';
import { attachedReportSchema } from '#core/format/attached';
import { SYSTEMS } from '#core/listing/device';
import { id } from '#core/parts/form/field';
import { diskSource } from '../../planning/formatting';
import { operation } from '../operation';

const query = z.strictObject({
  buildId: id()
    .optional()
    .describe('whose computer: this machine where it says “Ash Crate runs here”, else the stand-in'),
  step: z
    .string()
    .regex(/^\d{1,4}$/, 'must be a whole number')
    .optional()
    .describe('where in its script the stand-in stands'),
  system: z.enum(SYSTEMS).optional().describe('in whose form the stand-in lists')
});
const stepOf = (step: string | undefined): number | undefined => (step === undefined ? undefined : Number(step));

/** The operations at `…/disks`, by their names in the OpenAPI document. */
export const diskOperations = {
  listDisks: operation({
    method: 'get',
    path: '/api/disks',
    summary: 'Disks that are attached now, read without rights; or those of a stand-in, which says so.',
    query,
    response: attachedReportSchema,
    handle: async ({ db, query: { step, ...of }, at }) => (await diskSource(db, { ...of, step: stepOf(step) })).list(at)
  }),

  diskEvents: operation({
    method: 'get',
    path: '/api/disks/events',
    summary: 'Server-sent events: the attached disks whenever one was plugged or pulled.',
    query,
    produces: 'text/event-stream',
    response: attachedReportSchema,
    handle: async ({ db, query: { step, ...of }, request }) => {
      const source = await diskSource(db, { ...of, step: stepOf(step) });
      const encoder = new TextEncoder();
      const gone = new AbortController();
      request.signal.addEventListener('abort', () => gone.abort());
      const stream = new ReadableStream<Uint8Array>({
        start(controller) {
          const send = (report: unknown) => {
            try {
              controller.enqueue(encoder.encode(`data: ${JSON.stringify(report)}\n\n`));
            } catch {
              gone.abort(); // the reader has gone
            }
          };
          void source.watch(send, gone.signal).catch(() => gone.abort());
        },
        cancel: () => gone.abort()
      });
      return new Response(stream, {
        headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-cache, no-transform' }
      });
    }
  })
};
