import type { FilesystemId } from '../facts/filesystems.ts';
import type { ListedSystem } from '../listing/device.ts';
import { MAKES } from './makers.ts';

/** What stands in the place of a device until it is known which one: every command fails on it. */
export const PLACEHOLDER = 'DEVICE';

/** Quotes a text for a shell, so that the shell takes it as it is. */
export type ShellQuote = (text: string) => string;

/** By what a device is known, as its own system says it. */
export type Proof = { serial: string } | { bytes: number };

export type EraseOrder = {
  system: ListedSystem;
  /** As the listing calls it: `/dev/sdb`, `/dev/disk4`, `Disk 2`; or the placeholder. */
  device: string;
  proof: Proof | null;
  filesystem: FilesystemId;
  scheme: 'gpt' | 'mbr';
  name: string;
  /** Allocation unit, bytes; none where the system chooses. */
  unitBytes?: number | undefined;
  variant?: 'case-sensitive' | undefined;
  /** Written over once, where the tool of the system does that. */
  full?: boolean | undefined;
};

const STOP = 'This is not the device that was meant: nothing was done.';

/** The first partition of a device of Linux: a number behind a name that ends in one is parted by a p. */
const partitionOf = (device: string): string => `${device}${/\d$/.test(device) ? 'p' : ''}1`;

/** Asks the device itself: its serial without blanks, or its bytes; and that nothing runs from it. */
function linuxGuard(device: string, proof: Proof | null, quote: ShellQuote): string {
  const shown = (column: string, more: string) => `"$(lsblk -dn${more}o ${column} ${device} | tr -d '[:space:]')"`;
  const test =
    proof === null
      ? `[ ${shown('SERIAL', '')} = ${quote(`SERIAL-OF-${PLACEHOLDER}`)} ]`
      : 'serial' in proof
        ? `[ ${shown('SERIAL', '')} = ${quote(proof.serial.replace(/\s/g, ''))} ]`
        : `[ ${shown('SIZE', 'b')} = ${quote(String(proof.bytes))} ]`;
  return `${test} && ! lsblk -lno MOUNTPOINTS ${device} | grep -qxE '/|/boot|/boot/efi|\\[SWAP\\]'`;
}

const LINUX_TYPE: Partial<Record<FilesystemId, string>> = {
  exfat: 'ntfs',
  ntfs: 'ntfs',
  fat32: 'fat32',
  ext4: 'ext4',
  xfs: 'xfs',
  btrfs: 'btrfs'
};

/** What the maker of FAT counts its units in, bytes. */
const SECTOR = 512;

function linuxMake({ filesystem, unitBytes, full }: EraseOrder, name: string, partition: string): string {
  const tool = MAKES.linux[filesystem]?.tool ?? 'false';
  const make: Partial<Record<FilesystemId, string>> = {
    ext4: `${tool} -L ${name} ${partition}`,
    exfat: `${tool}${unitBytes ? ` -c ${unitBytes / 1024}K` : ''} -L ${name} ${partition}`,
    fat32: `${tool} -F 32${unitBytes ? ` -s ${unitBytes / SECTOR}` : ''} -n ${name} ${partition}`,
    ntfs: `${tool}${full ? '' : ' --quick'}${unitBytes ? ` -c ${unitBytes}` : ''} -L ${name} ${partition}`
  };
  return make[filesystem] ?? `${tool} -L ${name} ${partition}`;
}

function linuxCommands(order: EraseOrder, quote: ShellQuote): string[] {
  const { device, proof, filesystem, scheme, name } = order;
  const partition = partitionOf(device);
  const said = quote(name);
  const table =
    scheme === 'gpt'
      ? `mklabel gpt mkpart ${said} ${LINUX_TYPE[filesystem]} 1MiB 100%`
      : `mklabel msdos mkpart primary ${LINUX_TYPE[filesystem]} 1MiB 100%`;
  const steps = [
    `{ sudo umount ${device}?* 2>/dev/null; sudo wipefs --all ${device}; }`,
    `sudo parted --script --align optimal ${device} ${table}`,
    `sudo ${linuxMake(order, said, partition)}`
  ];
  const guard = linuxGuard(device, proof, quote);
  return steps.map((step) => `if ${guard}; then ${step}; else echo ${quote(STOP)} >&2; fi`);
}

