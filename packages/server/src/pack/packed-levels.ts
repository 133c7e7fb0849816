import {
  RECORDS_DOCUMENT,
  assembliesWithin,
  type Level,
  type LoggedEdit,
  type PackedFile,
  type RecordTables,
} from '@stravel/core';

/** What became of a level when it was last packed into a folder. */
export interface PackedLevel {
  /** Number of the last edit that its files hold. */
  readonly edit: number;
  /** The level's own file last. */
  readonly files: readonly PackedFile[];
  /** Ids of the kits that it places something of. */
  readonly kits: readonly string[];
}

/** Fields of records that stand in the file of one level alone, that of their id. */
const OWN_FIELDS: { readonly [kind in string]?: readonly string[] } = { level: ['name', 'code', 'values'] };

/** Sequence of the last edit that touched a document or a level, by its id, and of the last that may have touched anything. */
interface Touched {
  readonly at: Map<string, number>;
  anything: number;
}

interface Asked {
  readonly collection: string;
  readonly target: string;
  readonly levels: Map<string, PackedLevel>;
}

/** The levels that were packed since the server began: one that no edit has touched since is not packed again. */
export class PackedLevels {
  private readonly touched = new Map<string, Touched>();
  /** By folder, and what was asked for; by level in it. */
  private readonly packs = new Map<string, Asked>();

  afterEdit(collection: string, { sequence, operations }: Pick<LoggedEdit, 'sequence' | 'operations'>): void {
    const touched = this.of(collection);
    for (const { document, kind, id, field } of operations) {
      if (document !== RECORDS_DOCUMENT) touched.at.set(document, sequence);
      else if (field !== null && OWN_FIELDS[kind]?.includes(field)) touched.at.set(id, sequence);
      else touched.anything = sequence;
    }
  }

  /** Forgets a collection: another may come under its id, with a log that begins anew. */
  forget(collection: string): void {
    this.touched.delete(collection);
    for (const [folder, asked] of this.packs) if (asked.collection === collection) this.packs.delete(folder);
  }

  /** The levels that a folder has of an earlier pack of a collection for a target. @param target all of it, as text */
  into(folder: string, collection: string, target: string): Map<string, PackedLevel> {
    const known = this.packs.get(folder);
    if (known?.collection === collection && known.target === target) return known.levels;
    const levels = new Map<string, PackedLevel>();
    this.packs.set(folder, { collection, target, levels });
    return levels;
  }

  /** Whether no edit has touched a level since it was packed. */
  isSame(collection: string, level: Level, strata: RecordTables['stratum'], { edit }: PackedLevel): boolean {
    const { at, anything } = this.of(collection);
    const stack = level.strata.map(({ stratum }) => stratum);
    const ids = [level.id, ...stack, ...assembliesWithin(strata, stack)];
    return anything <= edit && ids.every((id) => (at.get(id) ?? 0) <= edit);
  }

  private of(collection: string): Touched {
    const known = this.touched.get(collection) ?? { at: new Map<string, number>(), anything: 0 };
    this.touched.set(collection, known);
    return known;
  }
}
