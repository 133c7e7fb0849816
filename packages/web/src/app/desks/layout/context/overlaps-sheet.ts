import { ChangeDetectionStrategy, Component } from '@angular/core';
import type { Overlap, SameContent } from '@stravel/core';
import { SheetHead } from '../../../level-desk/sheet-head';
import { Sheet } from '../../../level-desk/sheets';

export interface OverlapsData {
  readonly overlaps: readonly Overlap[];
  readonly same: readonly SameContent[];
  readonly levelName: (id: string) => string;
  readonly stratumName: (id: string) => string;
  readonly pieceName: (id: string) => string;
  readonly goTo: (stratum: string, id: string) => void;
  /** Keeps the lowest of the stack and removes the others. */
  readonly removeSame: (same: SameContent) => void;
}

/** What fills the same space twice: blocks of other strata or levels, and pieces that stand in a level twice. */
@Component({
  selector: 'sv-overlaps-sheet',
  imports: [SheetHead],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-sheet-head heading="Overlaps" (left)="close()" />
    <div class="body">
      <h4>Duplicates: same piece, same place</h4>
      <table>
        @for (one of data.same; track one.items[0].id) {
          <tr>
            <td>{{ data.pieceName(one.piece) }}</td>
            <td>{{ strataOf(one) }}</td>
            <td><button class="chip" (click)="leaveTo(one.items[0].stratum, one.items[0].id)">Go to</button></td>
            <td><button class="chip" (click)="removed(one)">Keep the lowest only</button></td>
          </tr>
        } @empty {
          <tr>
            <td class="soft">None in this level.</td>
          </tr>
        }
      </table>
      <h4>Overlapping blocks</h4>
      <table>
        @for (one of data.overlaps; track $index) {
          <tr>
            <td>{{ nameOf(one.first) }}</td>
            <td>{{ nameOf(one.second) }}</td>
            <td class="mono">{{ one.cubicMetres.toFixed(2) }} m³</td>
            <td><button class="chip" (click)="leaveTo(one.first.stratum, one.first.id)">Go to</button></td>
          </tr>
        } @empty {
          <tr>
            <td class="soft">None between its strata, or with the other levels shown.</td>
          </tr>
        }
      </table>
    </div>
  `,
  styleUrls: ['../../../ui/dialog-table.scss', '../../../level-desk/sheet.scss'],
})
export class OverlapsSheet extends Sheet<OverlapsData> {
  nameOf({ name, level, stratum }: Overlap['first']): string {
    return `${name || 'block'} · ${this.data.stratumName(stratum)} of ${this.data.levelName(level)}`;
  }

  strataOf({ items }: SameContent): string {
    return (
      [...new Set(items.map(({ stratum }) => this.data.stratumName(stratum)))].join(' and ') +
      (items.length > 2 ? `, ${items.length} times` : '')
    );
  }

  leaveTo(stratum: string, id: string): void {
    this.data.goTo(stratum, id);
  }

  removed(same: SameContent): void {
    this.close();
    this.data.removeSame(same);
  }
}
