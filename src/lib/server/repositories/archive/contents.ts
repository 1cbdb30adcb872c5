import { createHash, type Hash } from 'node:crypto';
import type { Knex } from 'knex';
import { refuseArchive } from './lines';
import { sha256Schema, type DbRow } from './rows';

/**
 * Contents of files in an archive. They are named by their digest and never change, so they are written before the rows that name them
 * and outside of any snapshot, and put in place before those rows: nobody sees them until then. A large one is several lines, so that
 * no more than a piece of it is held at once while it is written.
 */
const PAGE = 500;
/** Bytes of one line; a multiple of three, so that base64 of the pieces is base64 of the whole. */
const PIECE = 768 * 1024;

export type ContentLine = {
  table: 'files';
  row: { crate_id: string; sha256: string; content: { base64: string }; more?: true };
};

/** The contents of one crate or of all, each once. @param written those that stand in the archive already; added to */
export async function* contentLines(db: Knex, written: Set<string>, crateId?: string): AsyncGenerator<ContentLine> {
  for (let after: [string, string] = ['', '']; ;) {
    const page = (await db('files')
      .whereRaw('(crate_id, sha256) > (?, ?)', after)
      .modify((query) => void (crateId && query.where({ crate_id: crateId })))
      .orderBy('crate_id')
      .orderBy('sha256')
      .limit(PAGE)
      .select('crate_id', 'sha256', db.raw('length(content) as size'))) as {
      crate_id: string;
      sha256: string;
      size: number;
    }[];
    for (const { crate_id, sha256, size } of page) {
      const key = `${crate_id} ${sha256}`;
      if (written.has(key)) continue;
      written.add(key);
      for (let from = 0; from === 0 || from < size; from += PIECE) {
        const file = (await db('files')
          .where({ crate_id, sha256 })
          .first(db.raw('substring(content, ?, ?) as piece', [from + 1, PIECE]))) as { piece: Buffer } | undefined;
        // Purged with its crate since the page was read: no row names it any more, and what was written of it is left unfinished.
        if (!file) {
          written.delete(key);
          break;
        }
        const content = { base64: file.piece.toString('base64') };
        yield { table: 'files', row: { crate_id, sha256, content, ...(from + PIECE < size ? { more: true } : {}) } };
      }
    }
    if (page.length < PAGE) return;
    after = [page.at(-1)!.crate_id, page.at(-1)!.sha256];
  }
}

/** No file is larger than this; more pieces of one are not gathered. */
const LARGEST = 16_000_000;

/** Gathers the lines of a content, one after the other, and checks what comes of them against its digest. */
export class ContentReader {
  #pieces: Buffer[] = [];
  #hash: Hash | undefined;
  #of = '';
  #size = 0;
  /** @param keep whether the content itself is wanted, or only whether it is sound */
  constructor(readonly keep: boolean) {}

  /** @returns the whole content, or nothing while more of it is to come */
  take(row: DbRow, path: string): { sha256: string; content: Buffer } | undefined {
    const { sha256, content, more } = row;
    const base64 = (content as { base64?: unknown } | null)?.base64;
    if (!sha256Schema.safeParse(sha256).success) throw refuseArchive('must be a SHA-256 in hex', `${path}.sha256`);
    if (typeof base64 !== 'string') throw refuseArchive('must be base64', `${path}.content`);
    const piece = Buffer.from(base64, 'base64');
    if (this.#of !== sha256) this.#begin(sha256 as string);
    this.#hash!.update(piece);
    this.#size += piece.length;
    if (this.#size > LARGEST) throw refuseArchive('is larger than a file can be', `${path}.content`);
    if (this.keep) this.#pieces.push(piece);
    if (more === true) return undefined;
    const whole = this.#pieces.length === 1 ? this.#pieces[0]! : Buffer.concat(this.#pieces);
    const found = this.#hash!.digest('hex');
    this.#begin('');
    if (found !== sha256) throw refuseArchive('is damaged: its digest does not match', `${path}.content`);
    return { sha256: sha256 as string, content: whole };
  }
  #begin(of: string): void {
    this.#of = of;
    this.#pieces = [];
    this.#size = 0;
    this.#hash = createHash('sha256');
  }
}
