declare module 'knex/lib/dialects/mysql2/index.js' {
  import { Knex } from 'knex';
  /** The client that knex makes for mysql2 by itself; its types leave it out. */
  export default class MySQL2 extends Knex.Client {
    _query(connection: unknown, query: object): Promise<unknown>;
  }
}
