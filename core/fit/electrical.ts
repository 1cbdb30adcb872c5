import { LINK_MODES } from '../facts/link-modes.ts';
import type { Finding } from '../findings/finding.ts';
import { POWER } from '../facts/flash.ts';
import { isTunnelled } from '../link/modes.ts';
import type { Pairing, Rule } from './rule.ts';

/** Steady electrical power of the build at a rate, W: (idle + J/GB x rate) / 0.88 + bridge + fan. */
export function steadyPower({ drive, enclosure, negotiation }: Pairing, rateMBps: number): number {
  const { media, power, formFactor } = drive.drive;
  const gbps = rateMBps / 1000;
  let watts: number;
  if (media === 'hdd') watts = power?.activeW ?? (formFactor === '3.5in' ? POWER.disk35W : POWER.disk25W).typical;
  else if (power?.activeW !== undefined) watts = power.activeW;
  else if (media === 'nvme') watts = (power?.idleW ?? POWER.nvmeIdleW.typical) + POWER.nvmeWriteJPerGB.typical * gbps;
  else watts = (power?.idleW ?? POWER.sataIdleW.typical) + POWER.sataJPerGB.typical * gbps;
  const tunnelled = negotiation.mode !== null && isTunnelled(negotiation.mode);
  const bridge = enclosure.enclosure.bridgePowerW ?? (tunnelled ? POWER.bridgeTunnelW : POWER.bridgeUsbW).typical;
  const fan = enclosure.enclosure.cooling?.kind === 'fan' ? POWER.fanW : 0;
  return watts / POWER.converterEfficiency + bridge + fan;
}

/** The most it draws for a moment, W: writing in bursts, or spinning up. */
export function peakPower(pairing: Pairing, steady: number): number {
  const { drive } = pairing;
  const stated = drive.drive.power?.peakW;
  const { media } = drive.drive;
  const peak =
    stated ??
    (media === 'hdd'
      ? POWER.disk25SpinUpW.typical
      : media === 'nvme'
        ? POWER.nvmePeakW[drive.pcie?.generation ?? 3]
        : POWER.sataPeakW);
  return Math.max(steady, peak);
}

/** Steady need above the port fails; only the peak above it is a matter to check, and so is a need above an assumed supply. */
export const portPower: Rule = (pairing) => {
  const { drive, enclosure, port, portWatts, writeMBps } = pairing;
  if (
    enclosure.enclosure.externalSupply === true ||
    port.plug === 'esata' ||
    writeMBps === undefined ||
    drive.drive.formFactor === '3.5in'
  )
    return undefined;
  const { watts, stated } = portWatts;
  const steady = steadyPower(pairing, writeMBps);
  const short = (severity: 'fail' | 'check', needW: number, what: 'steady' | 'peak'): Finding => ({
    code: 'port-power-short',
    severity,
    about: 'port',
    portW: watts,
    portAssumed: !stated,
    needW,
    what
  });
  if (steady > watts) return short(stated ? 'fail' : 'check', steady, 'steady');
  const peak = peakPower(pairing, steady);
  return peak > watts ? short('check', peak, 'peak') : undefined;
};

export const externalSupply: Rule = ({ drive: { drive }, enclosure: { enclosure } }) =>
  drive.formFactor === '3.5in' && enclosure.formFactor === '3.5in' && enclosure.externalSupply !== true
    ? {
        code: 'external-supply-needed',
        severity: enclosure.externalSupply === false ? 'fail' : 'check',
        about: 'enclosure',
        stated: enclosure.externalSupply === false
      }
    : undefined;

export const esataPower: Rule = ({ port, enclosure: { enclosure }, portWatts }) =>
  port.plug === 'esata' &&
  portWatts.watts === 0 &&
  enclosure.externalSupply !== true &&
  enclosure.formFactor !== '3.5in'
    ? { code: 'esata-needs-power', severity: 'fail', about: 'enclosure' }
    : undefined;

export const cableLength: Rule = ({ negotiation: { cable, mode } }) => {
  if (!cable || mode === null || cable.lengthM === undefined || cable.active || cable.certified) return undefined;
  const safeM = LINK_MODES[mode].passiveLengthM;
  return cable.lengthM > safeM
    ? { code: 'cable-length-doubtful', severity: 'check', about: 'cable', lengthM: cable.lengthM, safeM, mode }
    : undefined;
};

/** Gen 5 drives only: Gen 4 in a Gen 3 bridge is harmless. */
export const pcieGeneration: Rule = ({ drive, enclosure, negotiation: { mode } }) =>
  drive.pcie?.generation === 5 && enclosure.pcie.generation < 5 && mode !== null && isTunnelled(mode)
    ? {
        code: 'pcie-generation-above-tunnel',
        severity: 'check',
        about: 'drive',
        drive: 5,
        slot: enclosure.pcie.generation
      }
    : undefined;
