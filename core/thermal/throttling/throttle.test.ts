import { describe, expect, it } from 'vitest';
import { aDrive, anEnclosure } from '../../../tests/parts';
import { fillDrive } from '../../parts/fill/drive';
import { fillEnclosure } from '../../parts/fill/enclosure';
import { planPads } from '../../pads/plan-pads';
import { sawToothOf } from './saw-tooth';
import { dutyOf, throttleLimits, throttledRate } from './throttle';
import { steadyState } from './steady-state';
import { followThrottling } from './timeline';
import { thermalModel } from '../forecast/thermal-model';
import { likelyCases } from '../forecast/likely-cases';
import { mayThrottle, settlePhases } from '../forecast/when-throttled';
import { timeConstant, touchOf, coolingTime } from '../forecast/touch';
import { heatOut } from '../model/network';

const warm = (cooling: object, more: { ambientC?: number; bare?: boolean; drive?: object } = {}) => {
  const drive = fillDrive(aDrive(more.drive));
  const enclosure = fillEnclosure(anEnclosure({ cooling: { kind: 'passive', ...cooling } }));
  const stack = planPads({ drive: drive.drive, doubleSided: false, enclosure: enclosure.enclosure });
  return thermalModel({ drive, enclosure, stack }, 'usb4-40g', undefined, { ambientC: 22, ...more });
};
const writing = (rate: number) => ({ activity: 'write' as const, rate, perMB: 0 });

describe('limits', () => {
  it('80 and 88 °C unless stated; a stated start moves both; a disk has none', () => {
    expect(throttleLimits(aDrive())).toEqual({ startC: 80, criticalC: 88, releaseK: 8, offC: 105 });
    expect(throttleLimits(aDrive({ throttle: { startC: 70 } }))).toMatchObject({ startC: 70, criticalC: 78 });
    expect(throttleLimits(aDrive({ media: 'hdd' }))).toBeNull();
  });
  it('half of the rate takes twice the time for bytes and the same for files', () => {
    // 1000 MB/s and 0.25 ms a MB: 1 + 0.25 ms; at half 2 + 0.25 ms
    expect(throttledRate({ ...writing(1000), perMB: 0.00025 }, 1)).toBeCloseTo(800, 9);
    expect(throttledRate({ ...writing(1000), perMB: 0.00025 }, 0.5)).toBeCloseTo(1 / 0.00225, 9);
  });
});

describe('the saw-tooth', () => {
  it('one part of 40 K between 60 and 100 °C, 72 to 80: up ln(28/20), down ln(20/12), times 20 s', () => {
    const orbit = sawToothOf([{ kelvin: 40, rate: 0.05 }], 60, 72, 80)!;
    expect(orbit.fastS).toBeCloseTo(20 * Math.log(1.4), 4);
    expect(orbit.slowS).toBeCloseTo(20 * Math.log(20 / 12), 4);
    // 0.33647 / (0.33647 + 0.51083) = 0.3971
    expect(dutyOf(100, 60, 72, 80)).toBeCloseTo(0.3971, 4);
  });
  it('is none where full rate stays below, or half rate above', () => {
    expect(sawToothOf([{ kelvin: 15, rate: 0.05 }], 60, 72, 80)).toBeNull();
    expect(sawToothOf([{ kelvin: 40, rate: 0.05 }], 73, 72, 80)).toBeNull();
    expect(dutyOf(79, 60, 72, 80)).toBe(1);
    expect(dutyOf(100, 73, 72, 80)).toBe(0);
  });
  it('of three parts closes: gone round once it is where it was, 8 K between its ends', () => {
    const parts = [
      { kelvin: 20, rate: 0.001 },
      { kelvin: 9, rate: 0.2 },
      { kelvin: 6, rate: 0.03 }
    ];
    const [cold, low, high] = [58, 72, 80];
    const { fastS, slowS } = sawToothOf(parts, cold, low, high)!;
    // Each part from its own lowest to its highest and back.
    let [top, bottom] = [cold, cold];
    for (const { kelvin, rate } of parts) {
      const [a, b] = [Math.exp(-rate * fastS), Math.exp(-rate * slowS)];
      const highest = (kelvin * (1 - a)) / (1 - a * b);
      top += highest;
      bottom += highest * b;
    }
    expect(top).toBeCloseTo(high, 5);
    expect(bottom).toBeCloseTo(low, 5);
  });
});

