import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';

/** Asks for the reason why a group is set aside. */
@Component({
  selector: 'sv-set-aside-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Set {{ data.name }} aside</h2>
    <mat-dialog-content>
      <p>It is kept, but no longer part of the level: no bake, budget or pack counts it.</p>
      <input
        #box
        class="cell"
        aria-label="Reason"
        placeholder="Reason"
        maxlength="2000"
        cdkFocusInitial
        [value]="reason()"
        (input)="reason.set(box.value)"
        (keydown.enter)="agree()"
      />
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip strong" [disabled]="!reason().trim()" (click)="agree()">Set aside</button>
    </mat-dialog-actions>
  `,
  styles: `
    input {
      width: 100%;
      margin-top: 10px;
    }
  `,
})
export class SetAsideDialog {
  readonly data = inject<{ readonly name: string }>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<SetAsideDialog, string>>(MatDialogRef);
  readonly reason = signal('');

  agree(): void {
    if (this.reason().trim()) this.dialog.close(this.reason().trim());
  }
}
