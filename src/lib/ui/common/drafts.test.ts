import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { withTick } from './ticks';
import { dayHere } from './day-here';
import { dropDraft, keepDraft, keptDraft } from './drafts';

let store: Map<string, string>;
beforeEach(() => {
  store = new Map();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => store.get(key) ?? null,
    setItem: (key: string, value: string) => {
      if (value.length > 100) throw new DOMException('full', 'QuotaExceededError');
      store.set(key, value);
    },
    removeItem: (key: string) => void store.delete(key)
  });
});
afterEach(() => vi.unstubAllGlobals());

describe('what was typed and not saved', () => {
  it('is found again as it was, until it is dropped', () => {
    keepDraft('k', { gap: '1.2', modes: ['usb-10g'] });
    expect(keptDraft('k')).toEqual({ gap: '1.2', modes: ['usb-10g'] });
    dropDraft('k');
    expect(keptDraft('k')).toBeUndefined();
  });
  it('that cannot be read any more is forgotten', () => {
    store.set('k', '{"gap":');
    expect(keptDraft('k')).toBeUndefined();
    expect(store.has('k')).toBe(false);
  });
  it('does not stop the typing where the browser has no room', () => {
    expect(() => keepDraft('k', 'x'.repeat(200))).not.toThrow();
    expect(keptDraft('k')).toBeUndefined();
  });
});

describe('ticks', () => {
  it.each([
    [['a'], 'b', true, ['a', 'b']],
    [['a', 'b'], 'a', false, ['b']],
    // told of a tick that is there already, as after a paste or a preset
    [['a'], 'a', true, ['a']],
    [['a'], 'b', false, ['a']]
  ])('%j with %s %s is %j', (ticked, value, on, wanted) => expect(withTick(ticked, value, on)).toEqual(wanted));
});

describe('the day where the reader sits', () => {
  const zone = process.env.TZ;
  afterEach(() => {
    process.env.TZ = zone;
  });
  it.each([
    // 23:30 UTC on the 26th: already the 27th in Auckland (+13), still the 26th in Los Angeles (-8)
    ['Pacific/Auckland', '2026-11-27'],
    ['America/Los_Angeles', '2026-11-26'],
    ['UTC', '2026-11-26']
  ])('in %s is %s', (tz, wanted) => {
    process.env.TZ = tz;
    expect(dayHere(new Date('2026-11-26T23:30:00Z'))).toBe(wanted);
  });
});
