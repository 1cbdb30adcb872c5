import type { LinkMode } from '../../facts/link-modes.ts';
import type { HouseRules } from '../../house-rules/house-rules.ts';
import { TOUCH } from '../../facts/thermal.ts';
import type { FilledDrive, FilledEnclosure } from '../../parts/fill/fill.ts';
import type { Band } from '../../quantities/band.ts';
import type { Celsius, Seconds } from '../../quantities/measures.ts';
import type { StackPlan } from '../../pads/plan-pads.ts';
import { drawOf, type Draw } from '../../chain/power-draw.ts';
import {
  copyParameters,
  uncertainParameters,
  typicalParameters,
  type ParameterName,
  type ThermalParameters,
  type ParameterSources,
  type UncertainParameter
} from '../model/parameters.ts';
import { followThrottling, type Phase } from '../throttling/timeline.ts';
import {
  chipRises,
  heatOut,
  networkOf,
  pathsOf,
  riseFor,
  settledTemperatures,
  thermalGeometry,
  surfaceOf,
  type ThermalGeometry,
  type Stands
} from '../model/network.ts';
import { powerAt, wattsOf } from '../model/power.ts';
import {
  throttleLimits,
  steadyState,
  type ThrottleLimits,
  type Load,
  type Setting,
  type SteadyState
} from '../throttling/throttle.ts';

/** How a build warms, with everything that is uncertain about it still open. */
export type ThermalModel = {
  geometry: ThermalGeometry;
  draw: Draw;
  sources: ParameterSources;
  limits: ThrottleLimits | null;
  typical: Setting;
};

export type Circumstances = {
  ambientC?: number | undefined;
  /** Instead of what the enclosure has. */
  fan?: boolean | undefined;
  /** Without any pads. */
  bare?: boolean | undefined;
  /** Instead of how it stands by its enclosure. */
  stands?: Stands | undefined;
};

export const settingAt = (geometry: ThermalGeometry, draw: Draw, parameters: ThermalParameters): Setting => ({
  geometry,
  draw,
  parameters,
  network: networkOf(geometry, parameters)
});

export function thermalModel(
  drive: FilledDrive,
  enclosure: FilledEnclosure,
  mode: LinkMode | null,
  stack: Pick<StackPlan, 'filled'>,
  rules: HouseRules | undefined,
  more: Circumstances = {}
): ThermalModel {
  const { cooling } = enclosure.enclosure;
  const fan = more.fan ?? cooling?.kind === 'fan';
  const geometry = thermalGeometry(
    drive,
    enclosure,
    stack,
    fan,
    more.bare === true,
    more.stands ?? cooling?.stands ?? 'flat'
  );
  const draw = drawOf(drive, enclosure, mode, fan);
  const of: ParameterSources = {
    drive,
    enclosure,
    draw,
    rules,
    ambientC: more.ambientC,
    fan,
    desk: geometry.deskM2 > 0
  };
  return {
    geometry,
    draw,
    sources: of,
    limits: throttleLimits(drive.drive),
    typical: settingAt(geometry, draw, typicalParameters(of))
  };
}

/** The same build behind a bridge in another mode: it draws otherwise, and nothing else of it changes. */
export function thermalModelInMode(
  mode: LinkMode,
  { geometry, sources: of, limits, typical }: ThermalModel
): ThermalModel {
  const draw = drawOf(of.drive, of.enclosure, mode, of.fan);
  const other: ParameterSources = { ...of, draw };
  // Bodies, paths and surface hang on nothing that a mode moves.
  return {
    geometry,
    draw,
    sources: other,
    limits,
    typical: { ...typical, draw, parameters: typicalParameters(other) }
  };
}

/** What one uncertain thing does to the controller at its hotter and its cooler end, K. */
export type Influence = { name: ParameterName; hotK: number; coolK: number };

/** Deviations of one parameter, K, in a flat array: controller, NAND and outer face at its hotter end, then at its cooler one. */
const HOT = { controller: 0, nand: 1, face: 2 } as const;
const COOL = { controller: 3, nand: 4, face: 5 } as const;
const ENDS = 6;

/** What of a build each parameter moves. */
const HANGS_ON: Record<ParameterName, 'heat' | 'surface' | 'paths' | 'room'> = {
  rate: 'heat',
  idleW: 'heat',
  heat: 'heat',
  bridge: 'heat',
  controllerShare: 'heat',
  padConductivityShare: 'paths',
  label: 'paths',
  area: 'surface',
  film: 'surface',
  deskH: 'surface',
  emissivity: 'surface',
  fanH: 'surface',
  finShare: 'surface',
  plastic: 'surface',
  boardPath: 'paths',
  chipToChip: 'paths',
  shellController: 'paths',
  shellNand: 'paths',
  ambientC: 'room'
};
/**
 * The likely hot and cool case. Each uncertain thing alone is put to its ends, the others typical; the deviations d that follow add
 * up like independent errors, as the root of the sum of their squares D. The case at that distance that is likeliest moves each
 * thing by d / D of the way to its end: everything bad at once would be hotter, and next to never happens.
 * Most builds never come near a limit and need the distances alone; the cases are made when somebody asks for them.
 */
