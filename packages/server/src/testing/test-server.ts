import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Edit, ModelUpgrades, Operation } from '@stravel/core';
import { smallCollection } from '@stravel/core/testing';
import { pino } from 'pino';
import { createApp, type Server } from '../app';
import { openDatabase, type Database } from '../db/database';

/** A server on a real SQLite file in a folder of its own, with the small collection in it. */
export interface TestServer {
  readonly server: Server;
  readonly database: Database;
  readonly url: string;
  readonly dataFolder: string;
  get(path: string, headers?: Record<string, string>): Promise<Response>;
  post(path: string, body: unknown, headers?: Record<string, string>): Promise<Response>;
  stop(): Promise<void>;
}

export async function startTestServer(
  dataFolder = mkdtempSync(join(tmpdir(), 'stravel-server-')),
  upgrades?: ModelUpgrades,
): Promise<TestServer> {
  const database = await openDatabase(dataFolder);
  const server = createApp({
    database,
    dataFolder,
    webFolder: undefined,
    log: pino({ level: 'silent' }),
    now: () => new Date(),
    upgrades,
  });
  if (!(await server.collectionRows.exists('small'))) await server.collections.take('small', await smallCollection());
  const listener = server.app.listen(0, '127.0.0.1');
  await new Promise((resolve) => listener.once('listening', resolve));
  const url = `http://127.0.0.1:${(listener.address() as AddressInfo).port}`;
  return {
    server,
    database,
    url,
    dataFolder,
    get: (path, headers = {}) => fetch(`${url}${path}`, { headers }),
    post: (path, body, headers = {}) =>
      fetch(`${url}${path}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', ...headers },
        body: JSON.stringify(body),
      }),
    stop: async () => {
      listener.close();
      listener.closeAllConnections();
      await server.close();
      await database.close();
    },
  };
}

/** Removes a test server's folder. */
export function removeFolder(dataFolder: string): void {
  rmSync(dataFolder, { recursive: true, force: true });
}

let count = 0;

/** An edit with an id of its own. */
export function edit(operations: readonly Operation[], over: Partial<Edit> = {}): Edit {
  return { id: `edit-${process.pid}-${++count}`, person: 'tester', label: 'test', undoes: null, operations, ...over };
}

/** Renames the level 'one' of the small collection. */
export function rename(before: string, after: string): Operation {
  return { document: 'records', kind: 'level', id: 'one', field: 'name', before, after };
}
