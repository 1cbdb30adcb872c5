/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices made by the walk over these very lists, in the inner loop */
import { chainKey, pairKey } from '../../build/chain-key.ts';
import type { Pairing } from '../../chain/rules/rule.ts';
import { FIT_RULES, type FitRule } from '../../chain/rules/rules.ts';
import { jobSeconds } from '../../plan/job-forecast.ts';
import { combinationOf, planOf } from './combination.ts';
import type { EnclosureLinks, LinkCell, LinkClass, LinkFinder } from './link-classes.ts';
import { PairModel, type Rated } from './pair-model.ts';
import type { Prepared } from './prepare.ts';

const ONE = { read: 1, write: 1 } as const;

/** A drive in an enclosure, by their indexes. */
export type Pair = { drive: number; enclosure: number };

/** Combinations of one drive, one enclosure and one cell of links: they differ in the price of the cable alone. */
export type Group = Pair & {
  cell: LinkCell;
  rated: Rated;
  /** Of the job, typical. */
  seconds: number;
  /** The pads that have to be paid. */
  pads: readonly (string | undefined)[];
};

/** Who is told of every combination. */
export type Visitor = {
  /** @param group one object for all of them: whoever keeps it takes a copy */
  accept(group: Readonly<Group>): void;
  /** Whole link classes fail with this drive in this enclosure, under their first failing rule. */
  reject(code: string, count: number, pair: Pair, links: () => readonly LinkClass[]): void;
};

/** A rule with its place in the order of all of them. */
type Placed<Sees extends FitRule['sees']> = Extract<FitRule, { sees: Sees }> & { at: number };
const placed = <Sees extends FitRule['sees']>(sees: Sees): Placed<Sees>[] =>
  FIT_RULES.flatMap((rule, at) => (rule.sees === sees ? [{ ...rule, at } as Placed<Sees>] : []));
const PARTS_RULES = placed('parts');
const CHAIN_RULES = placed('chain').flatMap(({ check, fails }) => (fails ? [{ check, fails }] : []));
const LAST = FIT_RULES.length;

/** No rule of those that see the whole chain was asked yet. */
const UNASKED = '?';

const linksOf = (cell: LinkCell): LinkClass[] => [...new Set(cell.members.map(({ link }) => link))];

/** All drives in one enclosure, one after the other. */
class EnclosureWalk {
  readonly #set: Prepared;
  readonly #links: EnclosureLinks;
  readonly #visitor: Visitor;
  readonly #firstLinkFail: number;
  // Of one drive at a time, by the numbers that the links have for what can be told apart.
  readonly #rated: (Rated | undefined)[];
  readonly #chainCodes: (string | undefined)[];
  readonly #seconds: Float64Array;
  readonly #group: Group;
  readonly #knownPairs: Pairing['knownPairs'];
  #pairing: Pairing | undefined;
  #pair!: PairModel;
  /** Whether any combination of the pair was measured. */
  #measured = false;

  constructor(set: Prepared, enclosure: number, links: EnclosureLinks, visitor: Visitor) {
    this.#set = set;
    this.#links = links;
    this.#visitor = visitor;
    this.#firstLinkFail = links.failing[0]?.at ?? LAST;
    this.#rated = new Array<Rated | undefined>(links.rates.length);
    this.#chainCodes = new Array<string | undefined>(links.chains);
    this.#seconds = new Float64Array(links.times);
    this.#knownPairs = set.withIds.knownPairs ?? [];
    const nothing = { drive: 0, seconds: NaN, pads: [] };
    this.#group = { ...nothing, enclosure, cell: links.open[0]!, rated: this.#rated[0]! };
  }

  visit(drive: number): void {
    const { open, failing, combinations } = this.#links;
    this.#group.drive = drive;
    const parts = this.#partsFailure();
    if (parts.at < this.#firstLinkFail)
      return this.#visitor.reject(parts.code, combinations, this.#group, this.#everyLink);
    for (const { at, code, combinations: count, classes } of failing)
      this.#visitor.reject(parts.at < at ? parts.code : code, count, this.#group, () => classes);
    if (parts.at < LAST) return open.forEach((cell) => this.#reject(parts.code, cell));
    this.#rated.fill(undefined);
    this.#chainCodes.fill(UNASKED);
    this.#seconds.fill(NaN);
    this.#pair = new PairModel(this.#set, drive, this.#group.enclosure);
    this.#measured = this.#wasMeasured();
    for (const cell of open) this.#visitCell(cell);
  }

  readonly #everyLink = (): LinkClass[] => [
    ...this.#links.failing.flatMap(({ classes }) => classes),
    ...this.#links.open.flatMap(linksOf)
  ];

  #reject(code: string, cell: LinkCell): void {
    this.#visitor.reject(code, cell.members.length, this.#group, () => linksOf(cell));
  }

