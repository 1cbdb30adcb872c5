/** A column of a table in plain text: its title, and where the title stands. */
export type Heading = { title: string; start: number; end: number };

/**
 * Finds the titles of a table that are parted by blanks.
 * @example headingsOf('NAME  SIZE').map(({ title }) => title) // ['NAME', 'SIZE']
 */
export const headingsOf = (line: string): Heading[] =>
  [...line.matchAll(/\S+/g)].map((match) => ({
    title: match[0],
    start: match.index,
    end: match.index + match[0].length
  }));

/** Marks where each title or cell stands, up to the longest line. */
function occupied(headings: readonly Heading[], rows: readonly string[]): boolean[] {
  const width = Math.max(0, ...rows.map(({ length }) => length), ...headings.map(({ end }) => end));
  const taken = new Array<boolean>(width).fill(false);
  for (const { start, end } of headings) taken.fill(true, start, end);
  for (const row of rows) for (let i = 0; i < row.length; i++) if (row[i] !== ' ') taken[i] = true;
  return taken;
}

/** Runs of characters between the gaps that no line fills. */
function runsOf(taken: readonly boolean[]): { start: number; end: number }[] {
  const runs: { start: number; end: number }[] = [];
  let start = -1;
  for (let i = 0; i <= taken.length; i++) {
    if (taken[i] && start < 0) start = i;
    else if (!taken[i] && start >= 0) {
      runs.push({ start, end: i });
      start = -1;
    }
  }
  return runs;
}

/**
 * Parts the lines of a table into its columns by the gaps that run through all of them, so that left and right alignment, empty cells
 * and blanks within a cell are all the same. What stands under no title belongs to the column on its left.
 * @returns the cells of each row; null where two titles share a run, so that nobody can tell whose a cell is
 * @example straightCells(headingsOf('NAME SIZE'), ['sda  1.8T']) // [['sda', '1.8T']]
 */
export function straightCells(headings: readonly Heading[], rows: readonly string[]): string[][] | null {
  const runs = runsOf(occupied(headings, rows));
  const columns: { start: number; end: number }[] = [];
  for (const run of runs) {
    const inside = headings.filter(({ start, end }) => start < run.end && end > run.start);
    if (inside.length > 1) return null;
    const last = columns.at(-1);
    if (inside.length === 1) columns.push({ ...run });
    else if (last) last.end = run.end;
    else return null;
  }
  if (columns.length !== headings.length) return null;
  return rows.map((row) => columns.map(({ start, end }) => row.slice(start, end).trim()));
}

/** Widths at which terminals break lines, beside the longest line that there is. */
const USUAL_WIDTHS = [80, 100, 120, 132];

/**
 * Gives the lines of a listing as they may have been before a terminal broke them, the plain ones first.
 * @example waysToUnwrap(['ab', 'c'])[0] // ['ab', 'c']
 */
export function waysToUnwrap(lines: readonly string[]): string[][] {
  const longest = Math.max(0, ...lines.map(({ length }) => length));
  const ways = [[...lines]];
  for (const width of new Set([longest, ...USUAL_WIDTHS.filter((usual) => usual >= longest)]))
    if (width >= 40)
      for (const slack of [0, 2]) {
        const joined: string[] = [];
        let open = false;
        for (const line of lines) {
          if (open) joined[joined.length - 1] = `${joined.at(-1)}${line}`;
          else joined.push(line);
          const whole = line.length >= width - slack && line.length <= width;
          open = whole;
          if (whole) joined[joined.length - 1] = `${joined.at(-1)}${' '.repeat(width - line.length)}`;
        }
        if (joined.length < lines.length) ways.push(joined.map((line) => line.trimEnd()));
      }
  return ways;
}

/** What the cells of a column look like, and whether they may hold blanks. */
export type CellForm = { test?: RegExp | undefined; blanks: boolean };

/** Most rows that are laid word by word. */
const MOST_CROOKED = 600;

/** How far a cell may stand from its title where a table is not quite straight, characters. */
const CROOKED = 4;

type Token = { text: string; start: number; end: number };

const gap = (token: Token, { start, end }: Heading): number =>
  token.end <= start ? start - token.end + 1 : token.start >= end ? token.start - end + 1 : 0;

/**
 * Lays the words of a row under the titles, in their order, where each has the form of its column, so that they stand as near to
 * their titles as can be.
 */
function layRow(row: string, headings: readonly Heading[], forms: readonly CellForm[]): string[] | null {
  const tokens: Token[] = [...row.matchAll(/\S+/g)].map((match) => ({
    text: match[0],
    start: match.index,
    end: match.index + match[0].length
  }));
  if (tokens.length > 60) return null;
  const memo = new Map<number, { cost: number; take: number }>();
  /** The cheapest way to lay the words from `i` on under the titles from `j` on. */
  // eslint-disable-next-line complexity -- the one place where a word is laid or left
  const best = (i: number, j: number): { cost: number; take: number } => {
    const heading = headings[j];
    if (!heading) return { cost: i === tokens.length ? 0 : Infinity, take: 0 };
    const key = i * 64 + j;
    const known = memo.get(key);
    if (known) return known;
    let found = { cost: best(i, j + 1).cost, take: 0 };
    let cost = 0;
    for (let n = 1; i + n <= tokens.length && (n === 1 || forms[j]?.blanks); n++) {
      const token = tokens[i + n - 1] as Token;
      const previous = tokens[i + n - 2];
      // Words of one cell stand close to each other; only the first has to stand near its title.
      if (n > 1 && previous && token.start - previous.end > 2) break;
      cost += n === 1 ? gap(token, heading) : Math.max(0, gap(token, heading) - (token.start - heading.end)) * 0.01;
      if (n === 1 && cost > CROOKED) break;
      const text = tokens
        .slice(i, i + n)
        .map((part) => part.text)
        .join(' ');
      if (forms[j]?.test?.test(text) === false) continue;
      const all = cost + best(i + n, j + 1).cost;
      if (all < found.cost) found = { cost: all, take: n };
    }
    memo.set(key, found);
    return found;
  };
  if (!Number.isFinite(best(0, 0).cost)) return null;
  const cells: string[] = [];
  let i = 0;
  for (let j = 0; j < headings.length; j++) {
    const { take } = best(i, j);
    const [first, last] = [tokens[i], tokens[i + take - 1]];
    cells.push(take > 0 && first && last ? row.slice(first.start, last.end) : '');
    i += take;
  }
  return cells;
}

/**
 * Parts the lines of a table that is not quite straight, by the forms of its columns.
 * @returns null where a row fits in no way
 * @example crookedCells(headingsOf('NAME SIZE'), ['sda   1.8T'], [{ blanks: false }, { blanks: false }]) // [['sda', '1.8T']]
 */
export function crookedCells(
  headings: readonly Heading[],
  rows: readonly string[],
  forms: readonly CellForm[]
): string[][] | null {
  // No listing of a person has so many rows, and each takes its time.
  if (rows.length > MOST_CROOKED) return null;
  const cells = rows.map((row) => layRow(row, headings, forms));
  return cells.every((row) => row !== null) ? cells : null;
}
