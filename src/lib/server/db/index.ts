import type { Knex } from 'knex';
import { connect } from './connection';

let pool: Knex | undefined;

/** The application's pool, made on first use from DATABASE_URL, which the start command sets. */
export function database(): Knex {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set; start Ash Crate with “npm start”.');
  pool ??= connect(url);
  return pool;
}
