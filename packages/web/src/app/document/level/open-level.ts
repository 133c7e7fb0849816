import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import { assembliesWithin, errorText, type Kit, type Level, type Piece } from '@stravel/core';
import { ApiClient } from '../../api/api-client';
import { DocumentRegistry } from '../document-registry';
import { recordsFeature } from '../records/records-store';
import type { StratumDocument } from '../stratum-document';
import { hasPatches, patchedDocument, type PatchedDocument } from './patched-document';

/** The content of one level's strata, loaded chunk by chunk, and the bytes of its kits. */
@Injectable({ providedIn: 'root' })
export class OpenLevel {
  private readonly registry = inject(DocumentRegistry);
  private readonly api = inject(ApiClient);
  private readonly tables = inject(Store).selectSignal(recordsFeature.selectTables);
  private readonly levelId = signal<string | undefined>(undefined);
  private readonly ready = signal<ReadonlyMap<string, StratumDocument>>(new Map());
  private readonly kitBytes = new Map<string, Promise<ArrayBuffer>>();

  private readonly shownBy = signal(0);
  /** Whether a page shows it: what follows the level rests when none does. */
  readonly isShown = computed(() => this.shownBy() > 0);
  readonly failure = signal('');
  readonly level = computed(() => {
    const id = this.levelId();
    return id === undefined
      ? undefined
      : Object.hasOwn(this.tables().level, id)
        ? this.tables().level[id]
        : this.assemblyAsLevel(id);
  });
  /** Whether what is open is an assembly, in coordinates of its own. */
  readonly isAssembly = computed(() => {
    const id = this.level()?.id;
    return id !== undefined && !Object.hasOwn(this.tables().level, id);
  });
  /** Strata of the open level that are loaded, bottom first. */
  readonly strata = computed(() => {
    const level = this.level();
    this.patchesChanged();
    return this.shared().map((document) => (level ? this.seenBy(level.id, document) : document));
  });
  /** The same strata as they are stored: what is shared without this level's patches. */
  readonly shared = computed(() => {
    const ready = this.ready();
    return (this.level()?.strata ?? []).flatMap(({ stratum }) => ready.get(stratum) ?? []);
  });
  /** The assemblies that may stand in the open level, within each other too, as they are stored. */
  readonly assemblies = computed(() => {
    const ready = this.ready();
    return new Map(
      [...this.assemblyIds()].flatMap((id) => (ready.has(id) ? [[id, ready.get(id) as StratumDocument] as const] : [])),
    );
  });
  private readonly assemblyIds = computed(() =>
    assembliesWithin(
      this.tables().stratum,
      (this.level()?.strata ?? []).map(({ stratum }) => stratum),
    ),
  );
  /** Says something else when a stratum got its first patch of this level, or lost its last. */
  private readonly patchesChanged = computed(() => {
    this.registry.contentVersion();
    const level = this.level()?.id ?? '';
    return this.shared()
      .map((document) => `${document.id}${hasPatches(document, level) ? '+' : ''}`)
      .join();
  });
  private readonly patched = new Map<string, PatchedDocument>();
  readonly isLoading = computed(
    () =>
      this.strata().length < (this.level()?.strata.filter(({ stratum }) => this.tables().stratum[stratum]).length ?? 0),
  );
  /** Whether a level is open with all that stands in it. */
  readonly isThere = computed(() => this.level() !== undefined && !this.isLoading());
  readonly pieces = computed(() => this.tables().piece);
  readonly piecesByName = computed(() => Object.values(this.pieces()).sort((a, b) => (a.name < b.name ? -1 : 1)));

  constructor() {
    effect(() => {
      const wanted = [...(this.level()?.strata ?? []).map(({ stratum }) => stratum), ...this.assemblyIds()].filter(
        (id) => this.tables().stratum[id],
      );
      untracked(() => wanted.forEach((id) => void this.load(id)));
    });
  }

  /** A stratum as the open level sees it; undefined when it has none of that id, or it is not loaded. */
  stratum(id: string): StratumDocument | undefined {
    return this.strata().find((document) => document.id === id);
  }

  open(id: string): void {
    this.levelId.set(id);
  }

  /** Tells that a page shows the open level, until what is returned is called. */
  show(): () => void {
    this.shownBy.update((count) => count + 1);
    return () => this.shownBy.update((count) => count - 1);
  }

  /** Ids of the kits from which something stands in the open level, assemblies included. */
  readonly usedKits = computed((): ReadonlySet<string> => {
    this.registry.contentVersion();
    const { piece: pieces } = this.tables();
    const used = new Set<string>();
    for (const {
      tables: { placement: placements },
    } of [...this.strata(), ...this.assemblies().values()]) {
      for (const id of placements.piecesSeen) if (Object.hasOwn(pieces, id)) used.add(pieces[id].kit);
    }
    return used;
  });

  /** Some kits with their pieces and GLBs; each GLB is fetched once. */
  kits(wanted: ReadonlySet<string>): { kit: Kit; pieces: Piece[]; bytes: Promise<ArrayBuffer> }[] {
    const { kit: kits, piece: pieces } = this.tables();
    const some = Object.values(kits).filter(({ id }) => wanted.has(id));
    return some.map((kit) => {
      let bytes = this.kitBytes.get(kit.mesh);
      if (!bytes) this.kitBytes.set(kit.mesh, (bytes = this.api.asset(kit.mesh)));
      return { kit, pieces: Object.values(pieces).filter((piece) => piece.kit === kit.id), bytes };
    });
  }

  /** An assembly as a level of one stratum, so that every tool works within it. */
  private assemblyAsLevel(id: string): Level | undefined {
    if (!Object.hasOwn(this.tables().stratum, id)) return undefined;
    const { name, kit } = this.tables().stratum[id];
    if (!kit) return undefined;
    const strata = [{ stratum: id, switchedOff: false }];
    return {
      id,
      name,
      key: id,
      set: '',
      order: '',
      purpose: 'tool',
      code: '',
      values: {},
      strata,
      openSky: true,
      bounds: null,
      binned: null,
    };
  }

  private seenBy(level: string, shared: StratumDocument): StratumDocument {
    const known = this.patched.get(shared.id);
    if (known?.shared === shared && known.level === level) return hasPatches(shared, level) ? known.document : shared;
    known?.stop();
    this.patched.delete(shared.id);
    if (!hasPatches(shared, level)) return shared;
    const made = patchedDocument(shared, level);
    this.patched.set(shared.id, made);
    return made.document;
  }

  private async load(id: string): Promise<void> {
    if (this.ready().get(id) === this.registry.openStratum(id) && this.ready().has(id)) return;
    try {
      const document = await this.registry.stratum(id);
      this.ready.update((ready) => new Map(ready).set(id, document));
      this.failure.set('');
    } catch (error) {
      this.failure.set(`The stratum ${this.tables().stratum[id]?.name ?? id} could not be loaded. ${errorText(error)}`);
    }
  }
}
