import type { ListedDevice, Reading } from './device.ts';
import { straightCells, crookedCells, headingsOf, waysToUnwrap, type CellForm, type Heading } from './columns.ts';
import { asList, asRecord, readLooseJson } from './json.ts';
import { cellText, isClipped, sizeOf } from './text.ts';

/** What a disk says of itself, by the names of its properties in small letters without blanks. */
type Fields = Record<string, string>;

const BUSES: Record<string, string> = {
  '3': 'ata',
  '7': 'usb',
  '8': 'raid',
  '10': 'sas',
  '11': 'sata',
  '12': 'sd',
  '17': 'nvme'
};
const EXTERNAL = new Set(['usb', 'sd', 'mmc', '1394']);

/** Which number a disk has. */
function numberOf(fields: Fields): string | null {
  const text = fields.number ?? fields.disknumber ?? fields.deviceid ?? fields.index ?? fields.path ?? '';
  return /^(?:\\\\[.?]\\)?(?:PHYSICALDRIVE|Disk\s?)?(\d{1,3})$/i.exec(text.trim())?.[1] ?? null;
}

const truth = (text: string | undefined): boolean | undefined =>
  text === undefined || text === '' ? undefined : /^(?:true|1|yes|wahr|vrai|ja|oui)$/i.test(text);

function partitionedOf(fields: Fields): boolean | undefined {
  const style = (fields.partitionstyle ?? '').toUpperCase();
  if (style === 'RAW' || style === '0') return false;
  if (style !== '') return true;
  const count = fields.partitions ?? fields.numberofpartitions;
  return count === undefined || !/^\d+$/.test(count) ? undefined : count !== '0';
}

/** Whether a disk is shown as external: by its bus, or by what it calls its medium. */
function externalOf(bus: string | undefined, mediaType: string): boolean | undefined {
  const medium = /external|removable/i.test(mediaType) ? true : undefined;
  // Old listings call every bus that is not the newest one by an older name.
  if (bus === undefined || bus === 'scsi' || bus === 'ide') return medium;
  return EXTERNAL.has(bus);
}

const first = (fields: Fields, ...keys: readonly string[]): string | undefined =>
  keys.map((name) => cellText(fields[name])).find((text) => text !== undefined);

/** Leaves out what is not known. */
const known = <T extends Record<string, unknown>>(record: T) =>
  Object.fromEntries(Object.entries(record).filter(([, value]) => value !== undefined)) as {
    [K in keyof T]?: Exclude<T[K], undefined>;
  };

// eslint-disable-next-line complexity -- one line for each thing that such a listing can hold
function deviceOf(fields: Fields): ListedDevice | null {
  const number = numberOf(fields);
  if (number === null) return null;
  const size = sizeOf(first(fields, 'size', 'totalsize') ?? '', true);
  const serial = first(fields, 'serialnumber');
  const said = first(fields, 'bustype', 'interfacetype')?.toLowerCase();
  const bus = said === undefined ? undefined : (BUSES[said] ?? said);
  return {
    device: `Disk ${number}`,
    bytes: size?.bytes ?? null,
    approxGB: size?.gb ?? null,
    mounts: [],
    systemDisk: [fields.isboot, fields.issystem, fields.bootfromdisk].some((text) => truth(text) === true),
    ...known({
      model: first(fields, 'friendlyname', 'model', 'caption'),
      serial: serial === undefined || isClipped(serial) ? undefined : serial.replace(/\.$/, ''),
      bus,
      external: externalOf(bus, fields.mediatype ?? ''),
      partitioned: partitionedOf(fields)
    })
  };
}

/** Puts the disks of a listing together; the same number twice is a listing that nobody can read. */
function toReading(list: readonly Fields[], cut: boolean, unread = 0): Reading | null {
  const devices = list.flatMap((fields) => deviceOf(fields) ?? []);
  if (devices.length === 0) return null;
  const says = list.some((fields) => truth(fields.isboot) === true || truth(fields.issystem) === true);
  const repeated = devices.length - new Set(devices.map(({ device }) => device)).size;
  return {
    system: 'windows',
    devices,
    showsSystem: says,
    cut: cut || list.some((fields) => isClipped(fields.serialnumber ?? '')),
    ...(cut ? { cutDevice: devices.at(-1)?.device } : {}),
    unread: unread + repeated
  };
}

const key = (text: string): string => text.toLowerCase().replace(/[\s_-]/g, '');

