import { CoreError } from '../errors';
import type { EditableKind, RecordKind, RecordTables } from '../model/records';
import type { JsonRecord } from '../document/apply-operation';
import { isRecordKind } from '../records';
import { usersOfAll } from './record-users';

interface Touched {
  readonly kind: EditableKind;
  readonly id: string;
  readonly record: JsonRecord | undefined;
}

/** So many users are named; the rest is counted. */
const NAMED = 3;

/**
 * Checks that an edit removes nothing from under what still uses it.
 * @param after gives the small records as they would stand after the edit; asked for only when needed
 * @throws CoreError 'EDIT_REFERENCE' naming what is used and by whom; `users` in its details has them all
 */
export function checkRemovals(touched: readonly Touched[], after: () => RecordTables): void {
  const removed = touched.filter(
    (one): one is Touched & { readonly kind: RecordKind } => one.record === undefined && isRecordKind(one.kind),
  );
  if (removed.length === 0) return;
  const found = usersOfAll(after(), removed);
  for (const [i, { kind, id }] of removed.entries()) {
    const users = found[i];
    if (users.length === 0) continue;
    const more = users.length > NAMED ? ` and ${users.length - NAMED} more` : '';
    throw new CoreError(
      'EDIT_REFERENCE',
      `edit: ${kind} ${id} cannot be removed, ${users
        .slice(0, NAMED)
        .map(({ name }) => name)
        .join(', ')}${more} still use${users.length === 1 ? 's' : ''} it`,
      { kind, id, users: users.map((user) => ({ ...user })) },
    );
  }
}
