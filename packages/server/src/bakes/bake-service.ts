import { EventEmitter } from 'node:events';
import {
  CoreError,
  DEFAULT_VIEW,
  RECORDS_DOCUMENT,
  assembliesWithin,
  levelContent,
  levelsInOrder,
  type BAKE_TASKS,
  type BakeKind,
  type CollectionContent,
  type BakedFigures,
  type FiguresSummary,
  type KitLoad,
  type Level,
  type LevelBakeInput,
  type LevelBakeKeys,
  type LevelContent,
  type LevelCount,
  type LoggedEdit,
  type RehearsalInput,
  type RehearsalResult,
  type SightResult,
  type StratumContent,
} from '@stravel/core';
import { contentOf } from '../collections/collection-service';
import { tablesOf } from '../documents/record-tables';
import type { Database } from '../db/database';
import type { DocumentStore } from '../documents/document-store';
import type { JobHandler, JobRun } from '../jobs/job-service';
import type { ThreadPool, ThreadRunOptions } from '../jobs/thread-pool';
import type { KitInspections } from '../pack/kit-inspections';
import type { BakeRepository, KeptBake } from './bake-repository';

/** Whether a level's bake agrees with what stands. */
export type BakeState = 'fresh' | 'stale' | 'none';

export interface LevelBakes {
  readonly level: string;
  /** Of the level as it stands; null when it can't be counted. */
  readonly count: LevelCount | null;
  readonly sight: ListedBake;
  readonly figures: ListedBake;
  readonly rehearsals: readonly (ListedBake & { readonly rehearsal: string })[];
}

/** A bake without its result. */
export interface ListedBake {
  readonly state: BakeState;
  /** Of what is kept, null when nothing is. */
  readonly key: string | null;
  /** That it would have now, null when it can't be made. */
  readonly current: string | null;
  readonly summary: unknown;
}

/** Kinds of record that the keys of any level may depend on. */
const FAR_REACHING: readonly string[] = ['piece', 'kit', 'device', 'collection', 'cellGrid', 'rehearsal'];

/** Makes, keeps and judges bakes. The server derives every key itself. */
export class BakeService {
  /** Emits 'bake' with (collection, level) when a bake of a level was kept. */
  readonly events = new EventEmitter().setMaxListeners(0);
  /** Keys by collection and level, with the strata that they were made from. */
  private readonly keys = new Map<string, { readonly keys: LevelBakeKeys; readonly strata: readonly string[] }>();
  /** Keys of rehearsals by collection and id, with level and strata. */
  private readonly rehearsalKeys = new Map<
    string,
    { readonly key: string; readonly level: string; readonly strata: readonly string[] }
  >();
  /** What a game loads of each kit, by collection. */
  private readonly loads = new Map<string, Promise<Record<string, KitLoad>>>();
  /** Grows with every edit: keys of a state that is past are not kept. */
  private generation = 0;

  constructor(
    private readonly database: Database,
    private readonly documents: DocumentStore,
    private readonly repository: BakeRepository,
    private readonly threads: ThreadPool,
    private readonly kits: KitInspections,
  ) {}

  /** Forgets the keys that an edit may have changed. */
  afterEdit(collection: string, edit: LoggedEdit): void {
    this.generation++;
    const levels = new Set<string>();
    const strata = new Set<string>();
    let everything = false;
    for (const { document, kind, id } of edit.operations) {
      if (document !== RECORDS_DOCUMENT) strata.add(document);
      else if (kind === 'level') levels.add(id);
      else if (kind === 'stratum') strata.add(id);
      else if (FAR_REACHING.includes(kind)) everything = true;
    }
    if (everything) this.loads.delete(collection);
    for (const [key, made] of this.keys) {
      const [of, level] = key.split('\u0000');
      if (of === collection && (everything || levels.has(level) || made.strata.some((id) => strata.has(id))))
        this.keys.delete(key);
    }
    for (const [key, made] of this.rehearsalKeys) {
      if (
        key.startsWith(`${collection}\u0000`) &&
        (everything || levels.has(made.level) || made.strata.some((id) => strata.has(id)))
      )
        this.rehearsalKeys.delete(key);
    }
  }

