import { plainJson } from '../json/plain-json';
import type { Operation } from '../document/operation';
import type { LevelSet } from '../model/level-set';
import { RECORDS_DOCUMENT, type RecordTables } from '../model/records';
import { addToList } from './list-map';
import { compareOrdered } from '../model/ordered';
import { ordersBetween, setTree, type SetNode } from './order';

/** What stands between the names of nested sets in text. */
export const SET_PATH_SEPARATOR = ' / ';
/** Longest name of a set, characters; as its schema says. */
const MAX_NAME_LENGTH = 200;
/** Name of the set that is made where there is none. */
export const NEW_SET_NAME = 'New set';

/** A set that a row names: one that is there, or one that would be made. */
export interface NamedSet {
  readonly id: string;
  readonly parent: string | null;
  /** Undefined for one that is there. */
  readonly made?: LevelSet;
}

/** Finds sets by the paths that rows name, and makes up those that are missing. Only those that are used become operations. */
export class ImportedSets {
  private readonly byName = new Map<string, NamedSet[]>();
  private readonly children = new Map<string | null, Map<string, NamedSet>>();
  private readonly all = new Map<string, NamedSet>();
  private readonly lastOrder = new Map<string | null, string>();
  private readonly used = new Set<string>();

  constructor(tables: Pick<RecordTables, 'set' | 'level'>) {
    const add = ({ set, sets }: SetNode): void => {
      this.add({ id: set.id, parent: set.parent }, set.name);
      sets.forEach(add);
    };
    setTree(tables).forEach(add);
    for (const set of Object.values(tables.set).sort(compareOrdered)) this.lastOrder.set(set.parent, set.order);
  }

  /**
   * The set of a path such as “Part / Chapter”. A single name may be that of a set at any depth.
   * @param newId id from which those of new sets are made
   */
  find(path: string, newId: string): NamedSet | { readonly fault: string } {
    const names = path.split(SET_PATH_SEPARATOR.trim()).map((name) => name.trim());
    if (names.some((name) => name === '')) return { fault: `“${path}” has a set without a name.` };
    const long = names.find((name) => name.length > MAX_NAME_LENGTH);
    if (long !== undefined) return { fault: `The name of a set is longer than ${MAX_NAME_LENGTH} characters.` };
    if (names.length === 1) {
      const named = this.byName.get(names[0].toLowerCase()) ?? [];
      const atTop = named.filter(({ parent }) => parent === null);
      if (atTop.length === 1) return atTop[0];
      if (named.length > 1)
        return {
          fault: `Several sets are named “${names[0]}”; write the sets above it too, as “Part${SET_PATH_SEPARATOR}Chapter”.`,
        };
      if (named.length === 1) return named[0];
    }
    return names.reduce<NamedSet | { readonly fault: string }>(
      (above, name, depth) =>
        'fault' in above ? above : this.child(depth === 0 ? null : above.id, name, `${newId}-set-${depth + 1}`),
      { id: '', parent: null },
    );
  }

  /** Marks a set, with those above it, as needed. */
  use(id: string): void {
    for (let set = this.all.get(id); set; set = set.parent === null ? undefined : this.all.get(set.parent))
      this.used.add(set.id);
  }

  /** What makes the new sets that are needed, those above first. */
  operations(): Operation[] {
    return [...this.all.values()].flatMap(({ id, made }): Operation[] =>
      made && this.used.has(id)
        ? [{ document: RECORDS_DOCUMENT, kind: 'set', id, field: null, before: null, after: plainJson(made) }]
        : [],
    );
  }

  private child(parent: string | null, name: string, newId: string): NamedSet | { readonly fault: string } {
    const known = this.children.get(parent)?.get(name.toLowerCase());
    if (known) return known;
    const [order] = ordersBetween(this.lastOrder.get(parent) ?? null, null);
    this.lastOrder.set(parent, order);
    const made: LevelSet = { id: newId, name, parent, order, binned: null };
    return this.add({ id: newId, parent, made }, name);
  }

  private add(set: NamedSet, name: string): NamedSet {
    const key = name.toLowerCase();
    this.all.set(set.id, set);
    addToList(this.byName, key, set);
    const siblings = this.children.get(set.parent) ?? new Map<string, NamedSet>();
    // Of two with one name the first is meant.
    if (!siblings.has(key)) siblings.set(key, set);
    this.children.set(set.parent, siblings);
    return set;
  }
}

/** The names of a set and of those above it, as `ImportedSets` reads them. */
export function setPathText(sets: Readonly<Record<string, LevelSet>>, id: string): string {
  const names: string[] = [];
  const seen = new Set<string>();
  for (let at: string | null = id; at !== null && Object.hasOwn(sets, at) && !seen.has(at); at = sets[at].parent) {
    seen.add(at);
    names.unshift(sets[at].name);
  }
  return names.join(SET_PATH_SEPARATOR);
}
