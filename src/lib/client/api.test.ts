import { afterEach, describe, expect, it, vi } from 'vitest';
import { send } from './api';

const answer = (status: number, body: unknown) =>
  vi.stubGlobal(
    'fetch',
    vi.fn(async () => new Response(typeof body === 'string' ? body : JSON.stringify(body), { status }))
  );
afterEach(() => vi.unstubAllGlobals());

describe('sending to the server', () => {
  it('gives the data of a success', async () => {
    answer(201, { id: 'x', version: 1, group: 'g' });
    expect(await send('POST', '/api/x', {})).toEqual({ ok: true, data: { id: 'x', version: 1, group: 'g' } });
    expect(fetch).toHaveBeenCalledWith(
      '/api/x',
      expect.objectContaining({ method: 'POST', body: '{}', headers: { 'content-type': 'application/json' } })
    );
  });

  it('gives a refusal with its fields and details', async () => {
    answer(400, {
      error: {
        code: 'implausible',
        message: 'Too fast.',
        fields: [{ path: 'results.readMBps', message: 'm' }],
        details: { alarms: [] }
      }
    });
    expect(await send('PUT', '/api/x', {})).toMatchObject({
      ok: false,
      failure: { status: 400, code: 'implausible', fields: [{ path: 'results.readMBps' }], details: { alarms: [] } }
    });
  });

  it.each([
    [502, '<html>bad gateway</html>'],
    [500, {}],
    [404, 'null']
  ])('an answer without a reason (%d) still gives a sentence', async (status, body) => {
    answer(status, body);
    const result = await send('DELETE', '/api/x', {});
    expect(!result.ok && result.failure.message).toBe(`The server answered ${status} without a reason.`);
  });

  it('no answer at all is told as such; nothing is thrown', async () => {
    vi.stubGlobal(
      'fetch',
      vi.fn(() => Promise.reject(new TypeError('network')))
    );
    expect(await send('POST', '/api/x', {})).toMatchObject({ ok: false, failure: { status: 0, code: 'offline' } });
  });
});
