import type { ListedDevice, Reading } from './device.ts';
import { cellText, sizeOf } from './text.ts';

const DISK_LINE =
  /^ *[\p{L}'][\p{L}' ]{1,24} (\/dev\/[\w/-]+) ?: *([\d.,]+ ?[KMGTPКМГТП]i?[BБ]) *, *(\d{4,20}) \p{L}+/u;
const PARTED_LINE = /^ *\p{L}[\p{L} ]{1,24} (\/dev\/[\w/-]+) ?: *([\d.,]+ ?[kKMGTP]?i?B) *$/u;
const MODEL_WORD =
  /^(?:Disk model|Festplattenmodell|Modèle de disque|Modelo de disco|Modello del disco|Schijfmodel|Model dysku|Модель диска|Model)$/i;
const TABLE_WORD =
  /^(?:Disklabel type|Festplattenbezeichnungstyp|Type d'étiquette de disque|Tipo de etiqueta de disco|Tipo di etichetta disco|Schijflabeltype|Partition Table)$/i;

/** Devices that are no drive. */
const NO_DRIVE = /^\/dev\/(?:loop|ram|zram|mapper|dm-|md)/;

/** What a line says of a new device, in the manner of either tool. */
// eslint-disable-next-line complexity -- one line for each thing that such a listing can hold
function deviceOn(line: string): ListedDevice | null {
  const disk = DISK_LINE.exec(line);
  const found = disk ?? PARTED_LINE.exec(line);
  const device = found?.[1];
  if (device === undefined) return null;
  const exact = disk ? Number(disk[3]) : undefined;
  const size = sizeOf(found?.[2] ?? '', false);
  return {
    device,
    bytes: exact ?? size?.bytes ?? null,
    approxGB: exact === undefined ? (size?.gb ?? null) : exact / 1e9,
    mounts: [],
    systemDisk: false
  };
}

/** A word and its value, where a line has a colon. */
function pairOn(line: string): [word: string, value: string] {
  const colon = line.indexOf(':');
  return colon < 0 ? ['', ''] : [line.slice(0, colon).trim(), line.slice(colon + 1).trim()];
}

/** Notes what a line says of the device above it. */
function noteOn(line: string, last: ListedDevice): void {
  const [word, value] = pairOn(line);
  if (MODEL_WORD.test(word) && word.toLowerCase() !== 'model') {
    const model = cellText(value);
    if (model !== undefined) last.model = model;
  } else if (TABLE_WORD.test(word) && value.split(' ')[0] !== 'unknown') last.partitioned = true;
  else if (line.startsWith(last.device) && /^p?\d/.test(line.slice(last.device.length))) last.partitioned = true;
}

/**
 * Reads what `fdisk -l` or `parted -l` lists, in any language: devices with their exact or rounded size, no serial and no mount.
 * @param text tidied
 * @returns null where it is no such listing
 * @example readPartitionTables('Disk /dev/sda: 1.82 TiB, 2000398934016 bytes, 3907029168 sectors')?.devices[0]?.bytes // 2000398934016
 */
export function readPartitionTables(text: string): Reading | null {
  const devices: ListedDevice[] = [];
  let model: string | undefined;
  for (const line of text.split('\n')) {
    const found = deviceOn(line);
    const last = devices.at(-1);
    const [word, value] = pairOn(line);
    if (found) {
      // The last one before this is whole now: what it has not shown it has not.
      if (last) last.partitioned ??= false;
      devices.push(model === undefined ? found : { ...found, model });
      model = undefined;
    } else if (/^ *Model$/i.test(word)) model = cellText(value.split(' (')[0]);
    else if (last) noteOn(line, last);
  }
  const drives = devices.filter(({ device }) => !NO_DRIVE.test(device));
  return drives.length === 0 ? null : { system: 'linux', devices: drives, showsSystem: false, cut: false, unread: 0 };
}
