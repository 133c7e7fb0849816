import type { Group } from '../../model/group';
import type { Placement } from '../../model/placement';
import type { Box3 } from '../../model/vector';
import { overIdsOf, specOf } from '../../items';
import type { Item, ItemKind, ItemOfKind } from '../../model/items';
import { groupChain } from '../groups';

/** What things are looked for; an absent part asks nothing. */
export interface SelectionQuery {
  /** Part of the name, of a block, volume, path or piece. */
  readonly name?: string;
  readonly kind?: ItemKind;
  readonly piece?: string;
  /** The whole name of its own material. */
  readonly material?: string;
  /** Part of a group's name, or of that of a group around it. */
  readonly group?: string;
  /** Part of the category of its group, or of a group around it. */
  readonly category?: string;
  /** Part of a tag of a path's knot. */
  readonly tag?: string;
  /** Part of one of its own values. */
  readonly value?: string;
  /** Longest side of its bounds, metres. */
  readonly leastMetres?: number;
  readonly mostMetres?: number;
  /** The bounds lie within. */
  readonly within?: Box3;
}

/** What a query is held against. */
export interface SelectionFacts<K extends ItemKind = ItemKind> {
  readonly kind: K;
  readonly item: ItemOfKind[K];
  /** Name of the piece of a placement. */
  readonly pieceName: string;
  readonly bounds: Box3 | undefined;
  readonly groups: ReadonlyMap<string, Group>;
}

/** Whether a thing is what is looked for; text without regard to case. */
export function matchesSelection<K extends ItemKind>(
  query: SelectionQuery,
  { kind, item, pieceName, bounds, groups }: SelectionFacts<K>,
): boolean {
  const has = (text: string, part: string | undefined): boolean =>
    part === undefined || part === '' || text.toLowerCase().includes(part.toLowerCase());
  const { group, material, name, tags, traits } = specOf(kind);
  const chain = groupChain(groups, group(item)).flatMap((id) => groups.get(id) ?? []);
  const asks = (part: string | undefined): part is string => part !== undefined && part !== '';
  if (query.kind !== undefined && query.kind !== kind) return false;
  if (asks(query.piece) && !pointsAt(kind, item, query.piece)) return false;
  if (asks(query.material) && material?.(item) !== query.material) return false;
  const called = name(item, { piece: () => pieceName });
  if (!has(called === '' && !traits.named ? pieceName : called, query.name)) return false;
  if (asks(query.group) && !chain.some((one) => has(one.name, query.group))) return false;
  if (asks(query.category) && !chain.some(({ category }) => has(category, query.category))) return false;
  if (asks(query.tag) && !tags?.(item).some((tag) => has(tag, query.tag))) return false;
  if (asks(query.value) && !valuesOf(item).some((value) => has(value, query.value))) return false;
  if (query.leastMetres === undefined && query.mostMetres === undefined && query.within === undefined) return true;
  if (!bounds) return false;
  const longest = Math.max(...bounds.max.map((value, k) => value - bounds.min[k]));
  if (longest < (query.leastMetres ?? 0) || longest > (query.mostMetres ?? Infinity)) return false;
  const { within } = query;
  return !within || bounds.min.every((value, k) => value >= within.min[k] && bounds.max[k] <= within.max[k]);
}

/** Whether a thing is made of a piece. */
function pointsAt(kind: ItemKind, item: Item, piece: string): boolean {
  let isMade = false;
  overIdsOf(kind, item, (id, { to }) => {
    isMade ||= to === 'piece' && id === piece;
    return id;
  });
  return isMade;
}

/** The values of its own that a thing has, as texts. */
function valuesOf(item: Item & { readonly values?: Placement['values'] }): string[] {
  return Object.values(item.values ?? {}).map((value) => (Array.isArray(value) ? value.join(' ') : String(value)));
}

/** What makes things similar to one: its kind, and its piece, its material or its kind of marker or volume. */
export function isSimilar<K extends ItemKind>(kind: K, item: ItemOfKind[K], other: ItemOfKind[K]): boolean {
  return specOf(kind).alike(item, other);
}
