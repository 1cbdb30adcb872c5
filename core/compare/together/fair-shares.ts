/* eslint-disable @typescript-eslint/no-non-null-assertion -- demands and rates have one entry for each flow, resources and what is left of them one for each resource */
/**
 * Shares capacities among flows so that none could have more without one that has less getting even less (max-min fairness, by
 * filling all of them at once until something is full).
 * @param demands what each flow could do alone, MB/s
 * @param resources what each resource carries, and which flows go through it
 * @returns rates, and for each flow the resource that ended its rise; undefined where it has all it wants
 */
export function fairShares(
  demands: readonly number[],
  resources: readonly { capacity: number; flows: readonly number[] }[]
): { rates: number[]; heldBy: (number | undefined)[] } {
  const rates = demands.map(() => 0);
  const heldBy: (number | undefined)[] = demands.map(() => undefined);
  const left = resources.map(({ capacity }) => capacity);
  const open = new Set(demands.map((_, i) => i).filter((i) => demands[i]! > 0));
  while (open.size > 0) {
    const users = resources.map(({ flows }) => flows.filter((f) => open.has(f)));
    let rise = Math.min(...[...open].map((f) => demands[f]! - rates[f]!));
    users.forEach((flows, r) => {
      if (flows.length > 0) rise = Math.min(rise, left[r]! / flows.length);
    });
    for (const f of open) rates[f]! += rise;
    users.forEach((flows, r) => (left[r]! -= rise * flows.length));
    const before = open.size;
    users.forEach((flows, r) => {
      if (left[r]! > 1e-9 * resources[r]!.capacity) return;
      for (const f of flows) if (open.delete(f)) heldBy[f] = r;
    });
    for (const f of [...open]) if (rates[f]! >= demands[f]! * (1 - 1e-12)) open.delete(f);
    // Rounding must never keep it going round.
    if (open.size === before) break;
  }
  return { rates, heldBy };
}
