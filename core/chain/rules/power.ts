import { budgetOf, mostOfDrive, mostOfEnclosure, livesOnPort, powerNeed } from '../power-need.ts';
import { BUS_POWERED_HUB_W } from '../../facts/buses.ts';
import { LINK_MODES } from '../../facts/link-modes.ts';
import type { Finding } from '../../findings/finding.ts';
import { isTunnelled } from '../modes.ts';
import type { Band } from '../../quantities/band.ts';
import { drawOf, statedDraw } from '../power-draw.ts';
import type { ChainRule, LinkRule, PartsRule, Pairing } from './rule.ts';

/** Tells whether what the data sheets state is alone more than a stated supply; most sheets state too little for that, which is seen at once. */
export function portPowerFails(pairing: Pairing): boolean {
  const { drive, enclosure, portWatts, writeMBps, need, negotiation } = pairing;
  if (!portWatts.stated || writeMBps === undefined) return false;
  const watts = budgetOf(pairing);
  if (mostOfDrive(drive) + mostOfEnclosure(enclosure) <= watts || !livesOnPort(pairing)) return false;
  const draw = need?.draw ?? drawOf(drive, enclosure, negotiation.mode, enclosure.enclosure.cooling?.kind === 'fan');
  return statedDraw(drive, draw, writeMBps.low, drive.ratedWrite) > watts;
}

/**
 * Holds what the build draws against what the port gives. It fails only where what the data sheets state is already more than a
 * stated supply; where the typical need is above it, or the peak, it is a matter to check.
 */
export const portPowerSuffices: ChainRule = (pairing) => {
  const { port, portWatts, writeMBps } = pairing;
  if (writeMBps === undefined || !livesOnPort(pairing)) return undefined;
  const watts = budgetOf(pairing);
  const { steady, peak } = pairing.need ?? powerNeed(pairing);
  const short = (severity: 'fail' | 'check', need: Band, what: 'steady' | 'peak'): Finding => ({
    code: 'port-power-short',
    severity,
    about: 'port',
    portW: watts,
    portAssumed: !portWatts.stated,
    usbA: port.plug === 'usb-a',
    need,
    what
  });
  if (portPowerFails(pairing)) return short('fail', steady, 'steady');
  if (port.via === 'bus-powered-hub')
    return {
      code: 'shared-hub-power',
      severity: 'check',
      about: 'port',
      hubW: portWatts.stated ? { low: watts, high: watts } : BUS_POWERED_HUB_W,
      need: steady,
      peakW: peak.typical
    };
  if (steady.typical > watts) return short('check', steady, 'steady');
  return peak.typical > watts ? short('check', peak, 'peak') : undefined;
};

/** Finds a 3.5-inch disk in an enclosure that states no supply of its own. */
export const externalSupply: PartsRule = ({ drive: { drive }, enclosure: { enclosure } }) =>
  drive.formFactor === '3.5in' && enclosure.formFactor === '3.5in' && enclosure.externalSupply !== true
    ? {
        code: 'external-supply-needed',
        severity: enclosure.externalSupply === false ? 'fail' : 'check',
        about: 'enclosure',
        stated: enclosure.externalSupply === false
      }
    : undefined;

/** Finds an eSATA chain without power: plain eSATA carries no power; an enclosure that does not say whether it has a supply is to be looked at. */
export const esataPower: LinkRule = ({ port, enclosure: { enclosure }, portWatts }) =>
  port.plug === 'esata' &&
  portWatts.watts === 0 &&
  enclosure.externalSupply !== true &&
  enclosure.formFactor !== '3.5in'
    ? {
        code: 'esata-needs-power',
        severity: enclosure.externalSupply === false ? 'fail' : 'check',
        about: 'enclosure',
        stated: enclosure.externalSupply === false
      }
    : undefined;

/** Finds a passive cable that is longer, m, than its mode safely carries. */
export const cableLength: LinkRule = ({ negotiation: { cable, mode } }) => {
  if (!cable || mode === null || cable.lengthM === undefined || cable.active || cable.certified) return undefined;
  const safeM = LINK_MODES[mode].passiveLengthM;
  return cable.lengthM > safeM
    ? { code: 'cable-length-doubtful', severity: 'check', about: 'cable', lengthM: cable.lengthM, safeM, mode }
    : undefined;
};

/** Points out a cable that most likely carries more than is printed on it: a a passive cable sold for 10 Gb/s most likely has both lane pairs; it is tried before another one is bought. */
export const cableLikely: LinkRule = ({ negotiation: { likely, mode } }) =>
  likely && mode ? { code: 'cable-rate-likely', severity: 'check', about: 'cable', mode } : undefined;

/** Finds a drive of a later generation than its tunnel: Gen 5 drives only: Gen 4 in a Gen 3 bridge is harmless. */
export const pcieGeneration: ChainRule = ({ drive, enclosure, negotiation: { mode } }) =>
  drive.pcie?.generation === 5 && enclosure.pcie.generation < 5 && mode !== null && isTunnelled(mode)
    ? {
        code: 'pcie-generation-above-tunnel',
        severity: 'check',
        about: 'drive',
        drive: 5,
        slot: enclosure.pcie.generation
      }
    : undefined;
