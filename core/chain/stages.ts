/* eslint-disable @typescript-eslint/no-non-null-assertion -- an index below the length of the list; a chain has its stages */
import { PCIE_EFFICIENCY, PCIE_LANE_MBPS, SATA_MBPS } from '../facts/buses.ts';
import { QUICK_REMOVAL_SHARE } from '../facts/flash.ts';
import { LINK_MODES, USB4_40G_BY_BRIDGE, type LinkMode } from '../facts/link-modes.ts';
import type { FilledDrive } from '../parts/fill/drive.ts';
import type { FilledEnclosure } from '../parts/fill/enclosure.ts';
import type { Port } from '../parts/host.ts';
import { capBand, minBand, type Band } from '../quantities/band.ts';
import type { MBps } from '../quantities/measures.ts';
import { isTunnelled } from './modes.ts';
import type { Negotiation } from './negotiate.ts';

const shareOf = (of: Band<MBps>, share: Band): Band<MBps> => ({
  low: of.low * share.low,
  typical: of.typical * share.typical,
  high: of.high * share.high
});

/** The links of a chain from the host outwards. */
export const STAGE_NAMES = ['port', 'cable', 'bridge', 'slot', 'drive'] as const;
export type StageName = (typeof STAGE_NAMES)[number];
export type Stage = { stage: StageName; label: string; MBps: Band<MBps>; writeMBps: Band<MBps> };
type Rates = { read: Band<MBps>; write: Band<MBps> };

const is40g = (mode: LinkMode) => mode === 'usb4-40g' || mode === 'tbt4-40g';

/**
 * Gives what a whole healthy chain reaches in a mode, MB/s.
 * @param generation PCIe generation behind the bridge where it is stated: a 40 Gb/s link depends on it
 */
export function linkRates(mode: LinkMode, generation: number | undefined, uas: boolean): Rates {
  const facts = LINK_MODES[mode];
  if (!uas && 'bulkOnly' in facts) return { read: facts.bulkOnly, write: facts.bulkOnly };
  // Thunderbolt 4 with a 3.0 bridge has a row of its own; with 4.0 behind it both labels are one link.
  if (is40g(mode) && generation !== undefined && (mode === 'usb4-40g' || generation >= 4)) {
    const { band } = USB4_40G_BY_BRIDGE[generation >= 4 ? 4 : 3];
    return { read: band, write: band };
  }
  return { read: facts.read, write: facts.write };
}

/** Gives the rate that nothing passes in a mode, MB/s: the hard limit of the plausibility gates. */
export function linkCeiling(mode: LinkMode, generation: number | undefined): MBps {
  if (is40g(mode) && generation !== undefined) return USB4_40G_BY_BRIDGE[generation >= 4 ? 4 : 3].ceiling;
  return LINK_MODES[mode].ceiling;
}

/** Finds the PCIe link between bridge and drive: the lower generation and the fewer lanes of the two. */
export function slotLink(
  drive: FilledDrive,
  enclosure: FilledEnclosure
): { generation: 2 | 3 | 4 | 5; lanes: 1 | 2 | 4 } | null {
  if (!drive.pcie) return null;
  const generation = Math.min(drive.pcie.generation, enclosure.pcie.generation) as 2 | 3 | 4 | 5;
  const lanes = Math.min(drive.pcie.lanes, enclosure.pcie.lanes) as 1 | 2 | 4;
  return { generation, lanes };
}

/** Gives the slot as a band, MB/s: lanes x rate of a lane x packet efficiency 0.84 - 0.875 - 0.91; SATA has a row of its own. */
export function slotStage(drive: FilledDrive, enclosure: FilledEnclosure): { label: string; band: Band<MBps> } {
  const pcie = slotLink(drive, enclosure);
  if (pcie) {
    const raw = pcie.lanes * PCIE_LANE_MBPS[pcie.generation];
    return {
      label: `PCIe ${pcie.generation}.0 x${pcie.lanes}`,
      band: { low: raw * PCIE_EFFICIENCY.low, typical: raw * PCIE_EFFICIENCY.typical, high: raw * PCIE_EFFICIENCY.high }
    };
  }
  const gbps = Math.min(drive.sataGbps, enclosure.sataGbps);
  return { label: `SATA ${gbps} Gb/s`, band: SATA_MBPS[String(gbps) as keyof typeof SATA_MBPS] };
}

