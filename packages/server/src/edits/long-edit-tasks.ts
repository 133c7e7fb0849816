import { checkedEdit, editOfLines, recordFaults, type Edit } from '@stravel/core';
import { jsonOfBytes, textOfBytes } from '../http/json-of-bytes';

/** An edit as it comes in. */
export interface EditBytes {
  readonly bytes: Uint8Array;
  readonly isLines: boolean;
}

/** An edit as a thread has read and checked it. */
interface ReadEdit {
  readonly edit: Edit;
  /** Whether each operation puts a whole record that is sound by itself: 1 for yes. */
  readonly sound: Uint8Array;
}

/** What threads do with edits that come in long. */
export const LONG_EDIT_TASKS = {
  'read-edit': ({ bytes, isLines }: EditBytes): ReadEdit => {
    const edit = checkedEdit(isLines ? editOfLines(textOfBytes(bytes)) : jsonOfBytes(bytes));
    const sound = Uint8Array.from(edit.operations, ({ kind, id, field, after }) =>
      field === null &&
      after !== null &&
      (after as { id?: unknown }).id === id &&
      recordFaults(kind, after).length === 0
        ? 1
        : 0,
    );
    return { edit, sound };
  },
} as const;
