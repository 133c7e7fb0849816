import { ChangeDetectionStrategy, Component, computed, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { Dialog } from '../../../ui/dialog';

export interface ContextData {
  readonly levels: readonly { readonly id: string; readonly name: string }[];
  readonly chosen: readonly string[];
}

/** Chooses levels that are shown faintly beside the open one. */
@Component({
  selector: 'sv-context-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Show other levels faintly</h2>
    <mat-dialog-content>
      <p class="soft">At their own coordinates, for you only. They can be checked for overlaps with this level.</p>
      <input #find class="cell wide" aria-label="Find a level" placeholder="Find a level" cdkFocusInitial [value]="text()" (input)="text.set(find.value)" />
      <ul tabindex="0" role="group" aria-label="Levels">
        @for (level of shown(); track level.id) {
          <li>
            <label><input type="checkbox" [checked]="chosen().has(level.id)" (change)="toggle(level.id)" /> {{ level.name }}</label>
          </li>
        }
      </ul>
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip strong" (click)="dialog.close([...chosen()])">Show {{ chosen().size || 'none' }}</button>
    </mat-dialog-actions>
  `,
  styleUrl: '../../../ui/choice-list.scss',
  styles: 'ul { height: 280px; }',
})
export class ContextDialog extends Dialog<ContextData, readonly string[]> {
  static readonly size = { width: '420px' };
  readonly text = signal('');
  readonly chosen = signal<ReadonlySet<string>>(new Set(this.data.chosen));
  readonly shown = computed(() =>
    this.data.levels.filter(({ name }) => name.toLowerCase().includes(this.text().trim().toLowerCase())),
  );

  toggle(id: string): void {
    this.chosen.update((chosen) => {
      const next = new Set(chosen);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }
}
