import { isSystemMount, type ListedDevice, type Reading } from './device.ts';
import { straightCells, crookedCells, headingsOf, waysToUnwrap, type CellForm, type Heading } from './columns.ts';
import { asList, asRecord, readLooseJson } from './json.ts';
import { cellText, isClipped, sizeOf } from './text.ts';

/** A line of the tree of block devices, by the names that the tool gives its columns. */
type Node = { fields: Record<string, string>; mounts: string[]; parents: number[]; name: string };

const COLUMNS = new Set(
  'NAME KNAME PATH PKNAME MAJ:MIN RM RO HOTPLUG SIZE TYPE MOUNTPOINT MOUNTPOINTS MODEL SERIAL TRAN VENDOR WWN REV FSTYPE FSVER LABEL UUID PARTLABEL PARTUUID PARTTYPE PARTTYPENAME PTTYPE PTUUID STATE SUBSYSTEMS ROTA PHY-SEC LOG-SEC DISC-GRAN DISC-MAX FSUSE% FSAVAIL FSSIZE FSUSED OWNER GROUP MODE ID ID-LINK HCTL FSROOTS SCHED RQ-SIZE DAX PARTN START'.split(
    ' '
  )
);
const TYPES = /^(?:disk|part|lvm|crypt|loop|rom|raid\w*|md|mpath|dm|zram|swap|linear|stripe|mirror|multipath)$/;
const KERNEL_NAME = /^(?:\/dev\/)?(?:sd|hd|vd|xvd|nvme|mmcblk|loop|sr|dm-|md|zram|nbd|ram|pmem|ub)[\w.!/-]*$/;
/** Names that are whole devices, where a listing has no column of types. */
const WHOLE = /^(?:(?:sd|hd|vd|xvd)[a-z]+|nvme\d+n\d+|mmcblk\d+|ub[a-z]+|pmem\d+)$/;
const BRANCH = /^[\s│├└─|`\-+]*/u;

const bare = (name: string): string => name.replace(/^\/dev\//, '');

/** Whether a line of titles is one of this tool. */
function isHead(line: string): boolean {
  const titles = line.trim().split(/\s+/);
  return (
    titles.length >= 2 &&
    titles.every((title) => COLUMNS.has(title)) &&
    titles.some((title) => title === 'NAME' || title === 'KNAME' || title === 'PATH')
  );
}

/** Whether a row can be one of the tree: what has a form in it has that form. */
function plausible({ fields, name }: Node, listed: boolean): boolean {
  const { SIZE, TYPE, RM, RO } = fields;
  if (!/^[\w.+:!/ -]+$/.test(name)) return false;
  if (listed && TYPE === undefined && !KERNEL_NAME.test(name)) return false;
  if (SIZE !== undefined && SIZE !== '' && sizeOf(SIZE, true) === null) return false;
  if (TYPE !== undefined && !TYPES.test(TYPE)) return false;
  return [RM, RO].every((flag) => flag === undefined || flag === '' || /^[01]$/.test(flag));
}

const FORMS: Record<string, CellForm> = {
  'MAJ:MIN': { test: /^\d+:\d+$/, blanks: false },
  RM: { test: /^[01]$/, blanks: false },
  RO: { test: /^[01]$/, blanks: false },
  HOTPLUG: { test: /^[01]$/, blanks: false },
  ROTA: { test: /^[01]$/, blanks: false },
  SIZE: { test: /^\d[\d.,]*[KMGTP]?$/, blanks: false },
  TYPE: { test: TYPES, blanks: false },
  TRAN: { test: /^(?:usb|sata|ata|nvme|sas|mmc|scsi|spi|fc|iscsi|virtio|thunderbolt|pcie)$/, blanks: false },
  NAME: { test: /^[│├└─|`+ \w.:!/-]*\w$/u, blanks: true },
  KNAME: { test: /^[\w.+:!/-]+$/, blanks: false },
  PKNAME: { test: /^[\w.+:!/-]+$/, blanks: false },
  MOUNTPOINT: { test: /^(?:\/.*|\[SWAP\])$/, blanks: true },
  MOUNTPOINTS: { test: /^(?:\/.*|\[SWAP\])$/, blanks: true },
  MODEL: { blanks: true },
  VENDOR: { blanks: true },
  LABEL: { blanks: true },
  PARTLABEL: { blanks: true }
};

/** Reads the rows of a table; null where one of them makes no sense. */
function nodesOf(head: string, rows: readonly string[]): { nodes: Node[]; hasMounts: boolean } | null {
  const headings = headingsOf(head);
  const forms = headings.map(({ title }) => FORMS[title] ?? { blanks: false });
  const straight = straightCells(headings, rows);
  const fits = straight && treeOf(headings, rows, straight);
  if (fits) return fits;
  const crooked = crookedCells(headings, rows, forms);
  return crooked && treeOf(headings, rows, crooked);
}

