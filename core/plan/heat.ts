/* eslint-disable @typescript-eslint/no-non-null-assertion -- a load has one phase at least */
import { appliedRule, ruleName, chosenOption, type AppliedRule, type HouseRules } from '../house-rules/house-rules.ts';
import { BRIDGE_LIMIT_C, BRIDGE_PATH, DISK_LIMIT_C, EJECTED_SHARE, TOUCH } from '../facts/thermal.ts';
import type { Finding } from '../findings/finding.ts';
import type { Drive } from '../parts/drive.ts';
import type { Enclosure } from '../parts/enclosure.ts';
import { scaleBand, type Band } from '../quantities/band.ts';
import { bridgeWatts } from '../chain/power-draw.ts';
import { PARAMETER_LABELS } from '../thermal/model/parameters.ts';
import type { ThrottleTimeline } from '../thermal/throttling/timeline.ts';
import type { Phase } from '../thermal/throttling/phase-volume.ts';
import { settledTemperatures } from '../thermal/model/network.ts';
import { powerAt, wattsOf } from '../thermal/model/power.ts';
import type { Setting } from '../thermal/model/setting.ts';
import type { ThermalModel } from '../thermal/forecast/thermal-model.ts';
import { coolingTime, timeConstant, touchOf } from '../thermal/forecast/touch.ts';
import { forecastSteady, type SteadyForecast } from '../thermal/forecast/bands.ts';
import { likelyCases, type LikelyCases } from '../thermal/forecast/likely-cases.ts';
import { neverThrottles, throttleTime } from '../thermal/forecast/when-throttled.ts';
import type { DescribedLoad } from './load.ts';
import type { PlanReport } from './report.ts';

type Made = { thermal: NonNullable<PlanReport['thermal']>; findings: Finding[]; decisions: AppliedRule[] };

/** What of a build the thermal report looks at beside how it warms. */
export type HeatOf = {
  enclosure: Enclosure;
  isDisk: boolean;
  /** The range that the drive's sheet states. */
  operating?: Drive['operating'];
  rules: HouseRules | undefined;
};

const AT_REST: readonly Phase[] = [{ activity: 'idle', rate: 0, perMB: 0, volumeMB: Infinity }];

/** Everything that was worked out about the heat of a build, before it is written down. */
type Heat = {
  of: HeatOf;
  model: ThermalModel;
  running: DescribedLoad | null;
  timeline: ThrottleTimeline | null;
  load: Phase;
  cases: LikelyCases;
  steady: SteadyForecast;
  bridgeC: Band;
};

function heatOf(of: HeatOf, model: ThermalModel, running: DescribedLoad | null, timeline: Heat['timeline']): Heat {
  const phases = running?.steadyPhases ?? AT_REST;
  const load = phases[phases.length - 1]!;
  const cases = running?.cases ?? likelyCases(model, load, undefined);
  const cool = running?.neverThrottles ?? neverThrottles(model, phases, () => cases);
  const steady = forecastSteady(model, { phases, warmUpFraction: running?.warmUpFraction ?? 1 }, cases, cool);
  const bridge = bridgeTemperature(model, steady, load.activity === 'idle' ? 0 : steady.typical.rate);
  return { of, model, running, timeline, load, cases, steady, bridgeC: bridge };
}

/**
 * Gives the temperature of the bridge chip, °C: it follows the case at once, so it is no body of its own but a rise over the case,
 * P x (6 - 10 - 16 K/W). The band takes both uncertainties as independent.
 */
function bridgeTemperature(
  { typical: { draw, parameters } }: ThermalModel,
  steady: SteadyForecast,
  rate: number
): Band {
  const watts = bridgeWatts(draw, rate) * parameters.bridge;
  const { caseC } = steady;
  const typical = caseC.typical + watts * BRIDGE_PATH.typical;
  return {
    low: typical - Math.hypot(caseC.typical - caseC.low, watts * (BRIDGE_PATH.typical - BRIDGE_PATH.low)),
    typical,
    high: typical + Math.hypot(caseC.high - caseC.typical, watts * (BRIDGE_PATH.high - BRIDGE_PATH.typical))
  };
}

/** Forecasts how long the work goes on before the drive throttles, s; null where it does not. */
function throttleAfter({ model, running, cases, steady }: Heat): Band | null {
  if (!running || running.neverThrottles) return null;
  const phases = withoutEnd(running.phases);
  const at = (setting: Setting) => throttleTime(setting, phases, model.limits);
  const typical = at(model.typical);
  if (typical === null) return null;
  // No write lasts longer than the drive has room.
  const longest = (running.freeGB * 1000) / Math.max(1, steady.typical.rate);
  const [hot, cool] = [at(cases.hot), at(cases.cool)];
  return { low: Math.min(hot ?? typical, typical), typical, high: Math.max(cool ?? longest, typical) };
}

/** Makes a job begin again and again. */
function withoutEnd(phases: readonly Phase[]): Phase[] {
  const last = phases[phases.length - 1]!;
  return [...phases.slice(0, -1), { ...last, volumeMB: Infinity }];
}

const materialOf = ({ geometry }: ThermalModel) => (geometry.plastic ? 'plastic' : 'aluminium');
const holdsHotCaseAsFault = ({ rules }: HeatOf) => chosenOption('hot-case', rules) === 'fault';

