import { drawKind } from '../../chain/power-draw.ts';
import { FIT_RULES } from '../../chain/rules/rules.ts';
import type { Pairing } from '../../chain/rules/rule.ts';
import { slotStage } from '../../chain/stages.ts';
import { jobSeconds } from '../../plan/job-forecast.ts';
import { thermalModelInMode, thermalModel, type ThermalModel } from '../../thermal/forecast/thermal-model.ts';
import { mayThrottle } from '../../thermal/forecast/when-throttled.ts';
import { minBand, type Band } from '../../quantities/band.ts';
import { planPads, type StackPlan } from '../../pads/plan-pads.ts';
import { fillOf, forecastCache, type CacheForecast } from '../../throughput/flash-cache.ts';
import { linkFinder, type LinkCell, type LinkClass } from './links.ts';
import { endlessReadPhase, sustainedRate, endlessWritePhases } from '../../plan/load.ts';
import type { LinkMode } from '../../facts/link-modes.ts';
import { chainKey } from '../../build/chain-key.ts';
import { plan } from '../../plan/plan.ts';
import { padsToPay } from '../../plan/report-parts.ts';
import { inputOf, pairKey, type Prepared } from './prepare.ts';

const ONE = { read: 1, write: 1 } as const;
const NO_PADS: readonly (string | undefined)[] = [];

/** What a drive in an enclosure does at one rate of the link. */
export type Rated = {
  /** Everything but the drive. */
  link: { read: Band; write: Band };
  read: Band;
  write: Band;
  cache: CacheForecast;
  /** Typical sustained write, with what throttling leaves of it, MB/s; NaN until somebody asks. */
  sustained: number;
  /** Whether anything it does could get hot enough to throttle. */
  hot: boolean;
};

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

/** Parts the members of a cell into those that were measured and the others. */
function byMeasured(
  { withIds, ports, known }: Prepared,
  cell: LinkCell,
  drive: number,
  enclosure: number
): { measured: LinkCell['members']; others: LinkCell['members'] } {
  const was = ({ link, cable }: LinkCell['members'][number]) =>
    known.measured.has(
      chainKey({
        hostId: withIds.hosts[link.host]!.id!,
        portId: ports[link.port]!.port.id,
        cableId: cable < 0 ? undefined : withIds.cables[cable]!.id,
        enclosureId: withIds.enclosures[enclosure]!.id!,
        driveId: withIds.drives[drive]!.id!
      })
    );
  return { measured: cell.members.filter(was), others: cell.members.filter((member) => !was(member)) };
}

/**
 * Judges every combination by the same rules and formulas as `plan()`, each of them as seldom as it can say anything new: once
 * a pair of drive and enclosure, once a link class of an enclosure, once a distinct rate of the two.
 * @returns a generator that yields the share of the work done, after each enclosure
 */
