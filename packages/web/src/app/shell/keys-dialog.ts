import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { DESKS } from '../desk/desk';
import { keyLines } from '../desk/keys';
import { EVERYWHERE, deskNumbers } from './everywhere';
import { Dialog } from '../ui/dialog';

/** All keys on one sheet. */
@Component({
  selector: 'sv-keys-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Shortcuts</h2>
    <mat-dialog-content>
      <div class="sheet">
        @for (group of groups; track group.label) {
          <section>
            <h3>{{ group.label }}</h3>
            <dl>
              @for (line of group.lines; track line.keys) {
                <dt>
                  <kbd>{{ line.keys }}</kbd>
                </dt>
                <dd>{{ line.text }}</dd>
              }
            </dl>
          </section>
        }
      </div>
    </mat-dialog-content>
    <mat-dialog-actions><button class="chip" mat-dialog-close>Close</button></mat-dialog-actions>
  `,
  styles: `
    .sheet {
      columns: 3;
      column-gap: 36px;
    }
    section {
      break-inside: avoid;
      margin-bottom: 16px;
    }
    dl {
      display: grid;
      grid-template-columns: 110px 1fr;
      gap: 3px 10px;
      margin: 6px 0 0;
    }
    dd {
      margin: 0;
    }
  `,
})
export class KeysDialog extends Dialog {
  static readonly size = { width: '1040px', maxWidth: '94vw' };
  private readonly desks = inject(DESKS);
  readonly groups = [
    { label: EVERYWHERE.label, lines: [...keyLines(deskNumbers(this.desks)), ...keyLines(EVERYWHERE)] },
    ...this.desks.map((desk) => ({ label: desk.label, lines: keyLines(desk) })),
  ].filter(({ lines }) => lines.length > 0);
}
