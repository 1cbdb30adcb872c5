import { describe, expect, it } from 'vitest';
import { untyped } from '../../../../tests/untyped';
import { busiestHost, withAdded, type Named } from './state';

const build = (tag: string, hostId: string) => untyped<Named>({ tag, name: tag, choice: { hostId, portId: 'a' } });

describe('several at once', () => {
  it('begins with a computer that shares something, then with the one that has the most builds', () => {
    const builds = new Map([
      ['x', 2],
      ['y', 1]
    ]);
    const plain = [
      { id: 'y', shares: false },
      { id: 'x', shares: false }
    ];
    expect(busiestHost(plain, builds)?.id).toBe('x');
    expect(busiestHost([...plain, { id: 'z', shares: true }], builds)?.id).toBe('z');
    expect(busiestHost([], builds)).toBeUndefined();
  });
  it('a build that is added goes to a port that is free, and nowhere where there is none at all', () => {
    const seats = [{ tag: 'AC-0001', portId: 'a', does: 'write' as const }];
    const free = [build('AC-0002', 'x')];
    expect(withAdded(seats, free, ['a', 'b'])[1]).toEqual({ tag: 'AC-0002', portId: 'b', does: 'write' });
    expect(withAdded(seats, free, ['a'])[1]?.portId).toBe('a');
    expect(withAdded(seats, free, [])).toEqual(seats);
    expect(withAdded(seats, [], ['a', 'b'])).toEqual(seats);
  });
});
