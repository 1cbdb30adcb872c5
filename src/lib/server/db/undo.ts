import type { Knex } from 'knex';
import { notFound, Problem } from '../problems/problem';
import { BATCH, change, newId, recordEvent } from './change';
import type { Row, StoredTable } from './stored-table';
import { markAllDue } from './due';
import { writing } from './writing';

type Revision = {
  id: string;
  at: string;
  by: string;
  row_table: StoredTable;
  row_id: string;
  before: Row | null;
  after: Row | null;
  undone: number;
};
type By = { crateId: string; by: string; at: string };
/** Whose undo it is, and what the log says of each row: nothing where one event stands for all of them. */
type Base = By & { group: string; single: boolean };

/** What a row belongs to: without it the row cannot be. */
const PARENTS: Partial<Record<StoredTable, readonly { column: string; table: StoredTable }[]>> = {
  units: [{ column: 'model_id', table: 'models' }],
  quotes: [{ column: 'part_id', table: 'models' }],
  pairs: [{ column: 'drive_id', table: 'models' }],
  runs: [
    { column: 'build_id', table: 'builds' },
    { column: 'host_id', table: 'models' },
    { column: 'model_id', table: 'models' }
  ],
  observations: [{ column: 'build_id', table: 'builds' }],
  sheets: [{ column: 'build_id', table: 'builds' }],
  checks: [{ column: 'sheet_id', table: 'sheets' }]
};

/** What can hang on a row: the table, the column that names the row, and how it is called. */
const HANGING: Partial<
  Record<StoredTable, readonly { table: StoredTable; column: string; one: string; many: string }[]>
> = {
  models: [
    { table: 'units', column: 'model_id', one: 'item', many: 'items' },
    { table: 'quotes', column: 'part_id', one: 'price', many: 'prices' },
    { table: 'pairs', column: 'drive_id', one: 'known combination', many: 'known combinations' },
    { table: 'runs', column: 'host_id', one: 'result', many: 'results' },
    { table: 'runs', column: 'model_id', one: 'result', many: 'results' },
    { table: 'attachments', column: 'subject_id', one: 'file', many: 'files' }
  ],
  runs: [{ table: 'attachments', column: 'subject_id', one: 'file', many: 'files' }],
  units: [{ table: 'attachments', column: 'subject_id', one: 'file', many: 'files' }],
  builds: [
    { table: 'runs', column: 'build_id', one: 'result', many: 'results' },
    { table: 'observations', column: 'build_id', one: 'observation', many: 'observations' },
    { table: 'sheets', column: 'build_id', one: 'run sheet', many: 'run sheets' },
    { table: 'units', column: 'build_id', one: 'item', many: 'items' },
    { table: 'attachments', column: 'subject_id', one: 'file', many: 'files' }
  ],
  sheets: [
    { table: 'checks', column: 'sheet_id', one: 'tick or note', many: 'ticks and notes' },
    { table: 'attachments', column: 'subject_id', one: 'photograph', many: 'photographs' }
  ]
};

const WORD: Record<StoredTable, string> = {
  crates: 'crate',
  models: 'part',
  units: 'item',
  quotes: 'price',
  jobs: 'job',
  builds: 'build',
  runs: 'result',
  observations: 'observation',
  rates: 'rate',
  pairs: 'known combination',
  sheets: 'run sheet',
  checks: 'tick or note',
  attachments: 'file'
};

const nameOf = (row: Row | null): string => String(row?.tag ?? row?.name ?? '');
const called = (table: StoredTable, row: Row | null) =>
  nameOf(row) ? `The ${WORD[table]} ${nameOf(row)}` : `This ${WORD[table]}`;

/** A thing that stands in the way of an undo. */
export type InTheWay = { table: StoredTable; id: string; name: string };

const refuse = (message: string, inTheWay: readonly InTheWay[]) => new Problem('conflict', message, [], { inTheWay });

/**
 * Takes a group of changes back, the last one first, by writing what was there before; this is a group of changes of its own,
 * so it can be undone too.
 * @throws Problem `conflict`, with a sentence that says why and `details.inTheWay`, when one of the rows has been changed again
 * since, when something hangs on it by now, when what it belongs to is gone, or when its tag was given to another; nothing is
 * taken back then
 */
export async function undo(
  db: Knex,
  args: By & { group: string }
): Promise<{ group: string; rows: { table: StoredTable; id: string }[] }> {
  const { crateId, group, by, at } = args;
  const work = async (trx: Knex.Transaction) => {
    const revisions: Revision[] = await trx('revisions')
      .where({ group_id: group, crate_id: crateId })
      .orderBy('id', 'desc')
      .forUpdate();
    if (revisions.length === 0) throw notFound('change');
    if (revisions.some((revision) => revision.undone)) throw refuse('This has been undone already.', []);
    const undoing = newId();
    const said = revisions.length > 1 ? await singleEventOf(trx, revisions, { crateId, group }) : undefined;
    const base = { crateId, by, at, group: undoing, single: said !== undefined };
    if (said !== undefined) await recordEvent(trx, base, { kind: 'undone', message: said }, subjectOf(revisions));
    if (revisions.length > BATCH && revisions.every((revision) => revision.before === null)) {
      await takeBackInserts(trx, revisions, base);
      await trx('revisions').where({ group_id: group }).update({ undone: true });
      return { group: undoing, rows: [subjectOf(revisions)] };
    }
    for (const revision of revisions) await takeBack(trx, revision, base);
    await trx('revisions').where({ group_id: group }).update({ undone: true });
    return { group: undoing, rows: revisions.map(({ row_table, row_id }) => ({ table: row_table, id: row_id })) };
  };
  // The deletion of a crate is undone while the crate is hidden.
  return writing(db, crateId, work, { hidden: true });
}

