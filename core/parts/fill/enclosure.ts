/* eslint-disable @typescript-eslint/no-non-null-assertion -- a part has one mode at least, by its schema */
import { LINK_MODES, type LinkMode } from '../../facts/link-modes.ts';
import type { Enclosure } from '../enclosure.ts';

export type FilledEnclosure = {
  readonly enclosure: Enclosure;
  /** The best of its modes. */
  best: LinkMode;
  pcie: { generation: 2 | 3 | 4 | 5; lanes: 1 | 2 | 4 };
  /** Whether the generation behind the bridge was stated: the 40 Gb/s band depends on it. */
  generationKnown: boolean;
  sataGbps: 1.5 | 3 | 6;
  m2LengthsMm: readonly number[];
  m2Keys: readonly ('M' | 'B' | 'B+M')[];
  maxThicknessMm: number;
  uas: boolean;
};

const NVME_KEYS = ['M', 'B+M'] as const;
const SATA_KEYS = ['B', 'B+M'] as const;
const USUAL_LENGTHS = [42, 60, 80] as const;

/**
 * Finds the best of a list of modes; of two of one rank the earlier one of the table, whatever the order of the list.
 * @example bestOf(['usb-10g', 'usb4-40g']) // 'usb4-40g'
 */
export function bestOf(modes: readonly LinkMode[]): LinkMode {
  let best = modes[0]!;
  for (const mode of modes) if (MODE_ORDER[mode] < MODE_ORDER[best]) best = mode;
  return best;
}
const MODE_ORDER = Object.fromEntries(Object.keys(LINK_MODES).map((id, i) => [id, i])) as Record<LinkMode, number>;

/** Fills in the enclosure with everything that a plan needs. */
export function fillEnclosure(enclosure: Enclosure): FilledEnclosure {
  const best = bestOf(enclosure.modes);
  const { rank } = LINK_MODES[best];
  return {
    enclosure,
    best,
    pcie: enclosure.downstreamPcie ?? {
      generation: rank >= 6 ? (4 as const) : (3 as const),
      lanes: rank >= 4 ? (4 as const) : (2 as const)
    },
    generationKnown: enclosure.downstreamPcie !== undefined,
    sataGbps: enclosure.downstreamSataGbps ?? 6,
    m2LengthsMm: enclosure.m2LengthsMm ?? USUAL_LENGTHS,
    m2Keys: enclosure.m2Keys ?? (enclosure.protocols.includes('nvme') ? NVME_KEYS : SATA_KEYS),
    maxThicknessMm: enclosure.maxThicknessMm ?? (enclosure.formFactor === '3.5in' ? 26.1 : 9.5),
    uas: enclosure.uas ?? true
  };
}
