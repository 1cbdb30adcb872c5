import { describe, expect, it } from 'vitest';
import { aDrive } from '../../tests/parts';
import { headingUnit, matchColumns, withHeadingUnit } from './headings';
import { fileColumns, fileFields, missingColumns } from './kinds-of-table';
import type { FileKind } from './file-kind';
import { phrasesOf, portsSaid, takeApart } from './phrases';
import { cellsOf, guard, readRow, unguard } from './table';
import { usualHeadings } from './usual-headings';
import { KINDS, type Kind } from '../parts/kinds';

const fields = fileFields('models', 'drive');
const columns = fileColumns('models', 'drive');
const at = (path: string) => columns.find((c) => c.path === path)!;

describe('cells that a spreadsheet would run', () => {
  it.each([
    // the wide forms of East Asian keyboards, and what hides behind blanks
    ['＝1', "'＝1"],
    ['＋1', "'＋1"],
    ['－1', "'－1"],
    ['＠SUM', "'＠SUM"],
    [' =1', "' =1"],
    ["' =1", "'' =1"],
    ['=1+1', "'=1+1"],
    ['+49 30', "'+49 30"],
    ['-5', "'-5"],
    ['@cmd', "'@cmd"],
    ['\t=1', "'\t=1"],
    // one that has an apostrophe already gets one more, so that exactly one is taken away again
    ["'=1", "''=1"],
    ['plain', 'plain'],
    ["it's", "it's"],
    ['', '']
  ])('%j is written as %j and read back', (text, written) => {
    expect(guard(text)).toBe(written);
    expect(unguard(written)).toBe(text);
  });
});

describe('a part as a row', () => {
  it('comes back as it went', () => {
    const { kind: _kind, ...spec } = aDrive({ name: '=Chert', pcie: { generation: 4, lanes: 4 } });
    const cells = cellsOf(fields, spec);
    expect(cells.name).toBe("'=Chert");
    expect(cells['pcie.generation']).toBe('4');
    expect(readRow(fields, cells)).toEqual({ spec, errors: {} });
  });
  it('reads labels as well as names, yes in several words, and units', () => {
    const cells = { name: 'A', media: 'NVMe SSD', formFactor: 'M2', capacityTB: '3.64 TiB', 'flash.dram': 'true' };
    const { spec, errors } = readRow(fields, cells);
    // 3.64 x 2^40 B = 4.0022 x 10^12 B
    expect(spec.capacityTB).toBeCloseTo(4.0022, 3);
    expect(spec).toMatchObject({ media: 'nvme', formFactor: 'm2' });
    expect(Object.keys(errors)).not.toContain('media');
  });
  it('names every wrong cell', () => {
    const { errors } = readRow(fields, { name: '', media: 'floppy', formFactor: 'm2', capacityTB: '2 m' });
    expect(Object.keys(errors).sort()).toEqual(['capacityTB', 'media', 'name']);
    expect(errors.name).toBe('This cell is needed.');
  });
  it('a list cell must hold a list', () => {
    const enclosure = fileFields('models', 'enclosure');
    expect(readRow(enclosure, { name: 'E', includedPads: '{"a":1}' }).errors.includedPads).toContain('a list as JSON');
    expect(readRow(enclosure, { name: 'E', modes: 'usb-10g; warp' }).errors.modes).toContain('warp');
  });
});

describe('headings', () => {
  it('match by path, by title, by title without its unit; each field once', () => {
    expect(matchColumns(['capacityTB', 'NAME', 'Form factor', 'Name', 'colour', ''], columns)).toEqual([
      'capacityTB',
      'name',
      'formFactor',
      null,
      null,
      null
    ]);
  });
  it.each([
    ['Capacity (GB)', 'capacityTB', 'GB'],
    ['Capacity, GB', 'capacityTB', 'GB'],
    ['capacity [TiB]', 'capacityTB', 'TiB'],
    ['Length (cm)', 'capacityTB', undefined],
    ['Capacity, TB', 'capacityTB', undefined], // its own unit needs no word
    ['Name (old)', 'name', undefined]
  ])('%s at %s is in %s', (heading, path, unit) => {
    expect(headingUnit(heading, at(path))).toBe(unit);
  });
  it('match in another unit of the same measure, and of no other', () => {
    expect(matchColumns(['Capacity (GB)', 'Weight (kg)'], columns)[0]).toBe('capacityTB');
    expect(matchColumns(['Capacity (W)'], columns)).toEqual([null]);
  });
  it.each([
    ['2000', '2000 GB'],
    ['2,5', '2,5 GB'],
    ['2 TB', '2 TB'], // what the cell says counts
    ['', ''],
    ['about 2', 'about 2']
  ])('a cell %j under GB is read as %j', (cell, read) => {
    expect(withHeadingUnit(cell, 'GB')).toBe(read);
    expect(withHeadingUnit(cell, undefined)).toBe(cell);
  });
});

