import { untyped } from '../../../tests/untyped';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Library } from '#core/build/assemble';
import type { WhatIf } from '#core/compare/swaps/what-if';
import { AroundChoice } from './what-if.svelte';

/** A stand-in for a web worker: keeps what it is asked, answers when the test says so. */
class FakeWorker {
  static all: FakeWorker[] = [];
  asked: { library?: Library; asked?: number; choice?: unknown }[] = [];
  ended = false;
  onmessage?: (event: { data: { asked: number; result: WhatIf | null } }) => void;
  constructor() {
    FakeWorker.all.push(this);
  }
  postMessage(question: (typeof this.asked)[0]): void {
    this.asked.push(question);
  }
  terminate(): void {
    this.ended = true;
  }
}
const library = untyped<Library>({ parts: 'all' });
const answer = (word: string) => untyped<WhatIf>({ offers: [], word });

beforeEach(() => {
  FakeWorker.all = [];
  vi.stubGlobal('Worker', FakeWorker);
});
afterEach(() => vi.unstubAllGlobals());

describe('what stands around a choice, computed beside the page', () => {
  it('the library is sent once, the choices after it, each with its number', () => {
    const around = new AroundChoice();
    around.ask(library, { driveId: 'a' });
    around.ask(library, { driveId: 'b' });
    const [worker, ...more] = FakeWorker.all;
    expect(more).toEqual([]);
    expect(worker!.asked).toEqual([
      { library },
      { asked: 1, choice: { driveId: 'a' } },
      { asked: 2, choice: { driveId: 'b' } }
    ]);
  });
  it('an answer to an earlier question is not shown over a later one', () => {
    const around = new AroundChoice();
    around.ask(library, { driveId: 'a' });
    around.ask(library, { driveId: 'b' });
    const [worker] = FakeWorker.all;
    worker!.onmessage!({ data: { asked: 1, result: answer('old') } });
    expect(around.result).toBeNull();
    worker!.onmessage!({ data: { asked: 2, result: answer('new') } });
    expect(around.result).toMatchObject({ word: 'new' });
  });
  it('the last answer stays until the next is there; none for an incomplete choice takes it away', () => {
    const around = new AroundChoice();
    around.ask(library, { driveId: 'a' });
    const [worker] = FakeWorker.all;
    worker!.onmessage!({ data: { asked: 1, result: answer('first') } });
    around.ask(library, {});
    expect(around.result).toMatchObject({ word: 'first' });
    worker!.onmessage!({ data: { asked: 2, result: null } });
    expect(around.result).toBeNull();
  });
  it('another library is sent before the question that belongs to it', () => {
    const around = new AroundChoice();
    around.ask(library, {});
    const other = untyped<Library>({ parts: 'others' });
    around.ask(other, {});
    expect(FakeWorker.all[0]!.asked.map((q) => q.library ?? q.asked)).toEqual([library, 1, other, 2]);
  });
  it('ends with the page, and begins anew with everything when it is asked again', () => {
    const around = new AroundChoice();
    around.ask(library, {});
    around.stop();
    expect(FakeWorker.all[0]!.ended).toBe(true);
    around.ask(library, {});
    expect(FakeWorker.all[1]!.asked[0]).toEqual({ library });
  });
});
