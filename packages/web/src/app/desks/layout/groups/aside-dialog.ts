import { ChangeDetectionStrategy, Component, type Signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { Dialog } from '../../../ui/dialog';
import { CountedPipe } from '../../../ui/counted-pipe';

/** A group that is set aside. */
export interface AsideLine {
  readonly id: string;
  readonly stratum: string;
  readonly name: string;
  readonly reason: string;
  readonly since: string;
  readonly days: number;
  readonly isOld: boolean;
  readonly count: number;
}

export interface AsideData {
  readonly level: string;
  /** Longest first. */
  readonly lines: Signal<readonly AsideLine[]>;
  readonly bringBack: (line: AsideLine) => void;
}

/** What of a level is set aside, with reason and age. */
@Component({
  selector: 'sv-aside-dialog',
  imports: [CountedPipe, MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Parked in {{ data.level }}</h2>
    <mat-dialog-content>
      <p class="soft">Kept, but not part of the level: no bake, budget or pack counts it.</p>
      <table>
        @for (line of data.lines(); track line.id) {
          <tr>
            <td>
              {{ line.name }} <span class="soft">{{ line.count | counted: 'object' }}</span>
            </td>
            <td>{{ line.reason }}</td>
            <td [class.near]="line.isOld">since {{ line.since }}, {{ line.days | counted: 'day' }}{{ line.isOld ? ': still needed?' : '' }}</td>
            <td><button class="chip" [attr.aria-label]="'Unpark ' + line.name" (click)="data.bringBack(line)">Unpark</button></td>
          </tr>
        } @empty {
          <tr>
            <td class="soft">Nothing is parked.</td>
          </tr>
        }
      </table>
    </mat-dialog-content>
    <mat-dialog-actions><button class="chip strong" mat-dialog-close cdkFocusInitial>Close</button></mat-dialog-actions>
  `,
  styleUrl: '../../../ui/dialog-table.scss',
})
export class AsideDialog extends Dialog<AsideData> {
  static readonly size = { width: '720px', maxWidth: '94vw' };
}