/** Makes the tree of the cells. */
// eslint-disable-next-line complexity -- one line for each thing that such a listing can hold
function treeOf(
  headings: readonly Heading[],
  rows: readonly string[],
  cells: readonly string[][]
): { nodes: Node[]; hasMounts: boolean } | null {
  const titles = headings.map(({ title }) => title);
  const at = ['NAME', 'KNAME', 'PATH'].map((title) => titles.indexOf(title)).find((i) => i >= 0);
  if (at === undefined) return null;
  const mountAt = titles.findIndex((title) => title.startsWith('MOUNTPOINT'));
  const nodes: Node[] = [];
  const depths: number[] = [];
  const start = headings[at]?.start ?? 0;
  for (const [i, row] of cells.entries()) {
    const cell = row[at] ?? '';
    const line = (rows[i] ?? '').slice(start);
    const indent = BRANCH.exec(line)?.[0].length ?? 0;
    const name = cell.replace(BRANCH, '');
    const mount = mountAt < 0 ? undefined : cellText(row[mountAt]);
    const before = nodes.at(-1);
    if (name === '') {
      // A second place where the same thing is mounted stands on a line of its own.
      if (!before || mount === undefined || row.some((text, j) => j !== at && j !== mountAt && text !== ''))
        return null;
      before.mounts.push(mount);
      continue;
    }
    while (depths.length > 0 && (depths.at(-1) ?? 0) >= indent) depths.pop();
    const fields = Object.fromEntries(titles.map((title, j) => [title, row[j] ?? '']));
    const parents = parentOf(nodes, fields.PKNAME, indent);
    const node: Node = { fields, mounts: mount === undefined ? [] : [mount], parents, name: bare(name) };
    if (!plausible(node, indent === 0)) return null;
    nodes.push(node);
    node.fields.INDENT = String(indent);
    depths.push(indent);
  }
  return nodes.length > 0 ? { nodes, hasMounts: mountAt >= 0 } : null;
}

/** Which line a line hangs on: by its stated parent, else the last one that stands further left. */
function parentOf(nodes: readonly Node[], stated: string | undefined, indent: number): number[] {
  const named = cellText(stated);
  if (named !== undefined) return nodes.flatMap(({ name }, i) => (name === bare(named) ? [i] : []));
  if (indent === 0) return [];
  for (let i = nodes.length - 1; i >= 0; i--) if (Number(nodes[i]?.fields.INDENT ?? 0) < indent) return [i];
  return [];
}

/** Reads pairs such as NAME="sda" SIZE="1.8T". */
// eslint-disable-next-line complexity -- one line for each thing that such a listing can hold
function pairNodes(lines: readonly string[]): { nodes: Node[]; hasMounts: boolean } | null {
  const nodes: Node[] = [];
  let hasMounts = false;
  for (const line of lines) {
    const fields: Record<string, string> = {};
    for (const [, key = '', value = ''] of line.matchAll(/\b([A-Z][A-Z:%_-]*)="((?:[^"\\]|\\.)*)"/g))
      fields[key.replace('_', ':')] = unescaped(value);
    const name = bare(fields.NAME ?? fields.KNAME ?? fields.PATH ?? '');
    if (name === '') return null;
    const mounts = (fields.MOUNTPOINTS ?? fields.MOUNTPOINT ?? '').split('\n').filter((mount) => mount !== '');
    hasMounts ||= 'MOUNTPOINTS' in fields || 'MOUNTPOINT' in fields;
    const parents = parentOf(nodes, fields.PKNAME, 0);
    nodes.push({ fields, mounts, parents, name });
  }
  return nodes.length > 0 ? { nodes, hasMounts } : null;
}

const unescaped = (text: string): string =>
  text.replace(/\\x([0-9a-f]{2})/gi, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)));

/** Reads the tree from JSON. */
function jsonNodes(value: unknown): { nodes: Node[]; hasMounts: boolean } | null {
  const top = asRecord(value).blockdevices;
  if (!Array.isArray(top)) return null;
  const nodes: Node[] = [];
  let hasMounts = false;
  // eslint-disable-next-line complexity -- one line for each thing that such a listing can hold
  const walk = (entry: unknown, parents: number[]): void => {
    const record = asRecord(entry);
    const fields: Record<string, string> = {};
    for (const [key, cell] of Object.entries(record))
      if (['string', 'number', 'boolean'].includes(typeof cell))
        fields[key.toUpperCase()] = typeof cell === 'boolean' ? (cell ? '1' : '0') : String(cell);
    const name = bare(fields.NAME ?? fields.KNAME ?? fields.PATH ?? '');
    if (name === '') return;
    hasMounts ||= 'mountpoint' in record || 'mountpoints' in record;
    const mounts = [...asList(record.mountpoints), ...asList(record.mountpoint)].filter(
      (mount): mount is string => typeof mount === 'string'
    );
    const stated = cellText(fields.PKNAME);
    const named = stated === undefined ? [] : parentOf(nodes, stated, 0);
    const at = nodes.push({ fields, mounts, parents: parents.length > 0 ? parents : named, name }) - 1;
    for (const child of asList(record.children)) walk(child, [at]);
  };
  for (const entry of top) walk(entry, []);
  return nodes.length > 0 ? { nodes, hasMounts } : null;
}

