import { CoreError, levelsInOrder, placedFilesOf, targetOf, type LevelScene } from '@stravel/core';
import type { Way } from '@stravel/core/pack-walk';
import type { BakeService } from '../bakes/bake-service';
import { sightOf } from '../bakes/bake-tasks';
import type { CollectionService } from '../collections/collection-service';
import type { ThreadPool, ThreadRunOptions } from '../jobs/thread-pool';
import type { KitInspections } from './kit-inspections';
import { kitsOf, levelInput, viewOf } from './packed-content';

/** A walk that is to be forecast. */
export interface ForecastRequest extends Way {
  /** Key of the level. */
  readonly level: string;
  /** Id or name of the target; absent: the first. */
  readonly target?: string;
}

/** Forecasts walks through levels as they would be packed now. */
export class WalkForecasts {
  constructor(
    private readonly collections: CollectionService,
    private readonly bakes: BakeService,
    private readonly threads: ThreadPool,
    private readonly kits: KitInspections,
  ) {}

  /**
   * @returns the JSON of a WalkForecast, and the number of the last edit that it rests on
   * @throws CoreError 'LEVEL_MISSING', 'TARGET_MISSING', 'CANCELLED', or as bakes and rehearsals do
   */
  async of(
    collection: string,
    { level: key, target: named, ...way }: ForecastRequest,
    options: ThreadRunOptions,
  ): Promise<{ readonly edit: number; readonly bytes: Uint8Array }> {
    const { content, edit } = await this.collections.giveWithoutAssets(collection);
    const { records } = content;
    const level = levelsInOrder(records).find((one) => one.key === key);
    if (!level) throw new CoreError('LEVEL_MISSING', `walk: there is no level with the key ${key}`, { level: key });
    const target = targetOf(records, named);
    const scene: LevelScene = {
      ...levelInput(content, level),
      kitLoads: await this.kits.loads(records, kitsOf([level], content), target),
      placed: placedFilesOf(target),
      view: viewOf(records),
      rehearsals: [],
      devices: records.device,
    };
    const needed = await this.bakes.bring(collection, scene, [sightOf(scene)], options);
    const kits = this.bakes.scenes.floorFiles(scene);
    return { edit, bytes: await this.threads.run('forecast-walk', { scene, way, needed, kits }, options) };
  }
}
