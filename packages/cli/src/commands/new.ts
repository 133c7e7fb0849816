import { DEFAULT_RANKS, STANDARD_DEVICES } from '@stravel/core';
import { withCollections } from '../with-collections';

export interface NewOptions {
  readonly ranks?: string;
  readonly set?: string;
  readonly devices?: string;
}

/** Makes a collection with one set, one level and the devices asked for: all standard ones unless told otherwise. */
export async function newCommand(name: string, options: NewOptions): Promise<void> {
  const list = (text: string): string[] =>
    text
      .split(',')
      .map((one) => one.trim())
      .filter((one) => one !== '');
  const ranks = options.ranks === undefined ? DEFAULT_RANKS : list(options.ranks);
  const devices =
    options.devices === undefined
      ? STANDARD_DEVICES.map(({ id }) => id)
      : options.devices === 'none'
        ? []
        : list(options.devices);
  await withCollections(
    async (access) => {
      const made = await access.create({ name, ranks, set: options.set ?? `${ranks[0] ?? 'Set'} 1`, devices });
      process.stdout.write(`${made.name} is the new collection ${made.id}\n`);
    },
    { makesFolder: true },
  );
}