export class LikelyCases {
  /** The controller under the load, everything typical. */
  readonly controllerC: Celsius;
  readonly open: readonly UncertainParameter[];
  /** `ENDS` deviations for each open parameter, K: objects of so many numbers would cost more than the temperatures. */
  readonly deviations: Float64Array;
  readonly #model: ThermalModel;
  readonly #made = new Map<number, Setting>();

  constructor(
    model: ThermalModel,
    open: readonly UncertainParameter[],
    deviations: Float64Array,
    controllerC: Celsius
  ) {
    this.#model = model;
    this.open = open;
    this.deviations = deviations;
    this.controllerC = controllerC;
  }

  /** What each thing does to the controller. */
  get influences(): Influence[] {
    return this.open.map(({ name }, i) => ({
      name,
      hotK: this.deviations[i * ENDS + HOT.controller]!,
      coolK: this.deviations[i * ENDS + COOL.controller]!
    }));
  }

  #whole(end: number): number {
    let squares = 0;
    for (let at = end; at < this.deviations.length; at += ENDS) squares += this.deviations[at]! ** 2;
    return Math.sqrt(squares);
  }

  #towards(end: number): Setting {
    let setting = this.#made.get(end);
    if (!setting) {
      const { geometry, draw, typical } = this.#model;
      const whole = this.#whole(end);
      const there = copyParameters(typical.parameters);
      if (whole > 0)
        this.open.forEach(({ name, hot, cool }, i) => {
          const to = end < COOL.controller ? hot : cool;
          there[name] += ((to - there[name]) * Math.abs(this.deviations[i * ENDS + end]!)) / whole;
        });
      setting = settingAt(geometry, draw, there);
      this.#made.set(end, setting);
    }
    return setting;
  }
  get hot(): Setting {
    return this.#towards(HOT.controller);
  }
  get cool(): Setting {
    return this.#towards(COOL.controller);
  }
  get faceHot(): Setting {
    return this.#towards(HOT.face);
  }
  get faceCool(): Setting {
    return this.#towards(COOL.face);
  }

  /** How far the likely hot case of the controller is from the typical one, K. */
  get hotterK(): number {
    return this.#whole(HOT.controller);
  }
}

/** Works out what each uncertain thing does under a load. */
export function likelyCases(model: ThermalModel, load: Load, rate: Band | undefined): LikelyCases {
  const { geometry, draw, sources: about, typical } = model;
  const { parameters: usual, network } = typical;
  const open = uncertainParameters(about, rate);
  const parameters = copyParameters(usual);
  const { ambientC, surface } = network;
  const power = powerAt(geometry, draw, parameters, load.activity, load.rate);
  const watts = wattsOf(power);
  const face = riseFor(surface, watts, ambientC);
  const chips = chipRises(network, power.controller, power.nand);
  const wall = watts * surface.wall;
  const deviations = new Float64Array(open.length * ENDS);
  let at = 0;
  /** Deviations of face, controller and NAND with one parameter moved: only what hangs on that parameter is worked out again. */
  const now = { face: 0, controller: 0, nand: 0 };
  const move = (name: ParameterName): void => {
    switch (HANGS_ON[name]) {
      case 'heat': {
        const moved = powerAt(geometry, draw, parameters, load.activity, load.rate * parameters.rate);
        const total = wattsOf(moved);
        now.face = riseFor(surface, total, ambientC, (face * total) / watts) - face;
        const inner = now.face + total * surface.wall - wall;
        const rises = chipRises(network, moved.controller, moved.nand);
        now.controller = inner + rises.controller - chips.controller;
        now.nand = inner + rises.nand - chips.nand;
        return;
      }
      case 'surface': {
        const other = surfaceOf(geometry, parameters);
        now.face = riseFor(other, watts, ambientC, face) - face;
        now.controller = now.nand = now.face + watts * other.wall - wall;
        return;
      }
      case 'paths': {
        const rises = chipRises(pathsOf(geometry, parameters), power.controller, power.nand);
        now.face = 0;
        now.controller = rises.controller - chips.controller;
        now.nand = rises.nand - chips.nand;
        return;
      }
      case 'room':
        now.face = parameters.ambientC + riseFor(surface, watts, parameters.ambientC, face) - ambientC - face;
        now.controller = now.nand = now.face;
    }
  };
  const keep = () => {
    deviations[at++] = now.controller;
    deviations[at++] = now.nand;
    deviations[at++] = now.face;
  };
  for (const { name, hot, cool } of open) {
    parameters[name] = hot;
    move(name);
    keep();
    parameters[name] = cool;
    move(name);
    keep();
    parameters[name] = usual[name];
  }
  return new LikelyCases(model, open, deviations, ambientC + face + wall + chips.controller);
}

