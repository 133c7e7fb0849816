import { DestroyRef, Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import { Dialogs } from '../../../ui/dialogs';
import { Sheets } from '../../../level-desk/sheets';
import { Store } from '@ngrx/store';
import {
  CoreError,
  errorText,
  heldAt,
  sameContent,
  standingContent,
  withWallBlocks,
  type Level,
  type Overlap,
  type SameContent,
  type SourcedBlock,
} from '@stravel/core';
import { Compute, type Run } from '../../../compute/compute';
import { DocumentRegistry } from '../../../document/document-registry';
import { OpenLevel } from '../../../document/level/open-level';
import { recordsFeature } from '../../../document/records/records-store';
import type { StratumDocument } from '../../../document/stratum-document';
import { remove } from '../../../edits/operations';
import { LayoutDesk } from '../editing/layout-desk';
import { ContextDialog, type ContextData } from './context-dialog';
import { OverlapsSheet, type OverlapsData } from './overlaps-sheet';

/** Common space of less than this is none, cubic metres: walls that meet. */
const MIN_CUBIC_METRES = 0.05;

/** Other levels that are shown faintly beside the open one, and what fills the same space twice. */
@Injectable()
export class ContextDesk {
  private readonly store = inject(Store);
  private readonly dialogs = inject(Dialogs);
  private readonly sheets = inject(Sheets);
  private readonly registry = inject(DocumentRegistry);
  private readonly compute = inject(Compute);
  private readonly openLevel = inject(OpenLevel);
  private readonly desk = inject(LayoutDesk);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  private readonly loaded = signal<ReadonlyMap<string, StratumDocument>>(new Map());
  private run: Run<Overlap[]> | undefined;
  readonly chosen = computed(() => this.desk.settings().otherLevels);
  readonly checking = signal(false);

  /** Levels that are shown, other than the open one. */
  readonly shown = computed((): Level[] =>
    this.chosen().flatMap((id) => (id === this.openLevel.level()?.id ? [] : (this.tables().level[id] ?? []))),
  );
  /** Their strata as they are stored, without those that the open level shares. */
  readonly strata = computed((): StratumDocument[] => {
    this.registry.contentVersion();
    const own = new Set((this.openLevel.level()?.strata ?? []).map(({ stratum }) => stratum));
    const ids = new Set(this.shown().flatMap(({ strata }) => strata.map(({ stratum }) => stratum)));
    return [...ids].flatMap((id) => (own.has(id) ? [] : (this.loaded().get(id) ?? [])));
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.cancel());
    effect(() => {
      const wanted = this.shown().flatMap(({ strata }) => strata.map(({ stratum }) => stratum));
      untracked(() => wanted.forEach((id) => void this.load(id)));
    });
  }

  async choose(): Promise<void> {
    const open = this.openLevel.level()?.id;
    const data: ContextData = {
      levels: this.levels().filter(({ id, strata }) => id !== open && strata.length > 0),
      chosen: this.chosen(),
    };
    const chosen = await this.dialogs.open(ContextDialog, data);
    if (chosen) this.desk.put({ otherLevels: chosen });
  }

  /** Looks for what fills the same space twice, in the worker. */
  async check(): Promise<void> {
    const level = this.openLevel.level();
    if (!level || this.checking()) return;
    this.checking.set(true);
    try {
      const levels = [level, ...this.shown()];
      await Promise.all(levels.flatMap(({ strata }) => strata.map(({ stratum }) => this.load(stratum))));
      const blocks = levels.flatMap((one) => this.blocksOf(one));
      const seen = new Set<string>();
      // A stratum that two levels share is looked at once.
      const once = blocks.filter(
        ({ stratum, block }) => !seen.has(`${stratum} ${block.id}`) && seen.add(`${stratum} ${block.id}`),
      );
      this.run = this.compute.run('find-overlaps', { blocks: once, leastCubicMetres: MIN_CUBIC_METRES });
      this.open(await this.run.result, this.sameIn());
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      if (error.code !== 'CANCELLED') this.desk.notify(error.message);
    } finally {
      this.run = undefined;
      this.checking.set(false);
    }
  }

  cancel(): void {
    this.run?.cancel();
  }

  private open(overlaps: readonly Overlap[], same: readonly SameContent[]): void {
    const { level, stratum, piece } = this.tables();
    const data: OverlapsData = {
      overlaps,
      same,
      levelName: (id) => heldAt(level, id)?.name ?? id,
      stratumName: (id) => heldAt(stratum, id)?.name ?? id,
      pieceName: (id) => heldAt(piece, id)?.name ?? id,
      goTo: (of, id) => this.goTo(of, id),
      removeSame: (one) => void this.removeSame(one),
    };
    void this.sheets.open(OverlapsSheet, data);
  }

  private goTo(stratum: string, id: string): void {
    const document = this.openLevel.stratum(stratum);
    const kind = document?.item('block', id) ? 'block' : 'placement';
    if (document?.item(kind, id)) this.desk.select([{ stratum, kind, id }]);
  }

  private async removeSame({ items }: SameContent): Promise<void> {
    const strata = new Map(this.openLevel.strata().map((document) => [document.id, document]));
    const operations = items.slice(1).flatMap(({ stratum, id }) => {
      const item = strata.get(stratum)?.item('placement', id);
      return item ? [remove(stratum, 'placement', item)] : [];
    });
    await this.desk.commit('remove duplicates', operations);
  }

  private sameIn(): SameContent[] {
    return sameContent({
      strata: this.openLevel
        .strata()
        .flatMap((document) => ({ stratum: this.tables().stratum[document.id], content: document.content() })),
    });
  }

  private blocksOf(level: Level): SourcedBlock[] {
    return level.strata.flatMap(({ stratum }) => {
      const document = this.registry.openStratum(stratum);
      return document
        ? withWallBlocks(standingContent(document.content(), level.id)).block.map((block) => ({
            level: level.id,
            stratum,
            block,
          }))
        : [];
    });
  }

  private async load(id: string): Promise<void> {
    if (!this.tables().stratum[id]) return;
    try {
      const document = await this.registry.stratum(id);
      if (this.loaded().get(id) !== document) this.loaded.update((loaded) => new Map(loaded).set(id, document));
    } catch (error) {
      this.desk.notify(`The stratum ${this.tables().stratum[id]?.name ?? id} could not be loaded. ${errorText(error)}`);
    }
  }
}
