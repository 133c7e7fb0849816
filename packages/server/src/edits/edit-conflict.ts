import type { Conflict } from '@stravel/core';

/** An edit whose old values no longer hold. */
export class EditConflict extends Error {
  constructor(readonly conflicts: readonly Conflict[]) {
    super(
      `edit: ${conflicts.length} value${conflicts.length === 1 ? ' is' : 's are'} no longer what the edit took them to be`,
    );
  }
}
