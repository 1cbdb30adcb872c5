import type { Knex } from 'knex';
import { STAGE_LABEL, type BuildStage } from '#core/build/stages';
import { KIND_LABEL, type Kind } from '#core/parts/kinds';
import { likeWords } from './like';

export type Hit = {
  sort: 'part' | 'unit' | 'build' | 'job' | 'quote' | 'pair';
  title: string;
  detail: string;
  path: string;
};

/** Hits of each kind, and words that are looked for. */
const LIMIT = 6;

/** One search: a query of a table, the columns in which words are looked for, and what a row becomes. */
type Source = {
  from: (db: Knex, crateId: string, tag: string) => Knex.QueryBuilder;
  in: string;
  hit: (row: Row) => Hit;
};
type Row = Record<string, string>;

/** In the order in which hits are shown. */
const SOURCES: readonly Source[] = [
  {
    from: (db, crateId, tag) =>
      db('units')
        .join('models', 'models.id', 'units.model_id')
        .where('units.crate_id', crateId)
        .orderByRaw('units.tag = ? desc, units.tag', [tag])
        .select('units.tag', 'units.state', 'models.name')
        .select(db.raw("json_value(units.details, '$.location') as location")),
    in: "units.tag, models.name, json_value(units.details, '$.serial'), json_value(units.details, '$.location'), json_value(units.details, '$.custodian')",
    hit: ({ tag = '', name, state, location }) => ({
      sort: 'unit',
      title: `${tag} · ${name}`,
      detail: [state, location].filter(Boolean).join(', '),
      path: `/u/${encodeURIComponent(tag)}`
    })
  },
  {
    from: (db, crateId) => db('models').where({ crate_id: crateId }).orderBy('name'),
    in: "name, kind, json_value(spec, '$.bridge'), json_value(spec, '$.media')",
    hit: ({ id, kind, name }) => ({
      sort: 'part',
      title: name!,
      detail: KIND_LABEL[kind as Kind].one,
      path: `/crate/${kind}/${id}`
    })
  },
  {
    from: (db, crateId) => db('builds').where({ crate_id: crateId }).orderBy('tag'),
    in: 'tag, name, stage',
    hit: ({ tag, name, stage }) => ({
      sort: 'build',
      title: `${tag} · ${name}`,
      detail: STAGE_LABEL[stage as BuildStage],
      path: `/b/${tag}`
    })
  },
  {
    from: (db, crateId) => db('jobs').where({ crate_id: crateId }).orderBy('name'),
    in: 'name',
    hit: ({ id, name }) => ({ sort: 'job', title: name!, detail: 'job', path: `/pair?job=${id}` })
  },
  {
    from: (db, crateId) =>
      db('quotes')
        .join('models', 'models.id', 'quotes.part_id')
        .where('quotes.crate_id', crateId)
        .groupBy('models.id', 'models.kind', 'models.name')
        .select('models.id', 'models.kind', 'models.name')
        .select(db.raw("json_value(quotes.details, '$.vendor') as vendor"))
        .groupByRaw("json_value(quotes.details, '$.vendor')"),
    in: "json_value(quotes.details, '$.vendor')",
    hit: ({ id, kind, name, vendor }) => ({
      sort: 'quote',
      title: `${vendor} · ${name}`,
      detail: 'prices',
      path: `/crate/${kind}/${id}?tab=quotes`
    })
  },
  {
    from: (db, crateId) =>
      db('pairs')
        .join('models', 'models.id', 'pairs.drive_id')
        .where('pairs.crate_id', crateId)
        .select('pairs.*', 'models.name'),
    in: "pairs.bridge, models.name, json_value(pairs.details, '$.reason')",
    hit: ({ name, bridge }) => ({
      sort: 'pair',
      title: `${name} × ${bridge}`,
      detail: 'known combination',
      path: `/combinations`
    })
  }
];

