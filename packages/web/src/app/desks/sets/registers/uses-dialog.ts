import { CountedPipe } from '../../../ui/counted-pipe';
import { ChangeDetectionStrategy, Component, computed, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import type { Entry, LinkUse } from '@stravel/core';
import { Dialog } from '../../../ui/dialog';

export interface UsesData {
  readonly entries: readonly Entry[];
  readonly uses: readonly LinkUse[];
  /** Entries that may take the place of those that go. */
  readonly others: readonly Entry[];
  /** Whether the entries are to be deleted, or their uses only shown. */
  readonly deletes: boolean;
}

/** What becomes of the users of what is deleted: led to another entry, or cleared. */
export type UsesChoice = { readonly replacement: string | null };

const MAX_SHOWN = 200;

/** Where entries are used; asks what becomes of their users before they are deleted. */
@Component({
  selector: 'sv-uses-dialog',
  imports: [CountedPipe, MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ data.deletes ? 'Delete ' + names() : 'Where ' + names() + ' is used' }}</h2>
    <mat-dialog-content>
      @if (data.uses.length === 0) {
        <p class="soft">Nothing links to {{ data.entries.length === 1 ? 'it' : 'them' }}.</p>
      } @else {
        <p>{{ data.uses.length | counted: 'place links': 'places link' }} there:</p>
        <ul>
          @for (use of shown; track $index) {
            <li>
              <strong>{{ use.record.name }}</strong> <span class="soft">{{ use.field.name }}{{ use.kind === 'entry' ? ' · entry' : '' }}</span>
            </li>
          }
        </ul>
        @if (data.uses.length > shown.length) {
          <p class="soft">… and {{ data.uses.length - shown.length }} more.</p>
        }
        @if (data.deletes && data.others.length > 0) {
          <label
            >Replace with
            <select class="cell" #other aria-label="Replace with" (change)="replacement.set(other.value)">
              <option value="">choose an entry</option>
              @for (entry of data.others; track entry.id) {
                <option [value]="entry.id">{{ entry.name }}</option>
              }
            </select>
          </label>
        }
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      @if (data.deletes) {
        <button class="chip" mat-dialog-close>Cancel</button>
        @if (data.uses.length > 0) {
          <button class="chip" (click)="dialog.close({ replacement: null })">Clear the links and delete</button>
          <button class="chip strong" [disabled]="replacement() === ''" (click)="dialog.close({ replacement: replacement() })">Replace and delete</button>
        } @else {
          <button class="chip strong" (click)="dialog.close({ replacement: null })">Delete</button>
        }
      } @else {
        <button class="chip" mat-dialog-close>Close</button>
      }
    </mat-dialog-actions>
  `,
  styles: `
    mat-dialog-actions {
      gap: 8px;
    }
    li .soft {
      margin-left: 6px;
    }
    ul {
      max-height: 260px;
      overflow: auto;
      padding-left: 18px;
    }
    label {
      display: flex;
      gap: 8px;
      align-items: center;
      margin-top: 10px;
    }
  `,
})
export class UsesDialog extends Dialog<UsesData, UsesChoice> {
  static readonly size = { width: '560px' };
  readonly shown = this.data.uses.slice(0, MAX_SHOWN);
  readonly replacement = signal('');
  readonly names = computed(() =>
    this.data.entries.length === 1 ? this.data.entries[0].name : `${this.data.entries.length} entries`,
  );
}
