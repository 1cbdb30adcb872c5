import type { Knex } from 'knex';
import type { z } from 'zod';
import type { FileKind } from '#core/tables/file-kind';
import { rowSchemas, type QuoteRowSpec, type UnitRowSpec } from '#core/tables/kinds-of-table';
import type { Kind } from '#core/parts/kinds';
import { MODEL_SCHEMAS, type Model } from '#core/parts/model';
import { tagKey } from '#core/parts/tag';
import { quoteProblems, quoteSchema, type Quote } from '#core/parts/quote';
import { unitSchema, type Unit } from '#core/parts/item';
import { changeMany, newId } from '../db/change';
import type { StoredTable } from '../db/stored-table';
import { writing } from '../db/writing';
import { plainIssue } from '../problems/plain-words';
import { Problem } from '../problems/problem';
import { buildTags } from '../repositories/builds';
import { listModels, modelToRow as modelRow } from '../repositories/models';
import { listQuotes, quoteToRow as quoteRow } from '../repositories/quotes';
import { countTags, listUnits, unitToRow as unitRow } from '../repositories/units';
import type { TaskControl } from '../work/control';
import type { ImportRequest } from './import-request';
import { readTable } from './read-table';

/** What becomes of a row: a new thing, a change to one that is there, nothing because it is there already, or nothing because it is wrong. */
export type RowOutcome = 'new' | 'changed' | 'same' | 'wrong';
type Planned = {
  row: number;
  outcome: RowOutcome;
  name: string;
  cells: Record<string, string>;
  errors: Record<string, string>;
  write?: { table: StoredTable; id: string; version?: number; row: Record<string, unknown> };
};
export type ImportPlan = {
  headings: string[];
  mapping: (string | null)[];
  missing: string[];
  rows: Planned[];
  counts: Record<RowOutcome, number>;
};

/** Most rows of one file. */
const ROWS = 50_000;
/** Rows between two breaths: a preview must not hold up other pages. */
const YIELD_EVERY_ROWS = 250;

/** What is stored already, by the key that makes a row the same thing: with it the same file twice makes no doubles. */
type Known = Map<string, { id: string; version: number; value: string }>;
type Target = {
  table: StoredTable;
  known: Known;
  /** Checks a row and says its key, its name and what would be stored. */
  read(
    spec: Record<string, unknown>
  ):
    | { key: string; name: string; value: unknown; row: Record<string, unknown> }
    | { errors: Record<string, string>; name: string };
};

const fold = (text: unknown) =>
  String(text ?? '')
    .trim()
    .toLowerCase();
const sorted = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(sorted)
    : value !== null && typeof value === 'object'
      ? Object.fromEntries(
          Object.entries(value)
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([k, v]) => [k, sorted(v)])
        )
      : value;
const same = (value: unknown) => JSON.stringify(sorted(value));
const capital = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;
const issuesOf = (error: z.ZodError) =>
  Object.fromEntries(error.issues.map((issue) => [issue.path.join('.'), `${capital(plainIssue(issue))}.`]));

/** Finds a part by its name, within its kind where that is given. */
async function partsByName(db: Knex, crateId: string) {
  const models = await listModels(db, { crateId });
  return {
    nameOf: new Map(models.map(({ id, spec }) => [id, spec])),
    find(name: string, kind: Kind | undefined): { id: string } | { error: string } {
      const found = models.filter(({ spec }) => fold(spec.name) === fold(name) && (!kind || spec.kind === kind));
      if (found.length === 1) return { id: found[0]!.id };
      return {
        error:
          found.length === 0
            ? `There is no part “${name}” in the crate.`
            : `Several parts are called “${name}”; say the kind.`
      };
    }
  };
}

// eslint-disable-next-line max-params -- what a row of a file is imported into
async function targetOf(db: Knex, crateId: string, what: FileKind, kind: Kind, today: string): Promise<Target> {
  if (what === 'models') {
    const stored = await listModels(db, { crateId, kind });
    return {
      table: 'models',
      known: new Map(
        stored.map(({ id, version, spec: { id: _id, ...spec } }) => [
          fold(spec.name),
          { id, version, value: same(spec) }
        ])
      ),
      read(spec) {
        const parsed = MODEL_SCHEMAS[kind].safeParse({ kind, ...spec });
        if (!parsed.success) return { errors: issuesOf(parsed.error), name: String(spec.name ?? '') };
        const { id: _id, ...value } = parsed.data;
        return { key: fold(value.name), name: value.name, value, row: modelRow(parsed.data as Model) };
      }
    };
  }
  const parts = await partsByName(db, crateId);
  if (what === 'units') {
    const [stored, builds] = await Promise.all([listUnits(db, { crateId }), buildTags(db, crateId)]);
    return {
      table: 'units',
      known: new Map(
        stored.map(({ id, version, unit: { id: _id, ...unit } }) => [
          tagKey(unit.tag),
          { id, version, value: same(unit) }
        ])
      ),
      read(spec) {
        const parsed = rowSchemas.units.safeParse(spec);
        const name = String(spec.tag ?? '');
        if (!parsed.success) return { errors: issuesOf(parsed.error), name };
        const { model, kind: of, build, ...rest }: UnitRowSpec = parsed.data;
        const part = parts.find(model, of);
        if ('error' in part) return { errors: { model: part.error }, name };
        const buildId = builds.find((b) => fold(b.tag) === fold(build))?.id;
        if (build && !buildId) return { errors: { build: `There is no build “${build}”.` }, name };
        const value: Unit = unitSchema.parse({ ...rest, modelId: part.id, ...(buildId ? { buildId } : {}) });
        return { key: tagKey(value.tag), name, value, row: unitRow(value) };
      }
    };
  }
  const stored = await listQuotes(db, { crateId });
  const keyOf = (quote: Quote) => [quote.partId, fold(quote.vendor), quote.date, quote.currency].join('|');
  return {
    table: 'quotes',
    known: new Map(stored.map(({ id, version, quote }) => [keyOf(quote), { id, version, value: same(quote) }])),
    read(spec) {
      const parsed = rowSchemas.quotes.safeParse(spec);
      const name = `${String(spec.part ?? '')}, ${String(spec.vendor ?? '')}`;
      if (!parsed.success) return { errors: issuesOf(parsed.error), name };
      const { part: wanted, kind: of, ...rest }: QuoteRowSpec = parsed.data;
      const part = parts.find(wanted, of);
      if ('error' in part) return { errors: { part: part.error }, name };
      const value = quoteSchema.parse({ ...rest, partId: part.id });
      const problems = quoteProblems(value, today);
      if (problems.length > 0)
        return { errors: Object.fromEntries(problems.map((p) => [p.path, `${p.message}.`])), name };
      return { key: keyOf(value), name, value, row: quoteRow(value) };
    }
  };
}

