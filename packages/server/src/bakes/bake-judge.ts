import {
  BAKED_RECORDS,
  CoreError,
  RECORDS_DOCUMENT,
  bakeSpec,
  bakesOfLevel,
  isRecordKind,
  nameOf,
  type BakeRef,
  type KeyedRef,
  type LevelScene,
  type LoggedEdit,
} from '@stravel/core';
import type { ThreadPool } from '../jobs/thread-pool';
import type { BakeMaker } from './bake-maker';
import { keptName, type BakeStore } from './bake-store';
import type { JudgedLevel, KnownBake } from './bake-tasks';
import type { LevelScenes } from './level-scenes';

/** A bake that is made within this is waited for where levels are judged; about, milliseconds. */
const WAITED_FOR_MS = 200;
/** Bakes that are made at once without being waited for; more begin when these are kept. */
const MAX_AT_ONCE = 4;
/** Bakes that could not be made of which that is remembered. */
const MAX_FAILED = 10000;

interface Judged {
  readonly judged: JudgedLevel;
  /** Ids of all strata that the level was read from. */
  readonly strata: readonly string[];
}

/** The keys that levels' bakes have as they stand, and what is counted in them; remembered until an edit changes them. */
export class BakeJudge {
  /** By collection and level. */
  private readonly levels = new Map<string, Judged>();
  /** What is being made at once, by collection and level, and what could not be made. */
  private readonly atOnce = new Map<string, Map<string, AbortController>>();
  private readonly failed = new Set<string>();
  /** Grows with every edit: what was judged of a state that is past is not kept. */
  private generation = 0;

  constructor(
    private readonly scenes: LevelScenes,
    private readonly store: BakeStore,
    /** Not those that bake: what is fresh is told while bakes are made. */
    private readonly threads: ThreadPool,
  ) {}

  /** Forgets what an edit may have changed. */
  afterEdit(collection: string, edit: LoggedEdit): void {
    this.generation++;
    /** Strata, and levels by their records. */
    const touched = new Set<string>();
    let everything = false;
    for (const { document, kind, id } of edit.operations) {
      if (document !== RECORDS_DOCUMENT) touched.add(document);
      else if (isRecordKind(kind) && BAKED_RECORDS.has(kind)) everything = true;
      else touched.add(id);
    }
    if (everything) this.scenes.forgetLoads(collection);
    for (const [name, { strata }] of this.levels) {
      const [of, level] = name.split('\u0000');
      if (of === collection && (everything || touched.has(level) || strata.some((id) => touched.has(id))))
        this.levels.delete(name);
    }
  }

  /** Forgets all that rested on files that could not be read. */
  forgetAll(): void {
    this.levels.clear();
  }

  /** A level as it stands now; what its keys rest on is made where it is lacking. What takes long comes later. */
  async now(collection: string, level: string, maker: BakeMaker): Promise<JudgedLevel> {
    const known = this.levels.get(levelName(collection, level));
    if (known) return known.judged;
    const { generation } = this;
    const scene = await this.scenes.of(collection, level);
    let judged = await this.of(collection, scene, true);
    this.stopUnwanted(collection, level, judged);
    const made = await Promise.all(judged.lacking.map((ref) => this.madeAtOnce(collection, scene, ref, maker)));
    if (made.some((isMade) => isMade)) judged = await this.of(collection, scene, true);
    // What is still lacking is looked for again, unless it cannot be made.
    const isSettled = judged.lacking.every((ref) => this.failed.has(failureName(collection, ref)));
    if (generation === this.generation && isSettled)
      this.levels.set(levelName(collection, level), { judged, strata: documentsOf(scene) });
    return judged;
  }

  /** A level as it stood at some moment. No bake is made for it. @param isCounted whether what stands in it is counted too */
  async of(collection: string, scene: LevelScene, isCounted = false): Promise<JudgedLevel> {
    const last = await this.store.lastKeys(collection);
    const known = await this.knownBakes(
      collection,
      bakesOfLevel(scene).flatMap((ref) => last.get(nameOf(ref)) ?? []),
    );
    const run = (bakes: readonly KnownBake[]): Promise<JudgedLevel> =>
      this.threads.run('judge-level', { scene, known: bakes, isCounted });
    const judged = await run(known);
    if (judged.lacking.length === 0) return judged;
    const more = await this.knownBakes(
      collection,
      judged.lacking.map(({ key }) => key),
    );
    return more.length > 0 ? run([...known, ...more]) : judged;
  }

  /** The key that a bake has as things stand, as far as that is known. */
  currentKey(collection: string, ref: BakeRef): string | undefined {
    for (const [name, { judged }] of this.levels) {
      const found =
        name.startsWith(levelName(collection, '')) && judged.keys.find((one) => nameOf(one) === nameOf(ref));
      if (found) return found.key ?? undefined;
    }
    return undefined;
  }

  isCurrent(kind: string, key: string): boolean {
    return [...this.levels.values()].some(({ judged }) =>
      judged.keys.some((one) => one.kind === kind && one.key === key),
    );
  }

  /** Starts making a bake that others rest on. @returns whether it is there now */
  private async madeAtOnce(collection: string, scene: LevelScene, ref: KeyedRef, maker: BakeMaker): Promise<boolean> {
    const spec = bakeSpec(ref.kind);
    if (!spec.isMadeAtOnce || this.failed.has(failureName(collection, ref))) return false;
    const level = levelName(collection, scene.content.level.id);
    const running = this.atOnce.get(level) ?? new Map<string, AbortController>();
    const isWaitedFor = (spec.costMs?.(spec.reads(scene, ref.subject)) ?? Infinity) <= WAITED_FOR_MS;
    const begun = [...this.atOnce.values()].reduce((sum, one) => sum + one.size, 0);
    if (!isWaitedFor && (running.has(ref.key) || begun >= MAX_AT_ONCE)) return false;
    const controller = running.get(ref.key) ?? new AbortController();
    this.atOnce.set(level, running.set(ref.key, controller));
    const made = maker
      .make(collection, scene, ref, new Map(), { signal: controller.signal })
      .then(
        () => true,
        (error: unknown) => {
          // What it is made of is at fault, and stays so; anything else may do better next time.
          if (error instanceof CoreError && error.code !== 'CANCELLED') this.noteFailure(collection, ref);
          return false;
        },
      )
      .finally(() => running.delete(ref.key));
    return isWaitedFor && made;
  }

  private noteFailure(collection: string, ref: KeyedRef): void {
    if (this.failed.size >= MAX_FAILED) this.failed.clear();
    this.failed.add(failureName(collection, ref));
  }

  /** Stops making what a level had before an edit. */
  private stopUnwanted(collection: string, level: string, { keys }: JudgedLevel): void {
    for (const [key, controller] of this.atOnce.get(levelName(collection, level)) ?? [])
      if (!keys.some((one) => one.key === key)) controller.abort();
  }

  /** Of some kept bakes those of which others read parts. */
  private async knownBakes(collection: string, keys: readonly string[]): Promise<KnownBake[]> {
    const kept = await this.store.withKeys(collection, keys);
    return [...kept.values()]
      .filter(({ parts }) => Object.keys(parts).length > 0)
      .map(({ kind, key, parts, path }) => ({ kind, key, parts, path }));
  }
}

function levelName(collection: string, level: string): string {
  return `${collection}\u0000${level}`;
}

function failureName(collection: string, { kind, key }: KeyedRef): string {
  return `${collection} ${keptName(kind, key)}`;
}

function documentsOf({ content: { strata, assemblies = [] } }: LevelScene): string[] {
  return [...strata.map(({ stratum }) => stratum.id), ...assemblies];
}
