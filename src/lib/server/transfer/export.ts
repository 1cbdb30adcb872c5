import type { Knex } from 'knex';
import { cellsOf, columnsOf } from '#core/tables/table';
import { fileFields } from '#core/tables/kinds-of-table';
import type { FileKind } from '#core/tables/file-kind';
import type { Kind } from '#core/parts/kinds';
import { listModels } from '../repositories/models';
import { listQuotes } from '../repositories/quotes';
import { unitTable } from '../repositories/unit-table';
import { toCsv } from './csv';

type Row = Record<string, unknown>;

/** The rows of a file as the contract names their fields; parts and builds by name and tag, for ids mean nothing elsewhere. */
export async function exportedRows(db: Knex, args: { crateId: string; what: FileKind; kind?: Kind }): Promise<Row[]> {
  const { crateId, what, kind = 'drive' } = args;
  if (what === 'models')
    return (await listModels(db, { crateId, kind })).map(({ spec }) => {
      const { id: _id, ...rest } = spec;
      return rest;
    });
  if (what === 'units') {
    const { rows } = await unitTable(db, { crateId, size: 1_000_000 });
    return rows.map(({ unit, model, build }) => {
      const { id: _id, modelId: _model, buildId: _build, ...rest } = unit;
      return { ...rest, model: model.name, kind: model.kind, ...(build ? { build: build.tag } : {}) };
    });
  }
  const [quotes, models] = await Promise.all([listQuotes(db, { crateId }), listModels(db, { crateId })]);
  const byId = new Map(models.map(({ id, spec }) => [id, spec]));
  return quotes.map(({ quote }) => {
    const { partId, ...rest } = quote;
    const { name, kind: of } = byId.get(partId)!;
    return { ...rest, part: name, kind: of };
  });
}

/** A table file of parts of one kind, items or prices; `empty` gives its headings alone, to be filled in. */
export async function exportFile(
  db: Knex,
  args: { crateId: string; what: FileKind; kind?: Kind; format: 'csv' | 'json'; empty?: boolean }
): Promise<string> {
  const rows = args.empty ? [] : await exportedRows(db, args);
  if (args.format === 'json') return `${JSON.stringify(rows, null, 2)}\n`;
  const fields = fileFields(args.what, args.kind);
  const columns = columnsOf(fields);
  return toCsv(
    columns.map(({ title }) => title),
    rows.map((row) => {
      const cells = cellsOf(fields, row);
      return columns.map(({ path }) => cells[path] ?? '');
    })
  );
}
