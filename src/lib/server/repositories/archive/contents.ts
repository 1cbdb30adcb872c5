import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { refuseArchive, type Line } from './lines';
import { sha256Schema } from './rows';

/**
 * Contents of files in an archive. They are named by their digest and never change, so they are written before the rows that name them
 * and outside of any snapshot, and put in place before those rows: nobody sees them until then.
 */
const PAGE = 500;

/** The contents of one crate or of all, one a line, each once. @param written those that stand in the archive already; added to */
export async function* contentLines(
  db: Knex,
  written: Set<string>,
  crateId?: string
): AsyncGenerator<{ table: 'files'; row: { crate_id: string; sha256: string; content: { base64: string } } }> {
  for (let after: [string, string] = ['', '']; ;) {
    const page = (await db('files')
      .whereRaw('(crate_id, sha256) > (?, ?)', after)
      .modify((query) => void (crateId && query.where({ crate_id: crateId })))
      .orderBy('crate_id')
      .orderBy('sha256')
      .limit(PAGE)
      .select('crate_id', 'sha256')) as { crate_id: string; sha256: string }[];
    for (const { crate_id, sha256 } of page) {
      const key = `${crate_id} ${sha256}`;
      if (written.has(key)) continue;
      written.add(key);
      const file = (await db('files').where({ crate_id, sha256 }).first('content')) as { content: Buffer } | undefined;
      // Purged with its crate since the page was read: no row names it any more.
      if (file)
        yield { table: 'files', row: { crate_id, sha256, content: { base64: file.content.toString('base64') } } };
    }
    if (page.length < PAGE) return;
    after = [page.at(-1)!.crate_id, page.at(-1)!.sha256];
  }
}

/** Reads the content out of a line and checks it against its digest. */
export function contentOf(row: Line, path: string): { sha256: string; content: Buffer } {
  const { sha256, content } = row as { sha256: unknown; content: unknown };
  const base64 = (content as { base64?: unknown } | null)?.base64 ?? content;
  if (!sha256Schema.safeParse(sha256).success) throw refuseArchive('must be a SHA-256 in hex', `${path}.sha256`);
  if (typeof base64 !== 'string') throw refuseArchive('must be base64', `${path}.content`);
  const bytes = Buffer.from(base64, 'base64');
  if (createHash('sha256').update(bytes).digest('hex') !== sha256)
    throw refuseArchive('is damaged: its digest does not match', `${path}.content`);
  return { sha256: sha256 as string, content: bytes };
}
