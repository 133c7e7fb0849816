import { CoreError, bakeSpec, nameOf, type BakeRef, type KeyedRef, type LevelScene } from '@stravel/core';
import type { ThreadPool, ThreadRunOptions } from '../jobs/thread-pool';
import { keptName, type BakeStore, type KeptBake } from './bake-store';
import { missingFault } from './bake-faults';
import type { StoredBake } from './bake-tasks';

/** Makes bakes in threads and has them kept, each once whoever asks for it. */
export class BakeMaker {
  /** Bakes that are being made, by collection, kind and key. */
  private readonly making = new Map<string, Promise<void>>();

  /**
   * @param isCurrent whether a key is that of a bake as things stand
   * @param floorFiles where the collisions stand of what a level places
   * @param onKept is told of each bake that was kept
   */
  constructor(
    private readonly store: BakeStore,
    private readonly threads: ThreadPool,
    private readonly isCurrent: (kind: string, key: string) => boolean,
    private readonly floorFiles: (scene: LevelScene) => Record<string, string>,
    private readonly onKept: (collection: string, level: string) => void,
  ) {}

  /**
   * Makes and keeps a bake; where that is being done already it waits for it.
   * @param stored what it needs, by name
   */
  async make(
    collection: string,
    scene: LevelScene,
    ref: KeyedRef,
    stored: ReadonlyMap<string, StoredBake>,
    options: ThreadRunOptions,
  ): Promise<KeptBake> {
    const { kind, subject, key } = ref;
    const name = `${collection} ${keptName(kind, key)}`;
    for (let running = this.making.get(name); running; running = this.making.get(name)) {
      await Promise.race([running.catch(() => undefined), aborted(options.signal)]);
      if (options.signal?.aborted) throw new CoreError('CANCELLED', `${kind}: cancelled on request`);
      const kept = await this.store.find(collection, kind, key);
      if (kept) return kept;
    }
    const needed = bakeSpec(kind)
      .needs(scene, subject)
      .flatMap((need) => stored.get(nameOf(need.ref)) ?? []);
    const work = this.makeNow(collection, scene, ref, needed, options);
    this.making.set(name, work);
    try {
      await work;
    } finally {
      this.making.delete(name);
    }
    this.onKept(collection, scene.content.level.id);
    const kept = await this.store.find(collection, kind, key);
    if (!kept) throw missingFault(ref);
    return kept;
  }

  private async makeNow(
    collection: string,
    scene: LevelScene,
    ref: KeyedRef,
    needed: readonly StoredBake[],
    options: ThreadRunOptions,
  ): Promise<void> {
    const { kind, subject } = ref;
    const of: BakeRef = { kind, subject };
    const kits = bakeSpec(kind).readsFloors ? this.floorFiles(scene) : {};
    const input = { scene, ref: of, needed, kits };
    const made = await this.threads.run('make-bake', input, options);
    await this.store.keep(collection, ref, made, this.isCurrent);
  }
}

/** Comes to pass when a run is no longer wanted. */
function aborted(signal: AbortSignal | undefined): Promise<void> {
  return new Promise((resolve) => signal?.addEventListener('abort', () => resolve(), { once: true }));
}