/** Asks the report about the buses for the serial above this device, or the device for its bytes. */
function macGuard(disk: string, proof: Proof | null, quote: ShellQuote): string {
  const running = `! diskutil info / | grep -qE ${quote(`(Physical Store|Part of Whole): *${disk}(s|$)`)}`;
  if (proof !== null && 'bytes' in proof)
    return `[ "$(diskutil info ${disk} | awk -F'[()]' '/Disk Size:/{print $2; exit}')" = ${quote(`${proof.bytes} Bytes`)} ] && ${running}`;
  const serial = proof === null ? `SERIAL-OF-${PLACEHOLDER}` : proof.serial;
  // What stands further left begins another thing: the serial of the one before is forgotten.
  const program =
    '{ match($0, /^ */); i = RLENGTH } /Serial Number: /{ s = $0; sub(/^ *Serial Number: */, "", s); si = i; next } /:$/ && i < si { s = ""; si = 0 } $0 ~ "BSD Name: " d "$" { print s; exit }';
  const buses = 'SPUSBDataType SPThunderboltDataType SPNVMeDataType SPSerialATADataType';
  return `[ "$(LANG=C system_profiler ${buses} | awk -v d=${disk} '${program}')" = ${quote(serial)} ] && ${running}`;
}

function macCommands({ device, proof, filesystem, scheme, name, variant }: EraseOrder, quote: ShellQuote): string[] {
  const disk = device.replace('/dev/', '');
  // A letter X behind the name of its own two asks for the case-sensitive variant; FAT takes capitals only.
  const plain = MAKES.macos[filesystem]?.tool ?? '';
  const tool = variant === 'case-sensitive' ? `${plain.replace('+', '')}X` : plain;
  const said = filesystem === 'fat32' ? name.toUpperCase() : name;
  const guard = macGuard(disk, proof, quote);
  const steps = [
    `diskutil unmountDisk ${disk}`,
    `diskutil eraseDisk ${tool} ${quote(said)} ${scheme.toUpperCase()} ${disk}`
  ];
  return steps.map((step) => `if ${guard}; then ${step}; else echo ${quote(STOP)} >&2; fi`);
}

/** What its shell takes within single quotes as it is, everywhere. */
const PLAIN_IN_WINDOWS = /^[A-Za-z0-9_.:+ /-]*$/;

/**
 * Tells whether a serial can be asked for in a command of this system: what its quoting would have to change is left out there.
 * @example canAsk('windows', { serial: "a'b" }) // false
 */
export const canAsk = (system: ListedSystem, proof: Proof): boolean =>
  !('serial' in proof) ||
  (system === 'windows' ? PLAIN_IN_WINDOWS.test(proof.serial) : /^[\x20-\x7e]+$/.test(proof.serial));

function windowsCommands({ device, proof, filesystem, scheme, name, unitBytes, full }: EraseOrder): string[] {
  const number = device.replace('Disk ', '');
  const test =
    proof === null
      ? `$d.SerialNumber -eq 'SERIAL-OF-${PLACEHOLDER}'`
      : 'serial' in proof
        ? `($d.SerialNumber -replace '[\\s.]+$','' -replace '^\\s+','') -eq '${proof.serial.trim()}'`
        : `$d.Size -eq ${proof.bytes}`;
  const guard = `$d = Get-Disk -Number ${number} -ErrorAction Stop; if (${test} -and -not $d.IsBoot -and -not $d.IsSystem)`;
  const tool = MAKES.windows[filesystem]?.tool ?? '';
  const steps = [
    `if ($d.PartitionStyle -ne 'RAW') { $d | Clear-Disk -RemoveData -RemoveOEM -Confirm:$false }`,
    `$d | Initialize-Disk -PartitionStyle ${scheme.toUpperCase()} -ErrorAction SilentlyContinue; if ((Get-Disk -Number ${number}).PartitionStyle -ne '${scheme.toUpperCase()}') { $d | Set-Disk -PartitionStyle ${scheme.toUpperCase()} }`,
    `$d | New-Partition -UseMaximumSize -AssignDriveLetter | Format-Volume -FileSystem ${tool} -NewFileSystemLabel '${name}'${unitBytes ? ` -AllocationUnitSize ${unitBytes}` : ''}${full ? ' -Full' : ''}`
  ];
  return steps.map((step) => `${guard} { ${step} } else { Write-Error '${STOP}' }`);
}

/**
 * Writes the commands that erase a device and make it anew. Each asks the device for its serial or its bytes first, and whether a system
 * runs from it, and does nothing where the answer is another one: names move between listing and pasting.
 * @param quote for the shell of macOS and Linux
 * @example eraseCommands({ system: 'linux', device: '/dev/DEVICE', proof: null, filesystem: 'ext4', scheme: 'gpt', name: 'A' }, (t) => `'${t}'`).length // 3
 */
export function eraseCommands(order: EraseOrder, quote: ShellQuote): string[] {
  switch (order.system) {
    case 'linux':
      return linuxCommands(order, quote);
    case 'macos':
      return macCommands(order, quote);
    case 'windows':
      return windowsCommands(order);
  }
}
