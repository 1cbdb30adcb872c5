import { isSystemMount, type Reading } from './device.ts';
import { addMount, draftOf, setSize, wholeDisk, type MacDraft, type MacDrafts } from './mac-draft.ts';
import { readProfiler } from './profiler.ts';
import { cellText } from './text.ts';

/** What only stands in a container that a system starts from. */
const SYSTEM_VOLUME = /APFS Snapshot com\.apple\.os\.update|APFS Volume (?:Preboot|Recovery|VM|Update)\b/;

/** What is known while a list is read: which containers hold a system, and on which disks they lie. */
type Containers = { systems: Set<string>; stores: Map<string, Set<string>> };

/** One line of a disk that is made of others: whether a system is in it, and where it lies. */
function readContainerLine(line: string, disk: string, { systems, stores }: Containers): void {
  if (SYSTEM_VOLUME.test(line)) systems.add(disk);
  const store = /Physical Store (disk\d+)/.exec(line)?.[1];
  if (store) stores.set(disk, (stores.get(disk) ?? new Set()).add(store));
}

/** One line of a real disk: its size in the line numbered 0, and what is on it in the others. */
function readDiskLine(line: string, disk: string, drafts: MacDrafts, { stores }: Containers): void {
  const words = line.trim().split(' ');
  const [number = '', id = ''] = [words[0], words.at(-1)];
  if (!/^\d+:$/.test(number) || wholeDisk(id) !== disk) return;
  const draft = draftOf(drafts, disk);
  if (number === '0:') setSize(draft, words.slice(-3, -1).join(' '));
  else draft.partitioned = true;
  if (/partition_scheme|partition_map/.test(line)) draft.partitioned = true;
  const container = /Container (disk\d+)/.exec(line)?.[1];
  if (container) stores.set(container, (stores.get(container) ?? new Set()).add(disk));
}

/** Reads `diskutil list`: devices with their kind of place, their rounded size, and where a container lies. */
// eslint-disable-next-line complexity -- one line for each thing that such a listing can hold
function readDiskutilList(text: string, drafts: MacDrafts): boolean {
  const containers: Containers = { systems: new Set(), stores: new Map() };
  let disk: string | null = null;
  let made = false;
  for (const raw of text.split('\n')) {
    const line = raw.replace(/ {2,}/g, ' ').trim();
    const head = /^\/dev\/(disk\d+) \(([^)]{1,60})\):/.exec(line);
    if (head) {
      const kinds = (head[2] ?? '').split(', ');
      disk = head[1] ?? null;
      made = ['synthesized', 'disk image', 'virtual'].some((kind) => kinds.includes(kind));
      if (disk && !made && kinds.includes('external')) draftOf(drafts, disk).external = true;
      if (disk && !made && kinds.includes('internal')) draftOf(drafts, disk).external = false;
    } else if (disk && made) readContainerLine(line, disk, containers);
    else if (disk) readDiskLine(line, disk, drafts, containers);
  }
  for (const container of containers.systems)
    for (const store of containers.stores.get(container) ?? [])
      if (drafts.has(`/dev/${store}`)) draftOf(drafts, store).systemHint = true;
  return disk !== null;
}

/** Words and their values on lines of their own, one device or volume after the other. */
function recordsOf(text: string): Record<string, string>[] {
  const records: Record<string, string>[] = [];
  for (const line of text.split('\n')) {
    const colon = line.indexOf(':');
    if (colon < 0) continue;
    const word = line.slice(0, colon).trim();
    if (word === 'Device Identifier') records.push({});
    const record = records.at(-1);
    if (record && !Object.hasOwn(record, word)) record[word] = line.slice(colon + 1).trim();
  }
  return records;
}

function placeOf(values: Record<string, string>): boolean | undefined {
  const place = `${values['Device Location'] ?? ''} ${values.Internal === 'No' ? 'External' : values.Internal === 'Yes' ? 'Internal' : ''}`;
  return place.includes('External') ? true : place.includes('Internal') ? false : undefined;
}

/** Notes what a record says of the device itself. */
function describe(draft: MacDraft, values: Record<string, string>): void {
  setSize(draft, values['Disk Size'] ?? values['Total Size'] ?? '');
  const model = cellText(values['Device / Media Name']);
  const protocol = cellText(values.Protocol);
  const external = placeOf(values);
  if (model !== undefined) draft.model ??= model;
  if (protocol !== undefined) draft.bus ??= protocol.toLowerCase();
  if (external !== undefined) draft.external = external;
}

/** Reads `diskutil info`. @returns the disk on which the root lies, where a record says so */
// eslint-disable-next-line complexity -- one line for each thing that such a listing can hold
function readDiskutilInfo(text: string, drafts: MacDrafts): { found: boolean; root: string | null } {
  const records = recordsOf(text);
  let root: string | null = null;
  for (const values of records) {
    const disk = wholeDisk(values['Part of Whole'] ?? values['Device Identifier'] ?? '');
    if (!disk) continue;
    const store = wholeDisk(values['APFS Physical Store'] ?? values['Physical Store'] ?? '');
    const mount = cellText(values['Mount Point']);
    if (mount === '/') root = store ?? disk;
    if (values.Virtual === 'Yes' && !store) continue;
    const draft = draftOf(drafts, store ?? disk);
    addMount(draft, mount);
    if (store || values.Whole !== 'Yes') draft.partitioned = true;
    else describe(draft, values);
  }
  return { found: records.length > 0, root };
}

/**
 * Reads what macOS lists: `diskutil list`, `diskutil info`, and its report about the buses, in words or as JSON; several of them in
 * one text are put together by the names of the devices.
 * @param text tidied
 * @returns null where it is none of them
 * @example readMacos('/dev/disk4 (external, physical):\n   0:  GUID_partition_scheme  *2.0 TB  disk4')?.devices[0]?.external // true
 */
// eslint-disable-next-line complexity -- one line for each thing that such a listing can hold
export function readMacos(text: string): Reading | null {
  const drafts: MacDrafts = new Map();
  const list = readDiskutilList(text, drafts);
  const info = readDiskutilInfo(text, drafts);
  const report = readProfiler(text, drafts);
  if (!list && !info.found && !report.found && report.unread === 0) return null;
  const devices = [...drafts.values()];
  const root = info.root ?? devices.find(({ mounts }) => mounts.includes('/'))?.device.slice('/dev/'.length) ?? null;
  for (const draft of devices)
    draft.systemDisk =
      draft.device === `/dev/${root}` ||
      draft.mounts.some((mount) => isSystemMount('macos', mount)) ||
      // Where it is not said which system runs, each that could is taken for it.
      (root === null && draft.systemHint === true);
  return {
    system: 'macos',
    devices: devices.map(({ systemHint: _hint, ...device }) => device),
    showsSystem: root !== null && drafts.has(`/dev/${root}`),
    cut: report.cut,
    ...(report.cut ? { cutDevice: devices.at(-1)?.device } : {}),
    unread: report.unread
  };
}
