import { ChangeDetectionStrategy, Component } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { Dialog } from '../ui/dialog';

/** Where a change of a shared stratum belongs: in all levels that share it, or in this one alone. */
export type Belongs = 'all' | 'one';

export interface ReachDialogData {
  readonly stratum: string;
  /** Names of all levels that share it. */
  readonly levels: readonly string[];
  /** The level that is open. */
  readonly level: string;
  /** Whether it can only be changed in all of them. */
  readonly isWhole?: boolean;
}

const MAX_NAMED = 12;

/** Asked before the first change of shared content: where it belongs. */
@Component({
  selector: 'sv-reach-dialog',
  imports: [MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ data.isWhole ? 'Change it in all levels?' : 'Which levels should change?' }}</h2>
    <mat-dialog-content>
      <p>{{ data.stratum }} is shared by {{ data.levels.length }} levels:</p>
      <ul>
        @for (level of named; track $index) {
          <li>{{ level }}</li>
        }
      </ul>
      @if (data.levels.length > named.length) {
        <p class="soft">and {{ data.levels.length - named.length }} more</p>
      }
      <p class="soft">
        @if (data.isWhole) {
          What a recipe makes is the same wherever its stratum is shared. To change it in {{ data.level }}, make a separate copy of {{ data.stratum }} on the Layout desk.
        } @else {
          For {{ data.level }} only, it becomes a local change: the other levels stay as they are. Your choice is kept for this stratum until you change it below the strata.
        }
      </p>
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="chip" mat-dialog-close cdkFocusInitial>Cancel</button>
      @if (!data.isWhole) {
        <button class="chip" mat-dialog-close="one">{{ data.level }} only</button>
      }
      <button class="chip strong" mat-dialog-close="all">All {{ data.levels.length }} levels</button>
    </mat-dialog-actions>
  `,
  styles: `
    ul {
      columns: 2;
      margin: 8px 0;
      padding-left: 20px;
    }
    p.soft {
      margin-top: 8px;
    }
  `,
})
export class ReachDialog extends Dialog<ReachDialogData, Belongs> {
  static readonly size = { width: '520px' };
  readonly named = this.data.levels.slice(0, MAX_NAMED);
}
