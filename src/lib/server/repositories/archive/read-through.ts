import { Problem, type FieldProblem } from '../../problems/problem';
import type { TaskControl } from '../../work/control';
import { ContentReader } from './contents';
import { refuseArchive, type Line } from './lines';
import type { DbRow, RowTable } from './rows';

/** So many are told of; more would help nobody. */
const MOST = 20;

/** What is wrong with an archive, path by path. */
export class Findings {
  readonly #found: FieldProblem[] = [];
  /** @param nothing what is said after the first of them: that nothing has come of it */
  constructor(readonly nothing: string) {}

  get enough(): boolean {
    return this.#found.length >= MOST;
  }
  /** @param at the path of the row; problems are below it */
  add(at: string, problems: readonly FieldProblem[]): void {
    for (const { path, message } of problems) this.#found.push({ path: path ? `${at}.${path}` : at, message });
  }
  /** Tables that are not there, or have other rows than the archive itself counts. */
  missing(counts: Counts, tables: readonly string[]): void {
    for (const table of tables)
      if (this.#found.length === 0 && counts.stated?.[table] !== (counts.read.get(table) ?? 0))
        this.#found.push({ path: table, message: 'is missing or not whole' });
  }
  throwIfAny(): void {
    const fields = this.#found.slice(0, MOST);
    if (fields[0]) throw new Problem('bad-input', `${fields[0].path}: ${fields[0].message}. ${this.nothing}`, fields);
  }
}

type Counts = { read: Map<string, number>; stated: Record<string, unknown> | undefined };

/** What goes through the lines of an archive. */
export type Through<T extends RowTable> = {
  /** The tables that may be in it. */
  tables: readonly T[];
  found: Findings;
  report?: TaskControl['report'] | undefined;
  /** Where contents are said to stand, where that is not `files`. */
  contentsAt?: string;
  /**
   * Looks at a row.
   * @param at its path, such as `units.3`
   * @param contents those that came before, as `crate digest`
   */
  each: (table: T, row: DbRow, at: string, contents: ReadonlySet<string>) => void;
};

/** Rows between two reports. */
const REPORT_EVERY = 500;

/**
 * Goes through the lines of an archive once. Contents are checked against their digests here, rows are for `each`.
 * @returns how many rows there are of each table, as read and as the archive states
 */
export async function readThrough<T extends RowTable>(
  lines: AsyncIterable<Line>,
  through: Through<T>
): Promise<{ counts: Counts }> {
  const { found, report, each, contentsAt = 'files' } = through;
  const contents = new Set<string>();
  const counts: Counts = { read: new Map(), stated: undefined };
  const reader = new ContentReader(false);
  let rows = 0;
  for await (const line of lines) {
    if (line.counts !== undefined) {
      counts.stated = line.counts as Record<string, unknown>;
      continue;
    }
    const { table, row, at, number } = rowOfLine(line, through.tables, counts, contentsAt);
    if (table !== 'files') {
      each(table, row, at, contents);
      if (++rows % REPORT_EVERY === 0) await report?.(`Checking ${table}`, rows, 0);
    } else {
      const content = reader.take(row, at);
      if (!content) continue;
      contents.add(`${String(row.crate_id)} ${content.sha256}`);
      await report?.('Checking files', contents.size, 0);
    }
    counts.read.set(table, number + 1);
    if (found.enough) break;
  }
  return { counts };
}

/** Finds the row of a line, its path and its number in its table. @throws Problem `bad-input` where it is none */
function rowOfLine<T extends RowTable>(line: Line, tables: readonly T[], { read }: Counts, contentsAt: string) {
  const { table, row } = line as { table: T | 'files'; row: unknown };
  if (table !== 'files' && !tables.includes(table))
    throw refuseArchive('is no table of it', String(table).slice(0, 40));
  const number = read.get(table) ?? 0;
  const at = `${table === 'files' ? contentsAt : table}.${number}`;
  if (row === null || typeof row !== 'object' || Array.isArray(row)) throw refuseArchive('is no row', at);
  return { table, row: row as DbRow, at, number };
}
