import type { ListedSystem } from '../../core/listing/device';
import { seeded } from '../../core/quantities/random';

/** A disk of an invented computer. */
export type RandomDisk = {
  name: string;
  bytes: number;
  model: string;
  serial: string | null;
  usb: boolean;
  system: boolean;
  parts: { name: string; bytes: number; mount: string | null }[];
};
export type RandomListing = {
  system: ListedSystem;
  text: string;
  disks: RandomDisk[];
  /** Whole, with serials and with where the system runs. */
  plain: boolean;
  target: RandomDisk;
};

const SIZES = [250059350016, 500107862016, 1000204886016, 2000398934016, 4000787030016, 8001563222016];
const MODELS = ['Chert T4', 'Marl Q4', 'Loam S6', 'Silt M2S', 'Skarn T5', 'Gneiss H', 'Shale H', 'USB Disk'];
const LETTERS = '0123456789ABCDEFGHJKLMNPQRSTUVWXYZ';
const FILLERS = ['0123456789ABCDEF', '000000000000', '123456789012', 'FFFFFFFF', '1', 'DEVICE', 'A1A1A1A1'];

const iec = (bytes: number, comma: boolean): string => {
  const units = ['B', 'K', 'M', 'G', 'T'];
  let value = bytes;
  let at = 0;
  while (value >= 1024 && at < 4) {
    value /= 1024;
    at += 1;
  }
  const text = value >= 100 || Number.isInteger(value) ? value.toFixed(value >= 100 ? 1 : 0) : value.toFixed(1);
  return `${comma ? text.replace('.', ',') : text}${units[at]}`;
};

/** Writes a table as tools do: each column as wide as its widest cell. */
const table = (titles: readonly string[], rows: readonly (readonly string[])[], right: readonly string[]): string => {
  const width = titles.map((title, i) => Math.max(title.length, ...rows.map((row) => (row[i] ?? '').length)));
  const line = (row: readonly string[]) =>
    row
      .map((cell, i) => (right.includes(titles[i] ?? '') ? cell.padStart(width[i] ?? 0) : cell.padEnd(width[i] ?? 0)))
      .join(' ')
      .trimEnd();
  return [titles, ...rows].map(line).join('\n');
};

/** Makes one listing of an invented computer from a seed: every system, every form, and in part damaged. */
export function randomListing(seed: number): RandomListing {
  const random = seeded(seed);
  const some = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const chance = (share: number) => random() < share;
  const serialOf = () => Array.from({ length: 8 + Math.floor(random() * 8) }, () => some([...LETTERS])).join('');
  const system = some(['linux', 'macos', 'windows'] as const);
  const plain = chance(0.5);
  const count = 2 + Math.floor(random() * 4);
  const systemAt = Math.floor(random() * count);
  const disks: RandomDisk[] = Array.from({ length: count }, (_, i) => {
    const usb = i === systemAt ? !plain && chance(0.2) : chance(0.8);
    const nvme = system === 'linux' && !usb && chance(0.5);
    const name =
      system === 'windows'
        ? `Disk ${i}`
        : system === 'macos'
          ? `disk${i * 2}`
          : nvme
            ? `nvme${i}n1`
            : `sd${'abcdefgh'[i]}`;
    const bytes = some(SIZES);
    const partName = (n: number) => (system === 'macos' ? `${name}s${n}` : `${name}${nvme ? 'p' : ''}${n}`);
    const parts =
      i === systemAt
        ? [
            { name: partName(1), bytes: 536870912, mount: system === 'linux' ? '/boot/efi' : null },
            { name: partName(2), bytes: bytes - 600000000, mount: '/' }
          ]
        : chance(0.3)
          ? []
          : [
              {
                name: partName(1),
                bytes: bytes - 1048576,
                mount: chance(0.3) ? some(['/media/desk/OLD', '/mnt/x', '/run/media/desk/A B']) : null
              }
            ];
    const model = `${some(MODELS)} ${bytes / 1e12 >= 1 ? `${Math.round(bytes / 1e12)}TB` : `${Math.round(bytes / 1e9)}GB`}`;
    return { name, bytes, model, serial: serialOf(), usb, system: i === systemAt, parts };
  });
  if (!plain) spoil(disks, some, chance);
  const target = some(disks.filter((disk) => !disk.system));
  let text = { linux: linuxText, macos: macosText, windows: windowsText }[system](disks, some, chance, plain);
  if (!plain && chance(0.15)) text = text.slice(0, Math.floor(text.length * (0.4 + 0.6 * random())));
  if (!plain && chance(0.1)) text = `\u001b[32m$\u001b[0m list\r\n${text.replaceAll('\n', '\r\n')}`;
  if (!plain && chance(0.07)) text = text.replace(/ {2,}/g, ' ');
  if (!plain && chance(0.07))
    text = text
      .split('\n')
      .flatMap((line) => line.match(/.{1,72}/gu) ?? [''])
      .join('\n');
  return { system, text, disks, plain, target };
}

