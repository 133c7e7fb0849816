import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { countText } from '../../../ui/amount';
import { ColumnSection } from '../../../level-desk/column-section';
import { LimitBar } from '../../../ui/limit-bar';

/** One line of the card: a count and its share. */
export interface FromHereRow {
  readonly name: string;
  readonly value: number;
  readonly share: number;
  readonly tone: 'stone' | 'brine' | 'kiln';
  /** Whether its share is of a limit. */
  readonly hasLimit?: boolean;
}

/** What is seen from where one stands, all round. */
@Component({
  selector: 'sv-from-here',
  imports: [ColumnSection, LimitBar],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <sv-section heading="From here" about="sight/from-here" what="from here" [note]="limit()">
    <p class="mono soft">{{ where() }}</p>
    <dl>
      @for (row of rows(); track row.name) {
        <dt>{{ row.name }}</dt>
        @if (row.hasLimit) {
          <dd><sv-limit-bar [share]="row.share" /></dd>
        } @else {
          <dd class="bar"><i [class]="row.tone" [style.width.%]="row.share * 100"></i></dd>
        }
        <dd class="figure" [class.over]="row.hasLimit === true && row.share > 1">{{ text(row.value) }}</dd>
      }
    </dl>
    </sv-section>
  `,
  styles: `
    dl {
      display: grid;
      grid-template-columns: auto minmax(0, 1fr) auto;
      gap: 4px 10px;
      align-items: center;
      margin: 0;
    }
    dd {
      margin: 0;
    }
    .bar {
      height: 8px;
      background: color-mix(in srgb, var(--line) 45%, transparent);
    }
    .bar i {
      display: block;
      height: 100%;
    }
    .stone {
      background: var(--role-light);
    }
    .brine {
      background: var(--brine);
    }
    .kiln {
      background: var(--kiln);
    }
  `,
})
export class FromHere {
  readonly where = input.required<string>();
  readonly rows = input.required<readonly FromHereRow[]>();
  readonly limit = input('');
  readonly text = countText;
}
