import type { Acceptance } from './acceptance';
import type { CellGrid } from './cell-grid';
import type { CollectionSettings } from './collection';
import type { Device } from './device';
import type { Field } from './field';
import type { Kit, Piece } from './kit';
import type { Level } from './level';
import type { LevelSet } from './level-set';
import type { Entry, Register } from './register';
import type { Rehearsal } from './rehearsal';
import type { TableView } from './table-view';
import type { Target } from './target';
import type { CarriedValue, LevelOrder } from './unlock';
import type { Stratum } from './stratum';
import type { Item, ItemKind, ItemOfKind } from './items';

/** The small records of a collection: all that stands outside the strata's content. */
export interface RecordOfKind {
  readonly collection: CollectionSettings;
  readonly set: LevelSet;
  readonly level: Level;
  readonly field: Field;
  readonly stratum: Stratum;
  readonly kit: Kit;
  readonly piece: Piece;
  readonly device: Device;
  readonly acceptance: Acceptance;
  readonly cellGrid: CellGrid;
  readonly rehearsal: Rehearsal;
  readonly register: Register;
  readonly entry: Entry;
  readonly carriedValue: CarriedValue;
  readonly levelOrder: LevelOrder;
  readonly tableView: TableView;
  readonly target: Target;
}
export type RecordKind = keyof RecordOfKind;

/** Every kind of thing that an edit can touch. */
export type EditableKind = RecordKind | ItemKind;
export type EditableOfKind = RecordOfKind & ItemOfKind;
export type Editable = RecordOfKind[RecordKind] | Item;

/** The document that holds the small records; every other document is a stratum, named by the stratum's id. */
export const RECORDS_DOCUMENT = 'records';

/** Looks records up by kind and id. */
export type RecordTables = { readonly [K in RecordKind]: Readonly<Record<string, RecordOfKind[K]>> };
