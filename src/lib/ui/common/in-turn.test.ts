import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { render } from 'svelte/server';
import { createRawSnippet } from 'svelte';
import { inTurn, whenAlive } from './in-turn';
import Piece from './Piece.svelte';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('work in turn', () => {
  it('is done one piece a task, in the order in which it came, and then tells that nothing waits', () => {
    const done: string[] = [];
    inTurn(() => {
      done.push('page');
      // What a piece finds inside it comes after those that wait already.
      inTurn(() => done.push('table'));
    });
    inTurn(() => done.push('form'));
    whenAlive(() => done.push('alive'));
    expect(done).toEqual([]);
    vi.advanceTimersToNextTimer();
    expect(done).toEqual(['page']);
    vi.advanceTimersToNextTimer();
    expect(done).toEqual(['page', 'form']);
    vi.advanceTimersToNextTimer();
    expect(done).toEqual(['page', 'form', 'table']);
    vi.advanceTimersToNextTimer();
    expect(done).toEqual(['page', 'form', 'table', 'alive']);
    expect(vi.getTimerCount()).toBe(0);
  });

  it('leaves out what was taken back, and begins again when more comes', () => {
    const done: string[] = [];
    const leave = inTurn(() => done.push('gone'));
    leave();
    leave();
    vi.runAllTimers();
    inTurn(() => done.push('later'));
    vi.runAllTimers();
    expect(done).toEqual(['later']);
  });

  it('goes on after a piece that fails', () => {
    const done: string[] = [];
    inTurn(() => {
      throw new Error('broken');
    });
    inTurn(() => done.push('next'));
    expect(() => vi.advanceTimersToNextTimer()).toThrow('broken');
    vi.runAllTimers();
    expect(done).toEqual(['next']);
  });

  it('does first what is touched, at once, and what is found inside it', () => {
    const page = new EventTarget();
    vi.stubGlobal('document', page);
    const done: string[] = [];
    const [here, elsewhere] = [{ contains: () => true }, { contains: () => false }];
    inTurn(() => done.push('list'), elsewhere);
    inTurn(() => {
      done.push('form');
      inTurn(() => done.push('field'), here);
    }, here);
    page.dispatchEvent(new Event('input'));
    expect(done).toEqual(['form', 'field']);
    vi.runAllTimers();
    expect(done).toEqual(['form', 'field', 'list']);
    // Nobody listens once nothing waits.
    const listened = vi.spyOn(here, 'contains');
    page.dispatchEvent(new Event('input'));
    expect(listened).not.toHaveBeenCalled();
    vi.unstubAllGlobals();
  });

  it('tells at once where nothing waits', () => {
    const tell = vi.fn();
    whenAlive(tell);
    vi.runAllTimers();
    expect(tell).toHaveBeenCalledOnce();
  });
});

describe('a piece, as the server writes it', () => {
  it('stands between the two marks at which it comes to life', () => {
    const children = createRawSnippet(() => ({ render: () => '<p>Three drives</p>' }));
    const { body } = render(Piece, { props: { children } });
    expect(body).toMatch(/<div style="display: contents"><!--\[--><p>Three drives<\/p>(<!---->)?<!--\]--><\/div>/);
  });
});
