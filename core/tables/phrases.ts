import { LINK_MODES } from '../facts/link-modes.ts';
import { OS_LABEL } from '../facts/filesystems.ts';
import { FORM_FACTOR_LABELS } from '../parts/drive.ts';
import { PORT_PRESETS, type PortPreset } from '../parts/form/port-presets.ts';
import type { Kind } from '../parts/kinds.ts';
import { PLUG_LABELS } from '../parts/link-mode.ts';
import type { FileKind } from './file-kind.ts';

/**
 * A column that says several fields in one cell, as the tables on the crate's own pages do: “PCIe 4.0 x4”, “M.2 NVMe”,
 * “USB-C to USB-A”, “100 × 50 mm”.
 */
export type Phrase = {
  path: string;
  title: string;
  headings: readonly string[];
  /** The fields that it fills. */
  fills: readonly string[];
  /** The field that stands under the same heading: its cell may hold the whole phrase. */
  beside?: string;
  /** @returns the cells it stands for, or undefined where it cannot be read */
  read(cell: string): Record<string, string> | undefined;
};

/** Longest cell that is read as a phrase. */
const LONGEST = 200;

const has = (text: string, word: string) => text.toLowerCase().includes(word.toLowerCase());

/** Finds the one choice whose words stand in a text; the longest wins. */
function spoken<T extends string>(text: string, labels: Readonly<Record<T, string>>): T | undefined {
  const found = (Object.entries(labels) as [T, string][]).filter(([id, label]) => has(text, label) || has(text, id));
  return found.sort(([, a], [, b]) => b.length - a.length)[0]?.[0];
}

function readInterface(cell: string): Record<string, string> | undefined {
  const pcie =
    /pcie?\s*(?:gen\s*)?(\d)(?:\.0)?\s*x\s*(\d)/i.exec(cell) ?? /gen\s?(\d)\s*(?:x|with)\s?(\d) lanes/i.exec(cell);
  if (pcie) return { 'pcie.generation': pcie[1] ?? '', 'pcie.lanes': pcie[2] ?? '' };
  const sata = /sata\D{0,4}(1\.5|3|6)\s*gb/i.exec(cell);
  if (sata) return { sataGbps: sata[1] ?? '' };
  const named = /sata\s?(iii|ii|i|3|2|1)\b/i.exec(cell)?.[1]?.toLowerCase();
  const rate = named && { iii: '6', '3': '6', ii: '3', '2': '3', i: '1.5', '1': '1.5' }[named];
  return rate ? { sataGbps: rate } : undefined;
}

function readKind(cell: string): Record<string, string> | undefined {
  const media = has(cell, 'nvme')
    ? 'nvme'
    : /hard ?disk|hdd/i.test(cell)
      ? 'hdd'
      : /ssd|sata/i.test(cell)
        ? 'sata-ssd'
        : undefined;
  const form = spoken(cell, FORM_FACTOR_LABELS);
  return media && form ? { media, formFactor: form } : undefined;
}

function readTakes(cell: string): Record<string, string> | undefined {
  const form = spoken(cell, FORM_FACTOR_LABELS);
  const protocols = ['nvme', 'sata'].filter((protocol) => has(cell, protocol));
  return form && protocols.length > 0 ? { formFactor: form, protocols: protocols.join('; ') } : undefined;
}

function readPlugs(cell: string): Record<string, string> | undefined {
  const [plug, ...more] = cell.split(/[,;]/).map((text) => spoken(text, PLUG_LABELS));
  if (!plug || more.length === 0 || more.includes(undefined)) return undefined;
  return { plug, morePlugs: more.join('; ') };
}