/** Makes disks look alike, takes serials away, or gives them such as say nothing. */
function spoil(disks: RandomDisk[], some: <T>(list: readonly T[]) => T, chance: (share: number) => boolean): void {
  for (const disk of disks) {
    const how = some(['none', 'none', 'filler', 'filler', 'same', 'end', 'shell', 'own', 'own', 'own']);
    if (how === 'none') disk.serial = null;
    else if (how === 'filler') disk.serial = some(FILLERS);
    else if (how === 'same') disk.serial = some(disks).serial;
    else if (how === 'end') disk.serial = `${disk.serial?.slice(0, 3)}${(some(disks).serial ?? 'X').slice(-5)}`;
    else if (how === 'shell') disk.serial = `${disk.serial}';$(id)\``;
    if (chance(0.3)) disk.bytes = some(disks).bytes;
  }
}

type Some = <T>(list: readonly T[]) => T;
type Chance = (share: number) => boolean;

function linuxText(disks: RandomDisk[], some: Some, chance: Chance, plain: boolean): string {
  const exact = plain || chance(0.6);
  const places = plain || chance(0.8);
  const comma = !plain && chance(0.3);
  const size = (bytes: number) => (exact ? String(bytes) : iec(bytes, comma));
  if (chance(0.25)) {
    const node = (disk: RandomDisk) => ({
      name: disk.name,
      size: exact ? disk.bytes : size(disk.bytes),
      type: 'disk',
      tran: disk.usb ? 'usb' : 'sata',
      model: disk.model,
      serial: disk.serial,
      ...(places ? { mountpoints: [null] } : {}),
      ...(disk.parts.length > 0
        ? {
            children: disk.parts.map((part) => ({
              name: part.name,
              size: part.bytes,
              type: 'part',
              ...(places ? { mountpoints: [part.mount] } : {})
            }))
          }
        : {})
    });
    return JSON.stringify({ blockdevices: disks.map(node) }, null, chance(0.5) ? 3 : 0);
  }
  if (chance(0.2)) {
    const line = (fields: Record<string, string>) =>
      Object.entries(fields)
        .map(([key, value]) => `${key}="${value.replace(/["$`\\]/g, (c) => `\\x${c.charCodeAt(0).toString(16)}`)}"`)
        .join(' ');
    return disks
      .flatMap((disk) => [
        line({
          NAME: disk.name,
          SIZE: size(disk.bytes),
          TYPE: 'disk',
          TRAN: disk.usb ? 'usb' : 'sata',
          MODEL: disk.model,
          SERIAL: disk.serial ?? '',
          ...(places ? { MOUNTPOINTS: '' } : {}),
          PKNAME: ''
        }),
        ...disk.parts.map((part) =>
          line({
            NAME: part.name,
            SIZE: size(part.bytes),
            TYPE: 'part',
            TRAN: '',
            MODEL: '',
            SERIAL: '',
            ...(places ? { MOUNTPOINTS: part.mount ?? '' } : {}),
            PKNAME: disk.name
          })
        )
      ])
      .join('\n');
  }
  const columns = [
    'NAME',
    ...['MAJ:MIN', 'RM', 'SIZE', 'TYPE', 'TRAN', 'MODEL', 'SERIAL'].sort(() => (chance(0.5) ? 1 : -1)),
    ...(places ? [some(['MOUNTPOINTS', 'MOUNTPOINT'])] : [])
  ];
  const ascii = !plain && chance(0.3);
  const rows = disks.flatMap((disk, d) => [
    columns.map(
      (column) =>
        ({
          NAME: disk.name,
          'MAJ:MIN': `8:${d * 16}`,
          RM: '0',
          SIZE: size(disk.bytes),
          TYPE: 'disk',
          TRAN: disk.usb ? 'usb' : 'sata',
          MODEL: disk.model,
          SERIAL: disk.serial ?? ''
        })[column] ?? ''
    ),
    ...disk.parts.map((part, p) => {
      const last = p === disk.parts.length - 1;
      const branch = ascii ? (last ? '`-' : '|-') : last ? '└─' : '├─';
      return columns.map(
        (column) =>
          ({
            NAME: `${branch}${part.name}`,
            'MAJ:MIN': `8:${d * 16 + p + 1}`,
            RM: '0',
            SIZE: size(part.bytes),
            TYPE: 'part',
            MOUNTPOINTS: part.mount ?? '',
            MOUNTPOINT: part.mount ?? ''
          })[column] ?? ''
      );
    })
  ]);
  return table(columns, rows, ['SIZE', 'RM']);
}

