import {
  AIR_CONDUCTIVITY,
  CAPACITY,
  CASE_BOX,
  CASE_CLASS,
  CONTACT,
  CONVECTION,
  PLASTIC,
  SPECIFIC_HEAT,
  STEFAN_BOLTZMANN,
  UNKNOWN_CONTACT,
  USUAL_CONDUCTIVITY
} from '../../facts/thermal.ts';
import { isTunnelled } from '../../chain/modes.ts';
import type { FilledDrive, FilledEnclosure } from '../../parts/fill/fill.ts';
import type { Celsius } from '../../quantities/measures.ts';
import type { FilledGap, StackPlan } from '../../pads/plan-pads.ts';
import { thicknessOf } from '../../pads/gap.ts';
import type { ThermalParameters } from './parameters.ts';

/** One way from a chip to the case: a pad that touches, or the air where none does. */
export type HeatPath = {
  areaMm2: number;
  gapMm: number;
  /** Sum over the layers of their share of the gap over their printed conductivity, mm K m/W; 0 for air. */
  printed: number;
  /** Contact of the faces, m² K/W. */
  contact: number;
};

/** What of a build does not depend on anything uncertain. */
export type ThermalGeometry = {
  kind: 'm2' | 'shell' | 'disk';
  controller: readonly HeatPath[];
  nand: readonly HeatPath[];
  /** J/K. */
  controllerJK: number;
  nandJK: number;
  caseJK: number;
  /** m² that air reaches, without fins, and the fins. */
  areaM2: number;
  finsM2: number;
  /** Still air over its faces as it stands: h = convection x rise^0.25, W/(m² K^1.25). */
  convection: number;
  /** m² that lie on the desk; none on cloth. */
  deskM2: number;
  fan: boolean;
  plastic: boolean;
  /** Measured over computed, 1 where nothing was measured. */
  caseFactor: number;
  chipFactor: number;
};

const KELVIN = 273.15;

/** The way through what fills a gap. Marginal contact counts twice its contact resistance. */
export function heatPathOf({ chip, gapMm, choice }: FilledGap): HeatPath {
  const areaMm2 = chip.widthMm * chip.lengthMm;
  if (!choice || choice.verdict === 'no-contact') return { areaMm2, gapMm, printed: 0, contact: 0 };
  const total = thicknessOf(choice.layers);
  let printed = 0;
  for (const pad of choice.layers) printed += ((pad.thicknessMm / total) * gapMm) / pad.conductivityWmK;
  const contact =
    choice.verdict === 'marginal' ? CONTACT.marginal : choice.layers.length > 1 ? CONTACT.two : CONTACT.one;
  return { areaMm2, gapMm, printed, contact };
}

const unknownWay = (areaMm2: number): HeatPath => ({
  areaMm2,
  gapMm: UNKNOWN_CONTACT.gapMm,
  printed: UNKNOWN_CONTACT.gapMm / USUAL_CONDUCTIVITY,
  contact: CONTACT.one
});

/** Conductance of a way, W/K: A / (gap / (k x truth) + contact + label). Air has neither faces nor a label that counts. */
export function conductanceOf(
  way: HeatPath,
  parameters: Pick<ThermalParameters, 'padConductivityShare' | 'label'>
): number {
  const area = way.areaMm2 * 1e-6;
  if (way.printed === 0) return (AIR_CONDUCTIVITY * area) / (way.gapMm * 1e-3);
  return area / ((way.printed * 1e-3) / parameters.padConductivityShare + way.contact + parameters.label);
}

/** The class of case that stands in for what an enclosure does not state. */
export function caseClassOf({ enclosure: { formFactor, modes } }: FilledEnclosure): keyof typeof CASE_CLASS {
  return formFactor === 'm2' && modes.some((mode) => isTunnelled(mode)) ? 'm2-tunnel' : formFactor;
}

export type Stands = 'flat' | 'edge' | 'cloth';

/** A box of unit proportions as it stands: what air reaches of it, how still air takes heat off that, and what lies on the desk. */
type Standing = { areaCm2: number; convection: number; deskCm2: number };

/** Works out the faces of a box of l x w x h cm: c (dT / L)^0.25 over standing faces and over the one that looks up. */
function standingBox({ l, w, h }: { l: number; w: number; h: number }, stands: Stands): Standing {
  // [area, whether it looks up, height, or area over perimeter, in cm]
  const faces: [number, boolean, number][] =
    stands === 'edge'
      ? [
          [2 * l * w, false, w],
          [2 * w * h, false, w],
          [l * h, true, (l * h) / (2 * (l + h))]
        ]
      : [
          [2 * (l + w) * h, false, h],
          [l * w, true, (l * w) / (2 * (l + w))]
        ];
  let [area, sum] = [0, 0];
  for (const [face, up, lengthCm] of faces) {
    area += face;
    sum += (face * (up ? CONVECTION.up : CONVECTION.standing)) / (lengthCm / 100) ** CONVECTION.exponent;
  }
  const deskCm2 = stands === 'flat' ? l * w : stands === 'edge' ? l * h : 0;
  return { areaCm2: area, convection: sum / area, deskCm2 };
}

