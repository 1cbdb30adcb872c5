import { appliedRule, type AppliedRule } from '../../house-rules/house-rules.ts';
import { plan } from '../../plan/plan.ts';
import { alternativePoints } from './ready-made.ts';
import { Frontier } from './frontier.ts';
import type { LinkClass } from './links.ts';
import { inputOf, prepare, type Prepared } from './prepare.ts';
import {
  beginWeights,
  type Combination,
  type Criterion,
  type FrontierPoint,
  type RankInput,
  type RankReport,
  type RankRow
} from './request.ts';
import { counting, Extremes, scorer, shareOfBest, type Figures } from './score.ts';
import { Top } from './top.ts';
import { walk, type Group } from './walk.ts';

/** How many examples of each reason for rejecting are kept for looking at. */
const EXAMPLES = 50;
const USUAL_LIMIT = 100;

/** One combination: a group and one of its cables. */
type Member = { group: Group; link: LinkClass; cable: number; cost: number; score: number };

function combinationAt(set: Prepared, drive: number, enclosure: number, link: LinkClass, cable: number): Combination {
  const { withIds, ports } = set;
  return {
    hostId: withIds.hosts[link.host]!.id!,
    portId: ports[link.port]!.port.id,
    ...(cable >= 0 ? { cableId: withIds.cables[cable]!.id! } : {}),
    enclosureId: withIds.enclosures[enclosure]!.id!,
    driveId: withIds.drives[drive]!.id!
  };
}

const KEYS = ['hostId', 'portId', 'cableId', 'enclosureId', 'driveId'] as const;
/** By the ids, in the order of the chain; a tie of everything else is settled the same way every time. */
export function compareIds(a: Combination, b: Combination): number {
  for (const key of KEYS) {
    const [x, y] = [a[key] ?? '', b[key] ?? ''];
    if (x !== y) return x < y ? -1 : 1;
  }
  return 0;
}

/**
 * What is still to be paid for a combination: parts in the stock cost nothing more, or what they would sell for by house rule; NaN
 * where a price is missing.
 */
