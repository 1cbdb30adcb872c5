import knex, { type Knex } from 'knex';

/** A pool on one MariaDB. No charset is given: the database's own collation must hold. */
export function connect(url: string): Knex {
  const { hostname, port, username, password, pathname, searchParams } = new URL(url);
  return knex({
    client: 'mysql2',
    acquireConnectionTimeout: 3000,
    pool: { min: 0, max: 8 },
    connection: {
      host: hostname,
      port: Number(port || 3306),
      user: decodeURIComponent(username),
      password: decodeURIComponent(password),
      database: decodeURIComponent(pathname.slice(1)),
      ...(searchParams.get('socket') ? { socketPath: searchParams.get('socket')! } : {}),
      timezone: 'Z',
      decimalNumbers: true,
      supportBigNumbers: true
    }
  });
}

const UNREACHABLE =
  /ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|PROTOCOL_CONNECTION_LOST|ER_SERVER_SHUTDOWN|ER_CON_COUNT_ERROR|ER_NORMAL_SHUTDOWN|KnexTimeoutError/;

/** Whether an error says that the database is away, and not that something in it is wrong. */
export function isDatabaseAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const { code, fatal } = error as Error & { code?: string; fatal?: boolean };
  return (
    UNREACHABLE.test(code ?? '') ||
    UNREACHABLE.test(error.name) ||
    (fatal === true && /closed state|server has gone away/i.test(error.message))
  );
}
