import type { AddressInfo } from 'node:net';
import { installLinearPatterns } from '@stravel/core/linear-patterns';
import { pino } from 'pino';
import { createApp, type AppDependencies, type Server } from './app';
import type { ServerConfig } from './config';
import { openDatabase } from './db/database';
import { lockDataFolder } from './db/folder-lock';

/** A request that has not come whole after so long is ended. */
const REQUEST_TIMEOUT_MS = 30000;

/** A server that listens. */
export interface RunningServer extends Server {
  readonly address: string;
  stop(): Promise<void>;
}

/**
 * Opens the data folder under its lock, listens and takes up unfinished jobs.
 * @throws Error when another process holds the folder, naming it
 */
export async function startServer(config: ServerConfig, demo?: AppDependencies['demo']): Promise<RunningServer> {
  installLinearPatterns();
  const log = pino({ level: config.logLevel });
  // What is kept is for its owner alone.
  process.umask(0o077);
  const lock = await lockDataFolder(config.dataFolder);
  try {
    const database = await openDatabase(config.dataFolder);
    const server = createApp({
      database,
      dataFolder: config.dataFolder,
      webFolder: config.webFolder,
      log,
      now: () => new Date(),
      demo,
    });
    // Begins while the rest does: whoever comes first asks it for something.
    void server.answers.warm().catch((error: unknown) => log.error(error, 'no thread could be begun'));
    await server.bakes.begin();
    const listener = server.app.listen(config.port, config.host);
    listener.requestTimeout = REQUEST_TIMEOUT_MS;
    await new Promise<void>((resolve, reject) => {
      listener.once('listening', resolve);
      listener.once('error', reject);
    });
    await server.jobs.start();
    const { port } = listener.address() as AddressInfo;
    lock.announce(port);
    return {
      ...server,
      address: `http://${config.host}:${port}`,
      stop: async () => {
        listener.close();
        listener.closeAllConnections();
        await server.close();
        await database.close();
        await lock.release();
      },
    };
  } catch (error) {
    await lock.release();
    throw error;
  }
}
