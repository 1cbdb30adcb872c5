import { PORT_POWER_W } from '../facts/buses.ts';
import { POWER } from '../facts/flash.ts';
import type { FilledDrive } from '../parts/fill/drive.ts';
import type { FilledEnclosure } from '../parts/fill/enclosure.ts';
import type { PortPower } from '../parts/fill/port.ts';
import type { Port } from '../parts/host.ts';
import type { Band } from '../quantities/band.ts';
import type { MBps, Watt } from '../quantities/measures.ts';
import type { Negotiation } from './negotiate.ts';
import { drawOf, peakDraw, steadyDraw, type Draw } from './power-draw.ts';

/** What a build asks of its port: in steady writing and at its peak, W. */
export type PowerNeed = { draw: Draw; steady: Band<Watt>; peak: Band<Watt> };

/** A chain that writes at a rate, MB/s; undefined where nothing runs. */
type Writing = {
  drive: FilledDrive;
  enclosure: FilledEnclosure;
  negotiation: Pick<Negotiation, 'mode'>;
  writeMBps: Band<MBps> | undefined;
};

/** Works out what a build draws while it writes as fast as its chain lets it. */
export function powerNeed({ drive, enclosure, negotiation: { mode }, writeMBps }: Writing): PowerNeed {
  const draw = drawOf(drive, enclosure, mode, enclosure.enclosure.cooling?.kind === 'fan');
  const steady = steadyDraw(draw, writeMBps ?? { low: 0, typical: 0, high: 0 });
  return { draw, steady, peak: peakDraw(drive, draw, steady) };
}

/** Tells whether a build lives on what its port gives. */
export const livesOnPort = ({
  drive,
  enclosure,
  port
}: {
  drive: FilledDrive;
  enclosure: FilledEnclosure;
  port: Port;
}): boolean =>
  enclosure.enclosure.externalSupply !== true && port.plug !== 'esata' && drive.drive.formFactor !== '3.5in';

/** Gives what the port has for this build, W: a Y lead adds what a second port of its kind must give. */
export const budgetOf = ({
  portWatts,
  negotiation: { cable }
}: {
  portWatts: PortPower;
  negotiation: Negotiation;
}): Watt => portWatts.watts + (cable?.yLead ? Math.min(portWatts.watts, PORT_POWER_W.usb3) : 0);

/** Gives the most that the stated figures of a drive can come to, W. */
export const mostOfDrive = ({ drive: { power } }: FilledDrive): Watt =>
  ((power?.idleW ?? 0) + (power?.activeW ?? 0)) / POWER.converterEfficiency;

/** Gives the most that the stated figures of an enclosure can come to, W. */
export const mostOfEnclosure = ({ enclosure: { bridgePowerW, idleW } }: FilledEnclosure): Watt =>
  (bridgePowerW ?? 0) + (idleW ?? 0);
