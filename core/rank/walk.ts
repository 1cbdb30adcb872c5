import { FIT_RULES } from '../fit/rules.ts';
import type { Pairing } from '../fit/rule.ts';
import { slotStage } from '../link/stages.ts';
import { padsToPay } from '../plan/plan.ts';
import { forecastJob } from '../plan/job-forecast.ts';
import { minBand, type Band } from '../quantities/band.ts';
import { planPads } from '../stack/plan-pads.ts';
import { forecastCache, type CacheForecast } from '../throughput/flash-cache.ts';
import { linkFinder, type LinkClass } from './links.ts';
import type { Prepared } from './prepare.ts';

const quiet = () => {};
const NO_PADS: readonly (string | undefined)[] = [];

/** Combinations of one drive, one enclosure and one link class: they differ in the cable's price alone. */
export type Group = {
  drive: number;
  enclosure: number;
  link: LinkClass;
  sustained: number;
  read: number;
  seconds: number;
  pads: readonly (string | undefined)[];
};

export type Visitor = {
  accept(group: Group): void;
  /** The whole link class fails with this drive in this enclosure, under its first failing rule. */
  reject(code: string, drive: number, enclosure: number, link: LinkClass): void;
};

type Rated = { read: Band; write: Band; cache: CacheForecast };

/**
 * Judges every combination by the same rules and formulas as `plan()`, each of them as seldom as it can say anything new: once
 * a pair of drive and enclosure, once a link class of an enclosure, once a distinct rate of the two.
 * @returns a generator that yields the share of the work done, after each enclosure
 */
export function* walk(set: Prepared, visitor: Visitor): Generator<number, void> {
  const { input, rules, ports, drives, enclosures, suits } = set;
  const { job, hosts } = input;
  const findLinks = linkFinder(set);
  const partRules = FIT_RULES.map(({ check, sees }, at) => ({ check, sees, at })).filter((r) => r.sees === 'parts');
  const chainRules = FIT_RULES.map(({ check, sees }, at) => ({ check, sees, at })).filter((r) => r.sees === 'chain');
  const knownPairs = input.knownPairs ?? [];

  for (let e = 0; e < enclosures.length; e++) {
    const enclosure = enclosures[e]!;
    const { classes, rates, times } = findLinks(enclosure);
    for (let d = 0; d < drives.length; d++) {
      const { filled: drive, freeGB } = drives[d]!;
      const pairing = { drive, enclosure, knownPairs } as unknown as Pairing;
      let partsFail = FIT_RULES.length;
      let partsCode = '';
      for (const { check, at } of partRules) {
        const finding = check(pairing);
        if (finding?.severity === 'fail') {
          partsFail = at;
          partsCode = finding.code;
          break;
        }
      }
      const rated: (Rated | undefined)[] = new Array(rates.length).fill(undefined);
      const seconds: number[] = new Array(times).fill(NaN);
      let slot: Band | undefined;
      let pads = NO_PADS;
      let padsKnown = input.pads === undefined;

      for (const link of classes) {
        const linkFail = link.failsAt ?? FIT_RULES.length;
        if (partsFail < linkFail) {
          visitor.reject(partsCode, d, e, link);
          continue;
        }
        const { port, watts } = ports[link.port]!;
        pairing.port = port;
        pairing.portWatts = watts;
        pairing.negotiation = link.negotiation;
        if (linkFail < FIT_RULES.length) {
          visitor.reject(FIT_RULES[linkFail]!.check(pairing)!.code, d, e, link);
          continue;
        }
        let at = rated[link.rate];
        if (!at) {
          slot ??= slotStage(drive, enclosure).band;
          const rate = rates[link.rate]!;
          const read = minBand(minBand(rate.read, slot), drive.read);
          const write = minBand(minBand(rate.write, slot), drive.write);
          at = { read, write, cache: forecastCache(drive, write, freeGB) };
          rated[link.rate] = at;
        }
        pairing.writeMBps = at.write.typical;
        let chainCode: string | undefined;
        for (const { check } of chainRules) {
          const finding = check(pairing);
          if (finding?.severity === 'fail') {
            chainCode = finding.code;
            break;
          }
        }
        const suit = suits[link.host]![d]!;
        const code = chainCode ?? suit.fail;
        if (code !== undefined) {
          visitor.reject(code, d, e, link);
          continue;
        }
        if (Number.isNaN(seconds[link.time]!)) {
          const { forecast } = forecastJob(job, {
            host: hosts[link.host]!,
            drive,
            mode: link.negotiation.mode!,
            read: at.read,
            write: at.write,
            cache: at.cache,
            freeGB,
            usableTiB: suit.usableTiB,
            filesystem: suit.filesystem,
            rules
          });
          seconds[link.time] = forecast.seconds.typical;
        }
        if (!padsKnown) {
          const stack = planPads(input.drives[d]!, input.enclosures[e]!, input.pads, rules, quiet);
          const paid = { pads: input.pads, enclosure: input.enclosures[e]!, quotes: set.prices.quotes };
          pads = padsToPay(paid, stack.components).map(({ id }) => id);
          padsKnown = true;
        }
        visitor.accept({
          drive: d,
          enclosure: e,
          link,
          sustained: at.cache.sustained.typical,
          read: at.read.typical,
          seconds: seconds[link.time]!,
          pads
        });
      }
    }
    yield (e + 1) / enclosures.length;
  }
}
