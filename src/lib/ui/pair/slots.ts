import { bestOf } from '#core/parts/fill/enclosure';
import { FORM_FACTOR_LABELS, type Drive } from '#core/parts/drive';
import type { Library, Slot } from '#core/build/assemble';
import type { Choice } from '#core/build/choice';
import { pickedAt, portOption, type ChainPlace } from '#core/build/options';
import { LINK_MODES, type LinkMode } from '#core/facts/link-modes';
import type { Cable } from '#core/parts/cable';
import type { Enclosure } from '#core/parts/enclosure';
import type { Port } from '#core/parts/host';
import { capacity, quantity } from '#core/quantities/format';

export type Option = { id: string; text: string; detail: string };
export type Tile = {
  key: ChainPlace | 'job';
  label: string;
  slots: Slot[];
  options: Option[];
  selectedId: string | undefined;
  optional: boolean;
};

const gbps = (modes: readonly LinkMode[]) => {
  const mode = bestOf(modes);
  return mode === 'usb2' ? '480\u202fMb/s' : quantity(LINK_MODES[mode].lineGbps, 'Gb/s');
};

const portDetail = (port: Port) =>
  [LINK_MODES[bestOf(port.modes)].label, port.powerW === undefined ? '' : quantity(port.powerW, 'W')]
    .filter(Boolean)
    .join(' · ');
const cableDetail = (cable: Cable) =>
  [gbps(cable.modes), cable.lengthM === undefined ? '' : quantity(cable.lengthM, 'm')].filter(Boolean).join(' · ');
const enclosureDetail = (e: Enclosure) =>
  [gbps(e.modes), FORM_FACTOR_LABELS[e.formFactor], e.cooling?.kind ?? ''].filter(Boolean).join(' · ');
const driveDetail = (d: Drive) =>
  [
    capacity(d.capacityTB),
    d.media === 'hdd'
      ? 'hard disk'
      : d.pcie
        ? `PCIe ${d.pcie.generation} x${d.pcie.lanes}`
        : d.media === 'nvme'
          ? 'NVMe'
          : 'SATA SSD',
    d.flash?.cell?.toUpperCase() ?? ''
  ]
    .filter(Boolean)
    .join(' · ');

/** What can be picked at each place of the chain, from the host outwards. */
export function tilesOf(library: Library, choice: Partial<Choice>): Tile[] {
  const chosen = (id: string | undefined, options: Option[]) => (options.some((o) => o.id === id) ? id : undefined);
  const ports = [...library.host.values()].flatMap((host) =>
    host.ports.map((port) => ({
      id: portOption(host.id, port.id),
      text: `${host.name} · ${port.label}`,
      detail: portDetail(port)
    }))
  );
  const cables = [...library.cable.values()].map((c) => ({ id: c.id, text: c.name, detail: cableDetail(c) }));
  const enclosures = [...library.enclosure.values()].map((e) => ({
    id: e.id,
    text: e.name,
    detail: enclosureDetail(e)
  }));
  const drives = [...library.drive.values()].map((d) => ({ id: d.id, text: d.name, detail: driveDetail(d) }));
  const jobs = [...library.job.values()].map((j) => ({
    id: j.id,
    text: j.name,
    detail: `${quantity(j.transferGB, 'GB')} ${j.direction === 'out' ? 'out' : j.direction === 'in' ? 'in' : 'both ways'}`
  }));
  const port = pickedAt(choice, 'port');
  return [
    {
      key: 'port',
      label: 'Computer and port',
      slots: ['hostId', 'portId'],
      options: ports,
      selectedId: chosen(port, ports),
      optional: false
    },
    {
      key: 'cable',
      label: 'Cable',
      slots: ['cableId'],
      options: cables,
      selectedId: chosen(choice.cableId, cables),
      optional: true
    },
    {
      key: 'enclosure',
      label: 'Enclosure',
      slots: ['enclosureId'],
      options: enclosures,
      selectedId: chosen(choice.enclosureId, enclosures),
      optional: false
    },
    {
      key: 'drive',
      label: 'Drive',
      slots: ['driveId'],
      options: drives,
      selectedId: chosen(choice.driveId, drives),
      optional: false
    },
    {
      key: 'job',
      label: 'Job',
      slots: ['jobId'],
      options: jobs,
      selectedId: chosen(choice.jobId, jobs),
      optional: true
    }
  ];
}

const QUERY: Record<Slot, string> = {
  hostId: 'host',
  portId: 'port',
  cableId: 'cable',
  enclosureId: 'enclosure',
  driveId: 'drive',
  jobId: 'job'
};

/** The choice as the query of an address, so that a link shows the same thing to someone else. */
export function choiceToQuery(choice: Partial<Choice>): string {
  const query = new URLSearchParams();
  for (const [slot, name] of Object.entries(QUERY) as [Slot, string][]) if (choice[slot]) query.set(name, choice[slot]);
  if (choice.writeCache) query.set('cache', choice.writeCache);
  return query.toString();
}

/** What an address chooses; overlong values are left out. Whether it exists is for the library to say. */
export function choiceFromQuery(query: URLSearchParams): Partial<Choice> {
  const choice: Partial<Choice> = {};
  for (const [slot, name] of Object.entries(QUERY) as [Slot, string][]) {
    const value = query.get(name);
    if (value && value.length <= 40) choice[slot] = value;
  }
  const policy = query.get('cache');
  if (policy === 'performance' || policy === 'quick-removal') choice.writeCache = policy;
  return choice;
}
