import { Injectable, signal } from '@angular/core';
import { MODEL_VERSION } from '@stravel/core';

/** What browsers say when a script of the page is no longer there. */
const MISSING_SCRIPT =
  /dynamically imported module|Importing a module script failed|error loading dynamically imported module/i;

/** Knows whether this page is older than its server: then it must not go on, and keeps what it has until it is loaded anew. */
@Injectable({ providedIn: 'root' })
export class PageAge {
  private readonly old = signal(false);
  /** Whether the server is newer, or a script of the page is gone. */
  readonly isOld = this.old.asReadonly();

  /** Hears the model version of an answer, an event or something kept; null where nothing is said. */
  hear(version: string | number | null | undefined): void {
    if (Number(version ?? 0) > MODEL_VERSION) this.old.set(true);
  }

  /** Hears an error: that of a script that is gone makes the page old. */
  hearError(error: unknown): void {
    if (error instanceof Error && MISSING_SCRIPT.test(error.message)) this.old.set(true);
  }
}
