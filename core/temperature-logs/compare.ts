/* eslint-disable @typescript-eslint/no-non-null-assertion -- a run has one sample at least */
import type { PlanInput } from '../plan/report.ts';
import { resolveBuild } from '../plan/resolve-build.ts';
import type { Band } from '../quantities/band.ts';
import type { Celsius, Seconds } from '../quantities/measures.ts';
import { fitEnclosure, missingForFit, type Fit, type FitPoint } from './fit.ts';
import { extrapolate, readLog, type Probe, type TemperatureReading, type TemperatureLog } from './log.ts';
import { settledTemperatures } from '../thermal/model/network.ts';
import { powerAt } from '../thermal/model/power.ts';
import type { Setting } from '../thermal/model/setting.ts';
import { thermalModel, type ThermalModel } from '../thermal/forecast/thermal-model.ts';
import { likelyCases } from '../thermal/forecast/likely-cases.ts';
import { plainFlow } from '../simulate/flow.ts';
import { runTransient } from '../simulate/transient.ts';

/** A log held against the forecast of its build. */
export type ComparedLog = {
  reading: TemperatureReading;
  /** What the model says for the same work, room and place: where it settles, with its band, and where it would be by then. */
  predicted: { settledC: Band; thenC: Celsius };
  /** Where the log would have settled; null where it is too short to say. */
  settledC: Celsius | null;
  /** Share of its way that it had gone, 1 when settled. */
  share: number | null;
  /** Measured less predicted, both settled, K. */
  differenceK: number | null;
  within: boolean | null;
};

const at = (place: Probe, t: { controllerC: Celsius; nandC: Celsius; faceC: Celsius }): Celsius =>
  place === 'case' ? t.faceC : place === 'nand' ? t.nandC : t.controllerC;

/** How the build of a log warms in the room of that log, with or without what was fitted to its enclosure. */
function modelFor(build: PlanInput, log: TemperatureLog, fitted: boolean): ThermalModel {
  const { cooling } = build.enclosure;
  const enclosure =
    fitted || !cooling ? build.enclosure : { ...build.enclosure, cooling: { ...cooling, measured: undefined } };
  const resolved = resolveBuild({ ...build, enclosure });
  const { drive, enclosure: filled, negotiation, pads, rules } = resolved;
  const { ambientC, fan } = log;
  return thermalModel({ drive, enclosure: filled, stack: pads }, negotiation.mode, rules, { ambientC, fan });
}

const settledUnder = (setting: Setting, log: TemperatureLog) =>
  settledTemperatures(setting.network, powerAt(setting, log.work, log.MBps * setting.parameters.rate));

/** The prediction some time after the work began, from settled idle. */
function thenUnder(setting: Setting, log: TemperatureLog, seconds: Seconds): Celsius {
  if (seconds <= 0 || log.work === 'idle') return at(log.place, settledUnder(setting, log));
  const run = runTransient(
    setting,
    null,
    [{ flow: plainFlow(Math.max(1e-9, log.MBps), log.work), perMB: 0, volumeGB: Infinity }],
    { seconds, everyS: seconds, stepS: Math.max(2, seconds / 400) }
  );
  const { controllerC, nandC, caseC } = run.samples;
  return at(log.place, { controllerC: controllerC.at(-1)!, nandC: nandC.at(-1)!, faceC: caseC.at(-1)! });
}

/**
 * Holds a log against the model: settled or not yet, extrapolated where short, and inside the band or not.
 * @example compareLog(anInput(), { work: 'idle', MBps: 0, place: 'case', ambientC: 22, fan: false, points: [{ minutes: 0, C: 30 }] }).predicted.settledC.typical >= 22 // true
 */
export function compareLog(build: PlanInput, log: TemperatureLog, fitted = true): ComparedLog {
  const thermal = modelFor(build, log, fitted);
  const reading = readLog(log);
  const { typical } = thermal;
  const load = { activity: log.work, rate: log.MBps, perMB: 0 };
  const cases = likelyCases(thermal, load, undefined);
  const [hot, cool] = log.place === 'case' ? [cases.faceHot, cases.faceCool] : ([cases.hot, cases.cool] as const);
  const of = (setting: Setting) => at(log.place, settledUnder(setting, log));
  const settledC = { low: of(cool), typical: of(typical), high: of(hot) };
  const startC = at(log.place, settledTemperatures(typical.network, powerAt(typical, 'idle', 0)));
  const thenC = thenUnder(typical, log, reading.afterS);
  const done = extrapolate(log, { startC, thenC, settledC: settledC.typical });
  return {
    reading,
    predicted: { settledC, thenC },
    settledC: done?.C ?? null,
    share: done?.share ?? null,
    differenceK: done ? done.C - settledC.typical : null,
    within: done ? done.C >= settledC.low && done.C <= settledC.high : null
  };
}

export type EnclosureFit = { fit: Fit | null; missing: string | null; used: number; leftOut: number };

/**
 * Fits an enclosure to the logs of all builds in it; those that are too short to say where they settle are left out.
 * @example fitLogs([]).fit // null
 */
export function fitLogs(logs: readonly { build: PlanInput; log: TemperatureLog }[]): EnclosureFit {
  const readings: FitPoint[] = logs.flatMap(({ build, log }) => {
    const { settledC } = compareLog(build, log, false);
    if (settledC === null) return [];
    const { typical } = modelFor(build, log, false);
    return [
      {
        setting: typical,
        load: { activity: log.work, rate: log.MBps, perMB: 0 },
        place: log.place,
        measuredC: settledC
      }
    ];
  });
  return {
    fit: fitEnclosure(readings),
    missing: missingForFit(readings),
    used: readings.length,
    leftOut: logs.length - readings.length
  };
}
