/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices made by counting these very lists, in the inner loop */
import { drawKind } from '../../chain/power-draw.ts';
import { negotiate, socketFor, type Negotiation } from '../../chain/negotiate.ts';
import { mostOfDrive, mostOfEnclosure } from '../../chain/power-need.ts';
import { FIT_RULES } from '../../chain/rules/rules.ts';
import { generationOf, linkStages } from '../../chain/stages.ts';
import type { FilledEnclosure } from '../../parts/fill/enclosure.ts';
import { minBand, type Band } from '../../quantities/band.ts';
import type { Prepared } from './prepare.ts';

const LINK_RULES = FIT_RULES.flatMap((rule, at) => (rule.sees === 'link' ? [{ check: rule.check, at }] : []));

/** The class of the cables of a port whose ends do not meet. */
const UNPLUGGED = 'unplugged';
/** In the place of a cable: none of the list. */
const NO_CABLE = -1;

/**
 * Combinations of a port and its cables that are the same link to every drive in this enclosure: the same mode, the same
 * rates, the same findings. They differ in the cable's name and price alone.
 */
export type LinkClass = {
  port: number;
  host: number;
  negotiation: Negotiation;
  /** Indexes of cables; -1 is no cable of the list. */
  cables: number[];
};

/**
 * Link classes that come to the same figures with every drive, and fail with the same ones: one host, one rate, one supply. They
 * may differ in what is remarked about them.
 */
export type LinkCell = {
  host: number;
  /** One of them, to ask rules about. */
  first: LinkClass;
  /** Among the enclosure's distinct rates, among its distinct answers to "how long", and among what a chain rule tells apart. */
  rate: number;
  time: number;
  chain: number;
  /** Every link with every cable, cheapest cable first. */
  members: { link: LinkClass; cable: number }[];
};

/** Link classes that fail whatever the drive, under one and the same rule. */
export type Failing = { at: number; code: string; combinations: number; classes: LinkClass[] };

export type EnclosureLinks = {
  /** Those that connect. */
  open: LinkCell[];
  /** Those that do not, in the order of the rules. */
  failing: Failing[];
  /** What port, cable and bridge let through together. */
  rates: { read: Band; write: Band }[];
  /** How many distinct answers there are to "how long does the job take". */
  times: number;
  chains: number;
  combinations: number;
};

/** Names what port and cable see of an enclosure: enclosures with the same key negotiate alike. */
function linkCacheKey({ enclosure, uas }: FilledEnclosure, generation: number | undefined, ownCables: boolean): string {
  const { modes, plug, morePlugs, captiveCable, externalSupply, formFactor, includedCables } = enclosure;
  return JSON.stringify([
    modes,
    plug,
    morePlugs,
    captiveCable,
    externalSupply,
    formFactor,
    uas,
    generation,
    ownCables ? includedCables : 0
  ]);
}

/** Gives the same number to the same text, counting from 0. */
class Numbers {
  readonly #at = new Map<string, number>();
  of(text: string): number {
    const at = this.#at.get(text) ?? this.#at.size;
    this.#at.set(text, at);
    return at;
  }
  get count(): number {
    return this.#at.size;
  }
}

/** What the link rules say of a link: all their codes, and the first that fails. */
type Judged = { codes: string; fails: { at: number; code: string } | undefined };

/** What all enclosures of a ranking share: the cables by price, and what the hungriest of all parts would draw. */
type Shared = { set: Prepared; placeOf: (cable: number) => number; mostWatts: number };

/** Sorts the links of one enclosure into classes, and those that connect into cells. */
class LinksOfEnclosure {
  readonly #shared: Shared;
  readonly #enclosure: FilledEnclosure;
  readonly #open = new Map<string, LinkCell>();
  readonly #failing = new Map<number, Failing>();
  readonly #cellOf = new Map<LinkClass, string>();
  readonly #rates: EnclosureLinks['rates'] = [];
  readonly #rateNumbers = new Numbers();
  readonly #timeNumbers = new Numbers();
  readonly #chainNumbers = new Numbers();

  constructor(shared: Shared, enclosure: FilledEnclosure) {
    this.#shared = shared;
    this.#enclosure = enclosure;
  }

  find(choices: readonly number[]): EnclosureLinks {
    const { ports } = this.#shared.set;
    ports.forEach((_, port) => {
      const alike = new Map<string, LinkClass>();
      for (const cable of choices) this.#sort(port, cable, alike);
    });
    return this.#result(ports.length * choices.length);
  }