function readEnds(cell: string): Record<string, string> | undefined {
  const ends = cell
    .replace(/\s+/g, ' ')
    .replace(/ (?:to|auf|vers|a) |→|->|–|\//i, '|')
    .split('|');
  const [one, other] = ends.map((end) => spoken(end, PLUG_LABELS));
  return ends.length === 2 && one && other ? { 'ends.0': one, 'ends.1': other } : undefined;
}

function readSize(cell: string): Record<string, string> | undefined {
  const found = /^(\d+(?:[.,]\d+)?)[x×*](\d+(?:[.,]\d+)?)(mm|cm)?$/i.exec(cell.replace(/\s+/g, ''));
  if (!found) return undefined;
  const unit = found[3] ? ` ${found[3]}` : '';
  return { widthMm: `${found[1]}${unit}`, lengthMm: `${found[2]}${unit}` };
}

function readSystem(cell: string): Record<string, string> | undefined {
  const family = spoken(cell, OS_LABEL);
  if (!family) return undefined;
  const label = OS_LABEL[family];
  const at = cell.toLowerCase().indexOf(label.toLowerCase());
  const version = at < 0 ? '' : `${cell.slice(0, at)}${cell.slice(at + label.length)}`.trim();
  return { 'os.family': family, ...(version ? { 'os.version': version } : {}) };
}

const PHRASES: Partial<Record<Kind, readonly Phrase[]>> = {
  drive: [
    {
      path: 'said.kind',
      title: 'Kind, as in “NVMe, M.2”',
      headings: ['kind', 'art'],
      fills: ['media', 'formFactor'],
      read: readKind
    },
    {
      path: 'said.interface',
      title: 'Interface, as in “PCIe 4.0 x4” or “SATA 6 Gb/s”',
      headings: ['interface', 'bus', 'schnittstelle', 'interfaz', 'connection'],
      fills: ['pcie.generation', 'pcie.lanes', 'sataGbps'],
      read: readInterface
    }
  ],
  enclosure: [
    {
      path: 'said.takes',
      title: 'Takes, as in “M.2 NVMe and SATA”',
      headings: ['takes', 'for', 'fits', 'fur', 'pour', 'para'],
      fills: ['formFactor', 'protocols'],
      beside: 'protocols',
      read: readTakes
    },
    {
      path: 'said.plugs',
      title: 'Plugs, as in “USB-C, eSATA”',
      headings: ['plugs', 'sockets', 'connectors', 'anschlusse', 'connecteurs', 'conectores'],
      fills: ['plug', 'morePlugs'],
      beside: 'plug',
      read: readPlugs
    }
  ],
  cable: [
    {
      path: 'said.ends',
      title: 'Ends, as in “USB-C to USB-A”',
      headings: ['ends', 'plugs', 'connectors', 'stecker', 'connecteurs', 'conectores'],
      fills: ['ends.0', 'ends.1'],
      read: readEnds
    }
  ],
  pad: [
    {
      path: 'said.size',
      title: 'Size, as in “100 x 50 mm”',
      headings: ['size', 'dimensions', 'grosse', 'masse', 'taille', 'medidas'],
      fills: ['widthMm', 'lengthMm'],
      read: readSize
    }
  ],
  host: [
    {
      path: 'said.system',
      title: 'System, as in “Linux 6.12”',
      headings: ['system', 'os', 'operating system', 'betriebssystem', 'systeme', 'sistema'],
      fills: ['os.family', 'os.version'],
      beside: 'os.family',
      read: readSystem
    }
  ]
};

/**
 * Gives the columns of a file that say several fields in one cell.
 * @example phrasesOf('models', 'pad').map(({ title }) => title) // ['Size, as in “100 x 50 mm”']
 */
export function phrasesOf(what: FileKind, of: Kind = 'drive'): readonly Phrase[] {
  return what === 'models' ? (PHRASES[of] ?? []) : [];
}

/** Finds the port that a computer has this print beside: by its own words, or by what it carries. */
function portSaid(text: string): PortPreset | undefined {
  const plain = (words: string) => words.toLowerCase().replace(/[^a-z0-9]+/g, '');
  const wanted = plain(text.replace(/^\s*\d+\s*[x×]\s*/, ''));
  if (wanted === '') return undefined;
  const fitting = PORT_PRESETS.filter(({ label }) => plain(label).startsWith(wanted));
  if (fitting[0]) return fitting[0];
  const byMode = PORT_PRESETS.filter(({ modes }) =>
    modes.some((mode) => wanted.includes(plain(LINK_MODES[mode].label)))
  );
  return byMode.find(({ plug }) => wanted.includes(plain(PLUG_LABELS[plug]))) ?? byMode[0];
}

/**
 * Reads ports as they are printed beside them, apart by semicolons; “2 x” before one means two of them.
 * @returns the rows of a list, or undefined where one of them is not known
 * @example portsSaid('2 x USB-C, 10 Gb/s; Thunderbolt 4')?.length // 3
 */
export function portsSaid(cell: string): Record<string, unknown>[] | undefined {
  if (cell.length > 10 * LONGEST) return undefined;
  const said = cell.split(';').flatMap((text) => {
    const count = Number(/^\s*(\d{1,2})\s*[x×]\s/.exec(text)?.[1] ?? 1);
    return Array.from({ length: Math.max(1, count) }, () => portSaid(text));
  });
  if (said.length === 0 || said.some((preset) => preset === undefined)) return undefined;
  return said.flatMap((preset, i) =>
    preset
      ? [
          {
            id: `p${i + 1}`,
            label: preset.label.replace(/ port(?=,|$)/, ''),
            plug: preset.plug,
            modes: [...preset.modes],
            ...(preset.powerW === undefined ? {} : { powerW: preset.powerW })
          }
        ]
      : []
  );
}

const readShort = (read: Phrase['read'], cell: string) => (cell.length > LONGEST ? undefined : read(cell));

/** Takes one phrase of a row apart. @returns what is wrong with it */
function takePhrase({ path, title, beside, read }: Phrase, apart: Record<string, string>): string | undefined {
  const own = apart[path]?.trim();
  delete apart[path];
  // Without a column of its own it may stand under the heading of the field beside it.
  const from = own ? undefined : beside;
  const cell = own || (from && apart[from]?.trim());
  if (!cell) return undefined;
  const said = readShort(read, cell);
  if (!said)
    return from
      ? undefined
      : `“${cell.slice(0, 60)}” cannot be read here. Write it ${title.slice(title.indexOf('as in'))}.`;
  if (from) delete apart[from];
  for (const [field, value] of Object.entries(said)) apart[field] ||= value;
  return undefined;
}

const PORTS_AS_PRINTED =
  'Write what is printed beside each port, apart by semicolons: “USB-C, 10 Gb/s; Thunderbolt 4”. “2 x” before one means two.';

/**
 * Gives the cells of a row with every phrase in it taken apart. A field that has a cell of its own keeps that.
 * @returns the cells, and what is wrong with a phrase
 * @example takeApart(phrasesOf('models', 'pad'), { 'said.size': '100 x 50' }).cells.widthMm // '100'
 */
export function takeApart(
  phrases: readonly Phrase[],
  cells: Readonly<Record<string, string>>
): { cells: Record<string, string>; errors: Record<string, string> } {
  const apart: Record<string, string> = { ...cells };
  const errors: Record<string, string> = {};
  for (const phrase of phrases) {
    const wrong = takePhrase(phrase, apart);
    if (wrong) errors[phrase.path] = wrong;
  }
  // The length of a module is printed with its width, 22 mm, before it.
  for (const path of ['m2LengthMm', 'm2LengthsMm'])
    if (apart[path]) apart[path] = apart[path].slice(0, LONGEST).replace(/\b22(30|42|60|80|110)\b/g, '$1');
  const ports = apart.ports?.trim();
  if (!ports || ports.startsWith('[')) return { cells: apart, errors };
  const rows = portsSaid(ports);
  if (rows) apart.ports = JSON.stringify(rows);
  else errors.ports = PORTS_AS_PRINTED;
  return { cells: apart, errors };
}
