import { join, resolve } from 'node:path';
import {
  CoreError,
  counted,
  gameFile,
  gamePictures,
  kitPackPath,
  manifestText,
  nameOf,
  packedLevels,
  picturePath,
  placedFilesOf,
  placedPieces,
  sightPath,
  targetOf,
  type Finding,
  type KitInspection,
  type Level,
  type LevelScene,
  type LoggedEdit,
  type PackChoice,
  type PackedFile,
} from '@stravel/core';
import type { AssetStore } from '../collections/asset-store';
import type { BakeService } from '../bakes/bake-service';
import { sightOf } from '../bakes/bake-tasks';
import type { CollectionService, NumberedContent } from '../collections/collection-service';
import type { JobHandler, JobRun } from '../jobs/job-service';
import type { ThreadPool, ThreadRunOptions } from '../jobs/thread-pool';
import type { KitInspections } from './kit-inspections';
import { checkedPackRequest } from './pack-request';
import { FolderTurns } from './folder-turns';
import { inLanes } from './in-lanes';
import { PackFolder, type PackWritten } from './pack-folder';
import { PackedLevels, type PackedLevel } from './packed-levels';
import { kitsOf, levelInput, viewOf, type StoredContent } from './packed-content';

/** What a pack is told of when it is done. */
export interface PackSummary extends PackWritten {
  readonly folder: string;
  /** Number of the last edit that it holds. */
  readonly edit: number;
  readonly levels: number;
  readonly kits: number;
  readonly bytes: number;
  /** Paths of what is seen from where in levels that have changed since they were baked. */
  readonly stale: readonly string[];
}

/** How a pack is made. */
export interface PackRun extends ThreadRunOptions {
  /** Levels that are not baked as they stand keep what an earlier pack says is seen; it is told as stale. */
  readonly leavesSight?: boolean;
}

/** So many levels are packed at a time where none is baked. */
const QUICK_LANES = 3;

/** Checks a collection against its target and writes it out. */
export class PackService {
  /** Two packs into one folder wait for each other. */
  private readonly turns = new FolderTurns();
  private readonly packedLevels = new PackedLevels();

  constructor(
    private readonly collections: CollectionService,
    private readonly bakes: BakeService,
    private readonly threads: ThreadPool,
    private readonly kits: KitInspections,
    private readonly assets: Pick<AssetStore, 'get'>,
    /** Where the page's packs go. */
    private readonly packsFolder: string,
  ) {}

  /** Notes what an edit may have changed. */
  afterEdit(collection: string, edit: LoggedEdit): void {
    this.packedLevels.afterEdit(collection, edit);
  }

  /** Forgets a collection that was removed for good. */
  forget(collection: string): void {
    this.packedLevels.forget(collection);
  }

  /** What the target has against a collection as it stands. */
  async check(collection: string, choice: PackChoice, options: ThreadRunOptions = {}): Promise<Finding[]> {
    return this.checkContent((await this.collections.giveWithoutAssets(collection)).content, choice, options);
  }

  /** The job of the page: packs into a folder below the data folder. */
  readonly packJob: JobHandler = async ({ collection, input, signal, progress }: JobRun): Promise<PackSummary> => {
    const { folder, leavesSight, ...choice } = checkedPackRequest(input);
    const run = { signal, onProgress: progress, leavesSight };
    return this.pack(collection, join(this.packsFolder, collection, folder), choice, run);
  };

  /**
   * Checks, then writes a pack; only files that changed are written.
   * @throws CoreError 'PACK_REFUSED' when the check finds errors, 'PACK_FOLDER', 'CANCELLED', or as the bakes do
   */
  async pack(collection: string, folder: string, choice: PackChoice, options: PackRun = {}): Promise<PackSummary> {
    const say = options.onProgress ?? ((): void => undefined);
    say(0, 'reading the collection');
    // One moment of the log for all of it, however long it takes and whatever is changed meanwhile.
    const given = await this.collections.giveWithoutAssets(collection);
    const findings = await this.checkContent(given.content, choice, options);
    const errors = findings.filter(({ severity }) => severity === 'error');
    if (errors.length > 0) {
      throw new CoreError(
        'PACK_REFUSED',
        `pack: the check found ${counted(errors.length, 'error')}, the first: ${errors[0].message}`,
        { findings: errors },
      );
    }
    return this.packGiven(collection, given, folder, choice, options);
  }

  /** Writes a pack of a collection as it was given, whatever a check would find. @throws CoreError as `pack` but for 'PACK_REFUSED' */
  async packGiven(
    collection: string,
    given: NumberedContent<StoredContent>,
    folder: string,
    choice: PackChoice,
    options: PackRun = {},
  ): Promise<PackSummary> {
    return this.turns.take(resolve(folder), async () => {
      const into = await PackFolder.open(folder);
      try {
        return await this.write(collection, given, choice, into, folder, options);
      } catch (error) {
        await into.drop();
        throw error;
      }
    });
  }

