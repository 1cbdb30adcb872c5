import { addMount, draftOf, setSize, wholeDisk, type MacDrafts } from './mac-draft.ts';
import { asList, asRecord, readLooseJson } from './json.ts';
import { cellText, isClipped } from './text.ts';

/** What the report of macOS about its buses is made of: things with values, and things within them. */
type Thing = { name: string; values: Values; within: Thing[] };
type Values = Partial<Record<'serial' | 'bsd' | 'size' | 'bytes' | 'model' | 'mount' | 'internal', string>>;

/** Titles of values in the languages of the system, and the keys of JSON. */
const TITLES: readonly (readonly [keyof Values, RegExp])[] = [
  [
    'serial',
    /^(?:Serial Number|Seriennummer|Numéro de série|Número de serie|Numero di serie|Serienummer|Número de Série|serial_num|device_serial)$/i
  ],
  ['bsd', /^(?:BSD Name|BSD-Name|Nom BSD|Nombre BSD|Nome BSD|BSD-naam|bsd_name)$/i],
  ['size', /^(?:Capacity|Kapazität|Capacité|Capacidad|Capacità|Capaciteit|Capacidade|Size|size)$/i],
  ['bytes', /^size_in_bytes$/],
  ['model', /^(?:Model|Modell|Modèle|Modelo|Modello|device_model)$/i],
  [
    'mount',
    /^(?:Mount Point|Mount-Point|Mountpunkt|Point de montage|Punto de montaje|Punto di montaggio|mount_point)$/i
  ],
  ['internal', /^(?:Internal|Intern|Interne|Interno|is_internal_disk)$/i]
];
const titleOf = (text: string): keyof Values | undefined => TITLES.find(([, pattern]) => pattern.test(text))?.[0];

/** What is open while the report is read in words, by how far it stands to the right. */
type Open = { indent: number; thing: Thing }[];

/** Notes a value of a thing; false where it has that value already. */
function noteValue(thing: Thing, body: string): boolean {
  const colon = body.indexOf(':');
  const title = colon > 0 ? titleOf(body.slice(0, colon).trim()) : undefined;
  if (!title) return true;
  // A device has one name, one serial and one size: with two, the indents are lost and nobody can say what belongs to what.
  if (thing.values[title] !== undefined) return false;
  thing.values[title] = body.slice(colon + 1).trim();
  return true;
}

/** Reads the report in words: what stands further right lies within what stands above it; null where that cannot be told. */
function thingsOfText(text: string): Thing[] | null {
  const root: Thing = { name: '', values: {}, within: [] };
  const open: Open = [{ indent: -1, thing: root }];
  for (const line of text.split('\n')) {
    const indent = line.search(/\S/);
    if (indent < 0) continue;
    const body = line.trim();
    while (open.length > 1 && (open.at(-1)?.indent ?? -1) >= indent) open.pop();
    const thing = open.at(-1)?.thing ?? root;
    if (body.endsWith(':') && body.length < 120) {
      const made: Thing = { name: body.slice(0, -1).trim(), values: {}, within: [] };
      thing.within.push(made);
      open.push({ indent, thing: made });
    } else if (!noteValue(thing, body)) return null;
  }
  return root.within;
}

/** Reads the report as JSON: lists are what lies within. */
function thingsOfJson(value: unknown): Thing[] {
  return asList(value).map((entry) => {
    const record = asRecord(entry);
    const thing: Thing = { name: String(record._name ?? ''), values: {}, within: [] };
    for (const [key, cell] of Object.entries(record)) {
      const title = titleOf(key);
      if (title && (typeof cell === 'string' || typeof cell === 'number')) thing.values[title] ??= String(cell);
      if (Array.isArray(cell)) thing.within.push({ name: key, values: {}, within: thingsOfJson(cell) });
    }
    return thing;
  });
}

/** Which thing has the serial: a medium lies in a list without values of its own, and that in the thing; a hub is further out. */
function holderOf(thing: Thing, above: readonly Thing[]): Thing | undefined {
  if (thing.values.serial !== undefined) return thing;
  const list = above.at(-1);
  return list && Object.keys(list.values).length === 0 ? above.at(-2) : list;
}

/** Notes the device that a thing is, with the serial of the thing it is the medium of. */
// eslint-disable-next-line complexity -- one line for each thing that such a listing can hold
function note(thing: Thing, above: readonly Thing[], bus: string, drafts: MacDrafts): void {
  const { values } = thing;
  const disk = wholeDisk(values.bsd ?? '');
  if (!disk) return;
  const draft = draftOf(drafts, disk);
  addMount(draft, values.mount);
  if (/s\d+$/.test(values.bsd ?? '')) {
    draft.partitioned = true;
    return;
  }
  const holder = holderOf(thing, above);
  const serial = cellText(holder?.values.serial);
  if (serial !== undefined && !isClipped(serial)) draft.serial ??= serial;
  const model = cellText([values.model, holder?.values.model, thing.name].find((name) => name !== undefined));
  if (model !== undefined) draft.model ??= model;
  if (bus !== '') draft.bus ??= bus;
  if (bus === 'usb' || bus === 'thunderbolt') draft.external ??= true;
  if (values.internal !== undefined) draft.external = /^no|^nein|^non/i.test(values.internal);
  setSize(draft, values.bytes === undefined ? (values.size ?? '') : `(${values.bytes} bytes)`);
}

const busOf = (name: string): string =>
  /usb/i.test(name)
    ? 'usb'
    : /thunderbolt/i.test(name)
      ? 'thunderbolt'
      : /nvm/i.test(name)
        ? 'nvme'
        : /sata/i.test(name)
          ? 'sata'
          : '';

function walk(thing: Thing, above: readonly Thing[], bus: string, drafts: MacDrafts): boolean {
  const found = thing.values.bsd !== undefined && wholeDisk(thing.values.bsd) !== null;
  if (found) note(thing, above, bus, drafts);
  const inside = thing.within.map((inner) => walk(inner, [...above, thing], bus, drafts));
  return found || inside.includes(true);
}

/**
 * Reads the report of macOS about its buses, in words or as JSON, into what is known of its devices.
 * @param text tidied
 * @example readProfiler('', new Map()).found // false
 */
export function readProfiler(text: string, drafts: MacDrafts): { found: boolean; cut: boolean; unread: number } {
  if (/"SP(?:USB|NVMe|SerialATA|Storage|Thunderbolt)DataType"/.test(text)) {
    const json = readLooseJson(text.slice(text.search(/\{\s*"SP/)));
    if (!json) return { found: false, cut: false, unread: 0 };
    const buses = Object.entries(asRecord(json.value)).map(([name, list]) => ({ name, things: thingsOfJson(list) }));
    const found = buses.map(({ name, things }) => things.map((thing) => walk(thing, [], busOf(name), drafts)));
    return { found: found.flat().includes(true), cut: json.cut, unread: 0 };
  }
  if (!/(?:BSD[ -][Nn]am|Nom BSD|Nombre BSD|Nome BSD)/.test(text)) return { found: false, cut: false, unread: 0 };
  const things = thingsOfText(text);
  if (!things) return { found: false, cut: false, unread: 1 };
  const found = things.map((thing) => walk(thing, [], busOf(thing.name), drafts));
  return { found: found.includes(true), cut: false, unread: 0 };
}
