import type { Library } from '#core/build/assemble';
import type { Choice } from '#core/build/choice';
import type { WhatIf } from '#core/compare/swaps/what-if';
import type { WhatIfQuestion, WhatIfReply } from './workers/what-if.worker';

/**
 * Everything around the choice of a page, computed in a worker of its own: the page never waits for it. The last answer stays
 * until the next one is there, so that nothing jumps while one steps through parts.
 */
export class AroundChoice {
  result = $state.raw<WhatIf | null>(null);
  #worker: Worker | undefined;
  #library: Library | undefined;
  #asked = 0;

  ask(library: Library, choice: Partial<Choice>): void {
    this.#asked += 1;
    if (!this.#worker) {
      this.#worker = new Worker(new URL('./workers/what-if.worker.ts', import.meta.url), { type: 'module' });
      this.#worker.onmessage = ({ data }: MessageEvent<WhatIfReply>) => {
        if (data.asked === this.#asked) this.result = data.result;
      };
    }
    if (library !== this.#library) {
      this.#library = library;
      this.#send({ library });
    }
    this.#send({ asked: this.#asked, choice: choice as Choice });
  }
  stop(): void {
    this.#worker?.terminate();
    this.#worker = undefined;
    this.#library = undefined;
  }
  #send(question: WhatIfQuestion): void {
    this.#worker?.postMessage(question);
  }
}
