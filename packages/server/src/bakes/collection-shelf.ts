import { compareOrdered, levelsInOrder, type Device, type Level, type LevelSet } from '@stravel/core';
import type { BakeService, LevelBakes } from './bake-service';

/** What the start page draws a collection's cores from. */
export interface CollectionShelf {
  readonly sets: readonly LevelSet[];
  /** Play levels in use, in order of play, without the values of their fields. */
  readonly levels: readonly Level[];
  readonly devices: readonly Device[];
  /** What is counted of each level with content, and its bakes. */
  readonly bakes: readonly LevelBakes[];
}

/** The shelf of a collection, as its levels stand now. */
export async function collectionShelf(bakes: BakeService, collection: string): Promise<CollectionShelf> {
  const tables = await bakes.scenes.tables(collection);
  const levels = levelsInOrder(tables)
    .filter(({ purpose }) => purpose === 'play')
    .map((level) => ({ ...level, values: {} }));
  const shown = new Set(levels.map(({ id }) => id));
  return {
    sets: Object.values(tables.set),
    levels,
    devices: Object.values(tables.device).sort(compareOrdered),
    bakes: (await bakes.list(collection)).filter(({ level }) => shown.has(level)),
  };
}
