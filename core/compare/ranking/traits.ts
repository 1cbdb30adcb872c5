/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices made by the walk over these very lists, in the inner loop */
import { closeModes } from '../../chain/modes.ts';
import { LINK_MODES, type LinkMode } from '../../facts/link-modes.ts';
import type { Cable } from '../../parts/cable.ts';
import type { Drive } from '../../parts/drive.ts';
import type { Enclosure } from '../../parts/enclosure.ts';
import type { FilledEnclosure } from '../../parts/fill/enclosure.ts';
import { modesOf } from '../../chain/modes.ts';
import { caseMassG } from '../../thermal/model/geometry.ts';
import { needGB, usableFreeGB } from '../../throughput/job-time.ts';
import type { Prepared } from './prepare.ts';
import { TRAITS, type Trait, type Weights } from './request.ts';
import type { Group } from './walk.ts';

/** Drives weigh about this much, g: typical of their form, estimates. */
const DRIVE_G = { m2: 8, '2.5in': 55, '3.5in': 650 } as const;
const DISK_25_G = 110;
/** A supply of its own is carried along, g; estimate. */
const SUPPLY_G = 250;
/** A cable whose length nobody states is one of those that lie in boxes, m; estimate. */
const BOXED_CABLE_M = 0.5;
/** What goes without a tool is better than a screwdriver by this much; so is a plain port that works over one that does not. */
const WITH_A_TOOL = 0.5;
const NO_FALLBACK = 0.1;
/** Room that stays free when the job is on the drive: a fifth of the whole. */
const RESERVE = 0.2;

/** Each thing that spins is heard: a fan and a disk together are half as quiet as one of them. */
const quietOf = (enclosure: Enclosure, drive: Drive): number =>
  0.5 ** ((enclosure.cooling?.kind === 'fan' ? 1 : 0) + (drive.media === 'hdd' ? 1 : 0));

/** The reciprocal of what is carried, 1/g: light is good. */
function lightnessOf(filled: FilledEnclosure, { formFactor, media }: Drive): number {
  const { weightG, externalSupply } = filled.enclosure;
  const drive = formFactor === '2.5in' && media === 'hdd' ? DISK_25_G : DRIVE_G[formFactor];
  return 1 / ((weightG ?? caseMassG(filled)) + drive + (externalSupply ? SUPPLY_G : 0));
}

/** Without a word about how the drive is held, a screw is taken to hold it. */
const toolsOf = ({ retention }: Enclosure): number =>
  retention === undefined || retention === 'screw' || retention === 'screw-from-below' ? WITH_A_TOOL : 1;

const isPlainUsb = (mode: LinkMode) => LINK_MODES[mode].carrier === 'usb3' || LINK_MODES[mode].carrier === 'usb2';
const fallbackOf = ({ modes }: Enclosure): number =>
  modesOf(closeModes(modes, 'bridge')).some(isPlainUsb) ? 1 : NO_FALLBACK;

const reachOf = (cable: Cable | undefined, { includedCables }: Enclosure): number =>
  (cable ?? includedCables?.[0])?.lengthM ?? BOXED_CABLE_M;

/**
 * What people weigh beside speed and price, of one combination after the other. Every figure is above nought, and more of it is
 * better: quiet (halved by a fan, halved by a disk), light (1/g), opened without tools, the length of the cable (m), a plain USB
 * port as a way out, and how much of the job with a reserve there is room for (at most 1).
 */
export class TraitFigures {
  /** Those that count. */
  readonly traits: readonly Trait[];
  readonly best: Partial<Record<Trait, number>> = {};
  readonly #set: Prepared;
  readonly #weights: readonly number[];

  constructor(set: Prepared, weights: Weights) {
    this.#set = set;
    this.traits = TRAITS.filter((trait) => (weights[trait] ?? 0) > 0);
    this.#weights = this.traits.map((trait) => weights[trait] ?? 0);
  }

  /** Whether combinations of one group differ in more than their price. */
  get byCable(): boolean {
    return this.traits.includes('reach');
  }

  /** Gives one figure of a combination. */
  figure(trait: Trait, { drive, enclosure, cell }: Group, cable: number): number {
    const { withIds, enclosures, drives, filesystemFits } = this.#set;
    const filled = enclosures[enclosure]!;
    const bare = withIds.drives[drive]!;
    switch (trait) {
      case 'silence':
        return quietOf(filled.enclosure, bare);
      case 'lightness':
        return lightnessOf(filled, bare);
      case 'tools':
        return toolsOf(filled.enclosure);
      case 'fallback':
        return fallbackOf(filled.enclosure);
      case 'reach':
        return reachOf(cable >= 0 ? withIds.cables[cable] : undefined, filled.enclosure);
      case 'room': {
        const { usableTiB } = filesystemFits[cell.host]![drive]!;
        const free = usableFreeGB(usableTiB, drives[drive]!.filled.drive.fillFraction);
        return Math.min(1, (free * (1 - RESERVE)) / Math.max(needGB(withIds.job), 1e-6));
      }
    }
  }

  /** Takes note of a combination that is ranked. */
  add(group: Group, cable: number): void {
    for (const trait of this.traits)
      this.best[trait] = Math.max(this.best[trait] ?? 0, this.figure(trait, group, cable));
  }

  /** Gives how much of the best of the set a combination reaches, 0 to 1. */
  share(trait: Trait, group: Group, cable: number): number {
    return this.figure(trait, group, cable) / (this.best[trait] ?? 1);
  }

  /** Gives what the traits add to the score: the weighted sum of the log-ratios to the best, 0 where it is the best in all. */
  score(group: Group, cable: number): number {
    let score = 0;
    for (let i = 0; i < this.traits.length; i++)
      score += this.#weights[i]! * Math.log(this.share(this.traits[i]!, group, cable));
    return score;
  }
}
