import { counted } from '../counted';
import { CoreError } from '../errors';
import { isItemKind, kindsWith, overIdsOf } from '../items';
import type { IdTarget } from '../items/ids';
import type { ItemKind } from '../model/items';
import type { JsonRecord } from './apply-operation';
import type { DocumentState, EditTrial } from './document-state';

const PIECE: IdTarget = 'piece';

/** Ids of the pieces that an edit takes away. */
export function removedPieces({ touched }: Pick<EditTrial, 'touched'>): ReadonlySet<string> {
  return new Set(touched.flatMap(({ kind, id, record }) => (kind === PIECE && record === undefined ? [id] : [])));
}

/**
 * Checks that no placement is left without its piece, nor one that a single level has or has otherwise.
 * @param strata each stratum that stands after the edit, with its name and its content before the edit
 * @throws CoreError 'EDIT_REFERENCE' naming the piece, where it stands and how often
 */
export function checkPieceRemovals(
  trial: Pick<EditTrial, 'touched'>,
  strata: Iterable<{ readonly id: string; readonly name: string; readonly state: DocumentState }>,
): void {
  const removed = removedPieces(trial);
  if (removed.size === 0) return;
  const changed = new Map<string, EditTrial['touched'][number]>(
    trial.touched.map((one) => [`${one.document}\u0000${one.kind}\u0000${one.id}`, one]),
  );
  for (const { id: stratum, name, state } of strata) {
    const uses = new Map<string, number>();
    const count = (kind: ItemKind, item: JsonRecord): void =>
      void overIdsOf(kind, item, (piece, { to }) => {
        if (to === PIECE && removed.has(piece)) uses.set(piece, (uses.get(piece) ?? 0) + 1);
        return piece;
      });
    for (const kind of kindsWith('pieces')) {
      for (const [id, item] of state.get(kind) ?? []) {
        if (!changed.has(`${stratum}\u0000${kind}\u0000${id}`)) count(kind, item);
      }
    }
    for (const { document, kind, record } of changed.values()) {
      if (document === stratum && record && isItemKind(kind)) count(kind, record);
    }
    const [first] = uses;
    if (!first) continue;
    const [piece, times] = first;
    throw new CoreError(
      'EDIT_REFERENCE',
      `edit: piece ${piece} cannot be removed, ${counted(times, 'placement')} in the stratum ${name} still use${times === 1 ? 's' : ''} it`,
      { kind: 'piece', id: piece, users: [{ kind: 'stratum', id: stratum, name: `the stratum ${name}` }] },
    );
  }
}
