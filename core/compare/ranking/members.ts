/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices made by the walk over these very lists */
import { planOf, type RankMember } from './combination.ts';
import type { LinkClass } from './link-classes.ts';
import type { Prepared } from './prepare.ts';
import type { Group } from './walk.ts';

/** A combination of a group with its total, in the currency of the ranking; NaN where a price is missing. */
export type Priced = { link: LinkClass; cable: number; cost: number };

/** Orders totals: what has no price stands behind everything that has one. */
export const costOrder = (cost: number): number => (Number.isNaN(cost) ? Number.MAX_VALUE : cost);

/**
 * Gives what is still to be paid for a combination: parts in the stock cost nothing more, or what they would sell for by house rule.
 * @returns the ids of the parts to buy, and the sum, NaN where a price is missing
 */
export function stillToPay(set: Prepared, group: Group, cable: number): { toBuy: string[]; spend: number } {
  const { withIds, prices } = set;
  const stock = withIds.stock ?? {};
  const wanted: [string, number][] = [
    [withIds.drives[group.drive]!.id!, prices.drive[group.drive]!],
    [withIds.enclosures[group.enclosure]!.id!, prices.enclosure[group.enclosure]!]
  ];
  if (cable >= 0) wanted.push([withIds.cables[cable]!.id!, prices.cable[cable]!]);
  for (const pad of group.pads) if (pad !== undefined) wanted.push([pad, prices.priceOf(pad)]);
  const toBuy = wanted.filter(([id]) => (stock[id] ?? 0) === 0);
  let spend = toBuy.reduce((sum, [, price]) => sum + price, 0);
  if (set.resold && withIds.resale)
    for (const [id] of wanted) if ((stock[id] ?? 0) > 0) spend += withIds.resale[id] ?? 0;
  return { toBuy: toBuy.map(([id]) => id), spend };
}

/** Tells whether anything narrows the ranking down. */
export const narrows = ({ filters }: Prepared): boolean => Object.keys(filters).length > 0;

/** Tells whether a drive at its rate is let through at all. */
function groupPasses({ filters, withIds }: Prepared, { rated, drive }: Group): boolean {
  const { minSustainedWriteMBps, minCapacityTB } = filters;
  if (minSustainedWriteMBps !== undefined && rated.sustained < minSustainedWriteMBps) return false;
  return minCapacityTB === undefined || withIds.drives[drive]!.capacityTB >= minCapacityTB;
}

/** Tells whether a total, and what is still to be paid of it, are let through. */
function costPasses(set: Prepared, group: Group, cable: number, cost: number): boolean {
  const { maxCost, maxSpend, ownedOnly } = set.filters;
  if (maxCost !== undefined && !(cost <= maxCost)) return false;
  if (maxSpend === undefined && !ownedOnly) return true;
  const { toBuy, spend } = stillToPay(set, group, cable);
  if (ownedOnly && toBuy.length > 0) return false;
  return maxSpend === undefined || spend <= maxSpend;
}

/** Tells which links of a group have a wanted verdict: a link class is one verdict, for it differs in nothing that a finding sees. */
function verdictFilter(set: Prepared, { drive, enclosure }: Group): (link: LinkClass) => boolean {
  const { verdicts } = set.filters;
  if (!verdicts) return () => true;
  const wanted = new Map<LinkClass, boolean>();
  return (link) => {
    let answer = wanted.get(link);
    if (answer === undefined) {
      const { verdict } = planOf(set, { drive, enclosure, link, cable: link.cables[0]! });
      answer = verdict !== 'fails' && verdicts.includes(verdict);
      wanted.set(link, answer);
    }
    return answer;
  };
}

/** Lists the links and cables of a group that the filters let through, with the total of each, cheapest first. */
export function membersOf(set: Prepared, group: Group): Priced[] {
  const { prices } = set;
  if (!groupPasses(set, group)) return [];
  const isWanted = verdictFilter(set, group);
  const out: Priced[] = [];
  for (const { link, cable } of group.cell.members) {
    if (!isWanted(link)) continue;
    const cost = prices.total(group.drive, group.enclosure, cable, group.pads);
    if (costPasses(set, group, cable, cost)) out.push({ link, cable, cost });
  }
  if (!prices.plainSum) out.sort((a, b) => costOrder(a.cost) - costOrder(b.cost));
  return out;
}

/** Names one member of a group. */
export const memberOf = ({ drive, enclosure }: Group, { link, cable }: Omit<Priced, 'cost'>): RankMember => ({
  drive,
  enclosure,
  link,
  cable
});