/** Looks whether the room is one that the drive is made for. */
function roomFindings(operating: HeatOf['operating'], roomC: number): Finding[] {
  const { minC = -Infinity, maxC = Infinity } = operating ?? {};
  if (roomC >= minC && roomC <= maxC) return [];
  return [
    {
      code: 'room-outside-drive-range',
      severity: 'check',
      about: 'drive',
      roomC,
      limitC: roomC < minC ? minC : maxC
    }
  ];
}

/** Looks at the drive and the bridge while they work. */
function chipFindings({ of, model, timeline, steady, bridgeC }: Heat): Finding[] {
  const { limits } = model;

  const findings: Finding[] = [];
  findings.push(...roomFindings(of.operating, model.typical.parameters.ambientC));
  const diskLimitC = of.operating?.maxC ?? DISK_LIMIT_C;
  const offAtS = timeline?.offAtS ?? null;
  if (limits && (offAtS !== null || steady.typical.form === 'off'))
    findings.push({
      code: 'drive-shuts-down',
      severity: 'check',
      about: 'drive',
      afterS: offAtS,
      offC: limits.offC
    });
  if (bridgeC.typical > BRIDGE_LIMIT_C)
    findings.push({
      code: 'bridge-too-hot',
      severity: 'check',
      about: 'enclosure',
      bridgeC: bridgeC.typical,
      limitC: BRIDGE_LIMIT_C
    });
  if (limits === null && steady.controllerC.typical > diskLimitC)
    findings.push({
      code: 'disk-too-warm',
      severity: 'check',
      about: 'drive',
      diskC: steady.controllerC.typical,
      limitC: diskLimitC
    });
  return findings;
}

/** Looks at the case while a hand may be on it. */
function caseFindings({ of, model, steady }: Heat): Finding[] {
  const { enclosure, rules } = of;
  const asFault = holdsHotCaseAsFault(of);
  const material = materialOf(model);
  const limitC = asFault ? TOUCH[material].tenMinutesC : TOUCH[material].tenSecondsC;
  // When the surface area is only assumed, the case is called too hot only if the low end of the band is above the limit.
  const { cooling } = enclosure;
  const assumed = cooling?.areaCm2 === undefined && !cooling?.measured;
  const faceC = steady.caseC.typical;
  if ((assumed ? steady.caseC.low : faceC) <= limitC) return [];
  return [
    {
      code: 'case-too-hot-to-hold',
      severity: 'check',
      about: 'enclosure',
      caseC: faceC,
      limitC,
      material,
      ...(asFault ? { rule: ruleName('hot-case', rules) } : {})
    }
  ];
}

/** Names the house rule on hot cases where a case is warm enough for it to matter. */
function hotCaseRule({ of, model, steady }: Heat): AppliedRule[] {
  const faceC = steady.caseC.typical;
  if (touchOf(faceC, materialOf(model)) === 'comfortable') return [];
  return [
    appliedRule(
      'hot-case',
      of.rules,
      holdsHotCaseAsFault(of)
        ? `a case of ${Math.round(faceC)} °C is held against the limit for ten minutes of contact`
        : `a case of ${Math.round(faceC)} °C is judged by the chips and by burns within seconds alone`
    )
  ];
}

/** Writes the figures of the report. */
function thermalFigures(heat: Heat): Made['thermal'] {
  const { of, model, running, timeline, load, cases, steady, bridgeC } = heat;
  const setting = model.typical;
  const material = materialOf(model);
  const idlePower = powerAt(setting, 'idle', 0);
  const idleW = wattsOf(idlePower);
  const { measured } = of.enclosure.cooling ?? {};
  return {
    steadyCaseC: steady.caseC,
    steadyControllerC: steady.controllerC,
    steadyNandC: of.isDisk ? null : steady.nandC,
    steadyBridgeC: bridgeC,
    throttleAfterS: throttleAfter(heat),
    touch: touchOf(steady.caseC.typical, material),
    form: steady.typical.form,
    load: { work: load.activity, MBps: load.rate, share: running?.warmUpFraction ?? 1 },
    watts: wattsOf(steady.typical.power),
    idleW,
    idleCaseC: settledTemperatures(setting.network, idlePower).faceC,
    ejectedWhPerDay: scaleBand(idleW * 24, EJECTED_SHARE.low, EJECTED_SHARE.typical, EJECTED_SHARE.high),
    coolsInS: coolingTime(setting, steady.typical.caseC, idleW * EJECTED_SHARE.typical),
    peak: timeline
      ? { controllerC: timeline.peakControllerC, caseC: timeline.peakFaceC, throttleAtS: timeline.throttleAtS }
      : null,
    ambientC: setting.parameters.ambientC,
    material,
    timeConstantS: timeConstant(setting),
    startC: model.limits?.startC ?? null,
    influences: cases.influences
      .map(({ name, hotK, coolK }) => ({ what: PARAMETER_LABELS[name], hotK, coolK }))
      .sort((x, y) => Math.abs(y.hotK) - Math.abs(x.hotK)),
    fitted: measured ? { ...measured } : null
  };
}

/**
 * Writes the thermal part of a report. Steady temperatures are those of the job at its own duty: how far the case gets in it, or over
 * and over; without a job those of writing without end; without a link those at rest.
 * @param running null where nothing runs
 * @param timeline the job followed through its throttling, where it was
 */
export function thermalReport(
  of: HeatOf,
  model: ThermalModel,
  running: DescribedLoad | null,
  timeline: ThrottleTimeline | null
): Made {
  const heat = heatOf(of, model, running, timeline);
  return {
    findings: running ? [...chipFindings(heat), ...caseFindings(heat)] : [],
    decisions: running ? hotCaseRule(heat) : [],
    thermal: thermalFigures(heat)
  };
}
