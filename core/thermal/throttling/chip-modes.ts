import { chipRises, heatOut, type Network, type Power } from '../model/network.ts';

/** How controller and NAND follow their heat over the case: two decay rates in 1/s, and the turn that takes them apart. */
export type ChipModes = { slow: number; fast: number; cos: number; sin: number; rootC: number; rootN: number };

/** Gives the two modes of controller and NAND over a case that stands still, in closed form: the turn that makes a 2 x 2 matrix diagonal. */
export function chipModes(network: Network): ChipModes {
  const { toCaseC, toCaseN, between, controllerJK, nandJK } = network;
  const rootC = Math.sqrt(controllerJK);
  const rootN = Math.sqrt(nandJK);
  const a = (toCaseC + between) / controllerJK;
  const d = (toCaseN + between) / nandJK;
  const b = -between / (rootC * rootN);
  const angle = 0.5 * Math.atan2(2 * b, a - d);
  const half = Math.hypot((a - d) / 2, b);
  const mean = (a + d) / 2;
  return { slow: mean - half, fast: mean + half, cos: Math.cos(angle), sin: Math.sin(angle), rootC, rootN };
}

/** Gives controller and NAND over the case some time after they stood at `from` and began to move towards `end`. */
export function chipsAfter(
  f: ChipModes,
  from: { controller: number; nand: number },
  end: { controller: number; nand: number },
  seconds: number
): { controller: number; nand: number } {
  const c = (from.controller - end.controller) * f.rootC;
  const n = (from.nand - end.nand) * f.rootN;
  const one = (f.cos * c + f.sin * n) * Math.exp(-f.fast * seconds);
  const two = (f.cos * n - f.sin * c) * Math.exp(-f.slow * seconds);
  return {
    controller: end.controller + (f.cos * one - f.sin * two) / f.rootC,
    nand: end.nand + (f.sin * one + f.cos * two) / f.rootN
  };
}

/** One decaying part of how the controller answers a step in power: how much of it, K, and how fast, 1/s. */
export type DecayPart = { kelvin: number; rate: number };

/**
 * Gives the controller's answer to a step in power as three decaying parts: case, NAND and controller. The case moves with the heat
 * capacity of everything, at the conductance around its temperature.
 * @param caseKelvin how far the step moves the settled case
 * @param conductance of the case there, W/K
 */
export function decayParts(network: Network, step: Power, caseKelvin: number, conductance: number): DecayPart[] {
  const f = chipModes(network);
  const rises = chipRises(network, step.controller, step.nand);
  const one = (f.cos * rises.controller * f.rootC + f.sin * rises.nand * f.rootN) * (f.cos / f.rootC);
  const two = (f.cos * rises.nand * f.rootN - f.sin * rises.controller * f.rootC) * (-f.sin / f.rootC);
  const whole = network.controllerJK + network.nandJK + network.caseJK;
  return [
    { kelvin: caseKelvin, rate: conductance / whole },
    { kelvin: one, rate: f.fast },
    { kelvin: two, rate: f.slow }
  ];
}

/** Gives slope of the heat that a case gives off around a rise, W/K: still air moves faster over a warmer face. */
export function heatSlope({ surface, ambientC }: Network, rise: number): number {
  const d = Math.max(0.05, rise * 0.02);
  return (heatOut(surface, rise + d, ambientC) - heatOut(surface, rise - d, ambientC)) / (2 * d);
}
