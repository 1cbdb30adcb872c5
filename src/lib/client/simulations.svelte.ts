import type { SimulateInput, SimulateReport } from '#core/simulate/simulate';
import type { SimulateQuestion, SimulateReply } from './workers/simulate.worker';

/**
 * Simulations of a page, in a worker of its own. A new question ends the one under way; the last answers stay until the new ones
 * are there, so that the chart does not blink.
 */
export class Simulations {
  results = $state.raw<readonly (SimulateReport | null)[]>([]);
  /** How many of the set-ups are still being played. */
  waiting = $state(0);
  #worker: Worker | undefined;
  #asked = 0;
  #coming: (SimulateReport | null)[] = [];

  ask(inputs: readonly SimulateInput[]): void {
    this.#asked += 1;
    if (this.waiting > 0) this.stop();
    if (!this.#worker) {
      this.#worker = new Worker(new URL('./workers/simulate.worker.ts', import.meta.url), { type: 'module' });
      this.#worker.onmessage = ({ data }: MessageEvent<SimulateReply>) => {
        if (data.asked !== this.#asked) return;
        this.#coming[data.at] = data.result;
        this.waiting -= 1;
        if (this.waiting === 0) this.results = this.#coming;
      };
    }
    this.#coming = [];
    this.waiting = inputs.length;
    if (inputs.length === 0) this.results = [];
    const question: SimulateQuestion = { asked: this.#asked, inputs };
    this.#worker.postMessage(question);
  }
  /** Ends what is under way. */
  stop(): void {
    this.#worker?.terminate();
    this.#worker = undefined;
    this.waiting = 0;
  }
}
