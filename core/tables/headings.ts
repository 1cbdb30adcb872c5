import { unitLike, type UnitName } from '../quantities/read.ts';
import type { Column } from './table.ts';

/** A heading is a few words; what is longer is no heading. */
const LONGEST_HEADING = 200;

/** Small letters and digits alone, without accents: `Kapazität` and `kapazitat` are one heading. */
const plain = (text: string) =>
  text
    .normalize('NFD')
    .toLowerCase()
    .replaceAll('%', 'percent')
    .replace(/[^a-z0-9]+/g, '');

type Split = { measured: string; unit: string };

/** `Capacity (GB)`, `Capacity, GB`, `Capacity [GB]`, `Capacity in GB` and `Capacity GB`: what is measured, and the unit after it. */
function splitHeading(heading: string): Split | undefined {
  const whole = heading.trim();
  if (whole.length > LONGEST_HEADING) return undefined;
  const inner = /[)\]]$/.test(whole) ? whole.slice(0, -1) : whole;
  const at = Math.max(inner.lastIndexOf(','), inner.lastIndexOf('('), inner.lastIndexOf('['));
  const unit = inner.slice(at + 1).trim();
  if (at >= 0) return unit === '' || /[)\]]/.test(unit) ? undefined : { measured: inner.slice(0, at).trimEnd(), unit };
  const blank = whole.lastIndexOf(' ');
  if (blank < 0) return undefined;
  const before = whole.slice(0, blank).trimEnd();
  return { measured: before.endsWith(' in') ? before.slice(0, -3) : before, unit: whole.slice(blank + 1) };
}

/** The unit after a heading, where it measures what the column measures. */
function unitOf(heading: string, column: Column): UnitName | undefined {
  const stated = splitHeading(heading)?.unit;
  return stated && column.unit ? unitLike(stated, column.unit) : undefined;
}

/** Whether what a heading states after its words measures the column: a unit of its kind; of money, which has none, a currency. */
function measuresIt(heading: string, column: Column): boolean {
  const stated = splitHeading(heading)?.unit ?? '';
  return column.unit ? unitOf(heading, column) !== undefined : !column.choices && /^(?:[A-Z]{3}|[€$£])$/.test(stated);
}

/**
 * Gives the unit that a heading states for a column, where it is another one than the field's own.
 * @example headingUnit('Length (cm)', { path: 'lengthM', title: 'Length', required: false, unit: 'm' }) // 'cm'
 */
export function headingUnit(heading: string, column: Column | undefined): UnitName | undefined {
  const unit = column && unitOf(heading, column);
  return unit === column?.unit ? undefined : unit;
}

/**
 * Gives a cell with the unit of its heading, where it holds no more than a number.
 * @example withHeadingUnit('50', 'cm') // '50 cm'
 */
export function withHeadingUnit(cell: string, unit: UnitName | undefined): string {
  const number = cell.trim();
  const plainNumber = /^[\d.,\s\u00a0\u202f'’+-]*$/.test(number) && /\d/.test(number) && /[\d.,]$/.test(number);
  return unit && plainNumber ? `${number} ${unit}` : cell;
}

const withoutUnit = ({ title, unit }: Column) => (unit ? title.slice(0, -` (${unit})`.length) : title);
const lastOf = (path: string) => path.slice(path.lastIndexOf('.') + 1);

/** The names of a column, in the order in which they count; those of one step are equal. */
const NAMES: readonly ((column: Column) => readonly string[])[] = [
  (c) => [c.path],
  (c) => [c.title, withoutUnit(c)],
  (c) => [c.path.includes('.') ? withoutUnit(c) : (c.title.split(/,| \(/)[0] ?? c.title), lastOf(c.path)],
  (c) => [c.path.replace(/(?:TB|GB|MBps|Mm|M|W|C)$/, ''), ...(c.usual ?? [])]
];

/**
 * Tells which column of a file is which field: by the field's path, then by its title with or without the unit, then by what
 * people usually write over it. A column that matches nothing is left out, and said so; the person can assign it.
 * @returns for each heading the path, or null
 * @example matchColumns(['Length'], columnsOf(formFields(cableSchema))) // ['lengthM']
 */
export function matchColumns(headings: readonly string[], columns: readonly Column[]): (string | null)[] {
  const taken = new Set<string>();
  const found: (string | null)[] = headings.map(() => null);
  const fits = headings.map((heading) => {
    if (heading.length > LONGEST_HEADING) return () => false;
    const wanted = plain(heading);
    const measured = plain(splitHeading(heading)?.measured ?? '');
    return (column: Column, names: readonly string[]) =>
      names.some((name) => {
        const own = plain(name);
        // A unit of another measure after it makes it another thing: “Length (GB)” is no length.
        return own !== '' && (own === wanted || (own === measured && measuresIt(heading, column)));
      });
  });
  // The surest names of all columns first: a column that is only called so by some must not take the place of the one so named.
  for (const names of NAMES)
    headings.forEach((_, i) => {
      if (found[i] !== null) return;
      const column = columns.find((c) => !taken.has(c.path) && fits[i]?.(c, names(c)));
      if (!column) return;
      taken.add(column.path);
      found[i] = column.path;
    });
  return found;
}
