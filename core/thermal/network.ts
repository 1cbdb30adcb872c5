import {
  AIR_CONDUCTIVITY,
  CAPACITY,
  CASE_CLASS,
  CONTACT,
  CONVECTION,
  PLASTIC,
  SPECIFIC_HEAT,
  STEFAN_BOLTZMANN,
  UNKNOWN_CONTACT,
  USUAL_CONDUCTIVITY
} from '../facts/thermal.ts';
import { isTunnelled } from '../link/modes.ts';
import type { FilledDrive, FilledEnclosure } from '../parts/fill.ts';
import type { Celsius } from '../quantities/unit.ts';
import type { Filled, StackPlan } from '../stack/plan-pads.ts';
import { thicknessOf } from '../stack/pads.ts';
import type { Knobs } from './knobs.ts';

/** One way from a chip to the case: a pad that touches, or the air where none does. */
export type Way = {
  areaMm2: number;
  gapMm: number;
  /** Sum over the layers of their share of the gap over their printed conductivity, mm K m/W; 0 for air. */
  printed: number;
  /** Contact of the faces, m² K/W. */
  contact: number;
};

/** What of a build does not depend on anything uncertain. */
export type Shape = {
  kind: 'm2' | 'shell' | 'disk';
  controller: readonly Way[];
  nand: readonly Way[];
  /** J/K. */
  controllerJK: number;
  nandJK: number;
  caseJK: number;
  /** m², without fins, and the fins. */
  areaM2: number;
  finsM2: number;
  fan: boolean;
  plastic: boolean;
  /** Measured over computed, 1 where nothing was measured. */
  caseFactor: number;
  chipFactor: number;
};

const KELVIN = 273.15;

/** The way through what fills a gap. Marginal contact counts twice its contact resistance. */
export function wayOf({ chip, gapMm, choice }: Filled): Way {
  const areaMm2 = chip.widthMm * chip.lengthMm;
  if (!choice || choice.verdict === 'no-contact') return { areaMm2, gapMm, printed: 0, contact: 0 };
  const total = thicknessOf(choice.layers);
  let printed = 0;
  for (const pad of choice.layers) printed += ((pad.thicknessMm / total) * gapMm) / pad.conductivityWmK;
  const contact =
    choice.verdict === 'marginal' ? CONTACT.marginal : choice.layers.length > 1 ? CONTACT.two : CONTACT.one;
  return { areaMm2, gapMm, printed, contact };
}

const unknownWay = (areaMm2: number): Way => ({
  areaMm2,
  gapMm: UNKNOWN_CONTACT.gapMm,
  printed: UNKNOWN_CONTACT.gapMm / USUAL_CONDUCTIVITY,
  contact: CONTACT.one
});

/** Conductance of a way, W/K: A / (gap / (k x truth) + contact + label). Air has neither faces nor a label that counts. */
export function conductanceOf(way: Way, knobs: Pick<Knobs, 'padTruth' | 'label'>): number {
  const area = way.areaMm2 * 1e-6;
  if (way.printed === 0) return (AIR_CONDUCTIVITY * area) / (way.gapMm * 1e-3);
  return area / ((way.printed * 1e-3) / knobs.padTruth + way.contact + knobs.label);
}

/** The class of case that stands in for what an enclosure does not state. */
export function caseClassOf({ enclosure: { formFactor, modes } }: FilledEnclosure): keyof typeof CASE_CLASS {
  return formFactor === 'm2' && modes.some((mode) => isTunnelled(mode)) ? 'm2-tunnel' : formFactor;
}

/**
 * The bodies and paths of a build. Where no gap is known the pads are taken to fit, as they do in most boxes.
 * @param bare leaves every pad out
 */
export function shapeOf(
  drive: FilledDrive,
  enclosure: FilledEnclosure,
  stack: Pick<StackPlan, 'filled'>,
  fan: boolean,
  bare: boolean
): Shape {
  const { cooling, weightG } = enclosure.enclosure;
  const usual = CASE_CLASS[caseClassOf(enclosure)];
  const plastic = cooling?.material === 'plastic';
  const massG = cooling?.massG ?? (weightG === undefined ? usual.massG : weightG * 0.8);
  const shape: Shape = {
    kind: 'm2',
    controller: NO_WAYS,
    nand: NO_WAYS,
    controllerJK: CAPACITY.controller,
    nandJK: CAPACITY.nand,
    caseJK: (massG / 1000) * SPECIFIC_HEAT[plastic ? 'plastic' : 'aluminium'],
    areaM2: (cooling?.areaCm2 ?? usual.areaCm2) * 1e-4,
    finsM2: (cooling?.finsCm2 ?? 0) * 1e-4,
    fan,
    plastic,
    caseFactor: cooling?.measured?.caseFactor ?? 1,
    chipFactor: cooling?.measured?.chipFactor ?? 1
  };
  if (drive.drive.media === 'hdd') {
    shape.kind = 'disk';
    shape.controllerJK = drive.drive.formFactor === '3.5in' ? CAPACITY.disk35 : CAPACITY.disk25;
    shape.nandJK = CAPACITY.diskBoard;
  } else if (drive.drive.formFactor !== 'm2') shape.kind = 'shell';
  else {
    shape.controller = waysOf(stack, 'controller', UNKNOWN_CONTACT.controllerMm2, bare);
    shape.nand = waysOf(stack, 'nand', UNKNOWN_CONTACT.nandMm2, bare);
  }
  return shape;
}

const NO_WAYS: readonly Way[] = [];

