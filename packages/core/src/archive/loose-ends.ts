import { byKey } from '../model/by-key';
import type { CollectionContent } from '../model/collection-content';
import type { EditableKind, RecordTables } from '../model/records';
import { ITEM_KINDS, isItemKind, itemsOf, listOf, overIdsOf } from '../items';
import type { IdTarget } from '../items/ids';
import type { AssemblyUse, Item, ItemKind, StratumContent } from '../model/items';
import { isRecordKind, overRecordIds } from '../records';
import { fieldsOf } from '../sets/field-tables';
import { linkUses } from '../sets/links';
import { TABLE_PATHS, levelPath, stratumPath, tablePath } from './archive-files';

/**
 * Something that points at what is not there. Edits may leave it so, for example by deleting what a link leads to, and
 * nothing is lost by it; in an archive that was edited by hand it is often a slip.
 */
export interface LooseEnd {
  /** File of the archive. */
  readonly path: string;
  readonly kind: EditableKind;
  readonly id: string;
  readonly field: string;
  /** Id that nothing has. */
  readonly to: string;
}

type Content = Pick<CollectionContent, 'records' | 'strata'>;

/** All loose ends of a collection, file by file. What edits refuse is no loose end: reading an archive refuses it too. */
export function looseEnds({ records, strata }: Content): LooseEnd[] {
  return [
    ...recordEnds(records),
    ...[...strata].flatMap(([stratum, content]) => stratumEnds({ records, strata }, stratum, content)),
  ];
}

/** Loose ends as people are told of them. */
export interface LooseEndNotes {
  readonly count: number;
  /** Texts of the first few. */
  readonly first: readonly string[];
}

/** So many loose ends are told one by one. */
const TOLD = 20;

/** The loose ends of a collection in words. */
export function looseEndNotes(content: Content): LooseEndNotes {
  const ends = looseEnds(content);
  return { count: ends.length, first: ends.slice(0, TOLD).map(looseEndText) };
}

/** For example 'levels/hall.json: recipe of the pin p1 points at r9, which does not exist'. */
function looseEndText({ path, kind, id, field, to }: LooseEnd): string {
  return `${path}: ${field} of the ${kind} ${id} points at ${to}, which does not exist`;
}

function recordEnds(records: RecordTables): LooseEnd[] {
  const ends: LooseEnd[] = [];
  const need = (
    path: string,
    kind: EditableKind,
    id: string,
    field: string,
    to: string,
    table: Readonly<Record<string, unknown>>,
  ): void => {
    if (!Object.hasOwn(table, to)) ends.push({ path, kind, id, field, to });
  };
  for (const [kind, path] of TABLE_PATHS) {
    for (const record of Object.values<{ readonly id: string }>(records[kind])) {
      overRecordIds(kind, record, (to, { to: other, field, isStrict }) => {
        // What edits refuse is refused by reading too.
        if (!isStrict && isRecordKind(other)) need(path, kind, record.id, field, to, records[other]);
        return to;
      });
    }
  }
  const keys = Object.fromEntries(fieldsOf(records, null).map(({ key }) => [key, true]));
  for (const { id, gains } of Object.values(records.levelOrder)) {
    for (const { field } of gains) if (field) need(tablePath('levelOrder'), 'levelOrder', id, 'gains', field, keys);
  }
  for (const [to, uses] of linkUses(records)) {
    for (const { kind, record, field } of uses) {
      const path = 'key' in record ? levelPath(record.key) : tablePath('entry');
      need(path, kind, record.id, `values.${field.key}`, to, field.type === 'level' ? records.level : records.entry);
    }
  }
  return ends;
}

