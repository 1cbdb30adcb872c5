import type { Knex } from 'knex';

export type LogEvent = {
  seq: number;
  at: string;
  by: string;
  kind: string;
  subjectTable: string;
  subjectId: string;
  message: string;
};

/** Newest first. A subject's log holds its own events and those of the runs that belong to it. */
export async function listEvents(
  db: Knex,
  args: {
    crateId: string;
    subjectIds?: readonly string[];
    /** A build whose sheets, ticks and searches belong to the log too, also those that were taken back. */
    tag?: string;
    limit?: number;
  }
): Promise<LogEvent[]> {
  const query = db('events')
    .where({ crate_id: args.crateId })
    .orderBy('seq', 'desc')
    .limit(args.limit ?? 200);
  const { subjectIds, tag } = args;
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
  const newest: LogEvent[] = (await query).map((row) => ({
    seq: Number(row.seq),
    at: row.at,
    by: row.by,
    kind: row.kind,
    subjectTable: row.subject_table,
    subjectId: row.subject_id,
    message: row.message
  }));
  // Numbers are given as things are entered; what is entered later may have happened earlier.
  return newest.sort((a, b) => b.at.localeCompare(a.at) || b.seq - a.seq);
}

export type Past = LogEvent & {
  /** What takes it back, where its change can still be undone. */
  group?: string;
  undone: boolean;
};

/** The log with what each change can be undone by: an event and its revision are written together, at one time by one writer. */
export async function listHistory(
  db: Knex,
  args: { crateId: string; subjectIds?: readonly string[]; limit?: number }
): Promise<Past[]> {
  const events = await listEvents(db, args);
  const ids = [...new Set(events.map((event) => event.subjectId))];
  const revisions: { row_id: string; at: string; group_id: string; undone: number }[] =
    ids.length === 0
      ? []
      : await db('revisions')
          .where({ crate_id: args.crateId })
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
