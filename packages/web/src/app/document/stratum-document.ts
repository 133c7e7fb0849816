import {
  ITEM_KINDS,
  applyOperation,
  contentOfKinds,
  isItemKind,
  kindsWith,
  type ItemKind,
  type ItemOfKind,
  type JsonRecord,
  type Operation,
  type ShownRecord,
  type StratumContent,
  plainRecordIfAny,
  storedRecord,
} from '@stravel/core';
import type { ItemTable } from './item-table';
import { itemTables, type ItemTables, type WholeTables } from './item-tables';

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

/** So many changes are remembered for those that have an older version. */
const MAX_REMEMBERED = 2000;

let loads = 0;

/** One stratum's content in the page, a table a kind. Listeners are told what changed, so that drawing touches only that. */
export class StratumDocument {
  readonly tables: ItemTables = itemTables();
  /** What stands in its assemblies, in a document of its own and by use; kept by whoever lays them out. */
  laid: LaidAssemblies | undefined;
  /** Told apart from any other document, of the same stratum too. */
  readonly load = ++loads;
  /** Grows with every change. */
  version = 0;
  /** Grows when an item came or went. */
  membership = 0;
  /** What changed last, and from which version on that is all. */
  private journal: { readonly version: number; readonly kind: ItemKind; readonly id: string }[] = [];
  private journalFrom = 0;
  private readonly listeners = new Set<(change: StratumChange) => void>();

  constructor(readonly id: string) {}

  /** Number of things that stand in it; groups and patches are none. */
  get size(): number {
    return THINGS.reduce((sum, kind) => sum + this.tables[kind].size, 0);
  }

  item<K extends ItemKind>(kind: K, id: string): ItemOfKind[K] | undefined {
    return this.tableOf(kind).get(id);
  }

  /** All items of a kind. */
  itemsOf<K extends ItemKind>(kind: K): Iterable<ItemOfKind[K]> {
    return this.tableOf(kind).values();
  }

  /** Takes in a chunk of a snapshot. */
  addChunk(kind: ItemKind, bytes: Uint8Array): void {
    this.tables[kind].addChunk(bytes);
    this.tell({ stratum: this.id, whole: true, items: [] });
  }

  /** Holds exactly some content from now on. */
  fill(content: StratumContent): void {
    this.refill(content);
    this.tell({ stratum: this.id, whole: true, items: [] });
  }

  /** Applies operations on this stratum; a field of an item already gone is left alone. */
  apply(operations: readonly Operation[]): void {
    const items: { kind: ItemKind; id: string }[] = [];
    for (const operation of operations) {
      const { kind, id } = operation;
      if (!isItemKind(kind)) continue;
      const before = plainRecordIfAny(this.item(kind, id));
      if (operation.field !== null && !before) continue;
      this.put(kind, id, applyOperation(before, operation));
      items.push({ kind, id });
    }
    if (items.length > 0) this.tell({ stratum: this.id, whole: false, items });
  }

  /** Puts or takes away items. */
  putAll(records: readonly ShownRecord[]): void {
    const items: { kind: ItemKind; id: string }[] = [];
    for (const { kind, id, record } of records) {
      if (!isItemKind(kind)) continue;
      this.put(kind, id, record);
      items.push({ kind, id });
    }
    this.tell({ stratum: this.id, whole: false, items });
  }

  /** All items as plain records, in order of id. */
  content(): StratumContent {
    return contentOfKinds((kind) => [...this.tableOf(kind).values()].sort((a, b) => (a.id < b.id ? -1 : 1)));
  }

  /** Items that changed after a version, each once; undefined where that is not known any more. */
  changesSince(version: number): readonly { readonly kind: ItemKind; readonly id: string }[] | undefined {
    if (version < this.journalFrom) return undefined;
    const changes = this.journal.filter((one) => one.version > version);
    return [...new Map(changes.map((one) => [`${one.kind} ${one.id}`, one])).values()];
  }

  /** All that it holds, to be sent: placements in columns of their own. */
  whole(): WholeTables {
    const columns = { placement: this.tables.placement.columns() };
    return { columns, records: contentOfKinds((kind) => (kind in columns ? [] : [...this.tableOf(kind).values()])) };
  }

  /** Holds exactly what another did. */
  fillWith({ columns, records }: WholeTables): void {
    this.refill(records);
    this.tables.placement.addColumns(columns.placement);
    this.tell({ stratum: this.id, whole: true, items: [] });
  }

  /** @returns what ends the listening */
  listen(listener: (change: StratumChange) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** The table of a kind that only the caller knows. */
  tableOf<K extends ItemKind>(kind: K): ItemTable<K> {
    // Each table holds its kind alone.
    return this.tables[kind] as unknown as ItemTable<K>;
  }

  private refill(content: StratumContent): void {
    for (const kind of ITEM_KINDS) {
      const table = this.tableOf(kind);
      table.clear();
      for (const item of content[kind]) table.put(item);
    }
  }

  private put(kind: ItemKind, id: string, record: JsonRecord | undefined): void {
    const { [kind]: table } = this.tables;
    const before = table.size;
    if (record) this.tableOf(kind).put(storedRecord(kind, record));
    else table.delete(id);
    if (table.size !== before) this.membership++;
  }

  private tell(change: StratumChange): void {
    this.version += 1;
    if (change.whole) this.membership++;
    if (change.whole || change.items.length > MAX_REMEMBERED) {
      this.journal = [];
      this.journalFrom = this.version;
    } else {
      for (const { kind, id } of change.items) this.journal.push({ version: this.version, kind, id });
      if (this.journal.length > 2 * MAX_REMEMBERED) {
        this.journalFrom = this.journal[this.journal.length - MAX_REMEMBERED].version;
        this.journal = this.journal.filter((one) => one.version > this.journalFrom);
      }
    }
    for (const listener of this.listeners) listener(change);
  }
}

/** Kinds of which each is a thing that stands somewhere or leads somewhere: all but what gathers or changes others. */
const THINGS = kindsWith('thing');
