import { ChangeDetectionStrategy, Component } from '@angular/core';
import type { ItemRef } from '../../store/layout-store';
import { SheetHead } from '../../../../level-desk/sheet-head';
import { Sheet } from '../../../../level-desk/sheets';

export interface DistanceLine {
  readonly ref: ItemRef;
  readonly name: string;
  readonly metres: number;
}

export interface DistancesData {
  readonly path: string;
  /** Farthest first. */
  readonly lines: readonly DistanceLine[];
  readonly goTo: (ref: ItemRef) => void;
}

/** How far markers stand from a path, as a list with bars. */
@Component({
  selector: 'sv-distances-sheet',
  imports: [SheetHead],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-sheet-head [heading]="'Distance from ' + data.path" (left)="close()" />
    <div class="body">
      <table>
        @for (line of data.lines; track line.ref.id) {
          <tr>
            <td>
              <button class="plain" (click)="leaveTo(line.ref)">{{ line.name }}</button>
            </td>
            <td class="mono">{{ line.metres.toFixed(1) }} m</td>
            <td class="bar"><i [style.width.%]="(line.metres / most) * 100"></i></td>
          </tr>
        } @empty {
          <tr>
            <td class="soft">The level has no markers yet.</td>
          </tr>
        }
      </table>
    </div>
  `,
  styleUrl: '../../../../level-desk/sheet.scss',
  styles: `
    table {
      width: 100%;
    }
    td {
      padding: 3px 8px 3px 0;
    }
    .bar {
      width: 35%;
    }
    .bar i {
      display: block;
      height: 8px;
      background: var(--cost-mid);
    }
  `,
})
export class DistancesSheet extends Sheet<DistancesData> {
  readonly most = Math.max(1e-9, ...this.data.lines.map(({ metres }) => metres));

  leaveTo(ref: ItemRef): void {
    this.data.goTo(ref);
  }
}
