import type { Knex } from 'knex';
import { tagNumber } from '#core/parts/tag';
import { raiseCounter, tagCounter } from './counters';

/**
 * Raises the counters of given unit tags to the highest number of each letter that is or ever was on a unit, so that no label names
 * two things. For databases, backups and bundles of before there were counters; changes nothing on one that has them.
 */
export async function countGivenTags(db: Knex, crateId?: string): Promise<void> {
  const highest = new Map<string, number>();
  const see = (crate: string, tag: unknown) => {
    const found = typeof tag === 'string' ? tagNumber(tag) : undefined;
    if (!found) return;
    const key = tagCounter(crate, found.letter);
    highest.set(key, Math.max(highest.get(key) ?? 0, found.number));
  };
  const own = <T extends Knex.QueryBuilder>(query: T): T =>
    crateId ? (query.where({ crate_id: crateId }) as T) : query;
  for (const { crate_id, tag } of (await own(db('units').select('crate_id', 'tag'))) as {
    crate_id: string;
    tag: string;
  }[])
    see(crate_id, tag);
  const past = (await own(
    db('revisions')
      .where({ row_table: 'units' })
      .select('crate_id')
      .select(db.raw("json_value(`before`, '$.tag') as a"), db.raw("json_value(`after`, '$.tag') as b"))
  )) as { crate_id: string; a: string | null; b: string | null }[];
  for (const { crate_id, a, b } of past) {
    see(crate_id, a);
    see(crate_id, b);
  }
  for (const [name, value] of highest) await raiseCounter(db, name, value);
}

/** Lists that are filled in with ticks. In others the same thing twice has a meaning: the two ends of a cable, two layers of one pad. */
const TICKED = new Set(['modes', 'protocols', 'morePlugs', 'm2LengthsMm', 'm2Keys', 'purposes']);

/** A value with its lists of ticks, however deep, rid of doubles. */
export function withoutDoubles<T>(value: T, key = ''): T {
  if (Array.isArray(value))
    return (TICKED.has(key) ? [...new Set(value)] : value.map((inner: unknown) => withoutDoubles(inner))) as T;
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(Object.entries(value).map(([name, inner]) => [name, withoutDoubles(inner, name)])) as T;
}

const CHOICES = [
  ['models', 'spec'],
  ['jobs', 'spec'],
  ['builds', 'snapshot']
] as const;
const BATCH = 200;

/** Ticks of a form were once kept twice; what was stored so is mended, row by row, without a change of its version. */
export async function mendDoubledChoices(db: Knex): Promise<void> {
  for (const [table, column] of CHOICES)
    for (let after = ''; ;) {
      const rows = (await db(table).where('id', '>', after).orderBy('id').limit(BATCH).select('id', column)) as Record<
        string,
        unknown
      >[];
      for (const row of rows) {
        const text = JSON.stringify(row[column]);
        const mended = JSON.stringify(withoutDoubles(row[column]));
        if (mended !== text)
          await db(table)
            .where({ id: row.id })
            .update({ [column]: mended });
      }
      if (rows.length < BATCH) break;
      after = String(rows.at(-1)!.id);
    }
}

/** Columns of text and of JSON in which people's words stand. */
const WORDS: Readonly<Record<string, { text: readonly string[]; json: readonly string[] }>> = {
  crates: { text: ['name'], json: [] },
  models: { text: ['name'], json: ['spec'] },
  units: { text: ['tag'], json: ['details'] },
  quotes: { text: [], json: ['details'] },
  rates: { text: [], json: ['details'] },
  pairs: { text: ['bridge'], json: ['details'] },
  jobs: { text: ['name'], json: ['spec'] },
  builds: { text: ['name'], json: ['snapshot', 'report'] },
  runs: { text: [], json: ['conditions', 'chain'] },
  observations: { text: [], json: ['seen'] },
  attachments: { text: ['name'], json: [] }
};

/** A text without control characters and halves of characters; line ends and tabs stay. */
export const withoutOddCharacters = (text: string): string =>
  // eslint-disable-next-line no-control-regex -- control characters are what it looks for
  text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]|\p{Cs}/gu, '\ufffd');

/** The same for every text and name in a value. */
export function withoutOddText<T>(value: T): T {
  if (typeof value === 'string') return withoutOddCharacters(value) as T;
  if (Array.isArray(value)) return value.map(withoutOddText) as T;
  if (value === null || typeof value !== 'object') return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, inner]) => [withoutOddCharacters(key), withoutOddText(inner)])
  ) as T;
}

/** A tag of dots alone names no page that can be reached. */
export const reachableTag = (tag: string): string => (/^\.{1,2}$/.test(tag) ? `dot ${tag.length}` : tag);

/**
 * Takes out what earlier versions let in and pages can no longer read: control characters in the place of a visible one, tags of dots
 * alone. Only rows that hold such are written.
 */
export async function mendOddText(db: Knex): Promise<void> {
  for (const [table, { text, json }] of Object.entries(WORDS)) {
    const rows = (await db(table)
      .where((any) => {
        for (const column of text) any.orWhereRaw(`\`${column}\` regexp '[[:cntrl:]]'`);
        // in JSON they are escaped as \\u0000 and so on; the last one stands as it is
        for (const column of json)
          any.orWhereRaw(`instr(\`${column}\`, ?) > 0 or instr(\`${column}\`, ?) > 0`, ['\\u00', '\u007f']);
        if (table === 'units') any.orWhereIn('tag', ['.', '..']);
      })
      .select('id', ...text, ...json)) as Record<string, unknown>[];
    for (const row of rows) {
      const change: Record<string, unknown> = {};
      for (const column of text)
        change[column] = reachableOrPlain(table, column, withoutOddCharacters(String(row[column])));
      for (const column of json) change[column] = JSON.stringify(withoutOddText(row[column]));
      await db(table).where({ id: row.id }).update(change);
    }
  }
}
const reachableOrPlain = (table: string, column: string, text: string) =>
  table === 'units' && column === 'tag' ? reachableTag(text) : text;
