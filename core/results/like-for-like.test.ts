import { describe, expect, it } from 'vitest';
import { differingConditions } from './like-for-like';
import { newestFigures } from './newest';

const chain = { host: 'Kiln', port: 'front', enclosure: 'Trivet 40', drive: 'Chert T4 2TB', os: 'Linux 6.1' };
const run = { protocol: 'soak' as const, simulated: false, conditions: { power: 'mains' as const }, chain };

describe('like for like', () => {
  it('two of the same differ in nothing', () => expect(differingConditions(run, { ...run })).toEqual([]));
  it('one thing is what was tried', () =>
    expect(differingConditions(run, { ...run, chain: { ...chain, cable: 'Rush C-C 10G' } })).toEqual(['the cable']));
  it('what only one of them says counts as different', () =>
    expect(
      differingConditions(run, { ...run, conditions: { ...run.conditions, fan: true }, protocol: 'loop' })
    ).toEqual(['how it was measured (soak, loop)', 'fan']));
});

describe('the newest figures of a build', () => {
  const made = (
    protocol: 'pair-check' | 'copy' | 'baseline',
    results: object,
    rig: { state: string } | null = null
  ) => ({ protocol, results, rig, simulated: false });
  const old = made('pair-check', { writeMBps: 900 });
  it.each([
    ['a copy says nothing of the chain alone', made('copy', { copyInMBps: 400 })],
    ['the internal disk is not the build', made('baseline', { writeMBps: 2500 })],
    ['what the rig is still at is no result yet', made('pair-check', { writeMBps: 1 }, { state: 'running' })]
  ])('%s', (_what, newer) => expect(newestFigures([newer, old], true)).toBe(old));
  it('what was kept against an alarm stands back, where there is another', () => {
    const doubtful = { ...made('pair-check', { writeMBps: 1190 }), accepted: ['writeMBps-above-band'] };
    expect(newestFigures([doubtful, old], true)).toBe(old);
    expect(newestFigures([doubtful], true)).toBe(doubtful);
  });
  it('a simulated one that has come to its end counts', () => {
    const done = made('pair-check', { writeMBps: 950 }, { state: 'done' });
    expect(newestFigures([done, old], true)).toBe(done);
  });
});