function readJson(text: string): Reading | null {
  if (!/"(?:FriendlyName|SerialNumber|PartitionStyle|DeviceID|BusType)"/i.test(text)) return null;
  const json = readLooseJson(text);
  if (!json) return null;
  const list = asList(json.value).map((entry) =>
    Object.fromEntries(
      Object.entries(asRecord(entry)).flatMap(([name, value]) =>
        ['string', 'number', 'boolean'].includes(typeof value) ? [[key(name), String(value)]] : []
      )
    )
  );
  return toReading(list, json.cut);
}

/** Reads a list of properties: `Number : 1` or `Index=1`, a blank line between two disks. */
function readList(text: string): Reading | null {
  const list: Fields[] = [];
  let fields: Fields = {};
  const close = () => {
    if (Object.keys(fields).length > 0) list.push(fields);
    fields = {};
  };
  for (const line of text.split('\n')) {
    const pair = /^\s*([A-Za-z][A-Za-z ]{1,40}?)\s*(?:\s:|:|=)\s?(.*)$/.exec(line);
    if (!pair) {
      if (line.trim() === '' && numberOf(fields) !== null) close();
      continue;
    }
    const name = key(pair[1] ?? '');
    // A property that comes again begins the next disk.
    if (Object.hasOwn(fields, name)) close();
    fields[name] = (pair[2] ?? '').trim();
  }
  close();
  const disks = list.filter((entry) => numberOf(entry) !== null);
  const [first, last] = [disks[0], disks.at(-1)];
  const cut = first !== undefined && last !== undefined && Object.keys(last).length < Object.keys(first).length;
  return disks.some((entry) => entry.serialnumber !== undefined || entry.size !== undefined)
    ? toReading(disks, cut)
    : null;
}

