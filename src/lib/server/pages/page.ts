import { error } from '@sveltejs/kit';
import type { Knex } from 'knex';
import { database } from '../db';
import { problemOf } from '../db/errors';

/** Runs the reading of a page; an expected failure becomes an error page with its sentence, once and here. */
export async function forPage<T>(work: (db: Knex) => Promise<T>): Promise<T> {
  try {
    return await work(database());
  } catch (problem) {
    const expected = problemOf(problem);
    if (!expected) throw problem;
    const { status, message } = expected;
    error(status, status >= 500 ? { message, waiting: true } : message);
  }
}

export const today = (): string => new Date().toISOString().slice(0, 10);
