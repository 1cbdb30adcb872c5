import { describe, expect, it } from 'vitest';
import { suspectsOf, type History } from './suspects';

const run = (build: string, healthy: boolean, ids: History[number]['ids']): History[number] => ({
  build,
  healthy,
  ids
});

describe('parts that are suspect across builds', () => {
  it('a cable that was slow in three builds outweighs three drives and three cases', () => {
    const history = [
      run('a', false, { drive: 'd1', enclosure: 'e1', cable: 'worn', host: 'h1' }),
      run('b', false, { drive: 'd2', enclosure: 'e2', cable: 'worn', host: 'h2' }),
      run('c', false, { drive: 'd3', enclosure: 'e3', cable: 'worn', host: 'h1' }),
      run('a2', true, { drive: 'd1', enclosure: 'e1', cable: 'good', host: 'h1' }),
      run('b2', true, { drive: 'd2', enclosure: 'e2', cable: 'good', host: 'h2' })
    ];
    const [first, ...others] = suspectsOf(history);
    expect(first).toMatchObject({ part: 'cable', id: 'worn', slow: 3, sound: 0 });
    // Odds against “none is bad”: 0.06 * (0.9 / 0.15)³ = 12.96; host h1, slow twice and sound once: 0.01 * 36 * 0.1 / 0.85 = 0.04;
    // every drive and case, slow once and sound once or never, at most 0.03 * 6 = 0.18. 12.96 / (1 + 12.96 + less than 1.1) > 0.85
    expect(first!.share).toBeGreaterThan(0.85);
    expect(others).toEqual([]);
    expect(first!.because).toBe('This cable was slow in 3 builds; 2 builds without it are sound.');
  });

  it('parts that were always used together stand beside each other', () => {
    const ids = { enclosure: 'e1', cable: 'c1' };
    const both = suspectsOf([run('a', false, { ...ids, drive: 'd1' }), run('b', false, { ...ids, drive: 'd2' })]);
    expect(both.map(({ part }) => part)).toEqual(['cable', 'enclosure']);
  });

  it('one slow build accuses nobody, and a build that was measured often counts once', () => {
    expect(suspectsOf([run('a', false, { cable: 'c' })])).toEqual([]);
    expect(suspectsOf([run('a', false, { cable: 'c' }), run('a', false, { cable: 'c' })])).toEqual([]);
    expect(suspectsOf([])).toEqual([]);
  });

  it('a cable that is sound in others is no suspect', () => {
    const history = [
      run('a', false, { cable: 'c' }),
      run('b', false, { cable: 'c' }),
      ...['x', 'y', 'z'].map((build) => run(build, true, { cable: 'c' }))
    ];
    expect(suspectsOf(history)).toEqual([]);
  });
});
