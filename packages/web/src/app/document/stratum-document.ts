import {
  applyOperation,
  decodeChunk,
  decodePlacementChunk,
  type Block,
  type Divider,
  type Item,
  type ItemKind,
  type JsonRecord,
  type Marker,
  type Operation,
  type Pin,
  type Placement,
  type Recipe,
  type StratumContent,
} from '@stravel/core';
import { PlacementStore } from './placement-columns';

/** Which items of a stratum changed. `whole` after loading: everything may be different. */
export interface StratumChange {
  readonly stratum: string;
  readonly whole: boolean;
  readonly items: readonly { readonly kind: ItemKind; readonly id: string }[];
}

/** One stratum's content in the page. Listeners are told what changed, so that drawing touches only that. */
export class StratumDocument {
  readonly blocks = new Map<string, Block>();
  readonly placements = new PlacementStore();
  readonly markers = new Map<string, Marker>();
  readonly dividers = new Map<string, Divider>();
  readonly recipes = new Map<string, Recipe>();
  readonly pins = new Map<string, Pin>();
  /** Grows with every change. */
  version = 0;
  private readonly listeners = new Set<(change: StratumChange) => void>();

  constructor(readonly id: string) {}

  /** Number of items of all kinds. */
  get size(): number {
    return this.blocks.size + this.placements.count + this.markers.size + this.dividers.size + this.recipes.size + this.pins.size;
  }

  item(kind: ItemKind, id: string): Item | undefined {
    return kind === 'placement' ? this.placements.get(id) : this.tableOf(kind).get(id);
  }

  /** Takes in a chunk of a snapshot. */
  addChunk(kind: ItemKind, bytes: Uint8Array): void {
    if (kind === 'placement') this.placements.addColumns(decodePlacementChunk(bytes));
    else for (const record of decodeChunk(kind, bytes)) this.put(kind, record);
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

  /** All items as plain records, in order of id. */
  content(): StratumContent {
    const sorted = <T extends { readonly id: string }>(items: Iterable<T>): T[] => [...items].sort((a, b) => (a.id < b.id ? -1 : 1));
    return {
      block: sorted(this.blocks.values()),
      placement: sorted<Placement>(this.placements.records()),
      marker: sorted(this.markers.values()),
      divider: sorted(this.dividers.values()),
      recipe: sorted(this.recipes.values()),
      pin: sorted(this.pins.values()),
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
    const tables = { block: this.blocks, marker: this.markers, divider: this.dividers, recipe: this.recipes, pin: this.pins };
    // Each table holds its kind alone; what is put in was checked for it.
    return tables[kind] as Map<string, Exclude<Item, Placement>>;
  }

  private tell(change: StratumChange): void {
    this.version += 1;
    for (const listener of this.listeners) listener(change);
  }
}
