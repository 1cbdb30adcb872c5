import type { Knex } from 'knex';
import { partOfList, type Part, type PartOf } from './keyset';
import { likeWords } from './like';

export type LogEvent = {
  seq: number;
  at: string;
  by: string;
  kind: string;
  subjectTable: string;
  subjectId: string;
  message: string;
};

/** Whose events are meant: those of a crate, or only those of some subjects. */
type Whose = {
  crateId: string;
  subjectIds?: readonly string[] | undefined;
  /** A build whose sheets, ticks and searches belong to the log too, also those that were taken back. */
  tag?: string | undefined;
};

function eventsOf(db: Knex, { crateId, subjectIds, tag }: Whose): Knex.QueryBuilder {
  const query = db('events').where({ crate_id: crateId });
  if (subjectIds)
    query.where((any) => {
      any.whereIn('subject_id', [...subjectIds]);
      // The program itself writes the tag into what it says of these.
      if (tag)
        any.orWhere((of) =>
          of
            .whereIn('subject_table', ['sheets', 'checks', 'observations', 'attachments'])
            .whereRaw("message regexp concat('(^|[^0-9A-Za-z-])', ?, '([^0-9]|$)')", [tag])
        );
    });
  return query;
}

const fromRow = (row: Record<string, unknown>): LogEvent => ({
  seq: Number(row.seq),
  at: row.at as string,
  by: row.by as string,
  kind: row.kind as string,
  subjectTable: row.subject_table as string,
  subjectId: row.subject_id as string,
  message: row.message as string
});
/** Numbers are given as things are entered; what is entered later may have happened earlier. */
const newestFirst = (events: readonly LogEvent[]): LogEvent[] =>
  [...events].sort((a, b) => b.at.localeCompare(a.at) || b.seq - a.seq);

/** Newest first. A subject's log holds its own events and those of the runs that belong to it. */
export async function listEvents(db: Knex, { limit = 200, ...whose }: Whose & { limit?: number }): Promise<LogEvent[]> {
  return newestFirst((await eventsOf(db, whose).orderBy('seq', 'desc').limit(limit)).map(fromRow));
}

/** Part of a log, as it was entered: the newest first. */
export const eventsAfter = (db: Knex, { limit, after, ...whose }: Whose & Part): Promise<PartOf<LogEvent>> =>
  partOfList(eventsOf(db, whose), [['seq', 'desc']], { limit, after }, fromRow);

/** One page of a log, newest first. Words are looked for in what happened, who did it and what kind of thing it was. */
export async function eventPage(
  db: Knex,
  { find, page, size, ...whose }: Whose & { find: string; page: number; size: number }
): Promise<{ rows: LogEvent[]; total: number }> {
  const narrowed = () => {
    const query = eventsOf(db, whose);
    for (const like of likeWords(find)) query.whereRaw("lower(concat_ws(' ', message, `by`, kind)) like ?", [like]);
    return query;
  };
  const [rows, counted] = await Promise.all([
    narrowed()
      .orderBy('seq', 'desc')
      .limit(size)
      .offset((page - 1) * size) as Promise<Record<string, unknown>[]>,
    narrowed().count({ n: '*' }).first() as Promise<{ n: number | string }>
  ]);
  return { rows: newestFirst(rows.map(fromRow)), total: Number(counted.n) };
}

export type Past = LogEvent & {
  /** What takes it back, where its change can still be undone. */
  group?: string;
  undone: boolean;
};

/** A log with what each change can be undone by. */
export async function listHistory(db: Knex, args: Whose & { limit?: number }): Promise<Past[]> {
  return withUndo(db, args.crateId, await listEvents(db, args));
}

/** One page of the history of a crate, with what each change can be undone by. */
export async function historyPage(
  db: Knex,
  args: { crateId: string; find: string; page: number; size: number }
): Promise<{ rows: Past[]; total: number }> {
  const { rows, total } = await eventPage(db, args);
  return { rows: await withUndo(db, args.crateId, rows), total };
}

/** An event and its revision are written together, at one time by one writer. */
async function withUndo(db: Knex, crateId: string, events: readonly LogEvent[]): Promise<Past[]> {
  const ids = [...new Set(events.map((event) => event.subjectId))];
  const revisions: { row_id: string; at: string; group_id: string; undone: number }[] =
    ids.length === 0
      ? []
      : await db('revisions')
          .where({ crate_id: crateId })
          .whereIn('row_id', ids)
          .select('row_id', 'at', 'group_id', 'undone');
  const byKey = new Map(revisions.map((revision) => [`${revision.row_id} ${revision.at}`, revision]));
  return events.map((event) => {
    const revision = byKey.get(`${event.subjectId} ${event.at}`);
    return {
      ...event,
      undone: revision?.undone === 1,
      ...(revision && revision.undone !== 1 ? { group: revision.group_id } : {})
    };
  });
}
