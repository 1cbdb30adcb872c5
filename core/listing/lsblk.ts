import { devicesOfTree, type BlockNode, type BlockTree } from './block-tree.ts';
import { straightCells, crookedCells, headingsOf, waysToUnwrap, type CellForm, type Heading } from './columns.ts';
import type { Reading } from './device.ts';
import { asList, asRecord, readLooseJson } from './json.ts';
import { cellText, sizeOf } from './text.ts';

const COLUMNS = new Set(
  'NAME KNAME PATH PKNAME MAJ:MIN RM RO HOTPLUG SIZE TYPE MOUNTPOINT MOUNTPOINTS MODEL SERIAL TRAN VENDOR WWN REV FSTYPE FSVER LABEL UUID PARTLABEL PARTUUID PARTTYPE PARTTYPENAME PTTYPE PTUUID STATE SUBSYSTEMS ROTA PHY-SEC LOG-SEC DISC-GRAN DISC-MAX FSUSE% FSAVAIL FSSIZE FSUSED OWNER GROUP MODE ID ID-LINK HCTL FSROOTS SCHED RQ-SIZE DAX PARTN START'.split(
    ' '
  )
);
const TYPES = /^(?:disk|part|lvm|crypt|loop|rom|raid\w*|md|mpath|dm|zram|swap|linear|stripe|mirror|multipath)$/;
const KERNEL_NAME = /^(?:\/dev\/)?(?:sd|hd|vd|xvd|nvme|mmcblk|loop|sr|dm-|md|zram|nbd|ram|pmem|ub)[\w.!/-]*$/;
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
function plausible({ fields, name }: BlockNode, listed: boolean): boolean {
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
function nodesOf(head: string, rows: readonly string[]): BlockTree | null {
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
function treeOf(headings: readonly Heading[], rows: readonly string[], cells: readonly string[][]): BlockTree | null {
  const titles = headings.map(({ title }) => title);
  const at = ['NAME', 'KNAME', 'PATH'].map((title) => titles.indexOf(title)).find((i) => i >= 0);
  if (at === undefined) return null;
  const mountAt = titles.findIndex((title) => title.startsWith('MOUNTPOINT'));
  const nodes: BlockNode[] = [];
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
    const fields = Object.fromEntries(titles.map((title, j) => [title, row[j] ?? '']));
    const parents = parentOf(nodes, fields.PKNAME, indent);
    const node: BlockNode = { fields, mounts: mount === undefined ? [] : [mount], parents, name: bare(name) };
    if (!plausible(node, indent === 0)) return null;
    nodes.push(node);
    node.fields.INDENT = String(indent);
  }
  return nodes.length > 0 ? { nodes, hasMounts: mountAt >= 0 } : null;
}

/** Which line a line hangs on: by its stated parent, else the last one that stands further left. */
function parentOf(nodes: readonly BlockNode[], stated: string | undefined, indent: number): number[] {
  const named = cellText(stated);
  if (named !== undefined) return nodes.flatMap(({ name }, i) => (name === bare(named) ? [i] : []));
  if (indent === 0) return [];
  for (let i = nodes.length - 1; i >= 0; i--) if (Number(nodes[i]?.fields.INDENT ?? 0) < indent) return [i];
  return [];
}

/** Reads pairs such as NAME="sda" SIZE="1.8T". */
// eslint-disable-next-line complexity -- one line for each thing that such a listing can hold
function pairNodes(lines: readonly string[]): BlockTree | null {
  const nodes: BlockNode[] = [];
  let hasMounts = false;
  for (const line of lines) {
    const fields: Record<string, string> = {};
    for (const [, key = '', value = ''] of line.matchAll(/\b([A-Z][A-Z:%_-]*)="((?:[^"\\]|\\.)*)"/g)) {
      // The same word twice: two lines were joined that are not one.
      if (Object.hasOwn(fields, key)) return null;
      fields[key] = unescaped(value);
    }
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
function jsonNodes(value: unknown): BlockTree | null {
  const top = asRecord(value).blockdevices;
  if (!Array.isArray(top)) return null;
  const nodes: BlockNode[] = [];
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
    return found ? devicesOfTree(found, json.cut) : null;
  }
  if (/\b(?:K?NAME|PATH)="/.test(text)) return readPairs(text);
  return readTable(text);
}

/** A line that is made of pairs and of nothing else. */
const PAIRS = /^\s*(?:[A-Z][A-Z0-9:%_-]*="(?:[^"\\]|\\.)*"\s*)+$/;

/** Reads pairs, as they stand or with their lines joined; a line that is no pairs means that something is missing somewhere. */
function readPairs(text: string): Reading | null {
  const lines = text.split('\n').filter((line) => line.includes('="') || line.includes('"'));
  for (const way of waysToUnwrap(lines)) {
    const last = way.at(-1) ?? '';
    const cut = !PAIRS.test(last);
    const whole = cut ? way.slice(0, -1) : way;
    if (whole.length === 0 || !whole.every((line) => PAIRS.test(line))) continue;
    const found = pairNodes(whole);
    // Every line has the same columns: one that has fewer was broken off.
    if (found && new Set(found.nodes.map(({ fields }) => Object.keys(fields).length)).size === 1)
      return devicesOfTree(found, cut);
  }
  return { system: 'linux', devices: [], showsSystem: false, cut: false, unread: lines.length };
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
    if (whole) return devicesOfTree(whole, endsCut(rows));
    // Only its last line may be broken off.
    const rest = rows.length > 1 ? nodesOf(lines[at] ?? '', rows.slice(0, -1)) : null;
    if (rest) return devicesOfTree(rest, true);
    unread ??= { system: 'linux', devices: [], showsSystem: false, cut: false, unread: rows.length };
  }
  return unread;
}

const isPrompt = (line: string): boolean => /^(?:[\w.-]+@[\w.-]+[:\s].*[$#%]|[$#>%]) /.test(line);

/** A tree whose last branch goes on is cut. */
const endsCut = (rows: readonly string[]): boolean => /^\s*(?:├|\|-)/u.test(rows.at(-1) ?? '');
