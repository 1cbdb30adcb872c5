import knex, { type Knex } from 'knex';
import MySQL2 from 'knex/lib/dialects/mysql2/index.js';

/** A query of a page answers in milliseconds; one that has none for so long will have none. ms */
const QUERY_MS = 10_000;
/** How long a row may stay locked by somebody else before one gives up, s. */
const LOCK_WAIT_S = 8;

type Options = {
  /** For work that is meant to take long: archives, scripts. */
  patient?: boolean;
};

/**
 * A pool on one MariaDB. Every query has a limit in time, here and in the database: one that hangs must not hang every page. No charset is
 * given: the database's own collation must hold.
 */
export function connect(url: string, { patient = false }: Options = {}): Knex {
  const { hostname, port, username, password, pathname, searchParams } = new URL(url);
  return knex({
    client: patient ? 'mysql2' : LimitedClient,
    acquireConnectionTimeout: 3000,
    pool: {
      min: 0,
      max: 10,
      afterCreate: (connection: RawConnection, done: (error: Error | null, connection: RawConnection) => void) => {
        const limits = patient
          ? 'set innodb_lock_wait_timeout = 60'
          : `set max_statement_time = ${QUERY_MS / 1000}, innodb_lock_wait_timeout = ${LOCK_WAIT_S}`;
        connection.query({ sql: limits, timeout: QUERY_MS }, (error) => done(error, connection));
      }
    },
    connection: {
      host: hostname,
      port: Number(port || 3306),
      user: decodeURIComponent(username),
      password: decodeURIComponent(password),
      database: decodeURIComponent(pathname.slice(1)),
      ...(searchParams.get('socket') ? { socketPath: searchParams.get('socket')! } : {}),
      connectTimeout: 3000,
      timezone: 'Z',
      decimalNumbers: true,
      supportBigNumbers: true
    }
  });
}

type RawConnection = {
  query(options: { sql: string; timeout: number }, done: (error: Error | null) => void): void;
  destroy(): void;
};

/** Gives up on a query after a while; what its connection still waits for is dropped with it. In transactions too. */
class LimitedClient extends MySQL2 {
  override async _query(connection: RawConnection, query: { options?: object }): Promise<unknown> {
    try {
      return await super._query(connection, { ...query, options: { timeout: QUERY_MS + 2000, ...query.options } });
    } catch (error) {
      if ((error as { code?: string }).code === 'PROTOCOL_SEQUENCE_TIMEOUT') connection.destroy();
      throw error;
    }
  }
}

const UNREACHABLE =
  /ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|PROTOCOL_CONNECTION_LOST|PROTOCOL_SEQUENCE_TIMEOUT|ER_SERVER_SHUTDOWN|ER_CON_COUNT_ERROR|ER_NORMAL_SHUTDOWN|ER_CONNECTION_KILLED|ER_STATEMENT_TIMEOUT|KnexTimeoutError/;

/** Whether an error says that the database is away or does not answer, and not that something in it is wrong. */
export function isDatabaseAway(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const { code, fatal } = error as Error & { code?: string; fatal?: boolean };
  return (
    UNREACHABLE.test(code ?? '') ||
    UNREACHABLE.test(error.name) ||
    (fatal === true && /closed state|server has gone away/i.test(error.message))
  );
}
