import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Session } from '../session';

/** Asked at the first visit: the name under which edits are kept. */
@Component({
  selector: 'sv-person-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form (submit)="save($event)">
      <h2 mat-dialog-title>Who is drafting?</h2>
      <mat-dialog-content>
        <p>Your changes, their history and your undo are kept under this name.</p>
        <label>Name <input class="cell" #name maxlength="60" required autocomplete="name" cdkFocusInitial (input)="name_.set(name.value)" /></label>
        @if (error()) {
          <p class="over" role="alert">{{ error() }}</p>
        }
      </mat-dialog-content>
      <mat-dialog-actions>
        <button class="chip strong" type="submit" [disabled]="name_().trim() === ''">Start</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    label {
      display: flex;
      gap: 10px;
      align-items: center;
      margin-top: 14px;
    }
    input {
      flex: 1;
    }
  `,
})
export class PersonDialog {
  private readonly session = inject(Session);
  private readonly dialog = inject(MatDialogRef<PersonDialog>);
  readonly name_ = signal('');
  readonly error = signal('');

  async save(event: Event): Promise<void> {
    event.preventDefault();
    try {
      await this.session.introduce(this.name_().trim());
      this.dialog.close();
    } catch (error) {
      this.error.set(error instanceof Error ? error.message : String(error));
    }
  }
}
