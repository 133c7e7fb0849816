import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import {
  CoreError,
  DEFAULT_SIGHT_OPTIONS,
  DEFAULT_VIEW,
  budgetFindings,
  checkBlockCount,
  errorText,
  heldAt,
  holdAgainst,
  placedFilesOf,
  targetOf,
  type BakeKind,
  type BakeRef,
  type BakedFigures,
  type BroughtBake,
  type Device,
  type Finding,
  type HeldLevel,
  type LevelScene,
  type SightResult,
} from '@stravel/core';
import { ApiClient } from '../api/api-client';
import { ProblemError } from '../api/problem-error';
import { Compute, type Run, type RunOptions } from '../compute/compute';
import type { HeldScene } from '../compute/page-tasks';
import { DocumentRegistry } from '../document/document-registry';
import { storedLevel, type StoredLevel } from '../document/level/stored-content';
import { recordsFeature } from '../document/records/records-store';
import { EditLog } from '../edits/edit-log';
import { Session } from '../session';
import { bakesActions, bakesFeature, costsOf, levelBakesOf, type LevelBakes, type ListedLevel } from './bakes-store';

/** The list of bakes is asked for anew this long after the last change, milliseconds. */
const SETTLE_MS = 900;

/** A level with all that its bakes are made from, and the documents that it stands in. */
export interface StoredScene {
  readonly scene: HeldScene;
  readonly documents: StoredLevel['documents'];
}

/** A bake in the page's worker. */
export interface BakeProgress {
  readonly level: string;
  readonly fraction: number;
  readonly stage: string;
}

/** The sight of a level that the worker makes. */
interface MadeBake {
  readonly level: string;
  readonly key: string;
}

/** A level's opened bakes. */
export interface OpenBakes {
  readonly level: string;
  /** Of the sight and the figures that are open. */
  readonly keys: { readonly sight: string; readonly figures: string };
  readonly sight: SightResult;
  readonly figures: BakedFigures;
}

/** What is baked, what is stale, and baking. */
@Injectable({ providedIn: 'root' })
export class Bakes {
  private readonly api = inject(ApiClient);
  private readonly compute = inject(Compute);
  private readonly documents = inject(DocumentRegistry);
  private readonly edits = inject(EditLog);
  private readonly session = inject(Session);
  private readonly store = inject(Store);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private timer: ReturnType<typeof setTimeout> | undefined;
  private run: Run<unknown> | undefined;
  private refreshedFor = '';

  readonly byLevel = this.store.selectSignal(bakesFeature.selectByLevel);
  readonly progress = signal<BakeProgress | undefined>(undefined);
  readonly failure = signal('');
  /** The bake in hand, once its key is known. */
  private readonly making = signal<MadeBake | undefined>(undefined);
  /** What is in hand is there on the server already: someone else was faster. */
  private readonly isThere = computed(() => {
    const making = this.making();
    return making !== undefined && this.keptKey(making) === making.key;
  });
  readonly staleCount = computed(
    () =>
      Object.values(this.byLevel()).filter(
        ({ sight, figures, rehearsals }) =>
          sight.state !== 'fresh' || figures.state !== 'fresh' || rehearsals.some(({ state }) => state !== 'fresh'),
      ).length,
  );
  /** Every level with content held against the chosen device. */
  readonly held = computed((): ReadonlyMap<string, HeldLevel> => {
    const device = this.session.device();
    const held = new Map<string, HeldLevel>();
    if (!device) return held;
    for (const bakes of Object.values(this.byLevel())) {
      if (this.tables().level[bakes.level]) held.set(bakes.level, holdAgainst(costsOf(bakes), device));
    }
    return held;
  });
  /** Levels over budget by figures that are known: counted from what stands now. */
  readonly overCount = computed(() => [...this.held().values()].filter(({ over }) => over.length > 0).length);
  /** Levels not over by what is known, of which a stale or missing bake leaves something open. */
  readonly undecidedCount = computed(
    () => [...this.held().values()].filter(({ over, undecided }) => over.length === 0 && undecided.length > 0).length,
  );
  readonly findings = computed(() => {
    const tables = this.tables();
    const device = this.session.device();
    return Object.values(this.byLevel()).flatMap((bakes) =>
      this.findingsOf(bakes, tables.level[bakes.level]?.name ?? '', device),
    );
  });

