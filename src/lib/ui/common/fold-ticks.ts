type Told = { seq: number; at: string; by: string; kind: string; message: string };

/** One line of a log: what was told, and what is folded under it. */
export type LogLine<T extends Told> = { first: T; folded: readonly T[] };

/** How many ticks in a row are told one by one. */
const FEW = 2;

/**
 * Folds ticks that one hand made one after the other into one line each, so that a log of thirty ticks is still a log; the newest of them
 * stands for the others.
 */
export function foldTicks<T extends Told>(events: readonly T[]): LogLine<T>[] {
  const lines: { first: T; folded: T[] }[] = [];
  for (const event of events) {
    const last = lines.at(-1);
    const joins =
      last !== undefined &&
      event.kind === 'ticked' &&
      last.first.kind === 'ticked' &&
      last.first.by === event.by &&
      last.first.at.slice(0, 10) === event.at.slice(0, 10);
    if (joins) last.folded.push(event);
    else lines.push({ first: event, folded: [] });
  }
  return lines.flatMap(({ first, folded }) =>
    folded.length < FEW ? [first, ...folded].map((event) => ({ first: event, folded: [] })) : [{ first, folded }]
  );
}
