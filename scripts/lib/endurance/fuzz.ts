import { seeded } from '../../../core/quantities/random.ts';
import { argumentsOf, Program } from './program.ts';
import { ODD, Values, WORDS, type Crate, type Row, type Schema } from './values.ts';

/**
 * Requests made at random from the OpenAPI document, near what is right and far from it, over every operation, and over the pages: is
 * there a 5xx, an answer that does not come, or a trace of the program in one?
 */
type Parameter = { name: string; in: 'path' | 'query'; required: boolean; schema: Schema };
type Operation = {
  operationId: string;
  parameters: Parameter[];
  requestBody?: { content: Record<string, { schema: Schema }> };
};

const { count, seed } = argumentsOf(12_000);
const random = seeded(seed);
const values = new Values(random);
const { groups, tasks } = values;
const pick = <T>(from: readonly T[]): T => values.pick(from);
const PAGES_SHARE = 1 / 3;
const HANG_MS = 5000;
let crates: Crate[] = [];

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

const { data: document } = await program.send<{
  paths: Record<string, Record<string, Operation>>;
}>('GET', '/api/openapi.json');
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
  '/items',
  '/u/D-001',
  '/u/%2e%2e',
  '/labels',
  '/find',
  '/prices',
  '/combinations',
  '/runs',
  '/runs/new',
  '/runs/01ARZ3NDEKTSV4RRFFQ69G5FAV',
  '/jobs',
  '/rank',
  '/together',
  '/tables',
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
  'model',
  'protocol',
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
  const wrong = pick([0, 0, 0.04, 0.3]);
  const { path, method, op } = pick(operations);
  const crate = pick(crates);
  // The last table that the path names is the one its `id` is of.
  const table = path.match(/\/(\w+)\/\{id\}/)?.[1] ?? (path.includes('{buildId}') ? 'builds' : '');
  const rows = crate.rows[table] ?? [];
  const row = rows.length > 0 ? pick(rows) : undefined;
  Object.assign(values, { wrong, at: { crate, row, path } });
  const query: string[] = [];
  let filled = path;
  for (const { name, in: where, schema, required } of op.parameters) {
    const aimed =
      name === 'crateId' ? crate.id : name === 'id' || (name === 'buildId' && table === 'builds') ? row?.id : undefined;
    const given = String(where === 'path' && aimed && random() >= wrong ? aimed : values.value(schema, name));
    if (where === 'path') filled = filled.replace(`{${name}}`, safe(given) || 'x');
    else if (required || random() < 0.4) query.push(`${name}=${safe(given)}`);
  }
  const schema = op.requestBody?.content['application/json']?.schema;
  const body = schema
    ? random() < wrong / 4
      ? pick(['{', '[]', 'null', '"x"', ''])
      : JSON.stringify(values.value(schema, ''))
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
      : `/b/${pick(['AC-0001', 'AC-0008', 'AC-9999', 'x'])}/${pick(['pair', 'buy', 'pads', 'pads/heat', 'pads/cut', 'pads/log', 'measure', 'stack/heat', 'log', 'x'])}`;
  const query = Array.from(
    { length: Math.floor(random() * 3) },
    () =>
      `${pick(QUERIES)}=${safe(String(random() < 0.5 ? pick(ODD) : pick([...WORDS, values.idOf(pick(crates).rows.models)])))}`
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
    // A stream of events goes on for as long as somebody listens: that it was begun is its answer.
    const streams = response.headers.get('content-type')?.startsWith('text/event-stream') === true;
    if (streams) await response.body?.cancel();
    const text = streams ? '' : await response.text();
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
