import { describe, expect, it } from 'vitest';
import { anEnclosure, anInput } from '../../tests/parts';
import { seeded } from '../quantities/random';
import { extrapolate, readLog, readPastedLog, temperatureLogSchema, type TemperatureLog } from './log';
import { compareLog, fitLogs } from './compare';
import { simulate } from '../simulate/simulate';

const log = (change: Partial<TemperatureLog> = {}): TemperatureLog => ({
  ambientC: 22,
  place: 'case',
  work: 'write',
  MBps: 1000,
  points: [{ minutes: 40, C: 45 }],
  ...change
});

describe('what a log says by itself', () => {
  it('45 °C at 22 are 23 K over the air; one point does not tell whether it still climbs', () =>
    expect(readLog(log())).toMatchObject({ lastC: 45, riseK: 23, afterS: 2400, slope: null, state: 'unknown' }));
  it('0.3 K/min over the last three minutes is steady, 1 K/min is not', () => {
    const climbing = (perMinute: number) =>
      readLog(log({ points: [0, 5, 6, 7, 8].map((minutes) => ({ minutes, C: 30 + perMinute * minutes })) }));
    expect(climbing(0.3)).toMatchObject({ state: 'steady' });
    expect(climbing(0.3).slope).toBeCloseTo(0.3, 9);
    expect(climbing(1)).toMatchObject({ state: 'not-yet' });
  });
  it('40 °C after having gone half of the way from 30 would have settled at 50', () => {
    const short = log({ idleC: 30, points: [{ minutes: 5, C: 40 }] });
    expect(extrapolate(short, { startC: 31, thenC: 41, settledC: 51 })).toEqual({ C: 50, share: 0.5 });
    // a tenth of the way says nothing
    expect(extrapolate(short, { startC: 31, thenC: 33, settledC: 51 })).toBeNull();
    expect(extrapolate(short, { startC: 31, thenC: 50.9, settledC: 51 })).toEqual({ C: 40, share: 1 });
  });
  it('times that do not rise are refused', () =>
    expect(
      temperatureLogSchema.safeParse(
        log({
          points: [
            { minutes: 2, C: 40 },
            { minutes: 2, C: 41 }
          ]
        })
      ).success
    ).toBe(false));
});

describe('pasted logs', () => {
  it.each([
    [
      '0 30\n1 34.5\n2 37',
      [
        [0, 30],
        [1, 34.5],
        [2, 37]
      ]
    ],
    [
      't_s;T\n0;30\n90;51,5',
      [
        [0, 30],
        [1.5, 51.5]
      ]
    ],
    [
      '0:30 41\n1:30 44 °C',
      [
        [0.5, 41],
        [1.5, 44]
      ]
    ],
    [
      '10:00:00\t30\n10:02:30\t41',
      [
        [0, 30],
        [2.5, 41]
      ]
    ],
    [
      '30 s, 33\n2 min, 40',
      [
        [0.5, 33],
        [2, 40]
      ]
    ]
  ] as const)('%j', (text, points) => expect(readPastedLog(text).points.map((p) => [p.minutes, p.C])).toEqual(points));
  it('what is no pair is shown, not guessed', () =>
    expect(readPastedLog('hello\n1 30\n2 =cmd()').skipped).toEqual(['hello', '2 =cmd()']));
});

describe('held against the model', () => {
  const build = (cooling = {}) =>
    anInput({ enclosure: anEnclosure({ cooling: { kind: 'passive', areaCm2: 150, massG: 100, ...cooling } }) });
  /** What the model itself would show at this place after some minutes. */
  const played = (minutes: number, place: TemperatureLog['place'], MBps: number) => {
    const run = simulate({ ...build(), seconds: minutes * 60, ambientC: 22, writeGB: (MBps * minutes * 60) / 900 })!;
    return { caseC: run.samples.caseC.at(-1)!, controllerC: run.samples.controllerC.at(-1)! }[
      place === 'case' ? 'caseC' : 'controllerC'
    ];
  };
  it('its own temperatures after ten minutes come out where it settles, and inside the band', () => {
    const MBps = 1000;
    const slow = anInput({
      ...build(),
      host: { ...build().host, ports: [{ ...build().host.ports[0]!, modes: ['usb-10g'] }] }
    });
    const run = simulate({ ...slow, seconds: 600, ambientC: 22, everyS: 60 })!;
    const points = run.samples.t.slice(1).map((t, i) => ({ minutes: t / 60, C: run.samples.caseC[i + 1]! }));
    const compared = compareLog(slow, log({ MBps, points }));
    expect(compared.share).toBeGreaterThan(0.3);
    expect(compared.share).toBeLessThan(0.8);
    expect(Math.abs(compared.differenceK!)).toBeLessThan(0.3);
    expect(compared.within).toBe(true);
    expect(compared.predicted.thenC).toBeCloseTo(points.at(-1)!.C, 1);
  });
  it('is deterministic and says nothing of a log of seconds', () => {
    expect(compareLog(build(), log({ points: [{ minutes: 0.2, C: 33 }] })).settledC).toBeNull();
    expect(compareLog(build(), log())).toEqual(compareLog(build(), log()));
    expect(played(5, 'case', 1000)).toBeLessThan(played(20, 'case', 1000));
  });

  /** Readings of a case that warms 1.3 times as much, whose chips warm 0.8 times as much over it, with a little noise. */
  const truth = { caseFactor: 1.3, chipFactor: 0.8 };
  const readings = (noiseK: number, places: TemperatureLog['place'][]) => {
    const random = seeded(5);
    const real = build({ measured: { ...truth, readings: 1 } });
    return places.flatMap((place, i) =>
      [600, 1400].map((MBps) => {
        const settled = compareLog(real, log({ place, MBps, ambientC: 20 + i })).predicted.settledC.typical;
        return {
          build: build(),
          log: log({
            place,
            MBps,
            ambientC: 20 + i,
            points: [{ minutes: 200, C: settled + (random() - 0.5) * 2 * noiseK }]
          })
        };
      })
    );
  };
  it('finds the factors that the readings were made with, and says how far off it was before', () => {
    const { fit } = fitLogs(readings(0, ['case', 'controller', 'nand']));
    expect(fit!.caseFactor).toBeCloseTo(1.3, 2);
    expect(fit!.chipFactor).toBeCloseTo(0.8, 2);
    expect(fit!.beforeK).toBeGreaterThan(2);
    expect(fit!.afterK).toBeLessThan(0.1);
  });
  it('with 0.5 K of noise it is within a tenth', () => {
    const { fit } = fitLogs(readings(0.5, ['case', 'controller', 'nand']));
    expect(fit!.caseFactor / 1.3).toBeCloseTo(1, 1);
    expect(fit!.afterK).toBeLessThan(0.6);
  });
  it('readings of the case alone tell nothing about the chips; too few tell nothing', () => {
    const onCase = fitLogs(readings(0, ['case']));
    expect(onCase.fit).toMatchObject({ readings: 2 });
    expect(onCase.fit).not.toHaveProperty('chipFactor');
    const one = fitLogs(readings(0, ['controller']).slice(0, 1));
    expect(one.fit).toBeNull();
    expect(one.missing).toMatch(/Two settled readings/);
  });
});
