import { mkdirSync, openSync, readFileSync, rmSync, writeSync, closeSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { pino } from 'pino';
import { createApp, type AppDependencies, type Server } from './app';
import type { ServerConfig } from './config';
import { openDatabase } from './db/database';

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
  const log = pino({ level: config.logLevel });
  const unlock = lockDataFolder(config.dataFolder);
  try {
    const database = await openDatabase(config.dataFolder);
    const server = createApp({ database, dataFolder: config.dataFolder, webFolder: config.webFolder, log, now: () => new Date(), demo });
    const listener = server.app.listen(config.port, config.host);
    listener.requestTimeout = REQUEST_TIMEOUT_MS;
    await new Promise<void>((resolve, reject) => {
      listener.once('listening', resolve);
      listener.once('error', reject);
    });
    await server.jobs.start();
    const { port } = listener.address() as AddressInfo;
    writeLock(config.dataFolder, port);
    return {
      ...server,
      address: `http://${config.host}:${port}`,
      stop: async () => {
        listener.close();
        listener.closeAllConnections();
        await server.close();
        await database.close();
        unlock();
      },
    };
  } catch (error) {
    unlock();
    throw error;
  }
}

/** The address of the server that holds a data folder, undefined when none runs. */
export function runningAddress(dataFolder: string): string | undefined {
  const lock = readLock(dataFolder);
  return lock && isAlive(lock.pid) && lock.port > 0 ? `http://127.0.0.1:${lock.port}` : undefined;
}

/**
 * Holds a data folder for this process alone.
 * @returns what lets it go @throws Error when a living process holds it
 */
export function lockDataFolder(dataFolder: string): () => void {
  mkdirSync(dataFolder, { recursive: true });
  const lock = readLock(dataFolder);
  if (lock && isAlive(lock.pid) && lock.pid !== process.pid) {
    throw new Error(`The data folder ${dataFolder} is in use by process ${lock.pid}. Stop it, or set STRAVEL_DATA to another folder.`);
  }
  writeLock(dataFolder, 0);
  return () => rmSync(lockPath(dataFolder), { force: true });
}

function writeLock(dataFolder: string, port: number): void {
  const file = openSync(lockPath(dataFolder), 'w');
  writeSync(file, JSON.stringify({ pid: process.pid, port }));
  closeSync(file);
}

function readLock(dataFolder: string): { pid: number; port: number } | undefined {
  try {
    return JSON.parse(readFileSync(lockPath(dataFolder), 'utf8')) as { pid: number; port: number }; // written by writeLock
  } catch {
    return undefined;
  }
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}

function lockPath(dataFolder: string): string {
  return join(dataFolder, 'stravel.lock');
}