export function* walk(set: Prepared, visitor: Visitor): Generator<number, void> {
  const { withIds, rules, ports, drives, enclosures, filesystemFits } = set;
  const { job, hosts } = withIds;
  const findLinks = (set.links ??= linkFinder(set));
  const partRules = FIT_RULES.map(({ check, sees }, at) => ({ check, sees, at })).filter((r) => r.sees === 'parts');
  const chainRules = FIT_RULES.filter(({ sees, fails }) => sees === 'chain' && fails);
  const knownPairs = withIds.knownPairs ?? [];
  const LAST = FIT_RULES.length;
  // One object for all of them: it is asked millions of times.
  const pairing = { knownPairs, writeMBps: undefined } as unknown as Pairing;

  const warm = new Map<string, ThermalModel>();
  const kindOf = new Map<LinkMode, string>();
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
      let laid: StackPlan | undefined;
      const stackOf = () =>
        (laid ??= planPads({
          drive: withIds.drives[d]!,
          doubleSided: drive.doubleSided,
          enclosure: withIds.enclosures[e]!,
          pads: withIds.pads,
          rules
        }));
      // By what the bridge draws in the mode.
      warm.clear();
      let like: ThermalModel | undefined;
      const warmthAt = ({ first: { negotiation } }: LinkCell): ThermalModel => {
        const mode = negotiation.mode!;
        let kind = kindOf.get(mode);
        if (kind === undefined) kindOf.set(mode, (kind = drawKind(mode)));
        let found = warm.get(kind);
        if (!found) {
          found = like
            ? thermalModelInMode(mode, like)
            : thermalModel({ drive, enclosure, stack: stackOf() }, mode, rules, { ambientC: job.ambientC });
          like ??= found;
          warm.set(kind, found);
        }
        return found;
      };
      const isMeasured =
        set.measuredPairs.size > 0 &&
        set.measuredPairs.has(pairKey(withIds.drives[d]!.id!, withIds.enclosures[e]!.id!));
      let pads = NO_PADS;
      let padsKnown = withIds.pads === undefined;
      for (const cell of open) {
        let at = rated[cell.rate];
        if (!at) {
          slot ??= slotStage(drive, enclosure).band;
          const rate = rates[cell.rate]!;
          const link = { read: minBand(rate.read, slot), write: minBand(rate.write, slot) };
          const read = minBand(link.read, drive.read);
          const write = minBand(link.write, drive.write);
          const cache = forecastCache(drive, write, freeGB);
          at = { link, read, write, cache, sustained: NaN, hot: false };
          rated[cell.rate] = at;
        }
        let code = chainCodes[cell.chain];
        if (code === UNASKED) {
          const { port, watts } = ports[cell.first.port]!;
          pairing.port = port;
          pairing.portWatts = watts;
          pairing.negotiation = cell.first.negotiation;
          pairing.writeMBps = at.write;
          code = undefined;
          for (const { check, fails } of chainRules) {
            if (!fails!(pairing)) continue;
            code = check(pairing)!.code;
            break;
          }
          chainCodes[cell.chain] = code;
        }
        const fit = filesystemFits[cell.host]![d]!;
        code ??= fit.fail;
        if (code !== undefined) {
          visitor.reject(code, cell.members.length, d, e, () => linksOf(cell));
          continue;
        }
        if (Number.isNaN(at.sustained)) {
          const { typical, limits } = warmthAt(cell);
          const on = endlessWritePhases(
            at.write,
            at.cache,
            at.cache.typicalCliff ? fillOf(drive, freeGB, 'typical') : null
          );
          // The fastest that it reads and writes: the host's own disk, or files, only ever make it cooler.
          at.hot = mayThrottle(typical, on, limits) || mayThrottle(typical, [endlessReadPhase(at.read)], limits);
          at.sustained = at.hot ? sustainedRate(typical, on, limits) : on[on.length - 1]!.rate;
        }
        let time = seconds[cell.time]!;
        if (Number.isNaN(time)) {
          time = jobSeconds(
            job,
            {
              host: hosts[cell.host]!,
              drive,
              mode: cell.first.negotiation.mode!,
              link: at.link,
              read: at.read,
              write: at.write,
              cache: at.cache,
              freeGB,
              usableTiB: fit.usableTiB,
              filesystem: fit.filesystem,
              quickRemoval: set.quickRemoval[cell.host]!,
              diskFactor: ONE
            },
            at.hot ? warmthAt(cell) : null
          );
          seconds[cell.time] = time;
        }
        if (!padsKnown) {
          const stack = stackOf();
          const paid = { pads: withIds.pads, enclosure: withIds.enclosures[e]!, quotes: set.prices.quotes };
          pads = padsToPay(paid, stack).map(({ id }) => id);
          padsKnown = true;
        }
        if (!isMeasured) {
          visitor.accept(d, e, cell, at, time, pads);
          continue;
        }
        // What was measured stands apart: its job is timed by its plan, with the measured rates.
        const { measured, others } = byMeasured(set, cell, d, e);
        if (others.length > 0) visitor.accept(d, e, { ...cell, members: others }, at, time, pads);
        for (const member of measured) {
          const { job: timed } = plan(inputOf(set, d, e, member.link, member.cable), { workings: false });
          visitor.accept(d, e, { ...cell, members: [member] }, at, timed?.seconds.typical ?? time, pads);
        }
      }
    }
    yield (e + 1) / enclosures.length;
  }
}
