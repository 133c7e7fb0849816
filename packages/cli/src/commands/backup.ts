import { resolve } from 'node:path';
import { backupDataFolder, readConfig } from '@stravel/server';

/** Copies the data folder into an empty one, also while a server runs. */
export async function backupCommand(folder: string): Promise<void> {
  const { assets, bakes } = await backupDataFolder(readConfig(process.env).dataFolder, resolve(folder));
  process.stdout.write(
    `the data folder is in ${folder}, with ${assets} mesh and picture files and ${bakes} bakes; start on it with STRAVEL_DATA=${folder}\n`,
  );
}
