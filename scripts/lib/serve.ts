import { mkdirSync } from 'node:fs';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import compression from 'compression';
import { FOREIGN, isForeign } from '../../src/lib/server/api/foreign.ts';
import { giveUp, root } from '../setup.mjs';
import { buildIfChanged } from './build.ts';
import { startDatabase, type Database } from './database.ts';
import { readEnvironment } from './environment.ts';
import { lockDataFolder } from './lock.ts';

const { port, host, dataDir, databaseUrl, proxy } = readEnvironment();
const address = `http://${host === '::1' ? '[::1]' : host}:${port}`;
mkdirSync(dataDir, { recursive: true });

type Handler = (req: IncomingMessage, res: ServerResponse, next: () => void) => void;

/** The application, once it is loaded: a request that comes while it still starts waits for it. */
const application = (() => {
  let open: (handler: Handler) => void = () => {};
  const opened = new Promise<Handler>((done) => (open = done));
  return { open: (handler: Handler) => open(handler), opened };
})();

// A page of another site can make a browser send requests here under a name of its own: only our own names are served.
const ports = [port, ...(proxy ? [new URL(proxy).port || '80'] : [])];
const hosts = new Set(
  ports.flatMap((one) =>
    ['127.0.0.1', 'localhost', '[::1]'].map((name) => (String(one) === '80' ? name : `${name}:${one}`))
  )
);

const HEADERS = [
  ['x-content-type-options', 'nosniff'],
  ['x-frame-options', 'DENY'],
  ['referrer-policy', 'same-origin'],
  ['cross-origin-resource-policy', 'same-origin'],
  ['cross-origin-opener-policy', 'same-origin']
] as const;

/** Pages and data go out compressed; files of the application are so already, and events must not wait to be. */
const compress = compression({
  filter: (req, res) =>
    !/^text\/event-stream/.test(String(res.getHeader('content-type'))) && compression.filter(req, res)
});

async function answer(req: IncomingMessage, res: ServerResponse): Promise<void> {
  if (!hosts.has(req.headers.host ?? '')) {
    res.writeHead(421, { 'content-type': 'text/plain; charset=utf-8' }).end('This name is not served here.\n');
    return;
  }
  // Here and not only for pages: files of the application go out without passing it.
  for (const [name, value] of HEADERS) res.setHeader(name, value);
  const header = (name: string) => (req.headers[name] as string | undefined) ?? null;
  const asked = {
    method: req.method ?? 'GET',
    path: (req.url ?? '/').split('?')[0]!,
    origin: header('origin'),
    site: header('sec-fetch-site'),
    mode: header('sec-fetch-mode'),
    dest: header('sec-fetch-dest')
  };
  if (isForeign(asked, `http://${req.headers.host}`)) {
    const { code, message, fields } = FOREIGN;
    res.writeHead(FOREIGN.status, { 'content-type': 'application/json' });
    res.end(JSON.stringify({ error: { code, message, fields } }));
    return;
  }
  req.headers['x-forwarded-proto'] = 'http';
  const handler = await application.opened;
  const notFound = () => res.writeHead(404, { 'content-type': 'text/plain; charset=utf-8' }).end('Not found.\n');
  // It takes any request of Node; its types know only those of one framework.
  Reflect.apply(compress, undefined, [req, res, () => handler(req, res, notFound)]);
}

// Taken before anything else is touched: a second start must not disturb the first.
const server = createServer((req, res) => void answer(req, res));
// Longer than the usual minute of a proxy: a connection that is closed just as it is used again is an error to whoever asks.
server.keepAliveTimeout = 75_000;
const lock = await lockDataFolder(dataDir, address);
server.on('error', (error: NodeJS.ErrnoException) => {
  giveUp(
    error.code === 'EADDRINUSE'
      ? `Port ${port} is taken by another program; set PORT to a free one.`
      : `Cannot listen on ${address}: ${error.message}`
  );
});
await new Promise<void>((done) => server.listen(port, host, done));

let database: Database | undefined;
let stopping = false;
async function stop(): Promise<never> {
  if (!stopping) {
    stopping = true;
    server.close();
    server.closeAllConnections();
    await database?.stop();
    lock.close();
  }
  process.exit(0);
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());

buildIfChanged();
if (!databaseUrl) database = await startDatabase(dataDir);

// What the built application reads; set before it is loaded. ORIGIN would make one of the two names of this machine fail.
delete process.env.ORIGIN;
Object.assign(process.env, {
  DATABASE_URL: databaseUrl ?? database!.url,
  PROTOCOL_HEADER: 'x-forwarded-proto',
  // Each operation has a limit of its own.
  BODY_SIZE_LIMIT: 'Infinity',
  ASH_CRATE_DATA: dataDir,
  ASH_CRATE_WORKER: join(root, 'build', 'worker', 'worker.mjs'),
  ASH_CRATE_ARCHIVE_WORKER: join(root, 'build', 'worker', 'archive.mjs'),
  NODE_ENV: 'production'
});
const built = (await import(pathToFileURL(join(root, 'build', 'handler.js')).href)) as { handler: Handler };
application.open(built.handler);
if (database?.adopted) console.log('Took over the database of an earlier run.');
console.log(`Ash Crate is at ${address}`);
