/** Work that waits for its turn. Each piece has a task of its own, so that between two of them the reader is heard. */
const waiting: (() => void)[] = [];
/** Who wants to know that nothing waits any more. */
const asked: (() => void)[] = [];
let going = false;
let first = true;

function next(): void {
  const work = waiting.shift();
  if (work) {
    setTimeout(next);
    work();
    return;
  }
  going = false;
  for (const tell of asked.splice(0)) tell();
}

/**
 * Does a piece of work in a task of its own, after those that wait already.
 * @returns what takes it back while it still waits
 */
export function inTurn(work: () => void): () => void {
  waiting.push(work);
  if (!going) setTimeout(next);
  going = true;
  return () => {
    const at = waiting.indexOf(work);
    if (at !== -1) waiting.splice(at, 1);
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
  if (!going) setTimeout(next);
  going = true;
}