describe('one thing under two headings', () => {
  it('is read from the first of them alone: a second column of it would overwrite the first', () => {
    const matched = matchColumns(['Capacity, TB', 'Capacity, GB', 'capacityTB'], columns);
    expect(matched.filter((path) => path === 'capacityTB')).toHaveLength(1);
    expect(matched[0]).toBe('capacityTB');
  });
});

const filesOfAll: { what: FileKind; kind?: Kind }[] = [
  ...KINDS.map((kind) => ({ what: 'models' as const, kind })),
  { what: 'units' },
  { what: 'quotes' }
];

describe.each(filesOfAll)('the columns of $what $kind', ({ what, kind }) => {
  const all = fileColumns(what, kind);
  it('are found again by the headings that are taken out, each at its own', () => {
    const fieldsOnly = all.filter(({ path }) => !path.startsWith('said.'));
    expect(
      matchColumns(
        fieldsOnly.map((c) => c.title),
        all
      )
    ).toEqual(fieldsOnly.map((c) => c.path));
    expect(
      matchColumns(
        fieldsOnly.map((c) => c.path),
        all
      )
    ).toEqual(fieldsOnly.map((c) => c.path));
  });
  it('have usual headings only for fields that there are', () => {
    const paths = all.map(({ path }) => path);
    for (const path of Object.keys(usualHeadings(what, kind))) expect(paths).toContain(path);
    for (const { fills } of phrasesOf(what, kind)) for (const path of fills) expect(paths).toContain(path);
  });
});

describe('headings that people use', () => {
  it.each([
    ['models', 'drive', 'Read', 'readMBps'],
    ['models', 'drive', 'Write (MB/s)', 'writeMBps'],
    ['models', 'drive', 'Write MB/s', 'writeMBps'],
    ['models', 'drive', 'Cells', 'flash.cell'],
    ['models', 'drive', 'Size in GB', 'capacityTB'],
    ['models', 'drive', 'Kapazität (TB)', 'capacityTB'],
    ['models', 'drive', 'Lecture', 'readMBps'],
    ['models', 'drive', 'Escritura', 'writeMBps'],
    ['models', 'drive', 'Interface', 'said.interface'],
    ['models', 'drive', 'Kind', 'said.kind'],
    ['models', 'drive', 'TBW', 'enduranceTBW'],
    ['models', 'pad', 'Size', 'said.size'],
    ['models', 'pad', 'Dicke (mm)', 'thicknessMm'],
    ['models', 'cable', 'Ends', 'said.ends'],
    ['models', 'cable', 'Länge', 'lengthM'],
    ['models', 'enclosure', 'For', 'said.takes'],
    ['models', 'host', 'Betriebssystem', 'os.family'],
    ['quotes', undefined, 'Shop', 'vendor'],
    ['quotes', undefined, 'Price', 'list'],
    ['quotes', undefined, 'Price (EUR)', 'list'],
    ['quotes', undefined, 'Versand in CHF', 'shipping'],
    ['quotes', undefined, 'Datum', 'date'],
    ['units', undefined, 'S/N', 'serial'],
    ['units', undefined, 'Lent to', 'custodian']
  ] as const)('%s %s: “%s” is %s', (what, kind, heading, path) => {
    expect(matchColumns([heading], fileColumns(what, kind))).toEqual([path]);
  });
  it('a column that bears the name of the field goes before one that is only called so by some', () => {
    // “Interface” could say PCIe as well; the columns named after the fields stand further right
    const headings = ['Read', 'Sequential read, “up to” (MB/s)'];
    expect(matchColumns(headings, columns)).toEqual([null, 'readMBps']);
  });
  it('with a unit of another measure are not what they seem', () => {
    expect(matchColumns(['Read (°C)', 'Write (GB)'], columns)).toEqual([null, null]);
  });
});