function readCsv(lines: readonly string[]): Reading | null {
  const at = lines.findIndex(
    (line) => /^[\w ",;]+$/.test(line) && /[,;]/.test(line) && /serialnumber|deviceid|friendlyname/i.test(line)
  );
  if (at < 0) return null;
  const head = lines[at] ?? '';
  const mark = head.includes(';') ? ';' : ',';
  const parted = (line: string) => line.split(mark).map((cell) => cell.trim().replace(/^"(.*)"$/, '$1'));
  const titles = parted(head).map(key);
  const rows = lines
    .slice(at + 1)
    .filter((line) => line.trim() !== '')
    .map(parted);
  // A mark within a cell would move every cell behind it.
  if (rows.some((row) => row.length !== titles.length)) return null;
  return toReading(
    rows.map((row) => Object.fromEntries(titles.map((title, i) => [title, row[i] ?? '']))),
    false
  );
}

const FORMS: Record<string, CellForm> = {
  number: { test: /^\d{1,3}$/, blanks: false },
  index: { test: /^\d{1,3}$/, blanks: false },
  disknumber: { test: /^\d{1,3}$/, blanks: false },
  deviceid: { test: /^(?:\d{1,3}|\\\\[.?]\\PHYSICALDRIVE\d{1,3})$/i, blanks: false },
  size: { test: /^\d[\d.,]*(?: ?[KMGTP]?B)?$/, blanks: true },
  totalsize: { test: /^\d[\d.,]*(?: ?[KMGTP]?B)?$/, blanks: true },
  isboot: { test: /^(?:True|False)$/i, blanks: false },
  issystem: { test: /^(?:True|False)$/i, blanks: false },
  partitionstyle: { test: /^(?:RAW|MBR|GPT|[012])$/i, blanks: false },
  friendlyname: { blanks: true },
  model: { blanks: true },
  caption: { blanks: true },
  mediatype: { blanks: true }
};

/** Parts a table into cells, straight or nearly so; a column of numbers that holds none is no reading. */
function partCells(headings: readonly Heading[], rows: readonly string[]): string[][] | null {
  const forms = headings.map(({ title }) => FORMS[key(title)] ?? { blanks: false });
  const straight = straightCells(headings, rows);
  const sound = straight?.every((row) => row.every((cell, i) => cell === '' || forms[i]?.test?.test(cell) !== false));
  return straight && sound ? straight : crookedCells(headings, rows, forms);
}

/** Titles over a row of dashes; they may take two lines. */
function dashedHeadings(lines: readonly string[], at: number): Heading[] {
  const spans = headingsOf(lines[at] ?? '');
  const above = [lines[at - 2] ?? '', lines[at - 1] ?? ''].filter(
    (line) => line.trim() !== '' && !/^\S*[>$]\s/.test(line)
  );
  return spans.map(({ start, end }, i) => {
    const until = spans[i + 1]?.start ?? Infinity;
    const title = above.map((line) => line.slice(start, Math.max(end, Math.min(until, line.length))).trim()).join(' ');
    return { title: title.trim(), start, end };
  });
}

const rowsAfter = (lines: readonly string[], at: number): string[] => {
  const end = lines.findIndex((line, i) => i > at && (line.trim() === '' || /^(?:PS |DISKPART>|[A-Z]:\\)/.test(line)));
  return lines.slice(at + 1, end < 0 ? undefined : end);
};

/** Reads a table of a shell: titles, dashes, rows. */
function readDashed(lines: readonly string[]): Reading | null {
  const at = lines.findIndex((line) => /^\s*-{2,}(?:\s+-{2,})+\s*$/.test(line));
  if (at < 1) return null;
  const headings = dashedHeadings(lines, at);
  const rows = rowsAfter(lines, at);
  if (/#{3}|^N° /.test(headings[0]?.title ?? '')) return readPlain(rows);
  const cells = partCells(headings, rows);
  if (!cells) return null;
  const titles = headings.map(({ title }) => key(title));
  if (!titles.some((title) => ['number', 'deviceid', 'index', 'disknumber'].includes(title))) return null;
  const list = cells.map((row) => Object.fromEntries(titles.map((title, i) => [title, row[i] ?? ''])));
  if (list.some((fields) => numberOf(fields) === null)) return null;
  return toReading(list, lastIsShort(cells));
}

/** Whether the last row lacks a cell that every other has: it is cut. */
const lastIsShort = (cells: readonly (readonly string[])[]): boolean =>
  cells.length > 1 &&
  (cells.at(-1) ?? []).some((cell, i) => cell === '' && cells.slice(0, -1).every((row) => row[i] !== ''));

/** Reads the plain list of the partitioning tool, in any language: a number and a rounded size, nothing else. */
function readPlain(rows: readonly string[]): Reading | null {
  const list = rows.flatMap((row): Fields[] => {
    const [disk = '', , size] = row.replace('*', ' ').trim().split(/ {2,}/);
    const number = /^\p{L}+ (\d{1,3})$/u.exec(disk)?.[1];
    return number === undefined || size === undefined ? [] : [{ number, size }];
  });
  return toReading(list, false, rows.length - list.length);
}

/** Reads a table without dashes: titles of one word each, in the order of the alphabet. */
function readUndashed(lines: readonly string[]): Reading | null {
  const at = lines.findIndex(
    (line) =>
      /\b(?:Index|DeviceID|Number)\b/i.test(line) &&
      /\b(?:SerialNumber|Size|Model|Caption)\b/i.test(line) &&
      !/[:=,;]/.test(line)
  );
  if (at < 0) return null;
  const headings = headingsOf(lines[at] ?? '');
  const cells = partCells(headings, rowsAfter(lines, at));
  if (!cells) return null;
  const titles = headings.map(({ title }) => key(title));
  const list = cells.map((row) => Object.fromEntries(titles.map((title, i) => [title, row[i] ?? ''])));
  return list.some((fields) => numberOf(fields) === null) ? null : toReading(list, lastIsShort(cells));
}

const HINT =
  /\bGet-(?:Disk|PhysicalDisk|CimInstance)\b|\bFriendly ?Name\b|PHYSICALDRIVE|\bSerialNumber\b|###|DISKPART|^ *-{4,}(?: +-{2,}){3,}$/im;

/**
 * Reads what Windows lists of its disks: tables, lists and JSON of its shell, and the plain list of its partitioning tool.
 * @param text tidied
 * @returns null where it is none of them
 * @example readWindows('Number : 1\nFriendlyName : Chert\nSize : 2000398934016')?.devices[0]?.bytes // 2000398934016
 */
export function readWindows(text: string): Reading | null {
  if (!HINT.test(text)) return null;
  const json = readJson(text);
  if (json) return json;
  for (const lines of waysToUnwrap(text.split('\n'))) {
    const read = readDashed(lines) ?? readUndashed(lines) ?? readCsv(lines);
    if (read) return read;
  }
  return readList(text) ?? { system: 'windows', devices: [], showsSystem: false, cut: false, unread: 1 };
}
