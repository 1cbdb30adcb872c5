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

/**
 * Goes through the lines of an archive once. Contents are checked against their digests here, rows are for `each`.
 * @param tables those that may be in it
 * @param each looks at a row; `at` is its path, such as `units.3`
 * `contents` holds those that came before, as `crate digest`
 * @returns how many rows there are of each table, as read and as the archive states
 */
export async function readThrough<T extends RowTable>(
  lines: AsyncIterable<Line>,
  tables: readonly T[],
  found: Findings,
  report: TaskControl['report'] | undefined,
  each: (table: T, row: DbRow, at: string, contents: ReadonlySet<string>) => void,
  options: { contentsAt?: string } = {}
): Promise<{ counts: Counts }> {
  const contents = new Set<string>();
  const counts: Counts = { read: new Map(), stated: undefined };
  const reader = new ContentReader(false);
  let rows = 0;
  for await (const line of lines) {
    if (line.counts !== undefined) {
      counts.stated = line.counts as Record<string, unknown>;
      continue;
    }
    const { table, row } = line as { table: T | 'files'; row: unknown };
    if (table !== 'files' && !tables.includes(table))
      throw refuseArchive('is no table of it', String(table).slice(0, 40));
    const number = counts.read.get(table) ?? 0;
    const at = `${table === 'files' ? (options.contentsAt ?? 'files') : table}.${number}`;
    if (row === null || typeof row !== 'object' || Array.isArray(row)) throw refuseArchive('is no row', at);
    if (table === 'files') {
      const content = reader.take(row as DbRow, at);
      if (!content) continue;
      contents.add(`${String((row as DbRow).crate_id)} ${content.sha256}`);
      await report?.('Checking files', contents.size, 0);
    } else {
      each(table, row as DbRow, at, contents);
      if (++rows % 500 === 0) await report?.(`Checking ${table}`, rows, 0);
    }
    counts.read.set(table, number + 1);
    if (found.enough) break;
  }
  return { counts };
}
