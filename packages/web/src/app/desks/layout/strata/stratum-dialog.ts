import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { STRATUM_ROLES, type StratumRole } from '@stravel/core';

export interface StratumDialogData {
  readonly title: string;
  readonly name: string;
  readonly role: StratumRole;
  /** How far the change reaches; '' for one level. */
  readonly reach: string;
}
export type StratumDialogResult = Pick<StratumDialogData, 'name' | 'role'>;

/** Name and role of a stratum. */
@Component({
  selector: 'sv-stratum-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ data.title }}</h2>
    <mat-dialog-content>
      <label>Name <input #box class="cell" maxlength="200" cdkFocusInitial [value]="name()" (input)="name.set(box.value)" (keydown.enter)="agree()" /></label>
      <label
        >Role
        <select #kind class="cell" (change)="role.set($any(kind.value))">
          @for (one of roles; track one) {
            <option [selected]="one === role()">{{ one }}</option>
          }
        </select>
      </label>
      @if (data.reach) {
        <p class="soft">{{ data.reach }}</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close>Cancel</button>
      <button class="chip strong" [disabled]="!name().trim()" (click)="agree()">Keep</button>
    </mat-dialog-actions>
  `,
  styles: `
    label {
      display: grid;
      grid-template-columns: 60px minmax(0, 1fr);
      align-items: center;
      margin: 6px 0;
    }
  `,
})
export class StratumDialog {
  readonly data = inject<StratumDialogData>(MAT_DIALOG_DATA);
  private readonly dialog = inject<MatDialogRef<StratumDialog, StratumDialogResult>>(MatDialogRef);
  readonly roles = STRATUM_ROLES;
  readonly name = signal(this.data.name);
  readonly role = signal(this.data.role);

  agree(): void {
    if (this.name().trim()) this.dialog.close({ name: this.name().trim(), role: this.role() });
  }
}
