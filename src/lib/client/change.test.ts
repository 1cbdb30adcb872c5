import { beforeEach, describe, expect, it, vi } from 'vitest';
import { notices } from '$lib/ui/frame/notices.svelte';

const went = vi.hoisted(() => [] as string[]);
vi.mock('$app/navigation', () => ({
  goto: (to: string) => Promise.resolve(void went.push(to)),
  invalidateAll: () => Promise.resolve(void went.push('loaded again'))
}));
const { changesOf } = await import('./change');

type Sent = { path: string; method: string; body: unknown };
const sent: Sent[] = [];
let answers: { status: number; data: unknown }[] = [];

beforeEach(() => {
  went.length = 0;
  sent.length = 0;
  answers = [];
  for (const { id } of [...notices.list]) notices.remove(id);
  vi.stubGlobal('fetch', (path: string, { method, body }: { method: string; body: string }) => {
    sent.push({ path, method, body: JSON.parse(body) as unknown });
    const { status, data } = answers.shift() ?? { status: 200, data: {} };
    return Promise.resolve({ ok: status < 300, status, json: () => Promise.resolve(data) });
  });
});
const said = () => notices.list.map(({ kind, text }) => `${kind}: ${text}`);
const refuse = (error: object) => answers.push({ status: 409, data: { error } });

describe('a change from a page', () => {
  it('is said, can be taken back, and loads the page again', async () => {
    answers = [{ status: 200, data: { id: 'M1', version: 1, group: 'G1' } }];
    expect(await changesOf('C1')('POST', '/api/x', { a: 1 }, 'Added it.')).toBeUndefined();
    expect(said()).toEqual(['success: Added it.']);
    expect(went).toEqual(['loaded again']);
    notices.list[0]!.action!.run();
    await vi.waitFor(() => expect(said()).toContain('info: Undone.'));
    expect(sent[1]).toEqual({ path: '/api/crates/C1/undo', method: 'POST', body: { group: 'G1' } });
  });

  it('leads to what was made, after what else is to be done', async () => {
    answers = [{ status: 201, data: { id: 'B1', version: 1, group: 'G', tag: 'AC-0001' } }];
    const then = vi.fn(() => expect(went).toEqual([]));
    await changesOf('C1')(
      'POST',
      '/api/b',
      {},
      { words: ({ tag }) => `Saved as ${tag}.`, then, to: ({ tag }) => `/b/${tag}` }
    );
    expect(said()).toEqual(['success: Saved as AC-0001.']);
    expect(then).toHaveBeenCalledOnce();
    expect(went[0]).toBe('/b/AC-0001');
  });

  it('calls nobody away from the page that was gone to meanwhile', async () => {
    answers = [{ status: 201, data: { id: 'B1', version: 1, group: 'G' } }];
    const location = { pathname: '/c/x/crate/drive/new' };
    vi.stubGlobal('location', location);
    const saving = changesOf('C1')('POST', '/api/b', {}, { words: 'Saved.', to: () => '/c/x/crate/drive' });
    location.pathname = '/c/x/pair';
    await saving;
    vi.unstubAllGlobals();
    expect(said()).toEqual(['success: Saved.']);
    expect(went).toEqual(['loaded again']);
  });

  it('offers no undo for what cannot be taken back', async () => {
    answers = [{ status: 200, data: {} }];
    await changesOf('C1')('DELETE', '/api/c', {}, 'Gone for good.');
    expect(notices.list[0]?.action).toBeUndefined();
  });

  it('leaves fields to the form, and says everything else', async () => {
    refuse({ message: 'Too small.', code: 'invalid', fields: [{ path: 'a', message: 'too small' }] });
    expect((await changesOf('C1')('PUT', '/api/x', {}, 'x'))?.fields).toHaveLength(1);
    expect(said()).toEqual([]);
    refuse({ message: 'Changed elsewhere.', code: 'conflict' });
    await changesOf('C1')('PUT', '/api/x', {}, 'x');
    expect(said()).toEqual(['error: Changed elsewhere.']);
    expect(went).toEqual([]);
  });

  it('lets the page say a refusal in its own words, or show it itself', async () => {
    refuse({ message: 'm', code: 'conflict', details: { current: 7 } });
    refuse({ message: 'm', code: 'conflict' });
    await changesOf('C1')('PUT', '/x', {}, { words: 'x', refused: ({ details }) => `Now ${String(details.current)}.` });
    await changesOf('C1')('PUT', '/x', {}, { words: 'x', refused: () => undefined });
    expect(said()).toEqual(['error: Now 7.']);
  });
});