const subjectOf = ([first]: readonly Revision[]) => ({ table: first!.row_table, id: first!.row_id });

const UNDID = 'Undid a change: ';
const REDID = 'Did it again: ';

/**
 * Gives what the log says of an undo whose change was told in one event, as an import is: one event too.
 * @returns undefined where each row was told of
 */
async function singleEventOf(
  trx: Knex.Transaction,
  revisions: readonly Revision[],
  { crateId, group }: { crateId: string; group: string }
): Promise<string | undefined> {
  const [{ at, by }] = revisions as [Revision];
  const events: { message: string }[] = await trx('events')
    .where({ crate_id: crateId, at, by })
    .whereIn('subject_id', trx('revisions').where({ group_id: group }).select('row_id'))
    .limit(2)
    .select('message');
  const [{ message } = { message: '' }] = events;
  if (events.length !== 1) return undefined;
  if (message.startsWith(UNDID)) return `${REDID}${message.slice(UNDID.length)}`;
  return `${UNDID}${message.startsWith(REDID) ? message.slice(REDID.length) : message}`;
}

async function takeBack(trx: Knex.Transaction, revision: Revision, base: Base): Promise<void> {
  const { row_table: table, row_id: id, before, after } = revision;
  const later = await trx('revisions')
    .where({ row_id: id })
    .where('id', '>', revision.id)
    .whereNot({ group_id: base.group })
    .first('id');
  if (later)
    throw refuse(`${called(table, after ?? before)} was changed again since; undo the later change first.`, [
      { table, id, name: nameOf(after ?? before) }
    ]);
  const event = base.single ? null : { kind: 'undone', message: `${UNDID}${labelOf(before ?? after, table)}.` };
  if (before === null) {
    const version = await currentVersion(trx, table, id);
    await refuseHanging(trx, table, [id], called(table, after));
    await change(trx, { ...base, action: 'delete', table, id, version, event });
    return;
  }
  const row = await mended(trx, { table, id, crateId: base.crateId }, before);
  if (after === null) {
    await change(trx, {
      ...base,
      action: 'insert',
      table,
      id,
      event,
      row,
      revived: {
        version: (await lastVersion(trx, id, before)) + 1,
        createdAt: String(before.created_at ?? base.at),
        updatedAt: String(before.updated_at ?? base.at)
      }
    });
    return;
  }
  const version = await currentVersion(trx, table, id);
  await change(trx, { ...base, action: 'update', table, id, version, event, row });
}

/** Locks a row and gives its version. @throws Problem `not-found` where it is gone */
async function currentVersion(trx: Knex.Transaction, table: StoredTable, id: string): Promise<number> {
  const current = (await trx(table).where({ id }).forUpdate().first('version')) as { version: number } | undefined;
  if (!current) throw notFound(WORD[table]);
  return current.version;
}

/** What a row is called in the log. */
const labelOf = (row: Row | null, table: StoredTable): string => String(row?.name ?? row?.tag ?? table);

/** Columns that are not put back with the rest: the key, and what every change sets itself. */
function columnsOf(before: Row): Row {
  const { id: _id, crate_id: _crate, created_at: _created, updated_at: _updated, version: _version, ...row } = before;
  return row;
}

/** Gives the version a deleted row had; deletions of an earlier program did not keep it: every change of a row counted it up by one. */
async function lastVersion(trx: Knex.Transaction, id: string, before: Row): Promise<number> {
  if (typeof before.version === 'number') return before.version;
  const [{ n }] = (await trx('revisions').where({ row_id: id }).count({ n: '*' })) as [{ n: number | string }];
  return Number(n);
}

/**
 * The columns of a row that is to be put back, where that is possible by now.
 * @throws Problem `conflict` where what it belongs to is gone, or its tag belongs to another
 */
async function mended(
  trx: Knex.Transaction,
  { table, id, crateId }: { table: StoredTable; id: string; crateId: string },
  before: Row
): Promise<Row> {
  const row = columnsOf(before);
  await refuseOrphan(trx, table, row, crateId);
  // A run that comes back holds no drive: whoever measured it then has ended.
  if (table === 'runs') return { ...row, busy_drive: null };
  return table === 'units' ? mendedUnit(trx, id, crateId, row) : row;
}

