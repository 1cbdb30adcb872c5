import { BUS_POWERED_HUB_W, PORT_POWER_W } from '../../facts/buses.ts';
import { LINK_MODES, type LinkMode } from '../../facts/link-modes.ts';
import type { Port } from '../host.ts';

/** The least that a port of this mode gives, W. Source: USB 3.2, USB Type-C, USB4, Thunderbolt. */
function modePower(mode: LinkMode): number {
  const { carrier, lineGbps } = LINK_MODES[mode];
  if (carrier === 'esata') return PORT_POWER_W.esata;
  if (carrier === 'thunderbolt') return PORT_POWER_W.thunderbolt;
  if (carrier === 'usb4' || lineGbps === 20) return PORT_POWER_W.twoLane;
  return carrier === 'usb2' ? PORT_POWER_W.usb2 : PORT_POWER_W.usb3;
}

/** What a port gives, W, and whether that is stated. */
export type PortPower = { watts: number; stated: boolean };

/**
 * Gives the power of a port: stated, or the least of the best-fed of its modes. Behind a hub without a supply of its own it is what
 * that hub has for all of its ports together.
 */
export function portPower(port: Port): PortPower {
  if (port.powerW !== undefined) return { watts: port.powerW, stated: true };
  let watts = 0;
  for (const mode of port.modes) watts = Math.max(watts, modePower(mode));
  return { watts: port.via === 'bus-powered-hub' ? Math.min(watts, BUS_POWERED_HUB_W.low) : watts, stated: false };
}
