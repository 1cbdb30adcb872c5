import { describe, expect, it } from 'vitest';
import { movedTo } from './moved';

describe('an address that had another name once', () => {
  it.each([
    ['/b/AC-0001/stack', '/b/AC-0001/pads'],
    ['/b/AC-0001/stack/cut', '/b/AC-0001/pads/cut'],
    ['/b/AC-0001/stack/heat?fan=1&bare=1', '/b/AC-0001/pads/heat?fan=1&bare=1'],
    ['/b/AC-0001/bench', '/b/AC-0001/measure'],
    ['/c/fernhollow/units?state=lent', '/c/fernhollow/items?state=lent'],
    ['/c/fernhollow/pairs', '/c/fernhollow/combinations'],
    ['/c/fernhollow/exchange', '/c/fernhollow/tables']
  ])('%s leads to %s', (was, now) => expect(movedTo(new URL(was, 'http://h'))).toBe(now));

  it.each([
    '/c/fernhollow/u/D-001',
    '/b/AC-0001/pair',
    '/b/AC-0001/pads',
    '/c/stack',
    '/c/units/items',
    '/b/AC-0001/stacks',
    '/api/crates/x/units',
    '//b/AC-0001/bench'
  ])('%s stays', (path) => expect(movedTo(new URL(`http://h${path}`))).toBeUndefined());
});
