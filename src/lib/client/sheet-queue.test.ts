import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { allWaiting, forgetWaiting, keepWaiting, mayWait, sendWaiting, type Waiting } from './sheet-queue';

type Sent = { path: string; keys: string[] };
const sent: Sent[] = [];
/** What the server says next; 200 where nothing is left to say. */
let answers: ((sent: Sent) => { status: number; body: object } | 'away')[] = [];
const store = new Map<string, string>();

const check = (key: string, sheetId = 'S1'): Waiting => ({
  kind: 'check',
  key,
  crateId: 'C',
  sheetId,
  tag: 'AC-0001',
  entry: { key, stepId: 's', done: true, at: '2026-11-27T10:00:00.000Z' }
});
const photo = (key: string): Waiting => ({
  kind: 'photo',
  key,
  crateId: 'C',
  sheetId: 'S1',
  tag: 'AC-0001',
  photo: { stepId: 's', name: 'a.jpg', content: '' }
});
const wait = async (...list: Waiting[]) => {
  for (const one of list) await keepWaiting(one);
};
const left = async () => (await allWaiting()).map(({ key, refused }) => `${key}${refused ? '!' : ''}`);
const problem =
  (status: number, message = 'no') =>
  () => ({ status, body: { error: { code: 'x', message, fields: [] } } });

beforeEach(() => {
  // A browser without a store of its own: what waits is in memory, by the same rules.
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => store.get(key) ?? null,
    setItem: (key: string, value: string) => store.set(key, value),
    removeItem: (key: string) => store.delete(key)
  });
  vi.stubGlobal('fetch', async (path: string, init: { body: string }) => {
    const body = JSON.parse(init.body) as { key?: string; checks?: { key: string }[] };
    const request = { path, keys: body.checks?.map(({ key }) => key) ?? [body.key ?? ''] };
    sent.push(request);
    const answer = answers.shift()?.(request) ?? {
      status: 200,
      body: { accepted: request.keys, group: `G${request.keys[0]}` }
    };
    if (answer === 'away') throw new TypeError('Failed to fetch');
    return new Response(JSON.stringify(answer.body), { status: answer.status });
  });
});
afterEach(async () => {
  await forgetWaiting((await allWaiting()).map(({ key }) => key));
  sent.length = 0;
  answers = [];
  store.clear();
  vi.unstubAllGlobals();
});

describe('what waits in a browser', () => {
  it('is sent in the order of its keys, entries of a sheet together, a photograph by itself', async () => {
    await wait(check('K3'), check('K1'), photo('K2'), check('K4', 'S2'), check('K5'));
    expect(mayWait()).toBe(true);
    const result = await sendWaiting();
    expect(sent.map(({ keys }) => keys)).toEqual([['K1'], ['K2'], ['K3'], ['K4'], ['K5']]);
    expect(sent[1]!.path).toBe('/api/crates/C/sheets/S1/photos');
    expect(result).toMatchObject({ state: 'sent', group: 'GK5', refused: [] });
    expect(await left()).toEqual([]);
    expect(mayWait()).toBe(false);
  });
  it('goes in batches of fifty', async () => {
    await wait(...Array.from({ length: 60 }, (_, n) => check(`K${String(n).padStart(2, '0')}`)));
    await sendWaiting();
    expect(sent.map(({ keys }) => keys.length)).toEqual([50, 10]);
  });
  it('stays where the server is away, and is the same when it is sent again', async () => {
    await wait(check('K1'), check('K2'));
    answers = [() => 'away'];
    expect((await sendWaiting()).state).toBe('away');
    expect(await left()).toEqual(['K1', 'K2']);
    answers = [problem(503)];
    expect((await sendWaiting()).state).toBe('away');
    await sendWaiting();
    expect(sent.map(({ keys }) => keys)).toEqual([
      ['K1', 'K2'],
      ['K1', 'K2'],
      ['K1', 'K2']
    ]);
    expect(await left()).toEqual([]);
  });
  it('of which one entry is wrong goes without that one', async () => {
    await wait(check('K1'), check('K2'), check('K3'));
    answers = [problem(400), problem(400, 'is wrong')];
    const { refused } = await sendWaiting();
    expect(refused.map(({ key }) => key)).toEqual(['K1']);
    expect(refused[0]?.refused).toBe('is wrong');
    // it stays here with the reason, and is not sent again by itself
    expect(await left()).toEqual(['K1!']);
    await sendWaiting();
    expect(sent.at(-1)!.keys).toEqual(['K2', 'K3']);
  });
  it('for a sheet that is gone stays, all of it, and does not hold up another sheet', async () => {
    await wait(check('K1'), photo('K2'), check('K3', 'S2'));
    answers = [problem(404)];
    const { refused, state } = await sendWaiting();
    expect(state).toBe('sent');
    expect(refused.map(({ key }) => key)).toEqual(['K1', 'K2']);
    expect(await left()).toEqual(['K1!', 'K2!']);
    expect(sent.at(-1)!.keys).toEqual(['K3']);
  });
  it('is sent once, however often it is asked for at once', async () => {
    await wait(check('K1'));
    await Promise.all([sendWaiting(), sendWaiting(), sendWaiting()]);
    expect(sent).toHaveLength(1);
  });
});