  private async write(
    collection: string,
    { content, edit }: NumberedContent<StoredContent>,
    choice: PackChoice,
    into: PackFolder,
    folder: string,
    { signal, onProgress, leavesSight }: PackRun,
  ): Promise<PackSummary> {
    const { records } = content;
    const levels = packedLevels(records, choice);
    const target = targetOf(records, choice.target);
    const kitLoads = await this.kits.loads(records, kitsOf(levels, content), target);
    const usedKits = new Set<string>();
    const levelPaths: string[] = [];
    const stale: string[] = [];
    const packed = this.packedLevels.into(resolve(folder), collection, JSON.stringify(target));
    const made = new Map<string, PackedLevel>();
    const writeLevel = async (level: Level, i: number): Promise<void> => {
      const before = packed.get(level.id);
      const isSame = before && this.packedLevels.isSame(collection, level, records.stratum, before);
      if (isSame && (await into.keepSame(before.files))) {
        for (const kit of before.kits) usedKits.add(kit);
        levelPaths[i] = before.files[before.files.length - 1].path;
        return;
      }
      const say = (fraction: number, stage: string): void =>
        onProgress?.(0.05 + (0.85 * (i + fraction)) / levels.length, `${level.name}: ${stage}`);
      say(0, 'sight');
      if (signal?.aborted) throw new CoreError('CANCELLED', 'pack: cancelled on request');
      const input = { ...levelInput(content, level), kitLoads, placed: placedFilesOf(target) };
      const view = viewOf(records);
      const scene: LevelScene = { ...input, view, rehearsals: [], devices: {} };
      const seen = sightPath(input.content);
      const keptOnly = leavesSight === true && into.has(seen);
      const needed = await this.bakes.bring(collection, scene, [sightOf(scene)], {
        keptOnly,
        signal,
        onProgress: (f, stage) => say(f * 0.5, stage),
      });
      if (!needed.some((one) => nameOf(one) === nameOf(sightOf(scene)))) {
        if (!keptOnly)
          throw new CoreError('BAKE_MISSING', `pack: what is seen in ${level.name} cannot be baked`, {
            level: level.id,
          });
        await into.keep(seen);
        stale.push(seen);
      }
      const own = new Set([...placedPieces(input.content.strata)].map((piece) => records.piece[piece].kit));
      for (const kit of own) usedKits.add(kit);
      const files = await this.threads.run(
        'pack-level',
        { ...input, needed },
        {
          signal,
          onProgress: (f, stage) => say(0.5 + f * 0.5, stage),
        },
      );
      const put: PackedFile[] = [];
      for (const file of files) put.push(await into.put(file));
      levelPaths[i] = files[files.length - 1].path;
      if (!stale.includes(seen)) made.set(level.id, { edit, files: put, kits: [...own] });
    };
    // Several bakes at a time would need the memory of all of them; where none is made there is mostly waiting.
    await inLanes(levels, leavesSight === true ? QUICK_LANES : 1, writeLevel);
    const view = viewOf(records);
    const kits = [...usedKits].sort().map((id) => records.kit[id]);
    for (const kit of kits) {
      onProgress?.(0.92, `kit ${kit.name}`);
      const input = {
        kit,
        pieces: Object.values(records.piece).filter((piece) => piece.kit === kit.id),
        glb: await this.assets.get(kit.mesh),
        view,
        meshFiles: target.meshFiles,
        compression: target.compression,
      };
      for (const file of await this.threads.run('pack-kit', input, { signal })) await into.put(file);
    }
    const game = { records, levels: levels.map((level, i) => ({ level, path: levelPaths[i] })) };
    const pictures = new Map<string, string>();
    for (const picture of gamePictures(game)) {
      const bytes = await this.assets.get(picture);
      const path = picturePath(picture, bytes);
      await into.put({ path, bytes });
      pictures.set(picture, path);
    }
    await into.put(gameFile({ ...game, pictures }));
    onProgress?.(0.98, 'manifest');
    if (signal?.aborted) throw new CoreError('CANCELLED', 'pack: cancelled on request');
    const name = Object.values(records.collection).at(0)?.name ?? collection;
    const manifest = manifestText({
      collection: { id: collection, name },
      target,
      edit,
      levels: levelPaths,
      kits: kits.map((kit) => `${kitPackPath(kit)}.json`),
      stale,
      files: into.packed,
    });
    const written = await into.finish(manifest);
    for (const [id, level] of made) packed.set(id, level);
    return {
      ...written,
      folder,
      edit,
      levels: levels.length,
      kits: kits.length,
      stale,
      bytes: into.packed.reduce((sum, { bytes }) => sum + bytes, 0),
    };
  }

  private async checkContent(
    { records, strata }: StoredContent,
    choice: PackChoice,
    options: ThreadRunOptions,
  ): Promise<Finding[]> {
    const inspections: Record<string, KitInspection> = {};
    for (const kit of kitsOf(packedLevels(records, choice), { records, strata })) {
      const inspection = await this.kits.of(kit.mesh, options);
      if (inspection) inspections[kit.id] = inspection;
    }
    return this.threads.run('check-pack', { content: { records, strata }, inspections, choice }, options);
  }
}
