import { CoreError } from '../errors';
import type { EachId } from '../items/ids';
import { isItemKind, overIdsOf } from '../items';
import type { EditableKind } from '../model/records';
import { isRecordKind, overRecordIds } from '../records';
import type { JsonRecord } from './apply-operation';

interface Touched {
  readonly document: string;
  readonly kind: EditableKind;
  readonly id: string;
  readonly record: JsonRecord | undefined;
}

/**
 * Checks that what an edit leaves behind points at things that are there.
 * @param find gives a small record as it would stand after the edit
 * @throws CoreError 'EDIT_REFERENCE' naming who points at what
 */
export function checkEditReferences(
  touched: readonly Touched[],
  find: (kind: EditableKind, id: string) => JsonRecord | undefined,
): void {
  for (const { document, kind, id, record } of touched) {
    if (!record) continue;
    const need = (to: EditableKind, one: string): void => {
      if (find(to, one)) return;
      const message = `edit: ${kind} ${id} points at the ${to} ${one}, which does not exist`;
      throw new CoreError('EDIT_REFERENCE', message, { kind: to, id: one });
    };
    const each: EachId = (one, { to, isStrict }) => {
      if (isStrict && to !== 'item') need(to, one);
      return one;
    };
    if (isItemKind(kind)) {
      need('stratum', document);
      overIdsOf(kind, record, each);
    } else if (isRecordKind(kind)) {
      overRecordIds(kind, record, each);
      checkNesting(kind, id, record, find);
    }
  }
}

/** Nothing may stand inside itself. */
function checkNesting(
  kind: EditableKind,
  id: string,
  record: JsonRecord,
  find: (kind: EditableKind, id: string) => JsonRecord | undefined,
): void {
  const seen = new Set([id]);
  for (let parent = record['parent']; typeof parent === 'string'; parent = find(kind, parent)?.['parent'] ?? null) {
    if (seen.has(parent)) {
      throw new CoreError('EDIT_REFERENCE', `edit: ${kind} ${id} would contain itself`, { kind, id });
    }
    seen.add(parent);
  }
}
