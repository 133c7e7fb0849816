import type { Group } from '../../model/group';
import type { Box3 } from '../../model/vector';
import type { Item, ItemKind } from '../../model/stratum';
import { groupChain } from '../groups';

/** What things are looked for; an absent part asks nothing. */
export interface SelectionQuery {
  /** Part of the name, of a block, volume, path or piece. */
  readonly name?: string;
  readonly kind?: ItemKind;
  readonly piece?: string;
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
export interface SelectionFacts {
  readonly kind: ItemKind;
  readonly item: Item;
  /** Name of the piece of a placement. */
  readonly pieceName: string;
  readonly bounds: Box3 | undefined;
  readonly groups: ReadonlyMap<string, Group>;
}

/** Whether a thing is what is looked for; text without regard to case. */
export function matchesSelection(
  query: SelectionQuery,
  { kind, item, pieceName, bounds, groups }: SelectionFacts,
): boolean {
  const has = (text: string, part: string | undefined): boolean =>
    part === undefined || part === '' || text.toLowerCase().includes(part.toLowerCase());
  const chain = 'group' in item ? groupChain(groups, item.group).flatMap((id) => groups.get(id) ?? []) : [];
  const asks = (part: string | undefined): part is string => part !== undefined && part !== '';
  if (query.kind !== undefined && query.kind !== kind) return false;
  if (asks(query.piece) && !('piece' in item && item.piece === query.piece)) return false;
  if (!has('name' in item ? item.name : kind === 'marker' && 'kind' in item ? item.kind : pieceName, query.name))
    return false;
  if (asks(query.group) && !chain.some(({ name }) => has(name, query.group))) return false;
  if (asks(query.category) && !chain.some(({ category }) => has(category, query.category))) return false;
  if (asks(query.tag) && !('knots' in item && item.knots.some(({ tags }) => tags.some((tag) => has(tag, query.tag)))))
    return false;
  if (
    asks(query.value) &&
    !(
      'values' in item &&
      Object.values(item.values ?? {}).some((value) =>
        has(Array.isArray(value) ? value.join(' ') : String(value), query.value),
      )
    )
  )
    return false;
  if (query.leastMetres === undefined && query.mostMetres === undefined && query.within === undefined) return true;
  if (!bounds) return false;
  const longest = Math.max(...bounds.max.map((value, k) => value - bounds.min[k]));
  if (longest < (query.leastMetres ?? 0) || longest > (query.mostMetres ?? Infinity)) return false;
  const { within } = query;
  return !within || bounds.min.every((value, k) => value >= within.min[k] && bounds.max[k] <= within.max[k]);
}

/** What makes things similar to one: its kind, and its piece, its material or its kind of marker or volume. */
export function isSimilar(kind: ItemKind, item: Item, other: Item): boolean {
  if (kind === 'placement') return 'piece' in item && 'piece' in other && item.piece === other.piece;
  if (kind === 'block')
    return (
      'material' in item &&
      'material' in other &&
      item.material === other.material &&
      'sight' in item &&
      'sight' in other &&
      item.sight === other.sight
    );
  if (kind === 'marker' || kind === 'volume') return 'kind' in item && 'kind' in other && item.kind === other.kind;
  return true;
}
