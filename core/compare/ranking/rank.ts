/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices made by the walk over these very lists; what is ranked works, so that its figures are there */
import { appliedRule, type AppliedRule } from '../../house-rules/house-rules.ts';
import { combinationKey, combinationOf, compareIds, planOf, type RankMember } from './combination.ts';
import { Frontier } from './frontier.ts';
import { LinkFinder, type LinkClass } from './link-classes.ts';
import { costOrder, memberOf, membersOf, narrows, stillToPay, type Priced } from './members.ts';
import { prepare, type Prepared } from './prepare.ts';
import { alternativePoints } from './ready-made.ts';
import {
  beginWeights,
  type Combination,
  type Criterion,
  type FrontierPoint,
  type RankInput,
  type RankReport,
  type RankRow
} from './request.ts';
import { counting, Extremes, scorer, shareOfBest, type Figures, type Pace } from './score.ts';
import { Top } from './top.ts';
import { TraitFigures } from './traits.ts';
import { walk, type Group, type Pair, type Visitor } from './walk.ts';

/** How many examples of each reason for rejecting are kept for looking at. */
const EXAMPLES = 50;
const USUAL_LIMIT = 100;

const paceOf = ({ rated, seconds }: Group): Pace => ({ sustained: rated.sustained, read: rated.read.typical, seconds });

/** Whether the total of a group is a plain sum, so that its cheapest and dearest are those of its first and last cable. */
const isSimple = (set: Prepared): boolean => !narrows(set) && set.prices.plainSum;

/** The first pass over all combinations: how many there are, what is rejected, the best of the set and the frontiers. */
class Survey implements Visitor {
  readonly #set: Prepared;
  readonly #simple: boolean;
  considered = 0;
  accepted = 0;
  readonly rejected = new Map<string, { count: number; examples: Combination[] }>();
  readonly extremes = new Extremes();
  readonly frontier = new Frontier<RankMember>();
  readonly perTB = new Frontier<RankMember>();
  readonly traits: TraitFigures;

  constructor(set: Prepared) {
    this.#set = set;
    this.traits = new TraitFigures(set, set.weights);
    this.#simple = isSimple(set) && !this.traits.byCable;
  }

  accept(group: Readonly<Group>): void {
    const { members: all } = group.cell;
    this.considered += all.length;
    const members = this.#simple ? undefined : membersOf(this.#set, group);
    if (members?.length === 0) return;
    this.accepted += members?.length ?? all.length;
    const { cheapest, dearest } = members ? ends(members) : this.#plainEnds(group);
    const { capacityTB } = this.#set.withIds.drives[group.drive]!;
    this.extremes.add(paceOf(group), capacityTB, cheapest, dearest);
    if (this.traits.byCable) for (const { cable } of members ?? all) this.traits.add(group, cable);
    else if (this.traits.traits.length > 0) this.traits.add(group, all[0]!.cable);
    if (!Number.isNaN(cheapest)) this.#offer(group, members, cheapest, cheapest / capacityTB);
  }

