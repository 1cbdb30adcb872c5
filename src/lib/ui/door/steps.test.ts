import { describe, expect, it } from 'vitest';
import { nextStepAfter, stepsOf } from './steps';

const keys = (steps: { key: string }[]) => steps.map(({ key }) => key);

describe('the first evening', () => {
  it('goes computer, drive, enclosure, cable, pads, pair; each has its address', () => {
    const steps = stepsOf('/c/x', {}, 0);
    expect(keys(steps)).toEqual(['host', 'drive', 'enclosure', 'cable', 'pad', 'pair']);
    expect(steps.map(({ href }) => href)).toEqual([
      '/c/x/crate/host/new',
      '/c/x/crate/drive/new',
      '/c/x/crate/enclosure/new',
      '/c/x/crate/cable/new',
      '/c/x/crate/pad/new',
      '/c/x/pair'
    ]);
    expect(steps[2]).toMatchObject({ label: 'Add an enclosure', done: false, optional: false });
    expect(stepsOf('/c/x', { enclosure: 2, host: 1 }, 1).map(({ label }) => label)).toEqual([
      '1 computer',
      'Add a drive',
      '2 enclosures',
      'Add a cable',
      'Add a pad',
      '1 build'
    ]);
  });
  it('after a part comes the next open step; pads are never urged, and at the end one pairs', () => {
    const next = (counts: object, key?: string) => nextStepAfter(stepsOf('/c/x', counts, 0), key)?.key;
    expect(next({})).toBe('host');
    expect(next({ host: 1 }, 'host')).toBe('drive');
    expect(next({ host: 1, drive: 1, enclosure: 1 }, 'enclosure')).toBe('cable');
    expect(next({ host: 1, drive: 1, enclosure: 1, cable: 1 }, 'cable')).toBe('pair');
    // a drive was entered first: the computer is still open
    expect(next({ drive: 1, enclosure: 1, cable: 1 }, 'cable')).toBe('host');
    expect(next({ drive: 1 }, 'drive')).toBe('enclosure');
    expect(nextStepAfter(stepsOf('/c/x', { host: 1, drive: 1, enclosure: 1, cable: 1, pad: 1 }, 3))?.key).toBe('pair');
  });
});
