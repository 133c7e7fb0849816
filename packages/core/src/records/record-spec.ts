import type { EachId, IdUse } from '../items/ids';
import type { RecordKind, RecordOfKind, RecordTables } from '../model/records';

/** What the core knows of a kind of small record without its schema. One in each room; `RECORDS` lists them. */
export interface RecordSpec<K extends RecordKind> {
  readonly words: { readonly one: string; readonly many: string };
  /** File of an archive in which all of the kind stand; null where they stand with their level, stratum or kit. */
  readonly table: string | null;
  /** Ids are those of findings, longer than others and with more letters. */
  readonly isNamedByFinding?: true;
  /** A collection has exactly one, of itself. */
  readonly isSingle?: true;
  /** Fields that stay as they are when an archive is restored into a collection. */
  readonly keptOnRestore?: readonly (keyof RecordOfKind[K] & string)[];
  /** The collection goes by its name. */
  readonly namesCollection?: true;
  /** The field with the level that it belongs to. */
  readonly ownedBy?: keyof RecordOfKind[K] & string;
  /** What it is to the level that has its id: 'The level', 'Its order of play'. */
  readonly ofLevel?: string;
  /** Fields that must agree with what stands in a kit's mesh. */
  readonly meshFields?: readonly (keyof RecordOfKind[K] & string)[];
  /** Values that link to one keep it from being removed. */
  readonly isKeptByValues?: true;
  /** Kinds of which none may be removed while one of this kind points at it: others need not be looked through for users. */
  readonly pointsAt: readonly RecordKind[];
  /**
   * Goes over all ids that a record, or some fields of one, point at.
   * @returns the same where `each` leaves all as they are
   */
  readonly ids: (record: Partial<RecordOfKind[K]>, each: EachId) => Partial<RecordOfKind[K]>;
  /** What it is called where it is told that it uses something: 'the level Sump'. @param use where it points at it */
  readonly asUser: (record: RecordOfKind[K], use: IdUse, tables: RecordTables) => string;
}

export type RecordSpecs = { readonly [K in RecordKind]: RecordSpec<K> };