function waysOf(
  stack: Pick<StackPlan, 'filled'>,
  role: 'controller' | 'nand',
  unknownMm2: number,
  bare: boolean
): readonly Way[] {
  const ways: Way[] = [];
  for (const place of stack.filled)
    if (place.chip.role === role) ways.push(wayOf(bare ? { ...place, choice: null } : place));
  return ways.length > 0 || bare ? ways : [unknownWay(unknownMm2)];
}

/** How a case gives off heat. */
export type Surface = {
  /** Surface that counts, m², with what plastic takes off it. */
  areaM2: number;
  emissivity: number;
  /** W/(m² K) under a fan; undefined in still air. */
  fanH: number | undefined;
  /** Through the wall, K/W. */
  wall: number;
};

/** The network of three bodies, for one setting of the knobs: conductances in W/K, capacities in J/K. */
export type Network = {
  toCaseC: number;
  toCaseN: number;
  between: number;
  controllerJK: number;
  nandJK: number;
  caseJK: number;
  surface: Surface;
  ambientC: Celsius;
};

export function networkOf(shape: Shape, knobs: Knobs): Network {
  const finShare = shape.fan ? 1 : knobs.finShare;
  const area = ((shape.areaM2 + shape.finsM2 * finShare) * knobs.area) / shape.caseFactor;
  const surface: Surface = {
    areaM2: shape.plastic ? area * knobs.plastic : area,
    emissivity: knobs.emissivity,
    fanH: shape.fan ? knobs.fanH : undefined,
    wall: shape.plastic ? PLASTIC.wallM / (PLASTIC.conductivity * area) : 0
  };
  const network: Network = {
    toCaseC: 1 / knobs.shellController,
    toCaseN: 0,
    between: 1,
    controllerJK: shape.controllerJK,
    nandJK: shape.nandJK,
    caseJK: shape.caseJK,
    surface,
    ambientC: knobs.ambientC
  };
  if (shape.kind === 'disk') return network;
  network.between = 1 / knobs.chipToChip;
  if (shape.kind === 'shell') {
    network.toCaseC = 1 / knobs.shellController / shape.chipFactor;
    network.toCaseN = 1 / knobs.shellNand / shape.chipFactor;
    return network;
  }
  const through = (ways: readonly Way[]) => {
    let sum = 0;
    for (const way of ways) sum += conductanceOf(way, knobs);
    return sum;
  };
  network.toCaseC = (through(shape.controller) + 1 / knobs.boardPath) / shape.chipFactor;
  network.toCaseN = (through(shape.nand) + 1 / knobs.boardPath) / shape.chipFactor;
  return network;
}

/** Heat transfer of a surface that is warmer than the air, W/K: 1.32 (dT/L)^0.25 + 4 eps sigma Tm^3 in still air. */
export function filmConductance(surface: Surface, rise: number, ambientC: Celsius): number {
  if (surface.fanH !== undefined) return surface.fanH * surface.areaM2;
  const size = rise < 0 ? -rise : rise;
  const mean = ambientC + KELVIN + rise / 2;
  const convection = CONVECTION.coefficient * Math.sqrt(Math.sqrt(size / CONVECTION.heightM));
  return (convection + 4 * surface.emissivity * STEFAN_BOLTZMANN * mean * mean * mean) * surface.areaM2;
}

/** Rise of the outer face over the air, K, for a rise of the case itself: the wall of a plastic case keeps some of it. */
export function faceRise(surface: Surface, rise: number, ambientC: Celsius): number {
  if (surface.wall === 0) return rise;
  let face = rise;
  for (let i = 0; i < 4; i++) face = rise / (1 + filmConductance(surface, face, ambientC) * surface.wall);
  return face;
}

/** Heat that leaves the case at a rise over the air, W. */
export function heatOut(surface: Surface, rise: number, ambientC: Celsius): number {
  const face = faceRise(surface, rise, ambientC);
  return filmConductance(surface, face, ambientC) * face;
}

/** Power into the three bodies, W. */
export type Power = { controller: number; nand: number; case: number };

export type Temperatures = { controllerC: Celsius; nandC: Celsius; caseC: Celsius; faceC: Celsius };

/**
 * Rise of the outer face that gives off a heat, K: Q = G(rise) rise, iterated, since still air moves faster over a warmer face.
 * Each round leaves about a fifth of the error.
 */
export function riseFor(surface: Surface, watts: number, ambientC: Celsius): number {
  if (watts <= 0) return 0;
  let rise = watts / (10 * surface.areaM2);
  for (let i = 0; i < 24; i++) {
    const next = watts / filmConductance(surface, rise, ambientC);
    const done = Math.abs(next - rise) < 1e-4;
    rise = next;
    if (done || surface.fanH !== undefined) break;
  }
  return rise;
}

/** Rise of controller and NAND over the case while they make this heat: two bodies, two paths, and one between them. */
export function chipRises(network: Network, controllerW: number, nandW: number): { controller: number; nand: number } {
  const { toCaseC, toCaseN, between } = network;
  const [a, d] = [toCaseC + between, toCaseN + between];
  const determinant = a * d - between * between;
  return {
    controller: (d * controllerW + between * nandW) / determinant,
    nand: (a * nandW + between * controllerW) / determinant
  };
}

/** Where the temperatures settle under constant power. */
export function settle(network: Network, power: Power): Temperatures {
  const { surface, ambientC } = network;
  const watts = power.controller + power.nand + power.case;
  const face = riseFor(surface, watts, ambientC);
  const caseC = ambientC + face + watts * surface.wall;
  const rises = chipRises(network, power.controller, power.nand);
  return { controllerC: caseC + rises.controller, nandC: caseC + rises.nand, caseC, faceC: ambientC + face };
}
