/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices into the table of deviations, ENDS for each parameter */
import type { Band } from '../../quantities/band.ts';
import type { Celsius } from '../../quantities/measures.ts';
import { chipRises, pathsOf, riseFor, surfaceOf, type Power } from '../model/network.ts';
import {
  copyParameters,
  uncertainParameters,
  type ParameterName,
  type ThermalParameters,
  type UncertainParameter
} from '../model/parameters.ts';
import { powerAt, wattsOf } from '../model/power.ts';
import { settingAt, type Setting } from '../model/setting.ts';
import type { Load } from '../throttling/throttle.ts';
import type { ThermalModel } from './thermal-model.ts';

/** What one uncertain thing does to the controller at its hotter and its cooler end, K. */
export type Influence = { name: ParameterName; hotK: number; coolK: number };

/** Deviations of one parameter, K, in a flat array: controller, NAND and outer face at its hotter end, then at its cooler one. */
const HOT = { controller: 0, nand: 1, face: 2 } as const;
const COOL = { controller: 3, nand: 4, face: 5 } as const;
const ENDS = 6;

/** What is looked at, at its hotter or its cooler end. */
export type DeviationEnd = 'hotController' | 'hotNand' | 'hotFace' | 'coolController' | 'coolNand' | 'coolFace';
const END_AT: Record<DeviationEnd, number> = {
  hotController: HOT.controller,
  hotNand: HOT.nand,
  hotFace: HOT.face,
  coolController: COOL.controller,
  coolNand: COOL.nand,
  coolFace: COOL.face
};

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
  readonly deviations: readonly number[];
  readonly #model: ThermalModel;
  readonly #made = new Map<number, Setting>();

  constructor(
    model: ThermalModel,
    open: readonly UncertainParameter[],
    deviations: readonly number[],
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

  /** Adds up the deviations at one end like independent errors, K; of all that is no ambient only a part is felt. */
  spread(end: DeviationEnd, felt: number): number {
    const own = END_AT[end];
    const face = own < COOL.controller ? HOT.face : COOL.face;
    let squares = 0;
    for (let i = 0, at = 0; i < this.open.length; i++, at += ENDS) {
      // A warmer room is felt whole; of everything else that part which the case goes.
      const missing = this.open[i]!.name === 'ambientC' ? 0 : 1 - felt;
      squares += (this.deviations[at + own]! - this.deviations[at + face]! * missing) ** 2;
    }
    return Math.sqrt(squares);
  }

  /** How far the likely hot case of the controller is from the typical one, K. */
  get hotterK(): number {
    return this.#whole(HOT.controller);
  }
}

/** One load at the typical setting, and what moving one parameter does to its temperatures, K. */
class Deviations {
  readonly #model: ThermalModel;
  readonly #load: Load;
  readonly #power: Power;
  readonly #watts: number;
  readonly #face: number;
  readonly #chips: { controller: number; nand: number };
  /** Drop over the wall of the case, K. */
  readonly #wall: number;
  face = 0;
  controller = 0;
  nand = 0;

  constructor(model: ThermalModel, load: Load) {
    const { network } = model.typical;
    this.#model = model;
    this.#load = load;
    this.#power = powerAt(model.typical, load.activity, load.rate);
    this.#watts = wattsOf(this.#power);
    this.#face = riseFor(network.surface, this.#watts, network.ambientC);
    this.#chips = chipRises(network, this.#power.controller, this.#power.nand);
    this.#wall = this.#watts * network.surface.wall;
  }

  /** The controller with everything typical, °C. */
  get controllerC(): Celsius {
    return this.#model.typical.network.ambientC + this.#face + this.#wall + this.#chips.controller;
  }

  /** Works out face, controller and NAND with one parameter moved: only what hangs on that parameter is worked out again. */
  move(name: ParameterName, parameters: ThermalParameters): void {
    const on = HANGS_ON[name];
    if (on === 'heat') this.#moveHeat(parameters);
    else if (on === 'surface') this.#moveSurface(parameters);
    else if (on === 'paths') this.#movePaths(parameters);
    else this.#moveRoom(parameters.ambientC);
  }

  #moveHeat(parameters: ThermalParameters): void {
    const { geometry, draw, typical } = this.#model;
    const { network } = typical;
    const { surface, ambientC } = network;
    const power = powerAt({ geometry, draw, parameters }, this.#load.activity, this.#load.rate * parameters.rate);
    const total = wattsOf(power);
    this.face = riseFor(surface, total, ambientC, (this.#face * total) / this.#watts) - this.#face;
    this.#setChips(this.face + total * surface.wall - this.#wall, chipRises(network, power.controller, power.nand));
  }

  #moveSurface(parameters: ThermalParameters): void {
    const surface = surfaceOf(this.#model.geometry, parameters);
    this.face = riseFor(surface, this.#watts, this.#model.typical.network.ambientC, this.#face) - this.#face;
    this.controller = this.nand = this.face + this.#watts * surface.wall - this.#wall;
  }

  #movePaths(parameters: ThermalParameters): void {
    const { controller, nand } = this.#power;
    this.face = 0;
    this.#setChips(0, chipRises(pathsOf(this.#model.geometry, parameters), controller, nand));
  }

  #moveRoom(ambientC: Celsius): void {
    const { network } = this.#model.typical;
    const moved = ambientC + riseFor(network.surface, this.#watts, ambientC, this.#face);
    this.face = moved - network.ambientC - this.#face;
    this.controller = this.nand = this.face;
  }

  #setChips(caseK: number, rises: { controller: number; nand: number }): void {
    this.controller = caseK + rises.controller - this.#chips.controller;
    this.nand = caseK + rises.nand - this.#chips.nand;
  }
}

/**
 * Works out what each uncertain parameter does under a load, one at a time.
 * @param rate the rate of the load as a band, MB/s, for what its own uncertainty makes of the temperatures
 */
export function likelyCases(model: ThermalModel, load: Load, rate: Band | undefined): LikelyCases {
  const usual = model.typical.parameters;
  const open = uncertainParameters(model.sources, rate);
  const parameters = copyParameters(usual);
  const moved = new Deviations(model, load);
  const deviations: number[] = [];
  for (let i = 0; i < open.length; i++) {
    const { name, hot, cool } = open[i]!;
    parameters[name] = hot;
    moved.move(name, parameters);
    deviations.push(moved.controller, moved.nand, moved.face);
    parameters[name] = cool;
    moved.move(name, parameters);
    deviations.push(moved.controller, moved.nand, moved.face);
    parameters[name] = usual[name];
  }
  return new LikelyCases(model, open, deviations, moved.controllerC);
}
