import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { recordsFeature, selectPlayNumbers } from '../document/records/records-store';
import { DESKS } from '../desk/desk';
import { findBest, findables, type Findable } from './findable';
import { Dialog } from '../ui/dialog';

const MAX_SHOWN = 12;

/** Finds anything that has a name: levels, sets, registers and their entries, fields, pieces, desks, and what can be done. */
@Component({
  selector: 'sv-find-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title class="visually-hidden">Find</h2>
    <mat-dialog-content>
      <input
        class="cell"
        #box
        cdkFocusInitial
        role="combobox"
        aria-label="Name or code"
        aria-controls="found"
        aria-expanded="true"
        autocomplete="off"
        placeholder="Level, set, entry, field, piece, desk, action"
        [attr.aria-activedescendant]="found().length ? 'found-' + at() : null"
        (input)="text.set(box.value); at.set(0)"
        (keydown)="key($event)"
      />
      <ul id="found" role="listbox" aria-label="Found">
        @for (entry of found(); track entry.kind + entry.id; let i = $index) {
          <li role="option" [id]="'found-' + i" [attr.aria-selected]="i === at()" (click)="open(entry)">
            <span class="mono soft">{{ entry.number }}</span>
            <span>{{ entry.name }}</span>
            <span class="soft">{{ entry.where }}</span>
          </li>
        }
      </ul>
      @if (found().length === 0) {
        <p class="soft">Nothing has “{{ text() }}” in its name or code.</p>
      }
    </mat-dialog-content>
  `,
  styles: `
    input {
      width: 100%;
      margin-top: 4px;
    }
    ul {
      list-style: none;
      padding: 0;
      margin: 10px 0 0;
      min-height: 60px;
    }
    li {
      display: grid;
      grid-template-columns: 34px 1fr auto;
      gap: 8px;
      padding: 5px 8px;
      cursor: pointer;
      border-left: 3px solid transparent;
    }
    li[aria-selected='true'] {
      background: var(--brine-wash);
      border-left-color: var(--brine);
    }
  `,
})
export class FindDialog extends Dialog<undefined, Findable> {
  static readonly size = { width: '560px', position: { top: '90px' } };
  private readonly desks = inject(DESKS);
  private readonly store = inject(Store);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly numbers = this.store.selectSignal(selectPlayNumbers);
  readonly text = signal('');
  readonly at = signal(0);
  private readonly all = computed(() => findables(this.tables(), this.levels(), this.numbers(), this.desks));
  readonly found = computed(() => findBest(this.all(), this.text(), MAX_SHOWN));

  key(event: KeyboardEvent): void {
    const last = this.found().length - 1;
    if (event.key === 'ArrowDown') this.at.update((i) => Math.min(last, i + 1));
    else if (event.key === 'ArrowUp') this.at.update((i) => Math.max(0, i - 1));
    else if (event.key === 'Enter') {
      const entry = this.found().at(this.at());
      if (entry) this.open(entry);
    } else return;
    event.preventDefault();
  }

  open(entry: Findable): void {
    this.dialog.close(entry);
  }
}
