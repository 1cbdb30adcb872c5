import { Program, argumentsOf, seeded } from './program.ts';

/**
 * Requests made at random from the OpenAPI document, near what is right and far from it, over every operation, and over the pages: is
 * there a 5xx, an answer that does not come, or a trace of the program in one?
 */
type Schema = {
  type?: string | string[];
  enum?: unknown[];
  const?: unknown;
  properties?: Record<string, Schema>;
  required?: string[];
  additionalProperties?: Schema | boolean;
  items?: Schema;
  prefixItems?: Schema[];
  anyOf?: Schema[];
  oneOf?: Schema[];
  minimum?: number;
  maximum?: number;
  pattern?: string;
  format?: string;
  maxItems?: number;
};
type Parameter = { name: string; in: 'path' | 'query'; required: boolean; schema: Schema };
type Operation = {
  operationId: string;
  parameters: Parameter[];
  requestBody?: { content: Record<string, { schema: Schema }> };
};

const { count, seed } = argumentsOf(12_000);
const random = seeded(seed);
const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
const PAGES_SHARE = 1 / 3;
const HANG_MS = 5000;
/** How often a value is not what the schema says: never in half of the requests, so that they get far, and often in some. */
let wrong = 0;

const ODD: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  1e308,
  -1e308,
  0.1,
  '',
  ' ',
  'x'.repeat(300),
  'a\nb',
  '\u0000',
  '\ud800',
  '../..',
  "' or 1=1 --",
  '<img src=x onerror=alert(1)>',
  '${7*7}',
  '=cmd()',
  [],
  {},
  [[[[[]]]]],
  JSON.parse('{"__proto__":{"x":1}}'),
  { constructor: 1 },
  '🪨'.repeat(40),
  'NaN',
  'é́'.repeat(20)
];

/** What there is in a crate to aim at, by the word that stands for it in a path. */
type Row = { id: string; version: number; spec?: object; kind?: string; choice?: object };
type Crate = { id: string; rows: Record<string, Row[]> };
let crates: Crate[] = [];
/** What a request is made around: a crate, and the row that its path names. */
let at: { crate: Crate; row: Row | undefined; path: string };
/** Changes that were made, which can be taken back; tasks that were begun. */
const groups: string[] = [];
const tasks: string[] = [];
const words = ['Felt 1', 'usb-c', 'D-001', 'AC-0001', 'nvme', 'm2', '10 Gb/s', 'Kiln', 'write', 'owned'];
const NOBODY = '01ARZ3NDEKTSV4RRFFQ69G5FAV';

const parts = (kind: string) =>
  (at.crate.rows.models ?? []).filter((row) => (row.spec as { kind?: string })?.kind === kind);
const idOf = (rows: readonly Row[] | undefined) => (rows && rows.length > 0 ? pick(rows).id : NOBODY);
const KIND_OF: Record<string, string> = {
  hostId: 'host',
  cableId: 'cable',
  enclosureId: 'enclosure',
  driveId: 'drive'
};
const TABLE_OF: Record<string, string> = {
  modelId: 'models',
  partId: 'models',
  jobId: 'jobs',
  buildId: 'builds',
  subjectId: 'models'
};

/** A copy with one of its values made odd, now and then. */
function mutated(real: object): object {
  const copy = structuredClone(real) as Record<string, unknown>;
  delete copy.id;
  if (random() < wrong * 4) {
    const key = pick(Object.keys(copy));
    if (key !== undefined) copy[key] = pick(ODD);
  }
  return copy;
}

