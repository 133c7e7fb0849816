import { EventEmitter } from 'node:events';
import {
  CoreError,
  bakeSpec,
  bakesOfLevel,
  nameOf,
  type BakeKind,
  type BakeRef,
  type BakeResult,
  type KeyedRef,
  type LevelCount,
  type LevelScene,
  type LoggedEdit,
} from '@stravel/core';
import type { ThreadPool, ThreadRunOptions } from '../jobs/thread-pool';
import { missingFault, staleFault, undefinedForFault } from './bake-faults';
import type { BakeJudge } from './bake-judge';
import { BakeMaker } from './bake-maker';
import { keptName, type BakeStore } from './bake-store';
import type { JudgedLevel, StoredBake } from './bake-tasks';
import type { LevelScenes } from './level-scenes';

/** Whether a bake agrees with what stands; 'unknown' until something that it rests on is made. */
export type BakeState = 'fresh' | 'stale' | 'unknown' | 'none';

/** A bake without its result. */
export interface ListedBake extends BakeRef {
  readonly state: BakeState;
  /** Of what is kept, null when nothing is. */
  readonly key: string | null;
  /** That it would have now, null when it can't be told or the bake can't be made. */
  readonly current: string | null;
  readonly summary: unknown;
}

export interface LevelBakes {
  readonly level: string;
  /** Of the level as it stands; null when it can't be counted, or not yet. */
  readonly count: LevelCount | null;
  readonly bakes: readonly ListedBake[];
}

/** How bakes are brought. */
export interface BringOptions extends ThreadRunOptions {
  /** What is asked for is not made where it is lacking, only what it needs. */
  readonly keptOnly?: boolean;
}

/** Files that could not be read, of one request; so many never come together. */
const MAX_DROPPED = 1000;

/** Makes, keeps and judges bakes. The server derives every key itself. */
export class BakeService {
  /** Emits 'bake' with (collection, level) when a bake of a level was kept. */
  readonly events = new EventEmitter().setMaxListeners(0);
  private readonly maker: BakeMaker;

  constructor(
    readonly scenes: LevelScenes,
    private readonly store: BakeStore,
    threads: ThreadPool,
    private readonly judge: BakeJudge,
    /** Read what is kept while bakes are made. */
    private readonly readers: ThreadPool,
  ) {
    this.maker = new BakeMaker(
      store,
      threads,
      (kind, key) => judge.isCurrent(kind, key),
      (scene) => scenes.floorFiles(scene),
      (collection, level) => this.events.emit('bake', collection, level),
    );
  }

  /** Clears up after a server that was killed; before anything is made. */
  async begin(): Promise<void> {
    await this.store.sweep();
  }

  /** Forgets what an edit may have changed. */
  afterEdit(collection: string, edit: LoggedEdit): void {
    this.judge.afterEdit(collection, edit);
  }

  /**
   * Every level with content and the state of its bakes. What others rest on is made where it is lacking; what takes long is not waited for.
   * One that cannot be baked as it stands, say for a recipe that makes nothing, has no fresh bake.
   */
  async list(collection: string): Promise<LevelBakes[]> {
    const last = await this.store.lastKeys(collection);
    const levels: {
      level: string;
      refs: readonly (BakeRef & { readonly key: string | null })[];
      judged?: JudgedLevel;
    }[] = [];
    for (const bare of await this.scenes.bare(collection)) {
      const { id } = bare.content.level;
      const judged = await this.reading(() => this.judge.now(collection, id, this.maker)).catch(undefinedForFault);
      levels.push({
        level: id,
        judged,
        refs: judged?.keys ?? bakesOfLevel(bare).map((ref) => ({ ...ref, key: null })),
      });
    }
    const current = levels.flatMap(({ refs }) => refs.flatMap(({ key }) => key ?? []));
    const kept = await this.store.withKeys(collection, [...new Set([...current, ...last.values()])]);
    const moved: KeyedRef[] = [];
    const listed = levels.map(({ level, refs, judged }): LevelBakes => ({
      level,
      count: judged?.count ?? null,
      bakes: refs.map(({ kind, subject, key: now }): ListedBake => {
        const before = last.get(nameOf({ kind, subject }));
        const fresh = now === null ? undefined : kept.get(keptName(kind, now));
        if (fresh && before !== fresh.key) moved.push({ kind, subject, key: fresh.key });
        const shown = fresh ?? (before === undefined ? undefined : kept.get(keptName(kind, before)));
        const state = fresh ? 'fresh' : !shown ? 'none' : judged && now === null ? 'unknown' : 'stale';
        return { kind, subject, state, key: shown?.key ?? null, current: now, summary: shown?.summary ?? null };
      }),
    }));
    await this.store.point(collection, moved);
    if (levels.every(({ judged }) => judged !== undefined)) {
      const there = new Set(levels.flatMap(({ refs }) => refs.map(nameOf)));
      if ([...last.keys()].some((name) => !there.has(name))) await this.store.forgetOthers(collection, there);
    }
    return listed;
  }