  /** Finds the first rule about drive and enclosure that fails. */
  #partsFailure(): { at: number; code: string } {
    const { drives, enclosures } = this.#set;
    const drive = drives[this.#group.drive]!.filled;
    const pairing = { drive, enclosure: enclosures[this.#group.enclosure]!, knownPairs: this.#knownPairs };
    for (const { check, at } of PARTS_RULES) {
      const finding = check(pairing);
      if (finding?.severity === 'fail') return { at, code: finding.code };
    }
    return { at: LAST, code: '' };
  }

  #visitCell(cell: LinkCell): void {
    const rated = (this.#rated[cell.rate] ??= this.#pair.rate(this.#links.rates[cell.rate]!));
    const fit = this.#set.filesystemFits[cell.host]![this.#group.drive]!;
    const code = this.#chainCode(cell, rated) ?? fit.fail;
    if (code !== undefined) return this.#reject(code, cell);
    this.#pair.sustain(rated, cell.first.negotiation.mode!);
    this.#group.cell = cell;
    this.#group.rated = rated;
    this.#group.seconds = this.#timeOf(cell, rated);
    this.#group.pads = this.#pair.pads;
    if (this.#measured) this.#acceptApart(cell);
    else this.#visitor.accept(this.#group);
  }

  /** Finds the first rule about the whole chain that fails. */
  #chainCode(cell: LinkCell, rated: Rated): string | undefined {
    const known = this.#chainCodes[cell.chain];
    if (known !== UNASKED) return known;
    const pairing = this.#pairingOf(cell, rated);
    let code: string | undefined;
    for (const { fails, check } of CHAIN_RULES)
      if (fails(pairing)) {
        code = check(pairing)?.code;
        break;
      }
    this.#chainCodes[cell.chain] = code;
    return code;
  }

  /** Gives what the rules about the whole chain look at: one object for all of them, for they are asked millions of times. */
  #pairingOf({ first: { port: portIndex, negotiation } }: LinkCell, { write }: Rated): Pairing {
    const { drives, enclosures, ports } = this.#set;
    const { port, watts } = ports[portIndex]!;
    const pairing = (this.#pairing ??= {
      drive: drives[this.#group.drive]!.filled,
      enclosure: enclosures[this.#group.enclosure]!,
      knownPairs: this.#knownPairs,
      port,
      portWatts: watts,
      negotiation,
      writeMBps: write
    });
    pairing.drive = drives[this.#group.drive]!.filled;
    pairing.port = port;
    pairing.portWatts = watts;
    pairing.negotiation = negotiation;
    pairing.writeMBps = write;
    return pairing;
  }

  #timeOf(cell: LinkCell, rated: Rated): number {
    const known = this.#seconds[cell.time]!;
    if (!Number.isNaN(known)) return known;
    const { withIds, drives, filesystemFits, quickRemoval } = this.#set;
    const { filled: drive, freeGB } = drives[this.#group.drive]!;
    const { usableTiB, filesystem } = filesystemFits[cell.host]![this.#group.drive]!;
    const mode = cell.first.negotiation.mode!;
    const chain = {
      host: withIds.hosts[cell.host]!,
      drive,
      mode,
      link: rated.link,
      read: rated.read,
      write: rated.write,
      cache: rated.cache,
      freeGB,
      usableTiB,
      filesystem,
      quickRemoval: quickRemoval[cell.host]!,
      diskFactor: ONE
    };
    const seconds = jobSeconds(withIds.job, chain, rated.hot ? this.#pair.thermalIn(mode) : null);
    this.#seconds[cell.time] = seconds;
    return seconds;
  }

  #wasMeasured(): boolean {
    const { measuredPairs, withIds } = this.#set;
    const { drive, enclosure } = this.#group;
    return (
      measuredPairs.size > 0 &&
      measuredPairs.has(pairKey(withIds.drives[drive]!.id!, withIds.enclosures[enclosure]!.id!))
    );
  }

  /** What was measured stands apart: its job is timed by its plan, with the measured rates. */
  #acceptApart(cell: LinkCell): void {
    const { drive, enclosure, seconds } = this.#group;
    const memberOf = (member: LinkCell['members'][number]) => ({ drive, enclosure, ...member });
    const { measured } = this.#set.known;
    const was = cell.members.filter((m) => measured.has(chainKey(combinationOf(this.#set, memberOf(m)))));
    const others = cell.members.filter((member) => !was.includes(member));
    if (others.length > 0) {
      this.#group.cell = { ...cell, members: others };
      this.#visitor.accept(this.#group);
    }
    for (const member of was) {
      this.#group.cell = { ...cell, members: [member] };
      this.#group.seconds = planOf(this.#set, memberOf(member)).job?.seconds.typical ?? seconds;
      this.#visitor.accept(this.#group);
    }
  }
}

/**
 * Judges every combination by the same rules and formulas as `plan()`, each of them as seldom as it can say anything new: once
 * a pair of drive and enclosure, once a link class of an enclosure, once a distinct rate of the two.
 * @returns a generator that yields the share of the work done, 0..1, after each enclosure
 */
export function* walk(set: Prepared, links: LinkFinder, visitor: Visitor): Generator<number, void> {
  for (let e = 0; e < set.enclosures.length; e++) {
    const enclosure = new EnclosureWalk(set, e, links.of(set.enclosures[e]!), visitor);
    for (let d = 0; d < set.drives.length; d++) enclosure.visit(d);
    yield (e + 1) / set.enclosures.length;
  }
}
