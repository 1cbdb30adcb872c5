import type { AttachedDisk, AttachedReport } from '#core/format/attached';
import { readListing } from '#core/listing/read';
import { watchByLooking, type DiskSource } from './source';

/** What the stand-in plugs and pulls: the drive of a build, and one that looks like it. */
export type SimulatedDrive = { model: string; capacityTB: number; serial?: string | undefined; linkGbps: number };

type Plugged = {
  name: string;
  model: string;
  serial: string | null;
  bytes: number;
  linkGbps?: number;
  usb: boolean;
  mount?: string;
  partition?: boolean;
};

/** Bytes of a drive that is sold with so many GB: 97 696 368 sectors of 512 B for the first 50, 1 953 504 for each more. */
export const soldBytes = (capacityTB: number): number =>
  Math.round((97_696_368 + 1_953_504 * (capacityTB * 1000 - 50)) * 512);

const OWN_SERIAL = 'FH24A07733';
const INNER: Plugged = {
  name: 'nvme0n1',
  model: 'Marl Q4 1TB',
  serial: 'MQ1T-55K20',
  bytes: 1_000_204_886_016,
  usb: false,
  mount: '/'
};

/** Plugging and pulling, in an order of which each step shows something that goes wrong at a desk. */
function script({
  model,
  capacityTB,
  serial = OWN_SERIAL,
  linkGbps
}: SimulatedDrive): readonly { event: string; plugged: readonly Plugged[] }[] {
  const own: Plugged = { name: 'sda', model, serial, bytes: soldBytes(capacityTB), linkGbps, usb: true };
  const twin: Plugged = {
    ...own,
    name: 'sdb',
    serial: `${serial.slice(0, -1)}${serial.endsWith('4') ? '5' : '4'}`,
    partition: true,
    mount: '/media/desk/OLD'
  };
  return [
    { event: 'Nothing is plugged in but the disk of the computer.', plugged: [INNER] },
    {
      event: 'The drive of the build was plugged in, at a slow port.',
      plugged: [INNER, { ...own, linkGbps: Math.min(5, linkGbps) }]
    },
    { event: 'It was moved to the port of the plan.', plugged: [INNER, own] },
    { event: 'One that looks like it was plugged in as well, and is in use.', plugged: [INNER, own, twin] },
    {
      event: 'The names moved: the first was pulled, and came back behind the other.',
      plugged: [INNER, { ...twin, name: 'sda' }, { ...own, name: 'sdb' }]
    },
    { event: 'The look-alike was pulled.', plugged: [INNER, { ...own, name: 'sdb' }] },
    {
      event: 'A stick without a serial number was plugged in.',
      plugged: [
        INNER,
        { ...own, name: 'sdb' },
        { name: 'sdc', model: 'Silt Stick', serial: null, bytes: 32_015_679_488, linkGbps: 0.48, usb: true }
      ]
    }
  ];
}

/**
 * How many steps the script of the stand-in has.
 * @example SCRIPT_STEPS // 7
 */
export const SCRIPT_STEPS = script({ model: '', capacityTB: 1, linkGbps: 10 }).length;

const asJson = (plugged: readonly Plugged[]): string =>
  JSON.stringify(
    {
      blockdevices: plugged.map(({ name, model, serial, bytes, usb, mount, partition }) => ({
        name,
        size: bytes,
        type: 'disk',
        tran: usb ? 'usb' : 'nvme',
        rm: false,
        model,
        serial,
        mountpoints: [null],
        ...(mount || partition
          ? {
              children: [
                {
                  name: `${name}${usb ? '' : 'p'}1`,
                  size: bytes - 2_097_152,
                  type: 'part',
                  mountpoints: [mount ?? null]
                }
              ]
            }
          : {})
      }))
    },
    null,
    2
  );

const asWindows = (plugged: readonly Plugged[]): string =>
  JSON.stringify(
    plugged.map(({ model, serial, bytes, usb, partition, mount }, i) => ({
      Number: i,
      FriendlyName: model,
      SerialNumber: serial,
      Size: bytes,
      BusType: usb ? 'USB' : 'NVMe',
      PartitionStyle: partition || mount ? 'GPT' : 'RAW',
      IsBoot: mount === '/',
      IsSystem: mount === '/'
    })),
    null,
    2
  );

/** The report about the buses, and where the root lies. */
const asMac = (plugged: readonly Plugged[]): string => {
  const name = (i: number) => `disk${i * 2}`;
  const usb = plugged.flatMap(({ model, serial, bytes, usb }, i) =>
    usb
      ? [
          {
            _name: model,
            ...(serial ? { serial_num: serial } : {}),
            Media: [{ _name: model, bsd_name: name(i), size_in_bytes: bytes }]
          }
        ]
      : []
  );
  const inner = plugged.flatMap(({ model, serial, bytes, usb }, i) =>
    usb
      ? []
      : [{ _name: model, device_serial: serial ?? '', device_model: model, bsd_name: name(i), size_in_bytes: bytes }]
  );
  const root = plugged.findIndex(({ mount }) => mount === '/');
  const where = `   Device Identifier:         ${name(root)}s2s1\n   Part of Whole:             ${name(root)}\n   Whole:                     No\n   Mount Point:               /\n`;
  const report = {
    SPUSBDataType: [{ _name: 'USB31Bus', _items: usb }],
    SPNVMeDataType: [{ _name: 'Controller', _items: inner }]
  };
  return `${root < 0 ? '' : where}\n${JSON.stringify(report, null, 2)}`;
};
const LISTED = { linux: asJson, windows: asWindows, macos: asMac } as const;
export type SimulatedSystem = keyof typeof LISTED;

const EVERY_MS = 6000;

/**
 * The stand-in for attached disks, for machines that are not the build's computer and for the demo. The same step shows the same.
 * @param step where in the script it stands; watching goes on from there
 * @param system in whose form it lists
 */
export function simulatedDisks(drive: SimulatedDrive, step = 0, system: SimulatedSystem = 'linux'): DiskSource {
  const steps = script(drive);
  const show = (at: string, n: number): AttachedReport => {
    const { event, plugged } = steps[n % steps.length] as (typeof steps)[number];
    const text = LISTED[system](plugged);
    const { devices, showsSystem } = readListing(text);
    const full = devices.map((device): AttachedDisk => {
      // Serials and sizes together tell them apart in every form of listing.
      const from = plugged.find(
        ({ serial, bytes }) => (serial ?? undefined) === device.serial && bytes === device.bytes
      );
      return {
        ...device,
        ...(from?.linkGbps === undefined ? {} : { linkGbps: from.linkGbps }),
        transport: from?.usb ? 'uas' : 'nvme',
        trim: true,
        sectorBytes: 512
      };
    });
    return { source: 'simulated', at, devices: full, text, showsSystem, step: n % steps.length, event };
  };
  return {
    list: (at) => Promise.resolve(show(at, step)),
    watch: (changed, signal) => {
      let n = step;
      return watchByLooking(() => Promise.resolve(show(new Date().toISOString(), n++)), changed, {
        signal,
        everyMs: EVERY_MS
      });
    }
  };
}
