/** The tables whose rows are changed one at a time, with a revision each. */
export type StoredTable =
  | 'crates'
  | 'models'
  | 'units'
  | 'quotes'
  | 'jobs'
  | 'builds'
  | 'runs'
  | 'observations'
  | 'rates'
  | 'pairs'
  | 'sheets'
  | 'checks'
  | 'attachments';
export type Row = Record<string, unknown>;
