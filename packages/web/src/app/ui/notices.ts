import { Injectable, Injector, inject } from '@angular/core';
import { firstValueFrom } from 'rxjs';

/** Lines that are said to the person at the bottom of the page. What draws them is loaded with the first. */
@Injectable({ providedIn: 'root' })
export class Notices {
  private readonly injector = inject(Injector);

  /** @param durationMs until it goes by itself; 0: it stays until it is closed */
  show(text: string, durationMs = 0): void {
    // Without the server nothing is drawn that was not loaded before; the state of saving says that it is gone.
    this.offer(text, 'Close', durationMs).catch(() => undefined);
  }

  /** Says something that can be answered by one button. @returns whether it was */
  async offer(text: string, action: string, durationMs: number): Promise<boolean> {
    const { MatSnackBar } = await import('@angular/material/snack-bar');
    const { dismissedByAction } = await firstValueFrom(
      this.injector.get(MatSnackBar).open(text, action, { duration: durationMs }).afterDismissed(),
    );
    return dismissedByAction;
  }
}
