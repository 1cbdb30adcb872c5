import type { Knex } from 'knex';
import { connect } from './connection';

let pool: Knex | undefined;

function address(): string {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set; start Ash Crate with “npm start”.');
  return url;
}

/** The application's pool, made on first use from DATABASE_URL, which the start command sets. */
export const database = (): Knex => (pool ??= connect(address()));

/** Does what may take long, such as migrating much data, on a connection without the limits of a page. */
export async function patiently<T>(work: (db: Knex) => Promise<T>): Promise<T> {
  const db = connect(address(), { patient: true });
  try {
    return await work(db);
  } finally {
    await db.destroy();
  }
}