function stratumEnds(all: Content, stratum: string, content: StratumContent): LooseEnd[] {
  const { records, strata } = all;
  const path = pathOf(records, stratum);
  const ids = idsByKind(content);
  const ends: LooseEnd[] = [];
  let reach: Reach | undefined;
  const reached = (id: string): boolean => (reach ??= reachOf(all, stratum)).has(id);
  const isThere = (id: string, to: IdTarget): boolean => {
    if (to === 'item') return reached(id);
    if (isItemKind(to)) return ids[to].has(id);
    return Object.hasOwn(records[to], id);
  };
  const uses = new Map(content.assembly.map((use) => [use.id, use]));
  const loose = (kind: ItemKind, item: Item): void => {
    const tell = (field: string, to: string): void => void ends.push({ path, kind, id: item.id, field, to });
    overIdsOf(kind, item, (id, { to, field }) => {
      // What edits refuse is refused by reading too.
      if (to !== 'piece' && !field.startsWith('patches.') && !isThere(id, to)) tell(field, id);
      return id;
    });
    const use = uses.get(item.id);
    for (const target of use ? missingTargets(strata, use) : []) tell('patches', target);
  };
  for (const { kind, item } of itemsOf(content)) loose(kind, item);
  return ends;
}

/** What a use has otherwise of its assembly that is not in there; nothing where the assembly is not known. */
function missingTargets(strata: Content['strata'], { assembly, patches }: AssemblyUse): string[] {
  const inner = strata.get(assembly);
  if (!inner) return [];
  const has = (kind: ItemKind, target: string): boolean =>
    listOf<ItemKind>(inner, kind).some(({ id }) => id === target);
  return Object.entries(patches ?? {}).flatMap(([target, { kind, change }]) =>
    change === 'added' || has(kind, target) ? [] : [target],
  );
}

function pathOf(records: RecordTables, stratum: string): string {
  const owner = Object.hasOwn(records.stratum, stratum) ? records.stratum[stratum].owner : null;
  return owner !== null && Object.hasOwn(records.level, owner)
    ? levelPath(records.level[owner].key)
    : stratumPath(stratum);
}

function idsByKind(content: StratumContent): Readonly<Record<ItemKind, ReadonlySet<string>>> {
  return byKey(ITEM_KINDS, (kind) => new Set(listOf<ItemKind>(content, kind).map(({ id }) => id)));
}

interface Reach {
  has(id: string): boolean;
}

/** What links of a stratum may lead to: all that stands in the levels that have it, with what their assemblies and sections bring. */
function reachOf({ records, strata }: Content, stratum: string): Reach {
  const beside = new Set([stratum]);
  for (const level of Object.values(records.level)) {
    if (level.strata.some((entry) => entry.stratum === stratum))
      for (const entry of level.strata) beside.add(entry.stratum);
  }
  const ids = new Set<string>();
  const assemblies = new Map<string, string>();
  const recipes = new Set<string>();
  for (const id of beside) {
    const content = strata.get(id);
    for (const { item } of content ? itemsOf(content) : []) ids.add(item.id);
    for (const { change, target } of content?.patch ?? []) if (change === 'added') ids.add(target);
    for (const { id: use, assembly } of content?.assembly ?? []) assemblies.set(use, assembly);
    for (const { id: recipe } of content?.recipe ?? []) recipes.add(recipe);
  }
  /** Things of assemblies are named use.thing, those of sections recipe.thing; both may hold dots themselves. */
  const within = (id: string, uses: ReadonlyMap<string, string>, depth: number): boolean =>
    [...id].some((letter, i) => {
      const assembly = letter === '.' ? uses.get(id.slice(0, i)) : undefined;
      const content = assembly === undefined || depth === 0 ? undefined : strata.get(assembly);
      if (!content) return false;
      const rest = id.slice(i + 1);
      return (
        ITEM_KINDS.some((kind) => listOf<ItemKind>(content, kind).some((item) => item.id === rest)) ||
        within(rest, new Map(content.assembly.map((use) => [use.id, use.assembly])), depth - 1)
      );
    });
  const ofSection = (id: string): boolean => [...recipes].some((recipe) => id.startsWith(`${recipe}.`));
  return { has: (id) => ids.has(id) || ofSection(id) || within(id, assemblies, MAX_NESTED) };
}

/** Assemblies within each other are followed no deeper. */
const MAX_NESTED = 8;
