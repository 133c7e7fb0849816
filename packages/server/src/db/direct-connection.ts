import sqlite3 from 'sqlite3';

export type SqlValue = string | number | null;

/** One statement with its values. */
export interface Statement {
  readonly sql: string;
  readonly values: readonly SqlValue[];
}

/**
 * A connection of its own with prepared statements, for the edit log alone. Sequelize opens a connection for every
 * transaction and reads a stack for every query: 82 edits a second through it, against some 500 this way.
 */
export class DirectConnection {
  private readonly prepared = new Map<string, sqlite3.Statement>();

  private constructor(private readonly database: sqlite3.Database) {}

  /** Opens an existing database with synchronous=FULL and foreign keys on. @throws Error when either does not hold */
  static async open(storage: string): Promise<DirectConnection> {
    const database = await new Promise<sqlite3.Database>((resolve, reject) => {
      const opened: sqlite3.Database = new sqlite3.Database(storage, sqlite3.OPEN_READWRITE, (error) =>
        error ? reject(error) : resolve(opened),
      );
    });
    const connection = new DirectConnection(database);
    await connection.run({ sql: 'PRAGMA synchronous=FULL', values: [] });
    await connection.run({ sql: 'PRAGMA foreign_keys=ON', values: [] });
    await connection.run({ sql: 'PRAGMA busy_timeout=5000', values: [] });
    const row = await connection.first<{ synchronous: number }>({ sql: 'PRAGMA synchronous', values: [] });
    if (row?.synchronous !== 2)
      throw new Error(`database: synchronous must be FULL (2), is ${row?.synchronous ?? 'unknown'}`);
    return connection;
  }

  /** The first row of a query, undefined when there is none. */
  first<Row>({ sql, values }: Statement): Promise<Row | undefined> {
    return this.with(sql, (statement, done) =>
      statement.get<Row>(values, (error, row) => statement.reset(() => done(error, row))),
    );
  }

  /** Runs statements as one transaction: all of them or none. */
  async atOnce(statements: readonly Statement[]): Promise<void> {
    await this.run({ sql: 'BEGIN IMMEDIATE', values: [] });
    try {
      for (const statement of statements) await this.run(statement);
      await this.run({ sql: 'COMMIT', values: [] });
    } catch (error) {
      // The statement that failed may have ended the transaction by itself.
      await this.run({ sql: 'ROLLBACK', values: [] }).catch(() => undefined);
      throw error;
    }
  }

  async close(): Promise<void> {
    await Promise.all(
      [...this.prepared.values()].map((statement) => new Promise((resolve) => statement.finalize(resolve))),
    );
    this.prepared.clear();
    await new Promise<void>((resolve, reject) => this.database.close((error) => (error ? reject(error) : resolve())));
  }

  private run({ sql, values }: Statement): Promise<void> {
    return this.with(sql, (statement, done) => statement.run(values, (error: Error | null) => done(error, undefined)));
  }

  private async with<Result>(
    sql: string,
    work: (statement: sqlite3.Statement, done: (error: Error | null, result: Result) => void) => void,
  ): Promise<Result> {
    let statement = this.prepared.get(sql);
    if (!statement) {
      statement = await new Promise<sqlite3.Statement>((resolve, reject) => {
        const made = this.database.prepare(sql, (error) => (error ? reject(error) : resolve(made)));
      });
      this.prepared.set(sql, statement);
    }
    const ready = statement;
    return new Promise((resolve, reject) => work(ready, (error, result) => (error ? reject(error) : resolve(result))));
  }
}