/** Gives the payload of the slot, MB/s, its hard limit: lanes x rate of a lane, or 100 MB/s for each Gb/s of SATA. */
export function slotCeiling(drive: FilledDrive, enclosure: FilledEnclosure): MBps {
  const pcie = slotLink(drive, enclosure);
  if (pcie) return pcie.lanes * PCIE_LANE_MBPS[pcie.generation];
  return Math.min(drive.sataGbps, enclosure.sataGbps) * 100;
}

/** Tells whether storage runs over UAS: where mode and both ends have it. Tunnels and eSATA need none. */
export const runsUas = (port: Port, enclosure: FilledEnclosure): boolean => port.uas !== false && enclosure.uas;

/** Gives the PCIe generation behind the bridge where it is stated. */
export const generationOf = (enclosure: FilledEnclosure): number | undefined =>
  enclosure.generationKnown ? enclosure.pcie.generation : undefined;

/** What the stages of a chain follow from. */
export type LinkOf = {
  negotiation: Negotiation;
  mode: LinkMode;
  port: Port;
  enclosure: FilledEnclosure;
  /** Whether the host writes without a cache of its own (`chain/write-cache.ts`). */
  quickRemoval: boolean;
};

/** Gives the rates of one part: the negotiated mode where it limits, its own best where it does not. */
function ratesOfPart({ negotiation, mode, port, enclosure }: LinkOf, part: 'port' | 'cable' | 'bridge') {
  const own = negotiation.limiting.includes(part) ? mode : (negotiation.best[part] ?? mode);
  const generation = own === mode || part === 'bridge' ? generationOf(enclosure) : undefined;
  return { own, ...linkRates(own, generation, part === 'cable' || runsUas(port, enclosure)) };
}

/** Gives the port as a stage, with what the host holds back on it: the share of a tunnel, a ceiling of writes, quick removal. */
function portStage(link: LinkOf): Stage {
  const { mode, port, enclosure, quickRemoval } = link;
  const { own, read, write } = ratesOfPart(link, 'port');
  const tunnel = isTunnelled(mode) ? port.tunnelMBps : undefined;
  const portRead = tunnel === undefined ? read : capBand(read, tunnel);
  let portWrite = tunnel === undefined ? write : capBand(write, tunnel);
  if (port.writeCapMBps !== undefined) portWrite = capBand(portWrite, port.writeCapMBps);
  if (quickRemoval && isTunnelled(mode)) {
    const all = linkRates(mode, generationOf(enclosure), runsUas(port, enclosure)).write;
    portWrite = minBand(portWrite, shareOf(all, QUICK_REMOVAL_SHARE));
  }
  return { stage: 'port', label: LINK_MODES[own].label, MBps: portRead, writeMBps: portWrite };
}

/** Lists the link as stages, MB/s: port, cable where there is one, bridge. */
export function linkStages(link: LinkOf): Stage[] {
  const stages = [portStage(link)];
  if (link.negotiation.cable) {
    const { own, read, write } = ratesOfPart(link, 'cable');
    stages.push({ stage: 'cable', label: LINK_MODES[own].label, MBps: read, writeMBps: write });
  }
  const bridge = ratesOfPart(link, 'bridge');
  stages.push({ stage: 'bridge', label: LINK_MODES[bridge.own].label, MBps: bridge.read, writeMBps: bridge.write });
  return stages;
}

/** Lists the chain as stages from the port to the drive, MB/s. */
export function chainStages(chain: LinkOf & { drive: FilledDrive }): Stage[] {
  const { drive, enclosure } = chain;
  const stages = linkStages(chain);
  const slot = slotStage(drive, enclosure);
  stages.push({ stage: 'slot', label: slot.label, MBps: slot.band, writeMBps: slot.band });
  stages.push({ stage: 'drive', label: drive.drive.name, MBps: drive.read, writeMBps: drive.write });
  return stages;
}

export type Bottleneck = { at: StageName; also: StageName[]; band: Band<MBps> };

/** Finds the stage with the lowest typical ceiling, on a tie the one nearest the host; the band is the minimum over all stages. */
export function bottleneckOf(stages: readonly Stage[], of: 'MBps' | 'writeMBps'): Bottleneck {
  let lowest = stages[0]!;
  let band = lowest[of];
  let also: StageName[] = [];
  for (let i = 1; i < stages.length; i++) {
    const stage = stages[i]!;
    if (stage[of].typical < lowest[of].typical) {
      lowest = stage;
      also = [];
    } else if (stage[of].typical === lowest[of].typical) also.push(stage.stage);
    band = minBand(band, stage[of]);
  }
  return { at: lowest.stage, also, band };
}
