import { randomUUID } from 'node:crypto';
import { archiveCollection, restoreCollection, type LevelFigures, type SightResult } from '@stravel/core';
import { pino } from 'pino';
import { createApp } from '../app';
import { openDatabase } from '../db/database';

/** What a shell command needs of the collections, whoever holds the data folder. */
export interface CollectionAccess {
  list(): Promise<{ id: string; name: string }[]>;
  archive(id: string): Promise<Uint8Array>;
  restore(bytes: Uint8Array): Promise<{ id: string; name: string }>;
  /** Bakes a level, named by id or by name; what is fresh is read. */
  bake(collection: string, level: string): Promise<LevelBake>;
}

/** A level's bakes. */
export interface LevelBake {
  readonly sight: SightResult;
  readonly figures: LevelFigures;
}

/** The two ways to the collections of a data folder. */
export const openCollections = {
  /** Through a running server. */
  overNetwork(address: string): CollectionAccess {
    return {
      list: async () =>
        ((await answer(await fetch(`${address}/api/collections`))).json() as Promise<{ collections: { id: string; name: string }[] }>).then((body) => body.collections),
      archive: async (id) => new Uint8Array(await (await answer(await fetch(`${address}/api/collections/${id}/archive`))).arrayBuffer()),
      restore: async (bytes) => {
        const response = await fetch(`${address}/api/collections/restore`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/zip' },
          body: bytes as Uint8Array<ArrayBuffer>,
        });
        return (await answer(response)).json() as Promise<{ id: string; name: string }>;
      },
      bake: async (collection, level) =>
        (await answer(await fetch(`${address}/api/collections/${collection}/bakes/${encodeURIComponent(level)}`, { method: 'POST' }))).json() as Promise<LevelBake>,
    };
  },

  /** From the folder itself; the caller holds its lock. */
  async fromFolder(dataFolder: string): Promise<{ access: CollectionAccess; close: () => Promise<void> }> {
    const database = await openDatabase(dataFolder);
    const server = createApp({ database, dataFolder, webFolder: undefined, log: pino({ level: 'warn' }, process.stderr), now: () => new Date() });
    return {
      access: {
        list: async () => (await server.collectionRows.all()).map(({ id, name }) => ({ id, name })),
        archive: async (id) => archiveCollection(await server.collections.give(id)),
        restore: async (bytes) => {
          const content = restoreCollection(bytes);
          const id = randomUUID();
          await server.collections.take(id, content);
          return { id, name: Object.values(content.records.collection)[0].name };
        },
        bake: async (collection, level) => server.bakes.bake(collection, await server.bakes.levelNamed(collection, level)),
      },
      close: async () => {
        await server.close();
        await database.close();
      },
    };
  },
};

/** @throws Error with the server's own words when it refused */
async function answer(response: Response): Promise<Response> {
  if (response.ok) return response;
  const problem = (await response.json().catch(() => ({}))) as { detail?: string };
  throw new Error(problem.detail ?? `the server answered ${response.status}`);
}
