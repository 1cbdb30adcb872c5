import { untyped } from '../../../../tests/untyped';
import type { RequestEvent } from '@sveltejs/kit';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import { Problem } from '../problems/problem';
import { operation, serve } from './operation';

const echo = operation({
  method: 'post',
  path: '/api/echo',
  summary: 'Gives back what it gets.',
  body: z.strictObject({
    n: z.number().max(10),
    either: z
      .union([z.strictObject({ id: z.string() }), z.strictObject({ name: z.string(), deep: z.array(z.number()) })])
      .optional()
  }),
  query: z.object({ limit: z.coerce.number().int().max(5).optional() }),
  response: z.unknown(),
  status: 201,
  handle: async ({ body, query }) => ({ body, query })
});

function ask(init: RequestInit & { url?: string }, op = echo as Parameters<typeof serve>[0]): Promise<Response> {
  const url = new URL(init.url ?? 'http://127.0.0.1/api/echo');
  const request = new Request(url, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    ...init
  } as RequestInit);
  return serve(op)(untyped<RequestEvent>({ request, params: {}, url, cookies: { get: () => undefined } }));
}
const fields = async (answer: Response) =>
  ((await answer.json()) as { error: { fields: { path: string }[] } }).error.fields.map((f) => f.path);

beforeEach(() => vi.stubEnv('DATABASE_URL', 'mysql://u:p@127.0.0.1:1/none'));
afterEach(() => vi.unstubAllEnvs());

describe('one operation over HTTP', () => {
  it('parses, does and answers with its own status', async () => {
    const answer = await ask({ body: '{"n":3}', url: 'http://127.0.0.1/api/echo?limit=2' });
    expect(answer.status).toBe(201);
    expect(await answer.json()).toEqual({ body: { n: 3 }, query: { limit: 2 } });
  });

  it.each([
    ['text/plain', 415],
    ['application/x-www-form-urlencoded', 415],
    ['', 415],
    ['application/json; charset=utf-8', 201],
    ['APPLICATION/JSON', 201]
  ])('content type “%s” gives %d', async (type, status) => {
    expect((await ask({ body: '{"n":1}', headers: type ? { 'content-type': type } : {} })).status).toBe(status);
  });

  it.each([
    ['not JSON', '{"n":'],
    ['nothing', ''],
    ['a list', '[]'],
    ['null', 'null'],
    ['a bare number', '3']
  ])('%s is 400', async (_name, body) => expect((await ask({ body })).status).toBe(400));

  it('names the path of what is wrong, of a query too', async () => {
    expect(await fields(await ask({ body: '{"n":11}' }))).toEqual(['n']);
    expect(await fields(await ask({ body: '{"n":1,"more":1}' }))).toEqual(['']);
    expect(await fields(await ask({ body: '{"n":1}', url: 'http://127.0.0.1/api/echo?limit=9' }))).toEqual(['limit']);
  });

  it('where a value may have two shapes, tells what is wrong with the one in full', async () => {
    expect(await fields(await ask({ body: '{"n":1,"either":{"name":"x","deep":[1,"two"]}}' }))).toEqual([
      'either.deep.1'
    ]);
    expect(await fields(await ask({ body: '{"n":1,"either":{"id":5}}' }))).toContain('either.name');
  });

  it('answers a body that is too large at once, without a length in its head too, and reads on so that the answer arrives', async () => {
    let sent = 0;
    let left = false;
    const endless = new ReadableStream<Uint8Array>({
      cancel: () => void (left = true),
      pull(controller) {
        sent += 100_000;
        controller.enqueue(new Uint8Array(100_000).fill(32));
      }
    });
    const answer = await ask({ body: endless, duplex: 'half' } as RequestInit);
    expect(answer.status).toBe(413);
    expect(sent).toBeLessThan(2_500_000);
    // not for ever: after 64 MB more it is cut off
    await expect.poll(() => left).toBe(true);
    expect(sent).toBeLessThan(70_000_000);
  });

  it('maps expected failures, and tells nothing of unexpected ones', async () => {
    const failing = (error: unknown) =>
      operation({
        method: 'get',
        path: '/x',
        summary: 'Fails.',
        response: z.unknown(),
        handle: () => Promise.reject(error)
      });
    const conflict = await ask({}, failing(new Problem('conflict', 'Changed.', [], { current: 1 })));
    expect([conflict.status, await conflict.json()]).toEqual([
      409,
      { error: { code: 'conflict', message: 'Changed.', fields: [], details: { current: 1 } } }
    ]);

    const away = await ask({}, failing(Object.assign(new Error('connect'), { code: 'ECONNREFUSED' })));
    expect(away.status).toBe(503);

    const log = vi.spyOn(console, 'error').mockImplementation(() => {});
    const broken = await ask({}, failing(new Error('secret at /work/file.ts:3')));
    expect(broken.status).toBe(500);
    expect(await broken.text()).not.toContain('secret');
    expect(log).toHaveBeenCalledOnce();
    log.mockRestore();
  });
});