  /** Every level with content and the state of its bakes. One that cannot be baked as it stands, say for a recipe that makes nothing, has no fresh bake. */
  async list(collection: string): Promise<LevelBakes[]> {
    const kept = new Map((await this.repository.all(collection)).map((bake) => [`${bake.kind} ${bake.subject}`, bake]));
    const out: LevelBakes[] = [];
    const { rehearsal: walks, cellGrid: grids, device: devices } = await this.tables(collection);
    const listed = (bake: KeptBake | undefined, current: string | undefined): ListedBake => ({
      state: bake ? (bake.key === current ? 'fresh' : 'stale') : 'none',
      key: bake?.key ?? null,
      current: current ?? null,
      summary: bake?.summary ?? null,
    });
    for (const level of await this.levels(collection)) {
      if (level.strata.length === 0) continue;
      const keys = await this.currentKeys(collection, level.id).catch(undefinedForFault);
      const of = (kind: 'sight' | 'figures'): ListedBake => listed(kept.get(`${kind} ${level.id}`), keys?.[kind]);
      const rehearsals: LevelBakes['rehearsals'][number][] = [];
      for (const { id } of grids[level.id]
        ? Object.values(walks).filter((walk) => walk.level === level.id && devices[walk.device])
        : []) {
        rehearsals.push({
          rehearsal: id,
          ...listed(
            kept.get(`rehearsal ${id}`),
            await this.currentRehearsalKey(collection, id).catch(undefinedForFault),
          ),
        });
      }
      out.push({ level: level.id, count: keys?.count ?? null, sight: of('sight'), figures: of('figures'), rehearsals });
    }
    return out;
  }

  /** What a level's bakes are made from, as it stands now. @throws CoreError 'LEVEL_MISSING' */
  async input(collection: string, level: string): Promise<LevelBakeInput> {
    return this.database.queue.exclusive(async () => {
      const tables = tablesOf((await this.documents.load(collection, RECORDS_DOCUMENT)).state);
      const record = tables.level[level];
      if (!record) throw new CoreError('LEVEL_MISSING', `bake: there is no level ${level}`, { level });
      const strata = [];
      for (const { stratum } of record.strata) {
        if (tables.stratum[stratum])
          strata.push({
            stratum: tables.stratum[stratum],
            content: await contentOf(await this.documents.load(collection, stratum)),
          });
      }
      const assemblies = new Map<string, StratumContent>();
      for (const id of assembliesWithin(
        tables.stratum,
        record.strata.map(({ stratum }) => stratum),
      )) {
        if (tables.stratum[id]) assemblies.set(id, await contentOf(await this.documents.load(collection, id)));
      }
      const { id, name, key, set, order, purpose, code, openSky, bounds, binned } = record;
      const view = Object.values(tables.collection).at(0)?.view ?? DEFAULT_VIEW;
      return {
        content: levelContent(
          { id, name, key, set, order, purpose, code, openSky, bounds, binned, values: {}, strata: record.strata },
          strata,
          assemblies,
        ),
        pieces: tables.piece,
        view,
      };
    });
  }

  /**
   * Brings one level's bakes up to date.
   * @returns what was found, from the kept bake when it is fresh
   */
  async bake(
    collection: string,
    level: string,
    options: ThreadRunOptions = {},
  ): Promise<{ sight: SightResult; figures: BakedFigures }> {
    const input = await this.input(collection, level);
    const keys = await this.keysOf(collection, level, input);
    let sight = await this.kept<SightResult>(collection, 'sight', level, keys.sight);
    if (!sight) {
      sight = await this.threads.run<(typeof BAKE_TASKS)['bake-sight']>('bake-sight', input.content, options);
      await this.keepSight(collection, level, keys.sight, sight);
    }
    const figures =
      (await this.kept<BakedFigures>(collection, 'figures', level, keys.figures)) ??
      (await this.makeFigures(collection, level, input, keys, sight, options));
    return { sight, figures };
  }

  /**
   * The sight of a level as it stood at some moment: the kept bake where it is of the same content, else made, and kept only where the level
   * still stands like that.
   */
  async sightOf(
    collection: string,
    level: string,
    content: LevelContent,
    options: ThreadRunOptions = {},
  ): Promise<SightResult> {
    const key = await this.threads.run<(typeof BAKE_TASKS)['sight-key']>('sight-key', content, options);
    const kept = await this.kept<SightResult>(collection, 'sight', level, key);
    if (kept) return kept;
    const sight = await this.threads.run<(typeof BAKE_TASKS)['bake-sight']>('bake-sight', content, options);
    const now = await this.currentKeys(collection, level).catch(undefinedForFault);
    if (now?.sight === key) await this.keepSight(collection, level, key, sight);
    return sight;
  }

