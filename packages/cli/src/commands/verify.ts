import { counted } from '@stravel/core';
import { lockDataFolder, verifyDataFolder } from '@stravel/server';
import { CallError } from '../call-error';
import { existingDataFolder } from '../with-collections';

/** Exit code when something is wrong. */
const FAULTS_FOUND = 1;

/** Looks at everything in the data folder and prints what is wrong with it. @throws CallError 1 when anything is */
export async function verifyCommand(): Promise<void> {
  const dataFolder = existingDataFolder();
  const lock = await lockDataFolder(dataFolder);
  try {
    const { collections, records, files, faults } = await verifyDataFolder(dataFolder);
    process.stdout.write(
      `looked at ${counted(collections, 'collection')}, ${counted(records, 'record')} and ${counted(files, 'file')}\n`,
    );
    for (const fault of faults) process.stdout.write(`${fault}\n`);
    if (faults.length > 0) throw new CallError(`found ${counted(faults.length, 'fault')}`, FAULTS_FOUND);
    process.stdout.write('no faults found\n');
  } finally {
    await lock.release();
  }
}