/** What a field of this name holds in real life; undefined where the schema has to say. */
function known(name: string): unknown {
  const { crate, row, path } = at;
  if (name === 'version') return row?.version ?? 1;
  if (name === 'currency' || name === 'from' || name === 'to') return pick(['EUR', 'USD', 'GBP']);
  if (name === 'group') return groups.length > 0 ? pick(groups) : NOBODY;
  if (name === 'taskId') return tasks.length > 0 ? pick(tasks) : NOBODY;
  if (name in KIND_OF) return idOf(parts(KIND_OF[name]!));
  if (name in TABLE_OF) return idOf(crate.rows[TABLE_OF[name]!]);
  if (name === 'type') return 'text/plain';
  if (name === 'content') return 'aGVsbG8=';
  if (name === 'sort') return 'name';
  if (name === 'spec' && path.includes('/jobs') && crate.rows.jobs?.length) return mutated(pick(crate.rows.jobs).spec!);
  if (name === 'spec' && path.includes('/models') && crate.rows.models?.length)
    return mutated((row?.spec ?? pick(crate.rows.models).spec)!);
  if (name === 'choice' && crate.rows.builds?.length) return mutated(pick(crate.rows.builds).choice!);
  if (name === 'items') {
    const rows = crate.rows[path.includes('/units') ? 'units' : 'models'] ?? [];
    const some = [...new Set(Array.from({ length: 3 }, () => pick(rows)))].filter(Boolean);
    return some.map(({ id, version }) => ({ id, version }));
  }
  return undefined;
}

function value(schema: Schema | undefined, name: string, depth = 0): unknown {
  if (!schema || depth > 7 || random() < wrong) return pick(ODD);
  const real = random() < 0.85 ? known(name) : undefined;
  if (real !== undefined) return real;
  if (schema.const !== undefined) return schema.const;
  if (schema.enum) return pick(schema.enum);
  const several = schema.anyOf ?? schema.oneOf;
  if (several) return value(pick(several), name, depth + 1);
  const type = Array.isArray(schema.type) ? pick(schema.type) : schema.type;
  if (type === 'object' || schema.properties) {
    const made: Record<string, unknown> = {};
    for (const [key, inner] of Object.entries(schema.properties ?? {}))
      if (schema.required?.includes(key) ? random() >= wrong / 2 : random() < 0.3)
        made[key] = value(inner, key, depth + 1);
    if (random() < wrong / 2) made[pick(['extra', '__proto__', 'id', 'x y'])] = pick(ODD);
    return made;
  }
  if (type === 'array') {
    const length = Math.floor(random() * Math.min(4, schema.maxItems ?? 4)) + (random() < 0.8 ? 1 : 0);
    if (schema.prefixItems) return schema.prefixItems.map((inner) => value(inner, name, depth + 1));
    return Array.from({ length }, () => value(schema.items, name, depth + 1));
  }
  if (type === 'number' || type === 'integer') {
    const [low, high] = [Math.max(schema.minimum ?? 0, -1e6), Math.min(schema.maximum ?? 1e4, 1e6)];
    const chosen = random() < 0.1 ? pick([low, high]) : low + random() * random() * (high - low);
    return type === 'integer' || name === 'version'
      ? Math.round(name === 'version' ? 1 + random() * random() * 2 : chosen)
      : chosen;
  }
  if (type === 'boolean') return random() < 0.5;
  if (type === 'null') return null;
  if (schema.format === 'date') return pick(['2026-11-01', '2026-02-30', '1999-12-31', '2031-01-01']);
  if (/[iI]d$/.test(name) || schema.pattern?.includes('{26}')) return NOBODY;
  if (schema.pattern === '^[A-Z]{3}$') return 'EUR';
  return pick(words) + (random() < 0.3 ? String(Math.floor(random() * 1e4)) : '');
}

const program = new Program();
await program.startOrThrow();

