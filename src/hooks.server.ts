import { json, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { patiently } from '$lib/server/db';
import { FOREIGN, isForeign } from '$lib/server/api/foreign';
import { problemOf } from '$lib/server/db/errors';
import { migrate } from '$lib/server/db/migrations';
import { seedOnce } from '$lib/server/demo/seed';
import { forgetUnusedContents } from '$lib/server/repositories/contents';
import { scriptsAfterPaint } from '$lib/server/pages/boot';
import { movedTo } from '$lib/server/pages/moved';
import { purgeDeleted } from '$lib/server/repositories/crates';
import { forgetTasks } from '$lib/server/repositories/task-rows';
import { dropLeftovers } from '$lib/server/transfer/uploads';
import type { Knex } from 'knex';

/** Before the first request: the database is brought up to date, and gets the demo crate if it has none. */
export const init: ServerInit = async () => {
  await dropLeftovers();
  await patiently(async (db) => {
    await migrate(db);
    await seedOnce(db, new Date().toISOString());
  });
  const purge = () =>
    patiently(tidy).catch((error: unknown) => {
      if (!problemOf(error)) console.error(error);
    });
  await purge();
  setInterval(() => void purge(), PURGE_EVERY_MS).unref();
};

/** How often what is over is looked for. */
const PURGE_EVERY_MS = 3_600_000;

/** Crates whose week is over, contents that nothing names any more, tasks that ended long ago. */
async function tidy(db: Knex): Promise<void> {
  await purgeDeleted(db, new Date().toISOString());
  await forgetUnusedContents(db);
  await forgetTasks(db);
}

export const handle: Handle = async ({ event, resolve }) => {
  const { request, url } = event;
  const header = (name: string) => request.headers.get(name);
  const asked = {
    method: request.method,
    path: url.pathname,
    origin: header('origin'),
    site: header('sec-fetch-site'),
    mode: header('sec-fetch-mode'),
    dest: header('sec-fetch-dest')
  };
  if (isForeign(asked, url.origin)) {
    const { code, message, fields, status } = FOREIGN;
    return json({ error: { code, message, fields } }, { status });
  }
  const moved = request.method === 'GET' || request.method === 'HEAD' ? movedTo(url) : undefined;
  if (moved) return new Response(null, { status: 308, headers: { location: moved } });
  const scripts: string[] = [];
  const response = await resolve(event, {
    preload: ({ type, path }) => {
      if (type === 'js') scripts.push(path);
      // The two fonts that every page begins with are asked for with the page, and not once its styles have been read.
      return type === 'css' || (type === 'font' && /-latin-(?:wght|400)-normal\.[^/]*woff2$/.test(path));
    },
    // The scripts stand in the page and not in a header: the page itself asks for them when it is painted.
    transformPageChunk: ({ html }) => scriptsAfterPaint(html, scripts)
  });
  // Which crate was looked at last. Here and not in the page, which may be answered before its layout has been read.
  if (event.params.crate && event.route.id?.startsWith('/c/[crate]') && response.ok)
    response.headers.append(
      'set-cookie',
      event.cookies.serialize('crate', event.params.crate, {
        path: '/',
        maxAge: 400 * 86_400,
        sameSite: 'lax',
        secure: false
      })
    );
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'same-origin');
  response.headers.set('x-frame-options', 'DENY');
  return response;
};

export const handleError: HandleServerError = ({ error, status, message }) => {
  const expected = problemOf(error);
  if (expected && expected.status >= 500) return { message: expected.message, waiting: true };
  if (status !== 404) console.error(error);
  return { message: status === 404 ? 'There is no such page.' : message };
};
