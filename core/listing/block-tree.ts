import { isSystemMount, type ListedDevice, type Reading } from './device.ts';
import { cellText, isClipped, sizeOf } from './text.ts';

/** A line of the tree of block devices, by the names that the tool gives its columns. */
export type BlockNode = { fields: Record<string, string>; mounts: string[]; parents: number[]; name: string };

/** Lines of a tree, and whether its listing says where things are mounted. */
export type BlockTree = { nodes: BlockNode[]; hasMounts: boolean };

/** Names that are whole devices, where a listing has no column of types. */
const WHOLE = /^(?:(?:sd|hd|vd|xvd)[a-z]+|nvme\d+n\d+|mmcblk\d+|ub[a-z]+|pmem\d+)$/;
/** The tree with what is asked of it again and again: what hangs on a line, and which lines have one name. */
type Tree = { nodes: readonly BlockNode[]; below: number[][]; byName: Map<string, number[]> };

function treeFor(nodes: readonly BlockNode[]): Tree {
  const below: number[][] = nodes.map(() => []);
  const byName = new Map<string, number[]>();
  for (const [i, { name, parents }] of nodes.entries()) {
    for (const parent of parents) below[parent]?.push(i);
    byName.set(name, [...(byName.get(name) ?? []), i]);
  }
  return { nodes, below, byName };
}

/** Follows a tree from some lines on, in one direction; one thing can stand in several places of it. */
function reached(
  { nodes, byName }: Tree,
  from: readonly number[],
  next: (at: number) => readonly number[]
): Set<number> {
  const seen = new Set(from);
  // A set is walked to its end also where it grows meanwhile.
  for (const at of seen)
    for (const other of next(at)) for (const same of byName.get(nodes[other]?.name ?? '') ?? [other]) seen.add(same);
  return seen;
}

/** Everything that hangs together with a device: what is made from it, and, in a tree that stands on its head, what it is made into. */
function relatives(tree: Tree, name: string): BlockNode[] {
  const own = tree.byName.get(name) ?? [];
  const under = reached(tree, own, (at) => tree.below[at] ?? []);
  const over = reached(tree, own, (at) => tree.nodes[at]?.parents ?? []);
  return [...new Set([...under, ...over])].flatMap((at) => tree.nodes[at] ?? []);
}

const isWhole = ({ fields, name }: BlockNode): boolean =>
  fields.TYPE === undefined ? WHOLE.test(name) : fields.TYPE === 'disk' && !/^(?:zram|ram|loop|nbd|fd)\d/.test(name);

const flag = (fields: Record<string, string>, key: string): boolean | undefined =>
  fields[key] === undefined || fields[key] === '' ? undefined : fields[key] === '1';

/** Whether a device is shown as external: its bus says so, or that it can be pulled. */
function externalOf({ fields }: BlockNode): boolean | undefined {
  const bus = cellText(fields.TRAN)?.toLowerCase();
  if (bus === 'usb' || bus === 'thunderbolt' || /\busb\b/.test(fields.SUBSYSTEMS ?? '')) return true;
  if (flag(fields, 'RM') || flag(fields, 'HOTPLUG')) return true;
  return bus === undefined ? undefined : false;
}

// eslint-disable-next-line complexity -- one line for each thing that such a listing can hold
function deviceOf(node: BlockNode, tree: Tree, listed: boolean): ListedDevice {
  const { fields, name } = node;
  const size = sizeOf(fields.SIZE ?? '', true);
  const near = relatives(tree, name);
  const mounts = [...new Set(near.flatMap((relative) => relative.mounts))];
  const others = near.filter((other) => other.name !== name);
  const set = others.some(({ fields: { TYPE } }) => TYPE !== undefined && /^(?:lvm|crypt|raid|md|mpath)/.test(TYPE));
  const held = near.some(({ fields: { FSTYPE } }) =>
    /^(?:LVM2_member|linux_raid_member|zfs_member)$/.test(FSTYPE ?? '')
  );
  const serial = cellText(fields.SERIAL);
  const external = externalOf(node);
  const partitioned = others.length > 0 ? true : cellText(fields.PTTYPE) ? true : listed ? false : undefined;
  return {
    device: `/dev/${name}`,
    bytes: size?.bytes ?? null,
    approxGB: size ? size.gb : null,
    ...given('model', cellText(fields.MODEL)),
    ...given('serial', serial !== undefined && isClipped(serial) ? undefined : serial),
    ...given('bus', cellText(fields.TRAN)?.toLowerCase()),
    mounts,
    systemDisk: mounts.some((mount) => isSystemMount('linux', mount)),
    ...given('external', external),
    ...given('partitioned', partitioned),
    ...(set || held ? { inSet: true } : {})
  };
}

const given = <K extends string, V>(key: K, value: V | undefined): Partial<Record<K, V>> =>
  value === undefined ? {} : ({ [key]: value } as Record<K, V>);

/**
 * Makes devices of a tree of block devices: everything that hangs together with a disk counts as its.
 * @param cut whether the end of its listing is missing
 * @example devicesOfTree({ nodes: [], hasMounts: false }, false).devices.length // 0
 */
export function devicesOfTree(found: BlockTree, cut: boolean): Reading {
  const { nodes, hasMounts } = withFlatParents(found);
  const whole = nodes.filter(isWhole);
  const all = treeFor(nodes);
  const names = [...new Set(whole.map(({ name }) => name))];
  const tree = nodes.some(({ parents }) => parents.length > 0);
  const byName = new Map([...whole].reverse().map((node) => [node.name, node]));
  // What is last may go on where the listing ended: nobody can say that it has no partitions.
  const devices = names.flatMap((name, i) => {
    const node = byName.get(name);
    return node ? [deviceOf(node, all, tree && i < names.length - 1)] : [];
  });
  const loose = nodes.filter(
    (node) => node.mounts.includes('/') && !relatives(all, node.name).some((relative) => isWhole(relative))
  );
  const showsSystem = hasMounts && devices.some(({ mounts }) => mounts.includes('/')) && loose.length === 0;
  return {
    system: 'linux',
    devices,
    showsSystem,
    cut,
    ...(cut ? { cutDevice: devices.at(-1)?.device } : {}),
    unread: 0
  };
}

/** Which disk a partition of this name lies on, where a flat listing shows no tree. */
function withFlatParents(found: BlockTree): BlockTree {
  const { nodes } = found;
  if (nodes.some(({ parents }) => parents.length > 0)) return found;
  for (const node of nodes) {
    const disk = /^((?:sd|hd|vd|xvd)[a-z]+)\d+$|^((?:nvme\d+n|mmcblk)\d+)p\d+$/.exec(node.name);
    const of = disk?.[1] ?? disk?.[2];
    if (of) node.parents = nodes.flatMap(({ name }, i) => (name === of ? [i] : []));
  }
  return found;
}
