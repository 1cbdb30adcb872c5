import { describe, expect, it } from 'vitest';
import { faultyRate, noisy, SIMULATED_FAULTS } from './faults';

const flat = Array.from({ length: 2000 }, () => 1000);
const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;

describe('what a fault does to a rate', () => {
  const LANE = 984.6;
  it.each([
    ['usb2-fallback', 'read', 38],
    ['5g-port-or-cable', 'write', 435],
    ['10g-fallback', 'read', 1000],
    ['bulk-only', 'read', 2720],
    ['encryption-cost', 'write', 2992],
    ['write-cache-off', 'write', 850],
    ['write-cache-off', 'read', 3400],
    ['host-write-ceiling', 'write', 1700],
    ['host-write-ceiling', 'read', 3400],
    ['healthy', 'write', 3400],
    // 2 x 984.6 x 0.875
    ['two-lane-limit', 'read', 1723.05]
  ] as const)('%s, %s: 3400 becomes %d MB/s', (fault, direction, rate) =>
    expect(faultyRate(fault, direction, 3400, LANE)).toBeCloseTo(rate, 6)
  );
  const bends = SIMULATED_FAULTS.filter((fault) =>
    (['read', 'write'] as const).some((direction) => faultyRate(fault, direction, 6000, LANE) !== 6000)
  );
  it('eight bend the rate of the link; the others act on cache, heat, room or over time', () =>
    expect([...bends].sort()).toEqual(
      [
        'usb2-fallback',
        '5g-port-or-cable',
        '10g-fallback',
        'bulk-only',
        'write-cache-off',
        'two-lane-limit',
        'host-write-ceiling',
        'encryption-cost'
      ].sort()
    ));
  it.each(bends)('%s makes something slower, and nothing faster', (fault) => {
    for (const rate of [20, 430, 1000, 6000])
      for (const direction of ['read', 'write'] as const)
        expect(faultyRate(fault, direction, rate, LANE)).toBeLessThanOrEqual(rate);
  });
});

describe('noise', () => {
  it('is the same for the same seed, another for another, and about a hundredth', () => {
    expect(noisy(flat, 'healthy', 5)).toEqual(noisy(flat, 'healthy', 5));
    expect(noisy(flat, 'healthy', 5)).not.toEqual(noisy(flat, 'healthy', 6));
    const some = noisy(flat, 'healthy', 5);
    expect(mean(some)).toBeCloseTo(1000, -1);
    // three uniform draws about their middle, times 0.02: at most 3 %, a root mean square of 1 %
    const rms = Math.sqrt(mean(some.map((v) => (v / 1000 - 1) ** 2)));
    expect(rms).toBeGreaterThan(0.008);
    expect(rms).toBeLessThan(0.012);
    expect(Math.max(...some)).toBeLessThanOrEqual(1030);
  });
  it('what stands still stays still, and nothing is below nothing', () => {
    expect(noisy([0, 0, 0], 'unstable-link', 1)).toEqual([0, 0, 0]);
    for (const fault of SIMULATED_FAULTS)
      for (const value of noisy(flat, fault, 3)) expect(value).toBeGreaterThanOrEqual(0);
  });
  it('background load dips at times, an unstable link drops to nothing, weak places come again at the same spot', () => {
    const dips = (values: readonly number[], below: number) => values.filter((v) => v < below).length;
    const busy = noisy(flat, 'background-load', 9);
    expect(dips(busy, 600)).toBeGreaterThan(50);
    expect(dips(busy, 600)).toBeLessThan(1000);
    expect(dips(noisy(flat, 'unstable-link', 9), 1)).toBeGreaterThan(10);
    const weak = noisy(flat, 'weak-surface', 9).flatMap((v, i) => (v < 300 ? [i % 97] : []));
    expect(new Set(weak)).toEqual(new Set([89, 90, 91, 92, 93, 94, 95, 96]));
    expect(dips(noisy(flat, 'healthy', 9), 900)).toBe(0);
  });
});
