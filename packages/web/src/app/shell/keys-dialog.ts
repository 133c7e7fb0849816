import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';

/** One group of keys, by the desk that listens. */
const KEYS: readonly { readonly where: string; readonly keys: readonly (readonly [string, string])[] }[] = [
  {
    where: 'Everywhere',
    keys: [
      ['/', 'find anything by its name'],
      ['?', 'this list'],
      ['Ctrl Z', 'undo'],
      ['Ctrl Shift Z', 'redo'],
      ['Alt 1 … 8', 'go to a desk'],
      ['Esc', 'close, let go'],
    ],
  },
  {
    where: 'Sets',
    keys: [
      ['↑ ↓ ← →', 'move between cells'],
      ['Enter', 'edit the cell, keep what was typed'],
      ['Shift ↑ ↓ ← →', 'reach over cells'],
      ['Ctrl C, Ctrl V', 'copy and paste cells, also to and from a spreadsheet'],
      ['Ctrl Enter', 'fill down'],
      ['Space', 'choose the row'],
      ['Alt ↑ ↓', 'move the row'],
      ['Ctrl D', 'duplicate'],
      ['Delete', 'to the bin'],
    ],
  },
  {
    where: 'Layout',
    keys: [
      ['S', 'select'],
      ['B W C P', 'draw a box, wedge, cylinder or prism'],
      ['L', 'place a piece'],
      ['M', 'set a marker'],
      ['V', 'draw a volume'],
      ['K', 'draw a path, Enter ends it'],
      ['T', 'paint tiles'],
      ['X', 'paint a mask'],
      ['R', 'move a region'],
      ['Ctrl C X V', 'copy, cut, paste at the same place'],
      ['← ↑ → ↓', 'nudge by a grid step'],
      ['PgUp PgDn', 'raise, lower by a grid step'],
      ['Q E', 'turn by 15°'],
      ['Ctrl D', 'duplicate'],
      ['Delete', 'delete'],
      ['Alt (held)', 'no snapping'],
      ['F', 'frame the selection'],
      ['[ ]', 'storey down, up'],
    ],
  },
  {
    where: 'Sections',
    keys: [
      ['G', 'another seed'],
      ['← ↑ → ↓', 'nudge the wall in hand'],
      ['Delete', 'hide the wall in hand'],
      ['Esc', 'cancel, let go'],
    ],
  },
  {
    where: 'Cells',
    keys: [
      ['P', 'draw a path'],
      ['Enter', 'keep the path'],
      ['R', 'rehearse'],
      ['Esc', 'cancel, let go'],
    ],
  },
  {
    where: 'Detail',
    keys: [
      ['B', 'build the chain of the piece'],
      ['0 … 9', 'show a step'],
      ['W', 'edges on, off'],
    ],
  },
  {
    where: 'Pack',
    keys: [
      ['C', 'check'],
      ['P', 'pack'],
    ],
  },
  {
    where: 'Sight',
    keys: [
      ['D', 'draw a divider'],
      ['B', 'bake'],
      ['[ ]', 'storey down, up'],
    ],
  },
];

/** All keys on one sheet. */
@Component({
  selector: 'sv-keys-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Keys</h2>
    <mat-dialog-content>
      <div class="sheet">
        @for (group of groups; track group.where) {
          <section>
            <h3>{{ group.where }}</h3>
            <dl>
              @for (row of group.keys; track row[0]) {
                <dt>
                  <kbd>{{ row[0] }}</kbd>
                </dt>
                <dd>{{ row[1] }}</dd>
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
      columns: 2;
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
export class KeysDialog {
  readonly groups = KEYS;
}
