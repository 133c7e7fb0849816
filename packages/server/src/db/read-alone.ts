import sqlite3 from 'sqlite3';
import { HttpError } from '../http/problem';
import type { Statement } from './direct-connection';

/** Reads that take longer are ended, milliseconds. */
export const READ_LIMIT_MS = 10000;

/**
 * Reads rows on a connection of its own, so that a long read holds up neither edits nor other reads, and ends one that takes too long.
 * @throws HttpError 503 'READ_TOO_LONG' after `limitMs`
 */
export async function readAlone<Row>(
  storage: string,
  { sql, values }: Statement,
  limitMs = READ_LIMIT_MS,
): Promise<Row[]> {
  const connection = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened: sqlite3.Database = new sqlite3.Database(storage, sqlite3.OPEN_READONLY, (error) =>
      error ? reject(error) : resolve(opened),
    );
  });
  let isOver = false;
  const timer = setTimeout(() => {
    isOver = true;
    connection.interrupt();
  }, limitMs);
  try {
    return await new Promise<Row[]>((resolve, reject) =>
      connection.all<Row>(sql, values, (error, rows) => (error ? reject(error) : resolve(rows))),
    );
  } catch (error) {
    if (!isOver) throw error;
    throw new HttpError(
      503,
      'READ_TOO_LONG',
      `Reading the log took over ${limitMs / 1000} s and was stopped. Ask for a shorter part of it.`,
    );
  } finally {
    clearTimeout(timer);
    connection.close();
  }
}
