import { error, redirect } from '@sveltejs/kit';
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

/** A page of a list beyond its last one: that one is shown. */
export function toLastPage(url: URL, { total, page, size }: { total: number; page: number; size: number }): void {
  const last = Math.max(1, Math.ceil(total / size));
  if (page <= last) return;
  const query = new URLSearchParams(url.searchParams);
  if (last > 1) query.set('page', String(last));
  else query.delete('page');
  redirect(307, `${url.pathname}${query.size > 0 ? `?${query}` : ''}`);
}

export const today = (): string => new Date().toISOString().slice(0, 10);
