import { Injectable, inject, signal } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Router } from '@angular/router';
import { ApiClient } from '../api/api-client';
import { Session } from '../session';

/** Reads archives back as new collections. */
@Injectable({ providedIn: 'root' })
export class Restoring {
  private readonly api = inject(ApiClient);
  private readonly router = inject(Router);
  private readonly session = inject(Session);
  private readonly snacks = inject(MatSnackBar);
  readonly isBusy = signal(false);

  async restore(file: File | undefined): Promise<void> {
    if (!file || this.isBusy()) return;
    this.isBusy.set(true);
    try {
      const made = await this.api.restore(file);
      await this.session.refreshCollections();
      this.snacks.open(`${made.name} was restored as a new collection.`, 'Close', { duration: 6000 });
      await this.router.navigate(['/']);
    } catch (error) {
      this.snacks.open(`${file.name} was not restored. ${error instanceof Error ? error.message : String(error)}`, 'Close');
    } finally {
      this.isBusy.set(false);
    }
  }
}