  /** Puts a cable on a port into the class of its like. */
  #sort(portIndex: number, choice: number, alike: Map<string, LinkClass>): void {
    const { ports, withIds } = this.#shared.set;
    const { host, port } = ports[portIndex]!;
    const cable = withIds.cables[choice];
    // Most cables do not even plug in: that needs no negotiation, and is the first thing that fails.
    const meets = cable ? socketFor(cable, port, this.#enclosure.enclosure) !== undefined : true;
    const unplugged = meets ? undefined : alike.get(UNPLUGGED);
    if (unplugged) return void unplugged.cables.push(choice);
    const negotiation = negotiate(port, cable, this.#enclosure.enclosure);
    const judged = this.#judge(portIndex, negotiation);
    const { mode, limiting, best, plugsMeet } = negotiation;
    const same = !meets
      ? UNPLUGGED
      : `${mode} ${limiting.join()} ${best.cable} ${best.bridge} ${plugsMeet} ${negotiation.cable?.yLead} ${judged.codes}`;
    const first = alike.get(same);
    if (first) return void first.cables.push(choice);
    const made: LinkClass = { port: portIndex, host, negotiation, cables: [choice] };
    alike.set(same, made);
    this.#keep(made, judged.fails);
  }

  #judge(portIndex: number, negotiation: Negotiation): Judged {
    const { port, watts } = this.#shared.set.ports[portIndex]!;
    const pairing = { enclosure: this.#enclosure, port, portWatts: watts, negotiation };
    const judged: Judged = { codes: '', fails: undefined };
    for (const { check, at } of LINK_RULES) {
      const finding = check(pairing);
      if (!finding) continue;
      judged.codes += finding.code;
      if (finding.severity === 'fail') judged.fails ??= { at, code: finding.code };
    }
    return judged;
  }

  #keep(made: LinkClass, fails: Judged['fails']): void {
    const numbers = this.#numbersOf(made);
    if (!fails) {
      const cell = `${numbers.time} ${numbers.chain}`;
      this.#cellOf.set(made, cell);
      if (!this.#open.has(cell)) this.#open.set(cell, { host: made.host, first: made, ...numbers, members: [] });
      return;
    }
    const entry = this.#failing.get(fails.at) ?? { ...fails, combinations: 0, classes: [] };
    entry.classes.push(made);
    this.#failing.set(fails.at, entry);
  }

  /** Numbers what of a link any drive can tell apart: its rate, the time of a job, and what a rule of the whole chain sees. */
  #numbersOf({ negotiation, host, port: portIndex }: LinkClass): { rate: number; time: number; chain: number } {
    const { mode } = negotiation;
    if (mode === null) return { rate: 0, time: 0, chain: 0 };
    const { set, mostWatts } = this.#shared;
    const { port, watts } = set.ports[portIndex]!;
    const quickRemoval = set.quickRemoval[host]!;
    const stages = linkStages({ negotiation, mode, port, enclosure: this.#enclosure, quickRemoval });
    const read = stages.map((stage) => stage.MBps).reduce(minBand);
    const write = stages.map((stage) => stage.writeMBps).reduce(minBand);
    // Bridges of one kind of mode draw alike.
    const rate = this.#rateNumbers.of(JSON.stringify([read, write, drawKind(mode)]));
    this.#rates[rate] = { read, write };
    // Of the rules that see the whole chain only the port's power can fail, and this is all it sees of the link.
    // A port that gives enough for the hungriest of all, or states nothing, never does.
    const enough = !watts.stated || watts.watts >= mostWatts || port.plug === 'esata';
    const chain = enough ? `${rate}` : JSON.stringify([rate, watts, negotiation.cable?.yLead]);
    return { rate, time: this.#timeNumbers.of(`${host} ${rate}`), chain: this.#chainNumbers.of(chain) };
  }

  #result(combinations: number): EnclosureLinks {
    const { placeOf } = this.#shared;
    for (const [link, cell] of this.#cellOf)
      for (const cable of link.cables) this.#open.get(cell)!.members.push({ link, cable });
    for (const { members } of this.#open.values()) members.sort((a, b) => placeOf(a.cable) - placeOf(b.cable));
    for (const entry of this.#failing.values())
      entry.combinations = entry.classes.reduce((sum, { cables }) => sum + cables.length, 0);
    return {
      open: [...this.#open.values()],
      failing: [...this.#failing.values()].sort((a, b) => a.at - b.at),
      rates: this.#rates,
      times: this.#timeNumbers.count,
      chains: this.#chainNumbers.count,
      combinations
    };
  }
}

const most = (list: readonly number[]): number => list.reduce((a, b) => Math.max(a, b), 0);

/** Gives the place of each cable by price, cheapest first: what has no price adds nothing to a total. */
function cablesByPrice({ withIds: { cables }, prices }: Prepared): (cable: number) => number {
  const price = (i: number) => (Number.isNaN(prices.cable[i]!) ? 0 : prices.cable[i]!);
  const place = new Int32Array(cables.length);
  cables
    .map((_, i) => i)
    .sort((a, b) => price(a) - price(b) || (cables[a]!.id! < cables[b]!.id! ? -1 : 1))
    .forEach((cable, at) => (place[cable] = at));
  return (cable) => (cable < 0 ? NO_CABLE : place[cable]!);
}

/** Finds the link classes of enclosures, once for all that negotiate alike. */
export class LinkFinder {
  readonly #shared: Shared;
  readonly #known = new Map<string, EnclosureLinks>();

  constructor(set: Prepared) {
    const drives = most(set.drives.map(({ filled }) => mostOfDrive(filled)));
    const mostWatts = drives + most(set.enclosures.map(mostOfEnclosure));
    this.#shared = { set, placeOf: cablesByPrice(set), mostWatts };
  }

  of(enclosure: FilledEnclosure): EnclosureLinks {
    const { cables } = this.#shared.set.withIds;
    const captive = enclosure.enclosure.captiveCable === true;
    const choices = captive || cables.length === 0 ? [NO_CABLE] : cables.map((_, i) => i);
    const key = linkCacheKey(enclosure, generationOf(enclosure), choices[0] === NO_CABLE);
    let found = this.#known.get(key);
    if (!found) this.#known.set(key, (found = new LinksOfEnclosure(this.#shared, enclosure).find(choices)));
    return found;
  }
}