/** @throws Problem `conflict` where what a row belongs to is gone */
async function refuseOrphan(trx: Knex.Transaction, table: StoredTable, row: Row, crateId: string): Promise<void> {
  const parents = [
    ...(PARENTS[table] ?? []),
    ...(table === 'attachments' ? [{ column: 'subject_id', table: row.subject_table as StoredTable }] : [])
  ];
  for (const parent of parents) {
    if (row[parent.column] === null || row[parent.column] === undefined) continue;
    const parentId = String(row[parent.column]);
    if (await trx(parent.table).where({ id: parentId, crate_id: crateId }).forUpdate().first('id')) continue;
    const last = (await trx('revisions').where({ row_id: parentId }).orderBy('id', 'desc').first('before')) as
      { before: Row | null } | undefined;
    throw refuse(
      `${called(parent.table, last?.before ?? null)}, to which this ${WORD[table]} belongs, was deleted since; undo that first.`,
      [{ table: parent.table, id: parentId, name: nameOf(last?.before ?? null) }]
    );
  }
}

/**
 * Gives the columns of an item that comes back: where its build is gone, it lies free.
 * @throws Problem `conflict` where its tag belongs to another
 */
async function mendedUnit(trx: Knex.Transaction, id: string, crateId: string, row: Row): Promise<Row> {
  const holder = (await trx('units')
    .where({ crate_id: crateId, tag: row.tag as string })
    .whereNot({ id })
    .forUpdate()
    .first('id', 'tag')) as { id: string; tag: string } | undefined;
  if (holder)
    throw refuse(`Another item has the tag ${holder.tag} by now; give that one another tag first.`, [
      { table: 'units', id: holder.id, name: holder.tag }
    ]);
  const inBuild =
    row.build_id &&
    (await trx('builds')
      .where({ id: row.build_id as string })
      .first('id'));
  return { ...row, build_id: inBuild ? row.build_id : null };
}

/** How many names a sentence lists. */
const NAMED = 5;

/** @throws Problem `conflict` with the names of what hangs on any of these rows */
async function refuseHanging(
  trx: Knex.Transaction,
  table: StoredTable,
  ids: readonly string[],
  what: string
): Promise<void> {
  const groups: string[] = [];
  const inTheWay: InTheWay[] = [];
  for (const { table: other, column, one, many } of HANGING[table] ?? []) {
    const rows: Row[] = await trx(other)
      .whereIn(column, [...ids])
      .forUpdate()
      .select('*');
    if (rows.length === 0) continue;
    const names = rows
      .map(nameOf)
      .filter((name) => name !== '')
      .slice(0, NAMED);
    const list = names.length > 0 ? ` (${names.join(', ')}${rows.length > names.length ? ' and more' : ''})` : '';
    groups.push(`${rows.length === 1 ? `1 ${one}` : `${rows.length} ${many}`}${list}`);
    inTheWay.push(
      ...rows.slice(0, NAMED).map((row) => ({ table: other, id: String(row.id), name: nameOf(row) || one }))
    );
  }
  if (groups.length === 0) return;
  const last = groups.pop()!;
  const things = groups.length > 0 ? `${groups.join(', ')} and ${last}` : last;
  const one = inTheWay.length === 1;
  throw refuse(
    `${what} cannot be undone: ${things} ${one ? 'hangs' : 'hang'} on it by now. Remove ${one ? 'it' : 'them'} first.`,
    inTheWay
  );
}

/** Undoes a large import: the same checks as row by row, in batches. */
async function takeBackInserts(trx: Knex.Transaction, revisions: readonly Revision[], base: Base): Promise<void> {
  const { crateId, by, at, group } = base;
  for (let i = 0; i < revisions.length; i += BATCH) {
    const batch = revisions.slice(i, i + BATCH);
    const ids = batch.map((revision) => revision.row_id);
    const newest: { row_id: string; n: number | string }[] = await trx('revisions')
      .whereIn('row_id', ids)
      .groupBy('row_id')
      .select('row_id')
      .count({ n: '*' });
    if (newest.some(({ n }) => Number(n) > 1))
      throw refuse('Some of this was changed again since; undo the later changes first.', []);
    for (const table of new Set(batch.map((revision) => revision.row_table))) {
      const own = batch.flatMap((revision) => (revision.row_table === table ? [revision.row_id] : []));
      await refuseHanging(trx, table, own, 'What was added');
      const gone = await trx(table).whereIn('id', own).delete();
      if (gone !== own.length) throw notFound(WORD[table]);
    }
    await trx('revisions').insert(
      batch.map(({ row_table, row_id, after }) => ({
        id: newId(),
        group_id: group,
        crate_id: crateId,
        at,
        by,
        row_table,
        row_id,
        before: JSON.stringify({ ...after, version: 1, updated_at: after?.created_at }),
        after: null
      }))
    );
  }
  await markAllDue(trx, crateId);
  if (base.single) return;
  const message = `${UNDID}${revisions.length} additions.`;
  await recordEvent(trx, base, { kind: 'undone', message }, subjectOf(revisions));
}
