import { randomBytes } from 'node:crypto';
import type { Knex } from 'knex';
import { inject } from 'vitest';
import { connect } from '../src/lib/server/db/connection';
import { migrate } from '../src/lib/server/db/migrations';

/** A new, migrated database and how to drop it again. @param upTo the last migration it has got, where it is an older one */
export async function freshDatabase(upTo?: string): Promise<{ db: Knex; url: string; drop: () => Promise<void> }> {
  const url = new URL(inject('databaseUrl'));
  const name = `ashcrate_test_${randomBytes(6).toString('hex')}`;
  const admin = connect(url.href);
  await admin.raw(`create database ${name} character set utf8mb4 collate utf8mb4_unicode_520_ci`);
  url.pathname = `/${name}`;
  const db = connect(url.href);
  await migrate(db, upTo);
  return {
    db,
    url: url.href,
    async drop() {
      await db.destroy();
      await admin.raw(`drop database ${name}`);
      await admin.destroy();
    }
  };
}
