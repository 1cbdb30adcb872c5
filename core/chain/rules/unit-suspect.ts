import { PCIE_LANE_MBPS } from '../../facts/buses.ts';
import type { PartsRule } from './rule.ts';

/** Above its interface by more than this share a rating is a slip and no rounding. */
const TOLERANCE = 1.1;
/** What a slipped rating must come to, as a share of the interface, to be what was meant. */
const PLAUSIBLE = 0.1;

/** Finds a rating that the drive's own stated interface cannot carry: bits for bytes, or a factor of a thousand. */
export const unitSuspect: PartsRule = ({ drive: { drive } }) => {
  const ceiling =
    drive.media === 'nvme'
      ? drive.pcie && drive.pcie.lanes * PCIE_LANE_MBPS[drive.pcie.generation]
      : drive.sataGbps && drive.sataGbps * 100;
  if (!ceiling) return undefined;
  const read = drive.readMBps ?? 0;
  const write = drive.writeMBps ?? 0;
  const value = Math.max(read, write);
  if (value <= ceiling * TOLERANCE) return undefined;
  const fits = (v: number) => v <= ceiling * TOLERANCE && v >= ceiling * PLAUSIBLE;
  return {
    code: 'unit-suspect',
    severity: 'check',
    about: 'drive',
    what: read >= write ? 'read' : 'write',
    value,
    ceiling,
    meant: fits(value / 8) ? 'bits' : fits(value / 1000) ? 'kilo' : 'unknown'
  };
};
