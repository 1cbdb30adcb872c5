import { describe, expect, it } from 'vitest';
import { isForeign } from './foreign';

const OWN = 'http://127.0.0.1:4310';
const ask = (change: Partial<Parameters<typeof isForeign>[0]>) =>
  isForeign({ method: 'GET', path: '/c/x', origin: null, site: null, mode: null, dest: null, ...change }, OWN);
const led = { site: 'cross-site', mode: 'navigate', dest: 'document' };

describe('a request of another site', () => {
  it.each([
    ['a program without a browser', {}, false],
    ['a page of our own', { site: 'same-origin', mode: 'cors', dest: 'empty', method: 'POST', origin: OWN }, false],
    ['an address that was typed', { site: 'none', mode: 'navigate', dest: 'document' }, false],
    ['a link to a page', led, false],
    ['a link of another port of this machine to a page', { ...led, site: 'same-site' }, false],
    ['a link to the API', { ...led, path: '/api/backup' }, true],
    ['a link to an export', { ...led, path: '/api/crates/x/export' }, true],
    ['a form that is sent here', { ...led, method: 'POST', origin: 'http://evil.test' }, true],
    ['a form whose origin is hidden', { ...led, method: 'POST', origin: 'null' }, true],
    ['a page in a frame', { ...led, dest: 'iframe' }, true],
    ['a picture', { site: 'cross-site', mode: 'no-cors', dest: 'image' }, true],
    [
      'a script of ours in its own page',
      { site: 'cross-site', mode: 'no-cors', dest: 'script', path: '/_app/x.js' },
      true
    ],
    ['a fetch', { site: 'cross-site', mode: 'cors', dest: 'empty', path: '/c/x/units?tag=a' }, true],
    ['an older browser that only names the origin', { method: 'POST', origin: 'http://localhost:4310' }, true]
  ])('%s: refused is %o %s', (_, change, foreign) => expect(ask(change)).toBe(foreign));
});
