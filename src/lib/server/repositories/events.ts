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
  args: { crateId: string; subjectIds?: readonly string[]; limit?: number }
): Promise<LogEvent[]> {
  const query = db('events')
    .where({ crate_id: args.crateId })
    .orderBy('seq', 'desc')
    .limit(args.limit ?? 200);
  if (args.subjectIds) query.whereIn('subject_id', [...args.subjectIds]);
  return (await query).map((row) => ({
    seq: Number(row.seq),
    at: row.at,
    by: row.by,
    kind: row.kind,
    subjectTable: row.subject_table,
    subjectId: row.subject_id,
    message: row.message
  }));
}