function macosText(disks: RandomDisk[], _some: Some, chance: Chance, plain: boolean): string {
  const root = disks.find((disk) => disk.system);
  const list = disks
    .map(
      (disk) => `/dev/${disk.name} (${disk.usb ? 'external' : 'internal'}, physical):
   #:                       TYPE NAME                    SIZE       IDENTIFIER
   0:      GUID_partition_scheme                        *${(disk.bytes / 1e12).toFixed(1)} TB     ${disk.name}
${disk.parts.map((part, i) => `   ${i + 1}:                 Apple_APFS Container disk${90 + i}        ${(part.bytes / 1e9).toFixed(1)} GB   ${part.name}`).join('\n')}
`
    )
    .join('\n');
  const where = `   Device Identifier:         disk91s1\n   Part of Whole:             disk91\n   Whole:                     No\n   Mount Point:               /\n   APFS Physical Store:       ${root?.name}s2\n`;
  const buses = `USB:\n\n${disks
    .filter((disk) => disk.usb)
    .map(
      (disk) => `    Trivet 40:

      Product ID: 0x0500
${disk.serial === null ? '' : `      Serial Number: ${disk.serial}\n`}      Media:
        ${disk.model}:
          Capacity: ${(disk.bytes / 1e12).toFixed(1)} TB (${disk.bytes.toLocaleString('en-US')} bytes)
          BSD Name: ${disk.name}
`
    )
    .join('\n')}
NVMExpress:

    Controller:

${disks
  .filter((disk) => !disk.usb)
  .map(
    (disk) => `        ${disk.model}:

          Capacity: ${(disk.bytes / 1e12).toFixed(1)} TB (${disk.bytes.toLocaleString('en-US')} bytes)
          Model: ${disk.model}
${disk.serial === null ? '' : `          Serial Number: ${disk.serial}\n`}          BSD Name: ${disk.name}
`
  )
  .join('\n')}`;
  return [plain || chance(0.8) ? list : '', plain || chance(0.6) ? where : '', plain || chance(0.8) ? buses : ''].join(
    '\n'
  );
}

function windowsText(disks: RandomDisk[], _some: Some, chance: Chance, plain: boolean): string {
  const says = plain || chance(0.6);
  const fields = (disk: RandomDisk) => ({
    Number: Number(disk.name.slice(5)),
    FriendlyName: disk.model,
    SerialNumber: disk.serial,
    Size: disk.bytes,
    BusType: disk.usb ? 'USB' : 'NVMe',
    PartitionStyle: disk.parts.length > 0 ? 'GPT' : 'RAW',
    ...(says ? { IsBoot: disk.system, IsSystem: disk.system } : {})
  });
  if (chance(0.35)) return JSON.stringify(disks.map(fields), null, 2);
  if (chance(0.4))
    return disks
      .map((disk) =>
        Object.entries(fields(disk))
          .map(([key, value]) => `${key.padEnd(18)} : ${String(value ?? '')}`)
          .join('\n')
      )
      .join('\n\n');
  const titles = Object.keys(fields(disks[0] as RandomDisk));
  const cell = (value: unknown) => (typeof value === 'boolean' ? (value ? 'True' : 'False') : String(value ?? ''));
  const rows = disks.map((disk) => Object.values(fields(disk)).map(cell));
  const lines = table(titles, [titles.map((title) => '-'.repeat(title.length)), ...rows], ['Number', 'Size']).split(
    '\n'
  );
  return lines.join('\n');
}
