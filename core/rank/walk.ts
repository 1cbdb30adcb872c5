import { FIT_RULES } from '../fit/rules.ts';
import type { Pairing } from '../fit/rule.ts';
import { slotStage } from '../link/stages.ts';
import { padsToPay } from '../plan/plan.ts';
import { forecastJob } from '../plan/job-forecast.ts';
import { minBand, type Band } from '../quantities/band.ts';
import { planPads } from '../stack/plan-pads.ts';
import { forecastCache, type CacheForecast } from '../throughput/flash-cache.ts';
import { linkFinder, type LinkCell, type LinkClass } from './links.ts';
import type { Prepared } from './prepare.ts';

const quiet = () => {};
const NO_PADS: readonly (string | undefined)[] = [];

/** What a drive in an enclosure does at one rate of the link. */
export type Rated = { read: Band; write: Band; cache: CacheForecast };

/** Combinations of one drive, one enclosure and one cell of links: they differ in the price of the cable alone. */
export type Group = {
  drive: number;
  enclosure: number;
  cell: LinkCell;
  rated: Rated;
  seconds: number;
  pads: readonly (string | undefined)[];
};

export type Visitor = {
  accept(drive: number, enclosure: number, cell: LinkCell, rated: Rated, seconds: number, pads: Group['pads']): void;
  /** Whole link classes fail with this drive in this enclosure, under their first failing rule. */
  reject(code: string, count: number, drive: number, enclosure: number, links: () => readonly LinkClass[]): void;
};

/** No rule of those that see the whole chain was asked yet. */
const UNASKED = '?';

/**
 * Judges every combination by the same rules and formulas as `plan()`, each of them as seldom as it can say anything new: once
 * a pair of drive and enclosure, once a link class of an enclosure, once a distinct rate of the two.
 * @returns a generator that yields the share of the work done, after each enclosure
 */
export function* walk(set: Prepared, visitor: Visitor): Generator<number, void> {
  const { input, rules, ports, drives, enclosures, suits } = set;
  const { job, hosts } = input;
  const findLinks = (set.links ??= linkFinder(set));
  const partRules = FIT_RULES.map(({ check, sees }, at) => ({ check, sees, at })).filter((r) => r.sees === 'parts');
  const chainRules = FIT_RULES.filter(({ sees }) => sees === 'chain');
  const knownPairs = input.knownPairs ?? [];
  const LAST = FIT_RULES.length;
  // One object for all of them: it is asked millions of times.
  const pairing = { knownPairs, writeMBps: undefined } as unknown as Pairing;

  for (let e = 0; e < enclosures.length; e++) {
    const enclosure = enclosures[e]!;
    const { open, failing, rates, times, chains, combinations } = findLinks(enclosure);
    const firstLinkFail = failing[0]?.at ?? LAST;
    const linksOf = (cell: LinkCell) => [...new Set(cell.members.map(({ link }) => link))];
    const everyLink = () => [...failing.flatMap(({ classes }) => classes), ...open.flatMap(linksOf)];
    const rated = new Array<Rated | undefined>(rates.length);
    const chainCodes = new Array<string | undefined>(chains);
    const seconds = new Float64Array(times);

    for (let d = 0; d < drives.length; d++) {
      const { filled: drive, freeGB } = drives[d]!;
      pairing.drive = drive;
      pairing.enclosure = enclosure;
      let partsFail = LAST;
      let partsCode = '';
      for (const { check, at } of partRules) {
        const finding = check(pairing);
        if (finding?.severity !== 'fail') continue;
        partsFail = at;
        partsCode = finding.code;
        break;
      }
      if (partsFail < firstLinkFail) {
        visitor.reject(partsCode, combinations, d, e, everyLink);
        continue;
      }
      for (const { at, code, combinations: count, classes } of failing)
        visitor.reject(partsFail < at ? partsCode : code, count, d, e, () => classes);
      if (partsFail < LAST) {
        for (const cell of open) visitor.reject(partsCode, cell.members.length, d, e, () => linksOf(cell));
        continue;
      }

      rated.fill(undefined);
      chainCodes.fill(UNASKED);
      seconds.fill(NaN);
      let slot: Band | undefined;
      let pads = NO_PADS;
      let padsKnown = input.pads === undefined;
      for (const cell of open) {
        let at = rated[cell.rate];
        if (!at) {
          slot ??= slotStage(drive, enclosure).band;
          const rate = rates[cell.rate]!;
          const read = minBand(minBand(rate.read, slot), drive.read);
          const write = minBand(minBand(rate.write, slot), drive.write);
          at = { read, write, cache: forecastCache(drive, write, freeGB) };
          rated[cell.rate] = at;
        }
        let code = chainCodes[cell.chain];
        if (code === UNASKED) {
          const { port, watts } = ports[cell.first.port]!;
          pairing.port = port;
          pairing.portWatts = watts;
          pairing.negotiation = cell.first.negotiation;
          pairing.writeMBps = at.write.typical;
          code = undefined;
          for (const { check } of chainRules) {
            const finding = check(pairing);
            if (finding?.severity !== 'fail') continue;
            code = finding.code;
            break;
          }
          chainCodes[cell.chain] = code;
        }
        const suit = suits[cell.host]![d]!;
        code ??= suit.fail;
        if (code !== undefined) {
          visitor.reject(code, cell.members.length, d, e, () => linksOf(cell));
          continue;
        }
        let time = seconds[cell.time]!;
        if (Number.isNaN(time)) {
          time = forecastJob(job, {
            host: hosts[cell.host]!,
            drive,
            mode: cell.first.negotiation.mode!,
            read: at.read,
            write: at.write,
            cache: at.cache,
            freeGB,
            usableTiB: suit.usableTiB,
            filesystem: suit.filesystem,
            rules
          }).forecast.seconds.typical;
          seconds[cell.time] = time;
        }
        if (!padsKnown) {
          const stack = planPads(input.drives[d]!, input.enclosures[e]!, input.pads, rules, quiet);
          const paid = { pads: input.pads, enclosure: input.enclosures[e]!, quotes: set.prices.quotes };
          pads = padsToPay(paid, stack.components).map(({ id }) => id);
          padsKnown = true;
        }
        visitor.accept(d, e, cell, at, time, pads);
      }
    }
    yield (e + 1) / enclosures.length;
  }
}
