import type { Knex } from 'knex';
import { KIND_LABEL, type Kind } from '#core/parts/kinds';

export type Hit = {
  sort: 'part' | 'unit' | 'build' | 'job' | 'quote' | 'pair';
  title: string;
  detail: string;
  path: string;
};

const LIMIT = 6;

/** Finds words in everything a crate holds; a tag that is met exactly comes first. Paths are below the crate's own page. */
export async function search(db: Knex, args: { crateId: string; words: string }): Promise<Hit[]> {
  const words = args.words.toLowerCase().split(/\s+/).filter(Boolean).slice(0, 6);
  if (words.length === 0) return [];
  const where = { crate_id: args.crateId };
  const all = (query: Knex.QueryBuilder, columns: string) => {
    for (const word of words)
      query.whereRaw(`lower(concat_ws(' ', ${columns})) like ?`, [`%${word.replace(/[\\%_]/g, (s) => `\\${s}`)}%`]);
    return query.limit(LIMIT);
  };
  const [models, units, builds, jobs, quotes, pairs] = await Promise.all([
    all(
      db('models').where(where).orderBy('name'),
      "name, kind, json_value(spec, '$.bridge'), json_value(spec, '$.media')"
    ),
    all(
      db('units')
        .join('models', 'models.id', 'units.model_id')
        .where('units.crate_id', args.crateId)
        .orderByRaw('units.tag = ? desc, units.tag', [args.words.trim()])
        .select('units.tag', 'units.state', 'models.name')
        .select(db.raw("json_value(units.details, '$.location') as location")),
      "units.tag, models.name, json_value(units.details, '$.serial'), json_value(units.details, '$.location'), json_value(units.details, '$.custodian')"
    ),
    all(db('builds').where(where).orderBy('tag'), 'tag, name, stage'),
    all(db('jobs').where(where).orderBy('name'), 'name'),
    all(
      db('quotes')
        .join('models', 'models.id', 'quotes.part_id')
        .where('quotes.crate_id', args.crateId)
        .groupBy('models.id', 'models.kind', 'models.name')
        .select('models.id', 'models.kind', 'models.name')
        .select(db.raw("json_value(quotes.details, '$.vendor') as vendor"))
        .groupByRaw("json_value(quotes.details, '$.vendor')"),
      "json_value(quotes.details, '$.vendor')"
    ),
    all(
      db('pairs')
        .join('models', 'models.id', 'pairs.drive_id')
        .where('pairs.crate_id', args.crateId)
        .select('pairs.*', 'models.name'),
      "pairs.bridge, models.name, json_value(pairs.details, '$.reason')"
    )
  ]);
  const label = (kind: string) => KIND_LABEL[kind as Kind].one;
  return [
    ...units.map((u: Record<string, string>) => ({
      sort: 'unit' as const,
      title: `${u.tag} · ${u.name}`,
      detail: [u.state, u.location].filter(Boolean).join(', '),
      path: `/u/${encodeURIComponent(u.tag ?? '')}`
    })),
    ...models.map((m: Record<string, string>) => ({
      sort: 'part' as const,
      title: m.name!,
      detail: label(m.kind!),
      path: `/crate/${m.kind}/${m.id}`
    })),
    ...builds.map((b: Record<string, string>) => ({
      sort: 'build' as const,
      title: `${b.tag} · ${b.name}`,
      detail: b.stage!,
      path: `/b/${b.tag}`
    })),
    ...jobs.map((j: Record<string, string>) => ({
      sort: 'job' as const,
      title: j.name!,
      detail: 'job',
      path: `/pair?job=${j.id}`
    })),
    ...quotes.map((q: Record<string, string>) => ({
      sort: 'quote' as const,
      title: `${q.vendor} · ${q.name}`,
      detail: 'quotes',
      path: `/crate/${q.kind}/${q.id}?tab=quotes`
    })),
    ...pairs.map((p: Record<string, string>) => ({
      sort: 'pair' as const,
      title: `${p.name} × ${p.bridge}`,
      detail: 'known pair',
      path: `/combinations`
    }))
  ];
}

/** The page on which a stored thing is shown; the page of what it belongs to where it has none, the history where it is gone. */
export async function pathOf(db: Knex, crateId: string, thing: { table: string; id: string }): Promise<string> {
  const crate = (await db('crates').where({ id: crateId }).first('slug')) as { slug: string } | undefined;
  const home = `/c/${crate?.slug ?? ''}`;
  const gone = `${home}/history`;
  const one = async <T>(table: string, id: string, ...columns: string[]) =>
    (await db(table)
      .where({ crate_id: crateId, id })
      .first(...columns)) as T | undefined;
  const part = async (id: string, tab = '') => {
    const model = await one<{ kind: string }>('models', id, 'kind');
    return model ? `${home}/crate/${model.kind}/${id}${tab}` : gone;
  };
  const build = async (id: string, below = '') => {
    const found = await one<{ tag: string }>('builds', id, 'tag');
    return found ? `/b/${found.tag}${below}` : gone;
  };
  const unit = async (id: string) => {
    const found = await one<{ tag: string }>('units', id, 'tag');
    return found ? `${home}/u/${encodeURIComponent(found.tag)}` : gone;
  };
  switch (thing.table) {
    case 'models':
      return part(thing.id);
    case 'units':
      return unit(thing.id);
    case 'builds':
      return build(thing.id);
    case 'quotes': {
      const quote = await one<{ part_id: string }>('quotes', thing.id, 'part_id');
      return quote ? part(quote.part_id, '?tab=quotes') : gone;
    }
    case 'runs': {
      const run = await one<{ build_id: string }>('runs', thing.id, 'build_id');
      return run ? build(run.build_id, '/measure') : gone;
    }
    case 'observations': {
      const seen = await one<{ build_id: string }>('observations', thing.id, 'build_id');
      return seen ? build(seen.build_id, '/pads') : gone;
    }
    case 'pairs':
      return `${home}/combinations`;
    case 'attachments': {
      const file = await one<{ subject_table: string; subject_id: string }>(
        'attachments',
        thing.id,
        'subject_table',
        'subject_id'
      );
      if (!file) return gone;
      return file.subject_table === 'models'
        ? part(file.subject_id, '?tab=files')
        : file.subject_table === 'units'
          ? unit(file.subject_id)
          : build(file.subject_id, '/log');
    }
    default:
      return gone;
  }
}
