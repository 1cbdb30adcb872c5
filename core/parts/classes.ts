/* eslint-disable max-params -- rows of a table, each value under the one above it */
import type { LinkMode } from '../facts/link-modes.ts';
import type { Cable } from './cable.ts';
import type { Drive } from './drive.ts';
import type { Enclosure } from './enclosure.ts';
import type { Host, Port } from './host.ts';
import type { Kind } from './kinds.ts';
import type { Model } from './model.ts';

/** Parts by their class, for those who know what a thing is and not what it is called: only what the class says, the rest is assumed. */
type Class<T> = { id: string; label: string; spec: T };

const port = (id: string, label: string, plug: Port['plug'], modes: LinkMode[], powerW?: number): Port => ({
  id,
  label,
  plug,
  modes,
  ...(powerW === undefined ? {} : { powerW })
});
const computer = (id: string, label: string, family: Host['os']['family'], ports: Port[]): Class<Host> => ({
  id,
  label,
  spec: { kind: 'host', name: label, os: { family }, ports }
});

/** Ports as they stand beside each other on common computers. */
const HOSTS: readonly Class<Host>[] = [
  computer('host-laptop-usb4', 'Windows laptop with USB4 40 Gb/s', 'windows', [
    port('c1', 'USB4', 'usb-c', ['usb4-40g'], 7.5),
    port('a1', 'USB-A, 10 Gb/s', 'usb-a', ['usb-10g'], 4.5)
  ]),
  computer('host-laptop-10g', 'Windows laptop with USB-C 10 Gb/s', 'windows', [
    port('c1', 'USB-C, 10 Gb/s', 'usb-c', ['usb-10g'], 4.5),
    port('a1', 'USB-A, 5 Gb/s', 'usb-a', ['usb-5g'], 4.5)
  ]),
  computer('host-mac-tbt4', 'Mac with Thunderbolt 4', 'macos', [
    port('c1', 'Thunderbolt 4', 'usb-c', ['tbt4-40g'], 15)
  ]),
  computer('host-mac-tbt5', 'Mac with Thunderbolt 5', 'macos', [
    port('c1', 'Thunderbolt 5', 'usb-c', ['tbt5-80g'], 15)
  ]),
  computer('host-mac-tbt3', 'Mac with Thunderbolt 3', 'macos', [
    port('c1', 'Thunderbolt 3', 'usb-c', ['tbt3-40g', 'usb-10g'], 15)
  ]),
  computer('host-desktop', 'Desktop with USB-A 5 Gb/s and USB-C 10 Gb/s', 'windows', [
    port('c1', 'USB-C, 10 Gb/s', 'usb-c', ['usb-10g'], 4.5),
    port('a1', 'USB-A, 5 Gb/s (blue)', 'usb-a', ['usb-5g'], 4.5),
    port('a2', 'USB-A, USB 2.0', 'usb-a', ['usb2'], 2.5)
  ]),
  computer('host-desktop-20g', 'Desktop with USB-C 20 Gb/s', 'windows', [
    port('c1', 'USB-C, 20 Gb/s', 'usb-c', ['usb-20g'], 7.5),
    port('a1', 'USB-A, 10 Gb/s', 'usb-a', ['usb-10g'], 4.5)
  ]),
  computer('host-linux', 'Linux computer with USB-C 10 Gb/s', 'linux', [
    port('c1', 'USB-C, 10 Gb/s', 'usb-c', ['usb-10g'], 4.5),
    port('a1', 'USB-A, 5 Gb/s', 'usb-a', ['usb-5g'], 4.5)
  ]),
  computer('host-linux-usb4', 'Linux computer with USB4 40 Gb/s', 'linux', [
    port('c1', 'USB4', 'usb-c', ['usb4-40g'], 7.5)
  ]),
  computer('host-old', 'Old computer with USB-A 5 Gb/s and eSATA', 'windows', [
    port('a1', 'USB-A, 5 Gb/s', 'usb-a', ['usb-5g'], 4.5),
    port('e1', 'eSATA, 6 Gb/s', 'esata', ['esata-6g'])
  ]),
  computer('host-tablet', 'Tablet with USB-C 10 Gb/s', 'ipados', [
    port('c1', 'USB-C, 10 Gb/s', 'usb-c', ['usb-10g'], 4.5)
  ]),
  computer('host-phone', 'Phone with USB-C 10 Gb/s', 'ios', [port('c1', 'USB-C, 10 Gb/s', 'usb-c', ['usb-10g'], 4.5)])
];