  /**
   * Brings a level's bakes up to date when a page has baked it. What the page found is for its own eyes: others get what the server
   * computes itself, as a page can send anything.
   * @param key of the page's bake
   * @throws CoreError 'BAKE_STALE' when the level has changed since
   */
  async confirmSight(collection: string, level: string, key: string): Promise<void> {
    const keys = await this.keysOf(collection, level, await this.input(collection, level));
    if (keys.sight !== key)
      throw new CoreError('BAKE_STALE', `bake: the level ${level} has changed since this bake was made; bake again`, {
        level,
      });
    await this.bake(collection, level);
  }

  /** What a rehearsal is made from, as it stands now. @throws CoreError 'REHEARSAL_MISSING' when it, its level's grid or its device is not there */
  async rehearsalInput(collection: string, id: string): Promise<RehearsalInput> {
    const { rehearsal: walks, cellGrid: grids, device: devices, kit: kits } = await this.tables(collection);
    const missing = (what: string): CoreError =>
      new CoreError('REHEARSAL_MISSING', `rehearsal: there is no ${what}`, { rehearsal: id });
    if (!Object.hasOwn(walks, id)) throw missing(`walk ${id}`);
    const rehearsal = walks[id];
    if (!Object.hasOwn(grids, rehearsal.level)) throw missing(`grid of cells for the level ${rehearsal.level}`);
    if (!Object.hasOwn(devices, rehearsal.device)) throw missing(`device ${rehearsal.device}`);
    const { content, pieces } = await this.input(collection, rehearsal.level);
    return {
      content,
      pieces,
      kits,
      kitLoads: await this.kitLoads(collection),
      grid: grids[rehearsal.level],
      rehearsal,
      device: devices[rehearsal.device],
    };
  }

  /** Brings a rehearsal up to date; one that is fresh is read. */
  async rehearse(collection: string, id: string, options: ThreadRunOptions = {}): Promise<RehearsalResult> {
    const input = await this.rehearsalInput(collection, id);
    const key = await this.rehearsalKeyOf(collection, id, input);
    const kept = await this.kept<RehearsalResult>(collection, 'rehearsal', id, key);
    if (kept) return kept;
    const result = await this.threads.run<(typeof BAKE_TASKS)['make-rehearsal']>('make-rehearsal', input, options);
    const { findings, figures, late } = result;
    await this.repository.put(
      collection,
      { kind: 'rehearsal', subject: id, key, summary: { findings, figures, late: late.length } },
      result,
    );
    this.events.emit('bake', collection, input.rehearsal.level);
    return result;
  }

  /** Id of the level with an id or a name, without regard to case. @throws CoreError 'LEVEL_MISSING' */
  async levelNamed(collection: string, text: string): Promise<string> {
    const levels = await this.levels(collection);
    const wanted = text.toLowerCase();
    const found =
      levels.find(({ key }) => key === wanted) ??
      levels.find(({ id }) => id === text) ??
      levels.find(({ name }) => name.toLowerCase() === wanted);
    if (!found)
      throw new CoreError('LEVEL_MISSING', `bake: there is no level with the key, name or id ${text}`, { level: text });
    return found.id;
  }

  /** The job that bakes whatever is stale. Safe to run again: fresh bakes are passed over. */
  readonly bakeStale: JobHandler = async ({ collection, signal, progress }: JobRun): Promise<void> => {
    const isStale = ({ state }: { readonly state: BakeState }): boolean => state !== 'fresh';
    const stale = (await this.list(collection)).filter(({ sight, figures, rehearsals }) =>
      [sight, figures, ...rehearsals].some(isStale),
    );
    const names = new Map((await this.levels(collection)).map(({ id, name }) => [id, name]));
    const failures: string[] = [];
    for (let i = 0; i < stale.length; i++) {
      const name = names.get(stale[i].level) ?? stale[i].level;
      const say = (fraction: number, stage: string): void =>
        progress((i + fraction) / stale.length, `${name}: ${stage}`);
      say(0, 'starting');
      try {
        await this.bake(collection, stale[i].level, { signal, onProgress: say });
        for (const { rehearsal } of stale[i].rehearsals.filter(isStale))
          await this.rehearse(collection, rehearsal, { signal, onProgress: say });
      } catch (error) {
        if (signal.aborted || !(error instanceof CoreError)) throw error;
        // A level that cannot be baked must not keep the others from it.
        failures.push(`${name}: ${error.message}`);
      }
    }
    if (failures.length > 0) throw new CoreError('BAKE_PARTLY_FAILED', failures.join('; '));
  };

