import { mostOfDrive, mostOfEnclosure } from '../../chain/rules/power.ts';
import { FIT_RULES } from '../../chain/rules/rules.ts';
import type { Pairing } from '../../chain/rules/rule.ts';
import { drawKind } from '../../chain/power-draw.ts';
import { negotiate, socketFor, type Negotiation } from '../../chain/negotiate.ts';
import { generationOf, linkStages } from '../../chain/stages.ts';
import type { FilledEnclosure } from '../../parts/fill/fill.ts';
import { minBand, type Band } from '../../quantities/band.ts';
import type { Prepared } from './prepare.ts';

const linkRules = FIT_RULES.map(({ check, sees }, at) => ({ check, sees, at })).filter(({ sees }) => sees === 'link');

/** The class of the cables of a port whose ends do not meet. */
const UNPLUGGED = 'unplugged';

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

/** Everything of an enclosure that port and cable have to do with. */
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

/** Finds the link classes of enclosures; enclosures with the same face share them. */
export function linkFinder(set: Prepared): (enclosure: FilledEnclosure) => EnclosureLinks {
  const { ports, withIds, prices } = set;
  const { cables } = withIds;
  const known = new Map<string, EnclosureLinks>();
  const hungriest = (list: readonly number[]) => list.reduce((a, b) => Math.max(a, b), 0);
  const most =
    hungriest(set.drives.map(({ filled }) => mostOfDrive(filled))) + hungriest(set.enclosures.map(mostOfEnclosure));
  // Cheapest first, once for all: what has no price adds nothing to a total.
  const price = (i: number) => (Number.isNaN(prices.cable[i]!) ? 0 : prices.cable[i]!);
  const byPrice = cables
    .map((_, i) => i)
    .sort((a, b) => price(a) - price(b) || (cables[a]!.id! < cables[b]!.id! ? -1 : 1));
  const place = new Int32Array(cables.length);
  byPrice.forEach((cable, at) => (place[cable] = at));
  const placeOf = (cable: number) => (cable < 0 ? -1 : place[cable]!);

  return (enclosure) => {
    const captive = enclosure.enclosure.captiveCable === true;
    const choices = captive || cables.length === 0 ? [-1] : cables.map((_, i) => i);
    const key = linkCacheKey(enclosure, generationOf(enclosure), choices[0] === -1);
    const found = known.get(key);
    if (found) return found;

    const open = new Map<string, LinkCell>();
    const failing = new Map<number, Failing>();
    const cellOf = new Map<LinkClass, string>();
    const chainAt = new Map<string, number>();
    const rates: EnclosureLinks['rates'] = [];
    const rateAt = new Map<string, number>();
    const timeAt = new Map<string, number>();
    const numbered = (places: Map<string, number>, what: string): number => {
      const at = places.get(what) ?? places.size;
      places.set(what, at);
      return at;
    };
    // One object for all of them: link rules look at nothing that belongs to a drive.
    const pairing = { enclosure, knownPairs: [] } as unknown as Pairing;
    ports.forEach(({ host, port, watts }, portIndex) => {
      pairing.port = port;
      pairing.portWatts = watts;
      const alike = new Map<string, LinkClass>();
      for (const choice of choices) {
        const cable = cables[choice];
        // Most cables do not even plug in: that needs no negotiation, and is the first thing that fails.
        const meets = cable ? socketFor(cable, port, enclosure.enclosure) !== undefined : true;
        if (!meets) {
          const first = alike.get(UNPLUGGED);
          if (first) {
            first.cables.push(choice);
            continue;
          }
        }
        const negotiation = negotiate(port, cable, enclosure.enclosure);
        pairing.negotiation = negotiation;
        let codes = '';
        let fails: { at: number; code: string } | undefined;
        for (const { check, at: rule } of linkRules) {
          const finding = check(pairing);
          if (!finding) continue;
          codes += finding.code;
          if (finding.severity === 'fail') fails ??= { at: rule, code: finding.code };
        }
        const { mode, limiting, best, plugsMeet } = negotiation;
        const same = !meets
          ? UNPLUGGED
          : `${mode} ${limiting.join()} ${best.cable} ${best.bridge} ${plugsMeet} ${negotiation.cable?.yLead} ${codes}`;
        const first = alike.get(same);
        if (first) {
          first.cables.push(choice);
          continue;
        }
        let [rate, time, chain] = [0, 0, 0];
        if (mode !== null) {
          const stages = linkStages(negotiation, mode, port, enclosure, set.quickRemoval[host]!);
          const read = stages.map((stage) => stage.MBps).reduce(minBand);
          const write = stages.map((stage) => stage.writeMBps).reduce(minBand);
          // Bridges of one kind of mode draw alike.
          rate = numbered(rateAt, JSON.stringify([read, write, drawKind(mode)]));
          rates[rate] = { read, write };
          time = numbered(timeAt, `${host} ${rate}`);
          // Of the rules that see the whole chain only the port's power can fail, and this is all it sees of the link.
          // A port that gives enough for the hungriest of all, or states nothing, never does.
          const enough = !watts.stated || watts.watts >= most || port.plug === 'esata';
          chain = numbered(chainAt, enough ? `${rate}` : JSON.stringify([rate, watts, negotiation.cable?.yLead]));
        }
        const made: LinkClass = {
          port: portIndex,
          host,
          negotiation,
          cables: [choice]
        };
        alike.set(same, made);
        if (!fails) {
          const cell = `${time} ${chain}`;
          cellOf.set(made, cell);
          if (!open.has(cell)) open.set(cell, { host, first: made, rate, time, chain, members: [] });
        } else {
          const entry = failing.get(fails.at) ?? { ...fails, combinations: 0, classes: [] };
          entry.classes.push(made);
          failing.set(fails.at, entry);
        }
      }
    });
    for (const [link, cell] of cellOf) for (const cable of link.cables) open.get(cell)!.members.push({ link, cable });
    for (const { members } of open.values()) members.sort((a, b) => placeOf(a.cable) - placeOf(b.cable));
    for (const entry of failing.values())
      entry.combinations = entry.classes.reduce((sum, { cables: members }) => sum + members.length, 0);
    const links: EnclosureLinks = {
      open: [...open.values()],
      failing: [...failing.values()].sort((a, b) => a.at - b.at),
      rates,
      times: timeAt.size,
      chains: chainAt.size,
      combinations: ports.length * choices.length
    };
    known.set(key, links);
    return links;
  };
}
