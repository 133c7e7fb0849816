import { existsSync } from 'node:fs';
import { lockDataFolder, openCollections, readConfig, runningAddress, type CollectionAccess } from '@stravel/server';

/** Whether a command may make a data folder where there is none: one that only reads does not. */
interface Making {
  readonly makesFolder?: boolean;
}

/** The data folder of a command that makes nothing. @throws Error naming it when there is none */
export function existingDataFolder(): string {
  const { dataFolder } = readConfig(process.env);
  if (existsSync(dataFolder)) return dataFolder;
  throw new Error(
    `there is no data folder ${dataFolder}; name one with STRAVEL_DATA, or make a collection with: stravel new NAME`,
  );
}

/**
 * Runs work on the collections of the data folder: through the server that holds it, else under its lock.
 * @throws Error naming the data folder when there is none and none may be made
 */
export async function withCollections<T>(
  work: (access: CollectionAccess) => Promise<T>,
  { makesFolder = false }: Making = {},
): Promise<T> {
  const config = readConfig(process.env);
  if (!makesFolder) existingDataFolder();
  const address = await runningAddress(config.dataFolder);
  if (address !== undefined) return work(openCollections.overNetwork(address));
  const lock = await lockDataFolder(config.dataFolder);
  try {
    const { access, close } = await openCollections.fromFolder(config.dataFolder);
    try {
      return await work(access);
    } finally {
      await close();
    }
  } finally {
    await lock.release();
  }
}

/** The collection that a command means. @throws Error listing what there is */
export async function chosenCollection(access: CollectionAccess, wanted: string | undefined): Promise<string> {
  const all = await access.list();
  if (wanted !== undefined) {
    if (all.some(({ id }) => id === wanted)) return wanted;
    throw new Error(`there is no collection ${wanted}; there are: ${all.map(({ id }) => id).join(', ') || 'none'}`);
  }
  if (all.length !== 1)
    throw new Error(
      `name one with --collection; there are: ${all.map(({ id, name }) => `${id} (${name})`).join(', ') || 'none'}`,
    );
  return all[0].id;
}