  #plainEnds({ drive, enclosure, cell, pads }: Group): { cheapest: number; dearest: number } {
    const { prices } = this.#set;
    const cheapest = prices.total(drive, enclosure, cell.members[0]!.cable, pads);
    const last = cell.members.length - 1;
    return {
      cheapest,
      dearest: last === 0 ? cheapest : prices.total(drive, enclosure, cell.members[last]!.cable, pads)
    };
  }

  /** Puts the cheapest of a group where none is both cheaper and faster. */
  #offer(group: Group, members: Priced[] | undefined, cheapest: number, eachTB: number): void {
    const { sustained } = group.rated;
    const [onTotal, onTB] = [this.frontier.takes(cheapest, sustained), this.perTB.takes(eachTB, sustained)];
    if (!onTotal && !onTB) return;
    for (const priced of members ?? membersOf(this.#set, group)) {
      if (priced.cost !== cheapest) break;
      const member = memberOf(group, priced);
      if (onTotal) this.frontier.add(priced.cost, sustained, member);
      if (onTB) this.perTB.add(eachTB, sustained, member);
    }
  }

  reject(code: string, count: number, { drive, enclosure }: Pair, links: () => readonly LinkClass[]): void {
    this.considered += count;
    let entry = this.rejected.get(code);
    if (!entry) this.rejected.set(code, (entry = { count: 0, examples: [] }));
    entry.count += count;
    if (entry.examples.length >= EXAMPLES) return;
    for (const link of links())
      for (const cable of link.cables) {
        if (entry.examples.length >= EXAMPLES) return;
        entry.examples.push(combinationOf(this.#set, { drive, enclosure, link, cable }));
      }
  }
}

/** The cheapest and the dearest of some members; what has no price is neither. */
const ends = (members: readonly Priced[]): { cheapest: number; dearest: number } => ({
  cheapest: members[0]!.cost,
  dearest: members.filter(({ cost }) => !Number.isNaN(cost)).at(-1)?.cost ?? NaN
});

/** A combination in the order of the ranking. */
type Ranked = Priced & { group: Group; score: number };

/** The second pass, which needs the best of the set: the order. */
class Order implements Visitor {
  readonly #set: Prepared;
  readonly #simple: boolean;
  readonly #score: ReturnType<typeof scorer>;
  readonly #traits: TraitFigures;
  readonly top: Top<Ranked>;

  constructor(set: Prepared, { extremes, traits }: Survey, limit: number) {
    this.#set = set;
    this.#traits = traits;
    this.#simple = isSimple(set) && !traits.byCable;
    this.#score = scorer(set.weights, extremes);
    this.top = new Top<Ranked>(limit, (a, b) => this.#before(a, b));
  }

  #before(a: Ranked, b: Ranked): boolean {
    if (a.score !== b.score) return a.score > b.score;
    if (costOrder(a.cost) !== costOrder(b.cost)) return costOrder(a.cost) < costOrder(b.cost);
    const idsOf = (ranked: Ranked) => combinationOf(this.#set, memberOf(ranked.group, ranked));
    return compareIds(idsOf(a), idsOf(b)) < 0;
  }

  accept(group: Readonly<Group>): void {
    const { drive, enclosure, cell, pads } = group;
    const pace = paceOf(group);
    const { capacityTB } = this.#set.withIds.drives[drive]!;
    const weighed = this.#traits.traits.length > 0;
    const { byCable } = this.#traits;
    // Only the cable's own length tells combinations of a group apart.
    const added = weighed && !byCable ? this.#traits.score(group, cell.members[0]!.cable) : 0;
    const scoreAt = (cost: number) => this.#score(pace, cost, cost / capacityTB) + added;
    const { last } = this.top;
    // The cheapest of the group stands highest in it.
    if (this.#simple && last) {
      const cheapest = this.#set.prices.total(drive, enclosure, cell.members[0]!.cable, pads);
      if (scoreAt(cheapest) < last.score) return;
    }
    let kept: Group | undefined;
    for (const priced of membersOf(this.#set, group)) {
      const score = byCable ? scoreAt(priced.cost) + this.#traits.score(group, priced.cable) : scoreAt(priced.cost);
      // The next cable is dearer and can only stand lower, unless its length counts.
      if (this.top.last && score < this.top.last.score) {
        if (byCable) continue;
        break;
      }
      this.top.add({ ...priced, group: (kept ??= { ...group }), score });
    }
  }

  reject(): void {}
}

/** Plans one ranked combination and writes it down. */
function rowOfRanked(
  set: Prepared,
  ranked: Ranked,
  { extremes, traits }: Survey,
  onFrontier: ReadonlySet<string>
): RankRow {
  const { group, cable, cost, score } = ranked;
  const member = memberOf(group, ranked);
  const ids = combinationOf(set, member);
  const report = planOf(set, member);
  const { toBuy, spend } = stillToPay(set, group, cable);
  const { sustained: sustainedWrite, read, seconds } = paceOf(group);
  const perTB = cost / set.withIds.drives[group.drive]!.capacityTB;
  const figures: Figures = { sustainedWrite, read, seconds, cost, perTB };
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
    frontier: onFrontier.has(combinationKey(ids)),
    score,
    shares: Object.fromEntries([
      ...counting(set.weights, extremes).map((c) => [c, shareOfBest(c, figures[c], extremes)]),
      ...traits.traits.map((trait) => [trait, traits.share(trait, group, cable)])
    ]),
    spend: Number.isNaN(spend) ? null : spend,
    toBuy
  };
}

const pointsOf = (set: Prepared, { points }: Frontier<RankMember>): FrontierPoint[] =>
  points.map(({ cost, speed, refs }) => ({
    cost,
    sustainedWrite: speed,
    count: refs.length,
    first: refs.map((ref) => combinationOf(set, ref)).sort(compareIds)[0]!
  }));

/** Names the house rules that decided something in this ranking. */
function rulesApplied({ withIds, rules, request, resold }: Prepared): AppliedRule[] {
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

function reportOf(set: Prepared, survey: Survey, ranked: readonly Ranked[]): RankReport {
  const { considered, accepted, rejected, extremes, frontier, perTB } = survey;
  const idsOf = (member: RankMember) => combinationOf(set, member);
  const onFrontier = new Set(frontier.points.flatMap(({ refs }) => refs.map((ref) => combinationKey(idsOf(ref)))));
  const rejectedCount = [...rejected.values()].reduce((sum, { count }) => sum + count, 0);
  const best = Object.entries(extremes.best).filter(([, value]) => !Number.isNaN(value));
  return {
    considered,
    accepted,
    filtered: considered - rejectedCount - accepted,
    rows: ranked.map((one) => rowOfRanked(set, one, survey, onFrontier)),
    frontier: pointsOf(set, frontier),
    frontierPerTB: pointsOf(set, perTB),
    rejected: [...rejected]
      .map(([code, entry]) => ({ code, ...entry }))
      .sort((a, b) => b.count - a.count || (a.code < b.code ? -1 : 1)),
    alternatives: alternativePoints(set.alternatives, set.withIds.job, set.prices.priceOf),
    houseRules: rulesApplied(set),
    best: Object.fromEntries(best) as Partial<Record<Criterion, number>>,
    weights: set.weights,
    currency: set.prices.currency
  };
}

/**
 * Ranks every combination of the parts for a job. The first pass finds the best of the set, the frontier and what is rejected;
 * the second, which needs the best, the order; walking twice costs less than keeping millions of figures. Every row that is shown
 * is planned by `plan()`.
 * @param request parts in full; those without an id get one
 * @param onProgress called now and then with the share of the work done, 0..1
 * @example rank({ hosts: [aHost()], cables: [], enclosures: [anEnclosure()], drives: [aDrive()], job: { name: 'j', purposes: [], transferGB: 1, direction: 'in' } }).considered // 1
 */
export function rank(request: RankInput, onProgress: (share: number) => void = () => {}): RankReport {
  const set = prepare(request);
  const links = new LinkFinder(set);
  const limit = request.limit ?? USUAL_LIMIT;
  const survey = new Survey(set);
  for (const share of walk(set, links, survey)) onProgress(limit > 0 ? share / 2 : share);
  const order = new Order(set, survey, limit);
  if (limit > 0) for (const share of walk(set, links, order)) onProgress((1 + share) / 2);
  onProgress(1);
  return reportOf(set, survey, order.top.sorted());
}
