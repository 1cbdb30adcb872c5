import type { GB, MBps, Seconds } from '../../quantities/measures.ts';
import { roomLeft, type CacheFill } from '../../throughput/flash-cache.ts';
import type { Load } from './throttle.ts';

/**
 * A load and how much of it there is, MB; the last one may be without end. A phase that fills a cache ends when that is full, which
 * is later at a throttled rate; what it moves beyond its volume is taken off the phase after it.
 */
export type Phase = Load & { volumeMB: number; fills?: CacheFill };

/** Less than this is left of a volume (MB) or of a time (s) by rounding alone. */
export const NOTHING = 1e-9;

/** How much of a phase is still to be moved, and how full the cache is that it fills. */
export class PhaseVolume {
  readonly #phase: Phase;
  readonly #hasNext: boolean;
  #leftMB: number;
  #heldGB: GB = 0;
  #writtenGB: GB = 0;

  /** @param owedMB what the phase before has moved of this one already */
  constructor(phase: Phase, next: Phase | undefined, owedMB: number) {
    this.#phase = phase;
    this.#hasNext = next !== undefined;
    this.#leftMB = phase.fills ? phase.volumeMB + (next?.volumeMB ?? 0) : Math.max(0, phase.volumeMB - owedMB);
  }

  /** Gives the time until the phase is over at a rate, s. */
  secondsLeft(rate: MBps): Seconds {
    const { fills } = this.#phase;
    const room = fills && this.#hasNext ? roomLeft(fills, this.#heldGB, this.#writtenGB, rate) * 1000 : this.#leftMB;
    return Math.min(this.#leftMB, room) / rate;
  }

  goesOn(rate: MBps): boolean {
    return this.#leftMB > NOTHING && this.secondsLeft(rate) > NOTHING;
  }

  take(rate: MBps, seconds: Seconds): void {
    const { fills } = this.#phase;
    this.#leftMB -= rate * seconds;
    if (!fills) return;
    this.#writtenGB += (rate * seconds) / 1000;
    this.#heldGB = Math.max(0, this.#heldGB + ((rate - fills.drain) * seconds) / 1000);
  }

  /** Ends the phase here. */
  drop(): void {
    this.#leftMB = 0;
  }

  /** What was moved of the next phase already, MB. */
  get owedMB(): number {
    return this.#phase.fills && this.#hasNext ? this.#writtenGB * 1000 - this.#phase.volumeMB : 0;
  }
}
