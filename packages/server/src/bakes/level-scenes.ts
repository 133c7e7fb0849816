import {
  CoreError,
  DEFAULT_VIEW,
  RECORDS_DOCUMENT,
  assembliesWithin,
  heldAt,
  levelContent,
  levelsInOrder,
  placedFilesOf,
  placedPieces,
  targetOf,
  type CollectionContent,
  type KitLoad,
  type Level,
  type LevelScene,
  type StratumContent,
} from '@stravel/core';
import { contentOf } from '../collections/collection-service';
import type { Database } from '../db/database';
import type { DocumentStore } from '../documents/document-store';
import { tablesOf } from '../documents/record-tables';
import type { KitInspections } from '../pack/kit-inspections';

/** Levels with all that their bakes are made from, as they stand now. */
export class LevelScenes {
  /** What a game loads of each kit, by collection. */
  private readonly loads = new Map<string, Promise<Record<string, KitLoad>>>();

  constructor(
    private readonly database: Database,
    private readonly documents: DocumentStore,
    private readonly kits: KitInspections,
  ) {}

  /** Forgets what kits load. */
  forgetLoads(collection: string): void {
    this.loads.delete(collection);
  }

  /** @throws CoreError 'LEVEL_MISSING', 'ASSEMBLY_TOO_LARGE' */
  async of(collection: string, level: string): Promise<LevelScene> {
    const kitLoads = await this.kitLoads(collection);
    return this.database.queue.exclusive(async () => {
      const tables = tablesOf((await this.documents.load(collection, RECORDS_DOCUMENT)).state);
      const record = Object.hasOwn(tables.level, level) ? tables.level[level] : undefined;
      if (!record) throw new CoreError('LEVEL_MISSING', `bake: there is no level ${level}`, { level });
      const stack = record.strata.map(({ stratum }) => stratum).filter((id) => Object.hasOwn(tables.stratum, id));
      const strata = [];
      for (const id of stack)
        strata.push({
          stratum: tables.stratum[id],
          content: await contentOf(await this.documents.load(collection, id)),
        });
      const assemblies = new Map<string, StratumContent>();
      for (const id of assembliesWithin(tables.stratum, stack)) {
        if (tables.stratum[id]) assemblies.set(id, await contentOf(await this.documents.load(collection, id)));
      }
      return sceneOf(tables, record, levelContent(bareLevel(record), strata, assemblies), kitLoads);
    });
  }

  /** All levels with content, in order of play, each without what stands in it: enough to tell what it has bakes of. */
  async bare(collection: string): Promise<LevelScene[]> {
    const tables = await this.tables(collection);
    return levelsInOrder(tables)
      .filter(({ strata }) => strata.length > 0)
      .map((level) => sceneOf(tables, level, { level: bareLevel(level), strata: [] }, {}));
  }

  /** Id of the level with an id, a key or a name, without regard to case. @throws CoreError 'LEVEL_MISSING' */
  async levelNamed(collection: string, text: string): Promise<string> {
    const levels = levelsInOrder(await this.tables(collection));
    const wanted = text.toLowerCase();
    const found =
      levels.find(({ key }) => key === wanted) ??
      levels.find(({ id }) => id === text) ??
      levels.find(({ name }) => name.toLowerCase() === wanted);
    if (!found)
      throw new CoreError('LEVEL_MISSING', `bake: there is no level with the key, name or id ${text}`, { level: text });
    return found.id;
  }

  /** What a game loads of each kit of a collection, by its id; those whose mesh is missing or cannot be read are left out. */
  async kitLoads(collection: string): Promise<Record<string, KitLoad>> {
    const known = this.loads.get(collection);
    if (known) return known;
    const made = this.tables(collection).then((tables) => this.kits.loads(tables, Object.values(tables.kit)));
    this.loads.set(collection, made);
    made.catch(() => this.loads.delete(collection));
    return made;
  }

  /** Where the GLBs stand that hold the collisions of what a level places, by the ids of their kits. */
  floorFiles({ content, pieces, kits }: LevelScene): Record<string, string> {
    const placed = [...placedPieces(content.strata)].flatMap((id) => heldAt(pieces, id) ?? []);
    const used = new Set(placed.flatMap(({ kit, collision }) => (collision ? [kit] : [])));
    return this.kits.files(Object.values(kits).filter(({ id }) => used.has(id)));
  }

  /** The small records of a collection as they stand. */
  async tables(collection: string): Promise<CollectionContent['records']> {
    return this.database.queue.exclusive(async () =>
      tablesOf((await this.documents.load(collection, RECORDS_DOCUMENT)).state),
    );
  }
}

/** A level without the values of its fields, which no bake reads. */
function bareLevel(level: Level): Level {
  return { ...level, values: {} };
}

function sceneOf(
  tables: CollectionContent['records'],
  level: Level,
  content: LevelScene['content'],
  kitLoads: LevelScene['kitLoads'],
): LevelScene {
  return {
    content,
    pieces: tables.piece,
    view: Object.values(tables.collection).at(0)?.view ?? DEFAULT_VIEW,
    kits: tables.kit,
    kitLoads,
    placed: placedFilesOf(targetOf(tables)),
    grid: Object.hasOwn(tables.cellGrid, level.id) ? tables.cellGrid[level.id] : null,
    rehearsals: Object.values(tables.rehearsal).filter((walk) => walk.level === level.id),
    devices: tables.device,
  };
}
