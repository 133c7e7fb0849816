import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Store } from '@ngrx/store';
import { recordsFeature, selectPlayNumbers } from '../document/records/records-store';
import { matchQuality } from './match-quality';

const MOST_SHOWN = 12;

/** Opens any level by part of its name. */
@Component({
  selector: 'sv-find-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title class="visually-hidden">Find a level</h2>
    <mat-dialog-content>
      <input
        class="cell"
        #box
        cdkFocusInitial
        role="combobox"
        aria-label="Level name or code"
        aria-controls="found-levels"
        aria-expanded="true"
        autocomplete="off"
        placeholder="Name or code of a level"
        [attr.aria-activedescendant]="found().length ? 'found-' + at() : null"
        (input)="text.set(box.value); at.set(0)"
        (keydown)="key($event)"
      />
      <ul id="found-levels" role="listbox" aria-label="Levels">
        @for (entry of found(); track entry.level.id; let i = $index) {
          <li role="option" [id]="'found-' + i" [attr.aria-selected]="i === at()" (click)="open(entry.level.id)">
            <span class="mono soft">{{ entry.number }}</span>
            <span>{{ entry.level.name }}</span>
            <span class="soft">{{ entry.set }}</span>
          </li>
        }
      </ul>
      @if (found().length === 0) {
        <p class="soft">No level has “{{ text() }}” in its name or code.</p>
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
export class FindDialog {
  private readonly dialog = inject<MatDialogRef<FindDialog, string>>(MatDialogRef);
  private readonly store = inject(Store);
  private readonly levels = this.store.selectSignal(recordsFeature.selectLevels);
  private readonly tables = this.store.selectSignal(recordsFeature.selectTables);
  private readonly numbers = this.store.selectSignal(selectPlayNumbers);
  readonly text = signal('');
  readonly at = signal(0);
  readonly found = computed(() => {
    const wanted = this.text().trim().toLowerCase();
    return this.levels()
      .map((level) => ({ level, quality: Math.max(matchQuality(level.name.toLowerCase(), wanted), wanted !== '' && level.code.toLowerCase() === wanted ? 3 : 0) }))
      .filter(({ quality }) => quality > 0)
      .sort((a, b) => b.quality - a.quality)
      .slice(0, MOST_SHOWN)
      .map(({ level }) => ({ level, number: this.numbers().get(level.id) ?? '·', set: this.tables().set[level.set]?.name ?? '' }));
  });

  key(event: KeyboardEvent): void {
    const last = this.found().length - 1;
    if (event.key === 'ArrowDown') this.at.update((i) => Math.min(last, i + 1));
    else if (event.key === 'ArrowUp') this.at.update((i) => Math.max(0, i - 1));
    else if (event.key === 'Enter') {
      const entry = this.found().at(this.at());
      if (entry) this.open(entry.level.id);
    } else return;
    event.preventDefault();
  }

  open(id: string): void {
    this.dialog.close(id);
  }
}
