import { describe, expect, it } from 'vitest';
import { aDrive } from '../../tests/parts';
import { fileFields } from './kinds-of-table';
import { cellsOf, columnsOf, guard, headingUnit, matchColumns, readRow, unguard, withHeadingUnit } from './table';

const fields = fileFields('models', 'drive');
const columns = columnsOf(fields);
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
