import { errorText } from '@stravel/core';
import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { Session } from '../session';
import { Dialog } from '../ui/dialog';

/** Whether a name is given for the first time, or changed. */
export type PersonDialogMode = 'first' | 'change';

/** Asks for the name under which edits are kept. */
@Component({
  selector: 'sv-person-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form (submit)="save($event, box.value)">
      <h2 mat-dialog-title>{{ data === 'first' ? 'Your name' : 'Change name' }}</h2>
      <mat-dialog-content>
        <p>{{ data === 'first' ? 'Your changes, history and undo are kept under it. You can change it later.' : 'Your changes, history and undo stay yours.' }}</p>
        <label>Name <input class="cell" #box maxlength="60" required autocomplete="name" cdkFocusInitial [value]="name()" (input)="name.set(box.value)" /></label>
        @if (error()) {
          <p class="over" role="alert">{{ error() }}</p>
        }
      </mat-dialog-content>
      <mat-dialog-actions>
        @if (data === 'change') {
          <button class="chip" type="button" mat-dialog-close>Cancel</button>
        }
        <button class="chip strong" type="submit" [disabled]="name().trim() === ''">{{ data === 'first' ? 'Continue' : 'Change name' }}</button>
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
export class PersonDialog extends Dialog<PersonDialogMode, string> {
  static readonly size = { width: '420px' };
  private readonly session = inject(Session);
  private readonly before = this.data === 'change' ? (this.session.person()?.name ?? '') : '';
  readonly name = signal(this.before);
  readonly error = signal('');

  async save(event: Event, typed: string): Promise<void> {
    event.preventDefault();
    const name = typed.trim();
    if (name === '') return;
    try {
      if (this.data === 'change') await this.session.renamePerson(name);
      else await this.session.introduce(name);
      this.dialog.close(this.session.person()?.id);
    } catch (error) {
      this.error.set(errorText(error));
    }
  }
}