const STANDING = Object.fromEntries(
  Object.entries(CASE_BOX).map(([form, box]) => [
    form,
    Object.fromEntries((['flat', 'edge', 'cloth'] as const).map((stands) => [stands, standingBox(box, stands)]))
  ])
) as Record<keyof typeof CASE_BOX, Record<Stands, Standing>>;

/**
 * The outside of a case: a box of the usual proportions of its form, as large as its surface says. A surface is that of the case lying
 * flat, without the face it lies on; stood on edge it has that face too.
 * @param areaM2 that air reaches while it lies flat, m²
 */
export function outsideOf(
  formFactor: keyof typeof CASE_BOX,
  areaM2: number,
  stands: Stands
): { areaM2: number; convection: number; deskM2: number } {
  const flat = STANDING[formFactor].flat;
  const here = STANDING[formFactor][stands];
  // The proportions stay: areas go with the square of the scale, and the film with the fourth root of its inverse.
  const square = areaM2 / (flat.areaCm2 * 1e-4);
  return {
    areaM2: here.areaCm2 * 1e-4 * square,
    convection: here.convection / Math.sqrt(Math.sqrt(Math.sqrt(square))),
    deskM2: here.deskCm2 * 1e-4 * square
  };
}

/**
 * The bodies and paths of a build. Where no gap is known the pads are taken to fit, as they do in most boxes.
 * @param bare leaves every pad out
 */
