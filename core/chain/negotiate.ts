import { BOTH_PAIRS, LINK_MODES, type LinkMode, type Plug } from '../facts/link-modes.ts';
import type { Cable } from '../parts/cable.ts';
import type { Enclosure } from '../parts/enclosure.ts';
import type { Port } from '../parts/host.ts';
import { ALL_MODES, bestMode, closeModes, hasMode, setOf, throughPlug, TUNNELLED, type ModeSet } from './modes.ts';

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
  cableFrom: 'chosen' | 'box' | 'captive' | 'assumed';
  /** Whether the mode rests on a cable that most likely carries it, though nobody certified that. */
  likely: boolean;
  plugsMeet: boolean;
};

const ADAPTER_SET: ModeSet = throughPlug('usb-a');
/** Order of preference; equal for two labels of one link. */
export const modeRank = (mode: LinkMode | null) => (mode === null ? -1 : LINK_MODES[mode].rank);

export function portModes(port: Port): ModeSet {
  let set = closeModes(port.modes, 'host') & throughPlug(port.plug);
  if (port.via === 'adapter') set &= ADAPTER_SET;
  if (port.tunnelsPcie === false) set &= ~TUNNELLED;
  return set;
}

const TEN_GBIT: LinkMode = 'usb-10g';
const BOTH_PAIRS_SET: ModeSet = setOf(BOTH_PAIRS);

/** What a cable carries by what is printed on it, its plugs applied. */
const printedModes = (cable: Cable): ModeSet =>
  closeModes(cable.modes, cable.active ? 'active-cable' : 'passive-cable') &
  throughPlug(cable.ends[0]) &
  throughPlug(cable.ends[1]);

/** What a cable carries: a passive one for 10 Gb/s with USB-C at both ends is wired with both lane pairs, and so carries 20 Gb/s. */
export function cableModes(cable: Cable): ModeSet {
  const set = printedModes(cable);
  const full = !cable.active && cable.ends[0] === 'usb-c' && cable.ends[1] === 'usb-c' && hasMode(set, TEN_GBIT);
  return full ? set | BOTH_PAIRS_SET : set;
}

export const plugsOf = (enclosure: Enclosure): readonly Plug[] =>
  enclosure.morePlugs ? [enclosure.plug, ...enclosure.morePlugs] : [enclosure.plug];

/** The socket of the enclosure that this cable reaches from this port; undefined where the ends do not meet. */
export function socketFor(cable: Cable, port: Port, enclosure: Enclosure): Plug | undefined {
  const [a, b] = cable.ends;
  return a === port.plug && plugsOf(enclosure).includes(b)
    ? b
    : b === port.plug && plugsOf(enclosure).includes(a)
      ? a
      : undefined;
}

/** Finds the cable of the box that gives the best mode on this port, the first of equals; null where none gives any. */
function fromTheBox(port: Port, enclosure: Enclosure, portSet: ModeSet, bridgeSet: ModeSet): Cable | null {
  let best: Cable | null = null;
  let bestRank = -1;
  for (const cable of enclosure.includedCables ?? []) {
    const socket = socketFor(cable, port, enclosure);
    if (socket === undefined) continue;
    const here = modeRank(bestMode(portSet & cableModes(cable) & bridgeSet & throughPlug(socket)));
    if (here > bestRank) [best, bestRank] = [cable, here];
  }
  return best;
}

/**
 * The chain runs in the best mode that port, cable and bridge all support, each list closed by implication.
 * A part limits where taking its limit away would give a better mode; where no part alone does, those whose own best is
 * the negotiated mode limit together. So at least one part always stands at the negotiated mode.
 */
export function negotiate(port: Port, chosen: Cable | undefined, enclosure: Enclosure): Negotiation {
  const captive = enclosure.captiveCable === true;
  const portSet = portModes(port);
  const ownSet = closeModes(enclosure.modes, 'bridge');
  const cable = captive ? null : (chosen ?? fromTheBox(port, enclosure, portSet, ownSet));
  const cableFrom = captive ? 'captive' : chosen ? 'chosen' : cable ? 'box' : 'assumed';
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
    port: portSet,
    cable: cable ? cableModes(cable) : ALL_MODES,
    bridge: ownSet & socketSet
  };
  const mode = bestMode(sets.port & sets.cable & sets.bridge);
  const best = { port: bestMode(sets.port), cable: cable ? bestMode(sets.cable) : null, bridge: bestMode(sets.bridge) };

  const parts: LinkPart[] = cable ? ['port', 'cable', 'bridge'] : ['port', 'bridge'];
  const here = modeRank(mode);
  const without = {
    port: bestMode(sets.cable & sets.bridge),
    cable: bestMode(sets.port & sets.bridge),
    bridge: bestMode(sets.port & sets.cable)
  };
  let limiting = parts.filter((part) => modeRank(without[part]) > here);
  if (limiting.length === 0) limiting = parts.filter((part) => modeRank(best[part]) === here);
  if (limiting.length === 0) limiting = parts;
  const likely = cable !== null && mode !== null && !cable.certified && !hasMode(printedModes(cable), mode);
  return { mode, sets, best, limiting, without, cable, cableFrom, likely, plugsMeet };
}
