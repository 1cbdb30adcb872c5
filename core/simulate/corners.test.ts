import { describe, expect, it } from 'vitest';
import { aDrive, aHost, anEnclosure, anInput } from '../../tests/parts';
import { simulate } from './simulate';

const job = (direction: 'in' | 'out') => ({ name: 'j', purposes: [], transferGB: 200, direction });
const host = aHost({}, { internalDisk: { readMBps: 3000, writeMBps: 2500 } });

describe('the cliff of the host’s own disk', () => {
  it('holds what is taken off the drive: 60 GB as ever, the rest at a third of what the link gave', () => {
    const well = simulate({ ...anInput({ host, job: job('out') }), seconds: 3600 })!.summary.doneS!;
    const ill = simulate({ ...anInput({ host, job: job('out') }), fault: 'host-disk-cliff', seconds: 3600 })!.summary
      .doneS!;
    const rate = 200_000 / well;
    expect(rate).toBeCloseTo(2500, -2);
    // 60 GB at R, 140 GB at R / 3: (60 + 3 x 140) / 200 = 2.4 times as long
    expect(ill / well).toBeCloseTo(2.4, 1);
  });
  it('changes nothing of what is written onto it', () => {
    const well = simulate({ ...anInput({ host, job: job('in') }), seconds: 3600 })!.summary.doneS!;
    const ill = simulate({ ...anInput({ host, job: job('in') }), fault: 'host-disk-cliff', seconds: 3600 })!.summary
      .doneS!;
    expect(ill).toBeCloseTo(well, 6);
  });
});

describe('a drive that gets critically hot', () => {
  it('says so after it throttled, at its critical temperature', () => {
    const { events } = simulate({
      ...anInput({
        drive: aDrive({ throttle: { startC: 60, criticalC: 62 }, power: { idleW: 2, activeW: 12 } }),
        enclosure: anEnclosure({ cooling: { kind: 'passive', areaCm2: 60, massG: 40 } })
      }),
      seconds: 7200
    })!;
    const kinds = events.map(({ kind }) => kind);
    expect(kinds.indexOf('throttle')).toBeGreaterThanOrEqual(0);
    expect(kinds.indexOf('critical')).toBeGreaterThan(kinds.indexOf('throttle'));
  });
});