/**
 * What an import would do, row by row, without doing it.
 * @throws Problem `bad-input` where the file cannot be read at all, or has too many rows
 */
// eslint-disable-next-line complexity -- one row at a time, from reading to its outcome
export async function planImport(
  db: Knex,
  crateId: string,
  request: ImportRequest,
  work?: TaskControl
): Promise<ImportPlan> {
  const kind = request.kind ?? 'drive';
  const { entries, ...head } = readTable(request, kind);
  const target = await targetOf(db, crateId, request.what, kind, new Date().toISOString().slice(0, 10));
  const rows: Planned[] = [];
  const counts: Record<RowOutcome, number> = { new: 0, changed: 0, same: 0, wrong: 0 };
  const seen = new Map<string, number>();
  let row = 0;
  for (const { cells, spec, errors } of entries()) {
    row += 1;
    if (row > ROWS)
      throw new Problem('bad-input', `A file may hold ${ROWS} rows at most.`, [
        { path: 'text', message: 'holds too many rows' }
      ]);
    if (row % YIELD_EVERY_ROWS === 0) {
      if (work) await work.report(`Reading row ${row}`, row, 0);
      else await new Promise<void>((done) => setImmediate(done));
    }
    const planned: Planned = { row, outcome: 'wrong', name: '', cells, errors: { ...errors } };
    rows.push(planned);
    if (Object.keys(errors).length > 0) planned.name = String(spec.name ?? spec.tag ?? spec.part ?? '');
    else {
      const read = target.read(spec);
      planned.name = read.name;
      if ('errors' in read) planned.errors = read.errors;
      else if (seen.has(read.key)) planned.errors = { '': `This is the same thing as row ${seen.get(read.key)}.` };
      else {
        seen.set(read.key, row);
        const stored = target.known.get(read.key);
        planned.outcome = !stored ? 'new' : stored.value === same(read.value) ? 'same' : 'changed';
        if (planned.outcome !== 'same')
          planned.write = {
            table: target.table,
            id: stored?.id ?? newId(),
            ...(stored ? { version: stored.version } : {}),
            row: read.row
          };
      }
    }
    counts[planned.outcome] += 1;
  }
  // A column that another one says for every row is not missed.
  const missing = head.missing.filter((path) => rows.length === 0 || rows.some(({ errors }) => errors[path]));
  return { ...head, missing, rows, counts };
}

/**
 * Does an import: all of it in one transaction and one group, or nothing.
 * @throws Problem `bad-input` with the first wrong rows, unless they are to be left out
 */
export async function runImport(
  db: Knex,
  args: { crateId: string; request: ImportRequest; by: string; at: string },
  work: TaskControl
): Promise<{ group: string; counts: Record<RowOutcome, number> }> {
  const { crateId, request, by, at } = args;
  // Read again by whoever writes, alone in the crate: what another import has just added is there by then.
  return writing(db, crateId, async (trx) => {
    const plan = await planImport(trx, crateId, request, work);
    const wrong = plan.rows.filter((row) => row.outcome === 'wrong');
    if (wrong.length > 0 && !request.skipWrong)
      throw new Problem(
        'bad-input',
        `${wrong.length === 1 ? 'One row is' : `${wrong.length} rows are`} wrong; nothing was imported.`,
        wrong
          .slice(0, 100)
          .flatMap((row) =>
            Object.entries(row.errors).map(([path, message]) => ({ path: `rows.${row.row}.${path}`, message }))
          )
      );
    const group = newId();
    const writes = plan.rows.flatMap((row) => (row.write ? [row.write] : []));
    const inserts = writes.filter((write) => write.version === undefined);
    const updates = writes.flatMap((write) =>
      write.version === undefined ? [] : [{ ...write, version: write.version }]
    );
    const words = request.what === 'models' ? 'parts' : request.what;
    if (request.what === 'units')
      await countTags(
        trx,
        crateId,
        writes.map(({ row }) => String(row.tag))
      );
    await changeMany(trx, {
      crateId,
      by,
      at,
      group,
      event: {
        kind: 'imported',
        message: `Imported ${words}: ${plan.counts.new} new, ${plan.counts.changed} changed.`
      },
      inserts,
      updates,
      progress: (done) => work.report(`Writing ${done} of ${writes.length}`, done, writes.length)
    });
    const done = { group, counts: plan.counts };
    await work.commit(trx, done);
    return done;
  });
}
