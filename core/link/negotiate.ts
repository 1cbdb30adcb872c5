import { LINK_MODES, type LinkMode, type Plug } from '../facts/link-modes.ts';
import type { Assume } from '../findings/finding.ts';
import type { Cable } from '../parts/cable.ts';
import type { Enclosure } from '../parts/enclosure.ts';
import type { Port } from '../parts/host.ts';
import { ALL_MODES, bestMode, closeModes, throughPlug, TUNNELLED, type ModeSet } from './modes.ts';

export type LinkPart = 'port' | 'cable' | 'bridge';

export type Negotiation = {
  mode: LinkMode | null;
  /** What each part carries by itself, implied modes included and plugs applied. */
  sets: Record<LinkPart, ModeSet>;
  /** The best mode of each part by itself. */
  best: Record<LinkPart, LinkMode | null>;
  /** The parts that hold the chain down to its mode. */
  limiting: LinkPart[];
  /** The mode that the chain would have if one part were ideal. */
  without: Record<LinkPart, LinkMode | null>;
  /** The cable that is used: the chosen one, one from the box, or null for a captive or an assumed one. */
  cable: Cable | null;
  plugsMeet: boolean;
};

const ADAPTER_SET: ModeSet = throughPlug('usb-a');
/** Order of preference; equal for two labels of one link. */
export const rank = (mode: LinkMode | null) => (mode === null ? -1 : LINK_MODES[mode].rank);

export function portModes(port: Port): ModeSet {
  let set = closeModes(port.modes, 'host') & throughPlug(port.plug);
  if (port.via === 'adapter') set &= ADAPTER_SET;
  if (port.tunnelsPcie === false) set &= ~TUNNELLED;
  return set;
}

export const cableModes = (cable: Cable): ModeSet =>
  closeModes(cable.modes, cable.active ? 'active-cable' : 'passive-cable') &
  throughPlug(cable.ends[0]) &
  throughPlug(cable.ends[1]);

export const plugsOf = (enclosure: Enclosure): readonly Plug[] =>
  enclosure.morePlugs ? [enclosure.plug, ...enclosure.morePlugs] : [enclosure.plug];

/** The socket of the enclosure that this cable reaches from this port; undefined where the ends do not meet. */
export function socketFor(cable: Cable, port: Port, enclosure: Enclosure): Plug | undefined {
  const [a, b] = cable.ends;
  const far =
    a === port.plug && plugsOf(enclosure).includes(b)
      ? b
      : b === port.plug && plugsOf(enclosure).includes(a)
        ? a
        : undefined;
  return far;
}

/**
 * The chain runs in the best mode that port, cable and bridge all support, each list closed by implication.
 * A part limits where taking its limit away would give a better mode; where no part alone does, those whose own best is
 * the negotiated mode limit together. So at least one part always stands at the negotiated mode.
 */
export function negotiate(port: Port, chosen: Cable | undefined, enclosure: Enclosure, assume: Assume): Negotiation {
  const captive = enclosure.captiveCable === true;
  let cable: Cable | null = captive ? null : (chosen ?? null);
  if (!captive && !chosen) {
    cable = enclosure.includedCables?.find((included) => socketFor(included, port, enclosure) !== undefined) ?? null;
    if (cable) assume('cable', 'name', cable.name, 'the first cable in the box that fits');
    else assume('cable', 'modes', 'everything the enclosure offers', 'no cable was chosen and none in the box fits');
  }
  let plugsMeet = true;
  let sockets = plugsOf(enclosure);
  if (captive) plugsMeet = sockets.includes(port.plug);
  else if (cable) {
    const socket = socketFor(cable, port, enclosure);
    plugsMeet = socket !== undefined;
    if (socket) sockets = [socket];
  }
  let socketSet = 0;
  for (const socket of sockets) socketSet |= throughPlug(socket);
  const sets = {
    port: portModes(port),
    cable: cable ? cableModes(cable) : ALL_MODES,
    bridge: closeModes(enclosure.modes, 'bridge') & socketSet
  };
  const mode = bestMode(sets.port & sets.cable & sets.bridge);
  const best = { port: bestMode(sets.port), cable: cable ? bestMode(sets.cable) : null, bridge: bestMode(sets.bridge) };

  const parts: LinkPart[] = cable ? ['port', 'cable', 'bridge'] : ['port', 'bridge'];
  const here = rank(mode);
  const without = {
    port: bestMode(sets.cable & sets.bridge),
    cable: bestMode(sets.port & sets.bridge),
    bridge: bestMode(sets.port & sets.cable)
  };
  let limiting = parts.filter((part) => rank(without[part]) > here);
  if (limiting.length === 0) limiting = parts.filter((part) => rank(best[part]) === here);
  if (limiting.length === 0) limiting = parts;
  return { mode, sets, best, limiting, without, cable, plugsMeet };
}