function stillToPay(set: Prepared, group: Group, cable: number): { toBuy: string[]; spend: number } {
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

/** The plan of one combination. */
const planOf = (set: Prepared, group: Group, link: LinkClass, cable: number) =>
  plan(inputOf(set, group.drive, group.enclosure, link, cable), { workings: false });

/** The schools that decided something in this ranking. */
function decisionsOf({ withIds, rules, request, resold }: Prepared): AppliedRule[] {
  const decided: AppliedRule[] = request.weights ? [] : [beginWeights(withIds.job, rules).decided];
  if (withIds.stock && Object.keys(withIds.stock).length > 0)
    decided.push(
      appliedRule(
        'reuse',
        rules,
        resold
          ? 'parts at hand count with what they would sell for'
          : 'parts at hand add nothing to what is still to be paid'
      )
    );
  return decided;
}

/** What has no price stands behind everything that has one. */
const costOrder = (cost: number): number => (Number.isNaN(cost) ? Number.MAX_VALUE : cost);

type Priced = { link: LinkClass; cable: number; cost: number };

/** Whether anything narrows the ranking down. */
const narrows = ({ filters }: Prepared): boolean => Object.keys(filters).length > 0;

/** The links and cables of a group that the filters let through, with the total of each, cheapest first. */
function membersOf(set: Prepared, group: Group): Priced[] {
  const { filters, withIds, prices } = set;
  const { minSustainedWriteMBps, minCapacityTB, maxCost, maxSpend, ownedOnly, verdicts } = filters;
  if (minSustainedWriteMBps !== undefined && group.rated.sustained < minSustainedWriteMBps) return [];
  if (minCapacityTB !== undefined && withIds.drives[group.drive]!.capacityTB < minCapacityTB) return [];
  const wanted = new Map<LinkClass, boolean>();
  /** A link class is one verdict: it differs in nothing that a finding looks at. */
  const isWanted = (link: LinkClass): boolean => {
    let answer = wanted.get(link);
    if (answer === undefined) {
      answer = verdicts!.includes(planOf(set, group, link, link.cables[0]!).verdict as 'works');
      wanted.set(link, answer);
    }
    return answer;
  };
  const out: Priced[] = [];
  for (const { link, cable } of group.cell.members) {
    if (verdicts && !isWanted(link)) continue;
    const cost = prices.total(group.drive, group.enclosure, cable, group.pads);
    if (maxCost !== undefined && !(cost <= maxCost)) continue;
    if (maxSpend !== undefined || ownedOnly) {
      const { toBuy, spend } = stillToPay(set, group, cable);
      if (ownedOnly && toBuy.length > 0) continue;
      if (maxSpend !== undefined && !(spend <= maxSpend)) continue;
    }
    out.push({ link, cable, cost });
  }
  if (!prices.plainSum) out.sort((a, b) => costOrder(a.cost) - costOrder(b.cost) || 0);
  return out;
}

const figuresOf = (set: Prepared, group: Group, cost: number): Figures => ({
  sustainedWrite: group.rated.sustained,
  read: group.rated.read.typical,
  seconds: group.seconds,
  cost,
  perTB: cost / set.withIds.drives[group.drive]!.capacityTB
});

/**
 * Ranks every combination of the parts for a job. The first pass finds the best of the set, the frontier and what is rejected;
 * the second, which needs the best, the order; walking twice costs less than keeping millions of figures. Every row that is shown is planned by `plan()`.
 * @param onProgress called now and then with the share of the work done, 0 to 1
 */
export function rank(request: RankInput, onProgress: (share: number) => void = () => {}): RankReport {
  const set = prepare(request);
  const { weights, withIds, prices } = set;
  const limit = request.limit ?? USUAL_LIMIT;
  const simple = !narrows(set) && prices.plainSum;

  let considered = 0;
  let accepted = 0;
  const rejected = new Map<string, { count: number; examples: Combination[] }>();
  const extremes = new Extremes();
  type Ref = Omit<Member, 'cost' | 'score'>;
  const frontier = new Frontier<Ref>();
  const perTB = new Frontier<Ref>();
  const first = walk(set, {
    accept(drive, enclosure, cell, rated, seconds, pads) {
      const count = cell.members.length;
      considered += count;
      const { sustained } = rated;
      let group: Group | undefined;
      let members: Priced[] | undefined;
      let [cheapest, dearest] = [0, 0];
      if (simple) {
        accepted += count;
        cheapest = prices.total(drive, enclosure, cell.members[0]!.cable, pads);
        dearest = count === 1 ? cheapest : prices.total(drive, enclosure, cell.members[count - 1]!.cable, pads);
      } else {
        group = { drive, enclosure, cell, rated, seconds, pads };
        members = membersOf(set, group);
        if (members.length === 0) return;
        accepted += members.length;
        cheapest = members[0]!.cost;
        dearest = members.filter(({ cost }) => !Number.isNaN(cost)).at(-1)?.cost ?? NaN;
      }
      const { capacityTB } = withIds.drives[drive]!;
      extremes.add(sustained, rated.read.typical, seconds, cheapest, dearest, capacityTB);
      if (Number.isNaN(cheapest)) return;
      const eachTB = cheapest / capacityTB;
      const [onTotal, onTB] = [frontier.takes(cheapest, sustained), perTB.takes(eachTB, sustained)];
      if (!onTotal && !onTB) return;
      group ??= { drive, enclosure, cell, rated, seconds, pads };
      for (const { link, cable, cost } of members ?? membersOf(set, group)) {
        if (cost !== cheapest) break;
        if (onTotal) frontier.add(cost, sustained, { group, link, cable });
        if (onTB) perTB.add(eachTB, sustained, { group, link, cable });
      }
    },
    reject(code, count, drive, enclosure, links) {
      considered += count;
      let entry = rejected.get(code);
      if (!entry) rejected.set(code, (entry = { count: 0, examples: [] }));
      entry.count += count;
      if (entry.examples.length >= EXAMPLES) return;
      for (const link of links())
        for (const cable of link.cables) {
          if (entry.examples.length >= EXAMPLES) return;
          entry.examples.push(combinationAt(set, drive, enclosure, link, cable));
        }
    }
  });
  for (const share of first) onProgress(limit > 0 ? share / 2 : share);

  const criteria = counting(weights, extremes);
  const idsOf = ({ group, link, cable }: Omit<Member, 'cost' | 'score'>) =>
    combinationAt(set, group.drive, group.enclosure, link, cable);
  const score = scorer(weights, extremes);
  const scoreAt = ({ drive, rated, seconds }: Group, cost: number) =>
    score(rated.sustained, rated.read.typical, seconds, cost, cost / withIds.drives[drive]!.capacityTB);
  const before = (a: Member, b: Member): boolean => {
    if (a.score !== b.score) return a.score > b.score;
    if (costOrder(a.cost) !== costOrder(b.cost)) return costOrder(a.cost) < costOrder(b.cost);
    return compareIds(idsOf(a), idsOf(b)) < 0;
  };
  const top = new Top<Member>(limit, before);
  const consider = (group: Group) => {
    const { drive, enclosure, cell, pads } = group;
    if (simple && top.last) {
      // The cheapest of the group stands highest in it.
      const cost = prices.total(drive, enclosure, cell.members[0]!.cable, pads);
      if (scoreAt(group, cost) < top.last.score) return;
    }
    for (const { link, cable, cost } of membersOf(set, group)) {
      const own = scoreAt(group, cost);
      // The next cable is dearer and can only stand lower.
      if (top.last && own < top.last.score) break;
      top.add({ group, link, cable, cost, score: own });
    }
  };
  if (limit > 0) {
    const second = walk(set, {
      accept: (drive, enclosure, cell, rated, seconds, pads) =>
        consider({ drive, enclosure, cell, rated, seconds, pads }),
      reject() {}
    });
    for (const share of second) onProgress((1 + share) / 2);
  }
  onProgress(1);

  const keyOf = (c: Combination) => KEYS.map((key) => c[key] ?? '').join(' ');
  const onFrontier = new Set(frontier.points.flatMap((point) => point.refs.map((ref) => keyOf(idsOf(ref)))));
  const rows = top.sorted().map((member): RankRow => {
    const { group, link, cable, cost, score: own } = member;
    const ids = idsOf(member);
    const report = planOf(set, group, link, cable);
    const figures = figuresOf(set, group, cost);
    const { toBuy, spend } = stillToPay(set, group, cable);
    const priced = !Number.isNaN(cost);
    return {
      ...ids,
      verdict: report.verdict,
      sustainedWrite: report.throughput.sustainedWrite!,
      read: report.throughput.read!,
      seconds: report.job!.seconds.typical,
      ...(report.measured ? { measured: report.measured } : {}),
      cost: priced ? report.cost!.total : null,
      perTB: priced ? report.cost!.perTB : null,
      frontier: onFrontier.has(keyOf(ids)),
      score: own,
      shares: Object.fromEntries(criteria.map((c) => [c, shareOfBest(c, figures[c], extremes)])),
      spend: Number.isNaN(spend) ? null : spend,
      toBuy
    };
  });
  const pointsOf = ({ points }: Frontier<Ref>): FrontierPoint[] =>
    points.map(({ cost, speed, refs }) => ({
      cost,
      sustainedWrite: speed,
      count: refs.length,
      first: refs.map(idsOf).sort(compareIds)[0]!
    }));
  const rejectedCount = [...rejected.values()].reduce((sum, { count }) => sum + count, 0);
  const some = (values: Figures) =>
    Object.fromEntries(Object.entries(values).filter(([, value]) => !Number.isNaN(value))) as Partial<
      Record<Criterion, number>
    >;
  return {
    considered,
    accepted,
    filtered: considered - rejectedCount - accepted,
    rows,
    frontier: pointsOf(frontier),
    frontierPerTB: pointsOf(perTB),
    rejected: [...rejected]
      .map(([code, entry]) => ({ code, ...entry }))
      .sort((a, b) => b.count - a.count || (a.code < b.code ? -1 : 1)),
    alternatives: alternativePoints(set.alternatives, withIds.job, prices.priceOf),
    houseRules: decisionsOf(set),
    best: some(extremes.best),
    weights,
    currency: set.prices.currency
  };
}
