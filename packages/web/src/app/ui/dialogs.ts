import { Injectable, Injector, inject } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialog, MatDialogRef, type MatDialogConfig } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
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

type OpenedOtherwise = Pick<MatDialogConfig, 'disableClose' | 'restoreFocus'>;

/** Opens dialogs, with the services of the page that provides it. */
@Injectable({ providedIn: 'root' })
export class Dialogs {
  private readonly dialogs = inject(MatDialog);
  private readonly injector = inject(Injector);
  private readonly snacks = inject(MatSnackBar);

  /** @returns what was answered; undefined when the person left it */
  open<D, R>(type: DialogType<D, R>, data: D, over: OpenedOtherwise = {}): Promise<R | undefined> {
    const { injector } = this;
    return firstValueFrom(
      this.dialogs.open<unknown, D, R>(type, { ...type.size, ...over, data, injector }).afterClosed(),
    );
  }

  /** Opens a dialog whose code is loaded when it is asked for. @returns undefined too where it could not be loaded, which is said */
  async bring<D, R>(
    load: () => Promise<DialogType<D, R>>,
    data: NoInfer<D>,
    over: OpenedOtherwise = {},
  ): Promise<R | undefined> {
    let type: DialogType<D, R>;
    try {
      type = await load();
    } catch {
      this.snacks.open('This could not be loaded. Try again once the server answers.', 'Close', { duration: 8000 });
      return undefined;
    }
    return this.open(type, data, over);
  }
}