  /** A bake of a collection brought up to date, as it is kept: zipped JSON. */
  async bytes(
    collection: string,
    ref: BakeRef,
    options: ThreadRunOptions = {},
  ): Promise<{ key: string; bytes: Uint8Array }> {
    return this.reading(async () => {
      const { key, path } = await this.brought(collection, ref, options);
      return { key, bytes: await this.readers.run('read-bake', path) };
    });
  }

  /** A bake of a collection brought up to date. */
  async result<B extends BakeKind>(
    collection: string,
    kind: B,
    subject: string,
    options: ThreadRunOptions = {},
  ): Promise<BakeResult<B>> {
    return this.reading(async () => {
      const { path } = await this.brought(collection, { kind, subject }, options);
      return (await this.readers.run('open-bake', { kind, path })) as BakeResult<B>;
    });
  }

  /** The bake that a subject has: of what stands where that is kept, else the last. Zipped JSON; undefined when none is kept. */
  async kept(collection: string, ref: BakeRef): Promise<{ key: string; bytes: Uint8Array } | undefined> {
    return this.reading(async () => {
      const last = (await this.store.lastKeys(collection)).get(nameOf(ref));
      for (const key of [this.judge.currentKey(collection, ref), last]) {
        const row = key === undefined ? undefined : await this.store.find(collection, ref.kind, key);
        if (row)
          return {
            key: row.key,
            bytes: await this.readers.run('read-bake', row.path),
          };
      }
      return undefined;
    });
  }

  /**
   * Brings a bake up to date that a page has made, and the others of the same subject. What the page found is for its own eyes: others
   * get what the server computes itself, as a page can send anything.
   * @param key of the page's bake
   * @throws CoreError 'BAKE_STALE' when the level has changed since
   */
  async confirm(collection: string, ref: BakeRef, key: string): Promise<void> {
    const scene = await this.scenes.of(collection, await this.levelOf(collection, ref));
    const wanted = bakesOfLevel(scene).filter(({ subject }) => subject === ref.subject);
    await this.reading(() => this.bringAll(collection, scene, wanted, {}, { ...ref, key }));
  }

  /**
   * Brings bakes of a level up to date, as it stood at some moment, with all that they need.
   * @returns those and what they need
   */
  async bring(
    collection: string,
    scene: LevelScene,
    wanted: readonly BakeRef[],
    options: BringOptions = {},
  ): Promise<readonly StoredBake[]> {
    return this.reading(async () => [...(await this.bringAll(collection, scene, wanted, options)).values()]);
  }

