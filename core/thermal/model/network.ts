import { PLASTIC, STEFAN_BOLTZMANN } from '../../facts/thermal.ts';
import type { Celsius } from '../../quantities/measures.ts';
import { conductanceOf, type HeatPath, type ThermalGeometry } from './geometry.ts';
import type { ThermalParameters } from './parameters.ts';

const KELVIN = 273.15;

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

/** Works out how the case gives off heat at one setting of the parameters. */
export function surfaceOf(geometry: ThermalGeometry, parameters: ThermalParameters): Surface {
  const finShare = geometry.fan ? 1 : parameters.finShare;
  const area = ((geometry.areaM2 + geometry.finsM2 * finShare) * parameters.area) / geometry.caseFactor;
  const reached = geometry.plastic ? parameters.plastic : 1;
  return {
    areaM2: area * reached,
    convection: geometry.convection * parameters.film,
    radiation: 4 * STEFAN_BOLTZMANN * parameters.emissivity * parameters.film,
    fanH: geometry.fan ? parameters.fanH : undefined,
    desk: (geometry.deskM2 * parameters.deskH * reached * parameters.area) / geometry.caseFactor,
    wall: geometry.plastic ? PLASTIC.wallM / (PLASTIC.conductivity * area) : 0
  };
}

/** Conductances from controller and NAND to the case, and between them, W/K. */
export type Paths = { toCaseC: number; toCaseN: number; between: number };

/** Works out the paths at one setting of the parameters, W/K. */
export function pathsOf(geometry: ThermalGeometry, parameters: ThermalParameters): Paths {
  if (geometry.kind === 'disk') return { toCaseC: 1 / parameters.shellController, toCaseN: 0, between: 1 };
  const between = 1 / parameters.chipToChip;
  if (geometry.kind === 'shell')
    return {
      toCaseC: 1 / parameters.shellController / geometry.chipFactor,
      toCaseN: 1 / parameters.shellNand / geometry.chipFactor,
      between
    };
  const board = 1 / parameters.boardPath;
  return {
    toCaseC: (through(geometry.controller, parameters) + board) / geometry.chipFactor,
    toCaseN: (through(geometry.nand, parameters) + board) / geometry.chipFactor,
    between
  };
}

function through(paths: readonly HeatPath[], parameters: ThermalParameters): number {
  let sum = 0;
  for (const path of paths) sum += conductanceOf(path, parameters);
  return sum;
}

/** Puts the network together for one setting of the parameters. */
export function networkOf(geometry: ThermalGeometry, parameters: ThermalParameters): Network {
  const { toCaseC, toCaseN, between } = pathsOf(geometry, parameters);
  return {
    toCaseC,
    toCaseN,
    between,
    controllerJK: geometry.controllerJK,
    nandJK: geometry.nandJK,
    caseJK: geometry.caseJK,
    surface: surfaceOf(geometry, parameters),
    ambientC: parameters.ambientC
  };
}

/**
 * Gives the heat transfer of a surface that is warmer than the air, W/K: (c (dT / L)^0.25 + 4 eps sigma Tm^3) A in still air, and
 * the desk.
 * @param rise of the outer face over the air, K
 */
export function filmConductance(surface: Surface, rise: number, ambientC: Celsius): number {
  if (surface.fanH !== undefined) return surface.fanH * surface.areaM2 + surface.desk;
  const size = rise < 0 ? -rise : rise;
  const mean = ambientC + KELVIN + rise / 2;
  const film = surface.convection * Math.sqrt(Math.sqrt(size)) + surface.radiation * mean * mean * mean;
  return film * surface.areaM2 + surface.desk;
}

/** Gives the rise of the outer face over the air, K, for a rise of the case itself: the wall of a plastic case keeps some of it. */
export function faceRise(surface: Surface, rise: number, ambientC: Celsius): number {
  if (surface.wall === 0) return rise;
  let face = rise;
  for (let i = 0; i < 4; i++) face = rise / (1 + filmConductance(surface, face, ambientC) * surface.wall);
  return face;
}

/** Gives the heat that leaves the case at a rise over the air, W. */
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
 * Finds the rise of the outer face that gives off a heat, K: Q = G(rise) rise, by Newton's method, since still air moves faster over a warmer
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

/** Gives the rise of controller and NAND over the case, K, while they make this heat, W: two bodies, two paths, one between them. */
export function chipRises(paths: Paths, controllerW: number, nandW: number): { controller: number; nand: number } {
  const { toCaseC, toCaseN, between } = paths;
  const [a, d] = [toCaseC + between, toCaseN + between];
  const determinant = a * d - between * between;
  return {
    controller: (d * controllerW + between * nandW) / determinant,
    nand: (a * nandW + between * controllerW) / determinant
  };
}

/** Finds where the temperatures settle under constant power, °C. */
export function settledTemperatures(network: Network, power: Power): Temperatures {
  const { surface, ambientC } = network;
  const watts = power.controller + power.nand + power.case;
  const face = riseFor(surface, watts, ambientC);
  const caseC = ambientC + face + watts * surface.wall;
  const rises = chipRises(network, power.controller, power.nand);
  return { controllerC: caseC + rises.controller, nandC: caseC + rises.nand, caseC, faceC: ambientC + face };
}
