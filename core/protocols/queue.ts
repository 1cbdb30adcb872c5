import type { Seconds } from '../quantities/measures.ts';

/** A run that waits for its turn. */
export type Queued = { id: string; name: string; runS: Seconds; coolS: Seconds; times: number };
/** One stretch of the evening. */
export type EveningSlot = { id: string; name: string; turn: number; fromS: Seconds; toS: Seconds; waitedS: Seconds };
export type QueuePlan = { slots: EveningSlot[]; totalS: Seconds; oneByOneS: Seconds };

/**
 * Plans runs on several builds, one at a time, so that one cools while another runs: whoever is cool and has the most work left goes
 * next; where nobody is cool, the one that is cool first. Longest work first among those that are ready is Graham's rule for one machine
 * with delays, and never leaves the bench idle while something is ready.
 * @example planQueue([{ id: 'a', name: 'A', runS: 60, coolS: 60, times: 2 }, { id: 'b', name: 'B', runS: 60, coolS: 60, times: 2 }]).totalS // 240
 */
export function planQueue(queue: readonly Queued[]): QueuePlan {
  const left = queue.map((item) => ({ item, turns: item.times, readyS: 0, turn: 0 }));
  const slots: EveningSlot[] = [];
  let at = 0;
  for (;;) {
    const open = left.filter(({ turns }) => turns > 0);
    if (open.length === 0) break;
    const work = ({ item, turns }: (typeof left)[number]) => turns * (item.runS + item.coolS);
    const ready = open.filter(({ readyS }) => readyS <= at + 1e-9);
    const next = (ready.length > 0 ? ready : open).reduce((best, one) =>
      ready.length > 0 ? (work(one) > work(best) ? one : best) : one.readyS < best.readyS ? one : best
    );
    const fromS = Math.max(at, next.readyS);
    const toS = fromS + next.item.runS;
    next.turn += 1;
    slots.push({ id: next.item.id, name: next.item.name, turn: next.turn, fromS, toS, waitedS: fromS - at });
    next.turns -= 1;
    next.readyS = toS + next.item.coolS;
    at = toS;
  }
  const oneByOneS = queue.reduce(
    (sum, { runS, coolS, times }) => sum + times * runS + Math.max(0, times - 1) * coolS,
    0
  );
  return { slots, totalS: at, oneByOneS };
}