  constructor() {
    effect(() => {
      const collection = this.session.collection();
      this.edits.bakesChanged();
      this.edits.saveState();
      if (!collection) return;
      untracked(() => {
        if (this.refreshedFor === collection.id) this.refreshSoon();
        else {
          this.compute.release();
          void this.refresh().catch(() => undefined);
        }
        this.refreshedFor = collection.id;
      });
    });
    effect(() => {
      if (this.isThere()) untracked(() => this.run?.cancel());
    });
  }

  /** Asks the server what is fresh and what is stale. */
  async refresh(): Promise<void> {
    const collection = this.session.collection();
    if (!collection) return;
    const { levels } = await this.api.json<{ levels: ListedLevel[] }>(`/api/collections/${collection.id}/bakes`);
    this.store.dispatch(bakesActions.loaded({ levels: levels.map(levelBakesOf) }));
  }

  /** The kept bakes of a level, undefined when there are none yet. */
  async open(level: string): Promise<OpenBakes | undefined> {
    const collection = this.session.collection();
    if (!collection) return undefined;
    try {
      const [sight, figures] = await Promise.all([
        this.api.keyed<SightResult>(`/api/collections/${collection.id}/bakes/sight/${level}`),
        this.api.keyed<BakedFigures>(`/api/collections/${collection.id}/bakes/figures/${level}`),
      ]);
      const isOfOne = sight.value.pockets.length === figures.value.pocketTriangles.length;
      return isOfOne
        ? { level, keys: { sight: sight.key, figures: figures.key }, sight: sight.value, figures: figures.value }
        : undefined;
    } catch (error) {
      if (error instanceof ProblemError && error.status === 404) return undefined;
      throw error;
    }
  }

  /** A level with the documents that hold its strata, loaded when they are not yet; without what no bake reads. */
  stored(level: string): Promise<StoredLevel> {
    return storedLevel({ ...this.tables().level[level], values: {} }, this.tables(), this.documents);
  }

  /** A level with all that its bakes are made from. @param kitLoads what a game loads of each kit, for bakes that read it */
  async scene(level: string, kitLoads: LevelScene['kitLoads'] = {}): Promise<StoredScene> {
    const { held, documents } = await this.stored(level);
    const tables = this.tables();
    const { piece: pieces, kit: kits, cellGrid: grids, rehearsal: walks, device: devices, collection } = tables;
    const scene = {
      level: held,
      pieces,
      kits,
      kitLoads,
      placed: placedFilesOf(targetOf(tables)),
      devices,
      view: Object.values(collection).at(0)?.view ?? DEFAULT_VIEW,
      grid: Object.hasOwn(grids, level) ? grids[level] : null,
      rehearsals: Object.values(walks).filter((walk) => walk.level === level),
    };
    return { scene, documents };
  }

  /** Makes a bake in the worker, with all that it needs; what the worker has made already is not made again. */
  make<B extends BakeKind>(
    { scene, documents }: StoredScene,
    ref: BakeRef<B>,
    onProgress: (fraction: number, stage: string) => void,
    onKey?: RunOptions['onKey'],
  ): Run<BroughtBake<B>> {
    const slot = `${ref.kind} ${ref.subject}`;
    // The task gives what was asked for.
    return this.compute.run('bake', { scene, ref }, { onProgress, onKey, slot, documents }) as Run<unknown> as Run<
      BroughtBake<B>
    >;
  }