/** What there is to aim at; anew now and then, for much of it is deleted on the way. */
async function look(): Promise<void> {
  const ask = async <T>(path: string): Promise<T[]> => {
    const { data } = await program.send('GET', path);
    return Array.isArray(data) ? (data as T[]) : [];
  };
  for (const crate of await ask<Row>('/api/crates/deleted'))
    await program.send('POST', `/api/crates/${crate.id}/bring-back`, { version: crate.version });
  const all = await ask<Row & { demo: boolean }>('/api/crates');
  if (all.length < 2) await program.send('POST', '/api/crates', { name: 'Fuzzed' });
  const demo = all.find((crate) => crate.demo);
  // So many are made on the way that only a few can be looked at: the demo, and the newest.
  const some = [...(demo ? [demo] : []), ...all.filter((crate) => !crate.demo).slice(-2)];
  crates = [];
  for (const { id } of some) {
    const rows: Crate['rows'] = {};
    for (const what of ['models', 'units', 'jobs', 'builds', 'quotes', 'rates', 'pairs', 'attachments'])
      rows[what] = (await ask<Row>(`/api/crates/${id}/${what}`)).slice(0, 200);
    for (const build of (rows.builds ?? []).slice(0, 8))
      for (const what of ['runs', 'observations'])
        (rows[what] ??= []).push(...(await ask<Row>(`/api/crates/${id}/builds/${build.id}/${what}`)));
    crates.push({ id, rows });
  }
  if (demo && (crates[0]?.rows.models ?? []).length < 30) {
    await program.send('POST', `/api/crates/${demo.id}/reset`, {});
  }
}

const document = (await program.send('GET', '/api/openapi.json')).data as unknown as {
  paths: Record<string, Record<string, Operation>>;
};
const operations = Object.entries(document.paths).flatMap(([path, methods]) =>
  Object.entries(methods)
    // These go on for as long as something happens, or send everything there is.
    .filter(([, op]) => !['taskEvents', 'downloadBackup'].includes(op.operationId))
    .map(([method, op]) => ({ path, method: method.toUpperCase(), op }))
);
const PAGES = [
  '',
  '/crate',
  '/crate/drive',
  '/crate/alternative',
  '/crate/host/new',
  '/crate/paste',
  '/builds',
  '/pair',
  '/units',
  '/u/D-001',
  '/u/%2e%2e',
  '/labels',
  '/find',
  '/prices',
  '/pairs',
  '/jobs',
  '/rank',
  '/together',
  '/exchange',
  '/history',
  '/house-rules',
  '/glossary',
  '/keys'
];
const QUERIES = [
  'sort',
  'find',
  'down',
  'page',
  'size',
  'kind',
  'tag',
  'state',
  'job',
  'host',
  'port',
  'drive',
  'cable',
  'enclosure',
  'with',
  'change',
  'tab',
  'media',
  'product'
];

function apiRequest(): { method: string; path: string; body?: string; of: string } {
  wrong = pick([0, 0, 0.04, 0.3]);
  const { path, method, op } = pick(operations);
  const crate = pick(crates);
  // The last table that the path names is the one its `id` is of.
  const table = path.match(/\/(\w+)\/\{id\}/)?.[1] ?? (path.includes('{buildId}') ? 'builds' : '');
  const rows = crate.rows[table] ?? [];
  at = { crate, row: rows.length > 0 ? pick(rows) : undefined, path };
  const query: string[] = [];
  let filled = path;
  for (const { name, in: where, schema, required } of op.parameters) {
    const aimed =
      name === 'crateId'
        ? crate.id
        : name === 'id' || (name === 'buildId' && table === 'builds')
          ? at.row?.id
          : undefined;
    const given = String(where === 'path' && aimed && random() >= wrong ? aimed : value(schema, name));
    if (where === 'path') filled = filled.replace(`{${name}}`, safe(given) || 'x');
    else if (required || random() < 0.4) query.push(`${name}=${safe(given)}`);
  }
  const schema = op.requestBody?.content['application/json']?.schema;
  const body = schema
    ? random() < wrong / 4
      ? pick(['{', '[]', 'null', '"x"', ''])
      : JSON.stringify(value(schema, ''))
    : undefined;
  const address = query.length > 0 ? `${filled}?${query.join('&')}` : filled;
  return { method, path: address, of: op.operationId, ...(body === undefined ? {} : { body }) };
}
const safe = (text: string) => {
  try {
    return encodeURIComponent(text);
  } catch {
    return '%ED%A0%80';
  }
};
function pageRequest(): { method: string; path: string } {
  const base =
    random() < 0.7
      ? `/c/${pick(['fernhollow', 'fuzzed', 'x', '..%2f'])}${pick(PAGES)}`
      : `/b/${pick(['AC-0001', 'AC-0008', 'AC-9999', 'x'])}/${pick(['pair', 'buy', 'stack', 'stack/heat', 'stack/cut', 'stack/log', 'bench', 'log', 'x'])}`;
  const query = Array.from(
    { length: Math.floor(random() * 3) },
    () =>
      `${pick(QUERIES)}=${safe(String(random() < 0.5 ? pick(ODD) : pick([...words, idOf(pick(crates).rows.models)])))}`
  );
  return { method: 'GET', path: query.length > 0 ? `${base}?${query.join('&')}` : base };
}

