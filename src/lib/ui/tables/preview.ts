/** What an import would do, row by row. */
export type ImportPreview = {
  headings: string[];
  mapping: (string | null)[];
  missing: string[];
  columns: { path: string; title: string; required: boolean; choices?: string[] }[];
  counts: { new: number; changed: number; same: number; wrong: number };
  rows: {
    row: number;
    outcome: 'new' | 'changed' | 'same' | 'wrong';
    name: string;
    cells: Record<string, string>;
    errors: Record<string, string>;
  }[];
};

/** A cell that is read otherwise than the file has it. */
export type MendedCell = { row: number; path: string; cell: string };
