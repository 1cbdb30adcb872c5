import type { Knex } from 'knex';

/** Puts a content in place; one that is there already stays, and counts as put there now. */
export async function putContent(db: Knex, crateId: string, file: { sha256: string; content: Buffer }): Promise<void> {
  const there = await db('files').where({ crate_id: crateId, sha256: file.sha256 }).update({ added_at: Date.now() });
  // Most of what is restored is here already, and need not be sent again.
  if (there > 0) return;
  await db('files')
    .insert({ crate_id: crateId, ...file, added_at: Date.now() })
    .onConflict(['crate_id', 'sha256'])
    .merge(['added_at']);
}

/** A content that was put in place so long ago without being named is named by nothing any more. */
const GRACE_MS = 86_400_000;

/**
 * Removes contents that nothing names: no file, and no change that could bring one back. They are left by an archive that was refused
 * half way, by a process that ended in the middle of one, and by the state before a restore.
 */
export const forgetUnusedContents = (db: Knex, now = Date.now()): Promise<number> =>
  db('files')
    .where('added_at', '<', now - GRACE_MS)
    .whereRaw('not exists (select 1 from attachments a where a.crate_id = files.crate_id and a.sha256 = files.sha256)')
    .whereRaw(
      "not exists (select 1 from revisions r where r.crate_id = files.crate_id and r.row_table = 'attachments' and files.sha256 in (json_value(r.`before`, '$.sha256'), json_value(r.`after`, '$.sha256')))"
    )
    .delete();
