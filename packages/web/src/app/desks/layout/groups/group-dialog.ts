import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { GROUP_COLOURS, type Group } from '@stravel/core';

export interface GroupDialogData {
  readonly title: string;
  readonly group: Pick<Group, 'name' | 'category' | 'colour' | 'guard'>;
  /** Categories in use in the collection's open level. */
  readonly categories: readonly string[];
}
export type GroupDialogResult = GroupDialogData['group'];

/** Name, category, colour and guard of a group. */
@Component({
  selector: 'sv-group-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ data.title }}</h2>
    <mat-dialog-content>
      <label>Name <input #box class="cell" maxlength="200" cdkFocusInitial [value]="group().name" (input)="change('name', box.value)" (keydown.enter)="agree()" /></label>
      <label>Category <input #category class="cell" maxlength="200" list="group-categories" [value]="group().category" (input)="change('category', category.value)" /></label>
      <datalist id="group-categories">
        @for (one of data.categories; track one) {
          <option [value]="one"></option>
        }
      </datalist>
      <label
        >Colour
        <select #colour class="cell" (change)="change('colour', colour.value)">
          @for (one of colours; track one) {
            <option [selected]="one === group().colour">{{ one }}</option>
          }
        </select>
      </label>
      <label
        >Guard
        <textarea
          #guard
          class="cell"
          rows="2"
          maxlength="2000"
          placeholder="Why it must not be deleted by accident"
          [value]="group().guard"
          (input)="change('guard', guard.value)"
        ></textarea>
      </label>
      <p class="soft">With a guard, deleting the group or anything in it asks first, and says why.</p>
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip strong" [disabled]="!group().name.trim()" (click)="agree()">Keep</button>
    </mat-dialog-actions>
  `,
  styles: `
    label {
      display: grid;
      grid-template-columns: 76px minmax(0, 1fr);
      align-items: center;
      margin: 6px 0;
    }
  `,
})
export class GroupDialog {
  readonly data = inject<GroupDialogData>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<GroupDialog, GroupDialogResult>>(MatDialogRef);
  readonly colours = GROUP_COLOURS;
  readonly group = signal<GroupDialogResult>({ name: this.data.group.name, category: this.data.group.category, colour: this.data.group.colour, guard: this.data.group.guard });

  change(field: keyof GroupDialogResult, value: string): void {
    this.group.update((group) => ({ ...group, [field]: value }));
  }

  agree(): void {
    const group = this.group();
    if (group.name.trim()) this.dialog.close({ ...group, name: group.name.trim(), category: group.category.trim(), guard: group.guard.trim() });
  }
}
