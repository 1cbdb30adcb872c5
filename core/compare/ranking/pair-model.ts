/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices made by the walk over these very lists, in the inner loop */
import { drawKind } from '../../chain/power-draw.ts';
import { slotStage } from '../../chain/stages.ts';
import type { LinkMode } from '../../facts/link-modes.ts';
import { planPads, type StackPlan } from '../../pads/plan-pads.ts';
import { endlessReadPhase, endlessWritePhases, sustainedRate } from '../../plan/load.ts';
import { padsToPay } from '../../plan/report-parts.ts';
import { minBand, type Band } from '../../quantities/band.ts';
import { thermalModel, thermalModelInMode, type ThermalModel } from '../../thermal/forecast/thermal-model.ts';
import { mayThrottle } from '../../thermal/forecast/when-throttled.ts';
import { fillOf, forecastCache, type CacheForecast } from '../../throughput/flash-cache.ts';
import type { Prepared } from './prepare.ts';

/** What a drive in an enclosure does at one rate of the link. */
export type Rated = {
  /** Everything but the drive, MB/s. */
  link: { read: Band; write: Band };
  read: Band;
  write: Band;
  cache: CacheForecast;
  /** Typical sustained write, with what throttling leaves of it, MB/s; NaN until somebody asks. */
  sustained: number;
  /** Whether anything it does could get hot enough to throttle. */
  hot: boolean;
};

const NO_PADS: readonly (string | undefined)[] = [];

/** One drive in one enclosure: slot, pads and heat, each worked out when somebody first asks. */
export class PairModel {
  readonly #set: Prepared;
  readonly #drive: number;
  readonly #enclosure: number;
  #slot: Band | undefined;
  #stack: StackPlan | undefined;
  #pads: readonly (string | undefined)[] | undefined;
  /** By what the bridge draws in a mode. */
  readonly #thermal = new Map<string, ThermalModel>();

  constructor(set: Prepared, drive: number, enclosure: number) {
    this.#set = set;
    this.#drive = drive;
    this.#enclosure = enclosure;
  }

  /** Rates drive and slot behind a link, MB/s; how long a write lasts is asked later. */
  rate(rates: { read: Band; write: Band }): Rated {
    const { filled: drive, freeGB } = this.#set.drives[this.#drive]!;
    this.#slot ??= slotStage(drive, this.#set.enclosures[this.#enclosure]!).band;
    const link = { read: minBand(rates.read, this.#slot), write: minBand(rates.write, this.#slot) };
    const read = minBand(link.read, drive.read);
    const write = minBand(link.write, drive.write);
    return { link, read, write, cache: forecastCache(drive, write, freeGB), sustained: NaN, hot: false };
  }

  /** Finds the sustained write of a rate, and whether anything gets hot in it. */
  sustain(rated: Rated, mode: LinkMode): void {
    if (!Number.isNaN(rated.sustained)) return;
    const { filled: drive, freeGB } = this.#set.drives[this.#drive]!;
    const { typical, limits } = this.thermalIn(mode);
    const fills = rated.cache.typicalCliff ? fillOf(drive, freeGB, 'typical') : null;
    const write = endlessWritePhases(rated.write, rated.cache, fills);
    // The fastest that it reads and writes: the host's own disk, or files, only ever make it cooler.
    rated.hot = mayThrottle(typical, write, limits) || mayThrottle(typical, [endlessReadPhase(rated.read)], limits);
    rated.sustained = rated.hot ? sustainedRate(typical, write, limits) : write[write.length - 1]!.rate;
  }

  /** Gives how the pair warms behind a bridge in a mode. */
  thermalIn(mode: LinkMode): ThermalModel {
    const kind = drawKind(mode);
    let found = this.#thermal.get(kind);
    if (!found) {
      const [like] = this.#thermal.values();
      found = like ? thermalModelInMode(mode, like) : this.#firstThermal(mode);
      this.#thermal.set(kind, found);
    }
    return found;
  }

  #firstThermal(mode: LinkMode): ThermalModel {
    const { drives, enclosures, rules, withIds } = this.#set;
    const parts = { drive: drives[this.#drive]!.filled, enclosure: enclosures[this.#enclosure]!, stack: this.#laid };
    return thermalModel(parts, mode, rules, { ambientC: withIds.job.ambientC });
  }

  get #laid(): StackPlan {
    const { withIds, drives, rules } = this.#set;
    return (this.#stack ??= planPads({
      drive: withIds.drives[this.#drive]!,
      doubleSided: drives[this.#drive]!.filled.doubleSided,
      enclosure: withIds.enclosures[this.#enclosure]!,
      pads: withIds.pads,
      rules
    }));
  }

  /** Lists the pads that have to be paid. */
  get pads(): readonly (string | undefined)[] {
    const { withIds, prices } = this.#set;
    if (withIds.pads === undefined) return NO_PADS;
    const paid = { pads: withIds.pads, enclosure: withIds.enclosures[this.#enclosure]!, quotes: prices.quotes };
    return (this.#pads ??= padsToPay(paid, this.#laid).map(({ id }) => id));
  }
}
