import { OS_LABEL } from '#core/facts/filesystems';
import { LINK_MODES, type LinkMode } from '#core/facts/link-modes';
import type { Kind } from '#core/parts/kinds';
import type { Model } from '#core/parts/model';
import { capacity, quantity } from '#core/quantities/format';

type Cell = { text: string; sort?: number };
export type Column = { title: string; number?: boolean; cell: (spec: Model) => Cell };

const modes = (list: readonly LinkMode[]): Cell => ({
  text: list.map((id) => LINK_MODES[id].label).join(', '),
  sort: Math.max(...list.map((id) => LINK_MODES[id].rank))
});
const size = (value: number | undefined, unit: string): Cell =>
  value === undefined ? { text: '', sort: -1 } : { text: quantity(value, unit), sort: value };
const PLUG = { 'usb-c': 'USB-C', 'usb-a': 'USB-A', 'usb-b': 'USB-B', 'micro-b': 'Micro-B', esata: 'eSATA' };
const FORM = { m2: 'M.2', '2.5in': '2.5-inch', '3.5in': '3.5-inch' };

function column<K extends Kind>(
  _kind: K,
  title: string,
  cell: (spec: Extract<Model, { kind: K }>) => Cell,
  number = false
): Column {
  return { title, number, cell: (spec) => cell(spec as Extract<Model, { kind: K }>) };
}
const named: Column = { title: 'Name', cell: (spec) => ({ text: spec.name }) };

const COLUMNS: Record<Kind, Column[]> = {
  drive: [
    named,
    column('drive', 'Kind', (d) => ({
      text: `${{ nvme: 'NVMe', 'sata-ssd': 'SATA SSD', hdd: 'hard disk' }[d.media]}, ${FORM[d.formFactor]}`
    })),
    column('drive', 'Interface', (d) => ({
      text: d.pcie ? `PCIe ${d.pcie.generation}.0 x${d.pcie.lanes}` : d.sataGbps ? `SATA ${d.sataGbps} Gb/s` : ''
    })),
    column('drive', 'Capacity', (d) => ({ text: capacity(d.capacityTB), sort: d.capacityTB }), true),
    column('drive', 'Read, rated', (d) => size(d.readMBps ?? d.disk?.outerMBps, 'MB/s'), true),
    column('drive', 'Write, rated', (d) => size(d.writeMBps ?? d.disk?.outerMBps, 'MB/s'), true)
  ],
  enclosure: [
    named,
    column('enclosure', 'Takes', (e) => ({
      text: `${FORM[e.formFactor]} ${e.protocols.map((p) => (p === 'nvme' ? 'NVMe' : 'SATA')).join(' and ')}`
    })),
    column('enclosure', 'Link modes', (e) => modes(e.modes)),
    column('enclosure', 'Plug', (e) => ({ text: [e.plug, ...(e.morePlugs ?? [])].map((p) => PLUG[p]).join(', ') })),
    column('enclosure', 'Cooling', (e) => ({
      text: e.cooling ? `${e.cooling.kind}${e.cooling.material ? `, ${e.cooling.material}` : ''}` : ''
    })),
    column('enclosure', 'Largest drive', (e) => size(e.maxCapacityTB, 'TB'), true)
  ],
  cable: [
    named,
    column('cable', 'Ends', (c) => ({ text: `${PLUG[c.ends[0]]} to ${PLUG[c.ends[1]]}` })),
    column('cable', 'Carries', (c) => modes(c.modes)),
    column('cable', 'Active', (c) => ({ text: c.active ? 'active' : 'passive' })),
    column('cable', 'Length', (c) => size(c.lengthM, 'm'), true)
  ],
  pad: [
    named,
    column('pad', 'Thickness', (p) => size(p.thicknessMm, 'mm'), true),
    column(
      'pad',
      'Size',
      (p) => ({ text: `${p.widthMm} × ${p.lengthMm}\u202fmm`, sort: p.widthMm * p.lengthMm }),
      true
    ),
    column('pad', 'Conductivity, printed', (p) => size(p.conductivityWmK, 'W/mK'), true)
  ],
  host: [
    named,
    column('host', 'System', (h) => ({ text: [OS_LABEL[h.os.family], h.os.version].filter(Boolean).join(' ') })),
    column('host', 'Best port', (h) =>
      modes([h.ports.flatMap((p) => p.modes).reduce((a, b) => (LINK_MODES[b].rank > LINK_MODES[a].rank ? b : a))])
    ),
    column('host', 'Ports', (h) => ({ text: String(h.ports.length), sort: h.ports.length }), true),
    column('host', 'Own disk reads', (h) => size(h.internalDisk?.readMBps, 'MB/s'), true)
  ],
  alternative: [
    named,
    column('alternative', 'Sort', (a) => ({ text: a.sort.replace('-', ' ') })),
    column('alternative', 'Capacity', (a) => ({ text: capacity(a.capacityTB), sort: a.capacityTB }), true),
    column('alternative', 'Write', (a) => size(a.writeMBps, 'MB/s'), true)
  ]
};

/** The columns of a kind's table: what one looks for when choosing among parts of that kind. */
export const columnsOf = (kind: Kind): readonly Column[] => COLUMNS[kind];
