import sqlite3 from 'sqlite3';

/** A file that is held for one holder alone. */
export interface HeldFile {
  release(): Promise<void>;
}

/**
 * Holds a file by an exclusive transaction on a small database in it, which is made where there is none. The system ends it with the
 * process, however that ends.
 * @returns undefined when another holds it @throws Error when it cannot be opened
 */
export async function holdFile(path: string): Promise<HeldFile | undefined> {
  const database = await new Promise<sqlite3.Database>((resolve, reject) => {
    const opened: sqlite3.Database = new sqlite3.Database(path, (error) => (error ? reject(error) : resolve(opened)));
  });
  try {
    await new Promise<void>((resolve, reject) =>
      database.exec('PRAGMA busy_timeout=0; BEGIN EXCLUSIVE', (error) => (error ? reject(error) : resolve())),
    );
    return { release: () => close(database) };
  } catch (error) {
    await close(database);
    if ((error as { code?: string }).code === 'SQLITE_BUSY') return undefined;
    throw error;
  }
}

function close(database: sqlite3.Database): Promise<void> {
  return new Promise((resolve, reject) => database.close((error) => (error ? reject(error) : resolve())));
}
