import {
  ITEM_KINDS,
  applyOperation,
  decodeChunk,
  decodePlacementChunk,
  type AssemblyUse,
  type Block,
  type Divider,
  type Group,
  type Item,
  type ItemKind,
  type JsonRecord,
  type Link,
  type Mask,
  type Marker,
  type Operation,
  type Patch,
  type Path,
  type Pin,
  type Placement,
  type Recipe,
  type ShownRecord,
  type StratumContent,
  type TileFloor,
  type Volume,
} from '@stravel/core';
import { PlacementStore } from './placement-columns';

/** Which items of a stratum changed. `whole` after loading: everything may be different. */
export interface StratumChange {
  readonly stratum: string;
  readonly whole: boolean;
  readonly items: readonly { readonly kind: ItemKind; readonly id: string }[];
}

/** The assemblies of a stratum, laid out. */
export interface LaidAssemblies {
  readonly document: StratumDocument;
  /** What each use brings, by the use's id. */
  readonly items: ReadonlyMap<string, readonly { readonly kind: ItemKind; readonly id: string }[]>;
}

/** One stratum's content in the page. Listeners are told what changed, so that drawing touches only that. */
export class StratumDocument {
  readonly blocks = new Map<string, Block>();
  readonly placements = new PlacementStore();
  readonly markers = new Map<string, Marker>();
  readonly dividers = new Map<string, Divider>();
  readonly recipes = new Map<string, Recipe>();
  readonly pins = new Map<string, Pin>();
  readonly volumes = new Map<string, Volume>();
  readonly links = new Map<string, Link>();
  readonly paths = new Map<string, Path>();
  readonly tileFloors = new Map<string, TileFloor>();
  readonly masks = new Map<string, Mask>();
  readonly assemblyUses = new Map<string, AssemblyUse>();
  /** What stands in its assemblies, in a document of its own and by use; kept by whoever lays them out. */
  laid: LaidAssemblies | undefined;
  readonly groups = new Map<string, Group>();
  /** What levels change for themselves alone in a shared stratum. */
  readonly patches = new Map<string, Patch>();
  private readonly tables = {
    block: this.blocks,
    marker: this.markers,
    divider: this.dividers,
    recipe: this.recipes,
    pin: this.pins,
    volume: this.volumes,
    link: this.links,
    path: this.paths,
    tileFloor: this.tileFloors,
    mask: this.masks,
    assembly: this.assemblyUses,
    group: this.groups,
    patch: this.patches,
  };
  /** Grows with every change. */
  version = 0;
  private readonly listeners = new Set<(change: StratumChange) => void>();

  constructor(readonly id: string) {}

  /** Number of things that stand in it; groups and patches are none. */
  get size(): number {
    const { blocks, markers, dividers, recipes, pins, volumes, links, paths, tileFloors, masks, assemblyUses } = this;
    return (
      this.placements.count +
      [blocks, markers, dividers, recipes, pins, volumes, links, paths, tileFloors, masks, assemblyUses].reduce(
        (sum, { size }) => sum + size,
        0,
      )
    );
  }

  item(kind: ItemKind, id: string): Item | undefined {
    return kind === 'placement' ? this.placements.get(id) : this.tableOf(kind).get(id);
  }

  /** All items of a kind. */
  itemsOf(kind: ItemKind): Iterable<Item> {
    return kind === 'placement' ? this.placements.records() : this.tableOf(kind).values();
  }

  /** Takes in a chunk of a snapshot. */
  addChunk(kind: ItemKind, bytes: Uint8Array): void {
    if (kind === 'placement') this.placements.addColumns(decodePlacementChunk(bytes));
    else for (const record of decodeChunk(kind, bytes)) this.put(kind, record);
    this.tell({ stratum: this.id, whole: true, items: [] });
  }

  /** Holds exactly some content from now on. */
  fill(content: StratumContent): void {
    for (const kind of ITEM_KINDS) {
      if (kind === 'placement') for (const { id } of [...this.placements.records()]) this.placements.remove(id);
      else this.tableOf(kind).clear();
      for (const item of content[kind]) this.put(kind, item as unknown as JsonRecord);
    }
    this.tell({ stratum: this.id, whole: true, items: [] });
  }

  /** Applies operations on this stratum; a field of an item already gone is left alone. */
  apply(operations: readonly Operation[]): void {
    const items: { kind: ItemKind; id: string }[] = [];
    for (const operation of operations) {
      const kind = operation.kind as ItemKind;
      const before = this.item(kind, operation.id) as JsonRecord | undefined;
      if (operation.field !== null && !before) continue;
      const after = applyOperation(before, operation);
      if (after) this.put(kind, after);
      else this.remove(kind, operation.id);
      items.push({ kind, id: operation.id });
    }
    if (items.length > 0) this.tell({ stratum: this.id, whole: false, items });
  }

  /** Puts or takes away items. */
  putAll(records: readonly ShownRecord[]): void {
    for (const { kind: of, id, record } of records) {
      const kind = of as ItemKind;
      if (record) this.put(kind, record);
      else this.remove(kind, id);
    }
    this.tell({
      stratum: this.id,
      whole: false,
      items: records.map(({ kind, id }) => ({ kind: kind as ItemKind, id })),
    });
  }

  /** All items as plain records, in order of id. */
  content(): StratumContent {
    const sorted = <T extends { readonly id: string }>(items: Iterable<T>): T[] =>
      [...items].sort((a, b) => (a.id < b.id ? -1 : 1));
    return {
      block: sorted(this.blocks.values()),
      placement: sorted<Placement>(this.placements.records()),
      marker: sorted(this.markers.values()),
      divider: sorted(this.dividers.values()),
      recipe: sorted(this.recipes.values()),
      pin: sorted(this.pins.values()),
      volume: sorted(this.volumes.values()),
      link: sorted(this.links.values()),
      path: sorted(this.paths.values()),
      tileFloor: sorted(this.tileFloors.values()),
      mask: sorted(this.masks.values()),
      assembly: sorted(this.assemblyUses.values()),
      group: sorted(this.groups.values()),
      patch: sorted(this.patches.values()),
    };
  }

  /** @returns what ends the listening */
  listen(listener: (change: StratumChange) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  private put(kind: ItemKind, record: JsonRecord): void {
    // Records were checked for their kind by the server, or made by a desk.
    if (kind === 'placement') this.placements.put(record as unknown as Placement);
    else this.tableOf(kind).set(record['id'] as string, record as never);
  }

  private remove(kind: ItemKind, id: string): void {
    if (kind === 'placement') this.placements.remove(id);
    else this.tableOf(kind).delete(id);
  }

  private tableOf(kind: Exclude<ItemKind, 'placement'>): Map<string, Exclude<Item, Placement>> {
    // Each table holds its kind alone; what is put in was checked for it.
    return this.tables[kind] as Map<string, Exclude<Item, Placement>>;
  }

  private tell(change: StratumChange): void {
    this.version += 1;
    for (const listener of this.listeners) listener(change);
  }
}
