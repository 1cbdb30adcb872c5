import { EigenvalueDecomposition } from 'ml-matrix';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { aDrive, anEnclosure } from '../../../tests/parts';
import { fillDrive } from '../../parts/fill/drive';
import { fillEnclosure } from '../../parts/fill/enclosure';
import { planPads } from '../../pads/plan-pads';
import { Bodies } from '../model/bodies';
import { chipsAfter, chipModes, decayParts, heatSlope } from '../throttling/chip-modes';
import { PARAMETER_LABELS, uncertainParameters, typicalParameters } from '../model/parameters';
import { followThrottling } from '../throttling/timeline';
import type { Phase } from '../throttling/phase-volume';
import { chipRises, heatOut, settledTemperatures, type Network } from '../model/network';
import { thermalModel } from './thermal-model';
import { throttleTime } from './when-throttled';

const network: Network = {
  toCaseC: 0.3,
  toCaseN: 0.5,
  between: 1 / 30,
  controllerJK: 2,
  nandJK: 5,
  caseJK: 90,
  surface: { areaM2: 0.02, convection: 4, radiation: 1.86e-7, fanH: 30, desk: 0, wall: 0 },
  ambientC: 22
};
const power = { controller: 3, nand: 2, case: 3 };
const cold = { controllerC: 22, nandC: 22, caseC: 22 };

/** What the bodies ask of the library. */
function eigen3(matrix: number[][]): { values: number[]; vectors: number[][] } {
  const { realEigenvalues, eigenvectorMatrix } = new EigenvalueDecomposition(matrix, { assumeSymmetric: true });
  return { values: realEigenvalues, vectors: eigenvectorMatrix.to2DArray() };
}

describe('eigenvalues of a symmetric matrix', () => {
  it('of [[2, 1, 0], [1, 2, 0], [0, 0, 5]] are 1, 3 and 5', () => {
    const { values } = eigen3([
      [2, 1, 0],
      [1, 2, 0],
      [0, 0, 5]
    ]);
    expect([...values].sort((a, b) => a - b).map((v) => Math.round(v * 1e9) / 1e9)).toEqual([1, 3, 5]);
  });
  it('turn the matrix back into itself', () => {
    // Millionths: conductances over capacities are never nearer to nothing, where the library gives up (1e-300).
    const number = fc.integer({ min: -5_000_000, max: 5_000_000 }).map((n) => n / 1e6);
    fc.assert(
      fc.property(fc.tuple(number, number, number, number, number, number), ([a, b, c, d, e, f]) => {
        const matrix = [
          [a, b, c],
          [b, d, e],
          [c, e, f]
        ];
        const { values, vectors } = eigen3(matrix);
        for (let i = 0; i < 3; i++)
          for (let j = 0; j < 3; j++) {
            const back = values.reduce((sum, v, k) => sum + v * vectors[i]![k]! * vectors[j]![k]!, 0);
            expect(back).toBeCloseTo(matrix[i]![j]!, 6);
          }
      }),
      { seed: 1, numRuns: 100 }
    );
  });
});

describe('three bodies over time', () => {
  it('under a fan, where everything is linear, end where the settled network is', () => {
    const bodies = new Bodies(network, cold);
    for (let t = 0; t < 4000; t += 50) bodies.step(power, 50);
    const at = settledTemperatures(network, power);
    expect(bodies.controllerC).toBeCloseTo(at.controllerC, 6);
    expect(bodies.nandC).toBeCloseTo(at.nandC, 6);
    expect(bodies.caseC).toBeCloseTo(at.caseC, 6);
  });
  it('and one step of a minute is as good as sixty of a second', () => {
    const [once, often] = [new Bodies(network, cold), new Bodies(network, cold)];
    once.step(power, 60);
    for (let i = 0; i < 60; i++) often.step(power, 1);
    expect(once.controllerC).toBeCloseTo(often.controllerC, 9);
    expect(once.caseC).toBeCloseTo(often.caseC, 9);
  });
  it('store what came in at first: 8 W for a second are 8 J, less the little that left', () => {
    const bodies = new Bodies(network, cold);
    bodies.step(power, 1);
    expect(bodies.storedJ).toBeGreaterThan(7.95);
    expect(bodies.storedJ).toBeLessThan(8);
  });
  it('know where they were within the last step, and go back', () => {
    const bodies = new Bodies(network, cold);
    bodies.step(power, 10);
    const before = bodies.controllerC;
    bodies.step(power, 10);
    const half = bodies.controllerAt(5);
    expect(half).toBeGreaterThan(before);
    expect(half).toBeLessThan(bodies.controllerC);
    expect(bodies.controllerAt(10)).toBeCloseTo(bodies.controllerC, 9);
    bodies.back();
    expect(bodies.controllerC).toBeCloseTo(before, 12);
    bodies.step(power, 5);
    expect(bodies.controllerC).toBeCloseTo(half, 9);
  });
  it('cool down to the room when nothing is on', () => {
    const bodies = new Bodies(network, { controllerC: 90, nandC: 70, caseC: 60 });
    for (let t = 0; t < 40; t++) bodies.step({ controller: 0, nand: 0, case: 0 }, 60);
    expect(bodies.caseC).toBeCloseTo(22, 3);
    expect(bodies.faceC).toBeCloseTo(22, 3);
  });
});

