import { CoreError } from '../errors';
import type { EditableKind, RecordTables } from '../model/records';
import { isRecordKind, recordSpecOf } from '../records';
import type { JsonRecord } from './apply-operation';

/**
 * Checks that a collection keeps one record of itself: an archive of none, or of two, could not be read back.
 * @param after gives the small records as they would stand after the edit; asked for only when needed
 * @throws CoreError 'EDIT_COLLECTION' saying how many there would be
 */
export function checkCollectionRecord(
  touched: readonly { readonly kind: EditableKind; readonly record: JsonRecord | undefined }[],
  after: () => RecordTables,
): void {
  const single = touched.map(({ kind }) => kind).find((kind) => recordSpecOf(kind)?.isSingle);
  if (single === undefined || !isRecordKind(single)) return;
  const count = Object.keys(after()[single]).length;
  if (count === 1) return;
  throw new CoreError(
    'EDIT_COLLECTION',
    `edit: a collection has one record of itself, after this it would have ${count}; change its fields instead`,
    { count },
  );
}
