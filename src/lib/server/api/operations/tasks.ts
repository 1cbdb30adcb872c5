import { operation } from '../operation';
import { task } from './common';
import { taskState, cancelTask, watchTask } from '../../tasks/tasks';
import { z } from 'zod';
import { id } from '#core/parts/form/field';

const inTask = z.object({ taskId: id() });

/** The operations at `…/tasks`, by their names in the OpenAPI document. */
export const taskOperations = {
  getTask: operation({
    method: 'get',
    path: '/api/tasks/{taskId}',
    summary: 'How far a long piece of work is.',
    params: inTask,
    response: task,
    handle: ({ db, params }) => taskState(db, params.taskId)
  }),

  cancel: operation({
    method: 'post',
    path: '/api/tasks/{taskId}/cancel',
    summary: 'Ask a piece of work to stop; nothing of it stays.',
    params: inTask,
    body: z.strictObject({}),
    response: task,
    handle: ({ db, params }) => cancelTask(db, params.taskId)
  }),

  taskEvents: operation({
    method: 'get',
    path: '/api/tasks/{taskId}/events',
    summary: 'Server-sent events with the state of a piece of work, until it ends.',
    params: inTask,
    produces: 'text/event-stream',
    response: task,
    handle: async ({ db, params, request }) => {
      await taskState(db, params.taskId);
      const encoder = new TextEncoder();
      let stop = () => {};
      const stream = new ReadableStream<Uint8Array>({
        start(controller) {
          stop = watchTask(db, params.taskId, (state) => {
            try {
              controller.enqueue(encoder.encode(`data: ${JSON.stringify(state)}\n\n`));
              if (state.state !== 'running') controller.close();
            } catch {
              stop(); // the reader has gone
            }
          });
          request.signal.addEventListener('abort', () => stop());
        },
        cancel: () => stop()
      });
      return new Response(stream, {
        headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-cache, no-transform' }
      });
    }
  })
};
