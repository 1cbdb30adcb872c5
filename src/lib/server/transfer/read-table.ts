import { headingUnit, matchColumns, withHeadingUnit } from '#core/tables/headings';
import { fileColumns, fileFields, missingColumns } from '#core/tables/kinds-of-table';
import { phrasesOf, takeApart } from '#core/tables/phrases';
import { readRow } from '#core/tables/table';
import type { Kind } from '#core/parts/kinds';
import { checkedJson } from '../problems/json';
import { Problem } from '../problems/problem';
import { fromCsv } from './csv';
import type { ImportRequest } from './import-request';

/** A row of a file as it was read: its cells, what they say, and what is wrong with them, by column. */
type Entry = { cells: Record<string, string>; spec: Record<string, unknown>; errors: Record<string, string> };

/** A table file as it was read: its headings, which fields they are, what is needed and not there, and its rows one by one. */
export type TableRead = {
  headings: string[];
  mapping: (string | null)[];
  missing: string[];
  entries: () => Generator<Entry>;
};

/** What was put right by hand: by row, the column and what it is to hold. */
type Mended = ReadonlyMap<number, ReadonlyMap<string, string>>;

function mendedOf(request: ImportRequest): Mended {
  const rows = new Map<number, Map<string, string>>();
  for (const { row, path, cell } of request.mended ?? []) rows.set(row, (rows.get(row) ?? new Map()).set(path, cell));
  return rows;
}

/** What is wrong with a matching of columns. @throws Problem `bad-input` */
function refuseMapping(request: ImportRequest, headings: readonly string[], known: ReadonlySet<string>): void {
  request.mapping?.forEach((path, i, all) => {
    const wrong =
      i >= headings.length
        ? 'is for a column that the file does not have'
        : path !== null && !known.has(path)
          ? 'is no field'
          : path !== null && all.indexOf(path) < i
            ? 'is taken by another column'
            : undefined;
    if (wrong)
      throw new Problem('bad-input', `Column ${i + 1}: “${path}” ${wrong}.`, [
        { path: `mapping.${i}`, message: wrong }
      ]);
  });
  const strange = request.mended?.findIndex(({ path }) => !known.has(path)) ?? -1;
  if (strange >= 0)
    throw new Problem('bad-input', 'A mended cell stands in no column.', [
      { path: `mended.${strange}.path`, message: 'is no field' }
    ]);
}

/** Puts a value where a path leads. */
function setAt(spec: Record<string, unknown>, path: string, value: unknown): void {
  const [key, ...rest] = path.split('.');
  if (rest.length === 0) {
    if (value === '') delete spec[key!];
    else spec[key!] = value;
    return;
  }
  const inner = Object.hasOwn(spec, key!) ? spec[key!] : undefined;
  const next = typeof inner === 'object' && inner !== null ? inner : {};
  spec[key!] = next;
  setAt(next as Record<string, unknown>, rest.join('.'), value);
}

/** A cell as the value that it says in JSON, or the text itself. */
function valueOf(cell: string): unknown {
  try {
    return JSON.parse(cell);
  } catch {
    return cell;
  }
}

function readJson(request: ImportRequest, mended: Mended): TableRead {
  const data = checkedJson(Buffer.from(request.text), 'text');
  if (!Array.isArray(data) || !data.every((row) => typeof row === 'object' && row !== null && !Array.isArray(row)))
    throw new Problem('bad-input', 'The file must hold a list of objects.', [
      { path: 'text', message: 'must be a list of objects' }
    ]);
  const rows = data as Record<string, unknown>[];
  return {
    headings: [],
    mapping: [],
    missing: [],
    *entries() {
      for (const [i, { id: _id, ...spec }] of rows.entries()) {
        for (const [path, cell] of mended.get(i + 1) ?? []) setAt(spec, path, valueOf(cell));
        yield {
          spec,
          errors: {},
          cells: Object.fromEntries(
            Object.entries(spec).map(([k, v]) => [k, typeof v === 'object' ? JSON.stringify(v) : String(v)])
          )
        };
      }
    }
  };
}

function readCsv(request: ImportRequest, kind: Kind, mended: Mended): TableRead {
  const fields = fileFields(request.what, kind);
  const phrases = phrasesOf(request.what, kind);
  const columns = fileColumns(request.what, kind);
  const { headings, rows } = fromCsv(request.text);
  const used = request.mapping ? headings.map((_, i) => request.mapping?.[i] ?? null) : matchColumns(headings, columns);
  const units = used.map((path, i) =>
    headingUnit(
      headings[i]!,
      columns.find((c) => c.path === path)
    )
  );
  return {
    headings,
    mapping: used,
    missing: missingColumns(request.what, kind, used).map(({ path }) => path),
    *entries() {
      for (const [at, row] of rows.entries()) {
        const cells: Record<string, string> = {};
        used.forEach((path, i) => {
          if (path !== null) cells[path] = withHeadingUnit(row[i] ?? '', units[i]);
        });
        for (const [path, cell] of mended.get(at + 1) ?? []) cells[path] = cell;
        const apart = takeApart(phrases, cells);
        const read = readRow(fields, apart.cells);
        const errors = { ...read.errors, ...apart.errors };
        // What a phrase would have said is not missing beside it: the phrase is what is wrong.
        for (const { path, fills } of phrases) if (apart.errors[path]) for (const field of fills) delete errors[field];
        const more = row.slice(headings.length).filter((cell) => cell.trim() !== '').length;
        // A separator inside a name that was not quoted: everything after it stands in the wrong column.
        if (more > 0) errors[''] = `This row has more cells than there are headings (${row.length}).`;
        yield { cells, spec: read.spec, errors };
      }
    }
  };
}

/**
 * Reads a table file, CSV or JSON, with what was put right by hand.
 * @throws Problem `bad-input` where it cannot be read at all, or a column is assigned to no field
 */
export function readTable(request: ImportRequest, kind: Kind): TableRead {
  const known = new Set(fileColumns(request.what, kind).map(({ path }) => path));
  const mended = mendedOf(request);
  if (request.format === 'json') {
    refuseMapping({ ...request, mapping: undefined }, [], known);
    return readJson(request, mended);
  }
  const read = readCsv(request, kind, mended);
  refuseMapping(request, read.headings, known);
  return read;
}