const cable = (
  id: string,
  label: string,
  ends: Cable['ends'],
  modes: LinkMode[],
  lengthM: number,
  more: Partial<Cable> = {}
): Class<Cable> => ({ id, label, spec: { kind: 'cable', name: label, ends, modes, lengthM, ...more } });

const CABLES: readonly Class<Cable>[] = [
  cable('cable-80g', 'A passive 80 Gb/s cable of 0.8 m', ['usb-c', 'usb-c'], ['tbt5-80g'], 0.8, { active: false }),
  cable('cable-40g', 'A passive 40 Gb/s cable of 0.8 m', ['usb-c', 'usb-c'], ['usb4-40g', 'tbt3-40g'], 0.8, {
    active: false
  }),
  cable('cable-40g-long', 'An active 40 Gb/s cable of 2 m', ['usb-c', 'usb-c'], ['usb4-40g', 'tbt3-40g'], 2, {
    active: true
  }),
  cable('cable-20g', 'A 20 Gb/s cable of 1 m', ['usb-c', 'usb-c'], ['usb4-20g', 'usb-20g'], 1, { active: false }),
  cable('cable-10g', 'A USB-C cable of 1 m, 10 Gb/s', ['usb-c', 'usb-c'], ['usb-10g'], 1),
  cable('cable-5g', 'A USB-C cable of 1 m, 5 Gb/s', ['usb-c', 'usb-c'], ['usb-5g'], 1),
  cable('cable-charge', 'A charging cable of 1 m, USB 2.0', ['usb-c', 'usb-c'], ['usb2'], 1),
  cable('cable-a-10g', 'A USB-A to USB-C cable of 1 m, 10 Gb/s', ['usb-a', 'usb-c'], ['usb-10g'], 1),
  cable('cable-a-5g', 'A USB-A to USB-C cable of 1 m, 5 Gb/s', ['usb-a', 'usb-c'], ['usb-5g'], 1),
  cable('cable-a-b', 'A USB-A to USB-B cable of 1 m, 5 Gb/s', ['usb-a', 'usb-b'], ['usb-5g'], 1),
  cable('cable-esata', 'An eSATA cable of 1 m', ['esata', 'esata'], ['esata-6g'], 1)
];

const enclosure = (
  id: string,
  label: string,
  spec: Omit<Enclosure, 'kind' | 'name' | 'plug'> & Partial<Pick<Enclosure, 'plug'>>
): Class<Enclosure> => ({ id, label, spec: { kind: 'enclosure', name: label, plug: 'usb-c', ...spec } });

const ENCLOSURES: readonly Class<Enclosure>[] = [
  enclosure('case-m2-10g', 'M.2 NVMe case, 10 Gb/s', { formFactor: 'm2', protocols: ['nvme'], modes: ['usb-10g'] }),
  enclosure('case-m2-both-10g', 'M.2 case for NVMe and SATA, 10 Gb/s', {
    formFactor: 'm2',
    protocols: ['nvme', 'sata'],
    modes: ['usb-10g']
  }),
  enclosure('case-m2-20g', 'M.2 NVMe case, 20 Gb/s', { formFactor: 'm2', protocols: ['nvme'], modes: ['usb-20g'] }),
  enclosure('case-m2-40g', 'M.2 NVMe case, USB4 40 Gb/s', {
    formFactor: 'm2',
    protocols: ['nvme'],
    modes: ['usb4-40g', 'tbt3-40g', 'usb-10g']
  }),
  enclosure('case-m2-tbt3', 'M.2 NVMe case, Thunderbolt 3 only', {
    formFactor: 'm2',
    protocols: ['nvme'],
    modes: ['tbt3-40g']
  }),
  enclosure('case-m2-80g', 'M.2 NVMe case, 80 Gb/s', {
    formFactor: 'm2',
    protocols: ['nvme'],
    modes: ['tbt5-80g', 'usb4-40g', 'usb-10g']
  }),
  enclosure('case-m2-sata', 'M.2 SATA case, 5 Gb/s', { formFactor: 'm2', protocols: ['sata'], modes: ['usb-5g'] }),
  enclosure('case-25-5g', '2.5-inch SATA case, 5 Gb/s', {
    formFactor: '2.5in',
    protocols: ['sata'],
    modes: ['usb-5g']
  }),
  enclosure('case-25-10g', '2.5-inch SATA case, 10 Gb/s', {
    formFactor: '2.5in',
    protocols: ['sata'],
    modes: ['usb-10g']
  }),
  enclosure('case-35-5g', '3.5-inch SATA case with its own supply, 5 Gb/s', {
    formFactor: '3.5in',
    protocols: ['sata'],
    modes: ['usb-5g'],
    externalSupply: true
  }),
  enclosure('case-35-esata', '3.5-inch SATA case with its own supply, eSATA', {
    formFactor: '3.5in',
    protocols: ['sata'],
    modes: ['esata-6g'],
    plug: 'esata',
    externalSupply: true
  })
];

