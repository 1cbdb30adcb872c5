import { execFile } from 'node:child_process';
import { readFile, realpath } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { promisify } from 'node:util';
import type { AttachedDisk, AttachedReport } from '#core/format/attached';
import { readListing } from '#core/listing/read';
import { watchByLooking, type DiskSource } from './source';

const run = promisify(execFile);

const BASE = ['NAME', 'KNAME', 'SIZE', 'TYPE', 'TRAN', 'RM', 'HOTPLUG', 'MODEL', 'SERIAL', 'FSTYPE', 'PTTYPE'];
/** Older tools know one place for each volume only. */
const COLUMNS = [
  [...BASE, 'MOUNTPOINTS', 'LOG-SEC', 'DISC-MAX'],
  [...BASE, 'MOUNTPOINT', 'LOG-SEC', 'DISC-MAX'],
  ['NAME', 'SIZE', 'TYPE', 'MOUNTPOINT']
];

const LOOK_MS = 2000;
const LIMIT = { timeout: 5000, maxBuffer: 4_000_000 };

type Listed = { text: string; note?: string };

/** Asks the tool of the system; an older one is asked for less. Nothing is run through a shell, and nothing of it needs rights. */
async function listBlockDevices(root: string): Promise<Listed> {
  const sysroot = root === '/' ? [] : ['--sysroot', root];
  let why = '';
  for (const columns of COLUMNS) {
    try {
      const { stdout } = await run('lsblk', ['--json', '--bytes', ...sysroot, '--output', columns.join(',')], {
        ...LIMIT,
        env: { PATH: process.env.PATH ?? '/usr/bin:/bin', LC_ALL: 'C' }
      });
      return { text: stdout };
    } catch (error) {
      const failed = error as NodeJS.ErrnoException & { stdout?: string };
      if (failed.code === 'ENOENT') return { text: '', note: 'This machine has no tool that lists its disks (lsblk).' };
      // What vanished while it was read makes the tool fail with all the rest in its answer.
      if (failed.stdout?.includes('"blockdevices"')) return { text: failed.stdout };
      why = 'The disks of this machine cannot be listed here: no permission, or nothing to list.';
    }
  }
  return { text: '', note: why };
}

const told = async (path: string): Promise<string | undefined> => {
  try {
    return (await readFile(path, 'utf8')).trim();
  } catch {
    // A disk may vanish, or may not be read: then nothing is known of it.
    return undefined;
  }
};

const number = (text: string | undefined): number | undefined => {
  const value = parseFloat(text ?? '');
  return Number.isFinite(value) && value > 0 ? value : undefined;
};

type LinkFacts = Partial<Pick<AttachedDisk, 'linkGbps' | 'lanes' | 'transport' | 'bus' | 'external'>>;

/** What its files say of a device: the nearest speed above it, in Mb/s on USB, in GT/s and lanes on PCIe. */
// eslint-disable-next-line complexity -- one line for each file that may be there
async function linkOf(root: string, name: string): Promise<LinkFacts> {
  let at: string;
  try {
    at = await realpath(join(root, 'sys/block', name));
  } catch {
    return {};
  }
  const top = join(root === '/' ? '' : root, '/sys/devices');
  let transport: string | undefined;
  for (let depth = 0; depth < 24 && at.startsWith(`${top}/`); depth++, at = dirname(at)) {
    const driver = await realpath(join(at, 'driver')).catch(() => undefined);
    const driven = driver?.split('/').at(-1);
    if (driven === 'uas' || driven === 'usb-storage' || driven === 'nvme' || driven === 'ahci') transport ??= driven;
    const usb = number(await told(join(at, 'speed')));
    if (usb !== undefined)
      return { linkGbps: usb / 1000, bus: 'usb', external: true, ...(transport ? { transport } : {}) };
    const perLane = number(await told(join(at, 'current_link_speed')));
    const lanes = number(await told(join(at, 'current_link_width')));
    if (perLane !== undefined && lanes !== undefined)
      return { linkGbps: perLane * lanes, lanes, ...(transport ? { transport } : {}) };
  }
  return transport ? { transport } : {};
}

/** What the tool says beside what every listing says, by the name of the device. */
function moreOf(text: string): Map<string, Pick<AttachedDisk, 'trim' | 'sectorBytes' | 'filesystem'>> {
  type Node = { name?: unknown; fstype?: unknown; 'log-sec'?: unknown; 'disc-max'?: unknown; children?: Node[] };
  const more = new Map<string, Pick<AttachedDisk, 'trim' | 'sectorBytes' | 'filesystem'>>();
  let tree: { blockdevices?: Node[] };
  try {
    tree = JSON.parse(text) as typeof tree;
  } catch {
    return more;
  }
  const firstOf = (node: Node): string | undefined =>
    typeof node.fstype === 'string'
      ? node.fstype
      : (node.children ?? []).map(firstOf).find((found) => found !== undefined);
  for (const node of tree.blockdevices ?? []) {
    const sector = Number(node['log-sec']);
    const filesystem = firstOf(node);
    more.set(`/dev/${String(node.name)}`, {
      ...(node['disc-max'] === undefined || node['disc-max'] === null ? {} : { trim: Number(node['disc-max']) > 0 }),
      ...(Number.isInteger(sector) && sector > 0 ? { sectorBytes: sector } : {}),
      ...(filesystem === undefined ? {} : { filesystem })
    });
  }
  return more;
}

/**
 * The disks of this machine, read-only and without rights.
 * @param root where the system is recorded, `/` for the one that runs
 */
export function systemDisks(root = '/'): DiskSource {
  const list = async (at: string): Promise<AttachedReport> => {
    const { text, note } = await listBlockDevices(root);
    const { devices, showsSystem } = readListing(text);
    const more = moreOf(text);
    const full = await Promise.all(
      devices.map(async (device) => ({
        ...device,
        ...more.get(device.device),
        ...(await linkOf(root, device.device.replace('/dev/', '')))
      }))
    );
    const nothing = note ?? (full.length === 0 ? 'No disk is attached that this program may see.' : undefined);
    return { source: 'system', at, devices: full, text, showsSystem, ...(nothing ? { note: nothing } : {}) };
  };
  return {
    list,
    watch: (changed, signal) =>
      watchByLooking(() => list(new Date().toISOString()), changed, { signal, everyMs: LOOK_MS })
  };
}
