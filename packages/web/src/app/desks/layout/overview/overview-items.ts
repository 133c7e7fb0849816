import { PLACED_KINDS, anchorOf, anyItem, groupChain, groupOf, type ItemKind, type AnyItem } from '@stravel/core';
import type { StratumDocument } from '../../../document/stratum-document';
import type { ItemRef } from '../store/layout-store';
import type { OverviewSort } from './overview-sheet';

const CATEGORY = 'category ';
const KIND = 'kind ';

/** A thing that is looked at, with its place on the plan. */
export interface OverviewItem {
  readonly ref: ItemRef;
  readonly x: number;
  readonly z: number;
}

/** Everything with a place, with the keys of the sorts that it belongs to. */
function* placedItems(
  strata: readonly StratumDocument[],
): Generator<{ readonly stratum: string; readonly placed: AnyItem; readonly keys: readonly string[] }> {
  for (const document of strata) {
    for (const kind of PLACED_KINDS) {
      for (const item of document.itemsOf(kind)) {
        const placed = anyItem<ItemKind>(kind, item);
        const chain = groupChain(document.tables.group, groupOf<ItemKind>(placed)).flatMap(
          (id) => document.tables.group.get(id) ?? [],
        );
        if (chain.some(({ aside }) => aside !== null)) continue;
        const keys = [
          KIND + kind,
          ...new Set(chain.flatMap(({ category }) => (category ? [CATEGORY + category] : []))),
        ];
        yield { stratum: document.id, placed, keys };
      }
    }
  }
}

/** Categories and kinds of what stands in some strata, counted; what is set aside is left out. */
export function overviewSorts(strata: readonly StratumDocument[]): {
  readonly categories: OverviewSort[];
  readonly kinds: OverviewSort[];
} {
  const counts = new Map<string, number>();
  for (const { keys } of placedItems(strata)) for (const key of keys) counts.set(key, (counts.get(key) ?? 0) + 1);
  const of = (prefix: string): OverviewSort[] =>
    [...counts]
      .filter(([key]) => key.startsWith(prefix))
      .map(([key, count]) => ({ key, name: key.slice(prefix.length), count }))
      .sort((a, b) => b.count - a.count || (a.name < b.name ? -1 : 1));
  return { categories: of(CATEGORY), kinds: of(KIND) };
}

/** What belongs to any of some sorts, each once. */
export function itemsOfSorts(strata: readonly StratumDocument[], sorts: ReadonlySet<string>): OverviewItem[] {
  const found: OverviewItem[] = [];
  for (const { stratum, placed, keys } of placedItems(strata)) {
    if (!keys.some((key) => sorts.has(key))) continue;
    const place = anchorOf(placed);
    if (!place) continue;
    const [x, , z] = place;
    found.push({ ref: { stratum, kind: placed.kind, id: placed.item.id }, x, z });
  }
  return found;
}

/** Where on the plan a region lies, in words: north is up. */
export function placeWords(
  low: readonly [number, number],
  high: readonly [number, number],
  all: { readonly low: readonly [number, number]; readonly high: readonly [number, number] },
): string {
  const third = (k: 0 | 1): number => {
    const share = ((low[k] + high[k]) / 2 - all.low[k]) / Math.max(1e-9, all.high[k] - all.low[k]);
    return share < 1 / 3 ? 0 : share < 2 / 3 ? 1 : 2;
  };
  const words = [['north', '', 'south'][third(1)], ['west', '', 'east'][third(0)]].filter(Boolean).join('-');
  return words || 'middle';
}