  /**
   * Bakes a level in the worker and has the server keep it; what the server has by its key is not made to its end.
   * Undefined when cancelled or failed (see `failure`).
   */
  async bake(level: string): Promise<OpenBakes | undefined> {
    this.failure.set('');
    this.progress.set({ level, fraction: 0, stage: 'reading the level' });
    try {
      await this.refuseTooMany(level);
      const scene = await this.scene(level);
      const say = (fraction: number, stage: string): void => this.progress.set({ level, fraction, stage });
      const sight = await this.sightOrKept(scene, level, (f, stage) => say(f * 0.9, stage));
      if ('level' in sight) return sight;
      const figures = await this.keepRun(
        this.make(scene, { kind: 'figures', subject: level }, (f, stage) => say(0.9 + f * 0.1, stage)),
      );
      const keys = { sight: sight.key, figures: figures.key };
      void this.confirm(level, keys.sight);
      return { level, keys, sight: sight.result, figures: figures.result };
    } catch (error) {
      if (!(error instanceof CoreError && error.code === 'CANCELLED')) this.failure.set(errorText(error));
      return undefined;
    } finally {
      this.progress.set(undefined);
      this.run = undefined;
    }
  }

  cancel(): void {
    this.making.set(undefined);
    this.run?.cancel();
  }

  async bakeStale(): Promise<void> {
    const collection = this.session.collection();
    if (collection) await this.api.startJob(collection.id, 'bake-stale');
  }

  /** Says no before the worker is sent what it would refuse. */
  private async refuseTooMany(level: string): Promise<void> {
    const strata = await Promise.all(
      this.tables().level[level].strata.map(({ stratum }) => this.documents.stratum(stratum)),
    );
    let hiding = 0;
    for (const {
      tables: { block: blocks },
    } of strata)
      for (const { sight } of blocks.values()) if (sight === 'hides') hiding++;
    checkBlockCount(hiding, DEFAULT_SIGHT_OPTIONS.blockLimit);
  }

  /** The sight of a level as it is made, or all that the server keeps of it where that is the same. */
  private async sightOrKept(
    scene: StoredScene,
    level: string,
    say: (fraction: number, stage: string) => void,
  ): Promise<BroughtBake<'sight'> | OpenBakes> {
    const ref = { kind: 'sight', subject: level } as const;
    const run = this.make(scene, ref, say, ({ kind }, key) => {
      if (kind === ref.kind) this.making.set({ level, key });
    });
    try {
      return await this.keepRun(run);
    } catch (error) {
      const [key, isThere] = [this.making()?.key, this.isThere()];
      this.making.set(undefined);
      if (!isThere) throw error;
      const kept = await this.open(level).catch(() => undefined);
      // The figures may not be there yet: they are made here then, with the sight that they need.
      return kept && kept.keys.sight === key ? kept : await this.keepRun(this.make(scene, ref, say));
    } finally {
      this.making.set(undefined);
    }
  }

  /** The key under which the server keeps the sight of a level, as it was told last. */
  private keptKey({ level }: MadeBake): string | null | undefined {
    return heldAt(this.byLevel(), level)?.sight.key;
  }

  private keepRun<T>(run: Run<T>): Promise<T> {
    this.run = run;
    return run.result;
  }

  /** Has the server make what the page has just made, once all edits are there: others get what the server computed. */
  private async confirm(level: string, key: string): Promise<void> {
    const collection = this.session.collection();
    if (!collection) return;
    try {
      await this.edits.settled();
      await this.api.send(`/api/collections/${collection.id}/bakes/sight/${level}`, {
        method: 'PUT',
        headers: { 'Stravel-Key': key },
      });
      await this.refresh();
    } catch (error) {
      this.failure.set(`The bake was not kept. ${errorText(error)}`);
    }
  }

  private refreshSoon(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.refresh().catch(() => undefined), SETTLE_MS);
  }

  private findingsOf(bakes: LevelBakes, name: string, device: Device | undefined): Finding[] {
    const level = this.tables().level[bakes.level];
    if (!level) return [];
    const ofLevel = (one: Finding): Finding => ({
      ...one,
      id: `${one.id}@${level.id}`,
      place: { ...one.place, level: level.id },
      message: `${name}: ${one.message}`,
    });
    const sight = (bakes.sight.summary?.findings ?? []).map(ofLevel);
    const sections = (bakes.count ?? bakes.figures.summary)?.findings.map(ofLevel) ?? [];
    const walks = bakes.rehearsals.flatMap(({ summary }) => summary?.findings ?? []).map(ofLevel);
    const budget = device ? budgetFindings(level, costsOf(bakes), device) : [];
    return [...sight, ...sections, ...walks, ...budget];
  }
}