const found = { 'status 5xx': 0, hangs: 0, traces: 0 };
const statuses: Record<string, number> = {};
const examples: string[] = [];
/** Keeps what a change and a task can be named by. */
function remember(text: string): void {
  const group = /"group":"([0-9A-Z]{26})"/.exec(text)?.[1];
  if (group && groups.push(group) > 60) groups.shift();
  const task = /^\{"id":"([0-9A-Z]{26})","title"/.exec(text)?.[1];
  if (task && tasks.push(task) > 20) tasks.shift();
}

/** Operations that were done at least once. */
const done2xx = new Set<string>();
const why: Record<string, string> = {};
async function one(request: { method: string; path: string; body?: string; of?: string }): Promise<void> {
  const from = performance.now();
  try {
    const response = await fetch(program.address + request.path, {
      method: request.method,
      redirect: 'manual',
      headers: request.body === undefined ? {} : { 'content-type': 'application/json' },
      ...(request.body === undefined ? {} : { body: request.body }),
      signal: AbortSignal.timeout(HANG_MS)
    });
    const text = await response.text();
    const group = `${Math.floor(response.status / 100)}xx`;
    statuses[group] = (statuses[group] ?? 0) + 1;
    if (response.ok) {
      done2xx.add(request.of ?? 'page');
      remember(text);
    }
    if (!response.ok && request.of) why[request.of] = `${response.status} ${text.slice(0, 160)}`;
    if (response.status >= 500) found['status 5xx'] += 1;
    if (/node:internal|^ {2,8}at .{1,300}:\d{1,6}:\d{1,6}|node_modules\//m.test(text)) found.traces += 1;
    else if (response.status < 500) return;
    if (examples.length < 12)
      examples.push(
        `${response.status} ${request.method} ${request.path.slice(0, 200)} ${request.body?.slice(0, 300) ?? ''} -> ${text.slice(0, 200)}`
      );
  } catch (error) {
    if (performance.now() - from < HANG_MS - 200) {
      statuses.refused = (statuses.refused ?? 0) + 1;
      return;
    }
    found.hangs += 1;
    if (examples.length < 12)
      examples.push(
        `hang: ${request.method} ${request.path.slice(0, 200)} ${request.body?.slice(0, 300) ?? ''} (${String(error)})`
      );
  }
}

const AT_ONCE = 6;
const LOOK_EVERY = 400;
const pages = Math.round(count * PAGES_SHARE);
for (let done = 0; done < count + pages; done += AT_ONCE) {
  if (done % LOOK_EVERY < AT_ONCE) await look();
  await Promise.all(
    Array.from({ length: Math.min(AT_ONCE, count + pages - done) }, (_, i) =>
      one(done + i < count ? apiRequest() : pageRequest())
    )
  );
}
for (const example of examples) console.log(example);
const never = operations.map(({ op }) => op.operationId).filter((id) => !done2xx.has(id));
console.log(`Never answered with 2xx: ${never.join(', ') || 'none'}`);
if (process.env.WHY) for (const id of never) console.log(`  ${id}: ${why[id] ?? 'not asked'}`);
const alive = await program.answers(5000);
if (!alive) console.log('It does not answer any more.');
console.log(
  `${count} requests over ${operations.length} operations and ${pages} over pages, seed ${seed}: ${found['status 5xx']} x 5xx, ${found.hangs} hangs over ${HANG_MS / 1000} s, ${found.traces} traces; ${JSON.stringify(statuses)}`
);
await program.stop();
process.exit(found['status 5xx'] + found.hangs + found.traces > 0 || !alive ? 1 : 0);
