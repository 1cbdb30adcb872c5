import type { Celsius, Seconds } from '../../quantities/measures.ts';
import { chipRises, heatOut, type Network, type Power } from '../model/network.ts';
import { wattsOf } from '../model/power.ts';
import { chipModes, chipsAfter, type ChipModes } from './chip-modes.ts';

/** Temperatures on their way: of the case, °C, and of controller and NAND over it, K. */
export type ThermalState = { caseC: Celsius; controller: number; nand: number };

/** The longest step, as a share of the time constant of the case. */
const LONGEST_SHARE = 0.12;

/**
 * Three bodies under constant power in closed form: the case takes up all of the heat capacity and moves slowly; controller and NAND
 * stand over it and follow in two fast modes that are known exactly.
 */
export class SlowCase {
  readonly #network: Network;
  readonly #modes: ChipModes;
  /** Heat capacity of everything, J/K. */
  readonly #capacityJK: number;
  /** The longest step in which the case may be taken as moving evenly, s. */
  readonly longestS: Seconds;

  constructor(network: Network) {
    const { controllerJK, nandJK, caseJK, surface, ambientC } = network;
    this.#network = network;
    this.#modes = chipModes(network);
    this.#capacityJK = controllerJK + nandJK + caseJK;
    this.longestS = (LONGEST_SHARE * this.#capacityJK) / (heatOut(surface, 20, ambientC) / 20);
  }

  /** Gives the state after some seconds of constant power; the heat that leaves is that of the middle of the step. */
  after(from: ThermalState, power: Power, seconds: Seconds): ThermalState {
    const { surface, ambientC } = this.#network;
    const out = heatOut(surface, from.caseC - ambientC, ambientC);
    const middle = this.#losing(from, power, seconds / 2, out);
    return this.#losing(from, power, seconds, heatOut(surface, middle.caseC - ambientC, ambientC));
  }

  /** Gives the state after some seconds in which a constant heat leaves, W. */
  #losing(from: ThermalState, power: Power, seconds: Seconds, out: number): ThermalState {
    const { controllerJK, nandJK } = this.#network;
    const whole = this.#capacityJK;
    const watts = wattsOf(power);
    const slope = (watts - out) / whole;
    // The chips lag behind a case that warms: a constant pull of C x slope on each of them.
    const end = chipRises(this.#network, power.controller - controllerJK * slope, power.nand - nandJK * slope);
    const { controller, nand } = chipsAfter(this.#modes, from, end, seconds);
    const stored = whole * from.caseC + controllerJK * from.controller + nandJK * from.nand + (watts - out) * seconds;
    return { caseC: (stored - controllerJK * controller - nandJK * nand) / whole, controller, nand };
  }
}
