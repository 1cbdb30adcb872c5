import type { DbRow, RowTable } from './rows';

export const BUNDLE_FORMAT = 'ash-crate-bundle';

/** In the order in which rows can be written: what is referred to comes first. */
export const BUNDLE_TABLES = [
  'models',
  'jobs',
  'builds',
  'units',
  'quotes',
  'rates',
  'pairs',
  'runs',
  'observations',
  'sheets',
  'checks',
  'attachments',
  'events'
] as const satisfies readonly RowTable[];
export type BundleTable = (typeof BUNDLE_TABLES)[number];
/** Columns that follow from others or from the crate, and are not written. */
const DERIVED: Partial<Record<BundleTable, readonly string[]>> = {
  models: ['kind', 'name'],
  events: ['seq'],
  runs: ['busy_drive']
};

/** Columns that are yes or no, 1 or 0 in the database. */
const FLAGS: ReadonlySet<string> = new Set(['simulated', 'ready_made', 'done']);

/** The key of a column in a bundle. */
export const keyOfColumn = (column: string) => column.replace(/_([a-z])/g, (_, letter: string) => letter.toUpperCase());
const columnOfKey = (key: string) => key.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

/** A row as a bundle has it. */
export function entryOf(table: BundleTable, row: DbRow): DbRow {
  const skip = new Set(['crate_id', ...(DERIVED[table] ?? [])]);
  return Object.fromEntries(
    Object.entries(row)
      .filter(([column]) => !skip.has(column))
      .map(([column, value]) => [keyOfColumn(column), FLAGS.has(column) && value !== null ? value === 1 : value])
  );
}

/** The row of a crate that an entry of a bundle becomes. */
export function storedRow(table: BundleTable, crateId: string, entry: DbRow): DbRow {
  const row: DbRow = { crate_id: crateId };
  for (const [key, value] of Object.entries(entry)) row[columnOfKey(key)] = value;
  // A run that goes on elsewhere goes on nowhere here: it may be taken up from what is there.
  if (table === 'runs')
    return { ...row, busy_drive: null, rig: row.rig ? { ...(row.rig as DbRow), taskId: null } : null };
  if (table !== 'models') return row;
  const spec = entry.spec as { kind?: unknown; name?: unknown } | undefined;
  return { ...row, kind: spec?.kind, name: spec?.name };
}
