/* eslint-disable @typescript-eslint/no-non-null-assertion -- three bodies, three modes: indices 0 to 2, in the inner loop */
import { EigenvalueDecomposition } from 'ml-matrix';
import type { Celsius, Seconds } from '../../quantities/measures.ts';
import { faceRise, heatOut, type Network, type Power } from './network.ts';

type Matrix = [number[], number[], number[]];

/**
 * The three bodies over time. Under constant power the network is a sum of three decaying modes, which are followed exactly, so
 * that thin pads need no small steps; what a warmer case gives off more than a constant conductance would is added from the
 * middle of each step (exponential midpoint rule, second order).
 */
export class Bodies {
  readonly #network: Network;
  readonly #decay: number[];
  /** From modes to temperatures, and from powers to modes. */
  readonly #toRise: Matrix;
  readonly #toMode: Matrix;
  readonly #reference: number;
  #modes = [0, 0, 0];
  /** The course of the last step: where it began and what drove it. */
  #began = [0, 0, 0];
  #drive = [0, 0, 0];

  constructor(network: Network, start: { controllerC: Celsius; nandC: Celsius; caseC: Celsius }) {
    this.#network = network;
    const { toCaseC, toCaseN, between, controllerJK, nandJK, caseJK, surface, ambientC } = network;
    // The conductance at 15 K is about what there is; the rest is small and slow.
    this.#reference = heatOut(surface, 15, ambientC) / 15;
    const roots = [controllerJK, nandJK, caseJK].map(Math.sqrt);
    const paths = [
      [toCaseC + between, -between, -toCaseC],
      [-between, toCaseN + between, -toCaseN],
      [-toCaseC, -toCaseN, toCaseC + toCaseN + this.#reference]
    ];
    const symmetric = paths.map((row, i) => row.map((g, j) => g / (roots[i]! * roots[j]!)));
    const { realEigenvalues: values, eigenvectorMatrix } = new EigenvalueDecomposition(symmetric, {
      assumeSymmetric: true
    });
    const vectors = eigenvectorMatrix.to2DArray();
    this.#decay = values;
    this.#toRise = vectors.map((row, i) => row.map((x) => x / roots[i]!)) as Matrix;
    this.#toMode = [0, 1, 2].map((mode) => [0, 1, 2].map((i) => vectors[i]![mode]! / roots[i]!)) as Matrix;
    const rises = [start.controllerC - ambientC, start.nandC - ambientC, start.caseC - ambientC];
    this.#modes = [0, 1, 2].map((mode) =>
      [0, 1, 2].reduce((sum, i) => sum + vectors[i]![mode]! * roots[i]! * rises[i]!, 0)
    );
  }

  #rise(body: 0 | 1 | 2, modes: readonly number[]): number {
    const row = this.#toRise[body];
    return row[0]! * modes[0]! + row[1]! * modes[1]! + row[2]! * modes[2]!;
  }

  get controllerC(): Celsius {
    return this.#network.ambientC + this.#rise(0, this.#modes);
  }
  get nandC(): Celsius {
    return this.#network.ambientC + this.#rise(1, this.#modes);
  }
  get caseC(): Celsius {
    return this.#network.ambientC + this.#rise(2, this.#modes);
  }
  /** What a hand feels. */
  get faceC(): Celsius {
    const { surface, ambientC } = this.#network;
    return ambientC + faceRise(surface, this.#rise(2, this.#modes), ambientC);
  }
  /** Heat in the three bodies over ambient, J. */
  get storedJ(): number {
    const { controllerJK, nandJK, caseJK, ambientC } = this.#network;
    return (
      controllerJK * (this.controllerC - ambientC) + nandJK * (this.nandC - ambientC) + caseJK * (this.caseC - ambientC)
    );
  }

  #forced(power: Power, caseRise: number): void {
    const { surface, ambientC } = this.#network;
    const extra = this.#reference * caseRise - heatOut(surface, caseRise, ambientC);
    const onCase = power.case + extra;
    for (let m = 0; m < 3; m++) {
      const row = this.#toMode[m as 0 | 1 | 2];
      this.#drive[m] = row[0]! * power.controller + row[1]! * power.nand + row[2]! * onCase;
    }
  }

  /** Where the modes are some seconds into the step that began last. */
  #after(seconds: Seconds, into: number[]): void {
    for (let m = 0; m < 3; m++) {
      const decay = this.#decay[m]!;
      const kept = Math.exp(-decay * seconds);
      into[m] = this.#began[m]! * kept + (this.#drive[m]! * (1 - kept)) / decay;
    }
  }

  /** Moves on by some seconds under constant power. */
  step(power: Power, seconds: Seconds): void {
    for (let m = 0; m < 3; m++) this.#began[m] = this.#modes[m]!;
    this.#forced(power, this.#rise(2, this.#began));
    this.#after(seconds / 2, this.#modes);
    this.#forced(power, this.#rise(2, this.#modes));
    this.#after(seconds, this.#modes);
  }

  /** Temperature of the controller some seconds into the last step. */
  controllerAt(seconds: Seconds): Celsius {
    const modes = [0, 0, 0];
    this.#after(seconds, modes);
    return this.#network.ambientC + this.#rise(0, modes);
  }

  /** Takes the last step back, to go it again in part. */
  back(): void {
    for (let m = 0; m < 3; m++) this.#modes[m] = this.#began[m]!;
  }
}
