import { DestroyRef, Injectable, Injector, inject } from '@angular/core';
import type { MatDialogConfig } from '@angular/material/dialog';
import { firstValueFrom } from 'rxjs';
import type { DialogType } from './dialog';
import { Notices } from './notices';
import { OpenDialogs } from './open-dialogs';

type OpenedOtherwise = Pick<MatDialogConfig, 'disableClose' | 'restoreFocus'>;

/** Opens dialogs, with the services of the page that provides it. What draws them is loaded with the first. */
@Injectable({ providedIn: 'root' })
export class Dialogs {
  private readonly injector = inject(Injector);
  private readonly notices = inject(Notices);
  private readonly opened = inject(OpenDialogs);
  private isLeft = false;

  constructor() {
    inject(DestroyRef).onDestroy(() => (this.isLeft = true));
  }

  /** @returns what was answered; undefined when the person left it */
  open<D, R>(type: DialogType<D, R>, data: D, over: OpenedOtherwise = {}): Promise<R | undefined> {
    return this.bring(() => Promise.resolve(type), data, over);
  }

  /** Opens a dialog whose code is loaded when it is asked for. @returns undefined too where it could not be loaded, which is said */
  async bring<D, R>(
    load: () => Promise<DialogType<D, R>>,
    data: NoInfer<D>,
    over: OpenedOtherwise = {},
  ): Promise<R | undefined> {
    this.opened.count++;
    try {
      const loaded = await Promise.all([load(), import('@angular/material/dialog')]).catch(() => undefined);
      if (!loaded) {
        this.notices.show('This could not be loaded. Try again once the server answers.', 8000);
        return undefined;
      }
      // The page was left while it came.
      if (this.isLeft) return undefined;
      const [type, { MatDialog }] = loaded;
      const { injector } = this;
      const config = { ...type.size, ...over, data, injector };
      return await firstValueFrom(injector.get(MatDialog).open<unknown, D, R>(type, config).afterClosed());
    } finally {
      this.opened.count--;
    }
  }
}
