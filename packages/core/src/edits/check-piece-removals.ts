import { CoreError } from '../errors';
import type { JsonRecord } from './apply-operation';
import type { DocumentState, EditTrial } from './document-state';

/** Ids of the pieces that an edit takes away. */
export function removedPieces({ touched }: Pick<EditTrial, 'touched'>): ReadonlySet<string> {
  return new Set(touched.flatMap(({ kind, id, record }) => (kind === 'piece' && record === undefined ? [id] : [])));
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
  const changed = new Map(
    trial.touched.flatMap(({ document, kind, id, record }) =>
      kind === 'placement' || kind === 'patch' ? [[`${document}\u0000${kind}\u0000${id}`, record] as const] : [],
    ),
  );
  for (const { id: stratum, name, state } of strata) {
    const uses = new Map<string, number>();
    const count = (placement: JsonRecord | undefined): void => {
      const piece =
        placement?.['piece'] ??
        (placement?.['kind'] === 'placement' ? (placement['fields'] as JsonRecord)['piece'] : undefined);
      if (typeof piece === 'string' && removed.has(piece)) uses.set(piece, (uses.get(piece) ?? 0) + 1);
    };
    for (const kind of ['placement', 'patch'] as const) {
      for (const [id, placement] of state.get(kind) ?? [])
        if (!changed.has(`${stratum}\u0000${kind}\u0000${id}`)) count(placement);
    }
    for (const [key, placement] of changed) if (key.startsWith(`${stratum}\u0000`)) count(placement);
    const [first] = uses;
    if (!first) continue;
    const [piece, times] = first;
    throw new CoreError(
      'EDIT_REFERENCE',
      `edit: piece ${piece} cannot be removed, ${times} ${times === 1 ? 'placement' : 'placements'} in the stratum ${name} still use${times === 1 ? 's' : ''} it`,
      { kind: 'piece', id: piece, users: [{ kind: 'stratum', id: stratum, name: `the stratum ${name}` }] },
    );
  }
}
