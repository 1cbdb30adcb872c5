import { FIT_RULES } from '../fit/rules.ts';
import type { Pairing } from '../fit/rule.ts';
import { isTunnelled } from '../link/modes.ts';
import { negotiate, type Negotiation } from '../link/negotiate.ts';
import { generationOf, linkStages } from '../link/stages.ts';
import type { FilledEnclosure } from '../parts/fill.ts';
import { minBand, type Band } from '../quantities/band.ts';
import type { Prepared } from './prepare.ts';

const quiet = () => {};

/**
 * Combinations of a port and its cables that are the same link to every drive in this enclosure: the same mode, the same
 * rates, the same findings. They differ in the cable's name and price alone.
 */
export type LinkClass = {
  port: number;
  host: number;
  negotiation: Negotiation;
  /** The first link rule that fails, by its place among the rules; undefined where none does. */
  failsAt: number | undefined;
  /** Cheapest first; -1 is no cable of the list. */
  cables: number[];
  /** Among the enclosure's distinct rates, and among its distinct pairs of host and rate. */
  rate: number;
  time: number;
};

export type Links = {
  classes: LinkClass[];
  /** What port, cable and bridge let through together. */
  rates: { read: Band; write: Band }[];
  /** How many distinct answers there are to "how long does the job take". */
  times: number;
  combinations: number;
};

/** Everything of an enclosure that port and cable have to do with. */
function faceOf({ enclosure, uas }: FilledEnclosure, generation: number | undefined, ownCables: boolean): string {
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
export function linkFinder(set: Prepared): (enclosure: FilledEnclosure) => Links {
  const { ports, input, prices } = set;
  const { cables } = input;
  const known = new Map<string, Links>();
  const cheapestFirst = (a: number, b: number) => {
    const price = (i: number) => (i < 0 || Number.isNaN(prices.cable[i]!) ? 0 : prices.cable[i]!);
    return price(a) - price(b) || (cables[a]?.id ?? '').localeCompare(cables[b]?.id ?? '');
  };

  return (enclosure) => {
    const captive = enclosure.enclosure.captiveCable === true;
    const choices = captive || cables.length === 0 ? [-1] : cables.map((_, i) => i);
    const key = faceOf(enclosure, generationOf(enclosure), choices[0] === -1);
    const found = known.get(key);
    if (found) return found;

    const classes: LinkClass[] = [];
    const rates: Links['rates'] = [];
    const rateAt = new Map<string, number>();
    const timeAt = new Map<string, number>();
    const place = (places: Map<string, number>, what: string): number => {
      const at = places.get(what) ?? places.size;
      places.set(what, at);
      return at;
    };
    ports.forEach(({ host, port, watts }, portIndex) => {
      const alike = new Map<string, LinkClass>();
      for (const choice of choices) {
        const negotiation = negotiate(port, cables[choice], enclosure.enclosure, quiet);
        // Link rules look at nothing that belongs to a drive.
        const pairing = { enclosure, port, portWatts: watts, negotiation, knownPairs: [] } as unknown as Pairing;
        const findings = FIT_RULES.map(({ check, sees }) => (sees === 'link' ? check(pairing) : undefined));
        const { mode, limiting, best, plugsMeet } = negotiation;
        const codes = findings.map((finding) => finding?.code ?? '').join('');
        const same = [mode, limiting.join(), best.cable, best.bridge, plugsMeet, codes].join(' ');
        const first = alike.get(same);
        if (first) {
          first.cables.push(choice);
          continue;
        }
        const failsAt = findings.findIndex((finding) => finding?.severity === 'fail');
        let [rate, time] = [0, 0];
        if (mode !== null) {
          const stages = linkStages(negotiation, mode, port, enclosure);
          const read = stages.map((stage) => stage.MBps).reduce(minBand);
          const write = stages.map((stage) => stage.writeMBps).reduce(minBand);
          rate = place(rateAt, JSON.stringify([read, write]));
          rates[rate] = { read, write };
          time = place(timeAt, `${host} ${rate} ${isTunnelled(mode)}`);
        }
        const made: LinkClass = {
          port: portIndex,
          host,
          negotiation,
          failsAt: failsAt < 0 ? undefined : failsAt,
          cables: [choice],
          rate,
          time
        };
        alike.set(same, made);
        classes.push(made);
      }
    });
    for (const link of classes) link.cables.sort(cheapestFirst);
    const links = { classes, rates, times: timeAt.size, combinations: ports.length * choices.length };
    known.set(key, links);
    return links;
  };
}
