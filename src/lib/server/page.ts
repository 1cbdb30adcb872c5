import { error } from '@sveltejs/kit';
import type { Knex } from 'knex';
import { database } from './db';
import { isDatabaseAway } from './db/connection';
import { DATABASE_AWAY, Problem } from './problem';

/** Runs the reading of a page; an expected failure becomes an error page with its sentence, once and here. */
export async function forPage<T>(work: (db: Knex) => Promise<T>): Promise<T> {
  try {
    return await work(database());
  } catch (problem) {
    if (problem instanceof Problem) error(problem.status, problem.message);
    if (isDatabaseAway(problem)) error(503, { message: DATABASE_AWAY, waiting: true });
    throw problem;
  }
}

export const today = (): string => new Date().toISOString().slice(0, 10);
