import {
  IMPLIED_MODES,
  LINK_MODE_IDS,
  LINK_MODES,
  PLUG_TOP_MODE,
  PLUGS,
  type LinkMode,
  type Plug
} from '../facts/link-modes.ts';

/**
 * Sets of link modes as bits. The lowest bit is the best mode, so negotiation is one AND and the lowest set bit:
 * ranking calls this millions of times.
 */
export type ModeSet = number;

const BIT = Object.fromEntries(LINK_MODE_IDS.map((id, i) => [id, 1 << i])) as Record<LinkMode, number>;
type Role = keyof typeof IMPLIED_MODES;
const closuresOf = (table: Partial<Record<LinkMode, readonly LinkMode[]>>) =>
  Object.fromEntries(
    LINK_MODE_IDS.map((id) => [id, (table[id] ?? []).reduce((set, implied) => set | BIT[implied], BIT[id])])
  ) as Record<LinkMode, ModeSet>;
const CLOSURES = Object.fromEntries(
  Object.entries(IMPLIED_MODES).map(([role, table]) => [role, closuresOf(table)])
) as Record<Role, Record<LinkMode, ModeSet>>;

export const ALL_MODES: ModeSet = (1 << LINK_MODE_IDS.length) - 1;
/** Gives the modes as a set, none of them implied. */
export const setOf = (modes: readonly LinkMode[]): ModeSet => modes.reduce((set, mode) => set | BIT[mode], 0);
const carriers = (test: (carrier: string) => boolean) =>
  LINK_MODE_IDS.reduce((set, id) => (test(LINK_MODES[id].carrier) ? set | BIT[id] : set), 0);
/** Modes in which PCIe runs through a tunnel. */
export const TUNNELLED: ModeSet = carriers((c) => c === 'usb4' || c === 'thunderbolt');
export const THUNDERBOLT: ModeSet = carriers((c) => c === 'thunderbolt');

/** Tells what a listed set of modes gives once every implied mode is added. */
export function closeModes(modes: readonly LinkMode[], role: Role): ModeSet {
  const closure = CLOSURES[role];
  let set = 0;
  for (const mode of modes) set |= closure[mode];
  return set;
}

const plugSets = Object.fromEntries(
  PLUGS.map((plug) => {
    const top = LINK_MODES[PLUG_TOP_MODE[plug]];
    const esata = plug === 'esata';
    const passes = (id: LinkMode) => (LINK_MODES[id].carrier === 'esata') === esata && LINK_MODES[id].rank <= top.rank;
    return [plug, LINK_MODE_IDS.reduce((set, id) => (passes(id) ? set | BIT[id] : set), 0)];
  })
) as Record<Plug, ModeSet>;

/** Tells what a plug lets through: USB-A, USB-B and Micro-B stop at 10 Gb/s, eSATA carries eSATA only. */
export const throughPlug = (plug: Plug): ModeSet => plugSets[plug];

/** Gives the best mode of a set; null for the empty set. */
export function bestMode(set: ModeSet): LinkMode | null {
  return LINK_MODE_IDS[31 - Math.clz32(set & -set)] ?? null;
}

/** Gives the modes of a set, best first. */
export function modesOf(set: ModeSet): LinkMode[] {
  return LINK_MODE_IDS.filter((id) => (set & BIT[id]) !== 0);
}

/** Tells whether a set of modes holds one. */
export const hasMode = (set: ModeSet, mode: LinkMode): boolean => (set & BIT[mode]) !== 0;
/** Tells whether a mode tunnels PCIe. */
export const isTunnelled = (mode: LinkMode): boolean => hasMode(TUNNELLED, mode);