  /** The job that bakes whatever is stale. Safe to run again: fresh bakes are passed over. */
  async bakeStale(collection: string, { signal, onProgress }: ThreadRunOptions): Promise<void> {
    const names = new Map((await this.scenes.bare(collection)).map(({ content: { level } }) => [level.id, level.name]));
    const stale = (await this.list(collection)).filter(({ bakes }) => bakes.some(({ state }) => state !== 'fresh'));
    const failures: string[] = [];
    for (let i = 0; i < stale.length; i++) {
      const { level, bakes } = stale[i];
      const name = names.get(level) ?? level;
      const say = (fraction: number, stage: string): void =>
        onProgress?.((i + fraction) / stale.length, `${name}: ${stage}`);
      say(0, 'starting');
      try {
        const scene = await this.scenes.of(collection, level);
        await this.bring(
          collection,
          scene,
          bakes.filter(({ state }) => state !== 'fresh'),
          { signal, onProgress: say },
        );
      } catch (error) {
        if (signal?.aborted || !(error instanceof CoreError)) throw error;
        // A level that cannot be baked must not keep the others from it.
        failures.push(`${name}: ${error.message}`);
      }
    }
    if (failures.length > 0) throw new CoreError('BAKE_PARTLY_FAILED', failures.join('; '));
  }

  private async brought(collection: string, ref: BakeRef, options: ThreadRunOptions): Promise<StoredBake> {
    const scene = await this.scenes.of(collection, await this.levelOf(collection, ref));
    const all = await this.bringAll(collection, scene, [ref], options);
    const brought = all.get(nameOf(ref));
    if (!brought) throw missingFault(ref);
    return brought;
  }

  /** @param expected a bake with the key that it must have @throws CoreError 'BAKE_STALE' when it has another */
  private async bringAll(
    collection: string,
    scene: LevelScene,
    wanted: readonly BakeRef[],
    { keptOnly = false, ...options }: BringOptions,
    expected?: KeyedRef,
  ): Promise<ReadonlyMap<string, StoredBake>> {
    const names = new Set(wanted.map(nameOf));
    const stored = new Map<string, StoredBake>();
    let judged = await this.judge.of(collection, scene);
    for (const ref of judged.lacking) await this.maker.make(collection, scene, ref, stored, options);
    if (judged.lacking.length > 0) judged = await this.judge.of(collection, scene);
    for (const ref of [...judged.keys].reverse())
      if (names.has(nameOf(ref)))
        for (const need of bakeSpec(ref.kind).needs(scene, ref.subject)) names.add(nameOf(need.ref));
    const keyed = judged.keys.filter((ref): ref is KeyedRef => names.has(nameOf(ref)) && ref.key !== null);
    if (expected && keyed.find((ref) => nameOf(ref) === nameOf(expected))?.key !== expected.key)
      throw staleFault(expected);
    for (const ref of keyed) {
      const { kind, subject, key } = ref;
      const found = await this.store.find(collection, kind, key);
      if (!found && keptOnly && wanted.some((one) => nameOf(one) === nameOf(ref))) continue;
      const kept = found ?? (await this.maker.make(collection, scene, ref, stored, options));
      stored.set(nameOf(ref), { kind, subject, key, path: kept.path });
    }
    return stored;
  }

  /** The level that has a bake. @throws CoreError that says what it lacks */
  private async levelOf(collection: string, ref: BakeRef): Promise<string> {
    const spec = bakeSpec(ref.kind);
    const has = (scene: LevelScene): boolean => spec.subjects(scene).includes(ref.subject);
    const bare = await this.scenes.bare(collection);
    const found = bare.find(has);
    if (found) return found.content.level.id;
    for (const scene of bare) {
      const fault = spec.fault?.(scene, ref.subject);
      if (fault) throw fault;
    }
    for (const { content } of bare) {
      const scene = await this.scenes.of(collection, content.level.id).catch(undefinedForFault);
      if (scene && has(scene)) return content.level.id;
    }
    throw missingFault(ref);
  }

  /** What reads files of bakes; one that is gone or was changed is made anew. */
  private async reading<T>(work: () => Promise<T>): Promise<T> {
    for (let dropped = 0; ; dropped++) {
      try {
        return await work();
      } catch (error) {
        if (dropped === MAX_DROPPED || !(await this.dropUnreadable(error))) throw error;
      }
    }
  }

  private async dropUnreadable(error: unknown): Promise<boolean> {
    if (!(error instanceof CoreError) || error.code !== 'BAKE_UNREADABLE') return false;
    const { file } = error.details;
    if (typeof file !== 'string') return false;
    await this.store.drop(file);
    this.judge.forgetAll();
    return true;
  }
}
