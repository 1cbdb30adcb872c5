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
/** Gives the order of preference of a mode, -1 for none; equal for two labels of one link. */
export const modeRank = (mode: LinkMode | null) => (mode === null ? -1 : LINK_MODES[mode].rank);

/** Finds what a port carries: its modes closed by implication, through its plug and whatever stands before it. */
export function portModes(port: Port): ModeSet {
  let set = closeModes(port.modes, 'host') & throughPlug(port.plug);
  if (port.via === 'adapter') set &= ADAPTER_SET;
  if (port.tunnelsPcie === false) set &= ~TUNNELLED;
  return set;
}

const TEN_GBIT: LinkMode = 'usb-10g';
const BOTH_PAIRS_SET: ModeSet = setOf(BOTH_PAIRS);

/** Finds what a cable carries by what is printed on it, its plugs applied. */
const printedModes = (cable: Cable): ModeSet =>
  closeModes(cable.modes, cable.active ? 'active-cable' : 'passive-cable') &
  throughPlug(cable.ends[0]) &
  throughPlug(cable.ends[1]);

/** Finds what a cable carries: a passive one for 10 Gb/s with USB-C at both ends is wired with both lane pairs, and so carries 20 Gb/s. */
export function cableModes(cable: Cable): ModeSet {
  const set = printedModes(cable);
  const full = !cable.active && cable.ends[0] === 'usb-c' && cable.ends[1] === 'usb-c' && hasMode(set, TEN_GBIT);
  return full ? set | BOTH_PAIRS_SET : set;
}

/** Lists the sockets of an enclosure. */
export const plugsOf = (enclosure: Enclosure): readonly Plug[] =>
  enclosure.morePlugs ? [enclosure.plug, ...enclosure.morePlugs] : [enclosure.plug];

/** Finds the socket of the enclosure that this cable reaches from this port; undefined where the ends do not meet. */
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

/** The cable of a chain and the sockets of the enclosure that are left for it. */
type Plugged = { cable: Cable | null; from: Negotiation['cableFrom']; sockets: readonly Plug[]; meet: boolean };

/** Finds the cable that is used, and whether its ends meet. */
// eslint-disable-next-line max-params -- what negotiate() has worked out of the port and of the bridge goes on
function plugIn(
  port: Port,
  chosen: Cable | undefined,
  enclosure: Enclosure,
  portSet: ModeSet,
  ownSet: ModeSet
): Plugged {
  const sockets = plugsOf(enclosure);
  if (enclosure.captiveCable === true)
    return { cable: null, from: 'captive', sockets, meet: sockets.includes(port.plug) };
  const cable = chosen ?? fromTheBox(port, enclosure, portSet, ownSet);
  if (!cable) return { cable: null, from: 'assumed', sockets, meet: true };
  const socket = socketFor(cable, port, enclosure);
  const from = chosen ? 'chosen' : 'box';
  return { cable, from, sockets: socket ? [socket] : sockets, meet: socket !== undefined };
}

/**
 * Finds the parts that limit: those without whose limit the mode would be better; where no part alone does, those whose own best is
 * the negotiated mode limit together. So at least one part always stands at the negotiated mode.
 */
function limitingParts(
  parts: LinkPart[],
  { mode, best, without }: Pick<Negotiation, 'mode' | 'best' | 'without'>
): LinkPart[] {
  const here = modeRank(mode);
  const alone = parts.filter((part) => modeRank(without[part]) > here);
  if (alone.length > 0) return alone;
  const together = parts.filter((part) => modeRank(best[part]) === here);
  return together.length > 0 ? together : parts;
}

/** Negotiates the link: the best mode that port, cable and bridge all support, each list closed by implication. */
export function negotiate(port: Port, chosen: Cable | undefined, enclosure: Enclosure): Negotiation {
  const portSet = portModes(port);
  const ownSet = closeModes(enclosure.modes, 'bridge');
  const { cable, from: cableFrom, sockets, meet: plugsMeet } = plugIn(port, chosen, enclosure, portSet, ownSet);
  let socketSet = 0;
  for (const socket of sockets) socketSet |= throughPlug(socket);
  const sets = {
    port: portSet,
    cable: cable ? cableModes(cable) : ALL_MODES,
    bridge: ownSet & socketSet
  };
  const mode = bestMode(sets.port & sets.cable & sets.bridge);
  const best = { port: bestMode(sets.port), cable: cable ? bestMode(sets.cable) : null, bridge: bestMode(sets.bridge) };
  const without = {
    port: bestMode(sets.cable & sets.bridge),
    cable: bestMode(sets.port & sets.bridge),
    bridge: bestMode(sets.port & sets.cable)
  };
  const limiting = limitingParts(cable ? ['port', 'cable', 'bridge'] : ['port', 'bridge'], { mode, best, without });
  const likely = cable !== null && mode !== null && !cable.certified && !hasMode(printedModes(cable), mode);
  return { mode, sets, best, limiting, without, cable, cableFrom, likely, plugsMeet };
}
