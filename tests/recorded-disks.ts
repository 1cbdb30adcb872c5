import { existsSync, mkdirSync, mkdtempSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, relative } from 'node:path';

/** A disk of a recorded system: where it hangs, and what its files say. */
export type RecordedDisk = {
  name: string;
  number: string;
  sectors: number;
  /** Folders above it, from the bus to the device; the nearest last. */
  chain: readonly { folder: string; files?: Record<string, string>; driver?: string }[];
  model?: string;
  serial?: string;
  transport?: string;
  removable?: boolean;
  trim?: boolean;
  partitions?: readonly { name: string; number: string; sectors: number; filesystem?: string }[];
  /** Left out of it: what a disk lacks that goes away while it is read. */
  without?: readonly string[];
};

function put(path: string, text: string): void {
  mkdirSync(dirname(path), { recursive: true });
  writeFileSync(path, `${text}\n`);
}

const link = (at: string, to: string): void => {
  mkdirSync(dirname(at), { recursive: true });
  if (!existsSync(at)) symlinkSync(relative(dirname(at), to), at);
};

/**
 * Makes the tree of a system of our own making, in the form in which `lsblk --sysroot` reads one: files of the kernel, and a text in
 * the place of each device.
 * @returns the folder
 */
export function recordedSystem(disks: readonly RecordedDisk[]): string {
  const root = mkdtempSync(join(tmpdir(), 'ash-crate-recorded-'));
  mkdirSync(join(root, 'sys/block'), { recursive: true });
  mkdirSync(join(root, 'sys/dev/block'), { recursive: true });
  mkdirSync(join(root, 'proc/self'), { recursive: true });
  writeFileSync(join(root, 'proc/self/mountinfo'), '');
  writeFileSync(join(root, 'proc/swaps'), '');
  for (const disk of disks) {
    let at = join(root, 'sys/devices');
    for (const { folder, files = {}, driver } of disk.chain) {
      at = join(at, folder);
      mkdirSync(at, { recursive: true });
      for (const [name, text] of Object.entries(files)) put(join(at, name), text);
      if (driver) {
        const to = join(root, 'sys/bus/any/drivers', driver);
        mkdirSync(to, { recursive: true });
        link(join(at, 'driver'), to);
      }
    }
    const own = join(at, 'block', disk.name);
    const files: Record<string, string> = {
      dev: disk.number,
      size: String(disk.sectors),
      ro: '0',
      removable: disk.removable ? '1' : '0',
      'queue/logical_block_size': '512',
      'queue/physical_block_size': '512',
      'queue/discard_max_bytes': disk.trim ? '4294966784' : '0',
      'queue/discard_granularity': disk.trim ? '512' : '0',
      'queue/rotational': '0'
    };
    for (const [name, text] of Object.entries(files)) if (!disk.without?.includes(name)) put(join(own, name), text);
    if (disk.model) put(join(at, 'model'), disk.model);
    link(join(own, 'device'), at);
    link(join(root, 'sys/block', disk.name), own);
    link(join(root, 'sys/dev/block', disk.number), own);
    put(
      join(root, 'dev', disk.name),
      [
        disk.model && `ID_MODEL=${disk.model}`,
        disk.serial && `ID_SERIAL_SHORT=${disk.serial}`,
        disk.transport && `ID_BUS=${disk.transport}`
      ]
        .filter(Boolean)
        .join('\n')
    );
    for (const [i, { name, number, sectors, filesystem }] of (disk.partitions ?? []).entries()) {
      const part = join(own, name);
      put(join(part, 'dev'), number);
      put(join(part, 'size'), String(sectors));
      put(join(part, 'partition'), String(i + 1));
      put(join(part, 'start'), '2048');
      put(join(part, 'ro'), '0');
      link(join(root, 'sys/dev/block', number), part);
      put(join(root, 'dev', name), filesystem ? `ID_FS_TYPE=${filesystem}` : '');
    }
  }
  return root;
}
