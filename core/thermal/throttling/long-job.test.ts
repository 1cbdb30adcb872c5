import { describe, expect, it } from 'vitest';
import { aDrive, aHost, anEnclosure, anInput } from '../../../tests/parts';
import { plan } from '../../plan/plan';

/*
 * Jobs of years: what has settled, and a tooth that repeats itself, go on as they are. Were they followed step by step, the first of
 * these would take seconds and the second would never end.
 */
const seconds = (transferGB: number, input: object) =>
  plan(anInput({ ...input, job: { name: 'j', purposes: [], transferGB, direction: 'in' } }), { workings: false }).job!
    .seconds.typical;

describe('a job without end in sight', () => {
  const settled = {
    drive: aDrive({ power: { idleW: 3, activeW: 20 } }),
    enclosure: anEnclosure({ cooling: { kind: 'passive', areaCm2: 60, massG: 40 } })
  };
  const turning = {
    host: aHost({ modes: ['usb2'] }),
    drive: aDrive({
      throttle: { startC: 40, criticalC: 60 },
      power: { idleW: 0.1, activeW: 40 },
      readMBps: 60,
      writeMBps: 40
    }),
    enclosure: anEnclosure({
      modes: ['usb-10g'],
      bridgePowerW: 0,
      cooling: { kind: 'passive', areaCm2: 600, massG: 4000 }
    })
  };
  it.each([
    ['settled', settled],
    ['turning', turning]
  ])('%s: from 100 000 GB to 200 000 it takes as long again, within a hundredth', (_, input) => {
    const [half, whole] = [seconds(100_000, input), seconds(200_000, input)];
    expect(whole / half).toBeGreaterThan(1.98);
    expect(whole / half).toBeLessThan(2.02);
    // and it throttles: as fast as the link it would be done sooner
    expect(whole).toBeGreaterThan(
      seconds(200_000, {
        ...input,
        job: undefined,
        enclosure: anEnclosure({ ...input.enclosure, cooling: { kind: 'fan', areaCm2: 5000 } })
      }) * 1.01
    );
  });
});
