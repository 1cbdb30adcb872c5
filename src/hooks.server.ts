import { json, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';
import { database } from '$lib/server/db';
import { isDatabaseAway } from '$lib/server/db/connection';
import { migrate } from '$lib/server/db/migrations';
import { seedOnce } from '$lib/server/demo/seed';
import { DATABASE_AWAY } from '$lib/server/problem';

/** Before the first request: the database is brought up to date, and gets the demo crate if it has none. */
export const init: ServerInit = async () => {
  const db = database();
  await migrate(db);
  await seedOnce(db, new Date().toISOString());
};

const WRITES = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

export const handle: Handle = async ({ event, resolve }) => {
  const { request, url } = event;
  // A page of another site may not write here: browsers say where a request comes from.
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  const foreign =
    (origin !== null && origin !== url.origin) || (site !== null && site !== 'same-origin' && site !== 'none');
  if (foreign && WRITES.has(request.method)) {
    return json(
      { error: { code: 'foreign-origin', message: 'Requests from other sites are refused.', fields: [] } },
      { status: 403 }
    );
  }
  const response = await resolve(event);
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'same-origin');
  response.headers.set('x-frame-options', 'DENY');
  return response;
};

export const handleError: HandleServerError = ({ error, status, message }) => {
  if (isDatabaseAway(error)) return { message: DATABASE_AWAY, waiting: true };
  if (status !== 404) console.error(error);
  return { message: status === 404 ? 'There is no such page.' : message };
};
