import { band, type Band } from '../quantities/band.ts';
import type { MBps } from '../quantities/measures.ts';

/** PCIe payload of one lane. Gen 2: 5 GT/s 8b/10b; Gen 3 to 5: 8, 16, 32 GT/s 128b/130b. Source: PCI Express Base. */
export const PCIE_LANE_MBPS: Record<2 | 3 | 4 | 5, MBps> = { 2: 500, 3: 984.6, 4: 1969, 5: 3938 };

/** Packet efficiency MPS / (MPS + 20..28 B): 128 B payloads through a tunnel at the low end, 256 B at the high end. */
export const PCIE_EFFICIENCY = { low: 0.84, typical: 0.875, high: 0.91 } as const;

/** What a SATA link gives in practice; 6 Gb/s stops at about 560 MB/s whatever stands behind it. Source: Serial ATA 3. */
export const SATA_MBPS: Record<'1.5' | '3' | '6', Band<MBps>> = {
  '1.5': band(130, 137, 143),
  '3': band(260, 275, 285),
  '6': band(500, 540, 560)
};

/** "Up to" figures of data sheets, as reached by a whole healthy drive. */
export const SHEET_FACTOR = { low: 0.85, typical: 0.95, high: 1 } as const;

/** Power a port gives when nothing is stated, W. Source: USB 2.0, USB 3.2, USB Type-C, USB4, Thunderbolt. */
export const PORT_POWER_W = { usb2: 2.5, usb3: 4.5, twoLane: 7.5, thunderbolt: 15, esata: 0 } as const;
/** What a hub without a supply of its own has for all of its ports together, W. */
export const BUS_POWERED_HUB_W = { low: 4.5, high: 7.5 } as const;
/** A phone that records video onto a drive writes up to this, MB/s. */
export const PHONE_RECORDING_MBPS = 220;
