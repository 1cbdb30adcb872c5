import type { Library } from '#core/build/assemble';
import type { Choice } from '#core/build/choice';
import { whatIf, type WhatIf } from '#core/compare/swaps/what-if';

/** What the page asks: the library once, then choices. Answers carry the number of their question. */
export type WhatIfQuestion = { library: Library } | { asked: number; choice: Choice };
export type WhatIfReply = { asked: number; result: WhatIf | null };

let library: Library | undefined;
addEventListener('message', ({ data }: MessageEvent<WhatIfQuestion>) => {
  if ('library' in data) {
    library = data.library;
    return;
  }
  if (!library) return;
  const reply: WhatIfReply = { asked: data.asked, result: whatIf(library, data.choice) };
  postMessage(reply);
});
