import { inject } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogRef, type MatDialogConfig } from '@angular/material/dialog';

/** What dialogs share: what they are opened with, and the way to close them with an answer. */
export abstract class Dialog<D = undefined, R = undefined> {
  readonly data = inject<D>(MAT_DIALOG_DATA);
  readonly dialog = inject<MatDialogRef<unknown, R>>(MatDialogRef);
}

/** A component of a dialog, which knows its own size. */
export type DialogType<D, R> = (new () => Dialog<D, R>) & {
  readonly size: Pick<MatDialogConfig, 'width' | 'maxWidth' | 'position'>;
};