describe('where a load settles', () => {
  it('without throttling, the heat that leaves is the heat that is made', () => {
    const { typical, limits } = warm({ areaCm2: 400 });
    const at = steadyState(typical, writing(2000), limits);
    expect(at.form).toBe('none');
    expect(at.rate).toBe(2000);
    const { controller, nand, case: rest } = at.power;
    expect(heatOut(typical.network.surface, at.caseC - 22, 22)).toBeCloseTo(controller + nand + rest, 3);
  });
  it('a small case settles in a saw-tooth or on a plateau, between half and full rate, and never above critical', () => {
    const forms = new Set<string>();
    for (const areaCm2 of [40, 60, 80, 100, 120, 140, 200, 500]) {
      const { typical, limits } = warm({ areaCm2 });
      const at = steadyState(typical, writing(3400), limits);
      forms.add(at.form);
      expect(at.rate).toBeGreaterThanOrEqual(3400 * 0.25 - 1e-9);
      expect(at.rate).toBeLessThan(3400.001);
      if (at.form === 'saw-tooth') expect([80, 88]).toContain(at.controllerC);
    }
    expect([...forms].sort()).toEqual(['none', 'plateau', 'saw-tooth']);
  });
  it('the larger the case, the more is left of the rate', () => {
    const rates = [30, 50, 70, 90, 110, 150, 250].map((areaCm2) => {
      const { typical, limits } = warm({ areaCm2 });
      return steadyState(typical, writing(3400), limits).rate;
    });
    expect([...rates].sort((a, b) => a - b)).toEqual(rates);
  });
  it('a drive that comes throttled stays so where half rate alone keeps it above its release', () => {
    let seen = 0;
    for (const areaCm2 of [25, 30, 35, 40, 45, 50])
      for (let rate = 100; rate < 1600; rate += 100) {
        const { typical, limits } = warm({ areaCm2 });
        const free = steadyState(typical, writing(rate), limits);
        const held = steadyState(typical, writing(rate), limits, 1);
        if (free.form !== 'none' || held.form === 'none') continue;
        seen += 1;
        expect(held).toMatchObject({ form: 'plateau', rate: rate / 2, level: 1 });
        expect(held.controllerC).toBeGreaterThanOrEqual(72);
        // After a burst that throttles, that is where it ends up.
        const burst = { ...writing(9000), volumeMB: 900_000 };
        const calm = { ...writing(rate), volumeMB: Infinity };
        expect(settlePhases(typical, [burst, calm], limits).rate).toBeLessThan(rate);
      }
    expect(seen).toBeGreaterThan(0);
  });
});

describe('without pads', () => {
  it('the controller throttles within one to three minutes, under a case that is still cool', () => {
    const { typical, limits } = warm({ areaCm2: 210, massG: 190 }, { bare: true });
    const phases = [{ ...writing(2900), volumeMB: Infinity }];
    expect(mayThrottle(typical, phases, limits)).toBe(true);
    const found = followThrottling(typical, phases, limits, { horizonS: 3600, untilThrottle: true });
    expect(found.throttleAtS).toBeGreaterThan(20);
    expect(found.throttleAtS).toBeLessThan(180);
    expect(found.peakFaceC).toBeLessThan(45);
  });
});

describe('touch', () => {
  it.each([
    [43, 'aluminium', 'comfortable'],
    [43.1, 'aluminium', 'brief'],
    [55, 'aluminium', 'brief'],
    [55.1, 'aluminium', 'do-not-hold'],
    [70, 'plastic', 'brief'],
    [70.1, 'plastic', 'do-not-hold']
  ] as const)('%d °C of %s: %s', (faceC, material, touch) => expect(touchOf(faceC, material)).toBe(touch));
  it('cools along an exponential under a fan: from 60 to 43 °C at 22 is tau ln(38/21)', () => {
    const { typical } = warm({ kind: 'fan', areaCm2: 200, massG: 100 });
    // 30 W/m²K over 200 cm², and the desk: 5 over 36/74.08 of that, 0.0486 W/K
    const tau = (2 + 5 + 90) / (30 * 0.02 + (36 / 74.08) * 0.02 * 5);
    expect(timeConstant(typical)).toBeCloseTo(tau, 6);
    // in steps of a degree, each from its middle: within half a percent
    expect(coolingTime(typical, 60, 0)! / (tau * Math.log(38 / 21))).toBeCloseTo(1, 2);
    expect(coolingTime(typical, 40, 0)).toBe(0);
    // 15 W keep it at 22 + 15 / 0.6486 = 45 °C: it never comes down to 43
    expect(coolingTime(typical, 60, 15)).toBeNull();
  });
});

describe('likely cases', () => {
  const thermal = warm({ areaCm2: 200 }, { drive: { label: 'paper' } });
  const { hot, cool, influences } = likelyCases(thermal, writing(2000), { low: 1800, typical: 2000, high: 2100 });
  const at = (setting: typeof hot) => steadyState(setting, writing(2000 * setting.parameters.rate), null).controllerC;
  const typical = at(thermal.typical);
  it('lie at about the root of the sum of squares of what each uncertain thing does alone', () => {
    const root = (key: 'hotK' | 'coolK') => Math.sqrt(influences.reduce((sum, i) => sum + i[key] ** 2, 0));
    expect((at(hot) - typical) / root('hotK')).toBeGreaterThan(0.85);
    expect((at(hot) - typical) / root('hotK')).toBeLessThan(1.15);
    expect((typical - at(cool)) / root('coolK')).toBeGreaterThan(0.85);
    expect((typical - at(cool)) / root('coolK')).toBeLessThan(1.15);
  });
  it('every hotter end is hotter and every cooler one cooler, and what is stated is not among them', () => {
    for (const { hotK, coolK } of influences) {
      expect(hotK).toBeGreaterThan(0);
      expect(coolK).toBeLessThan(0);
    }
    const names = influences.map((i) => i.name);
    expect(names).toContain('label');
    expect(names).not.toContain('ambientC');
    expect(names).not.toContain('fanH');
  });
});