/** How much nearer to a limit the hotter case may be than its distance says, for it is not quite linear. */
const NEAR = 1.2;
/** More than this share of the typical rise, and some kelvin of the room, no likely case is away from it. */
const FARTHEST = { share: 0.9, roomK: 8 } as const;

/**
 * Whether nothing throttles under these phases, not even in the likely hot case: its distance grows with the rise of the hottest of
 * them. Then a plan needs no case but the typical one.
 */
export function neverThrottles(
  { typical, limits }: ThermalModel,
  phases: readonly Phase[],
  casesOf: () => LikelyCases
): boolean {
  if (!limits) return true;
  const { ambientC } = typical.network;
  const hottest = hottestOf(typical, phases);
  if (hottest + FARTHEST.share * (hottest - ambientC) + FARTHEST.roomK < limits.startC) return true;
  if (hottest >= limits.startC) return false;
  const cases = casesOf();
  const scale = Math.max(1, (hottest - ambientC) / Math.max(1, cases.controllerC - ambientC));
  return hottest + cases.hotterK * scale * NEAR < limits.startC;
}

const bandOf = (cool: number, typical: number, hot: number): Band => ({
  low: Math.min(cool, typical),
  typical,
  high: Math.max(hot, typical)
});

export type SteadyForecast = { typical: SteadyState; caseC: Band; controllerC: Band; nandC: Band };

/**
 * Work that does not go on for long enough to warm the case through: chips follow within seconds and stand over the case as in
 * endless work, the case goes a share of its way from rest.
 */
function partlyWarmedUp(
  setting: Setting,
  load: Load,
  share: number,
  endless: SteadyState,
  limits: ThrottleLimits | null
): SteadyState {
  const { network, geometry, draw, parameters } = setting;
  const power = powerAt(geometry, draw, parameters, load.activity, load.rate * share);
  const at = settledTemperatures(network, power);
  const controllerC = at.caseC + endless.controllerC - endless.caseC;
  const nandC = at.caseC + endless.nandC - endless.caseC;
  const form = limits && controllerC > limits.startC ? endless.form : 'none';
  return { ...endless, form, controllerC, nandC, caseC: at.caseC, faceC: at.faceC };
}

/**
 * Where the last of some phases settles, as bands, throttling included.
 * @param share of its way that the case goes in work that ends before it is warmed through; 1 for work without end
 * @param cool whether nothing throttles, by `neverThrottles`: the bands are then the distances of the likely cases
 */
export function forecastSteady(
  model: ThermalModel,
  phases: readonly Phase[],
  cases: LikelyCases,
  share: number,
  cool: boolean
): SteadyForecast {
  const settled = (setting: Setting) => {
    const { rate } = setting.parameters;
    const own = rate === 1 ? phases : phases.map((phase) => ({ ...phase, rate: phase.rate * rate }));
    const endless = settlePhases(setting, own, model.limits);
    return share >= 1 ? endless : partlyWarmedUp(setting, own[own.length - 1]!, share, endless, model.limits);
  };
  const typical = settled(model.typical);
  if (cool) return bandsFromDeviations(model, typical, cases, share >= 1 ? 1 : undefined, phases[phases.length - 1]!);
  const hotCase = settled(cases.hot);
  if (hotCase.form === 'none' && typical.form === 'none')
    return bandsFromDeviations(model, typical, cases, share >= 1 ? 1 : undefined, phases[phases.length - 1]!);
  const coolCase = settled(cases.cool);
  // On its way to a plateau at half rate a drive gets to where it throttles, though it settles below that.
  const reached = hotCase.form === 'none' ? hotCase.controllerC : Math.max(hotCase.controllerC, model.limits!.startC);
  return {
    typical,
    caseC: bandOf(settled(cases.faceCool).faceC, typical.faceC, settled(cases.faceHot).faceC),
    controllerC: bandOf(coolCase.controllerC, typical.controllerC, reached),
    nandC: bandOf(coolCase.nandC, typical.nandC, hotCase.nandC)
  };
}