const nvme = (
  id: string,
  label: string,
  generation: 3 | 4 | 5,
  capacityTB: number,
  cell: 'tlc' | 'qlc' = 'tlc'
): Class<Drive> => ({
  id,
  label,
  spec: {
    kind: 'drive',
    name: label,
    media: 'nvme',
    formFactor: 'm2',
    capacityTB,
    pcie: { generation, lanes: 4 },
    flash: { cell }
  }
});
const sata = (id: string, label: string, formFactor: 'm2' | '2.5in', capacityTB: number): Class<Drive> => ({
  id,
  label,
  spec: { kind: 'drive', name: label, media: 'sata-ssd', formFactor, capacityTB, sataGbps: 6 }
});
const disk = (
  id: string,
  label: string,
  formFactor: '2.5in' | '3.5in',
  capacityTB: number,
  recording: 'cmr' | 'smr'
): Class<Drive> => ({
  id,
  label,
  spec: { kind: 'drive', name: label, media: 'hdd', formFactor, capacityTB, disk: { recording } }
});

const DRIVES: readonly Class<Drive>[] = [
  nvme('nvme-4-1', 'NVMe drive of 1 TB, PCIe 4, TLC', 4, 1),
  nvme('nvme-4-2', 'NVMe drive of 2 TB, PCIe 4, TLC', 4, 2),
  nvme('nvme-4-4', 'NVMe drive of 4 TB, PCIe 4, TLC', 4, 4),
  nvme('nvme-4-2q', 'NVMe drive of 2 TB, PCIe 4, QLC', 4, 2, 'qlc'),
  nvme('nvme-4-4q', 'NVMe drive of 4 TB, PCIe 4, QLC', 4, 4, 'qlc'),
  nvme('nvme-3-1', 'NVMe drive of 1 TB, PCIe 3, TLC', 3, 1),
  nvme('nvme-3-2', 'NVMe drive of 2 TB, PCIe 3, TLC', 3, 2),
  nvme('nvme-5-2', 'NVMe drive of 2 TB, PCIe 5, TLC', 5, 2),
  sata('sata-25-1', 'SATA SSD of 1 TB, 2.5-inch', '2.5in', 1),
  sata('sata-25-2', 'SATA SSD of 2 TB, 2.5-inch', '2.5in', 2),
  sata('sata-m2-1', 'SATA SSD of 1 TB, M.2', 'm2', 1),
  disk('disk-25-2', 'Portable hard disk of 2 TB, 2.5-inch, SMR', '2.5in', 2, 'smr'),
  disk('disk-35-4', 'Hard disk of 4 TB, 3.5-inch, CMR', '3.5in', 4, 'cmr'),
  disk('disk-35-8', 'Hard disk of 8 TB, 3.5-inch, CMR', '3.5in', 8, 'cmr'),
  disk('disk-35-16', 'Hard disk of 16 TB, 3.5-inch, CMR', '3.5in', 16, 'cmr')
];

/** The classes of each kind of part; a pad is known by its measures and what is ready-made by its name: they need none. */
export const PART_CLASSES = {
  host: HOSTS,
  cable: CABLES,
  enclosure: ENCLOSURES,
  drive: DRIVES,
  pad: [],
  alternative: []
} as const;

/**
 * Lists the classes of a kind, with what they are called and what they state.
 * @example classesOf('cable')[1].label // 'A passive 40 Gb/s cable of 0.8 m'
 */
export const classesOf = (kind: Kind): readonly Class<Record<string, unknown>>[] => PART_CLASSES[kind];

/**
 * Gives every class as a part, so that one can be judged before anything is entered.
 * @example classParts().length > 40 // true
 */
export const classParts = (): (Model & { id: string })[] =>
  [...HOSTS, ...CABLES, ...ENCLOSURES, ...DRIVES].map(({ id, spec }) => ({ ...spec, id }));