/** The tree with what is asked of it again and again: what hangs on a line, and which lines have one name. */
type Tree = { nodes: readonly Node[]; below: number[][]; byName: Map<string, number[]> };

function treeFor(nodes: readonly Node[]): Tree {
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
function relatives(tree: Tree, name: string): Node[] {
  const own = tree.byName.get(name) ?? [];
  const under = reached(tree, own, (at) => tree.below[at] ?? []);
  const over = reached(tree, own, (at) => tree.nodes[at]?.parents ?? []);
  return [...new Set([...under, ...over])].flatMap((at) => tree.nodes[at] ?? []);
}

const isWhole = ({ fields, name }: Node): boolean =>
  fields.TYPE === undefined ? WHOLE.test(name) : fields.TYPE === 'disk' && !/^(?:zram|ram|loop|nbd|fd)\d/.test(name);

const flag = (fields: Record<string, string>, key: string): boolean | undefined =>
  fields[key] === undefined || fields[key] === '' ? undefined : fields[key] === '1';

/** Whether a device is shown as external: its bus says so, or that it can be pulled. */
function externalOf({ fields }: Node): boolean | undefined {
  const bus = cellText(fields.TRAN)?.toLowerCase();
  if (bus === 'usb' || bus === 'thunderbolt' || /\busb\b/.test(fields.SUBSYSTEMS ?? '')) return true;
  if (flag(fields, 'RM') || flag(fields, 'HOTPLUG')) return true;
  return bus === undefined ? undefined : false;
}

// eslint-disable-next-line complexity -- one line for each thing that such a listing can hold
function deviceOf(node: Node, tree: Tree, listed: boolean): ListedDevice {
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

/** Makes devices of the tree. */
function toReading({ nodes, hasMounts }: { nodes: Node[]; hasMounts: boolean }, cut: boolean): Reading {
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
function withFlatParents(found: { nodes: Node[]; hasMounts: boolean }): { nodes: Node[]; hasMounts: boolean } {
  const { nodes } = found;
  if (nodes.some(({ parents }) => parents.length > 0)) return found;
  for (const node of nodes) {
    const disk = /^((?:sd|hd|vd|xvd)[a-z]+)\d+$|^((?:nvme\d+n|mmcblk)\d+)p\d+$/.exec(node.name);
    const of = disk?.[1] ?? disk?.[2];
    if (of) node.parents = nodes.flatMap(({ name }, i) => (name === of ? [i] : []));
  }
  return found;
}

/**
 * Reads a listing of block devices as `lsblk` writes it: as a table with any columns, as pairs, or as JSON.
 * @param text tidied
 * @returns null where it is no such listing
 * @example readLsblk('NAME SIZE TYPE\nsda  1.8T disk')?.devices[0]?.device // '/dev/sda'
 */
export function readLsblk(text: string): Reading | null {
  if (text.includes('"blockdevices"')) {
    const json = readLooseJson(text.slice(text.lastIndexOf('{', text.indexOf('"blockdevices"'))));
    const found = json && jsonNodes(json.value);
    return found ? toReading(withFlatParents(found), json.cut) : null;
  }
  const pairs = text
    .split('\n')
    .filter((line) => /^\s*[A-Z][A-Z:%_-]*="/.test(line) && /\b(?:K?NAME|PATH)="/.test(line));
  if (pairs.length > 0) {
    const found = pairNodes(pairs);
    return found
      ? toReading(
          withFlatParents(found),
          pairs.some((line) => (line.match(/"/g)?.length ?? 0) % 2 === 1)
        )
      : null;
  }
  return readTable(text);
}

/** Reads the table, as it stands or with its lines joined where a terminal broke them. */
// eslint-disable-next-line complexity -- one line for each thing that such a listing can hold
function readTable(text: string): Reading | null {
  let unread: Reading | null = null;
  for (const lines of waysToUnwrap(text.split('\n'))) {
    const at = lines.findIndex(isHead);
    if (at < 0) continue;
    const rows: string[] = [];
    for (const line of lines.slice(at + 1)) {
      if (line.trim() === '' || isPrompt(line) || isHead(line)) break;
      rows.push(line);
    }
    const whole = nodesOf(lines[at] ?? '', rows);
    if (whole) return toReading(withFlatParents(whole), endsCut(rows));
    // Only its last line may be broken off.
    const rest = rows.length > 1 ? nodesOf(lines[at] ?? '', rows.slice(0, -1)) : null;
    if (rest) return toReading(withFlatParents(rest), true);
    unread ??= { system: 'linux', devices: [], showsSystem: false, cut: false, unread: rows.length };
  }
  return unread;
}

const isPrompt = (line: string): boolean => /^(?:[\w.-]+@[\w.-]+[:\s].*[$#%]|[$#>%]) /.test(line);

/** A tree whose last branch goes on is cut. */
const endsCut = (rows: readonly string[]): boolean => /^\s*(?:├|\|-)/u.test(rows.at(-1) ?? '');