/** The bands around the typical temperatures: what a thing does to the case counts by how far the case gets. */
function bandsFromDeviations(
  { typical: { network, geometry, draw, parameters } }: ThermalModel,
  typical: SteadyState,
  cases: LikelyCases,
  whole: 1 | undefined,
  load: Load
): SteadyForecast {
  const { ambientC } = network;
  const endless = whole
    ? typical.faceC
    : settledTemperatures(network, powerAt(geometry, draw, parameters, load.activity, load.rate)).faceC;
  const part = endless > ambientC ? Math.min(1, (typical.faceC - ambientC) / (endless - ambientC)) : 1;
  let [hotC, coolC, hotN, coolN, hotF, coolF] = [0, 0, 0, 0, 0, 0];
  const { open, deviations } = cases;
  for (let i = 0, at = 0; i < open.length; i++, at += ENDS) {
    // A warmer room is felt whole; of everything else that part which the case goes.
    const missing = open[i]!.name === 'ambientC' ? 0 : 1 - part;
    const [hotter, cooler] = [deviations[at + HOT.face]!, deviations[at + COOL.face]!];
    hotC += (deviations[at + HOT.controller]! - hotter * missing) ** 2;
    coolC += (deviations[at + COOL.controller]! - cooler * missing) ** 2;
    hotN += (deviations[at + HOT.nand]! - hotter * missing) ** 2;
    coolN += (deviations[at + COOL.nand]! - cooler * missing) ** 2;
    hotF += (hotter * (1 - missing)) ** 2;
    coolF += (cooler * (1 - missing)) ** 2;
  }
  const around = (value: Celsius, cooler: number, hotter: number): Band => ({
    low: value - Math.sqrt(cooler),
    typical: value,
    high: value + Math.sqrt(hotter)
  });
  return {
    typical,
    caseC: around(typical.faceC, coolF, hotF),
    controllerC: around(typical.controllerC, coolC, hotC),
    nandC: around(typical.nandC, coolN, hotN)
  };
}

/** The hottest that the controller gets where some phase alone goes on for ever at full rate. */
function hottestOf({ network, geometry, draw, parameters }: Setting, phases: readonly Phase[]): Celsius {
  let hottest = -Infinity;
  for (const { activity: work, rate, perMB } of phases) {
    const power = powerAt(geometry, draw, parameters, work, rate <= 0 ? 0 : 1 / (1 / rate + perMB));
    hottest = Math.max(hottest, settledTemperatures(network, power).controllerC);
  }
  return hottest;
}

/** Whether some phase alone, going on for ever at full rate, would be too hot: nothing cooler can ever throttle. */
export const mayThrottle = (setting: Setting, phases: readonly Phase[], limits: ThrottleLimits | null): boolean =>
  limits !== null && hottestOf(setting, phases) > limits.startC;

/** Time until the first throttling under these phases, or null where none of them ever gets that hot. */
export function throttleTime(
  setting: Setting,
  phases: readonly Phase[],
  limits: ThrottleLimits | null
): Seconds | null {
  return mayThrottle(setting, phases, limits)
    ? followThrottling(setting, phases, limits, Infinity, { untilThrottle: true }).throttleAtS
    : null;
}

/**
 * Where work without end settles that begins with other phases: a drive that was throttled in one of them comes to the last one
 * throttled, and may stay so.
 */
export function settlePhases(setting: Setting, phases: readonly Phase[], limits: ThrottleLimits | null): SteadyState {
  const last = phases[phases.length - 1]!;
  if (phases.length === 1) return steadyState(setting, last, limits);
  const before = phases.slice(0, -1);
  const held = mayThrottle(setting, before, limits) ? followThrottling(setting, before, limits).level : 0;
  return steadyState(setting, last, limits, held);
}

export type Touch = 'comfortable' | 'brief' | 'do-not-hold';

/** How a case of this temperature may be touched, by its material. */
export function touchOf(faceC: Celsius, material: 'aluminium' | 'plastic'): Touch {
  const limits = TOUCH[material];
  return faceC <= limits.hoursC ? 'comfortable' : faceC <= limits.tenSecondsC ? 'brief' : 'do-not-hold';
}

/** The time in which the case comes 63 % of the way, s: all of its heat capacity over what it gives off at 15 K. */
export function timeConstant({ network }: Setting): Seconds {
  const { controllerJK, nandJK, caseJK, surface, ambientC } = network;
  return (controllerJK + nandJK + caseJK) / (heatOut(surface, 15, ambientC) / 15);
}

/** How long until a case is cool enough for hours of contact after its drive was ejected, s; 0 where it is already. */
export function coolingTime(setting: Setting, fromC: Celsius, watts: number): Seconds | null {
  const { network } = setting;
  const { surface, ambientC } = network;
  const limit = TOUCH.aluminium.hoursC;
  if (fromC <= limit) return 0;
  if (ambientC + riseFor(surface, watts, ambientC) >= limit) return null;
  const whole = network.controllerJK + network.nandJK + network.caseJK;
  // Degree by degree, each in the time that its heat takes to leave.
  let seconds = 0;
  for (let caseC = fromC; caseC > limit; caseC -= 1) {
    const part = Math.min(1, caseC - limit);
    seconds += (whole * part) / (heatOut(surface, caseC - part / 2 - ambientC, ambientC) - watts);
  }
  return seconds;
}
