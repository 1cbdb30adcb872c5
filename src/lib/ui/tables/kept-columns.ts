/** What a person assigned to headings, for one kind of file. Another file with the same headings gets the same columns. */
export type KeptColumns = Readonly<Record<string, string | null>>;

/**
 * Gives the columns of a file with what was assigned before to the same headings; a field goes to one column only, the kept one first.
 * @example withKept(['Rd', 'Wr'], [null, null], { Rd: 'readMBps' }) // ['readMBps', null]
 */
export function withKept(
  headings: readonly string[],
  matched: readonly (string | null)[],
  kept: KeptColumns
): (string | null)[] {
  const taken = new Set<string>();
  const take = (path: string | null | undefined) => {
    if (!path || taken.has(path)) return null;
    taken.add(path);
    return path;
  };
  const mine = headings.map((heading) => (Object.hasOwn(kept, heading) ? take(kept[heading]) : undefined));
  return mine.map((path, i) => (path === undefined ? take(matched[i]) : path));
}

/**
 * Gives the kept columns with one more heading assigned; where a field moves from one heading to another, the first forgets it.
 * @example assigned({}, 'Rd', 'readMBps') // { Rd: 'readMBps' }
 */
export function assigned(kept: KeptColumns, heading: string, path: string | null): KeptColumns {
  const others = Object.entries(kept).map(([of, to]): [string, string | null] => [of, to === path ? null : to]);
  return { ...Object.fromEntries(others), [heading]: path };
}