describe('controller and NAND over a case that stands still', () => {
  const f = chipModes(network);
  it('decay at the two rates whose sum and product are those of the matrix', () => {
    // (0.3 + 1/30)/2 and (0.5 + 1/30)/5: trace 0.166667 + 0.106667; determinant 0.166667 x 0.106667 - (1/30)²/10
    expect(f.slow + f.fast).toBeCloseTo(0.273333, 6);
    expect(f.slow * f.fast).toBeCloseTo(0.0177778 - 0.000111111, 6);
  });
  it('begin where they were and end where they settle', () => {
    const end = chipRises(network, 3, 2);
    const from = { controller: 1, nand: 2 };
    const start = chipsAfter(f, from, end, 0);
    expect(start.controller).toBeCloseTo(1, 9);
    expect(start.nand).toBeCloseTo(2, 9);
    const late = chipsAfter(f, from, end, 1000);
    expect(late.controller).toBeCloseTo(end.controller, 9);
    expect(late.nand).toBeCloseTo(end.nand, 9);
  });
  it('two steps of a second are one of two', () => {
    const end = chipRises(network, 3, 2);
    const from = { controller: 0, nand: 0 };
    const twice = chipsAfter(f, chipsAfter(f, from, end, 1), end, 1);
    const once = chipsAfter(f, from, end, 2);
    expect(twice.controller).toBeCloseTo(once.controller, 9);
    expect(twice.nand).toBeCloseTo(once.nand, 9);
  });
  it('parts of a step in power add up to the whole answer of the controller', () => {
    const rise = chipRises(network, 3, 2).controller;
    const parts = decayParts(network, power, 13.3333, 0.6);
    expect(parts.reduce((sum, part) => sum + part.kelvin, 0)).toBeCloseTo(rise + 13.3333, 6);
    // the case: 0.6 W/K over 97 J/K
    expect(parts[0]!.rate).toBeCloseTo(0.6 / 97, 9);
  });
  it('a surface under a fan has one slope, in still air a steeper one than its mean', () => {
    expect(heatSlope(network, 20)).toBeCloseTo(0.6, 6);
    const still = { ...network, surface: { ...network.surface, fanH: undefined } };
    expect(heatSlope(still, 20)).toBeGreaterThan(heatOut(still.surface, 20, 22) / 20);
  });
});

