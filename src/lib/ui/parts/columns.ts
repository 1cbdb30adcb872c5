import { FORM_FACTOR_LABELS } from '#core/parts/drive';
import { PLUG_LABELS } from '#core/parts/link-mode';
import { OS_LABEL } from '#core/facts/filesystems';
import { LINK_MODES, type LinkMode } from '#core/facts/link-modes';
import type { Kind } from '#core/parts/kinds';
import type { Model } from '#core/parts/model';
import { capacity, quantity } from '#core/quantities/format';

type Cell = { text: string; sort?: number };
/** `id` is what the server sorts by; `plain` columns stand in the table until the person asks for more. */
export type TableColumn = { id: string; title: string; number?: boolean; plain: boolean; cell: (spec: Model) => Cell };

const modes = (list: readonly LinkMode[]): Cell => ({
  text: list.map((id) => LINK_MODES[id].label).join(', '),
  sort: Math.max(...list.map((id) => LINK_MODES[id].rank))
});
const size = (value: number | undefined, unit: string): Cell =>
  value === undefined ? { text: '', sort: -1 } : { text: quantity(value, unit), sort: value };

// eslint-disable-next-line max-params -- a row of a table of columns
function column<K extends Kind>(
  _kind: K,
  id: string,
  title: string,
  cell: (spec: Extract<Model, { kind: K }>) => Cell,
  number = false,
  plain = true
): TableColumn {
  return { id, title, number, plain, cell: (spec) => cell(spec as Extract<Model, { kind: K }>) };
}
const named: TableColumn = { id: 'name', title: 'Name', plain: true, cell: (spec) => ({ text: spec.name }) };

const COLUMNS: Record<Kind, TableColumn[]> = {
  drive: [
    named,
    column('drive', 'kind', 'Kind', (d) => ({
      text: `${{ nvme: 'NVMe', 'sata-ssd': 'SATA SSD', hdd: 'hard disk' }[d.media]}, ${FORM_FACTOR_LABELS[d.formFactor]}`
    })),
    column('drive', 'interface', 'Interface', (d) => ({
      text: d.pcie ? `PCIe ${d.pcie.generation}.0 x${d.pcie.lanes}` : d.sataGbps ? `SATA ${d.sataGbps} Gb/s` : ''
    })),
    column('drive', 'capacity', 'Capacity', (d) => ({ text: capacity(d.capacityTB), sort: d.capacityTB }), true),
    column('drive', 'read', 'Read, rated', (d) => size(d.readMBps ?? d.disk?.outerMBps, 'MB/s'), true),
    column('drive', 'write', 'Write, rated', (d) => size(d.writeMBps ?? d.disk?.outerMBps, 'MB/s'), true),
    column('drive', 'endurance', 'Endurance', (d) => size(d.enduranceTBW, 'TBW'), true, false),
    column('drive', 'warranty', 'Warranty', (d) => size(d.warrantyYears, 'years'), true, false)
  ],
  enclosure: [
    named,
    column('enclosure', 'takes', 'Takes', (e) => ({
      text: `${FORM_FACTOR_LABELS[e.formFactor]} ${e.protocols.map((p) => (p === 'nvme' ? 'NVMe' : 'SATA')).join(' and ')}`
    })),
    column('enclosure', 'modes', 'Link modes', (e) => modes(e.modes)),
    column('enclosure', 'plug', 'Plug', (e) => ({
      text: [e.plug, ...(e.morePlugs ?? [])].map((p) => PLUG_LABELS[p]).join(', ')
    })),
    column('enclosure', 'cooling', 'Cooling', (e) => ({
      text: e.cooling ? `${e.cooling.kind}${e.cooling.material ? `, ${e.cooling.material}` : ''}` : ''
    })),
    column('enclosure', 'bridge', 'Bridge', (e) => ({ text: e.bridge ?? '' }), false, false),
    column('enclosure', 'largest', 'Largest drive', (e) => size(e.maxCapacityTB, 'TB'), true)
  ],
  cable: [
    named,
    column('cable', 'ends', 'Ends', (c) => ({ text: `${PLUG_LABELS[c.ends[0]]} to ${PLUG_LABELS[c.ends[1]]}` })),
    column('cable', 'modes', 'Carries', (c) => modes(c.modes)),
    column('cable', 'active', 'Active', (c) => ({ text: c.active ? 'active' : 'passive' })),
    column('cable', 'length', 'Length', (c) => size(c.lengthM, 'm'), true)
  ],
  pad: [
    named,
    column('pad', 'thickness', 'Thickness', (p) => size(p.thicknessMm, 'mm'), true),
    column(
      'pad',
      'size',
      'Size',
      (p) => ({ text: `${p.widthMm} × ${p.lengthMm}\u202fmm`, sort: p.widthMm * p.lengthMm }),
      true
    ),
    column('pad', 'conductivity', 'Conductivity, printed', (p) => size(p.conductivityWmK, 'W/mK'), true),
    column(
      'pad',
      'hardness',
      'Shore 00',
      (p) => ({ text: p.shore00 === undefined ? '' : String(p.shore00) }),
      true,
      false
    ),
    column(
      'pad',
      'pieces',
      'Pieces',
      (p) => ({ text: p.quantity === undefined ? '' : String(p.quantity) }),
      true,
      false
    )
  ],
  host: [
    named,
    column('host', 'system', 'System', (h) => ({
      text: [OS_LABEL[h.os.family], h.os.version].filter(Boolean).join(' ')
    })),
    column('host', 'best', 'Best port', (h) =>
      modes([h.ports.flatMap((p) => p.modes).reduce((a, b) => (LINK_MODES[b].rank > LINK_MODES[a].rank ? b : a))])
    ),
    column('host', 'ports', 'Ports', (h) => ({ text: String(h.ports.length), sort: h.ports.length }), true),
    column('host', 'disk', 'Own disk reads', (h) => size(h.internalDisk?.readMBps, 'MB/s'), true)
  ],
  alternative: [
    named,
    column('alternative', 'sort', 'Sort', (a) => ({ text: a.sort.replace('-', ' ') })),
    column('alternative', 'capacity', 'Capacity', (a) => ({ text: capacity(a.capacityTB), sort: a.capacityTB }), true),
    column('alternative', 'write', 'Write', (a) => size(a.writeMBps, 'MB/s'), true)
  ]
};

/** The columns of a kind's table: what one looks for when choosing among parts of that kind. */
export const tableColumns = (kind: Kind): readonly TableColumn[] => COLUMNS[kind];
