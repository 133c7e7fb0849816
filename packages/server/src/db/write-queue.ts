import type { Sequelize, Transaction } from 'sequelize';

/**
 * The only way to write: one transaction at a time, in order of arrival. Concurrent write transactions on SQLite fail
 * with SQLITE_BUSY.
 */
export class WriteQueue {
  private last: Promise<unknown> = Promise.resolve();

  constructor(private readonly sequelize: Sequelize) {}

  /** Runs `work` in a transaction of its own; rolled back when it throws. */
  write<T>(work: (transaction: Transaction) => Promise<T>): Promise<T> {
    return this.exclusive(() => this.sequelize.transaction(work));
  }

  /** Runs `work` with no write going on beside it; for reading what must agree with the log. */
  exclusive<T>(work: () => Promise<T>): Promise<T> {
    const run = this.last.then(work, work);
    this.last = run.catch(() => undefined);
    return run;
  }

  /** Waits until everything queued so far is done. */
  async settled(): Promise<void> {
    await this.last;
  }
}
