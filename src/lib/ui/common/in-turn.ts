type Waiting = { work: () => void; at: Pick<Element, 'contains'> | undefined };

/** Work that waits for its turn. Each piece has a task of its own, so that between two of them the reader is heard. */
const waiting: Waiting[] = [];
/** Who wants to know that nothing waits any more. */
const asked: (() => void)[] = [];
let going = false;
let first = true;

function next(): void {
  const piece = waiting.shift();
  if (piece) {
    setTimeout(next);
    piece.work();
    return;
  }
  going = false;
  listen('removeEventListener');
  for (const tell of asked.splice(0)) tell();
}
function go(): void {
  if (going) return;
  going = true;
  listen('addEventListener');
  setTimeout(next);
}

/** What a reader does with a page. */
const TOUCHES = ['pointerdown', 'click', 'keydown', 'focusin', 'input', 'change'];
/** What is touched comes first, and at once: it answers to the very touch. */
function touched({ target }: Event): void {
  for (;;) {
    const i = waiting.findIndex(({ at }) => at?.contains(target as Node | null));
    if (i === -1) return;
    waiting.splice(i, 1)[0]?.work();
  }
}
function listen(how: 'addEventListener' | 'removeEventListener'): void {
  if (typeof document === 'undefined') return;
  for (const touch of TOUCHES) document[how](touch, touched, { capture: true });
}

/**
 * Does a piece of work in a task of its own, after those that wait already.
 * @param at the place in the page that it is for: whoever touches it does not wait for the others
 * @returns what takes it back while it still waits
 */
export function inTurn(work: () => void, at?: Pick<Element, 'contains'>): () => void {
  const piece = { work, at };
  waiting.push(piece);
  go();
  return () => {
    const i = waiting.indexOf(piece);
    if (i !== -1) waiting.splice(i, 1);
  };
}

/** Whether the page that the server wrote still comes to life: what is made later was not written by it. */
export const comesToLife = (): boolean => first && typeof document !== 'undefined';

/** Tells when every piece of the first page is alive. */
export function whenAlive(tell: () => void): void {
  asked.push(() => {
    first = false;
    tell();
  });
  go();
}