/** Finds words in everything a crate holds; a tag that is met exactly comes first. Paths are below the crate's own page. */
export async function search(db: Knex, { crateId, words: text }: { crateId: string; words: string }): Promise<Hit[]> {
  const words = likeWords(text);
  if (words.length === 0) return [];
  const found = await Promise.all(
    SOURCES.map(async ({ from, in: columns, hit }) => {
      const query = from(db, crateId, text.trim());
      for (const like of words) query.whereRaw(`lower(concat_ws(' ', ${columns})) like ?`, [like]);
      return ((await query.limit(LIMIT)) as Row[]).map(hit);
    })
  );
  return found.flat();
}

/** Looks a row up by its id. */
type Find = <T>(table: string, id: string, ...columns: string[]) => Promise<T | undefined>;
/** Finds the address of a thing; undefined where it is gone. */
type PathOf = (id: string, find: Find, home: string) => Promise<string | undefined>;

const partPath = async (id: string, find: Find, home: string, tab = ''): Promise<string | undefined> => {
  const model = await find<{ kind: string }>('models', id, 'kind');
  return model && `${home}/crate/${model.kind}/${id}${tab}`;
};
const buildPath = async (id: string, find: Find, below = ''): Promise<string | undefined> => {
  const found = await find<{ tag: string }>('builds', id, 'tag');
  return found && `/b/${found.tag}${below}`;
};
const itemPath: PathOf = async (id, find, home) => {
  const found = await find<{ tag: string }>('units', id, 'tag');
  return found && `${home}/u/${encodeURIComponent(found.tag)}`;
};
const ofBuild =
  (table: string, below: string): PathOf =>
  async (id, find) => {
    const row = await find<{ build_id: string }>(table, id, 'build_id');
    return row && buildPath(row.build_id, find, below);
  };

/** Where each kind of stored thing is shown: on its own page, or on that of what it belongs to. */
const PATHS: Partial<Record<string, PathOf>> = {
  models: partPath,
  units: itemPath,
  builds: (id, find) => buildPath(id, find),
  quotes: async (id, find, home) => {
    const quote = await find<{ part_id: string }>('quotes', id, 'part_id');
    return quote && partPath(quote.part_id, find, home, '?tab=quotes');
  },
  runs: async (id, _find, home) => `${home}/runs/${id}`,
  observations: ofBuild('observations', '/pads'),
  sheets: ofBuild('sheets', '/assemble'),
  checks: async (id, find) => {
    const check = await find<{ sheet_id: string }>('checks', id, 'sheet_id');
    const sheet = check && (await find<{ build_id: string }>('sheets', check.sheet_id, 'build_id'));
    return sheet && buildPath(sheet.build_id, find, '/assemble');
  },
  pairs: async (_id, _find, home) => `${home}/combinations`,
  attachments: async (id, find, home) => {
    const file = await find<{ subject_table: string; subject_id: string }>(
      'attachments',
      id,
      'subject_table',
      'subject_id'
    );
    if (!file) return undefined;
    if (file.subject_table === 'models') return partPath(file.subject_id, find, home, '?tab=files');
    if (file.subject_table === 'sheets') {
      const sheet = await find<{ build_id: string }>('sheets', file.subject_id, 'build_id');
      return sheet && buildPath(sheet.build_id, find, '/assemble');
    }
    return file.subject_table === 'units'
      ? itemPath(file.subject_id, find, home)
      : buildPath(file.subject_id, find, '/log');
  }
};

/** Finds the page on which a stored thing is shown; the history where it is gone. */
export async function pathOf(db: Knex, crateId: string, { table, id }: { table: string; id: string }): Promise<string> {
  const crate = (await db('crates').where({ id: crateId }).first('slug')) as { slug: string } | undefined;
  const home = `/c/${crate?.slug ?? ''}`;
  const find = async <T>(from: string, key: string, ...columns: string[]) =>
    (await db(from)
      .where({ crate_id: crateId, id: key })
      .first(...columns)) as T | undefined;
  return (await PATHS[table]?.(id, find, home)) ?? `${home}/history`;
}
