import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { StratumRole } from '@stravel/core';
import { ColumnSection } from './column-section';

/** A stratum with a figure of it. */
export interface StratumLine {
  readonly id: string;
  readonly name: string;
  readonly role: StratumRole;
  readonly text: string;
  /** Of the largest, 0 to 1. */
  readonly share: number;
  readonly note?: string;
}

/** The strata of the level with what is counted of each on this desk, top first. */
@Component({
  selector: 'sv-strata-list',
  imports: [ColumnSection],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-section heading="Strata" [note]="unit()">
      <ul>
        @for (line of lines(); track line.id) {
          <li [title]="line.note ?? ''">
            <i [class]="'role role-' + line.role"></i>
            <span [title]="line.name">{{ line.name }}</span>
            <span class="mono">{{ line.text }}</span>
            <b><i [style.width.%]="line.share * 100"></i></b>
          </li>
        } @empty {
          <li class="soft">No strata yet. Make one in Layout.</li>
        }
      </ul>
    </sv-section>
  `,
  styleUrl: './strata-list.scss',
})
export class StrataList {
  readonly lines = input.required<readonly StratumLine[]>();
  readonly unit = input('');
}