export function thermalGeometry(
  drive: FilledDrive,
  enclosure: FilledEnclosure,
  stack: Pick<StackPlan, 'filled'>,
  fan: boolean,
  bare: boolean,
  stands: Stands
): ThermalGeometry {
  const { cooling, weightG, formFactor } = enclosure.enclosure;
  const usual = CASE_CLASS[caseClassOf(enclosure)];
  const plastic = cooling?.material === 'plastic';
  const massG = cooling?.massG ?? (weightG === undefined ? usual.massG : weightG * 0.8);
  const outside = outsideOf(formFactor, (cooling?.areaCm2 ?? usual.areaCm2) * 1e-4, stands);
  const shape: ThermalGeometry = {
    kind: 'm2',
    controller: NO_WAYS,
    nand: NO_WAYS,
    controllerJK: CAPACITY.controller,
    nandJK: CAPACITY.nand,
    caseJK: (massG / 1000) * SPECIFIC_HEAT[plastic ? 'plastic' : 'aluminium'],
    areaM2: outside.areaM2,
    convection: outside.convection,
    deskM2: outside.deskM2,
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

const NO_WAYS: readonly HeatPath[] = [];

function waysOf(
  stack: Pick<StackPlan, 'filled'>,
  role: 'controller' | 'nand',
  unknownMm2: number,
  bare: boolean
): readonly HeatPath[] {
  const ways: HeatPath[] = [];
  for (const place of stack.filled)
    if (place.chip.role === role) ways.push(heatPathOf(bare ? { ...place, choice: null } : place));
  return ways.length > 0 || bare ? ways : [unknownWay(unknownMm2)];
}

/** How a case gives off heat. */
export type Surface = {
  /** Surface that counts, m², with what plastic takes off it. */
  areaM2: number;
  /** Still air: h = convection x rise^0.25, W/(m² K^1.25). */
  convection: number;
  /** Radiation: 4 eps sigma x film, W/(m² K^4). */
  radiation: number;
  /** W/(m² K) under a fan; undefined in still air. */
  fanH: number | undefined;
  /** Into the desk, W/K. */
  desk: number;
  /** Through the wall, K/W. */
  wall: number;
};

/** The network of three bodies, for one setting of the parameters: conductances in W/K, capacities in J/K. */
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

/** How the case gives off heat at one setting of the parameters. */
export function surfaceOf(shape: ThermalGeometry, parameters: ThermalParameters): Surface {
  const finShare = shape.fan ? 1 : parameters.finShare;
  const area = ((shape.areaM2 + shape.finsM2 * finShare) * parameters.area) / shape.caseFactor;
  const reached = shape.plastic ? parameters.plastic : 1;
  return {
    areaM2: area * reached,
    convection: shape.convection * parameters.film,
    radiation: 4 * STEFAN_BOLTZMANN * parameters.emissivity * parameters.film,
    fanH: shape.fan ? parameters.fanH : undefined,
    desk: (shape.deskM2 * parameters.deskH * reached * parameters.area) / shape.caseFactor,
    wall: shape.plastic ? PLASTIC.wallM / (PLASTIC.conductivity * area) : 0
  };
}

/** Conductances from controller and NAND to the case, and between them, W/K. */
export type Paths = { toCaseC: number; toCaseN: number; between: number };
export function pathsOf(shape: ThermalGeometry, parameters: ThermalParameters): Paths {
  if (shape.kind === 'disk') return { toCaseC: 1 / parameters.shellController, toCaseN: 0, between: 1 };
  const between = 1 / parameters.chipToChip;
  if (shape.kind === 'shell')
    return {
      toCaseC: 1 / parameters.shellController / shape.chipFactor,
      toCaseN: 1 / parameters.shellNand / shape.chipFactor,
      between
    };
  const board = 1 / parameters.boardPath;
  return {
    toCaseC: (through(shape.controller, parameters) + board) / shape.chipFactor,
    toCaseN: (through(shape.nand, parameters) + board) / shape.chipFactor,
    between
  };
}

function through(ways: readonly HeatPath[], parameters: ThermalParameters): number {
  let sum = 0;
  for (const way of ways) sum += conductanceOf(way, parameters);
  return sum;
}

export function networkOf(shape: ThermalGeometry, parameters: ThermalParameters): Network {
  const { toCaseC, toCaseN, between } = pathsOf(shape, parameters);
  return {
    toCaseC,
    toCaseN,
    between,
    controllerJK: shape.controllerJK,
    nandJK: shape.nandJK,
    caseJK: shape.caseJK,
    surface: surfaceOf(shape, parameters),
    ambientC: parameters.ambientC
  };
}

/** Heat transfer of a surface that is warmer than the air, W/K: c (dT / L)^0.25 + 4 eps sigma Tm^3 in still air, and the desk. */
export function filmConductance(surface: Surface, rise: number, ambientC: Celsius): number {
  if (surface.fanH !== undefined) return surface.fanH * surface.areaM2 + surface.desk;
  const size = rise < 0 ? -rise : rise;
  const mean = ambientC + KELVIN + rise / 2;
  const film = surface.convection * Math.sqrt(Math.sqrt(size)) + surface.radiation * mean * mean * mean;
  return film * surface.areaM2 + surface.desk;
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

/** Newton's method ends with a step that is a smaller share of the rise than this. */
const CLOSE = 2e-3;

/**
 * Rise of the outer face that gives off a heat, K: Q = G(rise) rise, by Newton's method, since still air moves faster over a warmer
 * face. The slope is G + rise G', with G' = convection / 4 x rise^-0.75 + radiation x 1.5 Tm^2, both over the surface.
 * @param near a rise that is known to be close, such as that of nearly the same build
 */
export function riseFor(surface: Surface, watts: number, ambientC: Celsius, near?: number): number {
  if (watts <= 0) return 0;
  if (surface.fanH !== undefined) return watts / (surface.fanH * surface.areaM2 + surface.desk);
  const { areaM2, convection, radiation, desk } = surface;
  let rise = near !== undefined && near > 0 ? near : watts / (12 * areaM2 + desk);
  for (let i = 0; i < 20; i++) {
    const mean = ambientC + KELVIN + rise / 2;
    const air = convection * Math.sqrt(Math.sqrt(rise));
    const square = radiation * mean * mean;
    const conductance = (air + square * mean) * areaM2 + desk;
    const slope = conductance + (air / 4 + square * 1.5 * rise) * areaM2;
    const step = (conductance * rise - watts) / slope;
    rise = rise - step > 0 ? rise - step : rise / 2;
    // What is left after a step is of the order of its square: a step of 0.2 % leaves a millionth.
    if (step < CLOSE * rise && step > -CLOSE * rise) break;
  }
  return rise;
}

/** Rise of controller and NAND over the case while they make this heat: two bodies, two paths, and one between them. */
export function chipRises(paths: Paths, controllerW: number, nandW: number): { controller: number; nand: number } {
  const { toCaseC, toCaseN, between } = paths;
  const [a, d] = [toCaseC + between, toCaseN + between];
  const determinant = a * d - between * between;
  return {
    controller: (d * controllerW + between * nandW) / determinant,
    nand: (a * nandW + between * controllerW) / determinant
  };
}

/** Where the temperatures settle under constant power. */
export function settledTemperatures(network: Network, power: Power): Temperatures {
  const { surface, ambientC } = network;
  const watts = power.controller + power.nand + power.case;
  const face = riseFor(surface, watts, ambientC);
  const caseC = ambientC + face + watts * surface.wall;
  const rises = chipRises(network, power.controller, power.nand);
  return { controllerC: caseC + rises.controller, nandC: caseC + rises.nand, caseC, faceC: ambientC + face };
}
