import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { WatchedTask, type TaskView } from './task.svelte';

/** A stand-in for the browser's event source, driven by the test. */
class FakeSource {
  static readonly CLOSED = 2;
  static all: FakeSource[] = [];
  readyState = 1;
  onmessage?: (event: { data: string }) => void;
  onerror?: () => void;
  constructor(readonly url: string) {
    FakeSource.all.push(this);
  }
  close(): void {
    this.readyState = FakeSource.CLOSED;
  }
  say(state: Partial<TaskView>): void {
    this.onmessage?.({ data: JSON.stringify({ ...RUNNING, ...state }) });
  }
  /** What a browser does when the connection ends for good. */
  break(): void {
    this.readyState = FakeSource.CLOSED;
    this.onerror?.();
  }
}
const RUNNING: TaskView = { id: 'T1', title: 'Ranking', state: 'running', done: 0, total: 10, step: 'Beginning' };
const KEY = 'task:rank:c';
let store: Map<string, string>;
let answer: () => Promise<{ status: number }>;

beforeEach(() => {
  FakeSource.all = [];
  store = new Map();
  answer = () => Promise.resolve({ status: 200 });
  vi.stubGlobal('EventSource', FakeSource);
  vi.stubGlobal('sessionStorage', {
    getItem: (key: string) => store.get(key) ?? null,
    setItem: (key: string, value: string) => void store.set(key, value),
    removeItem: (key: string) => void store.delete(key)
  });
  vi.stubGlobal('fetch', () => answer());
});
afterEach(() => vi.unstubAllGlobals());

const settle = () => new Promise((done) => setTimeout(done, 0));
const ended: TaskView[] = [];
const make = () => {
  ended.length = 0;
  return new WatchedTask(KEY, (state) => ended.push(state));
};

describe('a long piece of work as a page sees it', () => {
  it('is followed to its end: its id is kept meanwhile, then the page is told once', () => {
    const task = make();
    task.follow(RUNNING);
    expect(task.running).toBe(true);
    expect(store.get(KEY)).toBe('T1');
    const [source] = FakeSource.all;
    expect(source!.url).toBe('/api/tasks/T1/events');
    source!.say({ done: 5 });
    expect(task.state!.done).toBe(5);
    source!.say({ state: 'done', result: 42 });
    expect(store.has(KEY)).toBe(false);
    expect(source!.readyState).toBe(FakeSource.CLOSED);
    expect(ended).toMatchObject([{ state: 'done', result: 42 }]);
  });
  it('is found again by a page that is loaded again', async () => {
    store.set(KEY, 'T7');
    const task = make();
    expect(await task.resume()).toBe(true);
    expect(FakeSource.all.map((s) => s.url)).toEqual(['/api/tasks/T7/events']);
    FakeSource.all[0]!.say({ id: 'T7', done: 3 });
    expect(task.running).toBe(true);
  });
  it('that is gone with a server that was started again is forgotten, and the page may begin anew', async () => {
    store.set(KEY, 'T7');
    answer = () => Promise.resolve({ status: 404 });
    expect(await make().resume()).toBe(false);
    expect(store.has(KEY)).toBe(false);
    expect(FakeSource.all).toEqual([]);
  });
  it('none was kept: nothing is asked', async () => {
    let asked = 0;
    answer = () => {
      asked += 1;
      return Promise.resolve({ status: 200 });
    };
    expect(await make().resume()).toBe(false);
    expect(asked).toBe(0);
  });
  it('a page that is being left loses its connection, and must not forget', async () => {
    const task = make();
    task.follow(RUNNING);
    answer = () => Promise.reject(new TypeError('the page is being left'));
    FakeSource.all[0]!.break();
    await settle();
    expect(store.get(KEY)).toBe('T1');
    expect(task.running).toBe(true);
  });
  it('a connection that ends for a task that is gone ends the waiting', async () => {
    const task = make();
    task.follow(RUNNING);
    answer = () => Promise.resolve({ status: 404 });
    FakeSource.all[0]!.break();
    await settle();
    expect(store.has(KEY)).toBe(false);
    expect(task.running).toBe(false);
  });
  it('a connection that only stutters changes nothing: the browser tries again by itself', async () => {
    const task = make();
    task.follow(RUNNING);
    let asked = 0;
    answer = () => {
      asked += 1;
      return Promise.resolve({ status: 404 });
    };
    FakeSource.all[0]!.readyState = 0;
    FakeSource.all[0]!.onerror?.();
    await settle();
    expect(asked).toBe(0);
    expect(task.running).toBe(true);
  });
  it('a new one takes the place of the old: nothing of the old is heard any more', () => {
    const task = make();
    task.follow(RUNNING);
    task.follow({ ...RUNNING, id: 'T2' });
    expect(FakeSource.all[0]!.readyState).toBe(FakeSource.CLOSED);
    expect(store.get(KEY)).toBe('T2');
    expect(FakeSource.all[1]!.url).toBe('/api/tasks/T2/events');
  });
  it('is asked to stop by its id, and stopping to listen is not stopping it', async () => {
    const paths: string[] = [];
    vi.stubGlobal('fetch', (path: string) => {
      paths.push(path);
      return Promise.resolve({ ok: true, status: 200, json: () => Promise.resolve({}) });
    });
    const task = make();
    await task.cancel();
    expect(paths).toEqual([]);
    task.follow(RUNNING);
    await task.cancel();
    expect(paths).toEqual(['/api/tasks/T1/cancel']);
    task.stop();
    expect(FakeSource.all[0]!.readyState).toBe(FakeSource.CLOSED);
    expect(store.get(KEY)).toBe('T1');
  });
});
