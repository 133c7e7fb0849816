import { Injectable, Injector, inject } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialog, MatDialogRef, type MatDialogConfig } from '@angular/material/dialog';
import { firstValueFrom } from 'rxjs';

/** What dialogs share: what they are opened with, and the way to close them with an answer. */
export abstract class Dialog<D = undefined, R = undefined> {
  readonly data = inject<D>(MAT_DIALOG_DATA);
  readonly dialog = inject<MatDialogRef<unknown, R>>(MatDialogRef);
}

/** A component of a dialog, which knows its own size. */
export type DialogType<D, R> = (new () => Dialog<D, R>) & {
  readonly size: Pick<MatDialogConfig, 'width' | 'maxWidth' | 'position'>;
};

/** Opens dialogs, with the services of the page that provides it. */
@Injectable({ providedIn: 'root' })
export class Dialogs {
  private readonly dialogs = inject(MatDialog);
  private readonly injector = inject(Injector);

  /** @returns what was answered; undefined when the person left it */
  open<D, R>(
    type: DialogType<D, R>,
    data: D,
    over: Pick<MatDialogConfig, 'disableClose' | 'restoreFocus'> = {},
  ): Promise<R | undefined> {
    const { injector } = this;
    return firstValueFrom(
      this.dialogs.open<unknown, D, R>(type, { ...type.size, ...over, data, injector }).afterClosed(),
    );
  }
}
