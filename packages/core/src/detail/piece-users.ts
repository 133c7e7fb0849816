import type { Operation } from '../document/operation';
import { kindsWith, overIdsOf } from '../items';
import { plainJson, plainRecord } from '../json/plain-json';
import type { Item, ItemKind, StratumContent } from '../model/items';

/** How often some content uses a piece. */
export interface PieceUses {
  readonly placements: number;
  /** What single levels, and uses of assemblies, have instead of a placement of theirs. */
  readonly changes: number;
}

/** How often a stratum's content uses a piece. */
export function usesOfPiece(content: StratumContent, piece: string): PieceUses {
  let [placements, changes] = [0, 0];
  for (const { isOwn } of usersIn(content, piece, '')) {
    if (isOwn) placements++;
    else changes++;
  }
  return { placements, changes };
}

/**
 * What lets another piece stand wherever a stratum has one, or nothing.
 * @param other id of that piece; null takes the placements away, and leaves what single levels have instead of them
 */
export function placeInstead(
  document: string,
  content: StratumContent,
  piece: string,
  other: string | null,
): Operation[] {
  const operations: Operation[] = [];
  for (const { kind, before, after, isOwn } of usersIn(content, piece, other ?? '')) {
    const { id } = before;
    if (other === null) {
      if (isOwn) operations.push({ document, kind, id, field: null, before: plainJson<Item>(before), after: null });
      continue;
    }
    const [was, is] = [plainRecord<Item>(before), plainRecord<Item>(after)];
    for (const field of Object.keys(is)) {
      if (was[field] !== is[field])
        operations.push({ document, kind, id, field, before: was[field], after: is[field] });
    }
  }
  return operations;
}

interface User {
  readonly kind: ItemKind;
  readonly before: Item;
  /** As it would be with another piece. */
  readonly after: Item;
  /** Whether it stands as the piece itself: a placement. */
  readonly isOwn: boolean;
}

function* usersIn(content: StratumContent, piece: string, other: string): Generator<User> {
  for (const kind of kindsWith('pieces')) {
    for (const before of content[kind]) {
      let isOwn = false;
      const after = overIdsOf<Item>(kind, before, (id, { to, field }) => {
        if (to !== 'piece' || id !== piece) return id;
        isOwn ||= field === to;
        return other;
      });
      if (after !== before) yield { kind, before, after, isOwn };
    }
  }
}
