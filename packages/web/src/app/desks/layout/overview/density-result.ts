import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { ColumnSection } from '../../../level-desk/column-section';
import { LevelView } from '../../../plate/level-view';
import { LayoutDesk } from '../editing/layout-desk';
import { OverviewDesk, type RegionLine } from './overview-desk';

/** Where things crowd, and where nothing is, while their density is shown. */
@Component({
  selector: 'sv-density-result',
  imports: [ColumnSection],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (overview.shown()) {
      <sv-section heading="Density">
        <button head class="plain" (click)="overview.choose()">Change…</button>
        <ul aria-label="Outliers">
          @for (region of overview.regions(); track $index) {
            <li>
              <button class="plain" (click)="goTo(region)">{{ region.text }}</button>
            </li>
          } @empty {
            <li class="soft">Nothing is crowded, and nothing is empty.</li>
          }
        </ul>
      </sv-section>
    }
  `,
  styles: `
    :host {
      display: contents;
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
      font-size: 12.5px;
    }
  `,
})
export class DensityResult {
  private readonly range = inject(LevelView).range;
  private readonly desk = inject(LayoutDesk);
  readonly overview = inject(OverviewDesk);

  goTo({ low: [x0, z0], high: [x1, z1] }: RegionLine): void {
    const { bottom, top } = this.range();
    this.desk.plate()?.frame({ min: [x0, bottom, z0], max: [x1, top, z1] });
  }
}