describe('phrases', () => {
  const apart = (kind: (typeof KINDS)[number], cells: Record<string, string>) =>
    takeApart(phrasesOf('models', kind), cells);
  it.each([
    ['drive', 'said.interface', 'PCIe 4.0 x4', { 'pcie.generation': '4', 'pcie.lanes': '4' }],
    ['drive', 'said.interface', 'PCI Gen3 x2', { 'pcie.generation': '3', 'pcie.lanes': '2' }],
    ['drive', 'said.interface', 'SATA 6 Gb/s', { sataGbps: '6' }],
    ['drive', 'said.interface', 'SATA III', { sataGbps: '6' }],
    ['drive', 'said.kind', 'NVMe, M.2', { media: 'nvme', formFactor: 'm2' }],
    ['drive', 'said.kind', 'hard disk, 3.5-inch', { media: 'hdd', formFactor: '3.5in' }],
    ['drive', 'said.kind', 'SATA SSD, 2.5-inch', { media: 'sata-ssd', formFactor: '2.5in' }],
    ['enclosure', 'said.takes', 'M.2 NVMe and SATA', { formFactor: 'm2', protocols: 'nvme; sata' }],
    ['cable', 'said.ends', 'USB-C to USB-A', { 'ends.0': 'usb-c', 'ends.1': 'usb-a' }],
    ['cable', 'said.ends', 'USB-A/Micro-B', { 'ends.0': 'usb-a', 'ends.1': 'micro-b' }],
    ['pad', 'said.size', '100 × 50\u202fmm', { widthMm: '100 mm', lengthMm: '50 mm' }],
    ['pad', 'said.size', '1,5 x 2 cm', { widthMm: '1,5 cm', lengthMm: '2 cm' }],
    ['host', 'said.system', 'Linux 6.12', { 'os.family': 'linux', 'os.version': '6.12' }],
    ['host', 'said.system', 'macOS', { 'os.family': 'macos' }],
    // under the heading of the field itself
    ['host', 'os.family', 'Windows 11', { 'os.family': 'windows', 'os.version': '11' }],
    ['enclosure', 'protocols', 'M.2 NVMe and SATA', { formFactor: 'm2', protocols: 'nvme; sata' }],
    ['enclosure', 'protocols', 'nvme; sata', { protocols: 'nvme; sata' }]
  ] as const)('%s, %s: %s', (kind, path, cell, cells) => {
    expect(apart(kind, { [path]: cell })).toEqual({ cells, errors: {} });
  });
  it('never overwrite a cell of the field itself, and say how they are written where they cannot be read', () => {
    expect(apart('pad', { 'said.size': '100 x 50', widthMm: '90' }).cells).toEqual({ widthMm: '90', lengthMm: '50' });
    expect(apart('pad', { 'said.size': 'A4' }).errors['said.size']).toContain('100 x 50 mm');
  });
  it('count for the fields that they fill', () => {
    expect(missingColumns('models', 'pad', ['name', 'said.size']).map((c) => c.path)).toEqual(['thicknessMm']);
    expect(missingColumns('models', 'drive', ['name', 'capacityTB', 'said.kind'])).toEqual([]);
  });
  it('module lengths are read with the width that is printed before them', () => {
    expect(apart('enclosure', { m2LengthsMm: '2230; 2242, 2280' }).cells.m2LengthsMm).toBe('30; 42, 80');
  });
  it('ports as they are printed', () => {
    const rows = portsSaid('2 x USB-C, 10 Gb/s; Thunderbolt 4; USB-A, 5 Gb/s');
    expect(rows?.map((row) => row.id)).toEqual(['p1', 'p2', 'p3', 'p4']);
    expect(rows?.[2]).toMatchObject({ plug: 'usb-c', modes: ['tbt4-40g'], powerW: 15 });
    expect(rows?.[3]).toMatchObject({ plug: 'usb-a', modes: ['usb-5g'] });
    expect(portsSaid('3')).toBeUndefined();
    expect(apart('host', { ports: 'three' }).errors.ports).toContain('semicolons');
  });
});

describe('a cell with choices', () => {
  const read = (path: string, cell: string) =>
    readRow(fields, { name: 'A', media: 'nvme', formFactor: 'm2', capacityTB: '1', [path]: cell });
  it.each([
    ['media', 'NVMe', { media: 'nvme' }],
    ['media', 'hard', { media: 'hdd' }],
    ['formFactor', '2.5"', { formFactor: '2.5in' }],
    ['pcie.generation', 'Gen 4', undefined],
    ['m2Key', 'B+M', { m2Key: 'B+M' }],
    ['flash.dram', 'nein', { flash: { dram: false } }]
  ] as const)('%s: “%s”', (path, cell, spec) => {
    if (spec) expect(read(path, cell)).toMatchObject({ spec, errors: {} });
    // the lanes are missing, the generation is read
    else expect(Object.keys(read(path, cell).errors)).toEqual(['pcie.lanes']);
  });
  it('lists its choices where none is meant', () => {
    expect(read('media', 'tape').errors.media).toBe('“tape” is not one of the choices: NVMe SSD, SATA SSD, hard disk.');
  });
  it('of several takes commas where each word between them is a choice', () => {
    const enclosure = fileFields('models', 'enclosure');
    const { spec, errors } = readRow(enclosure, { name: 'E', modes: 'USB 10 Gb/s, USB 20 Gb/s (2x2)' });
    expect(spec.modes).toEqual(['usb-10g', 'usb-20g']);
    expect(errors.modes).toBeUndefined();
  });
  it('a day is read as people write it', () => {
    const prices = fileFields('quotes');
    const { spec } = readRow(prices, { part: 'A', vendor: 'B', date: '26 Nov 2026', currency: 'EUR', list: '10' });
    expect(spec.date).toBe('2026-11-26');
  });
});