  /** The kept bake of a subject where it has the wanted key. */
  private async kept<Result>(
    collection: string,
    kind: BakeKind,
    subject: string,
    key: string,
  ): Promise<Result | undefined> {
    if ((await this.repository.keyOf(collection, kind, subject)) !== key) return undefined;
    return (await this.repository.readJson(collection, kind, subject)) as Result | undefined;
  }

  private async makeFigures(
    collection: string,
    level: string,
    input: LevelBakeInput,
    keys: LevelBakeKeys,
    sight: SightResult,
    options: ThreadRunOptions,
  ): Promise<BakedFigures> {
    const figures = await this.threads.run<(typeof BAKE_TASKS)['bake-figures']>(
      'bake-figures',
      { ...input, sight },
      options,
    );
    const summary: FiguresSummary = Object.fromEntries(
      Object.entries(figures).filter(([key]) => !key.startsWith('pocket')),
    ) as unknown as FiguresSummary;
    await this.repository.put(collection, { kind: 'figures', subject: level, key: keys.figures, summary }, figures);
    this.events.emit('bake', collection, level);
    return figures;
  }

  private async keepSight(collection: string, level: string, key: string, sight: SightResult): Promise<void> {
    const { closed, wayOut, findings, figures } = sight;
    await this.repository.put(
      collection,
      { kind: 'sight', subject: level, key, summary: { closed, wayOut, findings, figures } },
      sight,
    );
    this.events.emit('bake', collection, level);
  }

  private async currentKeys(collection: string, level: string): Promise<LevelBakeKeys> {
    return (
      this.keys.get(`${collection}\u0000${level}`)?.keys ??
      this.keysOf(collection, level, await this.input(collection, level))
    );
  }

  private async keysOf(collection: string, level: string, input: LevelBakeInput): Promise<LevelBakeKeys> {
    const { generation } = this;
    const keys = await this.threads.run<(typeof BAKE_TASKS)['bake-keys']>('bake-keys', {
      ...input,
      load: await this.loadInput(collection, level),
    });
    if (generation === this.generation)
      this.keys.set(`${collection}\u0000${level}`, { keys, strata: documentsOf(input.content) });
    return keys;
  }

  private async currentRehearsalKey(collection: string, id: string): Promise<string> {
    return (
      this.rehearsalKeys.get(`${collection}\u0000${id}`)?.key ??
      this.rehearsalKeyOf(collection, id, await this.rehearsalInput(collection, id))
    );
  }

  private async rehearsalKeyOf(collection: string, id: string, input: RehearsalInput): Promise<string> {
    const { generation } = this;
    const key = await this.threads.run<(typeof BAKE_TASKS)['rehearsal-key']>('rehearsal-key', input);
    const { level } = input.content;
    if (generation === this.generation)
      this.rehearsalKeys.set(`${collection}\u0000${id}`, { key, level: level.id, strata: documentsOf(input.content) });
    return key;
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

  private async loadInput(collection: string, level: string): Promise<LevelBakeInput['load']> {
    const { kit: kits, cellGrid } = await this.tables(collection);
    return {
      kits,
      kitLoads: await this.kitLoads(collection),
      grid: Object.hasOwn(cellGrid, level) ? cellGrid[level] : null,
    };
  }

  private async tables(collection: string): Promise<CollectionContent['records']> {
    return this.database.queue.exclusive(async () =>
      tablesOf((await this.documents.load(collection, RECORDS_DOCUMENT)).state),
    );
  }

  private async levels(collection: string): Promise<Level[]> {
    return levelsInOrder(await this.tables(collection));
  }
}

/** Ids of all strata that a level was read from. */
function documentsOf({ strata, assemblies = [] }: LevelContent): string[] {
  return [...strata.map(({ stratum }) => stratum.id), ...assemblies];
}

/** A fault of the level's content is no fault of the one who asks; anything else is. */
function undefinedForFault(error: unknown): undefined {
  if (!(error instanceof CoreError)) throw error;
  return undefined;
}
