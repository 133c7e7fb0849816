import { counted } from '@stravel/core';
import type { Conflict } from '@stravel/core';

/** An edit whose old values no longer hold. */
export class EditConflict extends Error {
  constructor(readonly conflicts: readonly Conflict[]) {
    super(`edit: ${counted(conflicts.length, 'value is', 'values are')} no longer what the edit took them to be`);
  }
}
