import type { SQL } from 'drizzle-orm';
import { PgDialect } from 'drizzle-orm/pg-core';
import type { QueryResult, QueryResultRow } from 'pg';
import type { Db } from './database';

const dialect = new PgDialect();

/**
 * A statement that is written out once for a server, and planned once by each connection. What differs from time to
 * time stands in it as `sql.placeholder`.
 */
export class Statement<Row extends QueryResultRow> {
  private readonly query: ReturnType<PgDialect['sqlToQuery']>;

  /** @param name what connections know it by; no two statements may share one */
  constructor(
    private readonly name: string,
    written: SQL,
  ) {
    this.query = dialect.sqlToQuery(written);
  }

  /** Runs it, on its own or within a transaction. */
  async run(db: Db, values: Record<string, unknown>): Promise<QueryResult<Row>> {
    const prepared = db._.session.prepareQuery(this.query, undefined, this.name, false);
    return (await prepared.execute(values)) as QueryResult<Row>;
  }
}
