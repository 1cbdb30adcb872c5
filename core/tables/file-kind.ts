/** What a table file can hold. Parts come one kind a file, for each kind has its own columns. */
export const FILES = ['models', 'units', 'quotes'] as const;
export type FileKind = (typeof FILES)[number];