describe('the way through a job', () => {
  const warm = (cooling: object) => {
    const drive = fillDrive(aDrive());
    const enclosure = fillEnclosure(anEnclosure({ cooling: { kind: 'passive', ...cooling } }));
    const stack = planPads({ drive: drive.drive, doubleSided: false, enclosure: enclosure.enclosure });
    return thermalModel({ drive, enclosure, stack }, 'usb4-40g', undefined, { ambientC: 22 });
  };
  const write = (rate: number, gb: number): Phase => ({ activity: 'write', rate, perMB: 0, volumeMB: gb * 1000 });
  it('takes bytes over rate where nothing throttles: 300 GB at 2000, then 100 at 500, are 150 + 200 s', () => {
    const { typical, limits } = warm({ areaCm2: 500 });
    const run = followThrottling(typical, [write(2000, 300), { ...write(500, 100), activity: 'post' }], limits);
    expect(run.seconds).toBeCloseTo(350, 6);
    expect(run.movedGB).toBeCloseTo(400, 6);
    expect(run).toMatchObject({ throttleAtS: null, form: 'none', level: 0, throttledMBps: 0 });
  });
  it('files take their time whatever the throttle: 1 ms a MB on top', () => {
    const { typical, limits } = warm({ areaCm2: 500 });
    const run = followThrottling(typical, [{ ...write(1000, 50), perMB: 0.001 }], limits);
    expect(run.seconds).toBeCloseTo(100, 6);
  });
  it('a cache that drains while it fills ends later than without: 100 / (1 - 100/2000) = 105.26 GB', () => {
    const { typical, limits } = warm({ areaCm2: 500 });
    const fills = { sizeGB: 100, drain: 100, freeGB: 2000, bits: null };
    const run = followThrottling(
      typical,
      [
        { ...write(2000, 100), fills },
        { ...write(500, 100), activity: 'post' }
      ],
      limits
    );
    // 105.26 GB at 2000, the other 94.74 at 500
    expect(run.seconds).toBeCloseTo(105_263.16 / 2000 + 94_736.84 / 500, 2);
    expect(run.movedGB).toBeCloseTo(200, 6);
  });
  it('is longer the smaller the case, and never shorter than without a throttle', () => {
    const seconds = [40, 60, 90, 140, 300].map((areaCm2) => {
      const { typical, limits } = warm({ areaCm2, massG: 50 });
      return followThrottling(typical, [write(3000, 2000)], limits).seconds;
    });
    seconds.forEach((s, i) => expect(s).toBeLessThanOrEqual((seconds[i - 1] ?? Infinity) + 0.01));
    expect(seconds.at(-1)!).toBeGreaterThanOrEqual(2_000_000 / 3000 - 1e-6);
  });
  it('stops at its horizon, and moves as much as there was time for', () => {
    const { typical, limits } = warm({ areaCm2: 500 });
    const run = followThrottling(typical, [write(1000, Infinity)], limits, { horizonS: 120 });
    expect(run.seconds).toBeCloseTo(120, 6);
    expect(run.movedGB).toBeCloseTo(120, 6);
  });
  it('the time to the first throttling does not depend on what comes after, and is null where nothing is hot enough', () => {
    const { typical, limits } = warm({ areaCm2: 80, massG: 60 });
    const first = throttleTime(typical, [write(3400, Infinity)], limits)!;
    expect(followThrottling(typical, [write(3400, 5000)], limits).throttleAtS).toBeCloseTo(first, 3);
    const cool = warm({ areaCm2: 900 });
    expect(throttleTime(cool.typical, [write(3400, Infinity)], cool.limits)).toBeNull();
    expect(throttleTime(typical, [write(3400, Infinity)], null)).toBeNull();
  });
  it('one that is let go in the middle takes up its full rate again', () => {
    const { typical, limits } = warm({ areaCm2: 50, massG: 40 });
    const hot = followThrottling(typical, [write(3400, 900)], limits);
    expect(hot.throttleAtS).not.toBeNull();
    // ten minutes of a trickle, the first of them still throttled, and it is cool
    const after = followThrottling(typical, [write(3400, 900), write(20, 12), write(1000, 20)], limits);
    expect(after.seconds - hot.seconds).toBeGreaterThan(620);
    expect(after.seconds - hot.seconds).toBeLessThan(720);
    expect(after.level).toBe(0);
  });
});

describe('what is uncertain', () => {
  const of = (drive = {}, enclosure = {}, more: { ambientC?: number; fan?: boolean } = {}) => {
    const filled = fillDrive(aDrive(drive));
    const cased = fillEnclosure(anEnclosure(enclosure));
    const thermal = thermalModel(
      { drive: filled, enclosure: cased, stack: { filled: [] } },
      'usb4-40g',
      undefined,
      more
    );
    return {
      of: thermal.sources,
      parameters: typicalParameters(thermal.sources),
      names: uncertainParameters(thermal.sources, undefined).map((k) => k.name)
    };
  };
  it('lies around its typical value, each with words of its own', () => {
    const { of: about, parameters } = of(
      { label: 'paper' },
      { cooling: { kind: 'passive', finsCm2: 50, material: 'plastic' } }
    );
    const open = uncertainParameters(about, { low: 900, typical: 1000, high: 1100 });
    for (const { name, hot, cool } of open) {
      expect(parameters[name]).toBeGreaterThanOrEqual(Math.min(hot, cool));
      expect(parameters[name]).toBeLessThanOrEqual(Math.max(hot, cool));
      expect(PARAMETER_LABELS[name]).toMatch(/\w/);
    }
    expect(open.find((k) => k.name === 'rate')).toEqual({ name: 'rate', hot: 1.1, cool: 0.9 });
    // less surface, worse pads, a bigger share of the fins that does nothing: hotter
    for (const name of ['area', 'padConductivityShare', 'finShare', 'plastic'] as const) {
      const parameter = open.find((k) => k.name === name)!;
      expect(parameter.hot).toBeLessThan(parameter.cool);
    }
  });
  it('a fan instead of the finish, shells instead of boards, a stated room not at all', () => {
    expect(of({}, {}, { fan: true }).names).toContain('fanH');
    expect(of({}, {}, { fan: true }).names).not.toContain('emissivity');
    const shell = of({ media: 'sata-ssd', formFactor: '2.5in' }, { formFactor: '2.5in' }).names;
    expect(shell).toEqual(expect.arrayContaining(['shellController', 'shellNand']));
    expect(shell).not.toContain('boardPath');
    expect(of({}, {}, { ambientC: 25 }).names).not.toContain('ambientC');
    const disk = of({ media: 'hdd', formFactor: '3.5in' }, { formFactor: '3.5in' }).names;
    expect(disk).not.toContain('controllerShare');
    expect(disk).toContain('shellController');
  });
});
